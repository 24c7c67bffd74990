"""One list of notices: what the core says of a dish stands on each of nine pages."""

import random
import re
from datetime import UTC, datetime, timedelta
from html import unescape
from uuid import uuid4

import pytest
from icalendar import Calendar

from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import dish as core_dish
from pantry_core.mixes.standing import EVERY_DISH_CODES
from pantry_web.feasts.models import Dish, Event, Feast, Mishap
from pantry_web.kitchens.models import Cook
from tests.reference.dishes import random_dish

DISHES, PARTS, A_FEAST = 18, 2, 2
OF_A_DISH = ("mix", "steps", "passage", "label", "weighing")
NOTICE = re.compile(r'data-notice="([^"]*)" data-level="([^"]*)" data-step="([^"]*)"')


def write_facts(chance, dish, by, now):
    """Something that happened: bought, put in, read."""
    if chance.random() < 0.5:
        return
    bought = now - timedelta(hours=chance.choice([3, 30, 130, 400]))
    told = [("step-started", "buy", bought, None), ("step-ended", "buy", bought, None)]
    if chance.random() < 0.4:
        told.append(("temperature-read", "make-brine", now, chance.choice([3.0, 4.6, 9.0])))
    for what, step, at, read in told:
        Event.objects.create(dish=dish, batch=uuid4(), what=what, at=at, by=by, step_key=step,
                             temperature_c=read)  # fmt: skip
    if chance.random() < 0.2:
        hours = chance.choice([1, 3])
        Mishap.objects.create(kitchen=dish.feast.kitchen, dish=dish, kind="left-out", by=by,
                              begins=now - timedelta(hours=hours), ends=now)  # fmt: skip


def house(kitchen):
    return {
        "scales": [{"name": each.name, "division_g": each.division_g,
                    "capacity_g": each.capacity_g} for each in kitchen.scales.all()],
        "packets": [{"name": "cure-1", "nitrite_pct": None}],
    }  # fmt: skip


def asked_of_the_core(dish, plan, now):
    """The `dish` document, written down without the application's help."""
    facts = [
        {name: value for name, value in (
            ("what", e.what), ("at", e.at.isoformat()), ("step", e.step_key or None),
            ("temperature_c", e.temperature_c)) if value is not None}
        for e in dish.events.all()
    ]  # fmt: skip
    facts += [
        {"what": "mishap", "at": e.begins.isoformat(), "kind": e.kind,
         "hours": (e.ends - e.begins) / timedelta(hours=1)}
        for e in dish.mishaps.all()
    ]  # fmt: skip
    planned = [
        {"step": e.step, "start": e.start.isoformat(), "end": e.end.isoformat()}
        for e in (plan.steps if plan else ())
    ]
    at_the_quarter = now.replace(minute=now.minute // 15 * 15)
    latest = max((datetime.fromisoformat(each["at"]) for each in facts), default=at_the_quarter)
    return {**dish.document, "profile": "us", "people": dish.feast.heads,
            "house": house(dish.feast.kitchen), "facts": facts, "planned": planned,
            "tz": "Europe/London", "now": max(at_the_quarter, latest).isoformat()}  # fmt: skip


def expected(dish, plan, now):
    out = core_dish(DishRequest.model_validate(asked_of_the_core(dish, plan, now)))
    return {(each.code, each.level, each.step or "") for each in out.notices}


def on_page(page):
    return {tuple(map(unescape, found)) for found in NOTICE.findall(page)}


def by_dish(page):
    """The notices of a page of several dishes, by dish."""
    found = {}
    for part in re.split(r'(?=data-dish=")', page)[1:]:
        found.setdefault(int(re.match(r'data-dish="(\d+)"', part)[1]), set()).update(on_page(part))
    return found


def in_calendar(content):
    said = Calendar.from_ical(content).get("COMMENT", [])
    said = said if isinstance(said, list) else [said]
    return {(e.params["X-CODE"], e.params["X-LEVEL"], e.params.get("X-STEP", "")) for e in said}


def of_its_own(said):
    """What is said of a dish alone: the handbook and the sheet tell what every dish is told."""
    return {each for each in said if each[0] not in EVERY_DISH_CODES}


@pytest.mark.parametrize("part", range(PARTS))
def test_each_page_says_what_the_core_says(cook, quince, part):
    chance, now = random.Random(f"lantern-{part}"), quince.stands_at
    by = Cook.objects.get(username="quince")
    quince.shop_hours = quince.work_hours = [{"from": "00:00", "to": "24:00"}]
    quince.save()
    Feast.objects.filter(kitchen=quince).update(serve_at=datetime(2020, 1, 1, tzinfo=UTC))
    feasts = []
    for n in range(DISHES // PARTS // A_FEAST):
        feast = Feast.objects.create(
            kitchen=quince, name=f"Feast {n}", time_zone="Europe/London", heads=4,
            serve_at=datetime(2027, 3, 19, 18, tzinfo=UTC) + timedelta(days=chance.randint(0, 25)),
        )  # fmt: skip
        for k in range(A_FEAST):
            dish = Dish.objects.create(feast=feast, name=f"Dish {k}", document=random_dish(chance))
            write_facts(chance, dish, by, now)
        feasts.append(feast)
    wanted, seen = {}, 0
    for feast in feasts:
        page = cook.get(f"/feasts/{feast.pk}/")
        plans = {view.dish.pk: view.plan for view in page.context["whole"].dishes}
        for dish in feast.dishes.all():
            wanted[dish.pk] = expected(dish, plans[dish.pk], now)
            for name in OF_A_DISH:
                answer = cook.get(f"/dishes/{dish.pk}/{name}/")
                assert answer.status_code == 200, (name, dish.document)
                said = wanted[dish.pk] if name == "mix" else of_its_own(wanted[dish.pk])
                assert on_page(answer.content.decode()) == said, (name, dish.document)
            calendar = cook.get(f"/dishes/{dish.pk}/calendar.ics").content
            assert in_calendar(calendar) == wanted[dish.pk]
            seen += any(level == "stop" for _, level, _ in wanted[dish.pk])
        of_feast = {d.pk: of_its_own(wanted[d.pk]) for d in feast.dishes.all()}
        assert by_dish(page.content.decode()) == of_feast
    assert seen > len(wanted) / 10  # some of them are stopped
    found = {}
    for number in range(1, len(feasts) // 6 + 2):
        found |= by_dish(cook.get(f"/feasts/?page={number}").content.decode())
    assert found == {dish: of_its_own(said) for dish, said in wanted.items()}
