"""What was let go on below its temperature, or unread."""

from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Final

from pantry_core.dish.answer import DishStep
from pantry_core.dish.gates import JUST_AS_HOT
from pantry_core.history.log import Log
from pantry_core.notice import Notice, notice
from pantry_core.rules.rule import Mark, Source

_PRACTICE: Final = Source("", Mark.PRACTICE)


def passed_too_soon(
    steps: Sequence[DishStep], log: Log | None, safe_c: float | None
) -> Iterator[Notice]:
    """What was let go on below what it may not be below, well done as it was wanted [°C]."""
    if log is None:
        return
    for step, following in pairwise(steps):
        goal_c = (step.until or {}).get("inside_c")
        if goal_c is None or not log.has_begun(following.id) or not log.has_begun(step.id):
            continue
        read = log.last("temperature-read", step.id)
        if read is None or read.temperature_c is None:
            text = f"Nobody has read how hot it was inside: {goal_c:g} °C is what it needs."
            yield notice("caution", "not-read", text, _PRACTICE)
        elif read.temperature_c < min(goal_c, safe_c or goal_c) - JUST_AS_HOT:
            text = (
                f"{read.temperature_c:g} of {goal_c:g} °C when it was taken from the heat: back to "
                "the heat until the probe says so."
            )
            yield notice("stop", "not-done", text, _PRACTICE)
