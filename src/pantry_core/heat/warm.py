"""Time above 4 °C: how long a piece was too warm, and whether it may still be eaten."""

from typing import Literal

from pantry_core.errors import within
from pantry_core.notice import Notice, notice
from pantry_core.rules.constants import FRIDGE_GOAL_C
from pantry_core.rules.rule import Mark, Rule

Kind = Literal["power-out", "fridge-warm", "left-out"]

CLOSED_FRIDGE_H = Rule("closed-fridge", 4.0, "h", "USDA, power out, door kept shut", Mark.MEMORY)
TWO_HOURS = Rule("two-hours", 2.0, "h", "USDA, 4 to 60 °C", Mark.MEMORY)
ONE_HOUR_HOT = Rule("one-hour-hot", 1.0, "h", "USDA, above 32 °C", Mark.MEMORY)
HOT_C = Rule("hot-kitchen", 32.0, "°C", "USDA, above 32 °C", Mark.MEMORY)
LONGEST_H = 24.0 * 366


def hours_above_4_c(kind: Kind, hours: float, temperature_c: float | None = None) -> float:
    """How long a piece was above 4 °C in a mishap.

    Parameters: kind of the mishap; hours it lasted [h]; temperature_c that was read [°C], None
    where nobody read it.
    Returns: hours that count [h]: of a power cut those after the four that a closed fridge keeps,
    unless a temperature was read; none at 4 °C or below.
    Raises: OutOfRange for a negative or absurd time or temperature.
    Source: USDA (from memory).

    >>> hours_above_4_c("power-out", 5.5)
    1.5
    >>> hours_above_4_c("fridge-warm", 5.0, 7.0), hours_above_4_c("fridge-warm", 5.0, 3.9)
    (5.0, 0.0)
    """
    lasted = within("hours", hours, 0.0, LONGEST_H, "h")
    if temperature_c is not None:
        read = within("temperature_c", temperature_c, -40.0, 60.0, "°C")
        return lasted if read > FRIDGE_GOAL_C.value else 0.0
    if kind == "power-out":
        return max(lasted - CLOSED_FRIDGE_H.value, 0.0)
    return lasted


def judge_hours_above_4_c(hours: float, *, is_hot: bool = False) -> Notice | None:
    """Judge the time above 4 °C, all of it together; at the limit it still passes.

    Parameters: hours [h], 0 or more; is_hot, whether it was above 32 °C.
    Returns: a stop, a caution, or None when it never was above 4 °C. Cured or not is the same.
    Raises: OutOfRange for a negative or absurd time.
    Source: USDA, the two-hour rule (from memory).

    >>> judge_hours_above_4_c(1.5).level, judge_hours_above_4_c(2.5).level
    ('caution', 'stop')
    """
    counted = within("hours", hours, 0.0, LONGEST_H, "h")
    limit = ONE_HOUR_HOT if is_hot else TWO_HOURS
    if counted == 0:
        return None
    told = f"{counted:.1f} h above 4 °C in all"
    if counted > limit.value:
        return notice(
            "stop", "too-warm",
            f"{told}; {limit.value:g} h are the most. Discard it, cured or not.", limit,
        )  # fmt: skip
    return notice(
        "caution", "was-warm",
        f"{told}; {limit.value:g} h are the most, and what it was before counts as well. Chill it "
        "now. Your local food authority may be stricter.", limit,
    )  # fmt: skip
