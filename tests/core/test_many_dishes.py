"""Plans of several dishes, each counted by hand."""

import copy
from itertools import product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pantry_core.formats.operations import plan_document
from pantry_core.formats.reading import WrongInput
from pantry_core.plan.problem import resolve
from pantry_core.plan.reach import intervals, reachable, slots_in
from pantry_core.plan.reasons import in_few_words
from pantry_core.plan.request import MOST_DISHES, PlanRequest
from pantry_core.plan.solve import plan
from tests.reference.feast_rules import broken_rules_of

ROAST = {"id": "roast", "place": "oven", "min_h": 2, "prefer_h": 2, "max_h": 2, "hands_min": 15}
CARVE = {"id": "carve", "min_h": 0.25, "prefer_h": 0.25, "max_h": 0.25, "hands_min": 15}
BRINE = {"id": "brine", "place": "fridge", "min_h": 48, "prefer_h": 48, "max_h": 48,
         "hands_min": 15, "every_h": 24, "uses": 5}  # fmt: skip
HOUSE = {"now": "2027-03-18T09:00", "tz": "Europe/London", "serve_at": "2027-03-22T18:30",
         "places": {"oven": 1, "fridge": 12}}  # fmt: skip


def feast(*dishes, early=0, **changes):
    """A feast of dishes, each a list of steps."""
    named = [
        {"id": name, "name": name.title(), "early_max_min": early, "steps": copy.deepcopy(steps)}
        for name, steps in zip(("hen", "goat", "hare", "pike"), dishes, strict=False)
    ]
    return HOUSE | {"dishes": named} | changes


def starts(answer, step):
    return sorted(each["start"][11:16] for each in answer["steps"] if each["step"] == step)


def test_one_oven_takes_one_roast_after_the_other():
    document = feast([ROAST, CARVE], [ROAST, CARVE], early=135)
    answer = plan_document(document)
    assert answer["status"] == "optimal"
    assert broken_rules_of(document, answer) == []
    # 18:15 less 2 h; the other is carved before the same hands put this one in
    assert starts(answer, "roast") == ["14:00", "16:15"]
    assert answer["latest_start"][11:16] == "14:00"
    assert plan_document(document | {"cooks": 2})["latest_start"][11:16] == "14:15"


def test_one_pair_of_hands_carves_one_dish_after_the_other():
    answer = plan_document(feast([CARVE], [CARVE], [CARVE], early=30))
    assert starts(answer, "carve") == ["17:45", "18:00", "18:15"]
    both = plan_document(feast([CARVE], [CARVE], [CARVE], early=30, cooks=2))
    assert starts(both, "carve") == ["18:00", "18:15", "18:15"]


@pytest.mark.parametrize(
    ("document", "reasons", "helps"),
    [
        (feast([CARVE], [CARVE]), {"hands-full"}, "Get a second cook."),
        (feast([ROAST], [ROAST], cooks=2), {"place-full"},
         "Make room: 2 in the oven instead of 1."),
        (feast([BRINE], [BRINE], [BRINE], cooks=3), {"place-full"},
         "Make room: 15 in the fridge instead of 12."),
        (feast([CARVE], [CARVE], early=15,
               away=[{"from": "2027-03-22T18:00", "to": "2027-03-22T18:15"}]),
         {"hands-full", "away"},
         "Be at home from Monday 22 March at 18:00 to Monday 22 March at 18:15."),
        (feast([BRINE, CARVE], [CARVE], early=15, now="2027-03-21T09:00"), {"too-late"},
         "Leave out Hen."),
    ],
)  # fmt: skip
def test_what_collides_and_what_helps(document, reasons, helps):
    answer = plan_document(document)
    assert answer["status"] == "infeasible"
    assert {each["reason"] for each in answer["why"]} == reasons
    assert all(each["text"].startswith(("Hen: ", "Goat: ", "Hare: ")) for each in answer["why"])
    remedies = {each["text"]: each for each in answer["remedies"]}
    assert helps in remedies
    for remedy in remedies.values():
        assert remedy["plan"]["status"] == "optimal"
        assert broken_rules_of(remedy["input"], remedy["plan"]) == []


@pytest.mark.parametrize(
    ("document", "told"),
    [
        (feast([BRINE], [BRINE], [BRINE], cooks=3),
         ["The fridge holds 12, too little at once for: Hen (brine); Goat (brine); Hare (brine)."]),
        (feast([CARVE], [CARVE], [CARVE], early=15),
         ["Too much for one cook at once: Hen (carve); Goat (carve); Hare (carve)."]),
        (feast([CARVE], [CARVE]),
         ["Hen: carve wants hands while the one cook's are full.",
          "Goat: carve wants hands while the one cook's are full."]),
    ],
)  # fmt: skip
def test_many_rules_about_one_thing_are_told_in_one_sentence(document, told):
    problem = resolve(PlanRequest.model_validate(document))
    assert in_few_words(problem, plan(problem).why) == told


def test_several_changes_together_where_none_helps_alone():
    late = {"serve_at": "2027-03-19T12:00"}
    document = feast([BRINE, CARVE], [BRINE, CARVE], [CARVE], early=60)
    for dish in document["dishes"][:2]:
        dish.update(late)
    answer = plan_document(document)
    assert answer["status"] == "infeasible"
    (remedy,) = answer["remedies"]
    assert "Hen" in remedy["text"]
    assert "Goat" in remedy["text"]
    assert broken_rules_of(remedy["input"], remedy["plan"]) == []


def test_rounds_are_gathered_into_one_visit():
    answer = plan_document(feast([BRINE, CARVE], [BRINE, CARVE], early=15, cooks=2))
    # 48 h with at most 36 h between two rounds: one each, and one walk to the fridge for both
    (visit,) = answer["rounds"]
    assert {job["dish"] for job in visit["jobs"]} == {"hen", "goat"}


def test_wishes_come_before_starting_late():
    short = ROAST | {"min_h": 1, "prefer_h": 2, "max_h": 3}
    answer = plan_document(feast([short, CARVE], [short, CARVE], early=120, cooks=2))
    assert starts(answer, "roast") == ["14:15", "16:15"]  # not an hour each, though later
    tight = plan_document(feast([short, CARVE], [short, CARVE], early=60, cooks=2))
    # an hour is missing: together they deviate by that hour, and the first begins as late as can be
    assert starts(tight, "roast")[0] == "15:15"


def test_its_own_hour():
    document = feast([ROAST, CARVE], [ROAST, CARVE])
    document["dishes"][1]["serve_at"] = "2027-03-22T16:15"
    answer = plan_document(document)
    assert starts(answer, "roast") == ["14:00", "16:15"]
    document["dishes"][1]["serve_at"] = "2027-03-22T16:10"
    with pytest.raises(WrongInput, match="whole quarters"):
        plan_document(document)


def test_as_few_changes_as_will_do():
    rest = {"id": "rest", "min_h": 1, "prefer_h": 1, "max_h": 6}
    document = feast([ROAST, rest, CARVE], [BRINE, rest, CARVE], [rest, CARVE], early=60)
    before = plan(resolve(PlanRequest.model_validate(document)))
    keep = {(each.dish, each.step): each.start for each in before.steps}
    out = {"from": "2027-03-22T14:30", "to": "2027-03-22T15:30"}  # when the hen went in
    after = plan(resolve(PlanRequest.model_validate(document | {"away": [out]})), keep=keep)
    moved = {
        (each.dish, each.step) for each in after.steps if each.start != keep[each.dish, each.step]
    }
    assert moved <= {("hen", "roast"), ("hen", "rest")}
    assert ("hen", "roast") in moved
    as_asked = document | {"away": [out]}
    told = {"steps": [vars_of(each) for each in after.steps], "rounds": []}
    assert broken_rules_of(as_asked | {"dishes": without_rounds(document)}, told) == []


def vars_of(step):
    return {"dish": step.dish, "step": step.step, "start": step.start.isoformat(),
            "end": step.end.isoformat()}  # fmt: skip


def without_rounds(document):
    dishes = copy.deepcopy(document["dishes"])
    for dish in dishes:
        for step in dish["steps"]:
            step.pop("every_h", None)
    return dishes


def test_a_search_tells_how_far_it_is_and_stops_when_asked():
    dishes = [[BRINE | {"uses": 1}, ROAST, CARVE] for _ in range(4)]
    document = feast(*dishes, early=600, places={"oven": 2, "fridge": 9})
    told = []
    found = plan(
        resolve(PlanRequest.model_validate(document)),
        lambda deviation_h, bound_h: told.append((deviation_h, bound_h)),
        lambda: True,
    )
    assert found.status in ("optimal", "feasible")
    assert told
    assert all(bound <= deviation + 1e-9 for deviation, bound in told)
    assert [each[0] for each in told] == sorted((each[0] for each in told), reverse=True)


def test_forty_dishes_are_planned_and_one_more_refused():
    dishes = [
        {"id": f"dish-{n}", "steps": [CARVE | {"hands_min": 0}], "early_max_min": 0}
        for n in range(MOST_DISHES)
    ]
    answer = plan_document(HOUSE | {"dishes": dishes})
    assert answer["status"] == "optimal"
    assert len(answer["steps"]) == MOST_DISHES
    with pytest.raises(WrongInput):
        plan_document(HOUSE | {"dishes": [*dishes, {"id": "more", "steps": [CARVE]}]})


def test_what_has_happened_binds_over_all_dishes():
    running = ROAST | {"started_at": "2027-03-22T14:40"}
    document = feast([running, CARVE], [ROAST, CARVE], early=180, now="2027-03-22T15:00")
    # it is in until 16:45; two hours more and the carving come to 19:00
    assert plan_document(document)["status"] == "infeasible"
    later = document | {"serve_at": "2027-03-22T19:30"}
    found = plan_document(later)
    assert broken_rules_of(later, found) == []
    at = {(each["dish"], each["step"]): each for each in found["steps"]}
    assert at["hen", "roast"]["start"][:16] == "2027-03-22T14:40"
    assert at["hen", "roast"]["end"][:16] <= "2027-03-22T16:45"
    assert at["goat", "roast"]["start"] >= at["hen", "roast"]["end"]


def grids(size):
    return st.lists(st.lists(st.booleans(), min_size=size, max_size=size), min_size=2, max_size=4)


@given(
    st.integers(1, 7).flatmap(grids),
    st.lists(st.tuples(st.integers(0, 3), st.integers(0, 3)), min_size=3, max_size=3),
)
def test_what_can_be_reached_is_what_lies_on_some_way(free, windows):
    lengths = [(min(pair), max(pair)) for pair in windows][: len(free) - 1]
    ways = [
        way
        for way in product(*(np.flatnonzero(each) for each in free))
        if all(
            least <= after - before <= most
            for before, after, (least, most) in zip(way[:-1], way[1:], lengths, strict=True)
        )
    ]
    found = reachable([np.array(each) for each in free], lengths)
    if not ways:
        assert found is None
        return
    for i, each in enumerate(found):
        assert set(np.flatnonzero(each)) == {way[i] for way in ways}
    # the latest of every boundary lies on one and the same way
    assert tuple(max(way[i] for way in ways) for i in range(len(free))) in ways


def test_slots_and_intervals_are_each_others_inverse():
    spans = [[3, 5], [8, 8], [10, 14]]
    assert intervals(slots_in(spans, 2, 11), 2) == [[3, 5], [8, 8], [10, 12]]
