"""Nitrite and nitrate of a mix by every count that applies, and what the limits say."""

from dataclasses import dataclass

from pantry_core.meat import Meat
from pantry_core.mixes.nitrite import (
    Counts,
    Verdict,
    dry_ppm,
    even_ppm,
    judge,
    needle_ppm,
    nitrite_case,
    pickup_ppm,
)
from pantry_core.mixes.result import Nitrate, Nitrite
from pantry_core.rules.profiles import PROFILES, NitriteLimits, ProfileName
from pantry_core.rules.rule import Rule


@dataclass(frozen=True, slots=True)
class Spread:
    """What a nitrite is spread over: meat and all of the liquid [g], and how it gets in.

    `is_brine`: the piece lies in the pickle; `needle`: the share of the meat that goes in by
    needle, None without [g/g]; `is_ground`: all counts over the meat alone.
    """

    meat_g: float
    pickle_g: float
    is_brine: bool
    needle: float | None = None
    is_ground: bool = False


def limits_for(profile: ProfileName, meat: Meat, *, is_brine: bool) -> NitriteLimits:
    """The limits of a profile that govern a piece."""
    return PROFILES[profile].nitrite[nitrite_case(meat, is_brine=is_brine)]


def nitrate_limit(profile: ProfileName, meat: Meat, *, is_brine: bool) -> Rule:
    """The most nitrate that a profile allows a piece: none in bacon, none in heated goods (EU)."""
    limits = PROFILES[profile].nitrate
    if meat.will_be == "bacon":
        return limits["bacon"]
    if meat.form == "ground":
        return limits["ground"]
    return limits["brine" if is_brine else "dry"]


def counted(active_g: float, spread: Spread) -> Counts:
    """Count so much nitrite or nitrate by every way that applies.

    Parameters: active_g [g]; spread, what it is spread over.
    Returns: the counts; of ground meat all of it over the meat, whatever liquid goes in.
    Raises: OutOfRange.
    Source: FSIS Directive 7620.3 (from memory).

    >>> round(counted(0.15, Spread(1000.0, 1200.0, is_brine=True, is_ground=True)).dry)
    150
    """
    if spread.is_ground or not (spread.is_brine or spread.needle is not None):
        return Counts(dry=dry_ppm(active_g, spread.meat_g))
    even = pickup = by_needle = None
    if spread.is_brine:
        even = even_ppm(active_g, spread.meat_g, spread.pickle_g)
        pickup = pickup_ppm(active_g, spread.pickle_g)
    if spread.needle is not None:
        by_needle = needle_ppm(active_g, spread.pickle_g, spread.needle)
    return Counts(even, pickup, by_needle)


def count_nitrite(
    limits: NitriteLimits,
    nitrite_g: float,
    spread: Spread,
    *,
    is_unknown: bool = False,
    taken_up: float = 1.0,
) -> Nitrite:
    """Count the nitrite of a mix and judge it.

    Parameters: limits; nitrite_g, all that is known of [g]; spread; is_unknown, whether there is a
    curing salt whose strength no label tells; taken_up, what of the even value a timed brine has
    brought in when the piece is lifted [g/g].
    Returns: the counts; over when any known count is over the limit, which what is not known only
    adds to; then unknown; low by the count that governs, of a timed brine by what is taken up.
    Where nothing is known there are no counts.
    Raises: OutOfRange.
    Source: FSIS Directive 7620.3 (from memory).
    """
    counts = counted(nitrite_g, spread)
    verdict = judge(counts.governing, limits)
    if verdict != "over" and is_unknown:
        verdict = "unknown"
    elif verdict not in ("over", "none"):
        verdict = judge(counts.least * taken_up, limits)
        verdict = "low" if verdict == "none" else verdict
    shown = Counts() if is_unknown and nitrite_g == 0 else counts
    return Nitrite(
        shown.even, shown.pickup, shown.needle, shown.dry, limits.most.value, verdict,
        None if is_unknown and nitrite_g == 0 else counts.least * taken_up,
    )  # fmt: skip


def count_nitrate(limit: Rule, nitrate_g: float, spread: Spread) -> Nitrate:
    """Count the nitrate of a mix and judge it, by the same counts as the nitrite.

    Parameters: limit, the most of it [mg/kg], 0 where none may be in; nitrate_g [g]; spread.
    Returns: nitrate as the salt that the curing salt has it in, and its limit [mg/kg].
    Raises: OutOfRange.
    Source: 9 CFR 424.21(c), 424.22(b); Regulation (EU) 2023/2108 (from memory).
    """
    ppm = counted(nitrate_g, spread).governing
    verdict: Verdict = "none"
    if round(ppm, 1) > 0:
        verdict = "over" if round(ppm, 1) > limit.value else "ok"
    return Nitrate(ppm, limit.value, verdict)
