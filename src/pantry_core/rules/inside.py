"""How hot the thickest part must be, and for how long."""

from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

_SAFE = "USDA safe temperatures"
_CODE = "FDA Food Code 3-401.11"

INTACT = Rule("inside-whole", 63.0, "°C", f"{_SAFE}, 3 min rest", Mark.MEMORY)
NOT_INTACT = Rule("inside-not-intact", 68.0, "°C", f"{_CODE}, 17 s", Mark.MEMORY)
GROUND = Rule("inside-ground", 71.0, "°C", f"{_SAFE}, ground meat", Mark.MEMORY)
POULTRY = Rule("inside-poultry", 74.0, "°C", f"{_SAFE}, poultry", Mark.MEMORY)
STUFFED = Rule("inside-stuffed", 74.0, "°C", f"{_CODE}, stuffed", Mark.MEMORY)
FISH = Rule("inside-fish", 63.0, "°C", f"{_CODE}, fish", Mark.MEMORY)
WILD_DEER = Rule("inside-wild-deer", 71.0, "°C", f"{_SAFE}; {_CODE} says 74", Mark.MEMORY)
OTHER_GAME = Rule("inside-other-game", 74.0, "°C", f"{_CODE}, wild and ground game", Mark.MEMORY)
RABBIT = Rule("inside-rabbit", 71.0, "°C", f"{_SAFE}, farmed rabbit", Mark.MEMORY)

NOT_INTACT_AS_SAFE = say(
    "{63 °C} held for 3 min, {66 °C} for 1 min, or {70 °C} at once, are as safe"
)
SMOKED_FISH_MIN = Rule(
    "smoked-fish-hold",
    30.0,
    say("min at {63 °C}"),
    "FDA fish guide, ch. 13, hot-smoked fish",
    Mark.MEMORY,
)
TENDER_LOW = Rule("tender-from", 88.0, "°C", "a skewer slides in", Mark.PRACTICE)
TENDER_HIGH = Rule("tender-to", 96.0, "°C", "a skewer slides in", Mark.PRACTICE)

_CHOICE = "by the cook's choice"
RARE = Rule(
    "inside-rare-least", 52.0, "°C", f"{_CHOICE}: intact beef, lamb, farmed game", Mark.PRACTICE
)
PINK_PORK = Rule("inside-pork-least", 58.0, "°C", f"{_CHOICE}: intact pork", Mark.PRACTICE)
PINK_BREAST = Rule(
    "inside-breast-least", 57.0, "°C", f"{_CHOICE}: duck or goose breast", Mark.PRACTICE
)
OPENED_LEAST = Rule("inside-not-intact-least", 63.0, "°C", f"{_CODE}, held for 3 min", Mark.MEMORY)
"""How low a cook may choose to go."""
RAW_FOR_PARASITES = Rule(
    "inside-fish-least", 48.0, "°C", f"{_CHOICE}: below 60 it counts as raw for parasites",
    Mark.PRACTICE,
)  # fmt: skip
KILLS_PARASITES_C = Rule(
    "parasites-killed", 60.0, "°C", "Regulation (EC) 853/2004, for 1 min", Mark.MEMORY
)
