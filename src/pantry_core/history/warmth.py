"""How long what lay in the fridge lay there while something befell it."""

from collections.abc import Iterable
from datetime import datetime

from pantry_core.history.log import hours_between


def hours_met(stays: Iterable[tuple[datetime, datetime]], begin: datetime, end: datetime) -> float:
    """How long what lay in the fridge lay there while something befell it.

    Parameters: stays, each with its start and end; begin and end of what befell.
    Returns: hours [h]. Raises: nothing.
    """
    met = (hours_between(max(start, begin), min(stop, end)) for start, stop in stays)
    return sum((max(hours, 0.0) for hours in met), 0.0)
