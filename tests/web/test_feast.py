"""Feasts of many dishes: one plan, what would help, what changed, out and in, another year."""

import json
import re
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test.utils import CaptureQueriesContext

from pantry_core.formats.operations import plan_document
from pantry_core.plan.request import PlanRequest
from pantry_web.background import queue
from pantry_web.background.models import Work
from pantry_web.demo.kitchen import BRISKET, lay_the_table
from pantry_web.feasts.actions.add_dish import MOST_DISHES, add_dish
from pantry_web.feasts.exchange import feast_document
from pantry_web.feasts.models import Dish, Feast, Mishap
from pantry_web.planning import answers, looking, method_options, solving
from pantry_web.steps.actions.change_step import change_step
from tests.reference.feast_rules import broken_rules_of
from tests.web.conftest import feast_outlook, steps_of
from tests.web.test_hours import DOUGH


def seen(feast):
    return {"version": Feast.objects.get(pk=feast.pk).version}


def text(answer):
    return answer.content.decode()


@pytest.fixture
def lantern(quince, feast):
    lay_the_table(quince, feast)
    return feast


@pytest.fixture
def supper(cook, quince):
    """A brisket whose brine would take longer than there is time."""
    found = Feast.objects.create(
        kitchen=quince, name="Rook Supper", serve_at=datetime(2027, 4, 4, 18, tzinfo=UTC),
        time_zone="Europe/London", heads=6,
    )  # fmt: skip
    add_dish(found, "Peppered brisket", BRISKET)
    return found


def test_five_dishes_have_one_plan_that_keeps_every_rule(cook, quince, lantern):
    page = text(cook.get(f"/feasts/{lantern.pk}/"))
    assert "Under way, and all is on the table in time." in page
    assert all(dish.name in page for dish in lantern.dishes.all())
    whole = feast_outlook(lantern, quince, quince.stands_at)
    asked = PlanRequest.model_validate(whole.plan_documents[0])
    document = asked.model_dump(mode="json", by_alias=True)
    answer = plan_document(document)
    assert broken_rules_of(document, answer) == []
    # two shelves: duck and goat want the oven at once, so the gammon's glaze makes way
    oven = [(each["start"], each["end"]) for each in answer["steps"]
            if each["step"] in ("glaze", "roast")]  # fmt: skip
    assert all(sum(a <= start < b for a, b in oven) <= 2 for start, _ in oven)
    picture = text(cook.get(f"/feasts/{lantern.pk}/passage/"))
    assert all(f"hatch-wide-{hue}" in picture for hue in range(5))


def test_queries_do_not_grow_with_the_dishes(cook, quince, feast):
    def count(path):
        cook.get(path)
        with CaptureQueriesContext(connection) as queries:
            assert cook.get(path).status_code == 200
        return len(queries)

    paths = (f"/feasts/{feast.pk}/", f"/feasts/{feast.pk}/passage/", "/shopping/", "/feasts/", "/")
    lay_the_table(quince, feast)
    of_five = [count(path) for path in paths]
    feast.dishes.filter(name__in=("Yoghurt goat", "Bay-salted duck", "Quick pickle")).delete()
    assert [count(path) for path in paths] == of_five


def test_what_would_help_is_taken_with_one_press(cook, quince, supper):
    page = cook.get(f"/feasts/{supper.pk}/helps/")
    assert "Not everything can be ready by then." in text(page)
    offered = {each.text: each for each in page.context["remedies"]}
    assert "Needle and brine for Peppered brisket." in offered
    assert any(name.startswith("Eat on") for name in offered)
    code = offered["Needle and brine for Peppered brisket."].code
    old = seen(supper)
    taken = cook.post(f"/feasts/{supper.pk}/helps/{code}/", old, follow=True)
    assert "Done: Needle and brine" in text(taken)
    assert "It can all be done" in text(taken)
    assert supper.dishes.get().cure["method"] == "needle-brine"
    # whoever presses on the page as it was is told, and nothing changes
    again = cook.post(f"/feasts/{supper.pk}/helps/{code}/", old, follow=True)
    assert "Somebody has changed this feast" in text(again)


@pytest.mark.parametrize("start", ["Eat on", "A thinner piece"])
def test_each_remedy_makes_only_its_own_change(cook, supper, start):
    page = cook.get(f"/feasts/{supper.pk}/helps/")
    remedy = next(each for each in page.context["remedies"] if each.text.startswith(start))
    before = feast_document(supper)
    cook.post(f"/feasts/{supper.pk}/helps/{remedy.code}/", seen(supper))
    after = feast_document(Feast.objects.get(pk=supper.pk))
    changed = {name for name in before if before[name] != after[name]}
    assert changed == ({"serve_at"} if start == "Eat on" else {"dishes"})


def test_a_plan_is_asked_the_same_by_whoever_reads_the_feast(cook, quince, lantern):
    """Of answers that this process worked out, and of those that another one stored."""
    gammon = lantern.dishes.get(name="Treacle gammon")
    job = DOUGH | {"job": "reduction", "made_from": [gammon.pk], "reduced_to": "0.2"}
    assert cook.post(f"/feasts/{lantern.pk}/job/", job).status_code == 302
    questions = [feast_outlook(lantern, quince, quince.stands_at).standing.asked]
    answers.forget()
    questions += [looking.feast_outlook(lantern, quince, quince.stands_at).standing.asked]
    waits = [step for dish in questions[0].document["dishes"] for step in dish["steps"]
             if "after" in step]  # fmt: skip
    assert waits
    assert questions[0].document == questions[1].document
    assert questions[0].key == questions[1].key


def test_what_a_dish_would_break_is_said_before_it_is_added(cook, feast):
    path, dishes = f"/feasts/{feast.pk}/dish/", feast.dishes.count()
    hock = {"name": "Late hock", "cut": "pork-hock", "mass": "1500 g", "method": "even-brine",
            "water": "2 l", "days": "20 days"}  # fmt: skip
    assert cook.post(f"/feasts/{feast.pk}/job/", DOUGH | {"job": "rice"}).status_code == 302
    refused = cook.post(path, hock)
    assert refused.status_code == 422
    assert "With this dish not everything can be ready on time." in text(refused)
    assert any("Late hock" in why for why in refused.context["against"])
    assert 'value="1500 g"' in text(refused)  # what was typed stays
    assert feast.dishes.count() == dishes + 1
    assert "all is on the table in time" in text(cook.get(f"/feasts/{feast.pk}/"))
    assert cook.post(path, hock | {"anyway": "1"}).status_code == 302
    assert feast.dishes.count() == dishes + 2
    # where the plan breaks something already, another dish is not asked about
    assert cook.post(path, hock | {"name": "Another"}).status_code == 302


def test_two_roasts_share_the_oven_at_one_temperature(cook, quince):
    feast = Feast.objects.create(
        kitchen=quince, name="Two roasts", serve_at="2027-04-18T17:30Z", heads=4,
        time_zone="Europe/London",
    )  # fmt: skip
    feast.refresh_from_db()
    for name, heat_c in (("Loin", 140.0), ("Bird", 200.0)):
        cut = "pork-loin" if name == "Loin" else "chicken"
        add_dish(feast, name, {
            "piece": {"cut": cut, "mass_g": 1900.0}, "cure": {"method": "none"},
            "heat": {"way": "roast", "medium_c": heat_c},
        })  # fmt: skip
    page = cook.get(f"/feasts/{feast.pk}/helps/")
    assert page.context["whole"].breaks
    remedy = next(each for each in page.context["remedies"] if " instead of " in each.text)
    cook.post(f"/feasts/{feast.pk}/helps/{remedy.code}/", seen(feast))
    assert "It can all be done" in text(cook.get(f"/feasts/{feast.pk}/"))
    whole = feast_outlook(Feast.objects.get(pk=feast.pk), quince, quince.stands_at)
    heats = [step.heat_c for view in whole.dishes for step in view.steps if step.heat_c]
    assert max(heats) - min(heats) <= 25.0
    assert all(f"{round(heat)} °C" in remedy.text for heat in heats if heat not in (140.0, 200.0))


def test_guests_an_hour_later_and_what_changed_is_shown(cook, quince, lantern):
    cook.get(f"/feasts/{lantern.pk}/")
    cook.post(f"/feasts/{lantern.pk}/keep/")
    assert "What changed" not in text(cook.get(f"/feasts/{lantern.pk}/"))
    kept = {(each["dish"], each["step"]): each["start"]
            for each in Feast.objects.get(pk=lantern.pk).kept_plan}  # fmt: skip
    typed = {"name": "Lantern Night", "date": "2027-03-22", "hour": "19:30", "heads": "8",
             "time_zone": "Europe/London", "note": ""}  # fmt: skip
    assert cook.post(f"/feasts/{lantern.pk}/", typed | seen(lantern)).status_code == 302
    page = text(cook.get(f"/feasts/{lantern.pk}/"))
    assert "What changed" in page
    assert "later: Mon 22 Mar" in page
    whole = feast_outlook(Feast.objects.get(pk=lantern.pk), quince, quince.stands_at)
    moved = [
        each for each in whole.plan.steps if each.start.isoformat() != kept[each.dish, each.step]
    ]
    assert 0 < len(moved) < len(kept) / 2  # as few as will do
    cook.post(f"/feasts/{lantern.pk}/afresh/")
    assert Feast.objects.get(pk=lantern.pk).kept_plan is None


def test_two_change_the_feast_at_once_and_nothing_typed_is_lost(cook, lantern):
    typed = {"name": "Lantern Night", "date": "2027-03-22", "hour": "19:00", "heads": "9",
             "time_zone": "Europe/London", "note": "two more chairs"}  # fmt: skip
    old = seen(lantern)
    cook.post(f"/feasts/{lantern.pk}/", typed | old)
    second = cook.post(f"/feasts/{lantern.pk}/", typed | old | {"heads": "12"})
    assert second.status_code == 422
    assert "Somebody has changed this feast since you opened it" in text(second)
    assert 'value="12"' in text(second)
    assert Feast.objects.get(pk=lantern.pk).heads == 9
    shown = second.context["form"]["version"].value()
    assert (
        cook.post(f"/feasts/{lantern.pk}/", typed | {"heads": "12", "version": shown}).status_code
        == 302
    )


def test_two_weigh_up_a_dish_at_once(cook, roast):
    feast, dish, typed = roast
    page = f"/dishes/{dish.pk}/mix/"
    assert f'name="version" value="{seen(feast)["version"]}"' in text(cook.get(page))
    old = seen(feast)
    assert cook.post(page, typed | old | {"mass": "2 kg"}).status_code == 302
    second = cook.post(page, typed | old | {"mass": "2.2 kg"})
    assert second.status_code == 422
    assert "Somebody has changed this feast" in text(second)
    assert 'value="2.2 kg"' in text(second)
    dish.refresh_from_db()
    assert dish.mass_g == 2000


def test_a_dish_is_left_out_and_taken_up_again(cook, gammon, lantern):
    trout = lantern.dishes.get(name="Alder-smoked trout")
    out = f"/feasts/{lantern.pk}/dishes/{{}}/out/"
    cook.post(out.format(trout.pk), seen(lantern))
    assert not lantern.dishes.filter(pk=trout.pk).exists()
    cook.post(out.format(gammon.pk), seen(lantern))  # it is in the brine: its log stays
    gammon.refresh_from_db()
    assert gammon.is_given_up
    assert "dropped" in text(cook.get(f"/feasts/{lantern.pk}/"))
    cook.post(f"/feasts/{lantern.pk}/dishes/{gammon.pk}/in/", seen(lantern))
    gammon.refresh_from_db()
    assert not gammon.is_given_up


def test_side_jobs_have_their_steps_and_no_weigh_up(cook, feast):
    for job, steps in (("dough", 6), ("stock", 5), ("sauce", 3), ("other", 1)):
        typed = {"job": job, "name": f"A {job}", "amount": "1,5 kg"}
        assert cook.post(f"/feasts/{feast.pk}/job/", typed).status_code == 302
        dish = feast.dishes.get(document__job__name=job)
        assert len(steps_of(dish)) == steps
        assert cook.get(f"/dishes/{dish.pk}/steps/").status_code == 200
        assert cook.get(f"/dishes/{dish.pk}/passage/").status_code == 200
        assert cook.get(f"/dishes/{dish.pk}/steps/").status_code == 200
        assert cook.get(f"/dishes/{dish.pk}/mix/").status_code == 404
    wrong = cook.post(
        f"/feasts/{feast.pk}/job/", {"job": "dough", "name": "Rye", "amount": "a lot"}
    )
    assert wrong.status_code == 422
    assert 'value="Rye"' in text(wrong)


def test_forty_dishes_are_the_most(cook, quince, feast, roast):
    found, _, typed = roast
    one = found.dishes.get()
    Dish.objects.bulk_create(
        Dish(feast=found, name=f"Dish {n}", document=one.document) for n in range(MOST_DISHES - 1)
    )
    answer = cook.post(f"/feasts/{found.pk}/dish/", typed | {"name": "One more"})
    assert answer.status_code == 422
    assert "40 dishes are the most" in text(answer)


STEP = {"title": "Roast", "place": "oven", "min_h": "2", "prefer_h": "2 h", "max_h": "3",
        "hands": "15", "every_h": "", "locked_start": "", "text": "Hot", "tend": "",
        "until": "inside_c", "until_c": "63"}  # fmt: skip


def step_form(key, **changes):
    return {f"{key}-{name}": value for name, value in (STEP | changes).items()}


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"min_h": "4"}, "This is under the least"),
        ({"prefer_h": "1"}, "This is under the least"),
        ({"prefer_h": "9"}, "This is over the most"),
        ({"hands": "a while"}, "is no length of time"),
        ({"until_c": ""}, "Say at how many degrees"),
        ({"medium_c": "350", "medium": "oven"}, "an oven is not at 350 °C; use 40 to 320 °C"),
        ({"medium_c": "", "medium": "oven"}, "Say how hot or cold it is"),
        ({"medium_c": "160", "medium": ""}, "Say in what"),
        ({"locked_start": "2027-05-02T09:10"}, "The plan goes by quarter hours: 09:00 or 09:15."),
        ({"locked_start": "2027-05-03T09:00"}, "after the feast"),
        ({"locked_start": "2027-03-28T01:30"}, "does not exist"),
    ],
)
def test_windows_that_contradict_each_other(cook, roast, changes, says):
    feast, dish, _ = roast
    form = step_form("roast", **changes) | seen(feast)
    answer = cook.post(f"/dishes/{dish.pk}/steps/change/roast/", form)
    assert answer.status_code == 422
    assert says in text(answer)
    name, typed = next(iter(changes.items()))
    if typed:
        assert f'name="roast-{name}" value="{typed}"' in text(answer)


def test_a_step_has_a_heat_of_its_own_and_the_page_tells_what_happens(cook, roast):
    feast, dish, _ = roast
    page = text(cook.get(f"/dishes/{dish.pk}/steps/"))
    assert "What happens to the piece" in page
    assert "at the heat" in page
    form = step_form("roast", medium="oven", medium_c="210") | seen(feast)
    assert cook.post(f"/dishes/{dish.pk}/steps/change/roast/", form).status_code == 302
    assert (steps_of(dish)["roast"].medium, steps_of(dish)["roast"].medium_c) == ("oven", 210)
    own = step_form("own", title="On the sill", after="keep", place="counter", min_h="3",
                    prefer_h="", max_h="3", until="", until_c="")  # fmt: skip
    cook.post(f"/dishes/{dish.pk}/steps/add/", own | seen(feast))
    assert "Keep it in the fridge in between" in text(cook.get(f"/dishes/{dish.pk}/steps/"))


def test_own_steps_and_changes_outlive_a_new_weigh_up(cook, roast):
    feast, dish, typed = roast
    cook.post(f"/dishes/{dish.pk}/steps/change/roast/", step_form("roast", max_h="5") | seen(feast))
    own = step_form("own", title="Stir the gravy", after="roast", place="hob", min_h="0,25",
                    prefer_h="", max_h="0,5")  # fmt: skip
    assert cook.post(f"/dishes/{dish.pk}/steps/add/", own | seen(feast)).status_code == 302
    cook.post(f"/dishes/{dish.pk}/mix/", typed | {"mass": "2 kg"})
    keys = list(steps_of(dish))
    assert keys[keys.index("roast") + 1] == "stir-the-gravy"
    assert steps_of(dish)["roast"].max_h == 5
    assert "your own" in text(cook.get(f"/dishes/{dish.pk}/steps/"))
    cook.post(f"/dishes/{dish.pk}/steps/keep/", {"keep-name": "Loin, our way"})
    cook.post(f"/dishes/{dish.pk}/steps/remove/stir-the-gravy/", seen(feast))
    assert "stir-the-gravy" not in steps_of(dish)
    route = feast.kitchen.routes.get(name="Loin, our way")
    cook.post(f"/dishes/{dish.pk}/steps/take/", seen(feast) | {"route": route.pk})
    assert list(steps_of(dish)) == keys
    stale = cook.post(f"/dishes/{dish.pk}/steps/add/", own | {"version": 0})
    assert "Somebody has changed this feast" in text(stale)


def test_what_has_begun_stays_as_it_was(cook, gammon):
    form = step_form("brine", title="Brine") | seen(gammon.feast)
    answer = cook.post(f"/dishes/{gammon.pk}/steps/change/brine/", form)
    assert "has begun: the past stays as it was" in text(answer)
    hour = {"hour-serve_at": "2027-03-22T18:00", "hour-early_max_min": "30", "hour-note": "hot"}
    assert (
        cook.post(f"/dishes/{gammon.pk}/steps/hour/", hour | seen(gammon.feast)).status_code == 302
    )
    gammon.refresh_from_db()
    assert (gammon.serve_at.hour, gammon.early_max_min, gammon.note) == (18, 30, "hot")


@pytest.mark.parametrize(
    ("kind", "hours", "read", "says"),
    [
        ("fridge-warm", 5, "7", "Discard it, cured or not."), ("fridge-warm", 5, "4,8", None),
        ("power-out", 5, "", "h above 5 °C in all"), ("power-out", 3, "", None),
        ("power-out", 9, "", "Discard it, cured or not."),
    ],
)  # fmt: skip
def test_time_too_warm_is_counted_and_judged(cook, quince, gammon, kind, hours, read, says):
    ends = quince.stands_at
    begins = ends - timedelta(hours=hours)
    typed = {"kind": kind, "begins": f"{begins:%Y-%m-%dT%H:%M}", "ends": f"{ends:%Y-%m-%dT%H:%M}",
             "temperature": read, "dish": ""}  # fmt: skip
    page = f"/feasts/{gammon.feast_id}/"
    assert cook.post(f"{page}mishap/", typed).status_code == 302
    assert ("above 5 °C in all" in text(cook.get(page))) == bool(says)
    assert (says or "") in text(cook.get(f"/dishes/{gammon.pk}/steps/"))
    cook.post(f"{page}mishap/{Mishap.objects.get().pk}/back/")
    assert "above 5 °C in all" not in text(cook.get(page))


def test_a_mishap_says_what_it_lacks(cook, gammon):
    page = f"/feasts/{gammon.feast_id}/"
    typed = {"kind": "left-out", "begins": "2027-03-18T10:00", "ends": "2027-03-18T09:00"}
    answer = text(cook.post(f"{page}mishap/", typed))
    assert "Say which dish stood out." in answer
    assert "It ended after it began." in answer
    assert "not happened yet" in text(
        cook.post(f"{page}mishap/", typed | {"ends": "2028-01-01T09:00"})
    )
    away = {"begins": "2027-03-19T12:00", "ends": "2027-03-19T11:00"}
    assert "Coming home is after leaving." in text(cook.post(f"{page}away/", away))
    assert cook.post(f"{page}away/", away | {"ends": "2027-03-19T20:00"}).status_code == 302


def test_out_and_in_again_the_same(cook, quince, lantern):
    taken = cook.get(f"/feasts/{lantern.pk}/feast.json").content
    upload = SimpleUploadedFile("lantern.json", taken)
    assert cook.post("/feasts/in/", {"document": upload}).status_code == 302
    new = Feast.objects.latest("pk")
    assert new.pk != lantern.pk
    assert feast_document(new) == json.loads(taken)
    assert cook.get(f"/dishes/{new.dishes.first().pk}/mix/").status_code == 200


def test_a_file_that_does_not_say_how_early_leaves_it_as_usual(cook, lantern):
    whole = json.loads(cook.get(f"/feasts/{lantern.pk}/feast.json").content)
    for dish in whole["dishes"]:
        del dish["early_max_min"]
    upload = SimpleUploadedFile("lantern.json", json.dumps(whole).encode())
    assert cook.post("/feasts/in/", {"document": upload}).status_code == 302
    early = Feast.objects.latest("pk").dishes.values_list("early_max_min", flat=True)
    assert set(early) == {None}


def test_an_older_file_is_opened_with_its_steps_as_they_were(cook, quince):
    raw = (Path(__file__).parent / "databases" / "lantern-night-1.json").read_bytes()
    assert (
        cook.post("/feasts/in/", {"document": SimpleUploadedFile("x.json", raw)}).status_code == 302
    )
    new, older = Feast.objects.latest("pk"), json.loads(raw)
    assert new.heads == older["heads"]
    for before in older["dishes"]:
        dish = new.dishes.get(name=before["name"])
        steps, has_begun = steps_of(dish), bool(before["events"])
        keys = [step["key"] for step in before["steps"]]
        if dish.name == "Alder-smoked trout":
            keys.remove("stand")  # not begun, and a fish is not rested any more
        assert list(steps) == keys
        for step in before["steps"]:
            if step["is_changed"] or has_begun:
                now = steps[step["key"]]
                assert (now.title, now.min_h, now.prefer_h, now.max_h, now.hands_min) == (
                    step["title"], step["min_h"], step["prefer_h"], step["max_h"],
                    step["hands_min"],
                )  # fmt: skip
        assert dish.events.count() == len(before["events"])
        assert [sheet.answer for sheet in dish.sheets.all()] == [
            sheet["answer"] for sheet in before["sheets"]
        ]
    assert new.dishes.get(name="Treacle gammon").document["edits"]
    assert "edits" not in new.dishes.get(name="Quick pickle").document


@pytest.mark.parametrize(
    ("spoil", "says"),
    [
        (lambda _: b"{", "not a JSON document"),
        (lambda d: json.dumps(d | {"serve_at": "soon"}).encode(), "is no time"),
        (lambda d: json.dumps(d | {"tz": "Moon/Sea"}).encode(), "tz"),
        (lambda d: json.dumps(d | {"people": 0}).encode(), "people"),
        (lambda d: json.dumps(d | {"dishes": [{"name": "x"}]}).encode(), "side job"),
        (lambda d: json.dumps(d | {"chairs": 9}).encode(), "not known here"),
        (lambda _: b" " * 16_000_001, "over 16 megabytes"),
    ],
)  # fmt: skip
def test_a_file_of_nonsense_is_told(cook, feast, spoil, says):
    upload = SimpleUploadedFile("x.json", spoil(feast_document(feast)))
    answer = cook.post("/feasts/in/", {"document": upload})
    assert answer.status_code == 422
    assert says in text(answer)
    assert Feast.objects.count() == 1


def test_another_year_everything_shifts_and_the_notes_come_along(cook, lantern):
    lantern.note = "salt the duck a day sooner"
    lantern.save()
    duck = lantern.dishes.get(name="Bay-salted duck")
    duck.serve_at = lantern.serve_at - timedelta(minutes=30)
    duck.save()
    change_step(duck, "roast", {"locked_start": "2027-03-22T14:30:00+00:00"})
    assert "after today" in text(cook.post(f"/feasts/{lantern.pk}/copy/", {"day": "2027-03-01"}))
    assert cook.post(f"/feasts/{lantern.pk}/copy/", {"day": "2028-04-03"}).status_code == 302
    new = Feast.objects.latest("pk")
    # summer time by then: the same hour on the wall is an hour sooner in UTC
    assert new.serve_at == datetime(2028, 4, 3, 17, 30, tzinfo=UTC)
    assert new.note == "salt the duck a day sooner"
    copied = new.dishes.get(name="Bay-salted duck")
    assert copied.serve_at == datetime(2028, 4, 3, 17, 0, tzinfo=UTC)
    locked = datetime.fromisoformat(steps_of(copied)["roast"].locked_start)
    assert locked == datetime(2028, 4, 3, 13, 30, tzinfo=UTC)
    assert [dish.events.count() for dish in new.dishes.all()] == [0] * 5


def test_named_days_fill_in_the_feast(cook, quince):
    quince.country = "NO"
    quince.save()
    cook.post("/feasts/own-day/", {"name": "First thaw", "day": "2020-04-09"})
    page = cook.get("/feasts/new/?date=2027-05-17&name=Constitution+Day")
    assert 'value="2027-05-17"' in text(page)
    told = {each.name: f"{each.day}" for each in page.context["days"]}
    assert told["First thaw"] == "2027-04-09"
    assert told["Constitution Day"] == "2027-05-17"


@pytest.mark.parametrize("zone", ["Europe/London", "Pacific/Auckland", "America/St_Johns"])
@pytest.mark.parametrize("day", ["2027-03-28", "2027-10-31"])
def test_the_night_of_the_clock_change_and_a_zone_changed_after_the_fact(cook, roast, zone, day):
    feast, dish, _ = roast
    feast.serve_at = datetime.fromisoformat(f"{day}T17:30+00:00")
    feast.time_zone = zone
    feast.save()
    assert cook.get(f"/feasts/{feast.pk}/").status_code == 200
    page = text(cook.get(f"/dishes/{dish.pk}/passage/"))
    assert "Carve" in page or "What would help" in page


def test_what_could_still_be_made(cook, supper):
    page = cook.get(f"/feasts/{supper.pk}/still/?cut=chicken&mass=1.8+kg&thickness=50")
    told = {each.method: each for each in page.context["told"].answers}
    assert told["dry-brine"].can
    assert told["even-brine"].can  # a bird is seasoned: nobody waits for its heart
    assert told["even-brine"].why
    assert "quick-pickle" not in told
    wrong = cook.get(f"/feasts/{supper.pk}/still/?cut=chicken&mass=much")
    assert wrong.status_code == 422


def without_tokens(page):
    return re.sub(r"csrfmiddlewaretoken[^>]*>", "", page)


def test_what_could_still_be_made_is_told_as_it_becomes_known(cook, supper, monkeypatch):
    path = f"/feasts/{supper.pk}/still/?cut=chicken&mass=1800+g"
    cook.get(f"/feasts/{supper.pk}/")
    monkeypatch.setattr(type(method_options.work_out_options), "enqueue", lambda *_: None)
    page = text(cook.get(path))
    assert "Planning each of" in page
    assert without_tokens(page) == without_tokens(text(cook.get(path)))  # nothing is begun anew
    row = Work.objects.get(key__startswith="options-")
    first = {"method": "dry-brine", "can": True, "why": "Skin crisps.", "begin_by": None}
    Work.objects.filter(pk=row.pk).update(answer=[first])
    part = text(cook.get(path, headers={"HX-Request": "true"}))
    assert "Skin crisps." in part
    assert "Planning each of" in part
    assert "What could I still make?" not in part
    method_options.work_out_options.call(row.pk)
    part = text(cook.get(path, headers={"HX-Request": "true"}))
    assert "of 12 methods fit" in part
    assert "begin by" in part
    assert "Planning each of" not in part


def test_what_could_still_be_made_waits_for_the_plan(cook, lantern, monkeypatch):
    monkeypatch.setattr(type(solving.work_out_plan), "enqueue", lambda *_: None)
    page = cook.get(f"/feasts/{lantern.pk}/still/?cut=pork-loin&mass=1500+g")
    assert page.context["told"].answers == []
    assert not Work.objects.filter(key__startswith="options-")


def test_a_long_plan_is_worked_out_beside_the_pages(cook, quince, lantern, monkeypatch):
    work = solving.work_out_plan
    monkeypatch.setattr(type(work), "enqueue", lambda *_: None)  # nobody works yet
    page = text(cook.get(f"/feasts/{lantern.pk}/"))
    assert "The plan is being worked out." in page
    assert "being worked out" in text(cook.get(f"/dishes/{lantern.dishes.first().pk}/steps/"))
    cook.post(f"/feasts/{lantern.pk}/solving/stop/")
    row = Work.objects.get(state=Work.State.WAITING)
    assert row.wants_stop
    waiting = cook.post(f"/feasts/{lantern.pk}/solving/", headers={"HX-Request": "true"})
    assert "HX-Trigger" not in waiting
    work.call(row.pk)
    done = cook.post(f"/feasts/{lantern.pk}/solving/", headers={"HX-Request": "true"})
    assert done["HX-Trigger"] == "plan-ready"
    assert "The plan is ready." in text(done)
    assert "all is on the table in time" in text(cook.get(f"/feasts/{lantern.pk}/"))


def test_a_plan_that_nobody_works_out_is_worked_out_by_the_page(cook, lantern, monkeypatch):
    monkeypatch.setattr(type(solving.work_out_plan), "enqueue", lambda *_: None)
    monkeypatch.setattr(queue, "PATIENCE", timedelta(0))
    assert "being worked out" in text(cook.get(f"/feasts/{lantern.pk}/"))
    cook.post(f"/feasts/{lantern.pk}/solving/")
    assert "all is on the table in time" in text(cook.get(f"/feasts/{lantern.pk}/"))
