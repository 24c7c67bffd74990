"""Work beside the pages, busy databases, dishes that cannot be: an answer, and work goes on."""

from datetime import timedelta

import pytest
from django.db import OperationalError
from django.utils import timezone

from pantry_web.background import patient, queue
from pantry_web.background.models import Work
from pantry_web.demo.kitchen import lay_the_table
from pantry_web.feasts.models import Dish, Mishap
from pantry_web.planning import solving
from pantry_web.steps import ticking
from tests.web.conftest import feast_outlook, steps_of

State = Work.State


@pytest.fixture
def lantern(quince, feast):
    lay_the_table(quince, feast)
    return feast


@pytest.fixture
def nobody_works(monkeypatch):
    """What is handed over stays where it is."""
    queued = []
    monkeypatch.setattr(type(solving.work_out_plan), "enqueue", lambda _, pk: queued.append(pk))
    return queued


def text(answer):
    return answer.content.decode()


def test_what_breaks_least_is_not_waited_for(cook, quince, feast, nobody_works):
    """The hours of before stand until it is there."""
    before = feast_outlook(feast, quince, quince.stands_at).plan.steps
    feast.serve_at = quince.stands_at + timedelta(hours=9)
    feast.save()
    page = text(cook.get(f"/feasts/{feast.pk}/"))
    assert "being worked out" in page
    (work,) = Work.objects.filter(pk__in=nobody_works)
    assert work.state == State.WAITING
    told = feast_outlook(feast, quince, quince.stands_at)
    assert told.plan.steps == before
    solving.work_out_plan.call(work.pk)
    assert "being worked out" not in text(cook.get(f"/feasts/{feast.pk}/"))
    assert feast_outlook(feast, quince, quince.stands_at).plan.steps != before


def test_what_raises_is_said_and_can_be_tried_again(cook, lantern, monkeypatch):
    def fails(*_):
        raise ZeroDivisionError

    with monkeypatch.context() as broken:
        broken.setattr(solving, "solve", fails)
        page = text(cook.get(f"/feasts/{lantern.pk}/"))
    assert "The plan could not be worked out." in page
    assert "could not be worked out" in text(cook.get(f"/feasts/{lantern.pk}/"))  # not tried again
    cook.post(f"/feasts/{lantern.pk}/solving/again/")
    assert "all is on the table in time" in text(cook.get(f"/feasts/{lantern.pk}/"))


def test_a_worker_that_is_gone_is_followed_by_another(cook, lantern, nobody_works):
    cook.get(f"/feasts/{lantern.pk}/")
    work = Work.objects.get(state=State.WAITING)
    mine = Work.objects.filter(pk=work.pk)
    now = timezone.now()
    mine.update(state=State.RUNNING, attempts=1, leased_until=now + timedelta(seconds=5))
    cook.post(f"/feasts/{lantern.pk}/solving/")
    assert nobody_works == [work.pk]  # its worker lives
    mine.update(leased_until=now - timedelta(seconds=1))
    cook.post(f"/feasts/{lantern.pk}/solving/")
    assert nobody_works == [work.pk, work.pk]
    mine.update(state=State.RUNNING, attempts=queue.MOST_ATTEMPTS, leased_until=now)
    cook.post(f"/feasts/{lantern.pk}/solving/")
    assert "could not be worked out" in text(cook.get(f"/feasts/{lantern.pk}/"))


def test_two_workers_do_it_once(cook, lantern, nobody_works):
    cook.get(f"/feasts/{lantern.pk}/")
    work, done = Work.objects.get(state=State.WAITING), []

    def deed(report):
        queue.carry_out(work.pk, lambda _: done.append("second"))
        done.append("first")

    queue.carry_out(work.pk, deed)
    queue.carry_out(work.pk, lambda _: done.append("third"))
    assert done == ["first"]


def test_a_busy_database_leaves_work_waiting(cook, lantern, nobody_works):
    cook.get(f"/feasts/{lantern.pk}/")
    work = Work.objects.get(state=State.WAITING)

    def busy(report):
        raise OperationalError("database is locked")

    queue.carry_out(work.pk, busy)
    work.refresh_from_db()
    assert (work.state, work.holder) == (State.WAITING, None)


def test_a_busy_database_is_said_and_what_was_typed_is_sent_again(cook, gammon, monkeypatch):
    def busy(*_, **__):
        raise OperationalError("database is locked")

    with monkeypatch.context() as held:
        held.setattr(ticking, "write_down", busy)
        answer = cook.post(f"/dishes/{gammon.pk}/steps/note/", {"note": "smells <right>"})
    assert answer.status_code == 503
    assert 'name="note" value="smells &lt;right&gt;"' in text(answer)
    assert "Send it again" in text(answer)
    assert not patient.write_if_free(busy)  # and what can be worked out again is not waited for


def test_a_dish_that_cannot_be_worked_out_breaks_no_other_page(cook, quince, lantern):
    broken = Dish.objects.create(
        feast=lantern, name="Odd loin",
        document={"piece": {"cut": "pork-loin", "mass_g": 1800.0},
                  "cure": {"method": "even-brine", "target_salt_pct": 90.0}},
    )  # fmt: skip
    page = text(cook.get(f"/feasts/{lantern.pk}/"))
    assert "Odd loin cannot be worked out any more." in page
    assert "the rest is on the table in time" in page
    for path in ("/", "/feasts/", "/shopping/", f"/feasts/{lantern.pk}/passage/"):
        assert cook.get(path).status_code == 200
    for name in ("mix", "steps", "passage", "notes", "label", "cold", "recipe"):
        assert cook.get(f"/dishes/{broken.pk}/{name}/").status_code == 200, name
    assert "Change the sheet" in text(cook.get(f"/dishes/{broken.pk}/steps/"))
    assert cook.get(f"/dishes/{broken.pk}/weighing/").status_code == 404
    typed = {"cut": "pork-loin", "mass": "1.8 kg", "method": "dry-brine", "cure": "usual"}
    assert cook.post(f"/dishes/{broken.pk}/mix/", typed).status_code == 302
    assert "dry-brine" in steps_of(broken)


def test_an_impossible_dish_takes_no_times_from_the_others(cook, quince, lantern):
    duck = lantern.dishes.get(name="Bay-salted duck")
    duck.document["edits"] = [{"step": "roast", "locked_start": "2027-03-22T03:00:00+00:00"}]
    duck.save()
    page = text(cook.get(f"/feasts/{lantern.pk}/"))
    assert "Bay-salted duck cannot be done by then." in page
    assert "The other dishes still work." in page
    whole = feast_outlook(lantern, quince, quince.stands_at)
    planned = {each.dish for each in whole.plan.steps}
    assert planned == {str(each.pk) for each in lantern.dishes.exclude(pk=duck.pk)}
    assert "It cannot be done by then." in text(cook.get(f"/dishes/{duck.pk}/steps/"))
    helped = cook.get(f"/feasts/{lantern.pk}/helps/").context["remedies"]
    remedy = next(each for each in helped if each.text.startswith("Unlock the start of Roast"))
    cook.post(f"/feasts/{lantern.pk}/helps/{remedy.code}/", {"version": lantern.version})
    assert "cannot be done" not in text(cook.get(f"/feasts/{lantern.pk}/"))
    duck.refresh_from_db()
    assert "edits" not in duck.document


def test_a_dish_with_a_lock_that_is_no_time_is_left_out(cook, quince, lantern):
    duck = lantern.dishes.get(name="Bay-salted duck")
    duck.document["edits"] = [{"step": "roast", "locked_start": "not a time"}]
    duck.save()
    page = cook.get(f"/feasts/{lantern.pk}/")
    assert page.status_code == 200
    assert "Bay-salted duck cannot be worked out" in text(page)


@pytest.mark.parametrize("alone", [True, False])
def test_a_step_in_a_place_that_is_not_there_breaks_no_plan(cook, quince, lantern, alone):
    if alone:
        lantern.dishes.exclude(name="Bay-salted duck").update(is_given_up=True)
    duck = lantern.dishes.get(name="Bay-salted duck")
    duck.document["edits"] = [{"step": "roast", "place": "attic"}]
    duck.save()
    page = cook.get(f"/feasts/{lantern.pk}/")
    assert page.status_code == 200
    assert "Bay-salted duck cannot be done by then." in text(page)
    assert "attic" in text(cook.get(f"/dishes/{duck.pk}/steps/"))
    assert "could not be worked out" not in text(cook.get(f"/feasts/{lantern.pk}/helps/"))


def test_after_a_discard_there_is_nothing_else_to_do(cook, quince, gammon):
    now = quince.stands_at
    Mishap.objects.create(kitchen=quince, kind="power-out", begins=now - timedelta(hours=9),
                          ends=now, by=gammon.events.first().by)  # fmt: skip
    rounds = text(cook.get(f"/dishes/{gammon.pk}/steps/"))
    assert "Throw it away." in rounds
    assert 'class="tick' not in rounds
    assert "Its salt now" not in rounds
    refused = cook.post(f"/dishes/{gammon.pk}/steps/begin/lift/", follow=True)
    assert "not what comes next" in text(refused)
    page = text(cook.get(f"/feasts/{gammon.feast_id}/"))
    assert "Treacle gammon is to be thrown away." in page
    assert "on the table in time" not in page
    assert "Throw it away." in text(cook.get(f"/dishes/{gammon.pk}/label/"))


def test_a_last_plan_in_an_older_shape_is_passed_over(cook, quince, lantern, nobody_works):
    Work.objects.create(
        kitchen=quince, key="old", about=f"plan-{lantern.pk}", document={}, state=State.DONE,
        queued_at=timezone.now(), answer={"plan": "of old"},
    )  # fmt: skip
    assert "The plan is being worked out." in text(cook.get(f"/feasts/{lantern.pk}/"))
    assert cook.get("/").status_code == 200
