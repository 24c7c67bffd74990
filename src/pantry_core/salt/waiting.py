"""How long a piece waits for its salt."""

from pantry_core.errors import within
from pantry_core.rules.constants import MM_AN_INCH, WEEK_AN_INCH


def week_an_inch_days(thickness_mm: float) -> float:
    """The kitchen rule of a week for every inch of the thickest part.

    It stands in for a model of the salt's way: it knows nothing of method, strength, skin or
    temperature.

    Parameters: thickness_mm [mm], above 0 and at most 400.
    Returns: days.
    Raises: OutOfRange.
    Source: common practice.

    >>> week_an_inch_days(50.8)
    14.0
    """
    within("thickness_mm", thickness_mm, 1e-6, 400.0, "mm")
    return WEEK_AN_INCH.value * thickness_mm / MM_AN_INCH.value
