"""The methods that fit a piece and the time that is left, best first."""

from pantry_core.dish.answer import Option
from pantry_core.dish.piece import Prepared
from pantry_core.dish.request import DishRequest
from pantry_core.dish.waiting import AROUND_D, longer_of
from pantry_core.judging.raw import has_deep_bone
from pantry_core.measures.said import days_said
from pantry_core.mixes.request import Purpose
from pantry_core.routes.ways import WAYS, Way, WayName
from pantry_core.rules.constants import THAW_H_PER_KG
from pantry_core.rules.raw_clock import CURED_RED_MEAT
from pantry_core.salt.ready import COOKED, wait
from pantry_core.salt.request import SATURATED_G_G
from pantry_core.text import say

FISH_FIRST: tuple[WayName, ...] = ("dry-cure", "dry-brine", "strong-brine", "heaped-cure")
"""For fish that is eaten raw or kept smoked: its salt has to get through."""
FISH_TO_COOK_FIRST: tuple[WayName, ...] = ("dry-brine", "dry-cure", "strong-brine", "heaped-cure")
"""For fish that is cooked: what seasons it most before its outside is too salty."""
BIRD_FIRST: tuple[WayName, ...] = ("dry-brine", "strong-brine", "dairy-marinade", "sauce-marinade")
SMALL_FIRST: tuple[WayName, ...] = ("strong-brine", "dry-brine", "sauce-marinade", "dairy-marinade")
ROAST_FIRST: tuple[WayName, ...] = ("dry-brine", "strong-brine", "acid-marinade", "herb-marinade")
THROUGH_FIRST: tuple[WayName, ...] = (
    "even-brine", "dry-cure", "needle-brine", "strong-brine", "needle",
)  # fmt: skip
DEEP_BONE_FIRST: tuple[WayName, ...] = (
    "needle-brine", "needle", "even-brine", "dry-cure", "strong-brine",
)  # fmt: skip
"""For a bone deep in the meat: only the needle brings salt to it in time."""
SIDE: tuple[WayName, ...] = ("quick-pickle",)
SEASON_D: dict[WayName, float] = {"even-brine": 2.0, "dry-cure": 1.0, "needle-brine": 1.0,
                                  "needle": 1.0, "strong-brine": 0.625,
                                  "heaped-cure": 2.0}  # fmt: skip
"""How long what is seasoned lies about, by methods without a window (common practice)."""
_BECAUSE: dict[WayName, str] = {
    "dry-brine": "it seasons and dries the skin, in fridge room for a tray",
    "strong-brine": "it seasons evenly and is out on time",
    "even-brine": "it cannot get too salty",
    "dry-cure": "it wants no vessel and all of the cure stays",
    "needle-brine": "it takes a third of the time",
    "needle": "it takes a night or two",
    "heaped-cure": "nothing is weighed: the clock and a rest decide",
    "dairy-marinade": "it softens mildly",
    "sauce-marinade": "it seasons thin pieces in hours",
    "acid-marinade": "it gives its own sauce",
    "oil-marinade": "it flavours the outside",
    "herb-marinade": "it flavours and salts in one",
    "quick-pickle": "it is ready in a day",
    "mixed-in": "it is in at once",
}


def options_of(asked: DishRequest, piece: Prepared, left_h: float | None) -> tuple[Option, ...]:
    """Rank the methods that fit a piece.

    Parameters: asked; piece; left_h, the time to the table, None where it is not known [h].
    Returns: those that fit its kind, first those for which there is time; each with about how long
    it lies [d], what it needs, and why.
    Raises: nothing.
    Source: common practice; waits by the model of the salt.
    """
    usual: Purpose = "through" if piece.is_for_the_heart else "season"
    purpose = asked.cure.purpose or usual
    first = _first(piece, purpose)
    fitting = [way for way in WAYS.values() if _fits(way, piece)]
    made = [_option(way, piece, purpose, left_h) for way in fitting]
    order = {name: i for i, name in enumerate(first)}

    def rank(option: Option) -> tuple[bool, int]:
        return not option.in_time, order.get(option.method, len(order))  # type: ignore[call-overload]  # names of ways

    return tuple(sorted(made, key=rank))


def _first(piece: Prepared, purpose: Purpose) -> tuple[WayName, ...]:
    if piece.meat.kind == "vegetable":
        return SIDE
    if piece.meat.kind == "fish":
        return FISH_FIRST if purpose == "through" else FISH_TO_COOK_FIRST
    if purpose == "through":
        return DEEP_BONE_FIRST if has_deep_bone(piece.meat) else THROUGH_FIRST
    if piece.is_small:
        return SMALL_FIRST
    return BIRD_FIRST if piece.meat.kind == "poultry" else ROAST_FIRST


def _fits(way: Way, piece: Prepared) -> bool:
    if piece.meat.kind == "vegetable":
        return way.group in ("Side", "Dry", "Brine") and way.id != "heaped-cure"
    if way.group == "Side":
        return False
    if piece.meat.form == "ground":
        return way.id == "mixed-in"
    if way.id == "mixed-in":
        return piece.form in ("cubes", "strips")
    if way.group == "Needle":
        return not piece.is_thin and piece.meat.kind != "fish"
    return way.id != "dry-brine" or not piece.is_thin


def _option(way: Way, piece: Prepared, purpose: Purpose, left_h: float | None) -> Option:
    least_d, days = _days(way, piece, purpose)
    needs = [
        *(["a vessel and fridge room for the liquid"] if way.needs_water else []),
        *(["a needle"] if way.group == "Needle" else []),
        *(["to be lifted on time"] if way.timing == "lift" else []),
    ]
    around_h = 36.0 + (THAW_H_PER_KG.value * piece.meat.mass_g / 1000.0) * piece.asked.frozen
    because = _BECAUSE[way.id]
    late_h = 0.0 if left_h is None else max(0.0, 24.0 * least_d + around_h - left_h)
    in_time = late_h <= 0.0
    if left_h is not None:
        days = max(least_d, min(days, (left_h - around_h) / 24.0))
    if not in_time:
        because = say(
            "no time: about {days} in it, and what comes before and after", days=days_said(days)
        )
    return Option(way.id, days, tuple(needs), because, in_time, late_h)


def _days(way: Way, piece: Prepared, purpose: Purpose) -> tuple[float, float]:
    """How long it lies at the least and, with time enough, usually [d]."""
    if way.window_h is not None or purpose == "season":
        days = SEASON_D[way.id] if way.window_h is None else way.window_h[1] / 24.0
        return days, days
    meat = piece.meat
    if way.group == "Dry":
        found = wait(meat, "dry", 0.02 / meat.water_g_g / SATURATED_G_G, COOKED.value, 4.0)
    else:
        found = wait(meat, "bath", 1.0 / meat.water_g_g, COOKED.value, 4.0)
    days = found.days if found else 60.0
    if way.group == "Needle":
        return days / 3.0, days / 3.0
    if way.timing != "school":
        return days, days
    longer = longer_of(way, meat, found.days_high if found else 0.0)
    return days, max(days, min(longer.days, CURED_RED_MEAT.caution.value - AROUND_D))
