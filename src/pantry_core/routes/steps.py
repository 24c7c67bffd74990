"""The route of a dish: its steps in order, with windows, places and hands."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Final

from pantry_core.errors import within
from pantry_core.heat.inside import is_intact
from pantry_core.heat.smoke import judge_smoke
from pantry_core.meat import MOST_MEAT_G
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.keeping import judge_raw
from pantry_core.notice import Notice
from pantry_core.routes.customs import (
    COLD_CHILL_H,
    COOK_SPREAD,
    DRY_SURFACE_H,
    KEEP_WARM_H,
    PARASITES_H,
    PRESS_H,
    SOAK_H,
    TEMPER_H,
    USUAL,
    Customs,
)
from pantry_core.routes.cuts import SMOKED, VEGETABLES, Cut, Stage
from pantry_core.routes.ways import WAYS, Way, WayName
from pantry_core.rules.constants import THAW_H_PER_KG, THAW_LEAST_H
from pantry_core.rules.inside import SMOKED_FISH_MIN, TENDER_HIGH, TENDER_LOW
from pantry_core.rules.raw_clock import CURED_RED_MEAT, RawLimits

PLACES = ("freezer", "fridge", "counter", "hob", "smoker", "oven")

_CURING_KEY: dict[WayName, str] = {
    "even-brine": "brine", "strong-brine": "brine", "needle-brine": "brine",
    "dry-brine": "dry-brine",
}  # fmt: skip
REST_H: Final = (12.0, 24.0, 36.0)
"""Shortest, usual and longest rest after the cure [h] (common practice)."""
HOLD_H, CURED_HOLD_H = 24.0, 96.0
"""How long a rested piece may be held before the heat, and one that is cured [h] (practice)."""

CURING: Final = tuple(WAYS)
"""Kinds of the step in which the piece takes its salt; the names of the methods."""

LATE = 0.1
"""A piece that must come out on time may come out so much earlier or later (common practice)."""

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
    *CURING,
)
"""Kinds of step during which the raw clock runs; for a frozen piece, once it has thawed."""


@dataclass(frozen=True, slots=True)
class RouteStep:
    """One step: windows [h], hands at its beginning [min], rounds every so many hours.

    `title` names the step, `begin` is what the hands do at its beginning, `tend` what a round is.
    """

    id: str
    kind: str
    title: str
    begin: str
    place: str | None
    min_h: float
    prefer_h: float
    max_h: float
    hands_min: float = 0.0
    attended: bool = False
    every_h: float | None = None
    tend: str = ""


@dataclass(frozen=True, slots=True)
class Route:
    """Steps in order, and what raw clock and smoke say of the shortest way through them."""

    steps: tuple[RouteStep, ...]
    raw: RawLimits | None
    notices: tuple[Notice, ...]

    @property
    def least_h(self) -> float:
        """Time from the first step to the table, waiting for nothing [h]."""
        return sum(step.min_h for step in self.steps)


def route(
    cut: Cut,
    way: Way,
    *,
    mass_g: float,
    wait_days: float,
    judged: Judged,
    frozen: bool = False,
    customs: Customs = USUAL,
) -> Route:
    """The steps that a method takes with a cut.

    Parameters: cut; way; mass_g [g]; wait_days, by the cook's school or by the model [d]; judged,
    what its mix comes to: the raw clock that runs, how hot inside, when it must come out; frozen,
    whether it is bought frozen; customs, how this cook handles it.
    Returns: the route; the curing step lasts the wait at least (a method with a window its window)
    and at most as long as the raw clock leaves; one that is lifted on time lasts until then, and
    the rest takes what is left of the wait.
    Raises: OutOfRange for a mass outside the range of `weigh`, or a wait over a year.
    Source: common practice; thawing by USDA, The Big Thaw (from memory).
    """
    kilos = within("mass_g", mass_g, 1e-6, MOST_MEAT_G, "g") / 1000.0
    within("wait_days", wait_days, 0.0, 366.0, "d")
    limits = judged.raw
    lift_h = judged.wait.lift_h if judged.wait else None
    is_lifted = way.timing == "lift" and lift_h is not None
    rest_h = max(24.0 * wait_days - (lift_h or 0.0), 0.0) if is_lifted else 0.0
    before = [*_bought(kilos, cut, customs, frozen=frozen), *_prepared(way, cut, customs)]
    hold_h = CURED_HOLD_H if limits is CURED_RED_MEAT else HOLD_H
    after = [*_lifted(way, cut, hold_h, rest_h, customs), *_dried(cut, customs)]
    around_h = sum(step.max_h for step in (*before, *after) if step.kind in RAW_KINDS)
    longest_h = 24.0 * limits.stop.value - around_h if limits else 24.0 * 60
    in_h = lift_h if is_lifted and lift_h is not None else 24.0 * wait_days
    curing = _curing(way, in_h, longest_h)
    stages = _stages(cut, customs)
    done = _done(cut, judged)
    cooked = (*_tempered(stages, customs), *_cooked(stages, kilos, done), *_served(cut, stages))
    steps = (*before, curing, *after, *cooked)
    raw = [step for step in (*before, curing, *after) if step.kind in RAW_KINDS]
    too_long = judge_raw(limits, sum(step.min_h for step in raw))
    notices = (*([too_long] if too_long else []), *_smoked(cut, stages, kilos, judged))
    return Route(steps, limits, notices)


def _bought(kilos: float, cut: Cut, customs: Customs, *, frozen: bool) -> Iterator[RouteStep]:
    yield RouteStep("buy", "buy", "Buy", "Buy the piece; straight home with it", None, 1, 1, 1, 60)
    kills = cut.kind == "fish" and customs.fish == "raw-freeze"
    if kills:
        hours = PARASITES_H.value
        yield RouteStep(
            "parasites", "freeze", "Freeze against parasites", "Into a freezer that holds −20 °C; "
            "−18 does not do", "freezer", hours, hours, 24.0 * 90, 5,
        )  # fmt: skip
    elif frozen:
        yield RouteStep("freeze", "freeze", "Keep frozen", "", "freezer", 0.0, 0.0, 24.0 * 90)
    if frozen or kills:
        hours = max(THAW_LEAST_H.value, THAW_H_PER_KG.value * kilos)
        yield RouteStep(
            "thaw", "thaw", "Thaw", "Move it from freezer to fridge, in a dish; fish out of its "
            "pack", "fridge", hours, hours, 1.25 * hours, 15,
        )  # fmt: skip


def _prepared(way: Way, cut: Cut, customs: Customs) -> Iterator[RouteStep]:
    yield RouteStep("keep", "keep", "Keep cold", "", "fridge", 0.0, 0.0, 24.0)
    if way.has_brine_to_chill:
        is_cold = customs.brine_by == "stirred"
        yield RouteStep(
            "make-brine", "make-brine", "Make the brine",
            "Stir salt and sugar into cold water until nothing crunches" if is_cold else
            "Dissolve salt and sugar in part of the water, hot; add the rest cold",
            "counter" if is_cold else "hob", 0.5, 0.5, 0.5, 30,
        )  # fmt: skip
        least, usual = (COLD_CHILL_H.value, 4.0) if is_cold else (8.0, 10.0)
        yield RouteStep(
            "chill-brine", "chill-brine", "Chill the brine", "", "fridge", least, usual, 24.0
        )
    elif way.group == "Marinade":
        yield RouteStep(
            "make-marinade", "make-brine", "Mix the marinade", "Weigh and stir the marinade, cold",
            "counter", 0.25, 0.25, 0.25, 15,
        )  # fmt: skip
    begin = "Wash and trim, weigh" if cut.kind == "vegetable" else "Trim, weigh, measure"
    if cut.closed_faces and customs.scoring == "early":
        begin += "; score the skin"
    yield RouteStep("trim", "trim", "Trim and weigh", begin, "counter", 0.5, 0.5, 0.5, 30)
    if way.id == "quick-pickle":
        yield RouteStep(
            "draw", "draw", "Salt and draw", "Slice, salt, and leave to draw water",
            "counter", 0.5, 0.75, 1.0, 15,
        )  # fmt: skip


def _curing(way: Way, wait_h: float, longest_h: float) -> RouteStep:
    if way.window_h is not None:
        least, usual, most = way.window_h
        most = max(least, min(most, longest_h))
        usual = min(usual, most)
    elif way.timing == "lift":
        least, usual, most = (1.0 - LATE) * wait_h, wait_h, (1.0 + LATE) * wait_h
    else:
        least = usual = wait_h
        most = max(least, longest_h)
    has_rounds = way.every_h is not None and most > way.every_h
    return RouteStep(
        _CURING_KEY.get(way.id, "cure"), way.id, way.name, way.begin, "fridge",
        least, usual, most, 30 if way.group == "Needle" else 15,
        every_h=way.every_h if has_rounds else None, tend=way.tend if has_rounds else "",
    )  # fmt: skip


def _lifted(
    way: Way, cut: Cut, hold_h: float, rest_h: float, customs: Customs
) -> Iterator[RouteStep]:
    if way.id in ("dry-brine", "quick-pickle"):
        return
    if way.group == "Marinade":
        yield RouteStep(
            "lift", "lift", "Lift, wipe dry", "Lift it out, wipe it dry; what is left is boiled or "
            "thrown away", "counter", 0.25, 0.25, 0.25, 15,
        )  # fmt: skip
        return
    begin = "Lift and drain" if cut.kind == "vegetable" else "Lift, rinse, pat dry"
    if way.heaped:
        begin = "Lift, wash the salt off, pat dry"
    used = ""
    if way.needs_water:
        used = " The brine is boiled for the pot" if customs.pot == "boiled" else ""
        used = f".{used}" if used else "; throw the brine away"
    yield RouteStep("lift", "lift", begin, f"{begin}; weigh it{used}", "counter", 0.5, 0.5, 0.5, 20)
    if customs.after_cure == "soak" and cut.kind != "vegetable":
        yield RouteStep(
            "soak", "soak", "Soak", "Into fresh cold water, twice its weight; then pat dry",
            "fridge", SOAK_H.value, SOAK_H.value, 2 * SOAK_H.value, 10,
        )  # fmt: skip
    if cut.kind != "vegetable":
        least = max(REST_H[0], rest_h)
        yield RouteStep(
            "rest", "rest", "Rest uncovered", "", "fridge",
            least, max(REST_H[1], least), max(REST_H[2], 1.5 * least),
        )  # fmt: skip
        yield RouteStep("hold", "hold", "Hold wrapped, cold", "", "fridge", 0.0, 0.0, hold_h)


def _dried(cut: Cut, customs: Customs) -> Iterator[RouteStep]:
    if customs.pressing == "overnight":
        hours = PRESS_H.value
        yield RouteStep(
            "press", "press", "Press", "Between two boards, under a weight", "fridge",
            hours / 1.5, hours, 2 * hours, 10,
        )  # fmt: skip
    if customs.heat == "smoked" and cut.stages:
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


def _stages(cut: Cut, customs: Customs) -> tuple[Stage, ...]:
    """How the piece is cooked: by its cut, in the smoke, or not at all."""
    if cut.kind == "fish" and customs.is_raw:
        return ()
    if customs.heat == "smoked" and cut.stages:
        return SMOKED
    if customs.vegetables == "late" and cut.stages and cut.stages[0].place == "hob":
        first = replace(cut.stages[0], hours=cut.stages[0].hours - VEGETABLES.hours / 2)
        return (first, VEGETABLES, *cut.stages[1:])
    return cut.stages


def _tempered(stages: tuple[Stage, ...], customs: Customs) -> Iterator[RouteStep]:
    if customs.tempering == "hour" and any(stage.place == "oven" for stage in stages[:1]):
        most = TEMPER_H.value
        yield RouteStep(
            "temper", "temper", "Take the chill off", "Out of the fridge, covered; two hours at "
            "the most", "counter", 1.0, 1.0, most, 5,
        )  # fmt: skip


def _smoked(cut: Cut, stages: tuple[Stage, ...], kilos: float, judged: Judged) -> Iterator[Notice]:
    """What the time between cold and hot in the smoker means; fish goes by its own line."""
    if stages is not SMOKED or cut.kind == "fish":
        return
    warming_h = sum(each.to_54_c * (each.hours + each.hours_per_kg * kilos) for each in stages)
    yield from judge_smoke(
        warming_h,
        min(each.air_c for each in stages if each.air_c is not None),
        is_cured=judged.nitrite.verdict == "ok",
        is_intact=is_intact(judged.request.treatments),
    )


def _done(cut: Cut, judged: Judged) -> str:
    """When it is done, in words."""
    inside = judged.inside
    if inside is None:
        return " Done"
    if cut.is_tender:
        return (
            f" Tender when a skewer slides in, somewhere from {TENDER_LOW.value:g} to "
            f"{TENDER_HIGH.value:g} °C inside, never below {inside.value:g}"
        )
    held = ""
    if judged.request.meat.is_kept_smoked:
        held = f", held there for {SMOKED_FISH_MIN.value:g} min"
    return f" Done at {inside.value:g} °C inside{held}"


def _cooked(stages: tuple[Stage, ...], kilos: float, done: str) -> Iterator[RouteStep]:
    """The stages, the last one planned to the late end of its spread."""
    for stage in stages:
        hours = stage.hours + stage.hours_per_kg * kilos
        how = stage.how
        if stage is stages[-1]:
            late = (1.0 + COOK_SPREAD.value) * hours
            how += f"{done}, perhaps after {_clock(hours)}: then hold it at 60 °C or above."
            hours = late
        yield RouteStep(
            stage.id, "cook", stage.title, how, stage.place,
            hours, hours, hours + 0.5, stage.hands_min,
        )  # fmt: skip


def _clock(hours: float) -> str:
    minutes = 5 * round(12 * hours)
    return f"{minutes // 60} h {minutes % 60:02d}" if minutes >= 60 else f"{minutes} min"


def _served(cut: Cut, stages: tuple[Stage, ...]) -> Iterator[RouteStep]:
    if stages:
        yield RouteStep(
            "stand", "stand", "Rest before carving", "Take it out, loosely covered",
            "counter", 0.5, 0.5, 0.75, 5,
        )  # fmt: skip
        yield RouteStep(
            "keep-warm", "keep-warm", "Keep warm", "", "counter", 0.0, 0.0, KEEP_WARM_H.value
        )
    title = "Carve" if cut.kind != "vegetable" else "Dish up"
    how = "Carve across the grain" if cut.kind != "vegetable" else "Onto the table"
    yield RouteStep("carve", "carve", title, how, "counter", 0.25, 0.25, 0.25, 15)
