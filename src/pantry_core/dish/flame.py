"""A pot that is left alone on an open flame."""

from collections.abc import Iterator, Sequence
from datetime import datetime, timedelta

from pantry_core.dish.answer import DishStep
from pantry_core.dish.clock import Clock
from pantry_core.notice import Notice, notice
from pantry_core.rules.rule import Mark, Rule, Source
from pantry_core.text import say

FLAMES = ("hob", "fire")
ALONE_H = Rule("left-on-a-flame", 8.0, "h", "nobody sits by it so long", Mark.PRACTICE)
NIGHT = (timedelta(hours=0), timedelta(hours=5))
"""Hours of the night in which everybody sleeps, since midnight."""
_PRACTICE = Source("", Mark.PRACTICE)


def of_an_open_flame(steps: Sequence[DishStep], clock: Clock) -> Iterator[Notice]:
    """A caution for each step that stands on a flame while nobody is up, as far as is known.

    Parameters: steps; clock, with the times that are planned.
    Returns: cautions; without times a step that takes eight hours counts.
    """
    for step in steps:
        if step.place not in FLAMES or step.attended or step.every_h is not None:
            continue
        start, end = clock.planned.get(step.id, (None, None))
        if start is None or end is None:
            is_left = step.min_h >= ALONE_H.value
        else:
            is_left = _is_at_night(clock.local(start), clock.local(end))
        if is_left:
            text = say(
                "{step}: overnight it is not left alone on an open flame. In the oven, lid on, "
                "at {@100 °C}, on an electric plate, or by day.",
                step=step.title,
            )
            yield notice("caution", "open-flame", text, _PRACTICE)


def _is_at_night(start: datetime, end: datetime) -> bool:
    """Whether it goes on in the small hours."""
    midnight = datetime.combine(start.date(), datetime.min.time(), start.tzinfo)
    while midnight < end:
        if start < midnight + NIGHT[1] and end > midnight + NIGHT[0]:
            return True
        midnight += timedelta(days=1)
    return False
