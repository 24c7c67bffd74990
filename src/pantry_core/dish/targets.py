"""How salty it is to be where the cook does not say."""

from pantry_core.dish.piece import Prepared
from pantry_core.mixes.request import Purpose
from pantry_core.routes.ways import Way
from pantry_core.rules.rule import Mark, Rule
from pantry_core.rules.smoke import AIR_SALT_PCT, VACUUM_SALT_PCT
from pantry_core.salt.ready import COOKED


def _target(name: str, pct: float, source: str) -> Rule:
    return Rule(f"target-{name}", pct, "% salt", source, Mark.PRACTICE)


MILD = _target("mild", 1.0, "birds, chops, fish that is cooked at once")
MEAT = _target("meat", 1.2, "other meat")
MARINADE = _target("marinade", 1.0, "marinades")
THROUGH = _target("through", 2.0, "gammon, hock, corned")
BACON = _target("bacon", 2.25, "bacon")
RAW_FISH = _target("raw-fish", 3.0, "raw-cured fish")
VEGETABLE = _target("vegetable", 1.5, "vegetables")
A_LITTLE = 1.05
"""So that what is asked for is not missed by rounding at the scale or a short rest [-]."""


def usual_target(
    piece: Prepared, way: Way | None, purpose: Purpose, water_g: float | None, liking: float
) -> float:
    """The salt that is usual for a piece, in a kitchen that likes it as it does.

    Parameters: piece; way; purpose; water_g of the brine, None without [g]; liking, a factor [-]
    that neither fish to be eaten raw nor smoked fish that is kept asks.
    Returns: % by the convention of the method; of smoked fish that is kept what its storage asks
    for at the least salty point, which has 70 % of the mean when the wait is over.
    Raises: nothing.
    Source: common practice; FDA fish guide, ch. 13 (from memory).
    """
    if way is not None and way.id == "oil-marinade":
        return 0.0
    if piece.meat.is_kept_smoked:
        is_lifted = way is not None and way.timing == "lift"
        return _for_its_water(piece, water_g, is_lifted=is_lifted)
    meant = {"raw": RAW_FISH, "bacon": BACON}.get(piece.meat.will_be or "")
    if meant is RAW_FISH:
        return meant.value
    return liking * (meant or _by_kind(piece, way, purpose)).value


def _by_kind(piece: Prepared, way: Way | None, purpose: Purpose) -> Rule:
    if piece.meat.kind == "vegetable":
        return VEGETABLE
    if purpose == "through":
        return THROUGH
    if way is not None and way.group == "Marinade":
        return MARINADE
    return MILD if piece.meat.kind in ("poultry", "fish") or piece.cut.is_chop else MEAT


def _for_its_water(piece: Prepared, water_g: float | None, *, is_lifted: bool) -> float:
    meat = piece.meat
    rule = AIR_SALT_PCT if meat.storage == "air" else VACUUM_SALT_PCT
    share = A_LITTLE * rule.value / 100.0
    held_g_g = share / (1.0 - share) / COOKED.value
    if water_g is None or is_lifted:
        return 100.0 * held_g_g * meat.water_g_g
    salt_g = held_g_g * (water_g + meat.water_g_g * meat.salted_g)
    return 100.0 * salt_g / (water_g + meat.salted_g)
