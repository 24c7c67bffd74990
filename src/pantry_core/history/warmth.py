"""How long a dish was too warm, all mishaps together."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from pantry_core.heat.warm import HOT_C, Kind, hours_too_warm, judge_hours_too_warm
from pantry_core.history.log import Log, hours_between
from pantry_core.notice import Notice


def hours_met(stays: Iterable[tuple[datetime, datetime]], begin: datetime, end: datetime) -> float:
    """How long what lay in the fridge lay there while something befell it.

    Parameters: stays, each with its start and end; begin and end of what befell.
    Returns: hours [h]. Raises: nothing.
    """
    met = (hours_between(max(start, begin), min(stop, end)) for start, stop in stays)
    return sum((max(hours, 0.0) for hours in met), 0.0)


@dataclass(frozen=True, slots=True)
class Warmed:
    """A mishap as it befell one dish: so long [h], up to so warm, where that was read [°C]."""

    kind: Kind
    hours: float
    temperature_c: float | None


def judge_mishaps(log: Log, *, is_mackerel: bool = False) -> Notice | None:
    """What all time above 5 °C together means for a dish.

    Parameters: log, its mishaps with their hours; is_mackerel, whether it forms histamine.
    Returns: a stop, a caution, None when there was none.
    Raises: OutOfRange.
    Source: see `heat.warm`.
    """
    mishaps = (
        Warmed(each.kind or "left-out", each.hours, each.temperature_c)
        for each in log.happened
        if each.what == "mishap" and each.hours is not None
    )
    return judge_warmth(mishaps, is_mackerel=is_mackerel)


def judge_warmth(mishaps: Iterable[Warmed], *, is_mackerel: bool = False) -> Notice | None:
    """What mishaps come to together.

    Parameters: mishaps of one dish; is_mackerel, whether it forms histamine.
    Returns, errors and source as of `judge_mishaps`.
    """
    total, is_hot = 0.0, False
    for each in mishaps:
        counted = hours_too_warm(each.kind, each.hours, each.temperature_c, is_mackerel=is_mackerel)
        total += counted
        is_hot |= counted > 0 and (each.temperature_c or 0.0) > HOT_C.value
    return judge_hours_too_warm(total, is_hot=is_hot)
