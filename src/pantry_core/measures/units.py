"""Factors of the units that a cook may type, all of them by definition."""

from typing import Final, Literal

GRAMS: Final = {
    "mg": 0.001,
    "g": 1.0,
    "kg": 1000.0,
    "oz": 28.349523125,
    "lb": 453.59237,
}
MILLIMETRES: Final = {"mm": 1.0, "cm": 10.0, "in": 25.4}
MILLILITRES: Final = {
    "ml": 1.0,
    "cl": 10.0,
    "dl": 100.0,
    "l": 1000.0,
    "metric cup": 250.0,
    "us cup": 236.5882365,
    "us pint": 473.176473,
    "us quart": 946.352946,
    "us gallon": 3785.411784,
    "imp cup": 284.130625,
    "imp pint": 568.26125,
    "imp gallon": 4546.09,
    "cu ft": 28316.846592,
}

WATER_G_PER_ML: Final = 1.0
"""Water is weighed as it is measured: a litre is a kilogram (common practice; 0.998 at 20 °C)."""

Dimension = Literal["mass", "length", "water"]

FACTORS: Final[dict[Dimension, dict[str, float]]] = {
    "mass": GRAMS,
    "length": MILLIMETRES,
    "water": GRAMS | {name: ml * WATER_G_PER_ML for name, ml in MILLILITRES.items()},
}
BASE_UNIT: Final[dict[Dimension, str]] = {"mass": "g", "length": "mm", "water": "g"}

SPELLINGS: Final = {
    "milligram": "mg", "milligrams": "mg",
    "gram": "g", "grams": "g", "gramme": "g", "grammes": "g", "gr": "g",
    "kilo": "kg", "kilos": "kg", "kilogram": "kg", "kilograms": "kg", "kgs": "kg",
    "ounce": "oz", "ounces": "oz",
    "lbs": "lb", "pound": "lb", "pounds": "lb", "#": "lb",
    "millimetre": "mm", "millimetres": "mm", "millimeter": "mm", "millimeters": "mm",
    "centimetre": "cm", "centimetres": "cm", "centimeter": "cm", "centimeters": "cm",
    "inch": "in", "inches": "in", "ins": "in", '"': "in", "″": "in", "”": "in",
    "millilitre": "ml", "millilitres": "ml", "milliliter": "ml", "milliliters": "ml",
    "litre": "l", "litres": "l", "liter": "l", "liters": "l",
    "us cups": "us cup", "metric cups": "metric cup", "imp cups": "imp cup",
    "us pints": "us pint", "us pt": "us pint",
    "us quarts": "us quart", "us qt": "us quart", "qt": "us quart", "quart": "us quart",
    "quarts": "us quart",
    "us gallons": "us gallon", "us gal": "us gallon",
    "imp pints": "imp pint", "imp pt": "imp pint", "imperial pint": "imp pint",
    "imperial pints": "imp pint",
    "cubic foot": "cu ft", "cubic feet": "cu ft", "cu feet": "cu ft", "cu foot": "cu ft",
    "cu. ft": "cu ft", "cuft": "cu ft",
    "imp gallons": "imp gallon", "imp gal": "imp gallon", "imperial gallon": "imp gallon",
    "imperial gallons": "imp gallon",
}  # fmt: skip
"""Other ways to write a unit. A bare quart is the US one: no other quart is in use in recipes."""

TWO_MEANINGS: Final = {
    "cup": "us cup or metric cup", "cups": "us cup or metric cup",
    "pint": "us pint or imp pint", "pints": "us pint or imp pint", "pt": "us pint or imp pint",
    "gallon": "us gallon or imp gallon", "gallons": "us gallon or imp gallon",
    "gal": "us gallon or imp gallon",
}  # fmt: skip

OWN_UNITS: Final = {
    "us": {"cup": "us cup", "pint": "us pint", "gallon": "us gallon"},
    "metric": {"cup": "metric cup"},
    "australian": {"cup": "metric cup"},
    "imperial": {"cup": "imp cup", "pint": "imp pint", "gallon": "imp gallon"},
}
"""What a unit of two meanings is in a kitchen, by whose cups it has."""
SINGULAR: Final = {
    "cups": "cup", "pints": "pint", "pt": "pint", "gallons": "gallon", "gal": "gallon",
}  # fmt: skip

SPOONS_ML: Final = {
    "tsp": 4.92892159375,
    "tbsp": 14.78676478125,
    "metric-tbsp": 15.0,
    "au-tbsp": 20.0,
    "us-cup": MILLILITRES["us cup"],
    "metric-cup": MILLILITRES["metric cup"],
    "us-pint": MILLILITRES["us pint"],
    "us-quart": MILLILITRES["us quart"],
    "us-gallon": MILLILITRES["us gallon"],
    "imp-pint": MILLILITRES["imp pint"],
    "imp-gallon": MILLILITRES["imp gallon"],
}
RECIPE_GRAMS: Final = {name: GRAMS[name] for name in ("g", "kg", "oz", "lb")}
RECIPE_ML: Final = {"ml": 1.0, "l": 1000.0} | SPOONS_ML
RecipeUnit = Literal[
    "g", "kg", "oz", "lb", "ml", "l", "tsp", "tbsp", "metric-tbsp", "us-cup", "metric-cup",
    "au-tbsp", "us-pint", "us-quart", "us-gallon", "imp-pint", "imp-gallon", "piece",
]  # fmt: skip
"""Units of the lines of a recipe; tsp and tbsp are the US ones."""
LooseUnit = Literal["pinch", "handful", "to-taste"]
"""What nobody weighs: it has no grams, and needs none."""
AnyUnit = Literal[RecipeUnit, LooseUnit]
