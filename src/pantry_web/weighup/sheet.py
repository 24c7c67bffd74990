"""The weigh-out sheet as the page shows it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from django.utils.translation import gettext

from pantry_core.dish.work import Worked
from pantry_core.measures.units import RECIPE_ML
from pantry_core.mixes.counting import limits_for
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Line, WeighOut
from pantry_core.routes.schools import NAMES as NAMES_OF_SCHOOLS
from pantry_core.routes.ways import Way
from pantry_core.rules.cures import CURE_KEYS
from pantry_core.rules.ingredients import INGREDIENTS
from pantry_core.rules.profiles import NitriteLimits
from pantry_web.drawings.scales import Bars, Gauge, Length, bars, gauge
from pantry_web.feasts.documents import House
from pantry_web.feasts.line_labels import label_of
from pantry_web.quantities import PINCH_TBSP, spoons
from pantry_web.sentences import tell

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
    spices: Sequence[object] = ()
    least_h: float | None = None
    left_h: float | None = None
    how_counted: str = ""
    lift_h: float | None = None
    boned_g: float | None = None
    """What the salt is a share of, where the piece has bones that take none [g]."""

    @property
    def short_h(self) -> float | None:
        """How much the time that is left falls short of the shortest way [h]."""
        if self.least_h is None or self.left_h is None or self.left_h >= self.least_h:
            return None
        return self.least_h - self.left_h


def live_sheet(found: Worked, house: House, left_h: float | None) -> Sheet | None:
    """The sheet of a dish that is still open; None where nothing is weighed out.

    Parameters: found; house; left_h, the time that is left to the table, None without a date [h].
    """
    out, way = found.out, found.settled.way
    sheet = out.weighed_out
    if sheet is None or out.asked is None or way is None:
        return None
    left_h = None if left_h is None else max(left_h, 0.0)
    return _sheet(
        out.asked,
        sheet,
        house,
        times=bars(tuple(_lengths(found, way, left_h))),
        spices=found.asked.cure.spices,
        least_h=found.route.least_h,
        left_h=left_h,
    )


def _lengths(found: Worked, way: Way, left_h: float | None) -> Iterator[Length]:
    """How long it lies, what the schools say beside it, and the time that is left."""
    settled, sheet, cure = found.settled, found.out.sheet, found.asked.cure
    has_days = cure.lain_d is not None
    ready = sheet.ready if sheet else None
    if settled.purpose == "season" or has_days:
        yield Length(
            gettext("Time in it, as you asked") if has_days else gettext("Time in it"),
            settled.in_h,
            "chosen",
        )
    elif cure.school is None and way.timing == "school":
        yield Length(gettext("Proposed"), settled.in_h, "chosen")
    for school, days in settled.schools.days.items():
        if settled.purpose == "season" or days is None:
            continue
        if school != "model" and way.timing != "school":
            continue
        if school == "model" and settled.judged.waits_too_long:
            continue
        chosen = cure.school or (None if way.timing == "school" else "model")
        is_chosen = not has_days and chosen == school
        band = (24 * ready.days_low, 24 * ready.days_high) if school == "model" and ready else None
        yield Length(
            NAMES_OF_SCHOOLS[school], 24.0 * days, "chosen" if is_chosen else "school", band
        )
    if not has_days and way.timing == "lift" and ready is not None and ready.lift_h is not None:
        yield Length(gettext("In it, then out to rest"), ready.lift_h, "chosen")
    least_h = found.route.least_h
    yield Length(gettext("From shop to table, at least"), least_h, "route")
    if left_h is not None:
        yield Length(gettext("Time left"), left_h, "left" if left_h >= least_h else "short")


def frozen_sheet(
    request: WeighRequest, result: WeighOut, house: House, spices: Sequence[object]
) -> Sheet:
    """The sheet as it was when the meat went in."""
    return _sheet(request, result, house, spices=spices)


def _sheet(
    request: WeighRequest,
    result: WeighOut,
    house: House,
    *,
    spices: Sequence[object],
    times: Bars | None = None,
    least_h: float | None = None,
    left_h: float | None = None,
) -> Sheet:
    is_wet = request.is_brine or request.is_needle_alone
    limits = limits_for(request.profile, request.meat, is_brine=is_wet)
    drawn = None
    ppm = result.nitrite.governing_ppm
    is_by_aim = request.cure is not None and request.cure.name != "saltpetre"
    if ppm is not None and (is_by_aim or (request.cure is None and ppm > 0.0)):
        drawn = gauge(ppm, limits.enough.value, limits.most.value)
    counted = gettext("reckoned on the meat")
    if request.is_needle_alone:
        counted = gettext("all that the needle brings, on the meat")
    elif request.is_brine:
        counted = gettext("reckoned as if all of it evens out")
    return Sheet(
        result=result,
        lines=tuple(shown_lines(request, result.lines, house)),
        limits=limits,
        nitrite=drawn,
        times=times,
        spices=spices,
        least_h=least_h,
        left_h=left_h,
        how_counted=counted,
        lift_h=_lift_h(request, result),
        boned_g=request.meat.salted_g if request.meat.bone_share > 0 else None,
    )


def _lift_h(request: WeighRequest, result: WeighOut) -> float | None:
    """When it is lifted to rest: by the cook's days where they are given, else by the model [h]."""
    if request.is_lifted and request.days is not None:
        return 24.0 * request.days
    return result.ready.lift_h if result.ready else None


def _by_spoon(tablespoons: float, name: str) -> str:
    """About how much that is for the eye."""
    if tablespoons < PINCH_TBSP:
        return tell("about a pinch of {name}", name=name)
    return tell("about {spoons} tbsp of {name}", spoons=spoons(tablespoons), name=name)


def shown_lines(
    request: WeighRequest, lines: tuple[Line, ...], house: House
) -> Iterator[ShownLine]:
    """The lines with their names, a spoon for the eye, and the scale to take."""
    own = house.larder.own_salt()
    table = INGREDIENTS["salt-table"].g_per_ml
    sugar = INGREDIENTS["sugar"].g_per_ml
    for line in lines:
        aside = ""
        if line.name == "curing-salt" or line.name in CURE_KEYS.values():
            aside = gettext("by the scale only, never by the spoon")
        elif line.name == "water":
            aside = gettext("ice is part of it")
        elif line.name == "salt" and (own or table):
            name, each = own if own else (gettext("table salt"), table.value if table else 1.0)
            aside = _by_spoon(line.grams / each / TABLESPOON_ML, name.lower())
        elif line.name == "sugar" and sugar:
            aside = _by_spoon(line.grams / sugar.value / TABLESPOON_ML, gettext("sugar"))
        scale = house.scale_for(line.grams)
        yield ShownLine(
            line.name, label_of(line.name, request), line.grams, aside,
            scale.name if scale else gettext("in parts: no scale holds it"),
        )  # fmt: skip
