"""Heat through a piece: the `heat` document and its answer."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Final, Literal

import numpy as np
from pydantic import Field, model_validator

from pantry_core.dish.body import MEASURED_DOUBT, body_of, body_of_meat, thickness_doubt
from pantry_core.dish.piece import Prepared, prepared, size_notices, treatment_of
from pantry_core.dish.request import Piece
from pantry_core.document import Document, wrong
from pantry_core.heat.body import Body
from pantry_core.heat.doneness import Hold, danger_h, held_min, hold_needed_min
from pantry_core.heat.fat import fat_too_hot
from pantry_core.heat.forecast import Done, Reading, forecast
from pantry_core.heat.inside import is_intact
from pantry_core.heat.media import MEDIA
from pantry_core.heat.probe import believed
from pantry_core.heat.request import MOST_HEAT_STAGES, MOST_READINGS, HeatReading, HeatStage
from pantry_core.heat.stages import MOST_STAGE_H, Doubt, Stage
from pantry_core.heat.through import Journey, followed, stood
from pantry_core.history.stays import Trace
from pantry_core.judging.heat import judge_warming, warming_h
from pantry_core.meat import Meat
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius, Hours, Millimetres
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

VERY_THICK_MM: Final = Rule(
    "very-thick", 200.0, "mm", "beyond it no chart bears the model out", Mark.PRACTICE
)
LEAST_HOLD_C: Final = 45.0
"""Below it nothing is held to be safe."""
AT_THE_GOAL_C: Final = 1e-6


class WrongHeat(ValueError):
    """What cannot be reckoned, with where and why."""

    def __init__(self, wrongs: tuple[tuple[str, str], ...]) -> None:
        super().__init__("; ".join(what for _, what in wrongs))
        self.wrongs = wrongs


class HeatRequest(Document):
    """A piece as in `dish` or meat as in `weigh`, how warm it is at first [°C], its stages.

    `diffusivity_m2_s`, `conductivity_w_mk` and `h_w_m2_k` are used as they are; with the last the
    surface is dry.
    """

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    piece: Piece | None = None
    meat: Meat | None = None
    start_c: Annotated[float, Field(ge=-2, le=100)] = 4.0
    diffusivity_m2_s: Annotated[float, Field(ge=1e-8, le=1e-6)] | None = None
    conductivity_w_mk: Annotated[float, Field(ge=0.02, le=5)] | None = None
    h_w_m2_k: Annotated[float, Field(ge=0.1, le=20_000)] | None = None
    stages: Annotated[
        tuple[HeatStage, ...], Field(strict=False, min_length=1, max_length=MOST_HEAT_STAGES)
    ]
    readings: Annotated[tuple[HeatReading, ...], Field(strict=False, max_length=MOST_READINGS)] = ()

    @model_validator(mode="after")
    def _piece_or_meat(self) -> "HeatRequest":
        if (self.piece is None) == (self.meat is None):
            raise wrong("piece", "heat goes through a piece or through meat; give one of the two")
        return self


@dataclass(frozen=True, slots=True)
class HeatAnswer:
    """Temperatures over time: slowest point, mean and surface [°C], from the beginning [h].

    `done_h` is the hour of the last `until_c` with its band, `peak_c` the highest of the slowest
    point, `danger_h` how long that was neither cold nor hot, `balance_error` heat lost or made in
    parts of what the piece took.
    """

    hours: tuple[float, ...]
    inside_c: tuple[float, ...]
    mean_c: tuple[float, ...]
    surface_c: tuple[float, ...]
    done_h: Done | None
    peak_c: float
    danger_h: float
    hold_min: Hold | None
    balance_error: float
    notices: tuple[Notice, ...]
    format: Literal["pantry-clock/1"] = "pantry-clock/1"


def heat(asked: HeatRequest) -> HeatAnswer:
    """Follow the heat through a piece, fitted to what the probe read.

    Parameters: asked; its fields carry their units and ranges.
    Returns: temperatures, the hour when it is done with its band, the hours between cold and hot,
    and the hold that makes a lower temperature as safe.
    Raises: WrongHeat for a temperature that is never reached.
    Source: see `heat.through`, `heat.forecast`, `heat.doneness`.

    >>> out = heat(HeatRequest.model_validate({
    ...     "piece": {"cut": "turkey", "mass_g": 5900}, "stages": [
    ...         {"medium": "oven", "temperature_c": 163, "until_c": 74}]}))
    >>> 3.0 < out.done_h.usual < 3.75
    True
    """
    piece = None if asked.piece is None else prepared(asked.piece)
    body = _body(asked, piece)
    stages = [each.as_stage(asked.h_w_m2_k) for each in asked.stages]
    _refuse_unreached(body, asked.start_c, stages)
    goal = max((i for i, each in enumerate(stages) if each.until_c is not None), default=None)
    told: list[Notice] = list(_of_the_piece(piece, body))
    told.extend(_of_the_stages(stages))
    doubt, done = Doubt(), None
    readings, unlikely = believed(
        [Reading(each.at_h, each.inside_c) for each in asked.readings],
        body, asked.start_c, stages,
    )  # fmt: skip
    told.extend(unlikely)
    if goal is not None:
        off = MEASURED_DOUBT.value if piece is None else thickness_doubt(piece)
        fit = forecast(body, asked.start_c, stages[: goal + 1], readings, off)
        doubt, done = fit.doubt, fit.done
    journey = followed(body, asked.start_c, stages, doubt) or followed(body, asked.start_c, stages)
    if journey is None:
        raise WrongHeat((("stages", "the last temperature is never reached"),))
    told.extend(_of_the_way(asked, piece, journey, stages))
    return _answer(journey, done, _hot_goal_c(stages), told)


def _of_the_way(
    asked: HeatRequest, piece: Prepared | None, journey: Journey, stages: Sequence[Stage]
) -> Iterator[Notice]:
    """What the rules ask of the way of the heat, as in a dish; it counts as not cured."""
    meat = asked.meat if piece is None else piece.meat
    if meat is None or meat.kind == "vegetable" or all(MEDIA[each.medium].cools for each in stages):
        return
    treated = () if piece is None else treatment_of(piece)
    hours = warming_h(Trace(journey.hours, journey.heart_c))
    yield from judge_warming(hours, meat, is_intact=is_intact(treated), is_cured=False)


def _hot_goal_c(stages: Sequence[Stage]) -> float | None:
    """The last temperature that it is heated to [°C]."""
    goals = [each.until_c for each in stages if not MEDIA[each.medium].cools]
    return next((each for each in reversed(goals) if each is not None), None)


def _body(asked: HeatRequest, piece: Prepared | None) -> Body:
    if piece is not None:
        body = body_of(piece)
    else:
        assert asked.meat is not None  # noqa: S101 - the document has one of the two
        body = body_of_meat(asked.meat)
    return replace(
        body,
        diffusivity_m2_s=asked.diffusivity_m2_s or body.diffusivity_m2_s,
        conductivity_w_mk=asked.conductivity_w_mk or body.conductivity_w_mk,
    )


def _refuse_unreached(body: Body, start_c: float, stages: Sequence[Stage]) -> None:
    """Say at once what is never reached: where, and how near it comes."""
    for i, stage in enumerate(stages):
        if stage.until_c is None or followed(body, start_c, stages[: i + 1]) is not None:
            continue
        comes_to = stood(body, start_c, stages[:i], stage)
        what = say(
            "{words} at {temperature_c} brings the thickest part to {comes_to} in "
            "{most_stage_h} and never to {until_c}; use {allowed}",
            words=MEDIA[stage.medium].words,
            temperature_c=Celsius(stage.temperature_c),
            comes_to=Celsius(comes_to, 0),
            most_stage_h=Hours(MOST_STAGE_H),
            until_c=Celsius(stage.until_c),
            allowed=_allowed(stage),
        )
        raise WrongHeat(((f"stages.{i}.until_c", what),))


def _allowed(stage: Stage) -> str:
    return "a colder one" if MEDIA[stage.medium].cools else "a hotter one, covered, or less inside"


def _of_the_piece(piece: Prepared | None, body: Body) -> Iterator[Notice]:
    if piece is not None:
        yield from size_notices(piece)
    if body.thickness_mm > VERY_THICK_MM.value:
        text = say(
            "{thickness_mm} is thicker than any chart: trust the probe, not the hour.",
            thickness_mm=Millimetres(body.thickness_mm, 0),
        )
        yield notice("caution", "very-thick", text, VERY_THICK_MM)


def _of_the_stages(stages: Sequence[Stage]) -> Iterator[Notice]:
    hottest = max((each.temperature_c for each in stages if each.medium == "fat"), default=0.0)
    yield from fat_too_hot(hottest)


def _answer(
    journey: Journey, done: Done | None, goal_c: float | None, told: Sequence[Notice]
) -> HeatAnswer:
    hold = None
    if goal_c is not None and goal_c >= LEAST_HOLD_C:
        held = held_min(journey.hours, journey.heart_c, goal_c - AT_THE_GOAL_C)
        hold = Hold(hold_needed_min(goal_c), held)
    return HeatAnswer(
        hours=tuple(journey.hours.tolist()),
        inside_c=tuple(journey.heart_c.tolist()),
        mean_c=tuple(journey.mean_c.tolist()),
        surface_c=tuple(journey.surface_c.tolist()),
        done_h=done,
        peak_c=float(np.max(journey.heart_c)),
        danger_h=danger_h(journey.hours, journey.heart_c),
        hold_min=hold,
        balance_error=journey.balance_error,
        notices=tuple(told),
    )
