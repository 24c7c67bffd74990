"""A step at the heat as the model follows it: what came before, and what was changed on the way."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Final

from pantry_core.dish.answer import DishStep
from pantry_core.dish.cooking import Cook
from pantry_core.heat.body import Body
from pantry_core.heat.forecast import Reading, forecast
from pantry_core.heat.stages import USUAL, Doubt, Stage
from pantry_core.heat.through import followed
from pantry_core.history.log import Happened, Log, hours_between
from pantry_core.meat import Shape
from pantry_core.routes.heating import (
    BELOW_MEDIUM_C,
    HOT_THROUGH_C,
    TimedStage,
    as_stage,
    planning_goal_c,
    start_c,
)
from pantry_core.routes.heats import Span
from pantry_core.routes.steps import Route
from pantry_core.rules.rule import Mark, Rule

SOON_H: Final = 1e-3
AGAIN_IN_H: Final = 0.05
"""So soon after a cut the probe is in a half again (our own choice)."""
TENDER_FROM_C: Final = Rule("tender-from", 88.0, "°C", "what is tender by its feel", Mark.PRACTICE)
TENDER_C: Final = Rule("tender-usual", 92.0, "°C", "what is tender by its feel", Mark.PRACTICE)
TENDER_TO_C: Final = Rule("tender-to", 96.0, "°C", "what is tender by its feel", Mark.PRACTICE)
DRY_HEAT_C: Final = 105.0
"""From here on the heart comes to the temperatures of what is tender (our own choice) [°C]."""
AIRS: Final = frozenset(("oven", "fan-oven", "smoker", "coals"))
"""Where a thermometer beside the piece tells what is around it."""


def _halved(shape: Shape, part: float) -> Rule:
    why = "volume over surface of one half"
    return Rule(f"halved-{shape}", part, "of the thickness", why, Mark.DERIVED)


HALVED: Final[dict[Shape, Rule]] = {
    "slab": _halved("slab", 0.5), "cylinder": _halved("cylinder", 0.61),
    "ball": _halved("ball", 0.667),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Course:
    """What the model needs of a step that is read.

    `body` has start_c at the beginning; `stages` are all that is past, by their hours [h], the last
    one goes on from `changed_h` after the beginning; `offset_h` is when the step began, counted
    from the beginning: below 0 where it was cut in two since. `wanted_c` is how hot it is meant to
    be around it, while `last` is as hot as it was read to be. `after_h` is what comes after `last`
    has its temperature, for what must grow tender [h]; `is_hint`: that temperature is a hint;
    `doubt` is how the whole differed from the usual before it was cut in two.
    """

    body: Body
    start_c: float
    past: tuple[Stage, ...]
    last: Stage
    offset_h: float
    wanted_c: float
    after_h: Span = (0.0, 0.0, 0.0)
    is_hint: bool = False
    doubt: Doubt = USUAL

    @property
    def stages(self) -> list[Stage]:
        """All stages, the last until its temperature."""
        return [*self.past, self.last]

    @property
    def changed_h(self) -> float:
        """Since when it goes on as it does now, from the beginning [h]."""
        return sum(each.hours or 0.0 for each in self.past)

    def of_all(self, readings: Sequence[Reading]) -> list[Reading]:
        """Readings of the step counted from the beginning."""
        counted = (Reading(self.offset_h + each.at_h, each.inside_c) for each in readings)
        first_h = AGAIN_IN_H if self.was_cut else 0.0
        return [each for each in counted if each.at_h >= first_h]

    @property
    def was_cut(self) -> bool:
        """Whether it begins with a half of what it was."""
        return self.offset_h < 0.0


def course_of(
    step: DishStep, cook: Cook, way: Route, log: Log, readings: Sequence[Reading]
) -> Course | None:
    """The course of the step that runs.

    Parameters: step; cook; way, its route; log; readings of the step [h since it began, °C].
    Returns: its course, None where no model follows it.
    Raises: OutOfRange.
    Source: the model of `heat.through`; a half by its volume over its surface.
    """
    ids = [each.stage.id for each in way.stages]
    ends = step.until or {}
    began = log.first("step-started", step.id)
    if began is None or step.id not in ids or not ends.keys() & {"inside_c", "tender"}:
        return None
    at = ids.index(step.id)
    stage = way.stages[at]
    if stage.stage.medium is None or stage.batches > 1:
        return None
    first = as_stage(stage.stage)
    before = tuple(_before(way.stages[:at], log))
    body, start = cook.cooking.body, start_c(cook.cooking)
    offset_h = sum(each.hours or 0.0 for each in before)
    past, last, wanted_c = as_it_was(first, log, step.id, began.at)
    goal_c, after_h, is_hint = _goal(ends, cook, stage, last)
    last = replace(last, until_c=goal_c)
    whole = Course(body, start, (*before, *past), last, offset_h, wanted_c, after_h, is_hint)
    cut = next((each for each in log.all_of("heat-set", step.id) if each.halved), None)
    return whole if cut is None else _cut_in_two(whole, hours_between(began.at, cut.at), readings)


def _goal(
    ends: dict[str, float | bool], cook: Cook, stage: TimedStage, last: Stage
) -> tuple[float, Span, bool]:
    """What it goes on until [°C], what comes after [h], and whether that is a hint."""
    if "inside_c" in ends:
        goal_c = max(float(ends["inside_c"]), planning_goal_c(cook.cooking, stage.stage))
        return goal_c, (0.0, 0.0, 0.0), False
    least_c = cook.cooking.goal_c or 0.0
    if last.temperature_c >= DRY_HEAT_C and last.medium in AIRS:
        return max(TENDER_C.value, least_c), (0.0, 0.0, 0.0), True
    hot_c = min(HOT_THROUGH_C.value, last.temperature_c - BELOW_MEDIUM_C)
    return max(hot_c, least_c), stage.stage.span_h, True


def as_it_was(
    first: Stage, log: Log, step: str, began: datetime
) -> tuple[tuple[Stage, ...], Stage, float]:
    """The stages of a step that are past, how it goes on, and how hot it is meant to be [°C]."""
    told = [*log.all_of("heat-set", step), *log.all_of("heat-read", step)]
    past: list[Stage] = []
    now, at_h = first, 0.0
    felt: list[tuple[float, float]] = []
    for each in sorted(told, key=lambda one: one.at):
        hours = hours_between(began, each.at) - at_h
        at_h += hours
        is_read = each.what == "heat-read" and now.medium in AIRS
        read_c = each.temperature_c if is_read else None
        around_c = now.temperature_c if read_c is None else read_c
        if hours > SOON_H:
            past.append(replace(now, temperature_c=around_c, hours=hours, until_c=None))
        if each.what == "heat-read":
            felt.append((hours, around_c))
        else:
            now = _changed(now, each)
            is_other = each.temperature_c is not None or each.medium is not None
            felt = [] if is_other else felt
    wanted_c = now.temperature_c
    lasted_h = sum(hours for hours, _ in felt)
    if lasted_h > SOON_H and now.medium in AIRS:
        now = replace(now, temperature_c=sum(h * c for h, c in felt) / lasted_h)
    return tuple(past), now, wanted_c


def _changed(stage: Stage, by: Happened) -> Stage:
    return replace(
        stage,
        medium=by.medium or stage.medium,
        temperature_c=stage.temperature_c if by.temperature_c is None else by.temperature_c,
        covered=stage.covered if by.covered is None else by.covered,
    )


def _cut_in_two(whole: Course, cut_h: float, readings: Sequence[Reading]) -> Course:
    """One half of it from the cut on: it begins at the mean that the whole had."""
    at_h = whole.offset_h + cut_h
    before, since = _split(whole.past, at_h)
    known = [each for each in whole.of_all(readings) if each.at_h <= at_h]
    stages = [*before, *([replace(whole.last, hours=at_h - _hours(before), until_c=None)]
                         if at_h - _hours(before) > SOON_H else [])]  # fmt: skip
    doubt = forecast(whole.body, whole.start_c, whole.stages, known).doubt if known else USUAL
    journey = followed(whole.body, whole.start_c, stages, doubt) if stages else None
    mean_c = whole.start_c if journey is None else float(journey.mean_c[-1])
    body = halved(whole.body)
    return replace(
        whole, body=body, start_c=mean_c, past=tuple(since), offset_h=whole.offset_h - at_h,
        doubt=doubt,
    )  # fmt: skip


def halved(body: Body) -> Body:
    """One half of a piece that is cut in two along its length."""
    return replace(body, thickness_mm=HALVED[body.shape].value * body.thickness_mm)


def _hours(stages: Sequence[Stage]) -> float:
    return sum(each.hours or 0.0 for each in stages)


def _split(stages: Sequence[Stage], at_h: float) -> tuple[list[Stage], list[Stage]]:
    """What lies before a moment and what after it."""
    before, since, so_far = [], [], 0.0
    for each in stages:
        hours = each.hours or 0.0
        first = min(max(at_h - so_far, 0.0), hours)
        if first > SOON_H:
            before.append(replace(each, hours=first))
        if hours - first > SOON_H:
            since.append(replace(each, hours=hours - first))
        so_far += hours
    return before, since


def _before(stages: Sequence[TimedStage], log: Log) -> Iterator[Stage]:
    """The stages before, as long as they really took."""
    for each in stages:
        if each.stage.medium is None:
            continue
        began, ended = (
            log.first("step-started", each.stage.id), log.last("step-ended", each.stage.id)
        )  # fmt: skip
        hours = each.usual
        if began is not None and ended is not None:
            hours = max(hours_between(began.at, ended.at), SOON_H)
        yield as_stage(each.stage, hours=hours)
