"""Readings thinned, so that a straight line between those that stay is as good as all of them."""

from collections.abc import Sequence

import numpy as np

from pantry_core.errors import within
from pantry_core.readings.sift import Sample

TOLERANCE_C = 0.25
"""What is finer than a probe can tell is not kept (our own choice)."""
LONGEST_S = 300.0
"""One stays at least so often, so that silence is told from rest."""


def thinned(
    samples: Sequence[Sample], tolerance_c: float = TOLERANCE_C, longest_s: float = LONGEST_S
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
