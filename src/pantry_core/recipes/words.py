"""Words of recipes in five languages: units, numbers, containers, times."""

import re
from typing import Final, Literal

from pantry_core.measures.units import RecipeUnit

Cups = Literal["us", "metric", "australian", "imperial"]
Sized = tuple[RecipeUnit, float]
"""A unit of recipe documents, and how many of it [-]."""

ANY_CUP: Final[dict[str, dict[Cups, Sized]]] = {
    "cup": {"us": ("us-cup", 1), "metric": ("metric-cup", 1), "australian": ("metric-cup", 1),
            "imperial": ("imp-pint", 0.5)},
    "tbsp": {"us": ("tbsp", 1), "metric": ("metric-tbsp", 1), "australian": ("au-tbsp", 1),
             "imperial": ("metric-tbsp", 1)},
    "tsp": {"us": ("tsp", 1), "metric": ("ml", 5), "australian": ("ml", 5), "imperial": ("ml", 5)},
    "fl oz": {"us": ("us-cup", 0.125), "metric": ("imp-pint", 0.05),
              "australian": ("imp-pint", 0.05), "imperial": ("imp-pint", 0.05)},
    "pint": {"us": ("us-pint", 1), "metric": ("imp-pint", 1), "australian": ("imp-pint", 1),
             "imperial": ("imp-pint", 1)},
    "quart": {"us": ("us-quart", 1), "metric": ("imp-pint", 2), "australian": ("imp-pint", 2),
              "imperial": ("imp-pint", 2)},
    "gallon": {"us": ("us-gallon", 1), "metric": ("imp-gallon", 1), "australian": ("imp-gallon", 1),
               "imperial": ("imp-gallon", 1)},
}  # fmt: skip
"""Units that differ from country to country, by the kitchen's own (by definition)."""
FIXED: Final[dict[str, Sized]] = {
    "mg": ("g", 0.001), "g": ("g", 1), "kg": ("kg", 1), "oz": ("oz", 1), "lb": ("lb", 1),
    "half kilo": ("g", 500), "ml": ("ml", 1), "cl": ("ml", 10), "dl": ("ml", 100), "l": ("l", 1),
    "15 ml": ("metric-tbsp", 1), "5 ml": ("ml", 5),
    "us cup": ("us-cup", 1), "metric cup": ("metric-cup", 1), "us fl oz": ("us-cup", 0.125),
    "us tbsp": ("tbsp", 1), "metric tbsp": ("metric-tbsp", 1), "australian tbsp": ("au-tbsp", 1),
    "us tsp": ("tsp", 1), "metric tsp": ("ml", 5), "australian tsp": ("ml", 5),
    "us pint": ("us-pint", 1), "us quart": ("us-quart", 1), "us gallon": ("us-gallon", 1),
    "imp cup": ("imp-pint", 0.5), "imp tbsp": ("metric-tbsp", 1), "imp tsp": ("ml", 5),
    "imp fl oz": ("imp-pint", 0.05), "imp pint": ("imp-pint", 1), "imp quart": ("imp-pint", 2),
    "imp gallon": ("imp-gallon", 1), "pinch": ("ml", 0.3), "dash": ("ml", 0.6),
    "piece": ("piece", 1),
}  # fmt: skip
_SOUP, _COFFEE = r"(?:soupe|s\.?)", r"(?:caf[ée]|th[ée]|c\.?)"
_CUILLERE = r"c(?:uill?[èe]res?|uil\.?|\.)?\s*(?:[àa]\.?)\s*"
SPELLINGS: Final = {
    "15 ml": rf"{_CUILLERE}{_SOUP}|cs|el|essl[öo]ffel|esslöffeln|cucharadas?(?! de (?:caf|t))|"
             r"cdas?|cucchiai?o?",
    "5 ml": rf"{_CUILLERE}{_COFFEE}|tl|teel[öo]ffel|kaffeel[öo]ffel|cucharaditas?|cdtas?|"
            r"cucchiaini?o?|cucharadas? de (?:caf[ée]|t[ée])",
    "mg": "mg|milligrams?|milligrammes?|milligramm",
    "kg": "kgs?|kilos?|kilograms?|kilogrammes?|kilogramm|chil[oi]|kilogramos?|chilogramm[oi]",
    "g": r"g|gr|grs|grams?|grammes?|gramm|gramos?|gramm[oi]",
    "half kilo": "pfund|livres?",
    "fl oz": r"fl\.?\s?oz|fluid ounces?|floz", "oz": "oz|ounces?|onces?|onzas?",
    "lb": "lbs?|pounds?|#",
    "ml": "ml|mls|mill?ilit(?:re|er|ro|ri|ros|res|ers)s?", "cl": "cl|centilit(?:re|er|ro|ri)s?",
    "dl": "dl|d[eé]cilit(?:re|er|ro|ri)s?", "l": "l|ltr|lit(?:re|er|ro|ri)s?",
    "tsp": "tsps?|teaspoons?|teaspoonfuls?|teaspoonsful",
    "tbsp": "tbsps?|tbs|tblsps?|tablespoons?|tablespoonfuls?|tablespoonsful",
    "cup": "cups?|cupfuls?|tassen?|tasses?|tazas?|tazz[ae]", "pint": "pints?|pt",
    "quart": "quarts?|qts?", "gallon": "gallons?|gal",
    "pinch": "pinch(?:es)?|prisen?|pinc[ée]es?|pizcas?|pizzic[oh]i?",
    "dash": "dash(?:es)?|spritzer|traits?",
    "piece": "pieces?|cloves?(?= of| garlic)|heads?|sprigs?|stalks?|sticks?|leaves|leaf|"
             "bunch(?:es)?|slices?|whole|pods?|bulbs?|knobs?|st[üu]ck|zehen?|zweige?|blatt|"
             "bl[äa]tter|gousses?|feuilles?|branches?|dientes?|hojas?|ramas?|spicchi?o?|fogli[ae]|"
             "rametti?o?",
}  # fmt: skip
"""How units are written; what is longer stands before what it begins with."""
BIG: Final = {"us": r"us|u\.s\.|american", "metric": "metric", "australian": "australian|aus?",
              "imp": "imp|imperial|uk|british|english"}  # fmt: skip
HEAPED: Final = re.compile(
    r"\s*(heaped|heaping|rounded|generous|geh[äa]ufte[rsn]?|bomb[ée]e?s?|colmad[oa]s?|colm[oia]|"
    r"big|large|dessert)\s+",
    re.IGNORECASE,
)
LEVEL: Final = re.compile(
    r"\s*(?:scant|level|flat|gestrichene[rsn]?|ras(?:e|es)?|ras[oai]s?|about|approx\.?|ca\.?|"
    r"circa|environ|unos|unas|small|medium|packed)\s+",
    re.IGNORECASE,
)
CONTAINER: Final = re.compile(
    r"\s*(?:bottles?|cans?|tins?|jars?|bo(?:x|xes)|packets?|packages?|packs?|cartons?|bags?|"
    r"cubes?|handfuls?|fistfuls?|flaschen?|dosen?|p[äa]ckchen|w[üu]rfel|bouteilles?|bo[îi]tes?|sachets?|"
    r"poign[ée]es?|botellas?|latas?|sobres?|pu[ñn]ados?|bottigli[ae]|lattin[ae]|bustin[ae]|"
    r"manciat[ae]|dad[oi])\b\.?",
    re.IGNORECASE,
)
NUMBER_WORDS: Final = {
    "a couple of": 2.0, "half a dozen": 6.0, "a dozen": 12.0, "half a": 0.5, "half an": 0.5,
    "a half": 0.5, "a quarter of a": 0.25, "a quarter": 0.25, "three quarters of a": 0.75,
    "one and a half": 1.5, "two and a half": 2.5, "anderthalb": 1.5, "eineinhalb": 1.5,
    "a": 1.0, "an": 1.0, "one": 1.0, "two": 2.0, "three": 3.0, "four": 4.0, "five": 5.0,
    "six": 6.0, "seven": 7.0, "eight": 8.0, "nine": 9.0, "ten": 10.0, "twelve": 12.0, "half": 0.5,
    "ein": 1.0, "eine": 1.0, "einen": 1.0, "zwei": 2.0, "drei": 3.0, "vier": 4.0, "fünf": 5.0,
    "sechs": 6.0, "sieben": 7.0, "acht": 8.0, "zehn": 10.0, "halbe": 0.5, "halber": 0.5,
    "halbes": 0.5, "ein halber": 0.5, "eine halbe": 0.5,
    "un demi": 0.5, "une demi": 0.5, "demi": 0.5, "un": 1.0, "une": 1.0, "deux": 2.0,
    "trois": 3.0, "quatre": 4.0, "cinq": 5.0, "sept": 7.0, "huit": 8.0, "dix": 10.0,
    "una": 1.0, "uno": 1.0, "dos": 2.0, "tres": 3.0, "cuatro": 4.0, "cinco": 5.0, "siete": 7.0,
    "medio": 0.5, "media": 0.5,
    "due": 2.0, "tre": 3.0, "quattro": 4.0, "cinque": 5.0, "sette": 7.0, "mezzo": 0.5,
    "mezza": 0.5,
}  # fmt: skip
_DAYS_IN: Final = {
    r"days?|tage?n?|jours?|d[íi]as?|giorn[oi]": 1.0,
    r"weeks?|wochen?|semaines?|semanas?|settiman[ae]": 7.0,
    r"hours?|hrs?|h|stunden?|std\.?|heures?|horas?|or[ae]": 1 / 24,
    r"fortnights?": 14.0,
}
TIME_UNITS: Final = tuple(
    (re.compile(rf"\s*-?\s*(?:{spelt})(?!\w)", re.IGNORECASE), days)
    for spelt, days in _DAYS_IN.items()
)
OVERNIGHT: Final = re.compile(
    r"\b(?:overnight|[üu]ber nacht|toute la nuit|une nuit|toda la noche|una noche|una notte|"
    r"tutta la notte)\b",
    re.IGNORECASE,
)
OVERNIGHT_D: Final = 15.0 / 24.0
"""Overnight is 12 to 18 h (common practice) [d]."""
OF: Final = re.compile(
    r"^\s*(?:(?:of|heaped|level|rounded|packed|de|du|des|di|del|della|dello|von|la|le|the)\b|d['’])"
    r"\s*",
    re.IGNORECASE,
)
