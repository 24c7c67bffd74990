"""The picture as an instrument: steps moved, put back, refused; collisions and remedies seen."""

import json
import random
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest

from pantry_core.formats.operations import plan_document
from pantry_core.plan import solve
from pantry_web.demo.kitchen import BRISKET, lay_the_table
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.models import Dish, Feast
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning import solving
from tests.reference.feast_rules import broken_rules_of
from tests.web.conftest import feast_outlook

ZONE = ZoneInfo("Europe/London")


@pytest.fixture
def lantern(quince, feast):
    lay_the_table(quince, feast)
    return feast


def looked_at(feast):
    """The feast as it stands, its plan worked out."""
    kitchen = Kitchen.objects.get(pk=feast.kitchen_id)
    whole = feast_outlook(Feast.objects.get(pk=feast.pk), kitchen, kitchen.stands_at)
    if whole.solving is not None:
        solving.work_out_plan.call(whole.solving.pk)
        return looked_at(feast)
    return whole


def starts(whole):
    return {(each.dish, each.step): each.start for each in whole.plan.steps}


def typed(moment):
    return f"{moment.astimezone(ZONE):%Y-%m-%dT%H:%M}"


def move(cook, feast, dish, step, moment, **more):
    version = more.pop("version", Feast.objects.get(pk=feast.pk).version)
    begin = moment if isinstance(moment, str) else typed(moment)
    address = f"/dishes/{dish}/passage/{step}/move/"
    return cook.post(address, {"begin": begin, "version": version, **more})


def movable(whole):
    """A step with hours of slack, and its planned times."""
    return next(each for each in whole.plan.steps if each.step == "dry-brine")


def test_a_step_moved_within_its_slack_stays_there_and_undo_brings_all_back(cook, lantern):
    whole = looked_at(lantern)
    before, step = starts(whole), movable(whole)
    assert step.slack_h >= 2
    to = step.start + timedelta(hours=1)
    answer = move(cook, lantern, step.dish, step.step, to)
    assert answer.status_code == 302
    after = looked_at(lantern)
    assert starts(after)[step.dish, step.step] == to
    document = after.plan_documents[0]
    assert broken_rules_of(document, plan_document(document)) == []
    page = cook.get(answer["Location"]).content.decode()
    assert "begins Sun 21 Mar" in page
    assert "Undo" in page
    assert 'class="before' in page
    assert 'class="lock"' in page
    undone = move(cook, lantern, step.dish, step.step, "", undo="1")
    assert undone.status_code == 302
    assert starts(looked_at(lantern)) == before


def test_what_has_to_make_way_for_it_is_told_before_and_after(cook, lantern):
    whole = looked_at(lantern)
    step = next(e for e in whole.plan.steps if e.step == "roast" and e.slack_h >= 1)
    before, to = starts(whole), step.start + timedelta(hours=step.slack_h)
    tried = cook.get(f"/dishes/{step.dish}/passage/{step.step}/", {"begin": typed(to)},
                     headers={"X-Part": "step"}).content.decode()  # fmt: skip
    assert "These would have to move:" in tried
    assert "<html" not in tried
    assert starts(looked_at(lantern)) == before  # nothing was kept
    answer = move(cook, lantern, step.dish, step.step, to)
    after = starts(looked_at(lantern))
    moved = {key for key in after if after[key] != before.get(key)}
    assert len(moved) > 1
    assert "With it moved:" in cook.get(answer["Location"]).content.decode()


def test_what_takes_no_time_does_not_fall_away(cook, feast):
    whole = looked_at(feast)
    taken = [e for e in whole.plan.steps if e.end > e.start]
    assert len(taken) < len(whole.plan.steps)
    step = next(each for each in taken if each.slack_h >= 1)
    to = step.start + timedelta(minutes=15)
    tried = cook.get(f"/dishes/{step.dish}/passage/{step.step}/", {"begin": typed(to)},
                     headers={"X-Part": "step"}).content.decode()  # fmt: skip
    assert "It can begin" in tried
    assert "falls away" not in tried


@pytest.mark.parametrize(
    ("named", "hour", "why"),
    [
        ("dry-brine", "2027-03-17T12:00", "That hour has passed"),
        ("dry-brine", "2027-03-23T12:00", "It is eaten by then"),
        ("carve", "2027-03-22T09:00", "Whatever else moves, it begins between"),
        ("buy", "2027-03-21T12:00", "shut"),
        ("dry-brine", "no hour", "is no time; use one like"),
        ("dry-brine", "2027-03-28T01:30", "01:30 does not exist on 28 March 2027"),
    ],
)
def test_a_move_that_cannot_be_says_why_and_changes_nothing(cook, lantern, named, hour, why):
    whole = looked_at(lantern)
    dish = next(each.dish for each in whole.plan.steps if each.step == "dry-brine")
    before = starts(whole)
    version = Feast.objects.get(pk=lantern.pk).version
    answer = move(cook, lantern, dish, named, hour)
    assert answer.status_code == 422
    page = answer.content.decode()
    assert why in page
    assert f'value="{hour}"' in page  # what was typed stays
    assert Feast.objects.get(pk=lantern.pk).version == version
    assert starts(looked_at(lantern)) == before


def test_what_has_begun_is_not_moved_and_an_unknown_step_is_not_found(cook, lantern):
    looked_at(lantern)
    gammon = lantern.dishes.get(name="Treacle gammon")
    begun = move(cook, lantern, gammon.pk, "brine", "2027-03-20T12:00")
    assert begun.status_code == 422
    assert "has begun: the past stays as it was" in begun.content.decode()
    assert cook.get(f"/dishes/{gammon.pk}/passage/no-such-step/").status_code == 404
    assert move(cook, lantern, gammon.pk, "no-such-step", "2027-03-20T12:00").status_code == 404


def test_of_two_cooks_who_drag_at_once_the_second_is_told(cook, lantern):
    step = movable(looked_at(lantern))
    seen = Feast.objects.get(pk=lantern.pk).version
    to = step.start + timedelta(hours=1)
    assert move(cook, lantern, step.dish, step.step, to, version=seen).status_code == 302
    late = move(
        cook, lantern, step.dish, step.step, to + timedelta(hours=1), version=seen, of="dish"
    )
    assert late.status_code == 422
    page = late.content.decode()
    assert "Somebody has changed this feast" in page
    assert f'value="{typed(to + timedelta(hours=1))}"' in page
    assert starts(looked_at(lantern))[step.dish, step.step] == to


def test_on_the_night_the_clocks_go_back_an_hour_that_exists_twice_is_told_by_its_instant(
    cook, quince
):
    feast = Feast.objects.create(
        kitchen=quince, name="Late Supper", serve_at=datetime(2027, 10, 31, 18, tzinfo=UTC),
        time_zone="Europe/London", heads=6,
    )  # fmt: skip
    dish = add_dish(feast, "Night bread", {"job": {"name": "dough", "made_g": 900.0, "steps": [
        {"id": "rise", "title": "Rise", "kind": "rest", "place": "fridge", "min_h": 8.0,
         "prefer_h": 12.0, "max_h": 30.0},
        {"id": "bake", "title": "Bake", "kind": "roast", "place": "oven", "min_h": 1.0,
         "max_h": 1.0, "hands_min": 15.0},
    ]}})  # fmt: skip
    looked_at(feast)
    for told in ("2027-10-31T00:30:00.000Z", "2027-10-31T01:30:00.000Z"):
        answer = move(cook, feast, dish.pk, "rise", told)
        assert answer.status_code == 302, answer.content.decode()
        begun = starts(looked_at(feast))[str(dish.pk), "rise"]
        assert begun == datetime.fromisoformat(told)
        assert f"{begun.astimezone(ZONE):%H:%M}" == "01:30"  # both times the clock says so


def test_a_lock_is_let_go_and_what_was_put_where_it_was_is_fixed(cook, lantern):
    step = movable(looked_at(lantern))
    move(cook, lantern, step.dish, step.step, step.start)
    locked = Dish.objects.get(pk=step.dish).document["edits"]
    assert [datetime.fromisoformat(each["locked_start"]) for each in locked] == [step.start]
    page = cook.get(f"/dishes/{step.dish}/passage/{step.step}/").content.decode()
    assert "Fixed to its hour." in page
    move(cook, lantern, step.dish, step.step, "")
    assert "edits" not in Dish.objects.get(pk=step.dish).document


def test_a_plan_that_is_not_proven_is_gone_by_and_looked_into_further(cook, lantern, monkeypatch):
    plan = solve.plan
    monkeypatch.setattr(
        solve, "plan", lambda *a, **k: replace(plan(*a, **k), status="feasible", gap=0.1)
    )
    step, behind = movable(looked_at(lantern)), []
    monkeypatch.setattr(type(solving.work_out_plan), "enqueue", lambda _, pk: behind.append(pk))
    to = step.start + timedelta(hours=1)
    answer = move(cook, lantern, step.dish, step.step, to)
    monkeypatch.setattr(solve, "plan", plan)
    page = cook.get(answer["Location"]).content.decode()
    assert "still being looked into" in page
    kitchen = Kitchen.objects.get(pk=lantern.kitchen_id)
    whole = feast_outlook(Feast.objects.get(pk=lantern.pk), kitchen, kitchen.stands_at)
    assert not whole.is_proven
    assert starts(whole)[step.dish, step.step] == to
    assert behind == [kitchen.work.get(key=whole.standing.asked.key).pk]
    solving.work_out_plan.call(behind[0])
    proven = feast_outlook(Feast.objects.get(pk=lantern.pk), kitchen, kitchen.stands_at)
    assert proven.is_proven
    assert starts(proven)[step.dish, step.step] == to
    assert "still being looked into" not in cook.get(answer["Location"]).content.decode()


def test_what_collides_is_drawn_where_it_is_and_a_remedy_is_laid_over_it(cook, quince, lantern):
    quince.places.filter(name="oven").update(capacity=1)
    whole = looked_at(lantern)
    assert whole.breaks
    page = cook.get(f"/feasts/{lantern.pk}/passage/").content.decode()
    assert page.count("ribbon ahead wrong") == 2 * len(whole.against)
    assert "This one breaks least:" in page
    assert "too full" not in page
    assert "Hour not known yet" not in page
    offered = cook.get(f"/feasts/{lantern.pk}/helps/")
    code = next(e.code for e in offered.context["remedies"] if "Make room" in e.text)
    seen = cook.get(f"/feasts/{lantern.pk}/passage/", {"remedy": code}).content.decode()
    assert "As it would be:" in seen
    assert 'class="before' in seen
    assert "wrong" not in seen
    assert "too full" not in seen
    # what a remedy shows is what is planned once it is taken
    shown = next(e.plan for e in offered.context["remedies"] if e.code == code)
    cook.post(f"/feasts/{lantern.pk}/helps/{code}/", {"version": lantern.version})
    assert {(e.dish, e.step) for e in shown.steps} == set(starts(looked_at(lantern)))


def test_a_dish_that_is_too_late_is_drawn_past_the_feast(cook, quince):
    supper = Feast.objects.create(
        kitchen=quince, name="Rook Supper", serve_at=datetime(2027, 3, 19, 18, tzinfo=UTC),
        time_zone="Europe/London", heads=6,
    )  # fmt: skip
    dish = add_dish(supper, "Peppered brisket", BRISKET)
    whole = looked_at(supper)
    assert whole.plan.status == "infeasible"
    drawn = cook.get(f"/feasts/{supper.pk}/passage/").context["picture"].wide
    feet = [each.y + each.height for each in drawn.ribbons if each.chain.dish == str(dish.pk)]
    assert max(feet) > drawn.serve[0]


def test_the_span_is_a_feast_a_dish_or_a_day(cook, lantern):
    looked_at(lantern)
    gammon = lantern.dishes.get(name="Treacle gammon")
    address = f"/feasts/{lantern.pk}/passage/"
    to_dish = cook.get(address, {"span": "1"})
    assert to_dish.status_code == 302
    assert "/passage/" in to_dish["Location"]
    named = cook.get(address, {"span": "1", "dish": str(gammon.pk)})
    assert named["Location"] == f"/dishes/{gammon.pk}/passage/"
    day = cook.get(address, {"day": "2027-03-22"})
    assert [row.day.isoformat() for row in day.context["picture"].wide.rows] == ["2027-03-22"]
    assert all(each.date.isoformat() == "2027-03-22" for each in day.context["picture"].days)
    assert cook.get(address, {"span": "2"}).context["place"].day.isoformat() == "2027-03-18"
    for nonsense in ({"span": "9"}, {"day": "Monday"}, {"day": "9999-12-31"}, {"remedy": "x"},
                     {"moved": "1.x"}, {"moved": "x"}, {"span": "1", "dish": "x"}):  # fmt: skip
        assert cook.get(address, nonsense).status_code in (200, 302)


def test_every_ribbon_says_whole_what_it_is_and_every_number_is_in_the_words(cook, lantern):
    looked_at(lantern)
    drawn = cook.get(f"/feasts/{lantern.pk}/passage/").context["picture"]
    numbers = {(e.chain.dish, e.key): e.number for e in drawn.wide.ribbons if e.number}
    told = {(line.view.key, line.key): line.number for day in drawn.days for line in day.lines}
    trips = [line for day in drawn.days for line in day.lines if line.is_trip]
    assert len(trips) == 1
    assert len(trips[0].together) == 4
    ahead = {key: number for key, number in numbers.items() if key[1] not in ("buy", "carve")}
    assert ahead.items() <= told.items()
    zone = ZoneInfo(lantern.time_zone)
    in_picture = {
        (each.stay.start.astimezone(zone).date(), each.number)
        for each in drawn.wide.ribbons
        if each.number and each.stay.state == "ahead"
    }
    in_words = {(day.date, line.number) for day in drawn.days for line in day.lines if line.number}
    assert in_picture == in_words  # one for all that goes on the table together
    hours = [line.at for day in drawn.days for line in day.lines]
    assert hours == sorted(hours)
    pairs = json.loads(drawn.scale)
    assert pairs == sorted(pairs)


def test_forty_dishes_are_drawn(cook, quince):
    dice = random.Random(4)
    many = Feast.objects.create(
        kitchen=quince, name="Hundred Hands", serve_at=datetime(2027, 4, 4, 18, tzinfo=UTC),
        time_zone="Europe/London", heads=90,
    )  # fmt: skip
    for n in range(40):
        job = {"name": f"Side {n}", "made_g": 500.0 + dice.randint(0, 900)}
        add_dish(many, f"Side {n}", {"job": job})
    quince.cooks = 20
    quince.save()
    quince.places.update(capacity=60)
    whole = looked_at(many)
    assert whole.plan.steps
    page = cook.get(f"/feasts/{many.pk}/passage/")
    assert page.status_code == 200
    assert len(page.context["views"]) == 40
    assert 'tabindex="0" role="region"' in page.content.decode()  # it is moved by keys as well
