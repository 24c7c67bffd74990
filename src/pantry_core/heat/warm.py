"""Time above 5 °C: how long a piece was too warm, and whether it may still be eaten."""

from typing import Literal

from pantry_core.errors import within
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius, Hours
from pantry_core.rules.constants import FRIDGE_GOAL_C, FRIDGE_STOP_C
from pantry_core.rules.profiles import PROFILES, ProfileName
from pantry_core.rules.raw_clock import HISTAMINE_FROM_C
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

Kind = Literal["power-out", "fridge-warm", "left-out"]

CLOSED_FRIDGE_H = Rule("closed-fridge", 4.0, "h", "USDA, power out, door kept shut", Mark.MEMORY)
TWO_HOURS = Rule("two-hours", 2.0, "h", say("USDA, two hours from {4 to 60 °C}"), Mark.MEMORY)
ONE_HOUR_HOT = Rule("one-hour-hot", 1.0, "h", say("USDA, above {32 °C}"), Mark.MEMORY)
HOT_C = Rule("hot-kitchen", 32.0, "°C", say("USDA, above {32 °C}"), Mark.MEMORY)
HISTAMINE_COUNTS = Rule(
    "histamine-hours", 2.0, "h for an hour", "histamine survives the heat", Mark.PRACTICE
)
LONGEST_H = 24.0 * 366


def hours_too_warm(
    kind: Kind, hours: float, temperature_c: float | None = None, *, is_mackerel: bool = False
) -> float:
    """How long a piece was too warm in a mishap.

    Parameters: kind of the mishap; hours it lasted [h]; temperature_c that was read [°C], None
    where nobody read it; is_mackerel, whether it is a fish that forms histamine.
    Returns: hours that count [h]: of a power cut those after the four that a closed fridge keeps,
    unless a temperature was read; none at 5 °C or below, of mackerel and its like none at 4.4 °C or
    below and twice the rest.
    Raises: OutOfRange for a negative or absurd time or temperature.
    Source: FDA Food Code 3-501.16; USDA; FDA fish guide, ch. 7 (from memory).

    >>> hours_too_warm("power-out", 5.5)
    1.5
    >>> hours_too_warm("fridge-warm", 5.0, 7.0), hours_too_warm("fridge-warm", 5.0, 4.9)
    (5.0, 0.0)
    """
    lasted = within("hours", hours, 0.0, LONGEST_H, "h")
    counts = HISTAMINE_COUNTS.value if is_mackerel else 1.0
    if temperature_c is not None:
        read = within("temperature_c", temperature_c, -40.0, 60.0, "°C")
        from_c = HISTAMINE_FROM_C if is_mackerel else FRIDGE_STOP_C
        return counts * lasted if read > from_c.value else 0.0
    if kind == "power-out":
        return counts * max(lasted - CLOSED_FRIDGE_H.value, 0.0)
    return counts * lasted


def judge_hours_too_warm(hours: float, *, is_hot: bool = False) -> Notice | None:
    """Judge the time above 5 °C, all of it together; at the limit it still passes.

    Parameters: hours [h], 0 or more; is_hot, whether it was above 32 °C.
    Returns: a stop, a caution, or None when it never was above 5 °C. Cured or not is the same.
    Raises: OutOfRange for a negative or absurd time.
    Source: USDA, the two-hour rule (from memory).

    >>> judge_hours_too_warm(1.5).level, judge_hours_too_warm(2.5).level
    ('caution', 'stop')
    """
    counted = within("hours", hours, 0.0, LONGEST_H, "h")
    limit = ONE_HOUR_HOT if is_hot else TWO_HOURS
    if counted == 0:
        return None
    told = say(
        "{counted} above {fridge_stop_c} in all",
        counted=Hours(counted, 1),
        fridge_stop_c=Celsius(FRIDGE_STOP_C.value),
    )
    if counted > limit.value:
        return notice(
            "stop",
            "too-warm",
            say(
                "{told}; {limit} are the most. Discard it, cured or not.",
                told=told,
                limit=Hours(limit.value),
            ),
            limit,
        )
    return notice(
        "caution",
        "was-warm",
        say(
            "{told}; {limit} are the most, and what it was before counts as well. Chill it "
            "now. Your local food authority may be stricter.",
            told=told,
            limit=Hours(limit.value),
        ),
        limit,
    )


def judge_fridge(temperature_c: float, profile: ProfileName = "us") -> Notice | None:
    """What a fridge's temperature means for what lies in it.

    Parameters: temperature_c that was read [°C]; profile.
    Returns: nothing up to what the profile calls cold; a caution above it: up to 5 °C it asks for
    a colder fridge and nothing else, beyond for the temperature of the food.
    Raises: OutOfRange.
    Source: USDA; FDA Food Code 3-501.16 (from memory).

    >>> judge_fridge(4.4) is None, judge_fridge(4.5).code, judge_fridge(7.0).code
    (True, 'fridge-warm', 'fridge-too-warm')
    """
    read = within("temperature_c", temperature_c, -40.0, 60.0, "°C")
    quiet = PROFILES[profile].fridge
    if read <= quiet.value:
        return None
    said = say("{read} in the fridge", read=Celsius(read))
    if read <= FRIDGE_STOP_C.value:
        text = say(
            "{said}: turn it down to {fridge_goal_c}. What lies in it is all right.",
            said=said,
            fridge_goal_c=Celsius(FRIDGE_GOAL_C.value),
        )
        return notice("caution", "fridge-warm", text, quiet)
    text = say(
        "{said}: cool it now, and read the food or its brine within a quarter of an hour. What was "
        "above {fridge_stop_c} for more than {two_hours} in all is discarded, mackerel and its "
        "like after half of that.",
        said=said,
        fridge_stop_c=Celsius(FRIDGE_STOP_C.value),
        two_hours=Hours(TWO_HOURS.value),
    )
    return notice("caution", "fridge-too-warm", text, TWO_HOURS)
