"""What lies ahead of a step at the heat by what was read, and what was counted on its way."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from pantry_core.dish.answer import CookTime, Counted
from pantry_core.dish.cooking import Cook
from pantry_core.dish.course import SOON_H, TENDER_FROM_C, TENDER_TO_C, Course
from pantry_core.heat.doneness import (
    held_min,
    hold_needed_min,
    warming_h,
)
from pantry_core.heat.forecast import Done, Forecast, Reading, forecast
from pantry_core.heat.probe import believed
from pantry_core.heat.stages import Doubt
from pantry_core.heat.through import Journey, followed
from pantry_core.rules.inside import INTACT, NOT_INTACT
from pantry_core.rules.smoke import UNCURED_WARMING_H, WARMING_H

WAY_POINTS: Final = 13
HALF_DOUBT: Final = 0.35
"""What a half takes is known so loosely before it is read (our own choice)."""


def believed_of(course: Course, readings: Sequence[Reading]) -> tuple[tuple[Reading, ...], str]:
    """The readings of a step that can be of this piece, and what is said of the last, if it cannot.

    Parameters: course; readings of the step [h since it began, °C].
    Raises: OutOfRange.
    """
    kept, told = believed(course.of_all(readings), course.body, course.start_c, course.stages)
    mine = tuple(Reading(each.at_h - course.offset_h, each.inside_c) for each in kept)
    last_kept = bool(kept) and kept[-1].inside_c == readings[-1].inside_c
    return mine, "" if last_kept or not told else told[-1].text


@dataclass(frozen=True, slots=True)
class Ahead:
    """How much longer a step takes [h], the way of its thickest part from now on, and the fit.

    `left` is None where it never comes to its goal as it goes on now.
    """

    left: CookTime | None
    way: tuple[tuple[float, float], ...]
    fit: Forecast


def ahead_of(course: Course, readings: Sequence[Reading], lasted_h: float) -> Ahead | None:
    """How much longer a step takes by what the probe read, its band included.

    Parameters: course; readings that are believed [h since it began, °C]; lasted_h [h].
    Returns: what is left; None where nothing was read.
    Raises: OutOfRange.
    Source: `heat.forecast`; what must grow tender by common practice.
    """
    known = course.of_all(readings)
    if not known and not course.was_cut:
        return None
    fit = (
        forecast(course.body, course.start_c, course.stages, known)
        if known
        else _as_the_whole(course)
    )
    if fit.done is None or fit.journey is None:
        return Ahead(None, (), fit)
    so_far = course.offset_h + lasted_h
    low, usual, high = fit.done.low, fit.done.usual, fit.done.high
    if course.is_hint and not course.after_h[1]:
        low -= max(usual - _crossed_h(fit.journey, TENDER_FROM_C.value), 0.0)
        hotter = replace(course.last, until_c=TENDER_TO_C.value)
        later = followed(course.body, course.start_c, [*course.past, hotter], fit.doubt)
        high += max(later.ends_h[-1] - usual, 0.0) if later is not None else 0.0
    ends = (low + course.after_h[0], usual + course.after_h[1], high + course.after_h[2])
    least, most_likely, most = (max(each - so_far, 0.0) for each in ends)
    left = CookTime(most_likely, least, most)
    return Ahead(left, _way_from(fit.journey, so_far), fit)


def _as_the_whole(course: Course) -> Forecast:
    """What is foretold of a half in which nothing was read yet: it differs as the whole did."""
    journey = followed(course.body, course.start_c, course.stages, course.doubt)
    if journey is None:
        return Forecast(None, course.doubt, None)
    usual = journey.ends_h[-1]
    done = Done(usual, (1.0 - HALF_DOUBT) * usual, (1.0 + HALF_DOUBT) * usual)
    return Forecast(done, course.doubt, journey)


def _crossed_h(journey: Journey, celsius: float) -> float:
    """When the heart first has a temperature [h]; at the end where it never has."""
    there = np.flatnonzero(journey.heart_c >= celsius)
    return float(journey.hours[there[0]] if len(there) else journey.hours[-1])


def _way_from(journey: Journey, so_far_h: float) -> tuple[tuple[float, float], ...]:
    """The way of the thickest part from a moment on, at so many points [h from then, °C]."""
    end_h = max(float(journey.hours[-1]), so_far_h)
    hours = np.linspace(so_far_h, end_h, WAY_POINTS)
    heart_c = np.interp(hours, journey.hours, journey.heart_c)
    return tuple(
        (round(float(h) - so_far_h, 3), round(float(c), 1))
        for h, c in zip(hours, heart_c, strict=True)
    )


def _so_far(course: Course, lasted_h: float, doubt: Doubt) -> Journey | None:
    """The way that it has come, whether or not it ever gets to its goal."""
    hours = max(course.offset_h + lasted_h - course.changed_h, SOON_H)
    last = replace(course.last, hours=hours, until_c=None)
    return followed(course.body, course.start_c, [*course.past, last], doubt)


def counted_of(
    course: Course,
    readings: Sequence[Reading],
    lasted_h: float,
    cook: Cook,
) -> Counted | None:
    """The hours between cold and hot, and the hold at its goal, so far.

    Parameters: course; readings that are believed [h since it began, °C]; lasted_h [h]; cook.
    Returns: what was counted: by the readings, before the first one by the model; None where
    nothing was read.
    Raises: OutOfRange.
    Source: FSIS Appendix A (from memory); four hours for what is neither cured nor intact by
    common practice.
    """
    known = course.of_all(readings)
    if not known:
        return None
    hours = [each.at_h for each in known]
    journey = _so_far(course, hours[0] - course.offset_h, course.doubt)
    inside = [each.inside_c for each in known]
    before_h, before_c = _before(journey, course.start_c, known[0])
    at = np.asarray([*before_h, *hours, max(course.offset_h + lasted_h, hours[-1])])
    read = np.asarray([*before_c, *inside, inside[-1]])
    is_risky = not cook.cooking.is_cured and cook.done.safe_c == NOT_INTACT.value
    most = UNCURED_WARMING_H if is_risky else WARMING_H
    warm_h = warming_h(at, read)
    goal_c = course.last.until_c
    needed = cook.cooking.hold_min or None
    if needed is None and not course.is_hint and goal_c is not None and goal_c < INTACT.value:
        needed = hold_needed_min(goal_c)
    held = held_min(at, read, (goal_c or 0.0) - 0.05) if needed is not None else None
    return Counted(warm_h, most.value, held, needed)


def _before(
    journey: Journey | None, start_c: float, first: Reading
) -> tuple[list[float], list[float]]:
    """The way to the first reading by the model, bent so that it comes to what was read [h, °C]."""
    if journey is None or first.at_h <= 0.0:
        return [0.0], [start_c]
    is_before = journey.hours < first.at_h
    reached_c = float(np.interp(first.at_h, journey.hours, journey.heart_c))
    rise = (first.inside_c - start_c) / (reached_c - start_c) if reached_c > start_c else 1.0
    bent_c = start_c + (journey.heart_c[is_before] - start_c) * max(rise, 0.0)
    return journey.hours[is_before].tolist(), bent_c.tolist()
