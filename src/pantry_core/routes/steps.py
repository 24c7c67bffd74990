"""The route of a dish: its steps in order, with windows, places and hands."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final

from pantry_core.errors import within
from pantry_core.meat import MOST_MEAT_G
from pantry_core.mixes.judged import Judged
from pantry_core.routes.cooking import (
    cooked,
    served,
    stages_of,
    tempered,
)
from pantry_core.routes.customs import (
    COLD_CHILL_H,
    DRY_SURFACE_H,
    PRESS_H,
    SOAK_H,
    USUAL,
    Customs,
)
from pantry_core.routes.cuts import Cut
from pantry_core.routes.heating import Cooking, TimedStage
from pantry_core.routes.lying import Lying
from pantry_core.routes.step import RouteStep
from pantry_core.routes.ways import WAYS, Way, WayName
from pantry_core.rules.constants import FRIDGE_GOAL_C, THAW_H_PER_KG, THAW_LEAST_H
from pantry_core.rules.parasites import FROZEN
from pantry_core.rules.raw_clock import CURED_RED_MEAT, HISTAMINE_FISH, RawLimits
from pantry_core.text import say

PLACES = (
    say("freezer"), say("fridge"), say("counter"), say("hob"), say("smoker"), say("oven"),
    say("fire"),
)  # fmt: skip

_CURING_KEY: dict[WayName, str] = {
    "even-brine": "brine", "strong-brine": "brine", "needle-brine": "brine",
    "dry-brine": "dry-brine",
}  # fmt: skip
SHOPPING = "shop"
"""The errand on which everything is bought."""
KEEP_H, LONGEST_KEEP_H = 24.0, 72.0
"""How long a piece waits in the fridge before work on it begins, and at the longest where the raw
clock leaves it [h] (practice)."""
ON_THE_GRID_H = 1.5
"""What the quarters of an hour of a plan may add to the steps before the heat [h] (our choice)."""
HOLD_H, CURED_HOLD_H = 24.0, 96.0
"""How long a rested piece may be held before the heat, and one that is cured [h] (practice)."""

CURING: Final = tuple(WAYS)
"""Kinds of the step in which the piece takes its salt; the names of the methods."""

RAW_KINDS = (
    "keep",
    "make-brine",
    "chill-brine",
    "trim",
    "draw",
    "lift",
    "soak",
    "rest",
    "hold",
    "press",
    "dry",
    "score",
    "temper",
    "coat",
    "stuff",
    *CURING,
)
"""Kinds of step during which the raw clock runs; for a frozen piece, once it has thawed."""


@dataclass(frozen=True, slots=True)
class Route:
    """Steps in order, the raw clock that runs, and the stages' hours."""

    steps: tuple[RouteStep, ...]
    raw: RawLimits | None
    stages: tuple[TimedStage, ...] = ()

    @property
    def least_h(self) -> float:
        """Time from the first step to the table, waiting for nothing [h]."""
        return sum(step.min_h for step in self.steps)


def route(
    cut: Cut,
    way: Way | None,
    *,
    mass_g: float,
    lying: Lying,
    judged: Judged,
    cooking: Cooking,
    frozen: bool = False,
    customs: Customs = USUAL,
) -> Route:
    """The steps that a method takes with a cut.

    Parameters: cut; way, None for what is not cured; mass_g of it all [g]; lying, how long in the
    cure; judged, what its mix comes to: the raw clock that runs, how hot inside; cooking; frozen,
    whether it is bought frozen; customs, how this cook handles it.
    Returns: the route; the cure lasts at most as long as the raw clock leaves.
    Raises: OutOfRange for a mass outside the range of `weigh`; NeverDone where the heat
    never brings it to what is asked.
    Source: common practice; thawing by USDA, The Big Thaw (from memory).
    """
    kilos = within("mass_g", mass_g, 1e-6, MOST_MEAT_G, "g") / 1000.0
    limits = judged.raw
    before = [*_bought(kilos, cut, customs, frozen=frozen), *_prepared(way, cut, customs)]
    hold_h = CURED_HOLD_H if limits is CURED_RED_MEAT else HOLD_H
    is_mixed = judged.request.is_mixed_in
    stages = stages_of(cooking, customs)
    is_smoked = any(each.stage.place == "smoker" for each in stages)
    after = [
        *(() if way is None or is_mixed else _lifted(way, cut, hold_h, lying.rest_h, customs)),
        *_dried(cut, customs, cooking, is_smoked=is_smoked),
    ]
    around_h = sum(step.max_h for step in (*before, *after) if step.kind in RAW_KINDS)
    longest_h = 24.0 * limits.stop.value - around_h if limits else 24.0 * 60
    curing: tuple[RouteStep, ...] = () if way is None else (_curing(way, lying, longest_h),)
    curing, after = _within_the_caution(before, curing, after, limits)
    before = _kept_longer(before, (*curing, *after), limits)
    at_the_heat = (
        *_stuffed(judged),
        *tempered(stages, customs),
        *cooked(stages, cooking, judged),
        *served(cooking, stages),
    )
    steps = (*before, *curing, *after, *at_the_heat)
    return Route(steps, limits, stages)


def _within_the_caution(
    before: Sequence[RouteStep],
    curing: Sequence[RouteStep],
    after: Sequence[RouteStep],
    limits: RawLimits | None,
) -> tuple[tuple[RouteStep, ...], list[RouteStep]]:
    """Cure and rest as long as is usual, or a little shorter where that spares a caution."""
    steps = [step for step in (*before, *curing, *after) if step.kind in RAW_KINDS]
    usual_h = sum(step.min_h if step.prefer_h is None else step.prefer_h for step in steps)
    caution_h = float("inf") if limits is None else 24.0 * limits.caution.value
    spare = [
        (step.prefer_h or step.min_h) - step.min_h if step.kind in SHORTENED else 0.0
        for step in (*curing, *after)
    ]
    twice_h = sum(step.min_h for step in steps if step.place == "counter")
    usual_h += twice_h if limits is HISTAMINE_FISH else 0.0
    over_h = usual_h + ON_THE_GRID_H - caution_h
    if usual_h <= caution_h or over_h > sum(spare):
        return tuple(curing), list(after)
    part = over_h / sum(spare)
    shorter = [
        replace(step, prefer_h=step.prefer_h - part * room) if step.prefer_h else step
        for step, room in zip((*curing, *after), spare, strict=True)
    ]
    return tuple(shorter[: len(curing)]), shorter[len(curing) :]


SHORTENED: Final = (*CURING, "rest", "dry")
"""What may be a little shorter than usual."""


def _kept_longer(
    before: Sequence[RouteStep], onward: Sequence[RouteStep], limits: RawLimits | None
) -> list[RouteStep]:
    """What is bought early may wait longer, as far as the raw clock gives no caution by it."""
    raw = [step for step in (*before, *onward) if step.kind in RAW_KINDS and step.kind != "keep"]
    usual_h = sum(step.min_h if step.prefer_h is None else step.prefer_h for step in raw)
    spare_h = LONGEST_KEEP_H if limits is None else 24.0 * limits.caution.value - usual_h
    most = min(max(KEEP_H, spare_h), LONGEST_KEEP_H)
    return [replace(step, max_h=most) if step.kind == "keep" else step for step in before]


def _bought(kilos: float, cut: Cut, customs: Customs, *, frozen: bool) -> Iterator[RouteStep]:
    yield RouteStep(
        "buy", "buy", "Buy", "Buy the piece; straight home with it", None, 1, 1, 1, 60,
        trip=SHOPPING,
    )  # fmt: skip
    kills = cut.kind == "fish" and customs.fish == "raw-freeze"
    if kills:
        hours = FROZEN["us"].hours.value
        yield RouteStep(
            "parasites",
            "freeze",
            "Freeze against parasites",
            say("Into a freezer that holds {−20 °C}; {−18 °C} is too warm"),
            "freezer",
            hours,
            hours,
            24.0 * 90,
            5,
            until={"cold_c": -20.0},
            medium="air",
            medium_c=FROZEN["us"].celsius.value,
        )
    elif frozen:
        yield RouteStep("freeze", "freeze", "Keep frozen", "", "freezer", 0.0, None, 24.0 * 90)
    if frozen or kills:
        hours = max(THAW_LEAST_H.value, THAW_H_PER_KG.value * kilos)
        yield RouteStep(
            "thaw", "thaw", "Thaw", "Move it from freezer to fridge, in a dish; fish out of its "
            "pack", "fridge", hours, hours, 1.25 * hours, 15,
            until={"look": True},
        )  # fmt: skip


def _prepared(way: Way | None, cut: Cut, customs: Customs) -> Iterator[RouteStep]:
    yield RouteStep("keep", "keep", "Keep cold", "", "fridge", 0.0, None, KEEP_H)
    if way is not None and way.has_brine_to_chill:
        is_cold = customs.brine_by == "stirred"
        yield RouteStep(
            "make-brine", "make-brine", "Make the brine",
            "Stir salt and sugar into cold water until nothing crunches" if is_cold else
            "Dissolve salt and sugar in part of the water, hot; add the rest cold",
            "counter" if is_cold else "hob", 0.5, 0.5, 0.5, 30, with_piece=False,
        )  # fmt: skip
        least, usual = (COLD_CHILL_H.value, 4.0) if is_cold else (8.0, 10.0)
        yield RouteStep(
            "chill-brine", "chill-brine", "Chill the brine", "", "fridge", least, usual, 24.0,
            until={"cold_c": FRIDGE_GOAL_C.value}, with_piece=False,
        )  # fmt: skip
    elif way is not None and way.group == "Marinade":
        yield RouteStep(
            "make-marinade", "make-brine", "Mix the marinade", "Weigh and stir the marinade, cold",
            "counter", 0.25, 0.25, 0.25, 15, with_piece=False,
        )  # fmt: skip
    begin = "Wash and trim, weigh" if cut.kind == "vegetable" else "Trim, weigh, measure"
    if cut.closed_faces and customs.scoring == "early":
        begin += "; score the skin"
    yield RouteStep("trim", "trim", "Trim and weigh", begin, "counter", 0.5, 0.5, 0.5, 30)
    if way is not None and way.id == "quick-pickle":
        yield RouteStep(
            "draw", "draw", "Salt and draw", "Slice, salt, and leave to draw water",
            "counter", 0.5, 0.75, 1.0, 15,
        )  # fmt: skip


def _curing(way: Way, lying: Lying, longest_h: float) -> RouteStep:
    least, usual = lying.least_h, lying.usual_h
    most = longest_h if lying.longest_h is None else lying.longest_h
    if way.window_h is not None:
        most = min(most, longest_h)
    most = max(least, most)
    has_rounds = way.every_h is not None and most > way.every_h
    return RouteStep(
        _CURING_KEY.get(way.id, "cure"), way.id, way.name, way.begin, "fridge",
        least, min(usual, most), most, 30 if way.group == "Needle" else 15,
        every_h=way.every_h if has_rounds else None, tend=way.tend if has_rounds else "",
    )  # fmt: skip


def _lifted(
    way: Way, cut: Cut, hold_h: float, rest_h: tuple[float, float, float], customs: Customs
) -> Iterator[RouteStep]:
    if way.id in ("dry-brine", "quick-pickle"):
        return
    if way.group == "Marinade":
        yield RouteStep(
            "lift", "lift", "Lift, wipe dry", "Lift it out, wipe it dry; what is left is boiled or "
            "thrown away", "counter", 0.25, 0.25, 0.25, 15,
        )  # fmt: skip
        yield RouteStep("hold", "hold", "Hold covered, cold", "", "fridge", 0.0, 0.0, HOLD_H)
        return
    begin = "Lift and drain" if cut.kind == "vegetable" else "Lift, rinse, pat dry"
    if way.heaped:
        begin = "Lift, wash the salt off, pat dry"
    how = say("{begin}; weigh it", begin=begin)
    if way.needs_water and customs.pot == "boiled":
        how = say("{how}. The brine is boiled for the pot", how=how)
    elif way.needs_water:
        how = say("{how}; throw the brine away", how=how)
    if way.timing == "lift" and cut.kind != "vegetable":
        how = say("{how}. Fry a slice and taste it: too salty asks for a soak", how=how)
    yield RouteStep(
        "lift",
        "lift",
        begin,
        how,
        "counter",
        0.5,
        0.5,
        0.5,
        20,
    )
    if customs.after_cure == "soak" and cut.kind != "vegetable":
        yield RouteStep(
            "soak", "soak", "Soak", "Into fresh cold water, twice its weight; then pat dry",
            "fridge", SOAK_H.value, SOAK_H.value, 2 * SOAK_H.value, 10,
        )  # fmt: skip
    if cut.kind != "vegetable":
        yield RouteStep("rest", "rest", "Rest uncovered", "", "fridge", *rest_h)
        yield RouteStep("hold", "hold", "Hold wrapped, cold", "", "fridge", 0.0, 0.0, hold_h)


def _stuffed(judged: Judged) -> Iterator[RouteStep]:
    if "stuffed" in judged.request.treatments:
        yield RouteStep(
            "stuff", "stuff", "Stuff it", "Loosely, hot or cold, and straight to the heat; "
            "never the day before", "counter", 0.25, 0.25, 0.25, 15, form="stuffed",
        )  # fmt: skip


def _dried(cut: Cut, customs: Customs, cooking: Cooking, *, is_smoked: bool) -> Iterator[RouteStep]:
    if customs.pressing == "overnight" and not cooking.is_pressed:
        hours = PRESS_H.value
        yield RouteStep(
            "press", "press", "Press", "Between two boards, under a weight", "fridge",
            hours / 1.5, hours, 2 * hours, 10,
        )  # fmt: skip
    if is_smoked:
        hours = DRY_SURFACE_H.value
        yield RouteStep(
            "dry", "dry", "Dry the surface", "Onto a rack, uncovered, until it is tacky", "fridge",
            hours / 3, hours, 2 * hours, 5,
        )  # fmt: skip
    if cut.is_scored and customs.scoring == "late":
        yield RouteStep(
            "score", "score", "Score the skin", "Through the skin, not into the meat", "counter",
            0.25, 0.25, 0.25, 10,
        )  # fmt: skip
