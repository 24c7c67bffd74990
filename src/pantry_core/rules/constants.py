"""Physical and customary figures that no profile changes."""

from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

FDC = "USDA FoodData Central"
_GUIDE = "FDA Fish and Fishery Products Hazards and Controls Guidance"
FISH_GUIDE, HISTAMINE_GUIDE = f"{_GUIDE}, ch. 13", f"{_GUIDE}, ch. 7"

SATURATION = Rule(
    "saturation",
    0.264,
    "g salt per g of salt and water",
    say("salometer scale, {15.6 °C}"),
    Mark.MEMORY,
)

MEAT_DENSITY = Rule("meat-density", 1.06, "g/ml", "density of lean meat", Mark.MEMORY)

_MEAT_WATER = Rule("water-in-meat", 0.74, "g/g", f"{FDC}, lean raw meat", Mark.MEMORY)
WATER_SHARE = {
    "pork": _MEAT_WATER,
    "beef": _MEAT_WATER,
    "lamb": _MEAT_WATER,
    "game": _MEAT_WATER,
    "poultry": _MEAT_WATER,
    "fish": Rule("water-in-fish", 0.70, "g/g", f"{FDC}, fish in general", Mark.MEMORY),
    "vegetable": Rule("water-in-vegetable", 0.92, "g/g", f"{FDC}, raw vegetables", Mark.MEMORY),
}
"""Share of water in the raw piece by kind, for pieces whose own share is not known [g/g]."""


PICK_UP = Rule("pick-up", 0.10, "g/g", "FSIS Directive 7620.3, cover-pickled products", Mark.MEMORY)

WEEK_AN_INCH = Rule("week-an-inch", 7.0, "days an inch", "a week an inch", Mark.PRACTICE)
MM_AN_INCH = Rule("mm-an-inch", 25.4, "mm", "international inch", Mark.DEFINED)

FRIDGE_GOAL_C = Rule("fridge-goal", 4.0, "°C", "USDA food safety basics", Mark.MEMORY)
FRIDGE_STOP_C = Rule("fridge-stop", 5.0, "°C", "FDA Food Code 3-501.16", Mark.MEMORY)
FRIDGE_QUIET_C = Rule("fridge-quiet", 4.4, "°C", "USDA, 40 °F", Mark.MEMORY)
FREEZING_C = Rule("brine-freezing", 0.0, "°C", "meat starts to freeze below it", Mark.PRACTICE)

SALTY_CAUTION_PCT = Rule(
    "old-fashioned-salt", 3.5, "% salt", "above what is eaten as it is", Mark.PRACTICE
)
SCALE_DOUBT = Rule("scale-doubt", 0.05, "division / amount", "a scale to trust", Mark.PRACTICE)

THICK_FOR_MASS = Rule(
    "thick-for-mass", 1.0, "volume of the piece / least volume", "geometry", Mark.DERIVED
)
THIN_FOR_MASS = Rule(
    "thin-for-mass", 1000.0, "volume of the piece / thickness³", "a sheet, no piece", Mark.PRACTICE
)

READY_SALTED_MG = Rule(
    "ready-salted", 150.0, "mg Na per 100 g", "plain meat has less", Mark.PRACTICE
)
LONG_CURE_SALT_PCT = Rule(
    "long-cure-salt", 2.0, "% salt", "salt that a long cure needs", Mark.PRACTICE
)
COLD_STORAGE = "USDA cold storage and marinating advice"
BIG_THAW = "USDA, The Big Thaw"
THAW_H_PER_KG = Rule("thaw-fridge", 13.0, "h/kg", f"{BIG_THAW}, rounded up", Mark.MEMORY)
THAW_LEAST_H = Rule("thaw-least", 12.0, "h", BIG_THAW, Mark.MEMORY)

HEAP_SHARE = Rule(
    "heap", 0.4, "g salt per g of meat", "more than the juice can dissolve", Mark.PRACTICE
)
ENZYME_THIN_MM = Rule("enzyme-thin", 10.0, "mm", "thin slices", Mark.PRACTICE)
ENZYME_THIN_H = Rule(
    "enzyme-fruit-thin", 2.0, "h", say("kiwi, pineapple, papaya, raw, up to {10 mm}"), Mark.PRACTICE
)
ENZYME_THICK_H = Rule(
    "enzyme-fruit-thick", 4.0, "h", "kiwi, pineapple, papaya, raw, thicker", Mark.PRACTICE
)
ENZYME_LEAST = Rule(
    "enzyme-least", 0.02, "g fruit per g of meat", "less in a sauce does not soften", Mark.PRACTICE
)
ENZYME_SLOW_H = Rule("enzyme-fruit-slow", 18.0, "h", "pear and ginger, overnight", Mark.PRACTICE)
HERBS_IN_OIL_D = Rule(
    "herbs-in-oil", 4.0, "d", say("food-safety advice on raw garlic or herbs in oil, at {4 °C} "
                                  "or below"),
    Mark.MEMORY,
)  # fmt: skip
HERBS_ON_MEAT_D = Rule(
    "herbs-in-oil-on-meat", 5.0, "d", "raw garlic or herbs in oil on raw meat", Mark.PRACTICE
)
HERBS_ON_MEAT_STOP_D = Rule(
    "herbs-in-oil-on-meat-stop", 7.0, "d", "raw garlic or herbs in oil on raw meat", Mark.PRACTICE
)
PASTE_SALT_PCT = Rule(
    "herbs-in-oil-salt", 3.5, "% salt in its water", "so salty a paste keeps as its meat does",
    Mark.PRACTICE,
)  # fmt: skip
PASTE_ACID_SHARE = Rule(
    "herbs-in-oil-acid", 0.125, "of its liquid", "vinegar or citrus, keeps as its meat does",
    Mark.PRACTICE,
)  # fmt: skip
THIN_EXCESS = Rule(
    "thin-excess", 0.001, "g salt per g of meat", "salt over what was asked for", Mark.PRACTICE
)
SEASONED_SHARE = Rule(
    "seasoned", 0.7, "of the even value in the mean", "an even brine that seasons", Mark.PRACTICE
)
ORDINARY_SALT_PCT = Rule("ordinary-salt", 2.0, "% salt", "ordinary saltiness", Mark.PRACTICE)
