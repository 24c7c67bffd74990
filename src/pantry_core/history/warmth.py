"""How long a dish was too warm, all mishaps together."""

from pantry_core.heat.warm import HOT_C, hours_too_warm, judge_hours_too_warm
from pantry_core.history.log import Log
from pantry_core.notice import Notice


def judge_mishaps(log: Log, *, is_mackerel: bool = False) -> Notice | None:
    """What all time above 5 °C together means for a dish.

    Parameters: log, its mishaps with their hours; is_mackerel, whether it forms histamine.
    Returns: a stop, a caution, None when there was none.
    Raises: OutOfRange.
    Source: see `heat.warm`.
    """
    total, is_hot = 0.0, False
    for each in log.happened:
        if each.what != "mishap" or each.hours is None:
            continue
        counted = hours_too_warm(
            each.kind or "left-out", each.hours, each.temperature_c, is_mackerel=is_mackerel
        )
        total += counted
        is_hot |= counted > 0 and (each.temperature_c or 0.0) > HOT_C.value
    return judge_hours_too_warm(total, is_hot=is_hot)
