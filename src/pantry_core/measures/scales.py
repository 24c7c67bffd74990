"""Which scale to take for a line."""

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Scale:
    """A scale: it reads to its division, and holds so much [g]."""

    name: str
    division_g: float
    capacity_g: float


def scale_for(scales: Iterable[Scale], grams: float) -> Scale | None:
    """The finest scale that holds so much.

    Parameters: scales; grams [g], the vessel not counted.
    Returns: the scale, None when none holds it.
    Raises: nothing.

    >>> kitchen, fine = Scale("kitchen", 1.0, 5000.0), Scale("fine", 0.01, 200.0)
    >>> scale_for([kitchen, fine], 12.0).name, scale_for([kitchen, fine], 900.0).name
    ('fine', 'kitchen')
    """
    able = [each for each in scales if each.capacity_g >= grams]
    return min(able, key=lambda each: each.division_g, default=None)
