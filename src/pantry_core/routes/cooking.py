"""The steps at the heat, from the counter to the table."""

import math
from collections.abc import Iterator, Sequence
from typing import Final

from pantry_core.mixes.judged import Judged
from pantry_core.quantities import Between, Celsius, Kilograms, Minutes, Number
from pantry_core.routes.customs import (
    KEEP_WARM_H,
    KEEP_WARM_TENDER_H,
    KEPT_WARM_C,
    PRESS_H,
    Customs,
)
from pantry_core.routes.heating import Cooking, TimedStage, timed
from pantry_core.routes.heats import VEGETABLES, HeatStage
from pantry_core.routes.step import RouteStep, Until
from pantry_core.routes.suits import nature_of
from pantry_core.rules.inside import SMOKED_FISH_MIN, TENDER_HIGH, TENDER_LOW
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import SETTING, Text, joined, say

LEAST_REST_H: Final = 0.25
"""Where time is short a rest is cut to half, not below a quarter of an hour (practice)."""
LONG_REST_G: Final = 1000.0
"""From here on a piece rests half an hour, below a quarter (practice)."""
ROOTS_G: Final = Rule("roots-a-head", 150.0, "g a head", "roots in the pot", Mark.PRACTICE)
GREENS_G: Final = Rule("greens-a-head", 100.0, "g a head", "cabbage in the pot", Mark.PRACTICE)
TO_TABLE: Final = "table"
"""What is only dished up goes to the table in one."""
LAST_MIN: Final = 30.0
CARVE_MIN: Final = 15.0
CLEAR_FROM_C: Final = 70.0
"""From here on juices run clear (common practice)."""
CARVED_FROM_G: Final = 400.0
"""A smaller piece is somebody's portion (common practice)."""
_CRISPED: Final = ("fry", "braise-fry", "in-fat")
"""What comes crisp out of the pan or the oven softens while it rests."""
_NO_REST: Final = ("thin", "ground", "cubes", "vegetable")
_CARVED: Final = ("bird", "tender", "roast")


def stages_of(cooking: Cooking, customs: Customs) -> tuple[TimedStage, ...]:
    """The stages of its cooking with their hours; none for fish eaten raw.

    Raises: NeverDone where the medium never brings it to what is asked.
    """
    if cooking.cut.kind == "fish" and customs.is_raw and cooking.heat.id != "cold-smoke":
        return ()
    return timed(cooking)


def tempered(stages: Sequence[TimedStage], customs: Customs) -> Iterator[RouteStep]:
    """The chill taken off before the oven, where the cook does so."""
    if customs.tempering == "hour" and any(each.stage.place == "oven" for each in stages[:1]):
        yield RouteStep(
            "temper", "temper", "Take the chill off", "Out of the fridge, covered; two hours at "
            "the most", "counter", 1.0, 1.0, 1.0, 5,
        )  # fmt: skip


def _done(cooking: Cooking, judged: Judged, stage: HeatStage) -> str:
    """When it is done, in words."""
    if cooking.is_tender:
        least = (
            say(", never below {goal_c}", goal_c=Celsius(cooking.goal_c)) if cooking.goal_c else ""
        )
        usual = ""
        if stage.medium_c >= TENDER_LOW.value:
            usual = say(
                ", at {between} as a rule",
                between=Between(Celsius(TENDER_LOW.value), Celsius(TENDER_HIGH.value)),
            )
        return say(
            "Done when a fork turns in it or a skewer slides in{usual}{least}",
            usual=usual,
            least=least,
        )
    if cooking.goal_c is None or is_by_look(cooking):
        return "Done when it looks so, nothing of it pink or wet"
    held = (
        say(", held there for {hold_min}", hold_min=Minutes(cooking.hold_min, 0))
        if cooking.hold_min >= 1.0
        else ""
    )
    if judged.request.meat.is_kept_smoked:
        held = say(
            ", held there for {smoked_fish_min}", smoked_fish_min=Minutes(SMOKED_FISH_MIN.value)
        )
    if cooking.take_out_c is not None:
        return say(
            "Take it out at {take_out_c} in the thickest part, to come to {goal_c} while it rests",
            take_out_c=Celsius(cooking.take_out_c),
            goal_c=Celsius(cooking.goal_c),
        )
    return say(
        "Done at {goal_c} in the thickest part{held}", goal_c=Celsius(cooking.goal_c), held=held
    )


def _until(cooking: Cooking, timed_stage: TimedStage) -> Until | None:
    """What a stage goes on until; under the lid of a pressure pot nothing is felt."""
    stage = timed_stage.stage
    if stage.ends == "look":
        return {"look": True}
    is_felt = stage.ends == "tender" or bool(stage.span_h_kg[1])
    if stage.ends == "time" or (stage.medium == "pressure" and cooking.is_tender):
        return None
    if is_felt and cooking.is_tender:
        return {"tender": True}
    if stage.medium is None:
        return None
    if cooking.goal_c is None or is_by_look(cooking):
        return {"look": True}
    return {"inside_c": cooking.out_c or cooking.goal_c}


def is_by_look(cooking: Cooking) -> bool:
    """Whether it is too thin for a probe."""
    return nature_of(cooking.cut, cooking.form) == "thin"


def cooked(stages: Sequence[TimedStage], cooking: Cooking, judged: Judged) -> Iterator[RouteStep]:
    """The stages; what has to be waited for is planned half way to its late end."""
    pressed_before = _pressed_before(stages, cooking)
    for each in stages:
        stage = each.stage
        if each is pressed_before:
            yield from _pressed()
        until = _until(cooking, each)
        how: str = joined(" ", (_how(each, cooking), stage.look, _signs(stage, cooking)))
        if until is not None and stage.ends in ("inside", "tender"):
            how = say(
                "{how} {done}; {span}.",
                how=how,
                done=_done(cooking, judged, stage),
                span=_span(each, cooking),
            )
        elif each.batches > 1:
            how = say("{how} {batches} batches.", how=how, batches=Number(each.batches))
        hours = each.planned
        least = each.low if stage.ends == "time" else hours
        yield RouteStep(
            stage.id, stage.kind, stage.title, how, stage.place,
            least, hours, max(each.high, hours + 0.25), min(stage.hands_min, 60 * hours),
            attended=stage.attended, every_h=_rounds_h(each), tend=_tend(each), until=until,
            medium=stage.medium, medium_c=None if stage.medium is None else stage.medium_c,
            covered=stage.covered,
        )  # fmt: skip


def _signs(stage: HeatStage, cooking: Cooking) -> str:
    """What else is seen of a roast that is done: not of one that stays pink, nor of a leg alone."""
    if stage.id != "roast" or stage.ends != "inside" or (cooking.goal_c or 0.0) < CLEAR_FROM_C:
        return ""
    if nature_of(cooking.cut, cooking.form) == "bird" and cooking.cut.has_legs:
        return say("The juices run clear, and a leg moves in its joint.")
    return say("The juices run clear.")


def at_heat(how: str, medium_c: float) -> str:
    """The words of a stage with the temperature that the cook chose in place of the usual one.

    Parameters: how, the words; medium_c [°C].
    Returns: the words with one temperature in them; behind them, where they name none.
    """
    chosen = Celsius(medium_c)
    setting = SETTING.search(how.pattern) if isinstance(how, Text) else None
    if setting is not None and isinstance(how, Text):
        return Text(how.pattern, {**how.figures, setting[1]: chosen})
    return say("{how} At {chosen}, as you asked.", how=how, chosen=chosen)


def _how(each: TimedStage, cooking: Cooking) -> str:
    stage = each.stage
    how = stage.how
    usual_c = next(
        (s.medium_c for s in cooking.heat.stages_for(cooking.cut.kind, is_cured=cooking.is_cured)
         if s.id == stage.id), stage.medium_c,
    )  # fmt: skip
    if stage.medium_c != usual_c:
        how = at_heat(how, stage.medium_c)
    if stage is VEGETABLES and cooking.people:
        roots, greens = (rule.value * cooking.people / 1000.0 for rule in (ROOTS_G, GREENS_G))
        how = say(
            "{how} About {roots} of roots and {greens} of greens.",
            how=how,
            roots=Kilograms(roots, 1),
            greens=Kilograms(greens, 1),
        )
    if each.batches > 1 and stage.ends == "inside":
        how = say("{how} {batches} batches.", how=how, batches=Number(each.batches))
    return how


def _rounds_h(each: TimedStage) -> float | None:
    every_h = each.stage.every_h
    return every_h if every_h is not None and each.high > every_h else None


def _tend(each: TimedStage) -> str:
    return each.stage.tend if _rounds_h(each) is not None else ""


def _span(each: TimedStage, cooking: Cooking) -> str:
    low, high = _clock(each.low), _clock(each.high)
    told = (
        say("about {low}", low=low)
        if low == high
        else say("perhaps {low} to {high}", low=low, high=high)
    )
    return say("{told}, then hold it at {60 °C} or above", told=told) if rest_h(cooking) else told


def _clock(hours: float) -> str:
    """A time as it is said: to five minutes, from an hour on to a quarter, then to a half."""
    if hours < 1.0:
        return (
            say("{length}", length=Minutes(max(1, round(60 * hours))))
            if hours < 0.25
            else say("{length}", length=Minutes(5 * round(12 * hours)))
        )
    steps = 4 if hours < 3.0 else 2
    parts = round(steps * hours) / steps
    fraction = {0.25: "¼", 0.5: "½", 0.75: "¾"}.get(parts % 1, "")
    return f"{int(parts)}{fraction} h"


def _pressed_before(stages: Sequence[TimedStage], cooking: Cooking) -> TimedStage | None:
    """The stage that crisps what was pressed."""
    if not cooking.is_pressed or len(stages) < 2:
        return None
    return stages[-1]


def _pressed() -> Iterator[RouteStep]:
    yield RouteStep(
        "cool", "cool", "Cool it quickly", say("Shallow, or bagged in ice water: below {21 °C} "
                                               "within 2 h, to {5 °C} within 6 h in all. Never "
                                               "pressed hot"), "fridge", 2.0, 4.0, 6.0, 15,
        until={"cold_c": 5.0}, medium="ice-bath", medium_c=1.0,
    )  # fmt: skip
    hours = PRESS_H.value
    yield RouteStep(
        "press-cooked", "press-cooked", "Press", "Between two boards, under a weight", "fridge",
        hours / 1.5, hours, 2 * hours, 10,
    )  # fmt: skip


def served(cooking: Cooking, stages: Sequence[TimedStage]) -> Iterator[RouteStep]:
    """From the heat to the table."""
    nature = nature_of(cooking.cut, cooking.form)
    if stages:
        hours = rest_h(cooking)
        if hours:
            yield _rest(cooking, hours)
        most = KEEP_WARM_H.value if hours else KEEP_WARM_H.value / 4.0
        if cooking.is_tender and hours:
            most = KEEP_WARM_TENDER_H.value
        yield RouteStep(
            "keep-warm", "keep-warm", "Keep warm", say("Covered, at {60 °C} or above: a low "
                                                       "oven, a warmed box"), "counter",
            0.0, 0.0, most,
            medium="air", medium_c=KEPT_WARM_C.value,
        )  # fmt: skip
    is_carved = nature in _CARVED and bool(stages) and cooking.piece_g >= CARVED_FROM_G
    if cooking.cut.kind == "fish" and not stages:
        is_carved = True
    title = "Carve" if is_carved else "Dish up"
    how = "Carve across the grain" if is_carved else "Onto the table"
    trip = None if is_carved else TO_TABLE
    yield RouteStep("carve", "carve", title, how, "counter", 0.25, 0.25, 0.25, 15, trip=trip)


def _rest(cooking: Cooking, hours: float) -> RouteStep:
    """The rest before it is carved; what was taken out early is read again in it."""
    how: str = say("Take it out, loosely covered; the inside still climbs a few degrees")
    until: Until | None = None
    if cooking.take_out_c is not None and cooking.goal_c is not None:
        until = {"inside_c": cooking.goal_c}
        again = say("Read it again before you carve: {goal_c}", goal_c=Celsius(cooking.goal_c))
        how = joined(". ", (how, again))
    return RouteStep(
        "stand", "stand", "Rest before carving", how, "counter",
        max(LEAST_REST_H, hours / 2.0), hours, 1.5 * hours, 5, until=until,
    )  # fmt: skip


def usual_early_min(last_steps: Sequence[str | None], cooks: int) -> float:
    """How much before its hour a dish may be done, where nobody says: all in the last half hour.

    Parameters: last_steps, for each dish whose last step takes hands its trip, None where it has
    hands of its own; cooks. Where they are too many for half an hour the first begins earlier.
    Returns: minutes before the hour. Source: common practice.

    >>> usual_early_min([None, None, "table", "table"], cooks=1)
    30.0
    """
    alone = sum(trip is None for trip in last_steps)
    together = len({trip for trip in last_steps if trip is not None})
    turns = math.ceil((alone + together) / cooks)
    return max(LAST_MIN, CARVE_MIN * turns) - CARVE_MIN


def rest_h(cooking: Cooking) -> float:
    """How long it stands before it is carved [h]; none for the thin, ground, crisp, or a fish."""
    nature = nature_of(cooking.cut, cooking.form)
    if nature in _NO_REST or cooking.cut.kind == "fish" or cooking.heat.id in _CRISPED:
        return 0.0
    return 0.5 if cooking.piece_g >= LONG_REST_G else 0.25
