"""A line of a recipe that holds several things, taken apart."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from pantry_core.foods.ingredient import ingredient
from pantry_core.recipes.amounts import Amount, amount_at, amount_behind
from pantry_core.recipes.names import match, meats
from pantry_core.recipes.words import Cups
from pantry_core.text import say

_JOINS: Final = r"\+|;|&|(?<!\d),|,(?=\s)|\b(?:plus|with|and|und|mit|et|avec|y|con|e)\b"
_ONE: Final = r"(?:an?|half an?|one|two|ein(?:e|en)?|une?|una)"
_SOME: Final = (
    r"(?:pinch|dash|tsp|teaspoon|tbsp|tablespoon|cup|litre|liter|prise|pinc[ée]e|pizca|pizzico|"
    r"handful|kg|pound|gallon|quart|pint)"
)
_BEFORE_AMOUNT: Final = re.compile(
    rf"\s*(?:{_JOINS})\s*(?:(?:{_JOINS})\s*)?(?!\d+(?:[.,]\d+)?\s*%)"
    rf"(?=[\d½¼¾⅓⅔⅛]|{_ONE}\s+{_SOME})",
    re.IGNORECASE,
)
_BETWEEN_NAMES: Final = re.compile(rf"\s*(?:{_JOINS})\s*", re.IGNORECASE)
_ALTERNATIVE: Final = re.compile(r"\s*(?:\bor\b|\bou\b|\boder\b|/)\s*", re.IGNORECASE)
_OF_WHICH: Final = re.compile(
    r"\s*,?\s*\b(?:of which|of that|including|davon|dont|de los cuales|di cui)\b\s*", re.IGNORECASE
)
_EACH: Final = re.compile(r"\b(?:each(?: of)?|je|jeweils|chacun(?:e)?|cada uno|ciascuno)\b:?",
                          re.IGNORECASE)  # fmt: skip
_ASIDE: Final = re.compile(r"\([^()]*\)")


@dataclass(frozen=True, slots=True)
class Part:
    """One thing of a line: its text, its amount where the line says it elsewhere, what is wrong."""

    text: str
    amount: Amount | None = None
    problem: str = ""


def parts_of(body: str, cups: Cups) -> Iterator[Part]:
    """The things that a line holds, in order.

    Parameters: body, the line without bullet, basis and time; cups as in `amount_at`.
    Returns: one part at least; a part keeps its own amount in its text unless the line says it for
    several things at once.
    Raises: NotAQuantity.

    >>> [part.text for part in parts_of("1 l water with 40 g salt", "us")]
    ['1 l water', '40 g salt']
    """
    contained = _OF_WHICH.split(_hidden(body), maxsplit=1)
    if len(contained) == 2:
        yield from _contained(body, cups)
        return
    if _EACH.search(body):
        yield from _of_each(body, cups)
        return
    for piece in _split(body, _BEFORE_AMOUNT, cups):
        yield from _named_together(piece, cups)


def _hidden(body: str) -> str:
    """The body with what stands in brackets blotted out, so that it is not split there."""
    return _ASIDE.sub(lambda found: "\0" * len(found.group()), body)


def _split(body: str, joins: re.Pattern[str], cups: Cups) -> Iterator[str]:
    """The body cut before each amount that begins a new thing."""
    begin = 0
    for found in joins.finditer(_hidden(body)):
        left = body[begin : found.start()]
        amount = amount_at(left, cups)
        names_something = bool(re.search(r"[^\W\d_]{3,}", amount[1] if amount else left))
        if not names_something or _is_trait(left, body[found.end() :], cups):
            continue
        yield left.strip(" ,")
        begin = found.end()
    yield body[begin:].strip(" ,")


def _is_trait(left: str, right: str, cups: Cups) -> bool:
    """Whether the amount on the right is that of the left ("salt, 40 g", "eau, 1 l")."""
    if amount_at(left, cups) is not None:
        return False
    found = amount_at(right, cups)
    return found is not None and not re.search(r"[^\W\d_]{3,}", found[1])


def _contained(body: str, cups: Cups) -> Iterator[Part]:
    """As in "100 g salt, of which 20 g nitrite salt": the rest of it, and what is in it."""
    whole, inner = _OF_WHICH.split(body, maxsplit=1)
    outer, held = amount_at(whole, cups), amount_at(inner, cups)
    one = outer[0].in_base() if outer else None
    two = held[0].in_base() if held else None
    if outer is None or held is None or one is None or two is None or one[2] != two[2]:
        yield Part(body, problem="How much of each? Write them on two lines.")
        return
    left = one[0] - two[0]
    if left < 0:
        yield Part(body, problem="More of it is in it than there is; write them on two lines.")
        return
    base = "g" if one[2] == "g" else "ml"
    yield Part(outer[1], Amount(left, left, base))  # type: ignore[arg-type]  # g or ml
    yield Part(inner.strip())


def _of_each(body: str, cups: Cups) -> Iterator[Part]:
    """As in "2 tbsp each salt, sugar and pepper": the same amount of all of them."""
    rest = _EACH.sub(" ", body)
    found = amount_at(rest, cups) or amount_behind(rest, cups)
    if found is None or found[0].unit is None:
        yield Part(body, problem="How much of each? Write them on lines of their own.")
        return
    amount, names = found
    for name in _BETWEEN_NAMES.split(names):
        if name.strip():
            yield Part(name.strip(), amount)


def _named_together(piece: str, cups: Cups) -> Iterator[Part]:
    """One amount, or none, before several names ("salt and pepper", "2 l water + ice")."""
    found = amount_at(piece, cups)
    words = found[1] if found else piece
    names = [each for each in _BETWEEN_NAMES.split(_hidden(words)) if each.strip()]
    known = [each for each in names if match(each) is not None and not meats(each)]
    alternatives = [each for each in _ALTERNATIVE.split(_hidden(words)) if each.strip()]
    either = {match(each) for each in alternatives if _role(each) != "spice"} - {None}
    if len(either) > 1 and len(alternatives) > 1:
        yield Part(piece, problem="Which of them is it? Write the one that goes in.")
        return
    keys = {match(each) for each in known}
    if len(keys) < 2 or match(words) is None:
        yield Part(piece)
        return
    says_strength = any("%" in each for each in names)
    if says_strength or all(_role(each) == "spice" for each in known):
        yield Part(piece)
        return
    if found is None:
        yield from (Part(each.strip()) for each in names)
        return
    first, *rest = (each.strip() for each in words.split(","))
    if rest and first and all(_is_harmless(each) for each in rest):
        yield Part(first, found[0])
        yield from (Part(each) for each in rest)
        return
    for name in names:
        yield Part(
            name.strip(),
            problem=say("How much {name}? Give each its own amount.", name=name.strip()),
        )


def _is_harmless(name: str) -> bool:
    """Whether it carries neither salt nor a cure, and no amount of it is needed."""
    found = match(re.sub(r"\d+", "", name))
    if found is None:
        return False
    kind = ingredient(found.keys[0])
    return kind.role == "spice" or (kind.role == "sauce" and not kind.salt and not kind.needs_label)


def _role(name: str) -> str:
    found = match(name)
    return ingredient(found.keys[0]).role if found else ""
