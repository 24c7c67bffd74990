"""A recipe put right for a piece, and what could be offered beside it."""

from dataclasses import dataclass

from pantry_core.mixes.mix import Mix
from pantry_core.mixes.recipe import CheckRequest, Packet
from pantry_core.mixes.request import Cure, WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.mixes.sizing import with_usual_cure
from pantry_core.mixes.weigh import weigh
from pantry_core.rules.constants import ORDINARY_SALT_PCT
from pantry_core.rules.cures import LABEL_MOST, CureName

LEAST_WATER = 0.5
"""Less water than this hardly covers a piece [g per g of meat] (common practice)."""
MOST_BY_SAUCES = 0.8
"""Of the salt, what sauces may bring: the curing salt brings some too [g/g]."""
LEAST_STRENGTH_PCT, USUAL_STRENGTH_PCT, MOST_STRENGTH_PCT = 5.0, 10.0, 20.0
MEANT_TO_CURE: tuple[CureName, ...] = ("celery", "saltpetre")


@dataclass(frozen=True, slots=True)
class Instead:
    """What to do instead: a `weigh` document for this piece, and its answer."""

    input: WeighRequest
    answer: WeighOut


def put_right(request: CheckRequest, mix: Mix) -> Instead:
    """The same ingredients for this piece, to the ordinary target and within the limits.

    Parameters: request; mix of the share that is used.
    Returns: the document and its answer; where the recipe has a curing salt, with the cook's own
    packet, and without where there is none that could be weighed out. One curing salt is never put
    in another's place.
    Raises: nothing for a request that could be made.
    """
    asked = _uncured(request, mix)
    packet = _packet(request)
    if packet is None:
        return Instead(asked, weigh(asked))
    cured = with_usual_cure(asked, packet)
    right = Instead(cured, weigh(cured))
    return Instead(asked, weigh(asked)) if right.answer.stops else right


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
    asked = with_usual_cure(_uncured(request, mix), Cure(name="cure-1"))
    return Instead(asked, weigh(asked))


def _may_be_cured(request: CheckRequest) -> bool:
    return not request.heaped and request.meat.kind not in ("fish", "vegetable")


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


def _uncured(request: CheckRequest, mix: Mix) -> WeighRequest:
    meat, method = request.meat, request.method
    target = ORDINARY_SALT_PCT.value
    water_g = None
    needs_water = method in ("even-brine", "strong-brine") or (
        method == "injection" and request.cover
    )
    if needs_water:
        water_g = max(mix.water, LEAST_WATER * meat.salted_g) if mix.water else meat.salted_g
    elif method == "marinade":
        water_g = mix.water or None
    basis_g = meat.salted_g + (water_g or 0.0)
    most_salt_g = MOST_BY_SAUCES * target / 100.0 * basis_g
    by_sauces = sum(each.salt_g for each in mix.sauces)
    fewer = min(1.0, most_salt_g / by_sauces) if by_sauces else 1.0
    sugar_pct = min(100.0 * mix.sugar / basis_g, 50.0)
    strength = 100.0 * mix.salt / mix.pickle if mix.pickle else 0.0
    if not LEAST_STRENGTH_PCT <= strength <= MOST_STRENGTH_PCT:
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
            "sugar_pct": 0.0 if method == "injection" and not request.cover else sugar_pct,
            "treatment": request.treatment,
            "purpose": request.purpose,
            "sauces": [
                {"name": each.name, "mass_g": fewer * each.mass_g, "salt_pct": each.salt_pct}
                for each in mix.sauces
            ],
        }
    )
    return _for_days(asked, request.days)


def _for_days(asked: WeighRequest, days: float | None) -> WeighRequest:
    """The request for the days of the recipe, where the piece may be kept raw so long."""
    if days is None:
        return asked
    timed = asked.model_copy(update={"days": days})
    is_too_long = any(each.code == "raw-clock" for each in weigh(timed).stops)
    return asked if is_too_long else timed
