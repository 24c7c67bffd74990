"""How long the piece is neither cold nor hot: before the heat, after it, while it cools."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from pantry_core.conduction.shells import Vector
from pantry_core.heat.cooling import (
    ALL_H,
    COLD_C,
    CURED_ALL_H,
    CURED_COLD_C,
    CURED_FIRST_H,
    CURED_HOT_C,
    CURED_PPM,
    CURED_WARM_C,
    FIRST_H,
    HOT_C,
    WARM_C,
)
from pantry_core.heat.warm import HOT_C as HOT_KITCHEN_C
from pantry_core.heat.warm import ONE_HOUR_HOT, TWO_HOURS, judge_fridge, judge_hours_too_warm
from pantry_core.history.stays import Stay
from pantry_core.judging.case import Case
from pantry_core.mixes.protection import around_ppm
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius, Hours
from pantry_core.rules.constants import FRIDGE_STOP_C
from pantry_core.rules.rule import Rule
from pantry_core.text import say

ALMOST_H = 1e-6
"""A limit is passed by more than rounding [h]."""


@dataclass(frozen=True, slots=True)
class OutOfTheCold:
    """Hours above 5 °C: those that have been and those that are meant [h]; the limit [h]."""

    past_h: float
    meant_h: float
    limit: Rule

    @property
    def all_h(self) -> float:
        """All of them [h]."""
        return self.past_h + self.meant_h


def warm_before_h(case: Case) -> OutOfTheCold:
    """How long the piece is above 5 °C before smoke or heat begins.

    Parameters: case.
    Returns: hours at counter and other warm places, and those of mishaps and warm readings. Of fish
    that form histamine they count double.
    Raises: nothing.
    Source: FDA Food Code 3-501.16; USDA, the two-hour rule (from memory).
    """
    history = case.history
    times = 2.0 if case.meat.species == "mackerel" else 1.0
    before = list(history.before_the_heat())
    return _summed(case, before, history.warm_h, times, is_hot=history.is_hot)


def warm_after_h(case: Case) -> OutOfTheCold:
    """How long the piece stands below 60 and above 5 °C after the heat.

    Parameters, errors and source as of `warm_before_h`.
    """
    history = case.history
    after = [each for each in history.after_the_heat() if each.state in ("cooked", "cold")]
    summed = _summed(case, after, history.warm_after_h, 1.0, is_hot=False)
    return replace(summed, limit=TWO_HOURS)


def _summed(
    case: Case, stays: list[Stay], befell_h: float, times: float, *, is_hot: bool
) -> OutOfTheCold:
    all_h = times * sum(each.out_h for each in stays)
    past_h = times * sum(each.out_h * _past(each, case.history.now_h) for each in stays)
    hot = is_hot or any(
        each.out_h > ALMOST_H and each.around_c > HOT_KITCHEN_C.value for each in stays
    )
    return OutOfTheCold(befell_h + past_h, all_h - past_h, ONE_HOUR_HOT if hot else TWO_HOURS)


def _past(stay: Stay, now_h: float | None) -> float:
    """The part of a stay that is over and was read [-]."""
    if stay.known != "read" or now_h is None or stay.hours <= 0:
        return 0.0
    return min(max((now_h - stay.from_h) / stay.hours, 0.0), 1.0)


def out_of_the_cold(case: Case) -> Iterator[Notice]:
    """The two hours before the heat, cured or not."""
    if not case.is_animal:
        return
    if case.history.fridge_read_c is not None:
        fridge = judge_fridge(case.history.fridge_read_c, case.request.profile)
        if fridge is not None:
            yield fridge
    warm = warm_before_h(case)
    befell_h = case.history.warm_h
    if warm.past_h > warm.limit.value + ALMOST_H:
        judged = judge_hours_too_warm(warm.past_h, is_hot=warm.limit is ONE_HOUR_HOT)
        if judged is not None:
            yield notice("stop", "discard", judged.text, warm.limit)
    elif warm.all_h > warm.limit.value + ALMOST_H:
        text = say(
            "{hours} above {fridge_stop_c} before the heat; {limit} are the most. Keep it in the "
            "fridge in between.",
            hours=Hours(warm.all_h, 1),
            fridge_stop_c=Celsius(FRIDGE_STOP_C.value),
            limit=Hours(warm.limit.value),
        )
        yield notice("stop", "out-of-the-cold", text, warm.limit)
    elif befell_h > 0:
        judged = judge_hours_too_warm(
            min(warm.past_h, warm.limit.value), is_hot=warm.limit is ONE_HOUR_HOT
        )
        if judged is not None:
            yield judged


def kept_warm(case: Case) -> Iterator[Notice]:
    """The two hours after the heat, below 60 °C."""
    if not case.is_animal:
        return
    warm = warm_after_h(case)
    if warm.all_h <= warm.limit.value + ALMOST_H:
        return
    text = say(
        "{hours} below {60 °C} after the heat; {limit} are the most. Keep it at {60 °C} or above, "
        "or cool it quickly.",
        hours=Hours(warm.all_h, 1),
        limit=Hours(warm.limit.value),
    )
    if warm.past_h > warm.limit.value + ALMOST_H:
        text = say("{text} Throw it away; heat does not undo it.", text=text)
        yield notice("stop", "discard", text, warm.limit)
    else:
        yield notice("stop", "kept-warm", text, warm.limit)


def cooled(case: Case) -> Iterator[Notice]:
    """How quickly it cools after the heat, where it is not eaten at once."""
    trace, history = case.history.trace, case.history
    after = list(history.after_the_heat())
    if trace is None or not case.is_animal or warm_after_h(case).all_h > TWO_HOURS.value:
        return
    if not any(each.around_c <= COLD_C.value for each in after):
        return
    if all(_ends_cold(each) for each in after if each.around_c <= COLD_C.value) and after:
        return
    nitrite = around_ppm(case.judged.nitrite) if case.has_mix else 0.0
    is_cured = nitrite >= CURED_PPM.value and case.meat.form == "whole"
    hot, warm, cold, first, whole = (
        (CURED_HOT_C, CURED_WARM_C, CURED_COLD_C, CURED_FIRST_H, CURED_ALL_H)
        if is_cured
        else (HOT_C, WARM_C, COLD_C, FIRST_H, ALL_H)
    )
    warm_h = _takes_h(trace.hours, trace.slowest_c, hot.value, warm.value)
    cold_h = _takes_h(trace.hours, trace.slowest_c, hot.value, cold.value)
    for hours, limit, goal in ((warm_h, first, warm), (cold_h, whole, cold)):
        if hours > limit.value + ALMOST_H:
            text = say(
                "By the model {hours} from {hot} to {goal} in its middle; {limit} are the most. "
                "In ice water, sliced or carved, and no deeper than {5 cm}.",
                hours=Hours(hours, 1),
                hot=Celsius(hot.value),
                goal=Celsius(goal.value),
                limit=Hours(limit.value),
            )
            yield notice("stop", "cools-slowly", text, limit)
            return


def _ends_cold(stay: Stay) -> bool:
    """Whether the stay goes on until it is cold, and is given no more than its six hours."""
    goal = (stay.until or {}).get("cold_c")
    is_cold = goal is not None and float(goal) <= COLD_C.value
    return is_cold and stay.hours <= ALL_H.value + ALMOST_H


def _takes_h(hours: Vector, slowest_c: Vector, from_c: float, to_c: float) -> float:
    """How long the slowest point takes between two temperatures as it cools, the last time [h]."""
    hot = np.flatnonzero(slowest_c >= from_c)
    if not len(hot) or hot[-1] + 1 >= len(hours):
        return 0.0
    last = int(hot[-1])
    begins = _when(hours, slowest_c, last, from_c)
    below = np.flatnonzero(slowest_c[last:] <= to_c)
    if not len(below):
        return float(hours[-1]) - begins
    return _when(hours, slowest_c, last + int(below[0]) - 1, to_c) - begins


def _when(hours: Vector, values: Vector, at: int, limit: float) -> float:
    before, after = float(values[at]), float(values[at + 1])
    part = (before - limit) / (before - after) if before > after else 1.0
    return float(hours[at] + part * (hours[at + 1] - hours[at]))
