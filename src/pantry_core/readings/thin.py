"""Readings thinned, so that a straight line between those that stay is as good as all of them."""

from collections.abc import Sequence
from itertools import groupby

import numpy as np

from pantry_core.errors import within
from pantry_core.readings.sift import Sample, What

TOLERANCE_C: dict[What, float] = {"meat": 0.25, "fire": 2.0, "fridge": 0.25}
"""What is finer than a probe can tell, or a fire is steady, is not kept (our own choice)."""
MINUTE_S = 60.0
LONGEST_S = 300.0
"""One stays at least so often, so that silence is told from rest."""


def one_a_minute(samples: Sequence[Sample]) -> list[Sample]:
    """The middle one of the readings of each minute, so that no noise is kept.

    Parameters: samples in the order of their hours.
    Returns: one of each minute in which there was one, its median; the first and the last as well.
    Raises: nothing.

    >>> [each.celsius for each in one_a_minute([Sample(12.0 * n, 20.0 + n % 3) for n in range(10)])]
    [20.0, 21.0, 21.0, 20.0]
    """
    found = list(samples[:1])
    for _, minute in groupby(samples, key=lambda each: each.at_s // MINUTE_S):
        in_it = sorted(minute, key=lambda each: each.celsius)
        found.append(in_it[len(in_it) // 2])
    found += samples[-1:]
    return sorted(set(found))


def thinned(
    samples: Sequence[Sample],
    tolerance_c: float = TOLERANCE_C["meat"],
    longest_s: float = LONGEST_S,
) -> list[Sample]:
    """The readings that stay.

    Parameters: samples in the order of their hours; tolerance_c [°C]; longest_s [s].
    Returns: a part of them, the first and the last among them; every other one lies within
    tolerance_c of the straight line between its neighbours that stay, and no gap is longer than
    longest_s or than it was.
    Raises: OutOfRange for a tolerance or a length that is not above 0.
    Source: the line simplification of Ramer, Douglas and Peucker (from memory).

    >>> flat = [Sample(5.0 * n, 20.0) for n in range(50)]
    >>> len(thinned(flat))
    2
    """
    within("tolerance_c", tolerance_c, 1e-6, 100.0, "°C")
    within("longest_s", longest_s, 1e-6, 1e6, "s")
    if len(samples) < 3:
        return list(samples)
    at = np.asarray([each.at_s for each in samples])
    read = np.asarray([each.celsius for each in samples])
    stays = {0, len(samples) - 1}
    spans = [(0, len(samples) - 1)]
    while spans:
        first, last = spans.pop()
        if last - first < 2:
            continue
        inner = slice(first + 1, last)
        line = np.interp(at[inner], at[[first, last]], read[[first, last]])
        off = np.abs(read[inner] - line)
        worst = first + 1 + int(off.argmax())
        if off.max() <= tolerance_c:
            if at[last] - at[first] <= longest_s:
                continue
            worst = (first + last) // 2
        stays.add(worst)
        spans += [(first, worst), (worst, last)]
    return [samples[n] for n in sorted(stays)]
