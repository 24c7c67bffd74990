"""The weigh-out sheet as the page shows it."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

from pantry_core.measures.units import RECIPE_ML
from pantry_core.mixes.counting import limits_for
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Line, WeighOut
from pantry_core.notice import Notice
from pantry_core.routes.schools import NAMES as NAMES_OF_SCHOOLS
from pantry_core.rules.ingredients import INGREDIENTS
from pantry_core.rules.profiles import NitriteLimits
from pantry_core.rules.rule import Rule
from pantry_web.drawings.scales import Bars, Gauge, Length, bars, gauge
from pantry_web.feasts.mixing import House, Mix, Mixed, SpiceLine, scale_of
from pantry_web.feasts.naming import label_of
from pantry_web.quantities import hours_of

TABLESPOON_ML = RECIPE_ML["tbsp"]


@dataclass(frozen=True, slots=True)
class ShownLine:
    """A line of the sheet, with what is said beneath it, and the scale to take."""

    name: str
    label: str
    grams: float
    aside: str
    scale: str


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
    spices: tuple[SpiceLine, ...] = ()
    least_h: float | None = None
    left_h: float | None = None
    gives_up: str = ""
    how_counted: str = ""

    @property
    def short_h(self) -> float | None:
        """How much the time that is left falls short of the shortest way [h]."""
        if self.least_h is None or self.left_h is None or self.left_h >= self.least_h:
            return None
        return self.least_h - self.left_h


def live_sheet(mixed: Mixed, mix: Mix, house: House, now: datetime, serve_at: datetime) -> Sheet:
    """The sheet of a mix that is still open, with the time that is left."""
    left_h = max(hours_of(serve_at - now), 0.0)
    least_h = mixed.route.least_h
    return _sheet(
        mixed.request,
        mixed.sheet,
        house,
        notices=mixed.notices,
        inside=mixed.judged.inside,
        times=bars(tuple(_lengths(mixed, mix, left_h))),
        spices=mix.spices,
        least_h=least_h,
        left_h=left_h,
        gives_up=mix.way.gives_up,
    )


def _lengths(mixed: Mixed, mix: Mix, left_h: float) -> Iterator[Length]:
    """The schools side by side, the cook's own marked, and the time that is left."""
    ready, way = mixed.sheet.ready, mix.way
    is_schooled = way.timing == "school"
    for school, days in mixed.schools.days.items():
        if days is None or (school != "model" and way.timing != "school"):
            continue
        if school == "model" and mixed.judged.waits_too_long:
            continue
        chosen = school == mix.school if is_schooled else way.timing in ("model", "lift")
        band = (24 * ready.days_low, 24 * ready.days_high) if school == "model" and ready else None
        yield Length(NAMES_OF_SCHOOLS[school], 24.0 * days, "chosen" if chosen else "school", band)
    if way.timing == "lift" and ready is not None and ready.lift_h is not None:
        yield Length("In it, then out to rest", ready.lift_h, "chosen")
    if way.window_h is not None:
        yield Length(way.name, way.window_h[1], "chosen", way.window_h[::2])
    least_h = mixed.route.least_h
    yield Length("From shop to table, at least", least_h, "route")
    yield Length("Time you have", left_h, "left" if left_h >= least_h else "short")


def frozen_sheet(
    request: WeighRequest, result: WeighOut, house: House, spices: tuple[SpiceLine, ...]
) -> Sheet:
    """The sheet as it was when the meat went in."""
    return _sheet(request, result, house, notices=result.notices, inside=None, spices=spices)


def _sheet(
    request: WeighRequest,
    result: WeighOut,
    house: House,
    *,
    notices: tuple[Notice, ...],
    inside: Rule | None,
    spices: tuple[SpiceLine, ...],
    times: Bars | None = None,
    least_h: float | None = None,
    left_h: float | None = None,
    gives_up: str = "",
) -> Sheet:
    is_wet = request.is_brine or request.is_needle_alone
    limits = limits_for(request.profile, request.meat, is_brine=is_wet)
    drawn = None
    ppm = result.nitrite.governing_ppm
    if request.cure is not None and request.cure.name != "saltpetre" and ppm is not None:
        drawn = gauge(ppm, limits.enough.value, limits.most.value)
    counted = "reckoned on the meat"
    if request.is_needle_alone:
        counted = "all that the needle brings, on the meat"
    elif request.is_brine:
        counted = "reckoned as if all of it evens out"
    return Sheet(
        result=result,
        lines=tuple(shown_lines(request, result.lines, house)),
        limits=limits,
        nitrite=drawn,
        times=times,
        notices=notices,
        stops=tuple(each for each in notices if each.level == "stop"),
        inside=inside,
        spices=spices,
        least_h=least_h,
        left_h=left_h,
        gives_up=gives_up,
        how_counted=counted,
    )


def shown_lines(
    request: WeighRequest, lines: tuple[Line, ...], house: House
) -> Iterator[ShownLine]:
    """The lines with their names, a spoon for the eye, and the scale to take."""
    own = house.larder.own_salt()
    table = INGREDIENTS["salt-table"].g_per_ml
    sugar = INGREDIENTS["sugar"].g_per_ml
    for line in lines:
        aside = ""
        if line.name == "curing-salt":
            aside = "by the scale only, never by the spoon"
        elif line.name == "water":
            aside = "ice is part of it"
        elif line.name == "salt" and (own or table):
            name, each = own if own else ("table salt", table.value if table else 1.0)
            aside = f"about {line.grams / each / TABLESPOON_ML:.1f} tbsp of {name.lower()}"
        elif line.name == "sugar" and sugar:
            aside = f"about {line.grams / sugar.value / TABLESPOON_ML:.1f} tbsp of sugar"
        scale = scale_of(house, line.grams)
        yield ShownLine(
            line.name, label_of(line.name, request), line.grams, aside,
            scale.name if scale else "in parts: no scale holds it",
        )  # fmt: skip
