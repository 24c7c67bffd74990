"""What protects a raw piece, and how long it keeps by it: the limits of the raw clock."""

from dataclasses import dataclass

from pantry_core.meat import Meat
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Nitrite, Pickle
from pantry_core.rules.constants import LONG_CURE_SALT_PCT
from pantry_core.rules.raw_clock import (
    BIRD_OR_FISH,
    CURED_BIRD,
    CURED_GROUND,
    CURED_PPM,
    CURED_RED_MEAT,
    DRY_SALTED,
    GROUND,
    HISTAMINE_FISH,
    PARTLY_CURED_RED_MEAT,
    PARTLY_PPM,
    PARTLY_SALT_PCT,
    RED_MEAT,
    SURFACE_SALT_PCT,
    RawLimits,
)


@dataclass(frozen=True, slots=True)
class Protection:
    """How long a piece keeps raw: by cold alone, dry-salted, partly cured, and cured."""

    plain: RawLimits
    dry_salted: RawLimits
    partly: RawLimits
    cured: RawLimits


def protection_of(meat: Meat) -> Protection | None:
    """How long a piece keeps raw by what protects it.

    Parameters: meat.
    Returns: limits in days from purchase or the end of thawing; None for vegetables. No salt helps
    the fish that form histamine.
    Raises: nothing.
    Source: USDA cold storage and marinating advice; FDA fish guide, ch. 7 (from memory); stretched
    for salt and nitrite by common practice.
    """
    if meat.kind == "vegetable":
        return None
    if meat.species == "mackerel":
        return Protection(*[HISTAMINE_FISH] * 4)
    if meat.form == "ground":
        cured = GROUND if meat.kind == "fish" else CURED_GROUND
        return Protection(GROUND, GROUND, GROUND, cured)
    if meat.kind == "fish":
        return Protection(BIRD_OR_FISH, DRY_SALTED, BIRD_OR_FISH, BIRD_OR_FISH)
    if meat.kind == "poultry" or meat.species == "rabbit":
        return Protection(BIRD_OR_FISH, DRY_SALTED, BIRD_OR_FISH, CURED_BIRD)
    return Protection(RED_MEAT, RED_MEAT, PARTLY_CURED_RED_MEAT, CURED_RED_MEAT)


def cures_around(request: WeighRequest, nitrite: Nitrite, pickle: Pickle | None) -> bool:
    """Whether nitrite and salt around a piece are enough for it to keep long as it lies in them.

    Parameters: request; nitrite of its mix as it was counted; pickle, None without.
    Returns: whether the even count, after the scale has rounded it, is 100 ppm or more, and the
    salt 2 % or more by the convention of the method. A nitrite salt whose label is not read yet is
    taken as it will be sized.
    Raises: nothing. Source: common practice.
    """
    salt_pct = request.target_salt_pct
    if request.method == "strong-brine" and pickle is not None:
        salt_pct = pickle.salt_pct
    if salt_pct < LONG_CURE_SALT_PCT.value:
        return False
    cure = request.cure
    if nitrite.verdict == "unknown":
        return cure is not None and cure.name == "nitrite-salt"
    return round(around_ppm(nitrite), 1) >= CURED_PPM.value


def around_ppm(nitrite: Nitrite) -> float:
    """The count of what lies around a piece, or went in by needle or dry, when it is even [mg/kg].

    >>> around_ppm(Nitrite(150.0, 12.0, None, None, 200.0, "ok"))
    150.0
    """
    counts = (nitrite.even_ppm, nitrite.needle_ppm, nitrite.dry_ppm)
    return next((each for each in counts if each is not None), 0.0)


def limits_in(
    request: WeighRequest, nitrite: Nitrite, pickle: Pickle | None, taken_up_pct: float
) -> RawLimits | None:
    """The raw clock that runs for a piece as it lies in its mix.

    Parameters: request; nitrite as it was counted; pickle, None without; taken_up_pct, the salt
    that it has when it is lifted [% of the meat].
    Returns: limits in days; None for vegetables.
    Raises: nothing.
    Source: as of `protection_of`.
    """
    keeps = protection_of(request.meat)
    if keeps is None:
        return None
    salted = keeps.dry_salted if is_dry_salted(request) else keeps.plain
    if cures_around(request, nitrite, pickle):
        return better(keeps.cured, salted)
    taken_ppm = nitrite.taken_up_ppm or 0.0
    if taken_ppm >= PARTLY_PPM.value and taken_up_pct >= PARTLY_SALT_PCT.value:
        return better(keeps.partly, salted)
    return salted


def better(one: RawLimits, other: RawLimits) -> RawLimits:
    """The clock on which a piece keeps longer."""
    return max(one, other, key=lambda each: (each.stop.value, each.caution.value))


def is_dry_salted(request: WeighRequest) -> bool:
    """Whether it lies in salt without a liquid, and enough of it to protect it a day longer."""
    is_dry = request.method in ("dry-brine", "dry-cure")
    return is_dry and round(request.target_salt_pct, 6) >= SURFACE_SALT_PCT.value
