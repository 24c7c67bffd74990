"""The route of a dish: its steps in order, with windows, places and hands."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from pantry_core.errors import within
from pantry_core.meat import MOST_MEAT_G
from pantry_core.mixes.nitrite import Verdict
from pantry_core.mixes.request import Method
from pantry_core.notice import Notice
from pantry_core.routes.cuts import Cut
from pantry_core.routes.raw_clock import judge_raw, raw_limits
from pantry_core.rules.constants import THAW_H_PER_KG, THAW_LEAST_H
from pantry_core.rules.raw_clock import CURED_RED_MEAT, RawLimits

PLACES = ("freezer", "fridge", "counter", "hob", "smoker", "oven")

ONCE_A_DAY_H = 16.0
"""Rounds may lie one and a half times this apart, so a piece is turned every 24 h at the least."""

DRY_BRINE_H: Final = (12.0, 24.0, 72.0)
"""Shortest, usual and longest dry brine [h] (common practice)."""

HOLD_H, CURED_HOLD_H = 24.0, 96.0
"""How long a rested piece may be held before the heat, and one that is cured [h] (practice)."""

CURING = ("even-brine", "dry-cure", "dry-brine")
"""Kinds of the step in which the piece takes its salt; the names of the methods."""


RAW_KINDS = ("keep", "make-brine", "chill-brine", "trim", "lift", "rest", "hold", *CURING)
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
    """Steps in order, and what the raw clock says of the shortest way through them."""

    steps: tuple[RouteStep, ...]
    raw: RawLimits | None
    notice: Notice | None

    @property
    def least_h(self) -> float:
        """Time from the first step to the table, waiting for nothing [h]."""
        return sum(step.min_h for step in self.steps)


def route(
    cut: Cut,
    method: Method,
    *,
    mass_g: float,
    wait_days: float,
    verdict: Verdict,
    target_salt_pct: float,
    frozen: bool = False,
) -> Route:
    """The steps that a method takes with a cut.

    Parameters: cut; method, one of CURING; mass_g [g]; wait_days, by the cook's school [d];
    verdict on its nitrite; target_salt_pct [%]; frozen, whether it is bought frozen.
    Returns: the route; the curing step lasts the wait at least (a dry brine 12 to 72 h) and at most
    as long as the raw clock leaves.
    Raises: OutOfRange for a mass outside the range of `weigh`, or a wait over a year.
    Source: common practice; thawing by USDA, The Big Thaw (from memory).
    """
    kilos = within("mass_g", mass_g, 1e-6, MOST_MEAT_G, "g") / 1000.0
    within("wait_days", wait_days, 0.0, 366.0, "d")
    limits = raw_limits(cut.kind, method, verdict, target_salt_pct)
    before = [*_bought(kilos, frozen=frozen), *_prepared(method, cut)]
    after = [*_lifted(method, cut, CURED_HOLD_H if limits is CURED_RED_MEAT else HOLD_H)]
    around_h = sum(step.max_h for step in (*before, *after) if step.kind in RAW_KINDS)
    longest_h = 24.0 * limits.stop.value - around_h if limits else 24.0 * 60
    curing = _curing(method, 24.0 * wait_days, longest_h)
    steps = (*before, curing, *after, *_cooked(cut, kilos), *_served(cut))
    raw = [step for step in (*before, curing, *after) if step.kind in RAW_KINDS]
    least_raw_h = sum(step.min_h for step in raw)
    return Route(steps, limits, judge_raw(limits, least_raw_h))


def _bought(kilos: float, *, frozen: bool) -> Iterator[RouteStep]:
    yield RouteStep("buy", "buy", "Buy", "Buy the piece; straight home with it", None, 1, 1, 1, 60)
    if frozen:
        yield RouteStep("freeze", "freeze", "Keep frozen", "", "freezer", 0.0, 0.0, 24.0 * 90)
        hours = max(THAW_LEAST_H.value, THAW_H_PER_KG.value * kilos)
        yield RouteStep(
            "thaw", "thaw", "Thaw", "Move it from freezer to fridge, in a dish; fish out of its "
            "pack", "fridge", hours, hours, 1.25 * hours, 15,
        )  # fmt: skip


def _prepared(method: Method, cut: Cut) -> Iterator[RouteStep]:
    yield RouteStep("keep", "keep", "Keep cold", "", "fridge", 0.0, 0.0, 24.0)
    if method == "even-brine":
        yield RouteStep(
            "make-brine", "make-brine", "Make the brine",
            "Dissolve salt and sugar in part of the water, hot; add the rest cold",
            "hob", 0.5, 0.5, 0.5, 30,
        )  # fmt: skip
        yield RouteStep(
            "chill-brine", "chill-brine", "Chill the brine", "", "fridge", 8.0, 10.0, 24.0
        )
    begin = "Wash and trim, weigh" if cut.kind == "vegetable" else "Trim, weigh, measure"
    yield RouteStep("trim", "trim", "Trim and weigh", begin, "counter", 0.5, 0.5, 0.5, 30)


def _curing(method: Method, wait_h: float, longest_h: float) -> RouteStep:
    if method == "dry-brine":
        least, usual, most = DRY_BRINE_H
        return RouteStep(
            method, method, "Dry brine", "Salt it all over; onto a rack, uncovered, skin up",
            "fridge", least, usual, max(least, min(most, longest_h)), 15,
        )  # fmt: skip
    least = usual = wait_h
    most = max(least, longest_h)
    if method == "dry-cure":
        return RouteStep(
            "cure", method, "Dry cure", "Rub the cure in, all of it; bag it, press the air out",
            "fridge", least, usual, most, 15, every_h=ONCE_A_DAY_H,
            tend="Turn the bag, rub what has drawn back in",
        )  # fmt: skip
    return RouteStep(
        "brine", method, "Brine", "Put it in, under a plate so that it stays under",
        "fridge", least, usual, most, 15, every_h=ONCE_A_DAY_H,
        tend="Turn it, stir the brine",
    )  # fmt: skip


def _lifted(method: Method, cut: Cut, hold_h: float) -> Iterator[RouteStep]:
    if method == "dry-brine":
        return
    begin = "Lift and drain" if cut.kind == "vegetable" else "Lift, rinse, pat dry"
    yield RouteStep("lift", "lift", begin, f"{begin}; weigh it", "counter", 0.5, 0.5, 0.5, 20)
    if cut.kind != "vegetable":
        yield RouteStep(
            "rest", "rest", "Rest uncovered", "", "fridge", 12.0, 24.0, 36.0,
        )  # fmt: skip
        yield RouteStep("hold", "hold", "Hold wrapped, cold", "", "fridge", 0.0, 0.0, hold_h)


def _cooked(cut: Cut, kilos: float) -> Iterator[RouteStep]:
    for stage in cut.stages:
        hours = stage.hours + stage.hours_per_kg * kilos
        last = stage is cut.stages[-1]
        inside = f" Done at {cut.inside.value:g} °C inside." if last and cut.inside else ""
        yield RouteStep(
            stage.id, "cook", stage.title, f"{stage.how}{inside}", stage.place,
            hours, hours, hours + 0.5, stage.hands_min,
        )  # fmt: skip


def _served(cut: Cut) -> Iterator[RouteStep]:
    if cut.stages:
        yield RouteStep(
            "stand", "stand", "Rest before carving", "Take it out, loosely covered",
            "counter", 0.5, 0.5, 0.75, 5,
        )  # fmt: skip
    title = "Carve" if cut.kind != "vegetable" else "Dish up"
    how = "Carve across the grain" if cut.kind != "vegetable" else "Onto the table"
    yield RouteStep("carve", "carve", title, how, "counter", 0.25, 0.25, 0.25, 15)
