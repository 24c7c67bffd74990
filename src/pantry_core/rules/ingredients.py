"""What goes into a brine, a cure or a marinade: how heavy a spoon of it is, and what is in it."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.rules.cures import CureName
from pantry_core.rules.rule import Mark, Rule

Role = Literal["water", "salt", "cure", "sugar", "sauce", "spice"]

US_CUP_ML, TABLESPOON_ML, TEASPOON_ML = 236.5882365, 14.78676478125, 4.92892159375
SALT_PER_SODIUM = Rule(
    "salt-per-sodium", 0.002542, "% salt per mg sodium in 100 g", "ratio of masses", Mark.DERIVED
)
SR_28 = "USDA National Nutrient Database, release 28"


@dataclass(frozen=True, slots=True)
class Ingredient:
    """One ingredient: `name` as a cook says it, mass of a millilitre, shares of water and salt.

    `g_per_ml` is None for what is not measured by volume; `water` and `salt` are in parts of its
    mass [g/g]; `cure` names the curing salt that it is; `softens` how fast its enzymes spoil meat;
    `needs_label` what has salt that only its label tells; `g_per_piece` and `bunch_g` the mass
    of one [g]; `herb` what may not stand in oil out of the fridge.
    """

    key: str
    name: str
    role: Role
    g_per_ml: Rule | None
    water: float = 0.0
    salt: float = 0.0
    cure: CureName | None = None
    needs_label: bool = False
    softens: Literal["", "fast", "slow"] = ""
    g_per_piece: Rule | None = None
    bunch_g: Rule | None = None
    herb: Literal["", "garlic", "herbs"] = ""


def _cup(key: str, grams: float, source: str, mark: Mark) -> Rule:
    basis = f"{source}, {grams:g} g a cup" if source else f"{grams:g} g a cup"
    return Rule(f"{key}-by-volume", grams / US_CUP_ML, "g/ml", basis, mark)


def _weighed(key: str, number: str, cup_g: float) -> Rule:
    basis = f"{SR_28}, no. {number}, {cup_g:g} g a cup"
    return Rule(f"{key}-by-volume", cup_g / US_CUP_ML, "g/ml", basis, Mark.SOURCE)


def _sodium(milligrams: float) -> float:
    """Salt in parts of the mass, from sodium [mg per 100 g]."""
    return milligrams * SALT_PER_SODIUM.value / 100.0


SODIUM = {
    "soy-sauce": Rule(
        "soy-sauce-sodium", 5637.0, "mg Na per 100 g", f"{SR_28}, no. 16123", Mark.SOURCE
    ),
    "fish-sauce": Rule(
        "fish-sauce-sodium", 7720.0, "mg Na per 100 g", f"{SR_28}, no. 06179", Mark.SOURCE
    ),
}


def _salt(key: str, name: str, rule: Rule) -> Ingredient:
    return Ingredient(key, name, "salt", rule, salt=1.0)


def _cure(key: str, name: str, cure: CureName) -> Ingredient:
    rule = Rule(
        f"{key}-by-volume", 6.0 / TEASPOON_ML, "g/ml", "6 g a level teaspoon", Mark.PRACTICE
    )
    return Ingredient(key, name, "cure", rule, cure=cure)


def _sugar(key: str, name: str, grams: float, number: str = "") -> Ingredient:
    by_volume = _weighed(key, number, grams) if number else _cup(key, grams, "", Mark.PRACTICE)
    return Ingredient(key, name, "sugar", by_volume)


def _sauce(key: str, name: str, number: str, cup_g: float, water: float) -> Ingredient:
    salt = _sodium(SODIUM[key].value) if key in SODIUM else 0.0
    return Ingredient(key, name, "sauce", _weighed(key, number, cup_g), water, salt)


def _fruit(
    key: str, name: str, softens: Literal["fast", "slow"], piece_g: float | None = None
) -> Ingredient:
    rule = Rule(f"{key}-by-volume", 1.0, "g/ml", "grated fruit", Mark.PRACTICE)
    piece = None
    if piece_g is not None:
        piece = Rule(f"{key}-piece", piece_g, "g", SR_28, Mark.SOURCE)
    return Ingredient(key, name, "sauce", rule, 0.86, softens=softens, g_per_piece=piece)


_PRACTICE = Mark.PRACTICE
_SPICE = Rule("spice-by-volume", 0.45, "g/ml", "whole and ground spices, loosely", _PRACTICE)
_WATER = Rule("water-by-volume", 1.0, "g/ml", "a litre is a kilogram", _PRACTICE)
_ICE = Rule("ice-by-volume", 0.55, "g/ml", "loose cubes", _PRACTICE)
_TABLE_SALT = Rule(
    "table-salt-by-volume",
    18.0 / TABLESPOON_ML,
    "g/ml",
    f"{SR_28}, no. 02047, 18 g a tablespoon",
    Mark.SOURCE,
)

INGREDIENTS: dict[str, Ingredient] = {
    each.key: each
    for each in (
        Ingredient("water", "Water", "water", _WATER, 1.0),
        Ingredient("ice", "Ice", "water", _ICE, 1.0),
        _salt("salt-table", "Table salt", _TABLE_SALT),
        _salt("salt-fine-sea", "Fine sea salt", _cup("salt-fine-sea", 270, "", _PRACTICE)),
        _salt("salt-pickling", "Pickling salt", _cup("salt-pickling", 290, "", _PRACTICE)),
        _salt("salt-compact-coarse", "Compact coarse salt",
              _cup("salt-compact-coarse", 240, "", _PRACTICE)),
        _salt("salt-hollow-flake", "Hollow flaky salt",
              _cup("salt-hollow-flake", 135, "", _PRACTICE)),
        _salt("salt-rock-pink", "Pink rock salt", _cup("salt-rock-pink", 270, "", _PRACTICE)),
        _cure("curing-salt-1", "Curing salt no. 1", "cure-1"),
        _cure("curing-salt-2", "Curing salt no. 2", "cure-2"),
        _cure("nitrite-salt", "Nitrite salt", "nitrite-salt"),
        _cure("saltpetre", "Saltpetre", "saltpetre"),
        _cure("celery-powder", "Celery powder", "celery"),
        _sugar("sugar", "Sugar", 200),
        _sugar("brown-sugar", "Brown sugar", 220, "19334"),
        _sugar("honey", "Honey", 339, "19296"),
        _sugar("treacle", "Treacle or molasses", 337.2, "19304"),
        _sugar("syrup", "Syrup", 320),
        _sauce("soy-sauce", "Soy sauce", "16123", 255, 0.7077),
        _sauce("fish-sauce", "Fish sauce", "06179", 288, 0.7107),
        _sauce("wine", "Wine", "14096", 235.1, 0.8649),
        _sauce("beer", "Beer", "14003", 237.3, 0.9196),
        _sauce("vinegar", "Vinegar", "02048", 239, 0.9381),
        _sauce("citrus-juice", "Lemon or lime juice", "09152", 244, 0.9073),
        _sauce("oil", "Oil", "04053", 216, 0.0),
        _sauce("buttermilk", "Buttermilk", "01088", 245, 0.9013),
        _sauce("yoghurt", "Yoghurt", "01116", 245, 0.879),
        Ingredient("other-sauce", "Another sauce", "sauce",
                   Rule("other-sauce-by-volume", 1.1, "g/ml", "bottled sauces, loosely", _PRACTICE),
                   0.6, needs_label=True),
        Ingredient("salted-mix", "Salty seasoning mix", "sauce",
                   Rule("salted-mix-by-volume", 0.9, "g/ml", "seasonings, loosely", _PRACTICE),
                   needs_label=True),
        Ingredient("juice", "Juice without salt", "sauce",
                   Rule("juice-by-volume", 1.04, "g/ml", "juices, loosely", _PRACTICE), 0.89),
        _fruit("pineapple", "Raw pineapple", "fast"),
        _fruit("papaya", "Raw papaya", "fast"),
        _fruit("kiwi", "Raw kiwi", "fast", 91.0),
        _fruit("pear", "Raw pear", "slow", 178.0),
        _fruit("ginger", "Raw ginger", "slow"),
        Ingredient("spice", "Spices and herbs", "spice", _SPICE),
        Ingredient("garlic", "Garlic", "spice", _SPICE, herb="garlic",
                   g_per_piece=Rule("garlic-clove", 3.0, "g", "a clove", _PRACTICE)),
        Ingredient("herbs", "Fresh herbs", "spice", _SPICE, herb="herbs"),
    )
}  # fmt: skip

LOOSE = ("spice", "herbs", "juice", "other-sauce", "salted-mix")
"""What holds many things: the cook's own words say which."""
ACIDS = ("wine", "vinegar", "citrus-juice", "beer")
DAIRY = ("buttermilk", "yoghurt")
SALTS = tuple(key for key, each in INGREDIENTS.items() if each.role == "salt")
SAUCES = tuple(
    key for key, each in INGREDIENTS.items() if each.role == "sauce" and not each.needs_label
)
"""Sauces whose salt is known; of another sauce the label must tell."""
