"""What a recipe looks like, where the cook has not said how it is done: a method and its time."""

import re
from collections.abc import Iterator

from pantry_core.dish.piece import Prepared
from pantry_core.dish.request import DishRequest
from pantry_core.dish.written import lines_for
from pantry_core.mixes.recipe import ingredient_named
from pantry_core.mixes.result import Figures, Proposal
from pantry_core.quantities import Days
from pantry_core.recipes.heat_words import heat_said
from pantry_core.recipes.times import days_in
from pantry_core.routes.cuts import Cut
from pantry_core.routes.heats import HEATS, HeatName
from pantry_core.routes.suits import ways_that_suit
from pantry_core.routes.ways import WAYS, WayName
from pantry_core.rules.ingredients import ACIDS
from pantry_core.text import say

_NOTHING = Figures(None, None, None, None)
LEAST_LIQUID = 0.2
"""With less water than this for each part of meat it is no brine [g/g] (our own choice)."""
DAIRY = ("buttermilk", "yoghurt", "kefir")
SALTY = ("soy-sauce", "fish-sauce")
SOUR = (*ACIDS, "lemon-juice", "lime-juice")
HEAPED_SHARE = 0.06
"""From so much salt on it is heaped on and washed off again (our choice) [g/g]."""
_NEEDLED = re.compile(
    r"\b(?:needle[ds]?|needling|inject\w*|pumped|spritz\w* pump)\b", re.IGNORECASE
)
LEAST_SOUR = 0.1
"""With less that is sour than this for each part of meat nothing lies in it (our choice) [g/g]."""
PASTE_SHARE = 0.5
"""With less that is sour than this share of its oil it is a paste (our choice) [g/g]."""


def beginnings(asked: DishRequest, piece: Prepared) -> tuple[Proposal, ...]:
    """What a recipe looks like: a method, and how long it lies by its words.

    Parameters: asked, without a method; its piece, prepared.
    Returns: a proposal for each; none without a recipe.
    Raises: nothing. Source: common practice.
    """
    return tuple(_found(asked, piece))


def _found(asked: DishRequest, piece: Prepared) -> Iterator[Proposal]:
    if asked.recipe is None:
        return
    method = method_of(asked, piece)
    if method is not None:
        text = say("This looks like: {name:lower}.", name=WAYS[method].name)
        yield Proposal(
            "method", text, ({"field": "cure.method", "value": method},), _NOTHING, _NOTHING, ()
        )
    days, _ = days_in(asked.recipe.text)
    if days is not None and asked.cure.lain_d is None:
        text = say("By its words it takes {days}.", days=Days(days, 1))
        yield Proposal(
            "days", text, ({"field": "cure.days", "value": days},), _NOTHING, _NOTHING, ()
        )


def way_said(text: str, cut: Cut, form: str) -> HeatName | None:
    """How a recipe's words cook its piece, where that is another way than is usual.

    Parameters: text of the recipe; cut; form as in the dish document.
    Returns: the way of cooking, None where its words name none, or the usual one. Meat is cooked as
    its cook says, whether or not that is usual for its cut; a vegetable only as suits it.
    Raises: nothing. Source: common practice.
    """
    usual, *suits = ways_that_suit(cut, form, is_cured=True)
    said = heat_said(text)
    ways = suits if cut.kind == "vegetable" else HEATS
    return next((way for way in ways if way == said and way != usual), None)


def method_of(asked: DishRequest, piece: Prepared) -> WayName | None:
    """The method that the lines of a recipe look like, None without a recipe or salt."""
    if asked.recipe is None or asked.piece is None:
        return None
    masses: dict[str, float] = {}
    for each in lines_for(asked.recipe, asked.piece.mass_g, asked.people):
        if each.asked.goes == "cure":
            given = ingredient_named(each.asked.name, each.asked.salt_pct)
            masses[each.asked.name] = masses.get(each.asked.name, 0.0) + (each.grams or 0.0)
            masses[given.role] = masses.get(given.role, 0.0) + (each.grams or 0.0)
    has = {name for name, grams in masses.items() if grams}
    is_brine = masses.get("water", 0.0) >= LEAST_LIQUID * piece.meat.mass_g
    sour_g = sum(masses.get(each, 0.0) for each in SOUR)
    is_sour = sour_g > max(PASTE_SHARE * masses.get("oil", 0.0), LEAST_SOUR * piece.meat.mass_g)
    is_through = piece.is_for_the_heart or "cure" in has
    is_needled = _NEEDLED.search(asked.recipe.text) is not None
    is_heaped = masses.get("salt", 0.0) >= HEAPED_SHARE * piece.meat.mass_g
    looks: tuple[tuple[bool, WayName], ...] = (
        (piece.meat.form == "ground", "mixed-in"),
        (bool(has.intersection(DAIRY)), "dairy-marinade"),
        (is_needled and "water" in has, "needle-brine" if is_brine else "needle"),
        (is_brine and is_through, "even-brine"),
        (is_brine, "strong-brine"),
        (bool(has.intersection(SALTY)), "sauce-marinade"),
        (is_sour, "acid-marinade"),
        ("oil" in has and "salt" in has, "herb-marinade"),
        ("oil" in has, "oil-marinade"),
        (is_heaped and "cure" not in has, "heaped-cure"),
        (bool(has.intersection(("salt", "cure"))), "dry-cure"),
    )
    return next((way for is_so, way in looks if is_so), None)
