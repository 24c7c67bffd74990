"""A recipe put right for a piece, and what could be offered beside it."""

from collections.abc import Iterator
from dataclasses import dataclass

from pantry_core.meat import NEVER_CURED
from pantry_core.mixes.mix import Mix, mixed
from pantry_core.mixes.recipe import CheckRequest, Packet
from pantry_core.mixes.request import Cure, WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.mixes.sizing import with_usual_cure
from pantry_core.mixes.weigh import weigh
from pantry_core.quantities import Between, Days, Grams, Percent, Ppm
from pantry_core.rules.constants import ORDINARY_SALT_PCT, SALTY_CAUTION_PCT
from pantry_core.rules.cures import LABEL_MOST, CureName
from pantry_core.text import say

LEAST_WATER = 0.5
"""Less water than this hardly covers a piece [g per g of meat] (common practice)."""
MOST_BY_SAUCES = 0.8
"""Of the salt, what sauces may bring: the curing salt brings some too [g/g]."""
LEAST_STRENGTH_PCT, USUAL_STRENGTH_PCT, MOST_STRENGTH_PCT = 5.0, 10.0, 20.0
LEAST_SALT_PCT = 0.5
"""Less salt than this is hardly a recipe's own wish [%] (common practice)."""
SAME = 0.02
"""Nearer than this nothing was changed [-]."""
_LEFT_OUT = (
    "Curing salt left out: none of yours could be weighed out for it, and no other takes its place."
)
MEANT_TO_CURE: tuple[CureName, ...] = ("celery", "saltpetre")


@dataclass(frozen=True, slots=True)
class Instead:
    """What to do instead: a `weigh` document for this piece, its answer, and what was changed."""

    input: WeighRequest
    answer: WeighOut
    changes: tuple[str, ...] = ()


def put_right(request: CheckRequest, mix: Mix) -> Instead:
    """The same ingredients for this piece, within the limits.

    Parameters: request; mix of the share that is used.
    Returns: the document and its answer; salt, days, strength, sugar and sauces are kept in
    proportion where they can be, and every change is told with its reason. Where the recipe has a
    curing salt, with the cook's own packet, and without where there is none that could be weighed
    out. One curing salt is never put in another's place.
    Raises: nothing for a request that could be made.
    """
    asked, changes = _uncured(request, mix)
    packet = _packet(request)
    if packet is not None:
        cured = with_usual_cure(asked, packet)
        right = weigh(cured)
        if not right.stops:
            return Instead(cured, right, (*changes, *_of_the_cure(request, mix, cured)))
    if request.cures():
        changes = (*changes, _LEFT_OUT)
    return Instead(asked, weigh(asked), changes)


def offered(request: CheckRequest, mix: Mix) -> Instead | None:
    """What curing salt no. 1 would be, where celery powder or saltpetre was meant to cure.

    Parameters: request; mix of the share that is used.
    Returns: the document and its answer, None where the piece may have no curing salt.
    Raises: nothing for a request that could be made.
    """
    if not any(cure.name in MEANT_TO_CURE for cure, _ in request.cures()):
        return None
    if not _may_be_cured(request):
        return None
    asked = with_usual_cure(_uncured(request, mix)[0], Cure(name="cure-1"))
    return Instead(asked, weigh(asked))


def _of_the_cure(request: CheckRequest, mix: Mix, cured: WeighRequest) -> Iterator[str]:
    """By how much the curing salt was changed, and why."""
    if cured.cure is None:
        return
    before_g = sum(grams for cure, grams in request.cures() if cure.name == cured.cure.name)
    after_g = mixed(cured).curing_salt
    if before_g and abs(after_g / before_g - 1.0) < SAME:
        return
    said = (
        say("from {between}", between=Between(Grams(before_g, 1), Grams(after_g, 1)))
        if before_g
        else say("{after_g} of yours", after_g=Grams(after_g, 1))
    )
    yield say(
        "Curing salt {said}: {ingoing_ppm} of nitrite is usual.",
        said=said,
        ingoing_ppm=Ppm(cured.cure.ingoing_ppm, 0),
    )


def _may_be_cured(request: CheckRequest) -> bool:
    return not request.heaped and request.meat.kind not in NEVER_CURED


def sized_packet(packet: Packet) -> Cure | None:
    """A packet as a curing salt, where it can be weighed out: its nitrite is known.

    Parameters: packet.
    Returns: the curing salt, None where no label tells, and for what is too strong for a kitchen.
    """
    own_label = packet.name in ("nitrite-salt", "celery")
    cure = Cure(
        name=packet.name,
        nitrite_pct=packet.nitrite_pct if own_label else None,
        nitrate_pct=packet.nitrate_pct if own_label else None,
    )
    share = cure.nitrite_share
    return cure if share and share <= LABEL_MOST.value else None


def _packet(request: CheckRequest) -> Cure | None:
    """The cook's packet, where the recipe is cured and it can be weighed out: its nitrite is known.

    It is never put in the place of celery powder or saltpetre.
    """
    packet = request.packet
    named = {cure.name for cure, _ in request.cures()}
    if packet is None or not named or not _may_be_cured(request):
        return None
    if named <= set(MEANT_TO_CURE) and packet.name not in named:
        return None
    return sized_packet(packet)


def _uncured(request: CheckRequest, mix: Mix) -> tuple[WeighRequest, tuple[str, ...]]:
    meat, method = request.meat, request.method
    changes: list[str] = []
    needs_water = method in ("even-brine", "strong-brine") or (
        method == "injection" and request.cover
    )
    water_g = mix.water or None if method == "marinade" else None
    if needs_water:
        water_g = max(mix.water, LEAST_WATER * meat.salted_g) if mix.water else meat.salted_g
        if water_g > 1.001 * mix.water:
            changes.append(
                say(
                    "Water from {between}: it has to cover.",
                    between=Between(Grams(mix.water, 0), Grams(water_g, 0)),
                )
            )
    basis_g = meat.salted_g + (water_g or 0.0)
    target = _target(request, mix, basis_g, changes)
    most_salt_g = MOST_BY_SAUCES * target / 100.0 * basis_g
    by_sauces = sum(each.salt_g for each in mix.sauces)
    fewer = min(1.0, most_salt_g / by_sauces) if by_sauces else 1.0
    if fewer < 1.0:
        changes.append(
            say(
                "Sauces at {fewer}: they alone brought more salt than that.",
                fewer=Percent(100 * fewer, 0),
            )
        )
    strength = 100.0 * mix.salt / mix.pickle if mix.pickle else 0.0
    if not LEAST_STRENGTH_PCT <= strength <= MOST_STRENGTH_PCT:
        if method == "strong-brine":
            changes.append(
                say(
                    "Strength from {between}.",
                    between=Between(Percent(strength, 1), Percent(USUAL_STRENGTH_PCT)),
                )
            )
        strength = USUAL_STRENGTH_PCT
    asked = WeighRequest.model_validate(
        {
            "profile": request.profile,
            "meat": meat.model_dump(),
            "method": method,
            "target_salt_pct": target,
            "water_g": water_g,
            "brine_salt_pct": strength if method == "strong-brine" else None,
            "heaped": request.heaped,
            "injection_share": max(request.injection_share, 0.05),
            "cover": request.cover,
            "sugar_pct": 0.0
            if method == "injection" and not request.cover
            else min(100.0 * mix.sugar / basis_g, 50.0),
            "treatment": request.treatment,
            "purpose": request.purpose,
            "sauces": [
                {"name": each.name, "mass_g": fewer * each.mass_g, "salt_pct": each.salt_pct}
                for each in mix.sauces
            ],
        }
    )
    timed = _for_days(asked, request.days)
    if request.days is not None and timed.days is None:
        changes.append(
            say("{days} left out: it may not be kept raw so long.", days=Days(request.days))
        )
    return timed, tuple(changes)


def _target(request: CheckRequest, mix: Mix, basis_g: float, changes: list[str]) -> float:
    """The recipe's own salt, where it is neither too much nor next to none [%]."""
    usual = ORDINARY_SALT_PCT.value
    is_lifted = request.method == "strong-brine" or request.heaped
    is_alone = request.method == "injection" and not request.cover
    if is_lifted or is_alone:
        return usual
    own = 100.0 * (mix.salt + request.meat.own_salt_g) / basis_g
    if LEAST_SALT_PCT <= own <= SALTY_CAUTION_PCT.value:
        return own
    why = "saltier than old-fashioned ham" if own > usual else "hardly seasoned"
    changes.append(
        say(
            "Salt from {between}: {why}.", between=Between(Percent(own, 1), Percent(usual)), why=why
        )
    )
    return usual


def _for_days(asked: WeighRequest, days: float | None) -> WeighRequest:
    """The request for the days of the recipe, where the piece may be kept raw so long."""
    if days is None:
        return asked
    timed = asked.model_copy(update={"days": days})
    is_too_long = any(each.code == "raw-clock" for each in weigh(timed).stops)
    return asked if is_too_long else timed
