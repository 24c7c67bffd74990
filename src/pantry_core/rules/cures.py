"""Curing salts: what is in each, by its name or by its label."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.rules.rule import Mark, Rule

CureName = Literal["cure-1", "cure-2", "nitrite-salt", "saltpetre", "celery"]

_TRADE = "trade standard of pink curing salt"
NITRITE_IN_CURE_1 = Rule("nitrite-in-cure-1", 0.0625, "g/g", f"{_TRADE} no. 1", Mark.MEMORY)
NITRITE_IN_CURE_2 = Rule("nitrite-in-cure-2", 0.0625, "g/g", f"{_TRADE} no. 2", Mark.MEMORY)
NITRATE_IN_CURE_2 = Rule("nitrate-in-cure-2", 0.04, "g/g", f"{_TRADE} no. 2", Mark.MEMORY)
NITRATE_IN_SALTPETRE = Rule("nitrate-in-saltpetre", 1.0, "g/g", "potassium nitrate", Mark.DEFINED)
_NONE = Rule("no-nitrite", 0.0, "g/g", "holds none", Mark.DEFINED)

NITRITE_SALT_LEAST = Rule(
    "nitrite-salt-least", 0.004, "g/g", "European nitrite salts, from the label", Mark.MEMORY
)
NITRITE_SALT_MOST = Rule(
    "nitrite-salt-most", 0.009, "g/g", "European nitrite salts, from the label", Mark.MEMORY
)
LABEL_MOST = Rule(
    "label-strength", 0.065, "g/g", "above any curing salt sold for the kitchen", Mark.PRACTICE
)
LETHAL_SPOON = Rule(
    "nitrite-in-a-tablespoon", 1.1, "g", "3 teaspoons of 6 g at 6.25 %", Mark.DERIVED
)


CURE_KEYS: dict[CureName, str] = {
    "cure-1": "curing-salt-1",
    "cure-2": "curing-salt-2",
    "nitrite-salt": "nitrite-salt",
    "saltpetre": "saltpetre",
    "celery": "celery-powder",
}
"""What each is called as a line of a recipe."""


@dataclass(frozen=True, slots=True)
class CuringSalt:
    """Sodium nitrite and nitrate in parts of its mass; None where only the label tells [g/g]."""

    name: str
    nitrite: Rule | None
    nitrate: Rule | None


CURING_SALTS: dict[CureName, CuringSalt] = {
    "cure-1": CuringSalt("Curing salt no. 1", NITRITE_IN_CURE_1, _NONE),
    "cure-2": CuringSalt("Curing salt no. 2", NITRITE_IN_CURE_2, NITRATE_IN_CURE_2),
    "nitrite-salt": CuringSalt("Nitrite salt", None, None),
    "saltpetre": CuringSalt("Saltpetre", _NONE, NITRATE_IN_SALTPETRE),
    "celery": CuringSalt("Celery powder", None, None),
}
