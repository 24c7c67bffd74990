"""Which quarter hours the boundaries of one dish can take at all, by its own windows and hands."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

Slots = NDArray[np.bool_]
Lengths = tuple[int, int]
"""Shortest and longest length of a step in slots."""
Within = Sequence[tuple[int, int]] | None
"""Closed intervals in one of which a step lies from start to end; None: anywhere."""


def reachable(
    free: Sequence[Slots], lengths: Sequence[Lengths], within: Sequence[Within] | None = None
) -> list[Slots] | None:
    """Narrow the slots of a dish's boundaries to those that lie on some way from first to last.

    Pointwise the latest of two ways is a way too, so the last slot of each boundary belongs to one
    and the same way: the dish begun as late as can be.

    Parameters: free, for each boundary the slots in which it may lie, all of one length, one
    boundary more than there are steps; lengths of the steps between them; within, for each step
    the intervals in one of which it lies, counted as the slots.
    Returns: the narrowed slots, or None when there is no way.
    Raises: nothing.

    >>> free = [np.array([True, True, False, False]), np.array([True, False, True, True])]
    >>> [np.flatnonzero(each).tolist() for each in reachable(free, [(1, 2)])]
    [[0, 1], [2, 3]]
    """
    ways, last = [free[0]], len(free[0]) - 1
    inside = within or [None] * len(lengths)
    for slots, length, stay in zip(free[1:], lengths, inside, strict=True):
        ways.append(slots & _ends(ways[-1], length, stay))
    for i in range(len(lengths) - 1, -1, -1):
        mirrored = inside[i]
        if mirrored is not None:
            mirrored = [(last - b, last - a) for a, b in mirrored]
        ways[i] = ways[i] & _ends(ways[i + 1][::-1], lengths[i], mirrored)[::-1]
    return ways if ways[0].any() else None


def slots_in(spans: Sequence[Sequence[int]], first: int, count: int) -> Slots:
    """Slots from `first` on, so many, that lie in one of some closed intervals."""
    slots = np.zeros(count, dtype=bool)
    for begin, end in spans:
        slots[max(begin - first, 0) : max(end - first + 1, 0)] = True
    return slots


def intervals(slots: Slots, first: int) -> list[list[int]]:
    """Closed intervals of the slots that are set, the array's first being `first`."""
    edges = np.flatnonzero(np.diff(np.concatenate(([False], slots, [False]))))
    return [[first + int(a), first + int(b) - 1] for a, b in edges.reshape(-1, 2)]


def _ends(slots: Slots, lengths: Lengths, within: Within) -> Slots:
    """Where a step can end that starts in one of the slots.

    It ends in a slot when a start that is set lies from its least to its most length before that
    slot, and not before the interval in which the step lies.
    """
    count, (least, most) = len(slots), lengths
    begins = np.arange(-most, count - most)
    np.maximum(begins, 0, out=begins)
    if within is not None:
        opens = np.full(count, count)
        for a, b in sorted(within, reverse=True):  # of two that overlap the earlier one lets more
            opens[max(a, 0) : max(b + 1, 0)] = max(a, 0)
        np.maximum(begins, opens, out=begins)
    np.minimum(begins, count, out=begins)
    after = np.arange(1 - least, count + 1 - least)
    np.maximum(after, 0, out=after)
    passed = np.zeros(count + 1, dtype=np.int64)
    np.cumsum(slots, out=passed[1:])
    ends: Slots = passed[after] > passed[begins]
    return ends
