"""What must be said of a recipe as it was found, in plain words."""

from collections.abc import Iterator, Sequence
from difflib import get_close_matches

from pantry_core.foods.ingredient import is_ingredient
from pantry_core.measures.said import days_said, span
from pantry_core.mixes.cautions import in_order, of_any_mix, undissolved
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.mixes.uptake import after_days
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Days, Percent, Ppm
from pantry_core.rules.constants import SALTY_CAUTION_PCT
from pantry_core.rules.ingredients import INGREDIENTS
from pantry_core.rules.rule import Mark, Rule, Source
from pantry_core.text import joined, say

MILD_PCT = Rule("mild-salt", 1.0, "% salt", "below it hardly seasoned", Mark.PRACTICE)
_PRACTICE = Source("", Mark.PRACTICE)
_SALTY_NAMES = [key for key, each in INGREDIENTS.items() if each.role in ("salt", "cure")]
_SPOONS = Source("what a cup of each salt weighs", Mark.PRACTICE)
_LEVEL = Source("a level spoon, packed or loose", Mark.PRACTICE)
_MODEL = Source("Fick's second law; Crank, The Mathematics of Diffusion", Mark.MEMORY)


def check_cautions(
    request: CheckRequest, judged: Judged, *, by_salt: Sequence[tuple[str, float]]
) -> tuple[Notice, ...]:
    """All notices on a recipe, stops first, then cautions, then notes.

    Parameters: request; judged, what it comes to; by_salt, strengths by other salts [%].
    Returns: notices; each names its basis.
    Raises: nothing.
    """
    return in_order(
        [
            *_salt(request, judged),
            *_by_volume(request, by_salt),
            *_not_known(request),
            *of_any_mix(judged, _masses(request)),
            *_two_counts(judged),
            *_time(judged),
        ]
    )


def _masses(request: CheckRequest) -> dict[str, float | None]:
    """All lines of one name together; None where nobody knows what one of them weighs [g]."""
    masses: dict[str, float | None] = {}
    for line in request.lines:
        before = masses.get(line.name, 0.0)
        masses[line.name] = None if before is None or line.grams is None else before + line.grams
    return masses


def _salt(request: CheckRequest, judged: Judged) -> Iterator[Notice]:
    mix = judged.mix
    if mix.salt == 0:
        text = "There is no salt in it. A marinade can do without; a brine or a cure cannot."
        yield notice("caution", "no-salt", text, _PRACTICE)
        return
    yield from undissolved(judged.request, mix, is_cured=bool(judged.cures))
    end = after_days(judged.request, mix)
    pct = judged.salt.in_meat_pct if end is None else end.mean_pct
    if judged.request.is_lifted:
        pct = judged.salt.in_meat_pct
        text = say("Left for ever the meat would come to {pct} salt.", pct=Percent(pct, 1))
        yield notice("note", "left-for-ever", text, _PRACTICE)
    elif pct > SALTY_CAUTION_PCT.value:
        text = say(
            "The meat comes to {pct} salt: saltier than old-fashioned ham.", pct=Percent(pct, 1)
        )
        yield notice("caution", "very-salty", text, SALTY_CAUTION_PCT)
    elif pct < MILD_PCT.value:
        text = say("The meat comes to {pct} salt: hardly seasoned.", pct=Percent(pct, 1))
        yield notice("note", "mild", text, MILD_PCT)
    if any(line.name == "salt-rock-pink" for line in request.lines):
        text = "Pink rock salt is salt and nothing else: it cures nothing and turns nothing pink."
        yield notice("caution", "pink-rock-salt", text, _PRACTICE)
    if request.is_dry and request.used_share < 1:
        text = "A dry cure has no liquid of which a share could be used; all of it is counted."
        yield notice("note", "unused", text, _PRACTICE)


def _by_volume(request: CheckRequest, by_salt: Sequence[tuple[str, float]]) -> Iterator[Notice]:
    if by_salt:
        told = joined(
            ", ",
            (
                say("with {name:lower} {pct}", name=name, pct=Percent(pct, 1))
                for name, pct in by_salt
            ),
        )
        text = say("Salt by the spoon depends on the salt: {told}. Weigh it.", told=told)
        yield notice("caution", "salt-by-volume", text, _SPOONS)
    if any(line.name == "ice" and line.is_by_volume for line in request.lines):
        ice = "Ice by the jug is half air, more or less. Weigh it: it is part of the water."
        yield notice("caution", "ice-by-volume", ice, _PRACTICE)
    if any(line.ingredient.role == "cure" and line.is_by_volume for line in request.lines):
        cure = (
            "Curing salt by the spoon: heaped or level, packed or loose, is half as much again. "
            "It goes by the scale only."
        )
        yield notice("caution", "cure-by-spoon", cure, _LEVEL)


def _not_known(request: CheckRequest) -> Iterator[Notice]:
    """What no table knows counts without salt; what looks like salt is asked about."""
    for name in dict.fromkeys(each.name for each in request.lines if each.salt_pct is None):
        if is_ingredient(name):
            continue
        close = get_close_matches(name.lower(), _SALTY_NAMES, 1, 0.75)
        if close or any(word in name.lower() for word in ("salt", "cure", "nitrit")):
            text = say(
                "“{name}” is not known and counts without salt. Say what it is, or how salty.",
                name=name,
            )
            yield notice("caution", "not-known", text, _PRACTICE)


def _two_counts(judged: Judged) -> Iterator[Notice]:
    nitrite = judged.nitrite
    if nitrite.even_ppm and nitrite.pickup_ppm is not None:
        beyond = nitrite.even_ppm / nitrite.limit_ppm - 1.0
        how = (
            say("{beyond} over the limit", beyond=Percent(100 * beyond, 0))
            if beyond > 0.0005
            else "within the limit"
        )
        yield notice(
            "note",
            "two-counts",
            say(
                "Two ways to count it: {even_ppm} if all evens out, {how}, which is what a "
                "small piece comes to that stays long; {pickup_ppm} if it takes up a tenth of "
                "its weight and no more.",
                even_ppm=Ppm(nitrite.even_ppm, 0),
                how=how,
                pickup_ppm=Ppm(nitrite.pickup_ppm, 0),
            ),
            Source("FSIS Directive 7620.3", Mark.MEMORY),
        )


def _time(judged: Judged) -> Iterator[Notice]:
    days, wait = judged.request.days, judged.wait
    if days is None or wait is None:
        return
    if wait.lift_h is not None:
        text = say(
            "After {days} in it the meat has about {mean_pct} salt. Ordinary saltiness is "
            "there after {lift_h}.",
            days=Days(days),
            mean_pct=Percent(judged.uptake.mean_pct, 1),
            lift_h=span(wait.lift_h),
        )
        yield notice("note", "after-days", text, _MODEL)
    elif days < wait.days and not judged.waits_too_long:
        text = say(
            "{days} is too short for the centre: it is ready after about {ready} by the model.",
            days=days_said(days),
            ready=days_said(wait.days),
        )
        yield notice("caution", "too-short", text, _MODEL)
