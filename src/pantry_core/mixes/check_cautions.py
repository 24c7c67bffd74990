"""What must be said of a recipe as it was found, in plain words."""

from collections.abc import Iterator, Sequence

from pantry_core.mixes import curing_cautions
from pantry_core.mixes.cautions import eaten_raw, geometry, in_order, is_undissolved, sauces
from pantry_core.mixes.mix import Mix
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Nitrate, Nitrite, Ready, Salt
from pantry_core.notice import Notice, notice
from pantry_core.rules.constants import FRIDGE_GOAL_C, NOT_INTACT_C, SALTY_CAUTION_PCT, SATURATION
from pantry_core.rules.cures import LETHAL_SPOON
from pantry_core.rules.profiles import NitriteLimits
from pantry_core.rules.rule import Mark, Rule, Source

MILD_PCT = Rule("mild-salt", 1.0, "% salt", "below it hardly seasoned", Mark.PRACTICE)
_PRACTICE = Source("", Mark.PRACTICE)
_SPOONS = Source("what a cup of each salt weighs", Mark.PRACTICE)
_MODEL = Source("Fick's second law; Crank, The Mathematics of Diffusion", Mark.MEMORY)


def check_cautions(
    request: CheckRequest,
    weighed: WeighRequest,
    mix: Mix,
    *,
    salt: Salt,
    nitrite: Nitrite,
    nitrate: Nitrate,
    limits: NitriteLimits,
    ready: Ready | None,
    after_pct: float | None,
    by_salt: Sequence[tuple[str, float]],
) -> tuple[Notice, ...]:
    """All notices on a recipe, stops first, then cautions, then notes.

    Parameters: request, and the recipe as if asked for, with the mix of the share used; salt,
    nitrite, nitrate and ready as worked out; limits on the nitrite; after_pct, mean salt after the
    days of the recipe [%]; by_salt, strengths by other salts [%].
    Returns: notices; each names its basis.
    Raises: nothing.
    """
    return in_order(
        [
            *_salt(request, weighed, mix, salt),
            *_by_volume(request, by_salt),
            *_cures(request, nitrite, nitrate, limits),
            *_needle(request, weighed, mix),
            *_time(request, ready, after_pct),
            *eaten_raw(request.meat),
            *geometry(request.meat),
            *sauces([line.name for line in request.lines]),
            notice(
                "note",
                "authority",
                "The rules of your local food authority come before this page.",
                Source("no limit here replaces it", Mark.PRACTICE),
            ),
        ]
    )


def _salt(request: CheckRequest, weighed: WeighRequest, mix: Mix, salt: Salt) -> Iterator[Notice]:
    if mix.salt == 0:
        text = "There is no salt in it. A marinade can do without; a brine or a cure cannot."
        yield notice("caution", "no-salt", text, _PRACTICE)
        return
    if is_undissolved(weighed, mix):
        text = "This much salt will not dissolve in this much water. Take more water or less salt."
        yield notice("stop", "undissolved", text, SATURATION)
    pct = salt.in_meat_pct
    if weighed.is_lifted:
        text = (
            f"Left for ever the meat would come to {pct:.1f} % salt: it must come out on time, be "
            "rinsed, and rest."
        )
        yield notice("caution", "lift-on-time", text, _PRACTICE)
    elif pct > SALTY_CAUTION_PCT.value:
        text = f"The meat comes to {pct:.1f} % salt: saltier than old-fashioned ham."
        yield notice("caution", "very-salty", text, SALTY_CAUTION_PCT)
    elif pct < MILD_PCT.value:
        text = f"The meat comes to {pct:.1f} % salt: hardly seasoned."
        yield notice("note", "mild", text, MILD_PCT)
    if any(line.name == "salt-rock-pink" for line in request.lines):
        text = "Pink rock salt is salt and nothing else: it cures nothing and turns nothing pink."
        yield notice("caution", "pink-rock-salt", text, _PRACTICE)
    if request.is_dry and request.used_share < 1:
        text = "A dry cure has no liquid of which a share could be used; all of it is counted."
        yield notice("note", "unused", text, _PRACTICE)


def _by_volume(request: CheckRequest, by_salt: Sequence[tuple[str, float]]) -> Iterator[Notice]:
    if by_salt:
        told = ", ".join(f"with {name.lower()} {pct:.1f} %" for name, pct in by_salt)
        text = f"Salt by the spoon depends on the salt: {told}. Weigh it."
        yield notice("caution", "salt-by-volume", text, _SPOONS)
    if any(line.name == "ice" and line.is_by_volume for line in request.lines):
        text = "Ice by the jug is half air, more or less. Weigh it: it is part of the water."
        yield notice("caution", "ice-by-volume", text, _PRACTICE)
    if any(line.ingredient.role == "cure" and line.is_by_volume for line in request.lines):
        text = (
            "Curing salt by the spoon: heaped or level, packed or loose, is half as much again. "
            "It goes by the scale only."
        )
        yield notice("caution", "cure-by-spoon", text, LETHAL_SPOON)


def _cures(
    request: CheckRequest, nitrite: Nitrite, nitrate: Nitrate, limits: NitriteLimits
) -> Iterator[Notice]:
    cures = request.cures()
    if not cures:
        yield curing_cautions.uncured()
        return
    told: set[str] = set()
    for cure, _ in cures:
        for each in curing_cautions.kind_of_cure(cure, request.meat, is_heaped=request.heaped):
            if each.code not in told:
                told.add(each.code)
                yield each
    if any(cure.name != "saltpetre" for cure, _ in cures):
        yield from curing_cautions.counts(nitrite, limits)
    yield from curing_cautions.nitrate_count(nitrate)
    if nitrite.even_ppm and nitrite.pickup_ppm is not None:
        beyond = nitrite.even_ppm / nitrite.limit_ppm - 1.0
        how = f"{100 * beyond:.0f} % over the limit" if beyond > 0.0005 else "within the limit"
        yield notice(
            "note",
            "two-counts",
            f"Two ways to count it: {nitrite.even_ppm:.0f} ppm if all evens out, {how}, which is "
            "what a small piece comes to that stays long; "
            f"{nitrite.pickup_ppm:.0f} ppm if it takes up a tenth of its weight and no more.",
            Source("FSIS Directive 7620.3", Mark.MEMORY),
        )


def _needle(request: CheckRequest, weighed: WeighRequest, mix: Mix) -> Iterator[Notice]:
    if request.method != "injection":
        yield notice(
            "caution",
            "brine-cold",
            f"All of it at {FRIDGE_GOAL_C.value:g} °C or below before the meat goes in.",
            FRIDGE_GOAL_C,
        )
        return
    text = f"A needle's meat is not intact any more: {NOT_INTACT_C.value:g} °C inside, never rare."
    yield notice("caution", "not-intact", text, NOT_INTACT_C)
    needle_g = weighed.injection_share * weighed.meat.salted_g
    if needle_g > mix.pickle:
        text = (
            f"The needle would take {needle_g:.0f} g; the recipe makes {mix.pickle:.0f} g. "
            "Make more, or inject less."
        )
        yield notice("stop", "needle-short", text, Source("mass balance", Mark.DERIVED))


def _time(request: CheckRequest, ready: Ready | None, after_pct: float | None) -> Iterator[Notice]:
    if request.days is None or ready is None:
        return
    if ready.lift_h is not None:
        if after_pct is not None:
            text = (
                f"After {request.days:g} days in it the meat has about {after_pct:.1f} % salt. "
                f"Ordinary saltiness is there after {ready.lift_h / 24:.1f} days."
            )
            yield notice("note", "after-days", text, _MODEL)
    elif request.days < ready.days:
        text = (
            f"{request.days:g} days are short for this piece: the heart is ready after "
            f"{ready.days:.1f} days by the model."
        )
        yield notice("caution", "too-short", text, _MODEL)
