"""What would bring a piece at the heat to its goal sooner, each followed by the model."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import inf
from typing import Final

from pantry_core.dish.ahead import Ahead
from pantry_core.dish.answer import HeatHelp
from pantry_core.dish.cooking import Cook
from pantry_core.dish.course import AIRS, SOON_H, Course, halved
from pantry_core.heat.body import Body
from pantry_core.heat.media import MediumName
from pantry_core.heat.stages import Stage
from pantry_core.heat.through import followed
from pantry_core.quantities import Celsius
from pantry_core.rules.heat import SLOW_FAT_MOST_C
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

LATE_FROM_H: Final = 10.0 / 60.0
"""Ten minutes late is on time (common practice)."""


def _most(medium: str, celsius: float, why: str) -> Rule:
    return Rule(f"hotter-{medium}", celsius, "°C", why, Mark.PRACTICE)


HOTTEST: Final[dict[MediumName, Rule]] = {
    "smoker": _most("smoker", 150.0, "beyond it the outside burns before the inside is done"),
    "oven": _most("oven", 220.0, "beyond it the outside burns before the inside is done"),
    "fan-oven": _most("fan-oven", 200.0, "beyond it the outside burns before the inside is done"),
    "coals": _most("coals", 180.0, "a big piece burns outside"),
    "water": _most("water", 95.0, "beyond it the meat is boiled to threads"),
    "fat": SLOW_FAT_MOST_C,
}
"""How hot it may be made at the most in each medium, to be sooner."""
STEP_C: Final = 10.0
OVEN_C: Final = 150.0
WORTH_H: Final = 0.15
"""What saves less than so much is not offered [h] (our own choice)."""
THICK_MM: Final = 60.0
"""What is thinner is not cut in two for it (our own choice)."""
WHERE: Final[dict[MediumName, str]] = {
    "smoker": "the smoker", "oven": "the oven", "fan-oven": "the oven", "coals": "the coals",
    "water": "the pot", "fat": "the fat",
}  # fmt: skip
_DARKER: Final = "The outside dries and darkens sooner."
_SOFTER: Final = "The crust softens."
_NO_SMOKE: Final = "The crust softens, and no more smoke gets to it."


@dataclass(frozen=True, slots=True)
class _Change:
    code: str
    text: str
    gives_up: str
    stage: Stage
    halved: bool = False


def heat_helps(
    course: Course, ahead: Ahead, cook: Cook, lasted_h: float, wanted_h: float
) -> tuple[HeatHelp, ...]:
    """What would help, the least costly to the dish first.

    Parameters: course of the step that runs; ahead, what is foretold of it; cook; lasted_h so far;
    wanted_h, how long it may take from now on at the most [h].
    Returns: changes that save time, each with what is left then: of a kind the smallest that is in
    time, or the largest where none is. What a wrap or a cut does not change is not told.
    Raises: OutOfRange.
    Source: the model of `heat.through` with the doubt that the readings left; limits by common
    practice.
    """
    now_h = course.offset_h + lasted_h
    found: list[HeatHelp] = []
    for changes in (_hotter(course.last), _wrapped(course.last), _to_the_oven(course.last)):
        found += _smallest(list(changes), course, ahead, now_h, wanted_h)
    if _may_be_cut(course, cook):
        cut = _Change(
            "cut", say("Cut it in two along its length, and put both halves back."),
            say("Juice runs out, and it is carved already."), course.last, halved=True,
        )  # fmt: skip
        found += _smallest([cut], course, ahead, now_h, wanted_h)
    return tuple(sorted(found, key=lambda each: not each.in_time))


def _smallest(
    changes: list[_Change], course: Course, ahead: Ahead, now_h: float, wanted_h: float
) -> list[HeatHelp]:
    """The first of its kind that is in time, else the last, if it is worth it."""
    told: HeatHelp | None = None
    for change in changes:
        left_h = _left_h(change, course, ahead, now_h)
        if left_h is None or left_h > _as_it_is_h(ahead) - WORTH_H:
            continue
        stage = change.stage
        told = HeatHelp(
            change.code, change.text, change.gives_up, left_h, left_h <= wanted_h,
            None if stage.medium == course.last.medium else stage.medium,
            None if stage.temperature_c == course.last.temperature_c else stage.temperature_c,
            stage.covered, change.halved,
        )  # fmt: skip
        if told.in_time:
            break
    return [] if told is None else [told]


def _as_it_is_h(ahead: Ahead) -> float:
    return inf if ahead.left is None else ahead.left.usual


def _left_h(change: _Change, course: Course, ahead: Ahead, now_h: float) -> float | None:
    """How much longer it takes with a change from now on [h]; None where it never gets there."""
    so_far_h = now_h - course.changed_h
    past = list(course.past)
    if so_far_h > SOON_H:
        past.append(replace(course.last, hours=so_far_h, until_c=None))
    body, start_c, doubt = course.body, course.start_c, ahead.fit.doubt
    if change.halved:
        body, start_c, past = _half(body, start_c, past, course, ahead)
    journey = followed(body, start_c, [*past, change.stage], doubt)
    if journey is None:
        return None
    before_h = sum(each.hours or 0.0 for each in past)
    return max(journey.ends_h[-1] - before_h, 0.0) + course.after_h[1]


def _half(
    body: Body, start_c: float, past: list[Stage], course: Course, ahead: Ahead
) -> tuple[Body, float, list[Stage]]:
    journey = followed(course.body, course.start_c, past, ahead.fit.doubt) if past else None
    mean_c = start_c if journey is None else float(journey.mean_c[-1])
    return halved(body), mean_c, []


def _hotter(stage: Stage) -> Iterator[_Change]:
    most = HOTTEST.get(stage.medium)
    if most is None:
        return
    rounded = STEP_C * round(stage.temperature_c / STEP_C)
    steps = int((most.value - stage.temperature_c) // STEP_C)
    for n in range(1, steps + 1):
        celsius = min(rounded + n * STEP_C, most.value)
        text = say(
            "Bring {where} up to {celsius}.", where=WHERE[stage.medium], celsius=Celsius(celsius)
        )
        gives_up = _DARKER if stage.medium in AIRS else "It cooks less evenly."
        yield _Change("hotter", text, gives_up, replace(stage, temperature_c=celsius))


def _wrapped(stage: Stage) -> Iterator[_Change]:
    if stage.medium in AIRS and not stage.covered and stage.temperature_c > 100.0:
        text = say("Wrap it tightly in foil or paper, and put it back.")
        gives_up = _NO_SMOKE if stage.medium == "smoker" else _SOFTER
        yield _Change("wrap", text, gives_up, replace(stage, covered=True))


def _to_the_oven(stage: Stage) -> Iterator[_Change]:
    if stage.medium not in ("smoker", "coals"):
        return
    hot_c = max(OVEN_C, STEP_C * round(stage.temperature_c / STEP_C))
    while hot_c <= HOTTEST["oven"].value:
        text = say("Move it into the oven at {celsius}.", celsius=Celsius(hot_c))
        gives_up = "It gets no more smoke." if stage.medium == "smoker" else "It leaves the fire."
        yield _Change("oven", text, gives_up, replace(stage, medium="oven", temperature_c=hot_c))
        hot_c += 2.0 * STEP_C


def _may_be_cut(course: Course, cook: Cook) -> bool:
    cooking = cook.cooking
    is_joint = cooking.cut.kind not in ("poultry", "fish", "vegetable")
    is_whole = cooking.form == "whole" and course.body == cooking.body
    return is_joint and is_whole and course.body.thickness_mm >= THICK_MM
