"""Nitrite and nitrate of a mix by every count that applies, and what the limits say."""

from pantry_core.meat import Meat
from pantry_core.mixes.nitrite import (
    Verdict,
    dry_ppm,
    even_ppm,
    judge,
    needle_ppm,
    nitrite_case,
    pickup_ppm,
)
from pantry_core.mixes.request import Cure
from pantry_core.mixes.result import Nitrate, Nitrite
from pantry_core.rules.profiles import PROFILES, NitriteLimits, ProfileName
from pantry_core.rules.rule import Mark, Rule

NITRATE_ION_IN_SODIUM_NITRATE = Rule(
    "nitrate-ion-in-sodium-nitrate", 62.005 / 84.995, "g/g", "molar masses", Mark.DERIVED
)
NITRATE_ION_IN_SALTPETRE = Rule(
    "nitrate-ion-in-saltpetre", 62.005 / 101.103, "g/g", "molar masses", Mark.DERIVED
)


def limits_for(profile: ProfileName, meat: Meat, *, is_brine: bool) -> NitriteLimits:
    """The limits of a profile that govern a piece."""
    return PROFILES[profile].nitrite[nitrite_case(meat, is_brine=is_brine)]


def count_nitrite(
    limits: NitriteLimits,
    *,
    nitrite_g: float,
    meat_g: float,
    pickle_g: float,
    is_brine: bool,
    needle: float | None = None,
    is_unknown: bool = False,
) -> Nitrite:
    """Count the nitrite of a mix and judge it.

    Parameters: limits; nitrite_g, meat_g and pickle_g [g]; is_brine, whether the piece lies in the
    pickle; needle, the share of the meat that goes in by needle, None without; is_unknown, whether
    there is a curing salt whose strength no label tells.
    Returns: the counts; over when any is over the limit, low by the count that governs: even for a
    brine, the needle's without a cover, else that of a dry cure.
    Raises: OutOfRange.
    Source: FSIS Directive 7620.3 (from memory).
    """
    most = limits.most.value
    if is_unknown:
        return Nitrite(None, None, None, None, most, "unknown")
    even = pickup = by_needle = dry = None
    if is_brine:
        even, pickup = even_ppm(nitrite_g, meat_g, pickle_g), pickup_ppm(nitrite_g, pickle_g)
    if needle is not None:
        by_needle = needle_ppm(nitrite_g, pickle_g, needle)
    if even is None and by_needle is None:
        dry = dry_ppm(nitrite_g, meat_g)
    counted = Nitrite(even, pickup, by_needle, dry, most, "ok")
    governing = next(each for each in (even, by_needle, dry) if each is not None)
    verdict = judge(counted.governing_ppm or 0.0, limits)
    if verdict != "over":
        verdict = judge(governing, limits)
    return Nitrite(even, pickup, by_needle, dry, most, verdict)


def count_nitrate(
    profile: ProfileName, cure: Cure | None, nitrate_g: float, mass_g: float, *, is_brine: bool
) -> Nitrate:
    """Count the nitrate of a mix and judge it, by the same count as the nitrite.

    Parameters: profile; cure; nitrate_g [g]; mass_g that it is spread over [g]; is_brine.
    Returns: nitrate as the salt that the curing salt has it in, and its limit [mg/kg]; a limit that
    is given as ion is turned into that salt.
    Source: 9 CFR 424.21(c); Regulation (EU) 2023/2108 (from memory).
    """
    rules, limit = PROFILES[profile], None
    if rules.nitrate_unheated_ion is not None:
        is_potassium = cure is not None and cure.name == "saltpetre"
        ion = NITRATE_ION_IN_SALTPETRE if is_potassium else NITRATE_ION_IN_SODIUM_NITRATE
        limit = rules.nitrate_unheated_ion.value / ion.value
    elif is_brine and rules.nitrate_brine is not None:
        limit = rules.nitrate_brine.value
    ppm = 1e6 * nitrate_g / mass_g
    verdict: Verdict = "none"
    if round(ppm, 1) > 0:
        verdict = "unknown" if limit is None else "over" if round(ppm, 1) > limit else "ok"
    return Nitrate(ppm, limit, verdict)
