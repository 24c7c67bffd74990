"""How long each stage at the heat takes for a piece: by the model, by practice, in batches."""

from dataclasses import dataclass, field, replace
from functools import lru_cache
from math import ceil
from typing import Final

from pantry_core.heat.body import Body
from pantry_core.heat.forecast import Forecast, forecast
from pantry_core.heat.media import MEDIA, MediumName
from pantry_core.heat.stages import Stage
from pantry_core.heat.through import Journey, stood
from pantry_core.quantities import Celsius
from pantry_core.routes.cuts import Cut
from pantry_core.routes.heats import CRISP, VEGETABLES, Heat, HeatStage, Span
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

FRIDGE_COLD_C: Final = 4.0
TEMPERED_C: Final = 10.0
HOT_THROUGH_C: Final = Rule(
    "hot-through", 75.0, "°C", "from here on it grows tender by the hour", Mark.PRACTICE
)
IN_A_POT_C: Final = Rule("in-a-pot", 95.0, "°C", "liquid in a closed pot", Mark.PRACTICE)
BELOW_MEDIUM_C: Final = 8.0
"""In a medium that is not much hotter it counts as hot through when it comes so near (practice)."""
BETWEEN_BATCHES_H: Final = 2.0 / 60.0
LEAST_H: Final = 0.05
"""A piece that is done before a stage begins is looked at all the same (our own choice)."""
POT_C: Final = Rule("from-the-pot", 68.0, "°C", "ham, gammon, loin from the pot", Mark.PRACTICE)


FORETOLD: Final = ("inside", "tender")
"""How stages end whose hours are foretold."""


class NeverDone(ValueError):
    """A medium that never brings the piece to what is asked."""


@dataclass(frozen=True, slots=True)
class Cooking:
    """How a piece is cooked: cut, form and way, as heat sees it, and what the cook says of it.

    `piece_g` is one piece of `count` [g]; `doubt` how far its thickness may be off [-]; `goal_c`
    the temperature in the thickest part, None where nothing is to be read; `take_out_c` where it
    leaves the heat to climb to that, None: at it; `hold_min` how long it is held there; `medium_c`
    the cook's own temperature of oven, pot or fire [°C], `edited` medium and temperature of single
    stages by their ids; `pace` how long places take in this kitchen, as factors on the hours that
    are foretold [-].
    """

    cut: Cut
    form: str
    heat: Heat
    body: Body
    piece_g: float
    count: int = 1
    doubt: float = 0.2
    goal_c: float | None = None
    take_out_c: float | None = None
    hold_min: float = 0.0
    medium_c: float | None = None
    edited: tuple[tuple[str, MediumName | None, float | None], ...] = ()
    is_cured: bool = False
    is_tempered: bool = False
    vegetables: bool = False
    is_pressed: bool = False
    people: int | None = None
    pace: tuple[tuple[str, float], ...] = ()

    @property
    def out_c(self) -> float | None:
        """The temperature in the thickest part at which it leaves the heat [°C]."""
        return self.goal_c if self.take_out_c is None else self.take_out_c

    @property
    def is_tender(self) -> bool:
        """Whether it is cooked until it is tender, not until a temperature."""
        return self.cut.is_tender and self.heat.is_tender

    @property
    def stages(self) -> tuple[HeatStage, ...]:
        """Its stages, the cook's temperature and vegetables in them."""
        found = self.heat.stages_for(self.cut.kind, is_cured=self.is_cured)
        if self.medium_c is not None:
            found = tuple(
                replace(each, medium_c=self.medium_c) if each.is_main else each for each in found
            )
        for stage_id, medium, medium_c in self.edited:
            found = tuple(
                _in_medium(each, medium, medium_c) if each.id == stage_id else each
                for each in found
            )
        if self.is_pressed and found and found[-1].ends != "look":
            found = (*found, CRISP)
        pot = next((i for i, each in enumerate(found) if each.medium in ("water", "oven")), None)
        if not self.vegetables or pot is None:
            return found
        return (*found[: pot + 1], VEGETABLES, *found[pot + 1 :])


def _in_medium(stage: HeatStage, medium: MediumName | None, medium_c: float | None) -> HeatStage:
    """A stage as the cook edits it; another medium is felt as it is, without the stage's lid."""
    if medium is not None and medium != stage.medium:
        stage = replace(stage, medium=medium, covered=False)
    return stage if medium_c is None else replace(stage, medium_c=medium_c)


@dataclass(frozen=True, slots=True)
class TimedStage:
    """A stage with how long it takes: usually and within its band [h], all batches together.

    `pace` is what the kitchen has learnt of its place and is in these hours [-]; `journey` the way
    of the heat until its end, where that was foretold.
    """

    stage: HeatStage
    usual: float
    low: float
    high: float
    batches: int = 1
    pace: float = 1.0
    journey: Journey | None = field(default=None, compare=False, repr=False)

    @property
    def planned(self) -> float:
        """How long it is given: what has to be waited for half way to its late end [h]."""
        if self.stage.ends in FORETOLD:
            return (self.usual + self.high) / 2.0
        return self.usual


def timed(cooking: Cooking) -> tuple[TimedStage, ...]:
    """How long each stage takes.

    Parameters: cooking; its fields carry their units.
    Returns: the stages with their hours.
    Raises: NeverDone where the medium never brings the piece there.
    Source: temperatures by the model of `heat.through`; what must grow tender is hot through by the
    model and then takes its time by practice; whole smoked cuts by the kilo (common practice).
    """
    so_far: list[Stage] = []
    found = []
    for stage in cooking.stages:
        one, journey = _one(cooking, stage, so_far)
        batches = _batches(cooking, stage)
        more = (batches - 1) * BETWEEN_BATCHES_H
        pace = dict(cooking.pace).get(stage.place, 1.0) if stage.ends in FORETOLD else 1.0
        usual, low, high = (batches * each * pace + more for each in (one[1], one[0], one[2]))
        found.append(TimedStage(stage, usual, low, high, batches, pace, journey))
        if stage.medium is not None:
            so_far.append(as_stage(stage, hours=max(one[1], 1e-3)))
    return tuple(found)


def _one(cooking: Cooking, stage: HeatStage, so_far: list[Stage]) -> tuple[Span, Journey | None]:
    """One batch of a stage: least, usual, most [h]; the way of the heat where it is foretold."""
    if stage.medium is None or stage.ends in ("time", "look"):
        return stage.span_h, None
    if stage.ends == "inside" and cooking.goal_c is None:
        return (stage.span_h if stage.span_h[1] else _UNREAD), None
    if stage.ends == "tender" and cooking.is_tender:
        return _until_tender(cooking, stage, so_far)
    if cooking.goal_c is None:
        return stage.span_h, None
    if stage.span_h_kg[1] and cooking.is_tender:
        return _by_the_kilo(cooking, stage), None
    (low, usual, high), journey = _until(cooking, stage, so_far, planning_goal_c(cooking, stage))
    hold_h = cooking.hold_min / 60.0
    by_hand = stage.span_h if stage.batch_g else (0.0, 0.0, 0.0)
    low, usual, high = (
        max(a, b) + hold_h for a, b in zip((low, usual, high), by_hand, strict=True)
    )
    return (low, usual, high), journey


_UNREAD: Final[Span] = (0.5, 0.75, 1.0)
"""What nobody reads a temperature of, as vegetables in the oven [h] (common practice)."""


def planning_goal_c(cooking: Cooking, stage: HeatStage) -> float:
    """What it is planned to: red meat from the pot is cooked a little further than it must be."""
    if cooking.take_out_c is not None:
        return cooking.take_out_c
    goal = cooking.goal_c or 0.0
    is_pot = stage.medium == "water" and cooking.cut.kind in ("pork", "beef", "lamb", "game")
    return max(goal, POT_C.value) if is_pot else goal


def _by_the_kilo(cooking: Cooking, stage: HeatStage) -> Span:
    kilos = cooking.piece_g / 1000.0
    low, usual, high = (
        max(by_kilo * kilos, least) for by_kilo, least in zip(stage.span_h_kg, _SMOKED, strict=True)
    )
    return low, usual, high


_SMOKED: Final[Span] = (3.0, 4.0, 5.0)
"""What a small piece of a tender cut takes in the smoker [h] (common practice)."""


def _until_tender(
    cooking: Cooking, stage: HeatStage, so_far: list[Stage]
) -> tuple[Span, Journey | None]:
    if stage.span_h_kg[1]:
        return _by_the_kilo(cooking, stage), None
    hot_c = min(HOT_THROUGH_C.value, stage.medium_c - BELOW_MEDIUM_C)
    hot_c = max(hot_c, cooking.goal_c or 0.0)
    up, journey = _until(cooking, stage, so_far, hot_c)
    least, usual, most = (a + b for a, b in zip(up, stage.span_h, strict=True))
    return (least, usual, most), journey


def _until(
    cooking: Cooking, stage: HeatStage, so_far: list[Stage], goal_c: float
) -> tuple[Span, Journey]:
    """How long a stage takes to a temperature, after those before it."""
    last = as_stage(stage, until_c=goal_c)
    found = _foretold(cooking.body, start_c(cooking), (*so_far, last), round(cooking.doubt, 4))
    if found.done is None or found.journey is None:
        comes_to = stood(cooking.body, start_c(cooking), so_far, last)
        medium = MEDIA[last.medium]
        raise NeverDone(
            say(
                "{words} at {medium_c} brings the thickest part to {comes_to} and never to "
                "{goal_c}; use a hotter one",
                words=medium.words,
                medium_c=Celsius(stage.medium_c),
                comes_to=Celsius(comes_to, 0),
                goal_c=Celsius(goal_c),
            )
        )
    ends = found.journey.ends_h
    before = ends[-2] if len(ends) > 1 else 0.0
    done = found.done
    least, usual, most = (max(each - before, LEAST_H) for each in (done.low, done.usual, done.high))
    return (least, usual, most), found.journey


@lru_cache(maxsize=2048)
def _foretold(body: Body, start_c: float, stages: tuple[Stage, ...], doubt: float) -> Forecast:
    """The forecast, kept: a dish is worked out for every method that fits it."""
    return forecast(body, start_c, stages, (), doubt)


def as_stage(stage: HeatStage, hours: float | None = None, until_c: float | None = None) -> Stage:
    """A stage as the model takes it, for so long [h] or until the heart has a temperature [°C]."""
    assert stage.medium is not None  # noqa: S101 - asked of stages in a medium alone
    if stage.covered:  # a closed pot with liquid in it
        in_pot_c = min(IN_A_POT_C.value, stage.medium_c)
        return Stage("water", in_pot_c, hours, until_c)
    return Stage(stage.medium, stage.medium_c, hours, until_c, is_dried=stage.dried)


def start_c(cooking: Cooking) -> float:
    """How warm it is when it goes to the heat [°C]."""
    return TEMPERED_C if cooking.is_tempered else FRIDGE_COLD_C


def _batches(cooking: Cooking, stage: HeatStage) -> int:
    if stage.batch_g is None:
        return 1
    return max(1, ceil(cooking.piece_g * cooking.count / stage.batch_g - 1e-9))
