"""How long the piece is raw, on the clock of what protects it."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from pantry_core.conduction.shells import Vector
from pantry_core.history.stays import Soaked, Stay
from pantry_core.judging.case import Case
from pantry_core.meat import Meat
from pantry_core.mixes.keeping import judge_raw
from pantry_core.mixes.protection import better
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Days, Millimetres
from pantry_core.rules.raw_clock import (
    HISTAMINE_FROM_C,
    OUT_AS_LONG_H,
    PARTLY_PPM,
    PARTLY_SALT_PCT,
    SURFACE_SALT_PCT,
    TAINT_D,
    TAINT_MM,
    WHOLLY_PPM,
    WHOLLY_SALT_PCT,
    WHOLLY_SHARE,
    RawLimits,
)
from pantry_core.text import say

COUNTS_DOUBLE = 2.0
"""An hour of a fish that forms histamine, above 4.4 °C."""


@dataclass(frozen=True, slots=True)
class RawHours:
    """Hours raw on one clock: all those that are protected no better than by it [h]."""

    limits: RawLimits
    hours: float


def raw_stays(case: Case) -> Iterator[Stay]:
    """The stays in which the raw clock runs: from purchase, from opening what was sealed."""
    is_open = not case.is_sealed
    for each in case.history.before_the_heat():
        is_open = is_open or bool(each.lies_in) or each.place not in ("fridge", "freezer")
        if is_open and each.state != "frozen":
            yield each


def raw_hours(case: Case) -> tuple[RawHours, ...]:
    """How long the piece is raw, by clock, the shortest first.

    Parameters: case.
    Returns: for each clock that runs the hours that count on it: its own and those of what is
    protected less; none for vegetables.
    Raises: nothing.
    Source: USDA cold storage and marinating advice; FDA fish guide, ch. 7 (from memory); stretched
    for salt and nitrite by common practice.
    """
    keeps = case.keeps
    if keeps is None:
        return ()
    by_limits: dict[int, RawHours] = {}
    lay_h = out_h = 0.0
    for stay in raw_stays(case):
        for limits, hours in _counted(stay, case, min(lay_h, OUT_AS_LONG_H.value) - out_h):
            if hours <= 0:
                continue
            so_far = by_limits.get(id(limits), RawHours(limits, 0.0))
            by_limits[id(limits)] = RawHours(limits, so_far.hours + hours)
        if stay.lies_in and case.is_cured_around:
            lay_h, out_h = lay_h + stay.hours, 0.0
        elif lay_h:
            out_h += stay.hours
    clocks = sorted(by_limits.values(), key=lambda each: _order(each.limits))
    return tuple(
        RawHours(each.limits, sum(one.hours for one in clocks[: i + 1]))
        for i, each in enumerate(clocks)
    )


def _order(limits: RawLimits) -> tuple[float, float]:
    return limits.stop.value, limits.caution.value


def _counted(stay: Stay, case: Case, left_h: float) -> Iterator[tuple[RawLimits, float]]:
    """The hours of a stay with the clock on which they count; left_h: still as if in its cure."""
    keeps = case.keeps
    assert keeps is not None  # noqa: S101 - asked of what has a raw clock alone
    times = 1.0
    if case.meat.species == "mackerel" and stay.around_c > HISTAMINE_FROM_C.value:
        times = COUNTS_DOUBLE
    if stay.lies_in:
        yield from _in_the_cure(stay, case, times)
        return
    inside = _at(case.history.soaked, stay.from_h)
    salted = case.is_dry_salted and inside[0] >= SURFACE_SALT_PCT.value
    plain = keeps.dry_salted if salted else keeps.plain
    if _is_wholly(inside, case.history.soaked):
        yield better(keeps.cured, plain), times * stay.hours
        return
    if _is_partly(inside):
        yield better(keeps.partly, plain), times * stay.hours
    else:
        as_cured_h = min(max(left_h, 0.0), stay.hours)
        yield better(keeps.cured, plain), times * as_cured_h
        yield plain, times * (stay.hours - as_cured_h)


def _in_the_cure(stay: Stay, case: Case, times: float) -> Iterator[tuple[RawLimits, float]]:
    keeps = case.keeps
    assert keeps is not None  # noqa: S101 - asked of what has a raw clock alone
    plain = keeps.dry_salted if case.is_dry_salted else keeps.plain
    if case.is_cured_around:
        yield better(keeps.cured, plain), times * stay.hours
        return
    before_h = _until_partly(case.history.soaked, stay)
    yield plain, times * before_h
    yield better(keeps.partly, plain), times * (stay.hours - before_h)


def _at(soak: Soaked | None, hour: float) -> tuple[float, float]:
    """Salt [%] and nitrite [mg/kg] on average at an hour [h]."""
    if soak is None or hour < float(soak.hours[0]):
        return 0.0, 0.0
    return (
        float(np.interp(hour, soak.hours, soak.salt_pct)),
        float(np.interp(hour, soak.hours, soak.nitrite_ppm)),
    )


def _is_wholly(inside: tuple[float, float], soak: Soaked | None) -> bool:
    salt_pct, ppm = inside
    if soak is None or ppm < WHOLLY_PPM.value:
        return False
    return salt_pct >= min(WHOLLY_SALT_PCT.value, WHOLLY_SHARE.value * soak.even_pct)


def _is_partly(inside: tuple[float, float]) -> bool:
    salt_pct, ppm = inside
    return salt_pct >= PARTLY_SALT_PCT.value and ppm >= PARTLY_PPM.value


def _until_partly(soak: Soaked | None, stay: Stay) -> float:
    """How long it lies until salt and nitrite protect it a little, all of it if never [h]."""
    if soak is None:
        return stay.hours
    is_there = (soak.salt_pct >= PARTLY_SALT_PCT.value) & (soak.nitrite_ppm >= PARTLY_PPM.value)
    there = np.flatnonzero(is_there & (soak.hours <= stay.to_h))
    if not len(there):
        return stay.hours
    first = int(there[0])
    if first == 0:
        return 0.0
    late = max(
        _crossing(soak.hours, soak.salt_pct, first, PARTLY_SALT_PCT.value),
        _crossing(soak.hours, soak.nitrite_ppm, first, PARTLY_PPM.value),
    )
    return min(max(late - stay.from_h, 0.0), stay.hours)


def _crossing(hours: Vector, values: Vector, first: int, limit: float) -> float:
    """When values pass a limit between two samples, straight [h]."""
    before, after = float(values[first - 1]), float(values[first])
    if before >= limit or after <= before:
        return float(hours[first - 1])
    part = (limit - before) / (after - before)
    return float(hours[first - 1] + part * (hours[first] - hours[first - 1]))


def kept_raw(case: Case) -> Iterator[Notice]:
    """The raw clock, over all its hours: the worst that any clock says, once."""
    passed = [judged for each in raw_hours(case) if (judged := judge_raw(each.limits, each.hours))]
    stops = [each for each in passed if each.level == "stop"]
    yield from (stops or passed)[:1]


def has_deep_bone(meat: Meat) -> bool:
    """Whether red meat has a bone so deep that salt comes to it late."""
    is_red = meat.kind in ("pork", "beef", "lamb", "game")
    return is_red and meat.bone_share > 0 and meat.thickness_mm / 2.0 > TAINT_MM.value


def bone_taint(case: Case) -> Iterator[Notice]:
    """Meat that lies long around a deep bone, where no needle has brought salt to it."""
    is_needled = "injected" in case.request.treatments
    if not (has_deep_bone(case.meat) and case.has_mix) or is_needled:
        return
    days = sum(each.hours for each in raw_stays(case)) / 24.0
    if days > TAINT_D.value:
        text = say(
            "Raw for {days} with the bone {depth} deep: meat can spoil at the bone before the salt "
            "is there. Inject along the bone, or take it out.",
            days=Days(days, 0),
            depth=Millimetres(case.meat.thickness_mm / 2.0, 0),
        )
        yield notice("caution", "bone-taint", text, TAINT_D)
