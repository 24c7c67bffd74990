"""Which ways of cooking suit a cut in the form that it has, the usual one first."""

from typing import Final, Literal

from pantry_core.routes.customs import Custom
from pantry_core.routes.cuts import Cut
from pantry_core.routes.heats import Heat, HeatName
from pantry_core.routes.ways import Way

Nature = Literal[
    "thin", "cubes", "tender-cubes", "ground", "bird", "half-bird", "joint", "leg", "tender",
    "roast", "steak", "fish", "vegetable",
]  # fmt: skip
SUITS: Final[dict[Nature, tuple[HeatName, ...]]] = {
    "thin": ("stir-fry", "grill", "sear"),
    "cubes": ("grill", "stir-fry", "sear", "braise"),
    "tender-cubes": ("braise", "pressure", "simmer", "in-fat", "braise-fry"),
    "ground": ("sear", "grill", "bake", "fry"),
    "bird": ("roast", "roast-staged", "smoke", "spit", "poach", "braise", "steam"),
    "half-bird": ("roast", "grill", "fry", "smoke", "bake", "braise"),
    "joint": ("bake", "roast", "grill", "fry", "sear-oven", "sear", "poach", "steam", "smoke",
              "braise"),
    "leg": ("braise", "in-fat", "slow-oven", "roast", "braise-fry", "pressure", "smoke", "fry",
            "grill", "bake"),
    "tender": ("braise", "slow-oven", "simmer", "smoke", "pressure", "roast-staged", "braise-fry",
               "in-fat", "smoke-simmer", "simmer-glaze"),
    "roast": ("roast", "roast-staged", "sear-oven", "smoke", "spit", "smoke-simmer", "simmer-glaze",
              "simmer", "grill"),
    "steak": ("sear", "sear-oven", "grill", "bake", "fry"),
    "fish": ("bake", "poach", "steam", "sear", "grill", "smoke", "fry", "cold-smoke", "none"),
    "vegetable": ("none", "steam", "simmer", "roast"),
}  # fmt: skip
"""Common practice."""
CURED_TOO: Final[tuple[HeatName, ...]] = ("smoke", "cold-smoke")
"""What carries curing salt may also be smoked, cold too."""


_CUT_SMALL: Final[dict[str, Nature]] = {
    "ground": "ground", "strips": "thin", "slices": "thin", "cubes": "cubes",
}  # fmt: skip


def custom_suits(custom: Custom, cut: Cut, way: Way | None, heat: Heat) -> bool:
    """Whether a disagreement makes sense for a cut that lies so, and is cooked so.

    What is told of an opened piece is told of red meat: birds and fish are hot enough anyway.
    """
    if not custom.is_about(cut.kind):
        return False
    first = heat.stages_for(cut.kind)[:1]
    is_wet = way is not None and way.has_water
    by_what_is_done = {
        "brine_by": is_wet,
        "pot": is_wet,
        "storage": heat.id in ("smoke", "cold-smoke"),
        "opened": cut.kind not in ("poultry", "fish"),
        "scoring": cut.is_scored,
        "tempering": any(each.place == "oven" and not each.covered for each in first),
        "vegetables": any(each.medium == "water" or each.covered for each in first),
        "pressing": cut.kind == "fish" or (cut.is_tender and heat.is_tender) or cut.cures,
    }
    return by_what_is_done.get(custom.id, True)


def nature_of(cut: Cut, form: str) -> Nature:
    """What a cut in a form is to a cook at the stove."""
    if cut.kind == "vegetable":
        return "vegetable"
    if form == "cubes" and cut.is_tender:
        return "tender-cubes"
    if form in _CUT_SMALL:
        return _CUT_SMALL[form]
    if cut.kind == "fish":
        return "fish"
    if cut.build == "wall":
        return "half-bird" if form in ("halves", "pieces") else "bird"
    return _of_a_piece(cut)


def _of_a_piece(cut: Cut) -> Nature:
    if cut.kind == "poultry" and cut.build == "small":
        return "leg" if cut.is_tender else "joint"
    if cut.is_tender:
        return "tender"
    return "steak" if cut.build == "small" else "roast"


def ways_that_suit(cut: Cut, form: str, *, is_cured: bool = False) -> tuple[HeatName, ...]:
    """The ways of cooking that suit a cut in a form, the usual one first.

    Parameters: cut; form as in the dish document; is_cured, whether it carries curing salt.
    Returns: their names; all others can be taken, with a caution.
    Raises: nothing.
    Source: common practice.

    >>> from pantry_core.routes.cuts import CUTS
    >>> ways_that_suit(CUTS["lamb-leg"], "slices")[0]
    'stir-fry'
    """
    nature = nature_of(cut, form)
    known = SUITS[nature]
    first = known[:1] if nature in _BY_FORM else (cut.heat,)
    also = CURED_TOO if is_cured and nature in ("tender", "roast", "fish") else ()
    return tuple(dict.fromkeys((*first, *known, *also)))


_BY_FORM: Final[frozenset[Nature]] = frozenset(("thin", "cubes", "tender-cubes", "ground"))
"""Cut small it is cooked by its form, not by its cut."""
