"""Heat and cold on their way through the piece, by its steps at the heat and after it."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Final

import numpy as np

from pantry_core.conduction.shells import Vector
from pantry_core.dish.answer import DishStep
from pantry_core.dish.cooking import Cook
from pantry_core.dish.course import as_it_was
from pantry_core.dish.stays.laid import Laid
from pantry_core.dish.stays.places import Places, is_heat
from pantry_core.heat.body import Body
from pantry_core.heat.cooling import COLD_C
from pantry_core.heat.forecast import Reading, edges_of
from pantry_core.heat.media import MEDIA
from pantry_core.heat.stages import USUAL, Doubt, Stage
from pantry_core.heat.through import Journey, followed
from pantry_core.history.log import Log, hours_between
from pantry_core.history.stays import Band, Heated, Trace
from pantry_core.judging.readings import coolest_spot
from pantry_core.routes.cooking import LONG_REST_G
from pantry_core.routes.heating import BELOW_MEDIUM_C, IN_A_POT_C, as_stage, start_c
from pantry_core.routes.steps import Route
from pantry_core.rules.heat import CLIMB_LARGE_C, CLIMB_SMALL_C
from pantry_core.rules.inside import TENDER_LOW

LEAST_H: Final = 1e-3
SHORT_H, THICK_MM = 0.5, 30.0
"""In so short a time nothing changes in the middle of a piece so thick [h, mm] (our choice)."""
HOTTEST_MEAT_C: Final = 110.0
"""What reads more is not in the meat [°C]."""
NEAR_C: Final = 1.0
"""A medium brings the slowest point so near to its own temperature (our choice)."""


@dataclass(frozen=True)
class Warming:
    """What the heat does: the slowest and the outermost point at the ends of the steps [°C].

    `first` is the number of the first step at the heat, `ends_c` the slowest point and `rims_c` the
    warmest at the end of it and of those after it.
    """

    first: int
    heated: tuple[Heated, ...]
    trace: Trace
    ends_c: tuple[float, ...]
    rims_c: tuple[float, ...]


def warmed(
    laid: Sequence[Laid], cook: Cook, way: Route, log: Log | None, places: Places
) -> Warming | None:
    """How hot the piece gets, and how it cools.

    Parameters: laid, the steps on the clock; cook; way, its route; log; places, how warm they are.
    Returns: what the heat does from the first step at the heat on; None without one.
    Raises: OutOfRange.
    Source: the model of `heat.through`; what was read goes before it.
    """
    first = next((i for i, each in enumerate(laid) if is_heat(each.step)), None)
    if first is None:
        return None
    lying = laid[first:]
    foretold = _foretold(lying, cook, way, log, places)
    if foretold is not None:
        return _as_foretold(first, lying, foretold)
    parts = [_stages(each, cook, way, log, places) for each in lying]
    stages = tuple(stage for part in parts for stage in part)
    journey = _until_it_is_there(lying, parts, cook)
    if journey is None:
        journey = _journey(cook.cooking.body, start_c(cook.cooking), stages, USUAL)
    ends_c, rims_c = _at_the_ends(journey, parts)
    hours = journey.hours + lying[0].from_h
    heated = _heated(lying, ends_c, stages, parts, cook, log)
    trace = Trace(hours, _bent(hours, journey.heart_c, lying, log))
    heated = _climbing(heated, lying, parts, journey, trace, cook)
    return Warming(first, heated, trace, ends_c, rims_c)


def _climbing(
    heated: tuple[Heated, ...],
    lying: Sequence[Laid],
    parts: Sequence[tuple[Stage, ...]],
    journey: Journey,
    trace: Trace,
    cook: Cook,
) -> tuple[Heated, ...]:
    """The same with how much it climbs while it rests between its last heat and the last step.

    Of what the model says no more is counted on than such a piece climbs by common practice.
    """
    last = max(i for i, each in enumerate(lying) if is_heat(each.step))
    if not heated[-1].is_certain or len(lying) - last < 3:
        return heated
    count = sum(len(part) for part in parts[: last + 1])
    rested = sum(len(part) for part in parts[:-1])
    from_h, to_h = journey.ends_h[count - 1], journey.ends_h[rested - 1]
    rests = (journey.hours >= from_h) & (journey.hours <= to_h)
    if not rests.any():
        return heated
    out_c = float(np.interp(from_h, journey.hours, trace.slowest_c))
    most = CLIMB_LARGE_C if cook.cooking.piece_g >= LONG_REST_G else CLIMB_SMALL_C
    climbs_c = min(max(float(trace.slowest_c[rests].max()) - out_c, 0.0), most.value)
    return (*heated[:-1], replace(heated[-1], climbs_c=climbs_c))


def _foretold(
    lying: Sequence[Laid], cook: Cook, way: Route, log: Log | None, places: Places
) -> Journey | None:
    """The way of the heat by which the steps were timed, where nothing of it was changed.

    What goes on until it is hot inside ends as it was foretold, however long it is planned.
    """
    heats = [each.step for each in lying if each.step is not None and is_heat(each.step)]
    by_route = {each.id: each for each in way.steps}
    timed = [each for each in way.stages if each.stage.medium is not None]
    gated = [each for each in timed if each.journey is not None]
    is_cooled = any(
        places.around_c(each.step, is_after_heat=True) <= COLD_C.value for each in lying
    )
    is_taken_out_early = cook.cooking.take_out_c is not None
    if is_taken_out_early or not gated or is_cooled:
        return None
    if any(each.id not in by_route for each in heats):
        return None
    if not {each.stage.id for each in timed} <= {each.id for each in heats}:
        return None
    for each in heats:
        begun = log is not None and log.has_begun(each.id)
        if begun or each.until != by_route[each.id].until:
            return None
    return gated[-1].journey


def _as_foretold(first: int, lying: Sequence[Laid], journey: Journey) -> Warming:
    """Heat as it was foretold: what comes after it keeps what it has."""
    heated: list[Heated] = []
    ends_c: list[float] = []
    rims_c: list[float] = []
    hottest_c = float(journey.heart_c[-1])
    ends = [float(np.interp(end, journey.hours, journey.heart_c)) for end in journey.ends_h]
    for each in lying:
        if each.step is not None and is_heat(each.step):
            goal_c = _goes_on_until(each.step)
            by_model = ends[len(heated)] if len(heated) < len(ends) else hottest_c
            reached_c = by_model if goal_c is None else goal_c
            band = Band(reached_c, reached_c)
            is_certain = goal_c is not None
            heated.append(Heated(each.step.id, band, is_read=False, is_certain=is_certain))
            ends_c.append(reached_c)
            at_end = min(len(heated), len(journey.ends_h)) - 1
            rim_c = float(np.interp(journey.ends_h[at_end], journey.hours, journey.surface_c))
            rims_c.append(max(rim_c, reached_c))
        else:
            ends_c.append(ends_c[-1] if ends_c else hottest_c)
            rims_c.append(ends_c[-1])
    trace = Trace(journey.hours + lying[0].from_h, journey.heart_c)
    return Warming(first, tuple(heated), trace, tuple(ends_c), tuple(rims_c))


def _until_it_is_there(
    lying: Sequence[Laid], parts: Sequence[tuple[Stage, ...]], cook: Cook
) -> Journey | None:
    """The way of the heat where steps that are to come go on until they are hot enough."""
    stages: list[Stage] = []
    for each, part in zip(lying, parts, strict=True):
        goal_c = None if each.step is None or each.is_read else _goes_on_until(each.step)
        if goal_c is not None and is_heat(each.step):
            stages.extend(part[:-1])
            stages.append(replace(part[-1], hours=None, until_c=goal_c))
        else:
            stages.extend(part)
    return followed(cook.cooking.body, start_c(cook.cooking), tuple(stages))


def stood_warm(cook: Cook, places: Places, around_c: float, hours: float) -> tuple[float, float]:
    """The slowest and the warmest point of a cold piece that stands warm for so long [°C].

    Parameters: cook, whose piece it is; places; around_c, how warm it is around it [°C]; hours [h].
    Raises: OutOfRange. Source: the model of `heat.through`.
    """
    if hours <= SHORT_H and cook.cooking.body.thickness_mm >= THICK_MM:
        return places.house.cold_c, around_c
    stage = Stage("air", around_c, round(hours, 4))
    journey = _journey(cook.cooking.body, places.house.cold_c, (stage,), USUAL)
    return float(journey.heart_c[-1]), float(max(journey.surface_c[-1], journey.heart_c[-1]))


@lru_cache(maxsize=512)
def _journey(body: Body, begins_c: float, stages: tuple[Stage, ...], doubt: Doubt) -> Journey:
    journey = followed(body, begins_c, stages, doubt)
    assert journey is not None  # noqa: S101 - each of these stages lasts its hours
    return journey


def _stages(
    laid: Laid, cook: Cook, way: Route, log: Log | None, places: Places
) -> tuple[Stage, ...]:
    """A step as stages of the model, one batch of it where it goes in batches."""
    step, hours = laid.step, max(laid.hours, LEAST_H)
    if step is None or step.medium is None or step.medium_c is None:
        around_c = places.around_c(step, is_after_heat=True)
        cold = around_c <= MEDIA["fridge"].most_c
        return (Stage("fridge" if cold else "air", around_c, hours),)
    timed = next((each for each in way.stages if each.stage.id == step.id), None)
    if timed is None:
        return (_own_stage(step, hours),)
    hours = max(hours / timed.batches / timed.pace, LEAST_H)
    stage = as_stage(timed.stage, hours=hours)
    began = log.first("step-started", step.id) if log is not None else None
    if log is None or began is None:
        return (stage,)
    past, last, _ = as_it_was(stage, log, step.id, began.at)
    left_h = hours - sum(each.hours or 0.0 for each in past)
    return (*past, replace(last, hours=max(left_h, LEAST_H)))


def _own_stage(step: DishStep, hours: float) -> Stage:
    """A step of the cook's own as a stage; in a closed pot it is under its liquid."""
    assert step.medium is not None and step.medium_c is not None  # noqa: S101, PT018 - at the heat
    if step.covered:
        return Stage("water", min(IN_A_POT_C.value, step.medium_c), hours)
    return Stage(step.medium, step.medium_c, hours)


def _at_the_ends(
    journey: Journey, parts: Sequence[tuple[Stage, ...]]
) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """The slowest and the warmest point at the end of each step [°C]."""
    ends: list[float] = []
    last = -1
    for part in parts:
        last += len(part)
        ends.append(journey.ends_h[last])
    slowest, rim = (
        tuple(float(each) for each in np.interp(ends, journey.hours, values))
        for values in (journey.heart_c, np.maximum(journey.surface_c, journey.heart_c))
    )
    return slowest, rim


def _heated(
    lying: Sequence[Laid],
    ends_c: Sequence[float],
    stages: tuple[Stage, ...],
    parts: Sequence[tuple[Stage, ...]],
    cook: Cook,
    log: Log | None,
) -> tuple[Heated, ...]:
    """How hot the slowest point gets in every step at the heat."""
    heated = []
    is_open = not any(_goes_on_until(each.step) for each in lying if each.step is not None)
    for i, each in enumerate(lying):
        step = each.step
        if step is None or not is_heat(step):
            continue
        has_ended = log is not None and log.last("step-ended", step.id) is not None
        read_c = coolest_spot(readings_at(step.id, log)) if has_ended else None
        if read_c is not None:
            heated.append(Heated(step.id, Band(read_c, read_c), is_read=True, is_certain=True))
            continue
        goes_on_c = _goes_on_until(step)
        if goes_on_c is not None:
            heated.append(Heated(step.id, Band(goes_on_c, goes_on_c), is_read=False,
                                is_certain=True))  # fmt: skip
            continue
        if not is_open:
            band = Band(ends_c[i], ends_c[i])
            heated.append(Heated(step.id, band, is_read=False, is_certain=False))
            continue
        count = sum(len(part) for part in parts[: i + 1])
        slow, quick = edges_of(stages[:count], round(cook.cooking.doubt, 4))
        low, high = (
            _journey(cook.cooking.body, start_c(cook.cooking), stages[:count], doubt).piece.heart_c
            for doubt in (slow, quick)
        )
        band = Band(min(low, ends_c[i]), max(high, ends_c[i]))
        heated.append(Heated(step.id, band, is_read=False, is_certain=False))
    return tuple(heated)


def _goes_on_until(step: DishStep) -> float | None:
    """The temperature that a step goes on until, as far as its medium brings it there [°C]."""
    until, medium_c = step.until or {}, step.medium_c or 0.0
    if "inside_c" in until:
        return min(float(until["inside_c"]), medium_c - NEAR_C)
    if until.get("tender"):
        return min(TENDER_LOW.value, medium_c - BELOW_MEDIUM_C)
    return None


def readings_at(step: str, log: Log | None) -> list[Reading]:
    """What was read in a step before it ended [h since the first of all that happened, °C]."""
    if log is None or not log.happened:
        return []
    ended, began = log.last("step-ended", step), log.happened[0].at
    return [
        Reading(hours_between(began, each.at), each.temperature_c)
        for each in log.all_of("temperature-read", step)
        if each.temperature_c is not None
        and each.temperature_c <= HOTTEST_MEAT_C
        and (ended is None or each.at <= ended.at)
    ]


def _bent(
    hours: Vector,
    slowest_c: Vector,
    lying: Sequence[Laid],
    log: Log | None,
) -> Vector:
    """The slowest point as it was read: the model is moved to what the probe said, straight."""
    if log is None or not log.happened:
        return slowest_c
    read: list[tuple[float, float]] = []
    for each in lying:
        if each.step is None or not each.is_read or not is_heat(each.step):
            continue
        began = log.first("step-started", each.step.id)
        if began is None:
            continue
        offset_h = each.from_h - hours_between(log.happened[0].at, began.at)
        read.extend((offset_h + one.at_h, one.inside_c) for one in readings_at(each.step.id, log))
    if not read:
        return slowest_c
    at_h = np.asarray([hours[0], *(h for h, _ in read)])
    model_c = np.interp(at_h[1:], hours, slowest_c)
    off_c = np.asarray([0.0, *(c - m for (_, c), m in zip(read, model_c, strict=True))])
    moved = slowest_c + np.interp(hours, at_h, off_c)
    return np.asarray(moved)
