"""Small feasts against a count of all the plans there are."""

import random
from datetime import datetime, timedelta
from itertools import product

import pytest

from pantry_core.plan.problem import resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.solve import plan

SERVE = datetime.fromisoformat("2027-03-22T18:00:00+00:00")
EARLY = 3


def random_feast(dice):
    """Two or three dishes for one oven, one hob and one pair of hands; all lengths in slots."""
    dishes = []
    for _ in range(dice.choice((2, 3))):
        steps = []
        for place in dice.sample(("oven", "hob", None), k=2):
            least = dice.randint(1, 3)
            most = least + dice.randint(0, 2)
            attended = dice.random() < 0.25
            hands = 0 if attended else dice.randint(0, least)
            wish = dice.choice((None, dice.randint(least * 4, most * 4) / 4))
            steps.append((place, least, wish, most, hands, attended))
        dishes.append(steps)
    return dishes


def document_of(dishes):
    return {
        "now": (SERVE - timedelta(hours=8)).isoformat(), "tz": "UTC", "serve_at": SERVE.isoformat(),
        "places": {"oven": 1, "hob": 1, "board": 9},
        "dishes": [
            {"id": f"d{n}", "name": f"d{n}", "early_max_min": 15 * EARLY, "steps": [
                {"id": f"s{i}", "place": place or "board", "min_h": least / 4, "max_h": most / 4,
                 "prefer_h": None if wish is None else wish / 4, "hands_min": 15 * hands,
                 "attended": attended}
                for i, (place, least, wish, most, hands, attended) in enumerate(steps)]}
            for n, steps in enumerate(dishes)],
    }  # fmt: skip


def ways_of(steps):
    """Every way of one dish: deviation, first slot, and which slots of what is shared it takes."""
    for early in range(EARLY + 1):
        for lengths in product(*(range(step[1], step[3] + 1) for step in steps)):
            at, taken, deviation = -early - sum(lengths), 0, 0.0
            first = at
            for (place, _, wish, _, hands, attended), length in zip(steps, lengths, strict=True):
                deviation += 0 if wish is None else abs(length - wish)
                taken |= bits(place, at, length if place else 0)
                taken |= bits("hands", at, length if attended else hands)
                at += length
            yield deviation, first, taken


def bits(shared, at, length):
    """A bit for each slot of what is shared."""
    return ((1 << length) - 1) << (64 * ("oven", "hob", "hands", None).index(shared) + at + 32)


def best_of(dishes):
    """Least deviation and then latest first start of all plans, both in slots; None without one."""
    found = [(0.0, 10**6, 0)]
    for steps in dishes:
        own = list(ways_of(steps))
        found = [
            (a + b, min(s, t), u | v) for a, s, u in found for b, t, v in own if not u & v
        ]  # fmt: skip
        best = {}
        for deviation, first, taken in found:
            # Of the ways that take the same, only those that another does not beat in both can win.
            known = best.setdefault(taken, [])
            if not any(d <= deviation and f >= first for d, f in known):
                known[:] = [(d, f) for d, f in known if d < deviation or f > first]
                known.append((deviation, first))
        found = [(d, f, taken) for taken, known in best.items() for d, f in known]
    return min(((d, -f) for d, f, _ in found), default=None)


@pytest.mark.parametrize("seed", range(40))
def test_no_plan_is_better_than_the_one_that_is_told(seed):
    dishes = random_feast(random.Random(seed))
    best = best_of(dishes)
    answer = plan(resolve(PlanRequest.model_validate(document_of(dishes))))
    if best is None:
        assert answer.status == "infeasible"
        return
    assert (answer.status, answer.gap) == ("optimal", 0)
    deviation = 0.0
    for told in answer.steps:
        wish = dishes[int(told.dish[1:])][int(told.step[1:])][2]
        length = (told.end - told.start) / timedelta(minutes=15)
        deviation += 0 if wish is None else abs(length - wish)
    assert deviation == pytest.approx(best[0])
    assert (SERVE - min(each.start for each in answer.steps)) / timedelta(minutes=15) == best[1]


@pytest.mark.parametrize("seed", range(20))
def test_the_earliest_hour_is_as_far_as_the_shortest_plan_is_long(seed):
    dishes = [
        [(*step[:2], None, *step[3:]) for step in own] for own in random_feast(random.Random(seed))
    ]
    best, now = best_of(dishes), SERVE - timedelta(minutes=15)
    document = document_of(dishes) | {"now": now.isoformat()}
    answer = plan(resolve(PlanRequest.model_validate(document)))
    assert answer.status == "infeasible"
    if best is None:
        assert answer.earliest_serve is None
    else:
        assert answer.earliest_serve == now + best[1] * timedelta(minutes=15)
