"""Plans of one dish: what binds, what collides, what is said."""

import copy
import re
from datetime import UTC, datetime, timedelta

import pytest

from pantry_core.formats.operations import plan_document
from pantry_core.formats.reading import WrongInput
from pantry_core.measures.said import span
from pantry_core.plan.apart import apart
from pantry_core.plan.changes import Lock, applied
from pantry_core.plan.problem import resolve
from pantry_core.plan.reasons import reason
from pantry_core.plan.remedies import remedies
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.solve import begins_between, is_possible
from pantry_core.plan.why import explain
from tests.reference.feast_rules import broken_rules_of

DUCK = {
    "now": "2027-03-20T09:00",
    "tz": "Europe/London",
    "serve_at": "2027-03-22T18:30",
    "places": {"fridge": 4, "oven": 1},
    "dishes": [
        {
            "id": "duck",
            "steps": [
                {"id": "salt", "place": "fridge", "min_h": 24, "prefer_h": 24, "max_h": 48,
                 "hands_min": 15, "every_h": 12},
                {"id": "roast", "place": "oven", "min_h": 2, "prefer_h": 2, "max_h": 2,
                 "hands_min": 15},
                {"id": "carve", "min_h": 0.25, "prefer_h": 0.25, "max_h": 0.25, "hands_min": 15},
            ],
        }
    ],
}  # fmt: skip


def changed(steps=None, **changes):
    """The duck with other values; `steps` maps a step's id to what changes of it."""
    document = copy.deepcopy(DUCK) | changes
    for dish in document["dishes"]:
        for step in dish["steps"]:
            step.update((steps or {}).get(step["id"], {}))
    return document


def times(answer):
    return {each["step"]: (each["start"][:16], each["end"][:16]) for each in answer["steps"]}


def test_counts_back_from_the_hour():
    answer = plan_document(DUCK)
    assert answer["status"] == "optimal"
    assert times(answer) == {
        "salt": ("2027-03-21T16:15", "2027-03-22T16:15"),
        "roast": ("2027-03-22T16:15", "2027-03-22T18:15"),
        "carve": ("2027-03-22T18:15", "2027-03-22T18:30"),
    }
    # each at the last hour awake that is not over 12 h after the one before
    assert [each["at"][:16] for each in answer["rounds"]] == [
        "2027-03-21T22:15", "2027-03-22T10:15",
    ]  # fmt: skip
    assert answer["latest_start"][:16] == "2027-03-21T16:15"


@pytest.mark.parametrize(
    ("serve_at", "start"),
    [
        # the clocks go forward on 28 March 2027 at 01:00, back on 31 October at 02:00
        ("2027-03-28T18:30", "2027-03-27T15:15+00:00"),
        ("2027-10-31T18:30", "2027-10-30T17:15+01:00"),
    ],
)
def test_hours_are_true_hours(serve_at, start):
    now = serve_at[:8] + "25T09:00"
    answer = plan_document(changed(serve_at=serve_at, now=now))
    got = datetime.fromisoformat(answer["steps"][0]["start"])
    assert got == datetime.fromisoformat(start)
    assert got.utcoffset() == datetime.fromisoformat(start).utcoffset()


@pytest.mark.parametrize(
    ("document", "reason"),
    [
        (changed(now="2027-03-22T09:00"), "too-late"),
        (changed(serve_at="2027-03-23T03:00"), "asleep"),
        (changed(away=[{"from": "2027-03-22T17:00", "to": "2027-03-22T20:00"}]), "away"),
        (changed({"roast": {"uses": 2}}), "place-full"),
        (changed({"roast": {"locked_start": "2027-03-22T14:00"}}), "locked"),
        (changed({"carve": {"min_h": 10, "max_h": 10, "attended": True, "prefer_h": 10}},
                 serve_at="2027-03-22T09:00", now="2027-03-19T09:00"), "asleep"),
        (changed({"salt": {"started_at": "2027-03-18T08:00"}}, now="2027-03-18T09:00"), "locked"),
    ],
)  # fmt: skip
def test_says_why_not(document, reason):
    answer = plan_document(document)
    assert answer["status"] == "infeasible"
    assert [each["reason"] for each in answer["why"]] == [reason]
    assert answer["why"][0]["text"]
    assert answer["steps"] == answer["rounds"] == []
    # what helps was solved, keeps every rule, and changes only the one thing that it says
    assert answer["remedies"]
    for remedy in answer["remedies"]:
        assert broken_rules_of(remedy["input"], remedy["plan"]) == []
        other = {name for name in remedy["input"] if remedy["input"][name] != document.get(name)}
        assert len(other) == 1, remedy["text"]


def test_the_earliest_hour_is_possible_and_none_before_it():
    late = changed(now="2027-03-22T09:00")
    answer = plan_document(late)
    earliest = datetime.fromisoformat(answer["earliest_serve"])
    assert re.search(r"on take at least .* The dish is .* late\.$", answer["why"][0]["text"])
    before = (earliest - timedelta(minutes=15)).isoformat()
    assert plan_document(late | {"serve_at": earliest.isoformat()})["status"] == "optimal"
    assert plan_document(late | {"serve_at": before})["status"] == "infeasible"


def test_what_nights_and_work_cost_is_not_told_as_what_the_dish_needs():
    hours = {"wake": "07:00", "sleep": "22:30", "work": [{"from": "17:00", "to": "17:45"}]}
    asked = changed(now="2027-03-22T09:00", day=hours)
    answer = plan_document(asked)
    serve_at = datetime.fromisoformat(asked["serve_at"]).replace(tzinfo=UTC)
    late_h = (datetime.fromisoformat(answer["earliest_serve"]) - serve_at).total_seconds() / 3600
    (text,) = [each["text"] for each in answer["why"] if each["reason"] == "too-late"]
    assert text.endswith(f"Counting nights, shop hours and work, the dish is {span(late_h)} late.")


def test_no_remedy_is_without_words():
    """What can be done needs none: a button without a word stood under it."""
    problem = resolve(PlanRequest.model_validate(DUCK))
    assert list(remedies(DUCK, problem, explain(problem))) == []


@pytest.mark.parametrize("late", [timedelta(hours=3), None])
def test_where_the_days_are_enough_no_sentence_says_that_they_lack(late):
    """Of 57 hours the duck takes 26; nights and work can still leave too few."""
    problem = resolve(PlanRequest.model_validate(DUCK))
    earliest = None if late is None else problem.serve_at + late
    text = reason(problem, (0, 0, "too-late"), earliest).text
    assert "The days are enough" in text
    assert ("3 h late" in text) == (late is not None)


def test_slack_is_what_a_step_can_still_lose():
    document = changed({"salt": {"min_h": 20}})
    answer = plan_document(document)
    slack = {each["step"]: each["slack_h"] for each in answer["steps"]}
    assert slack == {"salt": 4.0, "roast": 0.0, "carve": 0.0}
    # by then and not a quarter later it can still be done
    start = datetime.fromisoformat(answer["latest_start"])
    for minutes, status in ((0, "optimal"), (15, "infeasible")):
        late = document | {"now": (start + timedelta(minutes=minutes)).isoformat()}
        assert plan_document(late)["status"] == status


def problem_of(document):
    return resolve(PlanRequest.model_validate(document))


def hour(moment):
    return f"{moment:%m-%d %H:%M}"


def test_a_step_begins_between_hours_that_a_lock_confirms():
    # roasting ends a quarter before 18:30 at the latest, and takes 2 h; salting takes 24 to 48 h
    # and begins with hands, awake from 7:00 on the 20th, when it is 9:00 already
    earliest, latest = begins_between(problem_of(DUCK), "duck", "roast")
    assert (hour(earliest), hour(latest)) == ("03-22 16:15", "03-22 16:15")
    loose = changed({"roast": {"max_h": 5}})
    earliest, latest = begins_between(problem_of(loose), "duck", "roast")
    assert (hour(earliest), hour(latest)) == ("03-22 13:15", "03-22 16:15")
    for start, is_possible_then in (("13:00", False), ("13:15", True), ("16:15", True),
                                    ("16:30", False)):  # fmt: skip
        locked = applied(loose, [Lock("duck", "roast", f"2027-03-22T{start}")])
        assert is_possible(problem_of(locked)) == is_possible_then
    assert "locked_start" not in loose["dishes"][0]["steps"][1]
    assert begins_between(problem_of(changed({"roast": {"uses": 2}})), "duck", "roast") is None


def test_what_cannot_be_together_is_told_apart_each_as_alone():
    steps = [{"id": "roast", "place": "oven", "min_h": 2, "prefer_h": 2, "max_h": 2}]
    hen, hare = ({"id": name, "steps": steps} for name in ("hen", "hare"))
    late = {"id": "late", "steps": [{"id": "brine", "place": "fridge", "min_h": 60},
                                    {"id": "boil", "min_h": 1.1}]}  # fmt: skip
    found = apart(problem_of(changed(dishes=[hen, hare, late])))
    told = {(each.dish, each.step): (hour(each.start), hour(each.end)) for each in found}
    assert told == {
        ("hen", "roast"): ("03-22 16:30", "03-22 18:30"),
        ("hare", "roast"): ("03-22 16:30", "03-22 18:30"),
        # 60 h from 9:00 on the 20th, then 1.1 h on the grid: after the feast
        ("late", "brine"): ("03-20 09:00", "03-22 21:00"),
        ("late", "boil"): ("03-22 21:00", "03-22 22:15"),
    }


def test_facts_bind_and_come_back_as_they_were():
    salt = {
        "started_at": "2027-03-21T23:07",
        "rounds_done": ["2027-03-22T03:11", "2027-03-22T08:40"],
    }
    answer = plan_document(changed({"salt": salt | {"min_h": 12}}, now="2027-03-22T09:00"))
    assert times(answer)["salt"] == ("2027-03-21T23:07", "2027-03-22T16:15")
    assert [each["at"][:16] for each in answer["rounds"]] == salt["rounds_done"]
    ended = salt | {"ended_at": "2027-03-22T15:52"}
    roast = {"min_h": 1, "max_h": 4}
    answer = plan_document(changed({"salt": ended, "roast": roast}, now="2027-03-22T16:00"))
    assert times(answer)["salt"] == ("2027-03-21T23:07", "2027-03-22T15:52")
    assert times(answer)["roast"] == ("2027-03-22T16:00", "2027-03-22T18:15")


def test_past_its_longest_it_goes_on_to_the_next_possible_moment():
    salt = {"started_at": "2027-03-19T12:00", "max_h": 48}
    document = changed({"salt": salt, "roast": {"max_h": 40}}, now="2027-03-22T05:00")
    answer = plan_document(document)
    assert times(answer)["salt"] == ("2027-03-19T12:00", "2027-03-22T07:00")
    assert "past-its-time" in {each["code"] for each in answer["notices"]}


def test_a_round_that_nobody_can_do_comes_late_and_is_told():
    away = [{"from": "2027-03-21T08:00", "to": "2027-03-22T10:00"}]
    salt = {"min_h": 48, "max_h": 48, "prefer_h": 48, "every_h": 6}
    answer = plan_document(changed({"salt": salt}, away=away))
    at = [each["at"][:16] for each in answer["rounds"]]
    assert "2027-03-22T10:00" in at
    assert not [each for each in at if "2027-03-21T08:00" <= each < "2027-03-22T10:00"]
    assert "round-late" in {each["code"] for each in answer["notices"]}


def test_an_overdue_round_is_due_now():
    salt = {"started_at": "2027-03-21T07:00", "min_h": 12}
    answer = plan_document(changed({"salt": salt}, now="2027-03-22T09:10"))
    assert answer["rounds"][0]["at"][:16] == "2027-03-22T09:10"
    assert "round-overdue" in {each["code"] for each in answer["notices"]}


@pytest.mark.parametrize(
    ("document", "where"),
    [
        (changed(now="2027-03-28T01:30"), "now"), (changed(now="soon"), "now"),
        (changed(now="2027-03-22"), "now"), (changed(tz="Moon/Tycho"), "tz"),
        (changed(serve_at="2027-03-20T08:00"), "serve_at"),
        (changed(serve_at="2029-01-01T12:00"), "serve_at"),
        (changed(day={"wake": "23:00", "sleep": "07:00"}), "day.sleep"),
        (changed(day={"wake": "7am", "sleep": "22:00"}), "day.wake"),
        (changed(away=[{"from": "2027-03-21T10:00", "to": "2027-03-21T09:00"}]), "away.0.to"),
        (changed({"roast": {"place": "cave"}}), "dishes.0.steps.1.place"),
        (changed(cooks=0), "cooks"),
        (changed({"roast": {"min_h": 5}}), "dishes.0.steps.1.max_h"),
        (changed({"roast": {"id": "salt"}}), "dishes.0.steps"),
        (changed({"roast": {"min_h": float("nan")}}), "dishes.0.steps.1.min_h"),
        (changed({"roast": {"started_at": "2027-03-19T10:00"}}), "dishes.0.steps.0"),
        (changed({"salt": {"started_at": "2027-03-21T10:00"}}), "dishes.0.steps.0.started_at"),
        (changed({"salt": {"rounds_done": ["2027-03-21T10:00"]}}), "dishes.0.steps.0.rounds_done"),
        (changed({"salt": {"locked_start": "2027-03-21T10:07"}}), "dishes.0.steps.0.locked_start"),
        (changed(dishes=[]), "dishes"),
        (changed(dishes=[{"id": "duck", "steps": []}]), "dishes.0.steps"),
        (changed(dishes=DUCK["dishes"] * 2), "dishes"),
    ],
)  # fmt: skip
def test_refuses(document, where):
    with pytest.raises(WrongInput) as refused:
        plan_document(document)
    assert where in {each.where for each in refused.value.problems}


def test_of_an_hour_that_exists_twice_the_first_is_meant():
    answer = plan_document(changed(serve_at="2027-10-31T12:00", now="2027-10-30T01:30"))
    assert answer["status"] == "optimal"
    salted = changed({"salt": {"started_at": "2027-10-31T01:30", "min_h": 5}},
                     serve_at="2027-10-31T12:00", now="2027-10-31T09:00")  # fmt: skip
    assert plan_document(salted)["steps"][0]["start"] == "2027-10-31T01:30:00+01:00"
