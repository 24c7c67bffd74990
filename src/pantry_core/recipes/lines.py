"""One line of a recipe: amount, unit and ingredient, as people write them."""

import re
from dataclasses import dataclass
from typing import Final, Literal

from pantry_core.measures.quantity import NotAQuantity, leading_number
from pantry_core.measures.units import RECIPE_GRAMS, RECIPE_ML, RecipeUnit
from pantry_core.recipes.names import Match, match, meats
from pantry_core.rules.ingredients import INGREDIENTS

Cups = Literal["us", "metric", "australian", "imperial"]
LONGEST_LINE = 300
LEMON_ML = 45.0
"""Juice of a lemon (common practice) [ml]."""

_ANY_CUP: Final[dict[str, dict[Cups, tuple[RecipeUnit, float]]]] = {
    "cup": {"us": ("us-cup", 1), "metric": ("metric-cup", 1), "australian": ("metric-cup", 1),
            "imperial": ("imp-pint", 0.5)},
    "tbsp": {"us": ("tbsp", 1), "metric": ("metric-tbsp", 1), "australian": ("au-tbsp", 1),
             "imperial": ("metric-tbsp", 1)},
    "tsp": {"us": ("tsp", 1), "metric": ("ml", 5), "australian": ("ml", 5), "imperial": ("ml", 5)},
    "pint": {"us": ("us-pint", 1), "metric": ("imp-pint", 1), "australian": ("imp-pint", 1),
             "imperial": ("imp-pint", 1)},
    "gallon": {"us": ("us-gallon", 1), "metric": ("imp-gallon", 1), "australian": ("imp-gallon", 1),
               "imperial": ("imp-gallon", 1)},
}  # fmt: skip
_FIXED: Final[dict[str, tuple[RecipeUnit, float]]] = {
    "mg": ("g", 0.001), "g": ("g", 1), "kg": ("kg", 1), "oz": ("oz", 1), "lb": ("lb", 1),
    "ml": ("ml", 1), "cl": ("ml", 10), "dl": ("ml", 100), "l": ("l", 1),
    "quart": ("us-quart", 1), "us cup": ("us-cup", 1), "metric cup": ("metric-cup", 1),
    "us tbsp": ("tbsp", 1), "metric tbsp": ("metric-tbsp", 1), "australian tbsp": ("au-tbsp", 1),
    "us tsp": ("tsp", 1), "metric tsp": ("ml", 5), "us pint": ("us-pint", 1),
    "us quart": ("us-quart", 1), "us gallon": ("us-gallon", 1), "imp pint": ("imp-pint", 1),
    "imp gallon": ("imp-gallon", 1), "fl oz": ("us-cup", 0.125), "pinch": ("ml", 0.3),
    "dash": ("ml", 0.6), "piece": ("piece", 1),
}  # fmt: skip
_SPELLINGS: Final = {
    "g": r"g|gr|grams?|grammes?", "mg": "mg|milligrams?", "kg": "kgs?|kilos?|kilograms?",
    "oz": "oz|ounces?", "lb": "lbs?|pounds?|#", "ml": "ml|mls|millilit(?:re|er)s?",
    "cl": "cl|centilit(?:re|er)s?", "dl": "dl|decilit(?:re|er)s?", "l": "l|lit(?:re|er)s?",
    "fl oz": r"fl\.? ?oz|fluid ounces?", "tsp": "tsps?|teaspoons?|teaspoonfuls?",
    "tbsp": "tbsps?|tbs|tablespoons?|tablespoonfuls?", "cup": "cups?|cupfuls?",
    "pint": "pints?|pt", "quart": "quarts?|qts?", "gallon": "gallons?|gal",
    "pinch": "pinch(?:es)?", "dash": "dash(?:es)?",
    "piece": "pieces?|cloves?|heads?|sprigs?|stalks?|sticks?|leaves|leaf|bunch(?:es)?|slices?|"
             "whole|pods?|bulbs?|knobs?",
}  # fmt: skip
_BIG = {"us": "us|u\\.s\\.", "metric": "metric", "australian": "australian|au",
        "imp": "imp|imperial|uk|british"}  # fmt: skip
_UNIT = re.compile(
    r"\s*(?:(?P<big>" + "|".join(f"(?:{each})" for each in _BIG.values()) + r")\.?\s+)?(?:"
    + "|".join(f"(?P<u{i}>{spelt})" for i, spelt in enumerate(_SPELLINGS.values()))
    + r")(?![a-z#])\.?",
    re.IGNORECASE,
)  # fmt: skip
_BULLET = re.compile(r"^[\s•*·–—-]*(?:\[[ xX]?\])?\s*(?:\d+\)\s+)?")
_IN_WORDS = {"a": 1.0, "an": 1.0, "one": 1.0, "two": 2.0, "three": 3.0, "four": 4.0, "half": 0.5,
             "half a": 0.5, "a half": 0.5, "a quarter": 0.25, "a couple of": 2.0}  # fmt: skip
_WORDS = re.compile(
    r"\s*(" + "|".join(sorted(_IN_WORDS, key=len, reverse=True)) + r")\b", re.IGNORECASE
)
_ASIDE = re.compile(r"\(([^()]*)\)")
_JUICE_OF = re.compile(r"^(?:the\s+)?juice of\s+(.+)$", re.IGNORECASE)
_RANGE = re.compile(r"\s*(?:-|–|—|\bto\b|\bor\b)\s*(?=[\d½¼¾⅓⅔⅛.])", re.IGNORECASE)
_PER = re.compile(
    r"[,;:(\s]*\b(?:for|per)\b\s+(?:each\s+|every\s+)?(?P<what>.+?)[):.,\s]*$", re.IGNORECASE
)
_OF_WATER = re.compile(r"\b(?:water|brine|liquid)\b", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Basis:
    """What an amount is for: so much meat or so much water [g]."""

    of: Literal["meat", "water"]
    grams: float


@dataclass(frozen=True, slots=True)
class ReadLine:
    """A line as it was understood; `problem` says what would do where it was not.

    `keys` are the ingredients that it may be, the likely one first; with `must_answer` the cook
    has to choose. `per` is what its amount is for, None for the whole recipe; `words` name it.
    """

    text: str
    amount: float | None = None
    unit: RecipeUnit | None = None
    keys: tuple[str, ...] = ()
    question: str = ""
    must_answer: bool = False
    per: Basis | None = None
    is_meat: bool = False
    is_heading: bool = False
    problem: str = ""
    words: str = ""

    @property
    def key(self) -> str | None:
        """The ingredient, None while the cook must answer or nothing was found."""
        return None if self.must_answer or not self.keys else self.keys[0]


def read_line(text: str, cups: Cups = "us") -> ReadLine:
    """Read one line of a recipe.

    Parameters: text, at most 300 characters; cups, whose cups, spoons and pints are meant where
    the line does not say.
    Returns: the line; what is wrong or in doubt is in it.
    Raises: nothing.
    Source: sizes by definition; a pinch and the juice of a lemon by common practice.

    >>> line = read_line("1½ tbsp pink curing salt")
    >>> line.amount, line.unit, line.key
    (1.5, 'tbsp', 'curing-salt-1')
    >>> read_line("2 qt water").unit
    'us-quart'
    >>> read_line("1 tsp salt per pound of meat").per
    Basis(of='meat', grams=453.59237)
    """
    shown = " ".join(text.split())
    if len(shown) > LONGEST_LINE:
        return ReadLine(
            shown[:LONGEST_LINE], problem=f"This line is too long; {LONGEST_LINE} characters do."
        )
    try:
        return _read(shown, cups)
    except NotAQuantity as error:
        return ReadLine(shown, problem=f"{str(error)[:1].upper()}{str(error)[1:]}.")


def written(amount: float, unit: RecipeUnit, key: str) -> str:
    """A line as it would be written, so that it reads back as the same.

    >>> written(1.5, "us-cup", "salt-hollow-flake")
    '1.5 us cup hollow flaky salt'
    """
    spelt = {"tsp": "us tsp", "tbsp": "us tbsp", "au-tbsp": "australian tbsp"}
    name = INGREDIENTS[key].name.lower()
    return f"{_plain(amount)} {spelt.get(unit, unit.replace('-', ' '))} {name}"


def _plain(amount: float) -> str:
    return f"{amount:.9f}".rstrip("0").rstrip(".") or "0"


def _read(shown: str, cups: Cups) -> ReadLine:
    body = _JUICE_OF.sub(r"\1 juice", _BULLET.sub("", shown))
    body, per = _without_basis(body, cups)
    if per is not None and not body:
        return ReadLine(shown, per=per, is_heading=True)
    by_weight = _weight_in_brackets(body, cups)
    body = " ".join(_ASIDE.sub(" ", body).split())
    amount, unit, words = _amount(body, cups)
    if by_weight is not None and (unit is None or unit not in RECIPE_GRAMS):
        amount, unit = by_weight
    kinds = meats(words)
    found = match(words)
    if kinds and (found is None or found.keys == ("spice",)):
        return _meat(shown, kinds, amount, unit)
    if found is None:
        return _unknown(shown, words, amount, unit)
    return _ingredient(ReadLine(shown, amount, unit, per=per, words=words), found)


def _ingredient(line: ReadLine, found: Match) -> ReadLine:
    amount, unit, question = line.amount, line.unit, found.question
    if not found.keys:
        return ReadLine(line.text, problem=found.question)
    role = INGREDIENTS[found.keys[0]].role
    if amount is None and role != "spice":
        return ReadLine(
            line.text, keys=found.keys, problem="How much of it? Write an amount before it."
        )
    if unit is None:
        unit = "piece"
    if unit == "piece" and found.keys == ("citrus-juice",) and amount is not None:
        amount, unit, question = amount * LEMON_ML, "ml", f"A lemon gives about {LEMON_ML:g} ml."
    if unit == "piece" and role != "spice":
        name = INGREDIENTS[found.keys[0]].name.lower()
        what = f"How much {name}? It is not counted; a weight or a volume would do."
        return ReadLine(line.text, amount, keys=found.keys, problem=what)
    is_by_volume = unit in RECIPE_ML
    if role == "salt" and not is_by_volume and not found.must_answer:
        question = ""
    return ReadLine(
        line.text, 1.0 if amount is None else amount, unit, found.keys, question,
        found.must_answer, line.per, words=line.words,
    )  # fmt: skip


def _meat(
    shown: str, kinds: tuple[str, ...], amount: float | None, unit: RecipeUnit | None
) -> ReadLine:
    if len(kinds) > 1:
        what = f"This line names {' and '.join(kinds)}; one piece at a time would do."
        return ReadLine(shown, problem=what, is_meat=True)
    if amount is not None and unit in RECIPE_GRAMS:
        return ReadLine(
            shown, is_meat=True, is_heading=True,
            per=Basis("meat", amount * RECIPE_GRAMS[unit]),
        )  # fmt: skip
    return ReadLine(shown, is_meat=True, is_heading=True)


def _unknown(shown: str, words: str, amount: float | None, unit: RecipeUnit | None) -> ReadLine:
    if not words.strip(" .:,"):
        return ReadLine(shown, problem="What is it? Write the ingredient after its amount.")
    return ReadLine(
        shown, 1.0 if amount is None else amount, unit or "piece", ("spice",),
        "This ingredient is not known here. Is it a spice, without salt of its own?",
        must_answer=True, words=words,
    )  # fmt: skip


def _amount(body: str, cups: Cups) -> tuple[float | None, RecipeUnit | None, str]:
    """Amount, unit and the words after them; "1 lb 4 oz" is summed."""
    first = _number(body)
    if first is None:
        return None, None, body
    value, rest = first
    until = _RANGE.match(rest)
    if until:
        second = leading_number(rest[until.end() :])
        if second is not None:
            value, rest = (value + second[0]) / 2.0, second[1]
    unit = _UNIT.match(rest)
    if unit is None:
        return value, None, rest.strip()
    name, factor = _unit(unit, cups)
    rest = rest[unit.end() :]
    total = value * factor
    more = leading_number(rest)
    if more is not None and name in RECIPE_GRAMS:
        smaller = _UNIT.match(more[1])
        if smaller is not None:
            small_name, small_factor = _unit(smaller, cups)
            if small_name in RECIPE_GRAMS and RECIPE_GRAMS[small_name] < RECIPE_GRAMS[name]:
                total += more[0] * small_factor * RECIPE_GRAMS[small_name] / RECIPE_GRAMS[name]
                rest = more[1][smaller.end() :]
    rest = re.sub(r"^\s*(?:of|heaped|level|rounded|packed)\b", "", rest, flags=re.IGNORECASE)
    return total, name, rest.strip()


def _number(body: str) -> tuple[float, str] | None:
    found = leading_number(body)
    if found is not None:
        return found
    word = _WORDS.match(body)
    return (_IN_WORDS[word.group(1).lower()], body[word.end() :]) if word else None


def _unit(found: re.Match[str], cups: Cups) -> tuple[RecipeUnit, float]:
    name = next(spelt for i, spelt in enumerate(_SPELLINGS) if found.group(f"u{i}") is not None)
    size = (found.group("big") or "").lower().rstrip(".")
    for big, spellings in _BIG.items():
        if size and re.fullmatch(spellings, size) and f"{big} {name}" in _FIXED:
            return _FIXED[f"{big} {name}"]
    return _ANY_CUP[name][cups] if name in _ANY_CUP else _FIXED[name]


def _weight_in_brackets(body: str, cups: Cups) -> tuple[float, RecipeUnit] | None:
    """A weight that stands in brackets beside a volume wins over it."""
    for aside in _ASIDE.findall(body):
        amount, unit, _ = _amount(re.sub(r"^(?:about|ca\.?|or|~)\s*", "", aside.strip()), cups)
        if amount is not None and unit in RECIPE_GRAMS:
            return amount, unit
    return None


def _without_basis(body: str, cups: Cups) -> tuple[str, Basis | None]:
    """Take "per pound", "for a gallon of water" off the end of a line."""
    found = _PER.search(body)
    if found is None:
        return body, None
    what = found["what"]
    if _number(what) is None:
        what = f"1 {what}"
    amount, unit, words = _amount(what, cups)
    if amount is None or amount <= 0 or unit is None or unit == "piece":
        return body, None
    if words and not (_OF_WATER.search(words) or meats(words) or "meat" in words.lower()):
        return body, None
    if unit in RECIPE_GRAMS and not _OF_WATER.search(words):
        return body[: found.start()].strip(), Basis("meat", amount * RECIPE_GRAMS[unit])
    grams = amount * (RECIPE_ML[unit] if unit in RECIPE_ML else RECIPE_GRAMS[unit])
    return body[: found.start()].strip(), Basis("water", grams)
