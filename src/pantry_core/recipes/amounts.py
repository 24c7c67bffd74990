"""The amount that a piece of a recipe line begins or ends with, as people write it."""

import re
from dataclasses import dataclass, replace
from typing import Final

from pantry_core.measures.quantity import NotAQuantity, leading_number
from pantry_core.measures.units import RECIPE_GRAMS, RECIPE_ML, RecipeUnit
from pantry_core.recipes.words import (
    ANY_CUP,
    BIG,
    CONTAINER,
    FIXED,
    HEAPED,
    LEVEL,
    NUMBER_WORDS,
    OF,
    SPELLINGS,
    Cups,
    Sized,
)
from pantry_core.text import say

_UNIT = re.compile(
    r"\s*-?\s*(?:(?P<big>" + "|".join(f"(?:{each})" for each in BIG.values()) + r")\.?\s+)?(?:"
    + "|".join(f"(?P<u{i}>{spelt})" for i, spelt in enumerate(SPELLINGS.values()))
    + r")(?![\w#])\.?",
    re.IGNORECASE,
)  # fmt: skip
_WORDS = re.compile(
    r"\s*(" + "|".join(sorted(NUMBER_WORDS, key=len, reverse=True)) + r")\b(?!\s*-)", re.IGNORECASE
)
_MIXED = re.compile(r"^\s*(\d{1,4})\s*[-–]\s*(\d{1,2})\s*/\s*(\d{1,2})(?![\d/])")
_AND_A_HALF = re.compile(r"^\s*(?:and|&)\s+(?:a\s+half|1/2|\u00bd)\b", re.IGNORECASE)
_RANGE = re.compile(
    r"\s*(?:-|–|—|\b(?:to|or|bis|[àa]|ou|oder|o)\b)\s*(?=[\d½¼¾⅓⅔⅛.])", re.IGNORECASE
)
_POINTED = re.compile(r"^\s*([1-9]\d{0,2})\.(\d{3})(?![\d])")
_TIMES = re.compile(r"\s*[x×*]\s*(?=[\d½¼¾⅓⅔⅛.])", re.IGNORECASE)
_OTHERWISE = re.compile(r"\s*(?:/|=|,|\bor\b|\babout\b|[-–])\s*(?=[\d½¼¾⅓⅔⅛.])", re.IGNORECASE)
_AND_MORE = re.compile(
    r"\s*(?:\+|&|\bplus\b|\band\b|\bund\b|\bet\b)\s*(?=[\d½¼¾⅓⅔⅛.]|an? )", re.IGNORECASE
)
_IN_BRACKETS = re.compile(r"\s*\(([^()]*)\)\s*")
ALIKE = 0.2
"""Two measures of the same thing differ by so much at the most, by rounding (common practice)."""
_SURE_UNITS: Final = ("kg", "l", "lb")
"""A point and three digits before these is a decimal: nobody takes 1250 kg."""


@dataclass(frozen=True, slots=True)
class Amount:
    """An amount: its middle and its upper end in a unit of recipe documents, None without a unit.

    `is_heaped`: of a heaped spoon; `in_containers`: of bottles, cubes, packets of no known size;
    `counted`: the word in which it is counted, as “bunch” or “cube”.
    """

    middle: float
    upper: float
    unit: RecipeUnit | None = None
    is_heaped: bool = False
    in_containers: bool = False
    counted: str = ""

    def times(self, factor: float) -> "Amount":
        """So many times as much."""
        return replace(self, middle=self.middle * factor, upper=self.upper * factor)

    def in_base(self) -> tuple[float, float, str] | None:
        """Middle and upper end in grams or millilitres, None for what is counted."""
        if self.unit in RECIPE_GRAMS:
            factor, base = RECIPE_GRAMS[self.unit], "g"
        elif self.unit in RECIPE_ML:
            factor, base = RECIPE_ML[self.unit], "ml"
        else:
            return None
        return factor * self.middle, factor * self.upper, base


def amount_at(text: str, cups: Cups) -> tuple[Amount, str] | None:
    """The amount that a text begins with, and the rest of the text.

    Parameters: text; cups, whose cups, spoons, pints and quarts are meant where it does not say.
    Returns: amount and rest; None where the text begins with none.
    Raises: NotAQuantity for a number with two meanings.

    >>> amount, words = amount_at("2 (12 oz) bottles ale", "us")
    >>> amount.middle, amount.unit, words
    (24.0, 'oz', 'ale')
    """
    found = _number(text)
    if found is None:
        return None
    low, high, rest = found
    many = _many(low, high, rest, cups)
    if many is not None:
        return many
    first, rest = _with_unit(low, high, rest, cups, text)
    if first.unit is not None:
        first, rest = _summed(first, rest, cups)
        first, rest = _otherwise(first, rest, cups)
    return first, _tidy(rest)


def amount_behind(text: str, cups: Cups) -> tuple[Amount, str] | None:
    """The amount with a unit that a text ends with ("salt: 20 g"), and what stands before it."""
    for at in re.finditer(r"(?:^|[\s,:;–-])(?=[\d½¼¾⅓⅔⅛])", text):
        found = amount_at(text[at.end() :], cups)
        if found is not None and found[0].unit is not None and not found[1].strip(" .,;"):
            return found[0], text[: at.start()].strip(" ,:;–-")
    return None


def in_brackets(text: str, cups: Cups) -> Amount | None:
    """A weight that stands in brackets beside another amount."""
    for aside in _IN_BRACKETS.findall(text):
        for part in re.split(r"\s*(?:[,;/=]|\bor\b)\s*", aside):
            found = amount_at(LEVEL.sub("", f" {part} ").strip(" ~"), cups)
            if found is not None and found[0].unit in RECIPE_GRAMS and not found[1]:
                return found[0]
    return None


def _number(text: str) -> tuple[float, float, str] | None:
    """Number or range at the beginning: low and high end, and the rest."""
    pointed = _POINTED.match(text)
    if pointed:
        unit = _UNIT.match(text[pointed.end() :])
        if unit is None or _spelt(unit) not in _SURE_UNITS:
            whole, after = pointed.groups()
            raise NotAQuantity(
                say(
                    "“{whole}.{after}” can mean {whole}{after} or {whole}.{short}; write the one "
                    "you mean",
                    whole=whole,
                    after=after,
                    short=after.rstrip("0") or "0",
                )
            )
    one = _one(text)
    if one is None:
        return None
    value, rest = one
    until = _RANGE.match(rest)
    if until:
        second = _one(rest[until.end() :])
        if second is not None and second[0] >= value:
            return value, second[0], second[1]
    return value, value, rest


def _one(text: str) -> tuple[float, str] | None:
    """One number at the beginning, in digits or in words."""
    spelt = text.replace("\u00bd", " 1/2").replace("\u00bc", " 1/4").replace("\u00be", " 3/4")
    mixed = _MIXED.match(spelt)
    if mixed and 0 < int(mixed[2]) < int(mixed[3]):
        return int(mixed[1]) + int(mixed[2]) / int(mixed[3]), spelt[mixed.end() :]
    found = leading_number(text)
    if found is None:
        word = _WORDS.match(text)
        if word is None:
            return None
        found = NUMBER_WORDS[" ".join(word.group(1).lower().split())], text[word.end() :]
    value, rest = found
    half = _AND_A_HALF.match(rest)
    return (value + 0.5, rest[half.end() :]) if half else (value, rest)


def _many(low: float, high: float, rest: str, cups: Cups) -> tuple[Amount, str] | None:
    """As in "2 x 500 g", "2 (12 oz) bottles", "2 12-oz bottles": so many of a size."""
    times = _TIMES.match(rest)
    aside = _IN_BRACKETS.match(rest)
    if times:
        inner, after = rest[times.end() :], None
    elif aside and CONTAINER.match(rest[aside.end() :]):
        inner, after = aside.group(1), rest[aside.end() :]
    elif re.match(r"\s+\d", rest):
        inner, after = rest, None
    else:
        return None
    found = amount_at(LEVEL.sub("", f" {inner}").strip(), cups)
    if found is None or found[0].unit is None:
        return None
    size, left = found
    left = after if after is not None else left
    container = CONTAINER.match(f" {left}")
    if after is None and not times and container is None:
        return None
    if container:
        left = f" {left}"[container.end() :]
    product = Amount(low * size.middle, high * size.upper, size.unit)
    return product, _tidy(left)


def _with_unit(low: float, high: float, rest: str, cups: Cups, text: str) -> tuple[Amount, str]:
    heaped = HEAPED.match(f" {rest}")
    after = f" {rest}"[heaped.end() :] if heaped else rest
    level = LEVEL.match(f" {after}")
    unit = _UNIT.match(f" {after}"[level.end() :] if level else after)
    if unit is None:
        held = CONTAINER.match(rest)
        counted = held.group().strip().lower() if held else ""
        amount = Amount((low + high) / 2, high, in_containers=held is not None, counted=counted)
        return amount, rest[held.end() :] if held else rest
    name, factor = _sized(unit, cups)
    counted = unit.group().strip().lower() if name == "piece" else ""
    middle = (low + high) / 2 * factor
    amount = Amount(middle, high * factor, name, heaped is not None, counted=counted)
    return amount, unit.string[unit.end() :]


def _summed(first: Amount, rest: str, cups: Cups) -> tuple[Amount, str]:
    """As in "1 lb 4 oz", "½ cup plus 1 tbsp": what is added before the thing is named."""
    more = _AND_MORE.match(rest)
    begins = rest[more.end() :] if more else rest
    if more is None and not re.match(r"\s+[\d½¼¾⅓⅔⅛]", rest):
        return first, rest
    second = _number(begins)
    if second is None:
        return first, rest
    unit = _UNIT.match(second[2])
    if unit is None:
        return first, rest
    name, factor = _sized(unit, cups)
    added = Amount((second[0] + second[1]) / 2 * factor, second[1] * factor, name)
    one, two = first.in_base(), added.in_base()
    if one is None or two is None or one[2] != two[2] or (more is None and two[0] >= one[0]):
        return first, rest
    base: RecipeUnit = "g" if one[2] == "g" else "ml"
    total = Amount(one[0] + two[0], one[1] + two[1], base, first.is_heaped)
    return total, second[2][unit.end() :]


def _otherwise(first: Amount, rest: str, cups: Cups) -> tuple[Amount, str]:
    """As in "1 cup/240 ml", "8 oz, 225 g": the same by another measure; a weight wins."""
    other = _OTHERWISE.match(rest)
    if other is None:
        return first, rest
    found = _number(rest[other.end() :])
    unit = _UNIT.match(found[2]) if found else None
    if found is None or unit is None:
        return first, rest
    name, factor = _sized(unit, cups)
    second = Amount((found[0] + found[1]) / 2 * factor, found[1] * factor, name)
    one, two = first.in_base(), second.in_base()
    if one is not None and two is not None and one[2] == two[2]:
        if first.unit == "lb" and name == "oz":
            return Amount(one[0] + two[0], one[1] + two[1], "g"), found[2][unit.end() :]
        if abs(two[0] - one[0]) > ALIKE * one[0]:
            raise NotAQuantity("two amounts that are not the same; write the one that is meant")
    wins = second if name in RECIPE_GRAMS and first.unit not in RECIPE_GRAMS else first
    return wins, found[2][unit.end() :]


def _sized(found: re.Match[str], cups: Cups) -> Sized:
    name = _spelt(found)
    size = (found.group("big") or "").lower().rstrip(".")
    for big, spellings in BIG.items():
        if size and re.fullmatch(spellings, size) and f"{big} {name}" in FIXED:
            return FIXED[f"{big} {name}"]
    return ANY_CUP[name][cups] if name in ANY_CUP else FIXED[name]


def _spelt(found: re.Match[str]) -> str:
    return next(name for i, name in enumerate(SPELLINGS) if found.group(f"u{i}") is not None)


def _tidy(rest: str) -> str:
    return OF.sub("", rest).strip()
