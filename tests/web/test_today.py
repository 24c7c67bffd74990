"""Today: everything that is due, over all feasts, ticked and written down where it stands."""

import re
from datetime import timedelta
from uuid import uuid4
from zoneinfo import ZoneInfo

import pytest
from django.test import Client
from django.urls import reverse
from icalendar import Calendar

from pantry_web.demo import kitchen as demo
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.actions.record_mishap import record_mishap
from pantry_web.feasts.models import Dish, Event, Feast, Mishap
from pantry_web.kitchens.models import Cook, Membership
from pantry_web.planning.hands import feast_tasks, tasks
from pantry_web.today.agenda import agenda
from pantry_web.today.put_off import offered
from tests.web.conftest import feast_outlooks, undo_last

LONDON = ZoneInfo("Europe/London")


def agenda_of(quince):
    wholes = feast_outlooks(list(quince.feasts.all()), quince, quince.stands_at)
    return agenda(wholes, quince.stands_at, LONDON)


def due(quince):
    """What is due of each dish."""
    wholes = feast_outlooks(list(quince.feasts.all()), quince, quince.stands_at)
    return [(view, task) for whole in wholes for view in whole.dishes for task in tasks(view)]


def begins(quince, dish, key):
    """When a step is to begin."""
    return next(
        task.at for view, task in due(quince)
        if (view.dish, task.kind, task.key) == (dish, "begin", key)
    )  # fmt: skip


def put(quince, **time):
    quince.stands_at += timedelta(**time)
    quince.save()


@pytest.fixture
def lantern(quince, feast):
    demo.lay_the_table(quince, feast)
    return feast


def test_it_stands_in_the_order_of_the_hours_by_day(quince, lantern):
    found = agenda_of(quince)
    assert found.first.entries[0].task.title == "Turn it, stir the brine"
    days = [(group.when, group.day.isoformat()) for group in found.groups if group.day]
    assert days[:3] == [
        ("tomorrow", "2027-03-19"), ("week", "2027-03-20"), ("week", "2027-03-21")
    ]  # fmt: skip
    hours = [visit.at for group in found.groups for visit in group.visits]
    assert hours == sorted(hours)


def test_a_trip_is_one_thing_whatever_it_is_for(quince, lantern):
    trips = [visit for group in agenda_of(quince).groups for visit in group.visits if visit.is_trip]
    assert [len(visit.dishes) for visit in trips] == [4]


def test_an_empty_kitchen_says_what_to_do_first(stranger):
    client = Client()
    client.force_login(stranger)
    assert b"Begin with one dish" in client.get("/").content


def test_a_tick_is_made_where_it_stands_and_taken_back_there(cook, quince, gammon):
    put(quince, minutes=20)
    before = gammon.events.count()
    answer = cook.post(f"/dishes/{gammon.pk}/steps/turn/", {"back": "today"})
    assert answer["Location"] == "/"
    page = cook.get("/").content.decode()
    assert "Turned" in page
    batch = re.search(r'name="batch" value="([^"]+)"', page)[1]
    undone = cook.post(f"/dishes/{gammon.pk}/steps/undo/", {"back": "today", "batch": batch})
    assert undone["Location"] == "/"
    assert gammon.events.count() == before + 2, "the log is never rewritten"
    assert "Turned" not in cook.get("/").content.decode().partition("Done</h2>")[2]


def test_rounds_of_several_dishes_are_one_visit_with_one_tick(cook, quince, feast, gammon):
    """A second piece that went in with the gammon is turned with it."""
    second = add_dish(feast, "Second gammon", gammon.document)
    for event in gammon.events.all():
        Event.objects.create(
            dish=second, batch=event.batch, what=event.what, at=event.at, by=event.by,
            step_key=event.step_key, mass_g=event.mass_g,
        )  # fmt: skip
    visit = agenda_of(quince).first
    assert visit.dishes == ["Treacle gammon", "Second gammon"]
    assert visit.can_tick
    assert "A round of 2 dishes" in cook.get("/").content.decode()
    dishes = [each.view.dish for each in visit.entries]
    before = [Event.objects.filter(dish=each).count() for each in dishes]
    assert cook.post("/today/visit/", {"dish": [each.pk for each in dishes]})["Location"] == "/"
    after = [Event.objects.filter(dish=each).count() for each in dishes]
    assert after == [count + 1 for count in before]


def test_a_round_is_put_off_and_so_is_the_next_step(cook, quince, gammon, lantern):
    """A round stands at the hour it is put off to; a step is planned for it; undo takes it back."""
    at = quince.stands_at + timedelta(hours=2)
    cook.get("/")
    assert b"Put off" in cook.get(f"/today/{gammon.pk}/more/tend/brine/").content
    cook.post(f"/today/{gammon.pk}/put-off/brine/", {"at": at.isoformat()})
    rounds = [task for view, task in due(quince) if view.dish == gammon and task.kind == "tend"]
    assert rounds[0].at - at < timedelta(minutes=15)
    assert rounds[0].is_next
    view, first = next(
        (view, task)
        for view, task in due(quince)
        if task.kind == "begin" and task.is_next and task.can_wait_until > task.at
    )
    assert offered(view, first, quince)[-1] == first.can_wait_until
    later = first.can_wait_until
    typed = later.astimezone(LONDON).strftime("%Y-%m-%dT%H:%M")
    cook.post(f"/today/{view.dish.pk}/put-off/{first.key}/", {"at": typed})
    assert begins(quince, view.dish, first.key) == later
    page = cook.get("/").content.decode()
    assert f"put off until {later.astimezone(LONDON):%a %-d %b, %H:%M}" in page
    undo_last(cook, view.dish)
    assert begins(quince, view.dish, first.key) == first.at


def test_what_is_put_off_comes_back_when_its_hour_has_passed(cook, quince, gammon):
    at = quince.stands_at + timedelta(hours=1)
    cook.post(f"/today/{gammon.pk}/put-off/brine/", {"at": at.isoformat()})
    put(quince, hours=2)
    assert gammon.events.filter(what="put-off").exists()
    (round_,) = (task for _, task in due(quince) if task.kind == "tend" and task.is_next)
    assert round_.at <= quince.stands_at


@pytest.mark.parametrize(("at", "said"), [
    ("2027-03-18T12:00", "That hour has passed"), ("2027-03-22T20:00", "It is eaten by then"),
])  # fmt: skip
def test_nothing_is_put_off_into_the_past_or_beyond_the_meal(cook, gammon, at, said):
    answer = cook.post(f"/today/{gammon.pk}/put-off/brine/", {"at": at}, follow=True)
    assert said in answer.content.decode()
    assert not gammon.events.filter(what="put-off").exists()


def test_an_hour_that_is_none_stays_as_it_was_typed(cook, gammon):
    answer = cook.post(f"/today/{gammon.pk}/put-off/brine/", {"at": "supper"})
    assert answer.status_code == 422
    assert 'value="supper"' in answer.content.decode()


def test_what_is_planned_for_days_ahead_is_asked_about_before_it_is_ticked(cook, quince, lantern):
    duck = lantern.dishes.get(name="Bay-salted duck")
    first = next(task for view, task in due(quince) if view.dish == duck)
    assert "is planned for Sat 20 Mar" in first.question
    assert "Yes, go on" in cook.get(f"/dishes/{duck.pk}/steps/").content.decode()


LATE_HOCK = {
    "piece": {"cut": "pork-hock", "mass_g": 1500.0},
    "cure": {"method": "even-brine", "water_g": 2000.0, "days": 20.0},
}


def test_what_no_plan_has_room_for_comes_last_and_is_asked_about(cook, quince, lantern):
    hock = add_dish(lantern, "Late hock", LATE_HOCK)
    found = agenda_of(quince)
    assert found.first is not None
    assert "Late hock" not in found.first.dishes
    assert [each.when for each in found.groups].index("unplanned") == len(found.groups) - 1
    (visit,) = found.groups[-1].visits
    assert visit.dishes == ["Late hock"]
    page = cook.get("/").content.decode()
    assert "Late hock cannot be done by then." in page
    assert "No room in the plan" in page
    task = visit.entries[0].task
    assert not visit.has_press
    more = cook.get(reverse("today-more", args=[hock.pk, task.kind, task.key])).content.decode()
    assert "Is it begun already?" in more


def test_where_nothing_can_be_planned_no_step_is_first(cook, quince):
    feast = Feast.objects.get(kitchen=quince)
    feast.dishes.update(is_given_up=True)
    add_dish(feast, "Late hock", LATE_HOCK)
    page = cook.get("/").content.decode()
    assert agenda_of(quince).first is None
    assert "not everything can be ready by then." in page
    assert "Nothing is to be done" not in page


def test_what_was_never_begun_is_not_first_once_its_hour_has_passed(quince, lantern):
    trout = lantern.dishes.get(name="Alder-smoked trout")
    trout.serve_at = quince.stands_at - timedelta(minutes=30)
    trout.save()
    found = agenda_of(quince)
    assert trout.name not in found.first.dishes
    assert found.groups[-1].when == "unplanned"
    assert {name for each in found.groups[-1].visits for name in each.dishes} == {trout.name}


def test_dishes_of_feasts_near_each_other_have_hues_of_their_own(quince, lantern):
    other = Feast.objects.create(
        kitchen=quince, name="Other", heads=2, time_zone="Europe/London",
        serve_at=lantern.serve_at + timedelta(days=2),
    )  # fmt: skip
    add_dish(other, "Duck", demo.DUCK)
    hues = [each.hue for each in Dish.objects.filter(feast__in=(lantern, other))]
    assert len(set(hues)) == len(hues)


def test_the_calendar_of_all_has_what_the_list_has(cook, quince, lantern):
    (whole,) = feast_outlooks([lantern], quince, quince.stands_at)
    book = Calendar.from_ical(cook.get("/today/calendar.ics").content)
    starts = sorted(each["dtstart"].dt for each in book.walk("VEVENT"))
    assert starts == sorted(task.at for _, task in feast_tasks(whole) if task.at)


def test_a_visit_of_a_stranger_is_none(cook, stranger, gammon):
    client = Client()
    client.force_login(stranger)
    before = gammon.events.count()
    assert client.post("/today/visit/", {"dish": [gammon.pk]}).status_code == 404
    assert client.post(f"/today/{gammon.pk}/note/", {"note": "mine"}).status_code == 404
    assert gammon.events.count() == before


def test_what_is_written_down_is_in_the_log_and_what_is_refused_stays(cook, gammon):
    written = cook.post(f"/today/{gammon.pk}/note/", {"temperature": "3.5", "note": "clear"})
    assert written["Location"] == "/"
    assert gammon.events.filter(note="clear").exists()
    refused = cook.post(f"/today/{gammon.pk}/note/", {"temperature": "warm", "note": "cloudy"})
    assert refused.status_code == 422
    page = refused.content.decode()
    assert 'value="cloudy"' in page
    assert "warm” is no temperature" in page or "“warm”" in page


def test_what_is_thrown_away_stands_above_all(cook, quince, lantern):
    by = Cook.objects.get(username=demo.COOK)
    begins = quince.stands_at - timedelta(hours=9)
    record_mishap(quince, by, Mishap.Kind.FRIDGE_WARM, begins, quince.stands_at, temperature_c=14.0)
    page = cook.get("/").content.decode()
    assert "Throw it away: Treacle gammon" in page
    assert page.index("Throw it away") < page.index("of-day")


def test_two_phones_see_each_others_ticks(cook, quince, gammon):
    """Whoever has seen all of it gets nothing; after a tick by somebody else the new list."""
    seen = re.search(r'data-seen="(\w+)"', cook.get("/").content.decode())[1]
    assert cook.get("/", headers={"x-seen": seen}).status_code == 204
    sorrel = Cook.objects.create_user("sorrel", password="leaf-and-lemon")
    Membership.objects.create(kitchen=quince, cook=sorrel, role=Membership.Role.COOK)
    other = Client()
    other.force_login(sorrel)
    put(quince, minutes=20)
    other.post(f"/dishes/{gammon.pk}/steps/turn/", {"back": "today"})
    answer = cook.get("/", headers={"x-seen": seen})
    assert answer.status_code == 200
    assert "by sorrel" in answer.content.decode()


def test_hours_are_kept_while_the_plan_is_worked_out_anew(quince, lantern, settings):
    """Every hour of the last plan stands until the new ones are there, those of rounds too."""
    view = next(
        each
        for whole in feast_outlooks([lantern], quince, quince.stands_at)
        for each in whole.dishes
        if each.dish.name == "Yoghurt goat"
    )
    before = {(view.key, task.key, task.kind): task.at for view, task in feast_tasks(view.whole)}
    Dish.objects.filter(name="Quick pickle").update(is_given_up=True)
    lantern.refresh_from_db()
    settings.TASKS = {"default": {"BACKEND": "django_tasks.backends.dummy.DummyBackend"}}
    wholes = feast_outlooks([lantern], quince, quince.stands_at)
    found = agenda(wholes, quince.stands_at, LONDON)
    shown = [found.first, *(visit for group in found.groups for visit in group.visits)]
    hours = {
        (entry.view.key, entry.task.key, entry.task.kind): entry.task.at
        for each in shown
        for entry in each.entries
    }
    assert wholes[0].solving is not None
    assert len(hours) > 10
    assert hours.items() <= before.items()


def test_three_feasts_take_few_queries(cook, quince, django_assert_max_num_queries):
    for n in range(3):
        feast = Feast.objects.create(
            kitchen=quince, name=f"Feast {n}", heads=6, time_zone="Europe/London",
            serve_at=quince.stands_at + timedelta(days=9 + n),
        )  # fmt: skip
        for name, document in demo.OTHERS[:3]:
            add_dish(feast, f"{name} {n}", document)
    cook.get("/")
    # Twelve, three that say who asks and in which kitchen, one whether something is at the heat.
    with django_assert_max_num_queries(16):
        assert cook.get(reverse("today")).status_code == 200


def test_a_press_that_was_kept_has_its_hour_and_is_done_once(cook, quince, gammon):
    """An hour late, then again from a second try, then one that is older than anybody believes."""
    put(quince, minutes=90)
    path, typed = f"/today/{gammon.pk}/note/", {"note": "kept", "once": str(uuid4())}
    cook.post(path, typed | {"age_s": "3600"})
    cook.post(path, typed | {"age_s": "3605"})
    events = gammon.events.filter(note="kept")
    assert [event.at for event in events] == [quince.stands_at - timedelta(hours=1)]
    answer = cook.post(path, {"note": "old", "age_s": str(3 * 86_400)}, follow=True)
    assert "over two days ago" in answer.content.decode()
    assert not gammon.events.filter(note="old").exists()


def test_what_was_ticked_elsewhere_meanwhile_keeps_its_order(cook, quince, gammon):
    """A note of an hour ago that comes after a tick of now stands after it."""
    put(quince, minutes=20)
    cook.post(f"/dishes/{gammon.pk}/steps/turn/")
    cook.post(f"/today/{gammon.pk}/note/", {"note": "late", "age_s": "3600"})
    last = gammon.events.order_by("pk").last()
    assert (last.note, last.at) == ("late", quince.stands_at)


def test_nothing_that_was_brought_in_passes_for_a_sentence(gammon):
    """A pattern in a document of somebody else's is text, and never filled in."""
    forged = {"$text": "{x:999999999999}", "$with": {"x": 1}, "pattern": "{y.__class__}"}
    sheet = gammon.sheets.get()
    sheet.pk, sheet.batch, sheet.answer = None, uuid4(), {**sheet.answer, "$$": 1, "own": forged}
    sheet.save()
    kept = gammon.sheets.get(pk=sheet.pk)
    assert kept.answer["own"] == forged
    assert kept.answer["$$"] == 1


def test_what_would_be_ready_far_too_early_is_asked_about_before_the_tick(cook, quince, feast):
    roast = {"piece": {"cut": "chicken", "mass_g": 1800.0}, "cure": {"method": "none"},
             "heat": {"way": "roast"}}  # fmt: skip
    bird = add_dish(feast, "Bird", roast)
    eaten = feast.serve_at

    def asked_at(before):
        quince.stands_at = eaten - before
        quince.save()
        (whole,) = feast_outlooks([feast], quince, quince.stands_at)
        return next(task for task in tasks(whole.of(bird)) if task.is_next)

    asked_at(timedelta(hours=10))
    cook.post(reverse("tick", args=[bird.pk, "buy"]), {"sure": "1"})
    early, later = asked_at(timedelta(hours=8)), asked_at(timedelta(hours=4))
    assert early.key == later.key == "trim"
    assert re.match(r"Begun now, it is ready \S+ h before its hour", early.question)
    assert later.question == ""
