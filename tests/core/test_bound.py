"""The least that dishes must deviate, alone and together, counted by hand or one by one."""

from itertools import pairwise, product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pantry_core.plan.chains import Chain, least_through
from pantry_core.plan.flow import Flow
from pantry_core.plan.resources import Share, Use

SLOT_S = 900
SLOTS = 7


@st.composite
def chains(draw):
    """A dish of one to three steps on an axis of seven slots."""
    steps = draw(st.integers(1, 3))
    flags = st.lists(st.booleans(), min_size=SLOTS, max_size=SLOTS)
    free = [np.array(draw(flags)) for _ in range(steps + 1)]
    pairs = st.tuples(st.integers(0, 4), st.integers(0, 4)).map(sorted).map(tuple)
    lengths = [draw(pairs) for _ in range(steps)]
    wished = [draw(st.none() | st.integers(-900, 5000)) for _ in range(steps)]
    return Chain(free, lengths, wished)


@given(chains(), st.randoms(use_true_random=False))
def test_a_dish_alone_against_all_its_ways(chain, dice):
    prices = [np.array([dice.randint(-500, 500) for _ in range(SLOTS)]) for _ in chain.free]
    found = [np.full(SLOTS, np.inf) for _ in chain.free]
    for way in product(range(SLOTS), repeat=len(chain.free)):
        lengths = [b - a for a, b in pairwise(way)]
        if not all(free[at] for free, at in zip(chain.free, way, strict=True)):
            continue
        windows = zip(chain.lengths, lengths, strict=True)
        if not all(least <= length <= most for (least, most), length in windows):
            continue
        cost = sum(price[at] for price, at in zip(prices, way, strict=True)) + sum(
            abs(length * SLOT_S - wished)
            for length, wished in zip(lengths, chain.wished, strict=True)
            if wished is not None
        )
        for costs, at in zip(found, way, strict=True):
            costs[at] = min(costs[at], cost)
    for told, counted in zip(least_through(chain, prices), found, strict=True):
        np.testing.assert_allclose(told, counted)


def three_dishes(demand, capacity):
    """Each waits a quarter hour or longer and then takes a quarter hour of what is shared."""
    axis = np.arange(5)
    free = [axis == 0, axis > 0, axis > 0]
    uses = [Use(dish, 1, demand) for dish in range(3)]
    flow = Flow(
        [Chain(free, [(1, 3), (1, 1)], [SLOT_S, None])] * 3,
        [[np.flatnonzero(each) for each in free]] * 3,
        [Share("place-full", capacity, uses)],
    )
    return flow.divided(), flow.whole()


@pytest.mark.parametrize(("demand", "capacity", "divided_s", "starts"), [
    # One after the other: the second a quarter hour late, the third two.
    (1, 1, 2700, [1, 2, 3]),
    # Half a dish fits beside another, but no dish can be cut.
    (2, 3, 1350, [1, 2, 3]),
    # Two at once, the third a quarter hour late.
    (2, 4, 900, [1, 1, 2]),
])  # fmt: skip
def test_dishes_together_divided_and_whole(demand, capacity, divided_s, starts):
    (value, prices, _), whole = three_dishes(demand, capacity)
    assert value == pytest.approx(divided_s)
    assert sorted(own[1] for own in whole) == starts
    # What is left over costs nothing, and what costs is used up: the prices say as much.
    assert all((each >= 0).all() for each in prices.each)


def test_too_little_for_one_dish():
    assert three_dishes(demand=2, capacity=1) == (None, None)
