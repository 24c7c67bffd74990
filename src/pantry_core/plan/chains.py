"""One dish alone: the least its lengths must deviate through each quarter hour."""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from pantry_core.plan.grid import SLOT_S
from pantry_core.plan.reach import Lengths, Slots, Within

Costs = NDArray[np.float64]
"""For each slot of an axis, seconds of deviation, priced or not; infinite where nothing can be."""


@dataclass(frozen=True, slots=True)
class Chain:
    """The steps of a dish on an axis of slots.

    `free` are for each boundary the slots in which it may lie, all of one length, one boundary more
    than there are steps; `lengths` the shortest and longest of each step in slots; `wished` the
    length each should have [s], None where any is as good; `within` the closed intervals in one of
    which each step lies, None where it may lie anywhere; `late` what it costs to end in each slot
    [s], None: nothing.
    """

    free: Sequence[Slots]
    lengths: Sequence[Lengths]
    wished: Sequence[int | None]
    within: Sequence[Within] = field(default=())
    late: Costs | None = None

    def inside(self, i: int) -> Within:
        """The intervals in one of which a step lies."""
        return self.within[i] if self.within else None


def least_through(chain: Chain, prices: Sequence[Costs] | None = None) -> list[Costs]:
    """Least total deviation of a dish, each boundary in each slot [s].

    Parameters: chain; prices, for each boundary what it costs besides to lie in a slot [s].
    Returns: for each boundary and slot the least cost of all ways that lead through it, infinite
    where none does; the least of all is that of each boundary.
    Raises: nothing.
    Source: dynamic programming, forwards and backwards.

    >>> free = [np.array([True, True, False, False]), np.array([False, False, True, True])]
    >>> [each.tolist() for each in least_through(Chain(free, [(1, 3)], [1800]))]
    [[0.0, 0.0, inf, inf], [inf, inf, 0.0, 0.0]]
    """
    priced = [np.zeros(len(each)) for each in chain.free] if prices is None else list(prices)
    if chain.late is not None:
        priced[-1] = priced[-1] + chain.late
    last = len(chain.free[0]) - 1
    onward = [np.where(chain.free[0], priced[0], np.inf)]
    steps = list(zip(chain.lengths, chain.wished, strict=True))
    for i, (lengths, wished) in enumerate(steps):
        ends = _after(onward[-1], chain.free[i + 1], lengths, wished, chain.inside(i))
        onward.append(ends + priced[i + 1])
    back = [np.where(chain.free[-1], 0.0, np.inf)]
    for i, (lengths, wished) in reversed(list(enumerate(steps))):
        within = chain.inside(i)
        if within is not None:
            within = [(last - b, last - a) for a, b in within]
        ends = (back[0] + priced[i + 1])[::-1]
        back.insert(0, _after(ends, chain.free[i][::-1], lengths, wished, within)[::-1])
    return [to + fro for to, fro in zip(onward, back, strict=True)]


def _after(
    costs: Costs, free: Slots, lengths: Lengths, wished: int | None, within: Within
) -> Costs:
    """Least cost at each slot when one step lies between it and a slot before."""
    if within is not None:
        found = np.full(len(costs), np.inf)
        for a, b in within:
            here = slice(max(a, 0), max(b + 1, 0))
            if costs[here].size:
                inside = _after(costs[here], free[here], lengths, wished, None)
                found[here] = np.minimum(found[here], inside)
        return found
    least, most = lengths[0], min(lengths[1], len(costs))
    if wished is None:
        return np.where(free, _least_before(costs, least, most), np.inf)
    # The deviation bends at the wished length, and is a straight line to both sides of it.
    bend = wished // SLOT_S
    time_s = np.arange(len(costs)) * float(SLOT_S)
    shorter = _least_before(costs + time_s, least, min(most, bend)) - time_s + wished
    longer = _least_before(costs - time_s, max(least, bend + 1), most) + time_s - wished
    return np.where(free, np.minimum(shorter, longer), np.inf)


def _least_before(costs: Costs, least: int, most: int) -> Costs:
    """The least of those that lie from `least` to `most` slots before each slot."""
    if least > most:
        return np.full(len(costs), np.inf)
    width, reach = most - least + 1, 1
    window = np.concatenate((np.full(most, np.inf), costs))
    while reach < width:
        step = min(reach, width - reach)
        window[:-step] = np.minimum(window[:-step], window[step:])
        reach += step
    return window[: len(costs)]
