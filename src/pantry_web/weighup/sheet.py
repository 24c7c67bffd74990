"""The weigh-out sheet as the page shows it."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

from pantry_core.mixes.nitrite import nitrite_case
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Line, WeighOut
from pantry_core.notice import Notice
from pantry_core.routes.schools import NAMES as NAMES_OF_SCHOOLS
from pantry_core.routes.steps import DRY_BRINE_H
from pantry_core.rules.constants import GRANULATED_SUGAR_TABLESPOON, TABLE_SALT_TABLESPOON
from pantry_core.rules.profiles import PROFILES, NitriteLimits
from pantry_core.rules.rule import Rule
from pantry_web.drawings.scales import Bars, Gauge, Length, bars, gauge
from pantry_web.feasts.mixing import Mix, Mixed
from pantry_web.quantities import hours_of

NAMES = {
    "water": "Water",
    "salt": "Salt",
    "curing-salt": "Curing salt no. 1",
    "sugar": "Sugar or treacle",
}
SPOONS: dict[str, tuple[Rule, str]] = {
    "salt": (TABLE_SALT_TABLESPOON, "table salt"),
    "sugar": (GRANULATED_SUGAR_TABLESPOON, "granulated sugar"),
}


@dataclass(frozen=True, slots=True)
class ShownLine:
    """A line of the sheet, with what is said beneath it."""

    name: str
    label: str
    grams: float
    aside: str


@dataclass(frozen=True, slots=True)
class Sheet:
    """All that the answer panel shows."""

    result: WeighOut
    lines: tuple[ShownLine, ...]
    limits: NitriteLimits
    nitrite: Gauge | None
    times: Bars | None
    notices: tuple[Notice, ...]
    stops: tuple[Notice, ...]
    inside: Rule | None
    least_h: float | None = None
    left_h: float | None = None

    @property
    def short_h(self) -> float | None:
        """How much the time that is left falls short of the shortest way [h]."""
        if self.least_h is None or self.left_h is None or self.left_h >= self.least_h:
            return None
        return self.least_h - self.left_h


def live_sheet(mixed: Mixed, mix: Mix, now: datetime, serve_at: datetime) -> Sheet:
    """The sheet of a mix that is still open, with the time that is left."""
    left_h = max(hours_of(serve_at - now), 0.0)
    least_h = mixed.route.least_h
    return _sheet(
        mixed.request,
        mixed.sheet,
        notices=mixed.notices,
        inside=mixed.cut.inside,
        times=bars(tuple(_lengths(mixed, mix, left_h))),
        least_h=least_h,
        left_h=left_h,
    )


def _lengths(mixed: Mixed, mix: Mix, left_h: float) -> Iterator[Length]:
    """The schools side by side, the cook's own marked, and the time that is left."""
    ready = mixed.sheet.ready
    for school, days in mixed.schools.days.items():
        if days is None:
            continue
        kind = "chosen" if school == mix.school and mix.method != "dry-brine" else "school"
        band = (24 * ready.days_low, 24 * ready.days_high) if school == "model" and ready else None
        yield Length(NAMES_OF_SCHOOLS[school], 24.0 * days, kind, band)
    if mix.method == "dry-brine":
        yield Length("Dry brine, 12 to 72 h", DRY_BRINE_H[1], "chosen", DRY_BRINE_H[::2])
    least_h = mixed.route.least_h
    yield Length("From shop to table, at least", least_h, "route")
    yield Length("Time you have", left_h, "left" if left_h >= least_h else "short")


def frozen_sheet(request: WeighRequest, result: WeighOut) -> Sheet:
    """The sheet as it was when the meat went in."""
    return _sheet(request, result, notices=result.notices, inside=None)


def _sheet(
    request: WeighRequest,
    result: WeighOut,
    *,
    notices: tuple[Notice, ...],
    inside: Rule | None,
    times: Bars | None = None,
    least_h: float | None = None,
    left_h: float | None = None,
) -> Sheet:
    case = nitrite_case(request.meat, is_brine=request.is_brine)
    limits = PROFILES[request.profile].nitrite[case]
    drawn = None
    if request.cure is not None:
        drawn = gauge(result.nitrite.governing_ppm, limits.enough.value, limits.most.value)
    return Sheet(
        result=result,
        lines=tuple(_shown(result.lines)),
        limits=limits,
        nitrite=drawn,
        times=times,
        notices=notices,
        stops=tuple(each for each in notices if each.level == "stop"),
        inside=inside,
        least_h=least_h,
        left_h=left_h,
    )


def _shown(lines: tuple[Line, ...]) -> Iterator[ShownLine]:
    for line in lines:
        aside = ""
        if line.name == "curing-salt":
            aside = "by the scale only, never by the spoon"
        elif line.name == "water":
            aside = "ice is part of it"
        elif line.name in SPOONS:
            spoon, kind = SPOONS[line.name]
            aside = f"about {line.grams / spoon.value:.1f} tbsp of {kind}"
        yield ShownLine(line.name, NAMES[line.name], line.grams, aside)
