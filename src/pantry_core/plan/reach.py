"""Which quarter hours the boundaries of one dish can take at all, by its own windows and hands."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

Slots = NDArray[np.bool_]
Lengths = tuple[int, int]
"""Shortest and longest length of a step in slots."""


def reachable(free: Sequence[Slots], lengths: Sequence[Lengths]) -> list[Slots] | None:
    """Narrow the slots of a dish's boundaries to those that lie on some way from first to last.

    Pointwise the latest of two ways is a way too, so the last slot of each boundary belongs to one
    and the same way: the dish begun as late as can be.

    Parameters: free, for each boundary the slots in which it may lie, all of one length, one
    boundary more than there are steps; lengths of the steps between them.
    Returns: the narrowed slots, or None when there is no way.
    Raises: nothing.

    >>> free = [np.array([True, True, False, False]), np.array([True, False, True, True])]
    >>> [np.flatnonzero(each).tolist() for each in reachable(free, [(1, 2)])]
    [[0, 1], [2, 3]]
    """
    ways = [free[0]]
    for slots, (least, most) in zip(free[1:], lengths, strict=True):
        ways.append(slots & _shifted(ways[-1], least, most))
    for i in range(len(lengths) - 1, -1, -1):
        least, most = lengths[i]
        ways[i] = ways[i] & _shifted(ways[i + 1][::-1], least, most)[::-1]
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


def _shifted(slots: Slots, least: int, most: int) -> Slots:
    """Slots that lie from least to most after one that is set."""
    count = len(slots)
    passed = np.concatenate(([0], np.cumsum(slots)))
    ends = np.arange(count)
    upto = np.clip(ends - least + 1, 0, count)
    before = np.clip(ends - most, 0, count)
    moved: Slots = passed[upto] > passed[before]
    return moved
