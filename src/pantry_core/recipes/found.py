"""A recipe as it was found, in text or as a schema.org Recipe, and scaled to a piece."""

import json
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from html.parser import HTMLParser

from pantry_core.errors import within
from pantry_core.foods.ingredient import ingredient
from pantry_core.quantities import Number
from pantry_core.recipes.cut_words import cut_in
from pantry_core.recipes.line import Basis, ReadLine
from pantry_core.recipes.lines import UNKNOWN, read_things
from pantry_core.recipes.words import Cups
from pantry_core.text import say

MOST_BYTES = 1_000_000
MOST_LINES = 120
DEEPEST = 6


class NotARecipe(ValueError):
    """What was given is no recipe; the message says what is allowed."""


@dataclass(frozen=True, slots=True)
class Recipe:
    """A recipe: its name, where it has one, and its lines as text."""

    name: str
    lines: tuple[str, ...]


def read_lines(text: str, cups: Cups = "us") -> tuple[ReadLine, ...]:
    """Read a recipe line by line.

    Parameters: text, at most 120 lines that are not empty; cups, whose cups are meant.
    Returns: the things of all lines, in order. A heading such as "per pound" or "for 1 gallon of
    water" holds for the lines after it that do not say otherwise; a line that names the meat holds
    for all of them.
    Raises: NotARecipe for more lines.
    """
    written = [each for each in text.splitlines() if each.strip()]
    if len(written) > MOST_LINES:
        raise NotARecipe(
            say(
                "A recipe of {written} lines is too long; use at most {most_lines}.",
                written=Number(len(written)),
                most_lines=Number(MOST_LINES),
            )
        )
    things = [thing for each in written for thing in read_things(each, cups)]
    if things and _is_title(things[0]):
        things[0] = ReadLine(things[0].text, is_meat=things[0].is_meat, is_heading=True)
    return tuple(_with_headings(things))


_DISH = re.compile(
    r"\b(?:leg|loin|breast|side|roast|loaf|bird|stew|supper|dinner|ham)\b", re.IGNORECASE
)
"""Words by which the first line, without an amount, is the name of a dish."""


def _is_title(line: ReadLine) -> bool:
    """Whether the first line names the dish: no table knows it, and it has no amount."""
    is_unknown = line.keys in ((), UNKNOWN) and not line.strength and not line.is_heading
    is_a_dish = _DISH.search(line.text) is not None or cut_in(line.text) is not None
    return (is_unknown or is_a_dish) and re.search(r"\d|[½¼¾]", line.text) is None


def _with_headings(lines: Sequence[ReadLine]) -> Iterator[ReadLine]:
    held_back = max((each.held_back for each in lines if each.is_heading), default=0.0)
    for line in _with_bases(lines):
        is_spice = bool(line.keys) and ingredient(line.keys[0]).role == "spice"
        yield replace(line, held_back=held_back) if is_spice and not line.held_back else line


def _with_bases(lines: Sequence[ReadLine]) -> Iterator[ReadLine]:
    heading = next((each.per for each in lines if each.is_meat and each.per), None)
    for line in lines:
        if line.is_heading:
            heading = line.per or heading
            yield line
        elif line.per is None and heading is not None:
            yield replace(line, per=heading)
        else:
            yield line


def factor(per: Basis | None, meat_g: float, water_g: float | None) -> float:
    """By how much an amount grows for this piece.

    Parameters: per, what it is for; meat_g and water_g, of this dish [g], water_g None where the
    dish says none: then water grows as the meat does.
    Returns: the factor [-], 1 for a recipe that does not say.
    Raises: OutOfRange.

    >>> factor(Basis("meat", 500.0), 2400.0, None)
    4.8
    """
    within("meat_g", meat_g, 1e-6, 1e6, "g")
    if per is None:
        return 1.0
    if per.of == "meat":
        return meat_g / per.grams
    return (water_g if water_g is not None else meat_g) / per.grams


def from_json_ld(content: bytes) -> Recipe:
    """Take the ingredients out of a schema.org Recipe in JSON-LD, or out of a page that holds one.

    Parameters: content, at most 1 MB, UTF-8.
    Returns: the recipe.
    Raises: NotARecipe with what is allowed.
    Source: schema.org, Recipe: `recipeIngredient`, formerly `ingredients` (from memory).
    """
    if len(content) > MOST_BYTES:
        raise NotARecipe(
            say(
                "This file has {megabytes} MB; use a recipe of 1 MB at the most.",
                megabytes=Number(len(content) / 1e6, 1),
            )
        )
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise NotARecipe("This is not text in UTF-8; use a JSON file.") from None
    for piece in _scripts(text) if text.lstrip().startswith("<") else [text]:
        try:
            found = _recipe_in(json.loads(piece), DEEPEST)
        except (ValueError, RecursionError):
            continue
        if found is not None:
            return found
    raise NotARecipe(
        "No schema.org Recipe with ingredients was found in this; use a JSON-LD file whose "
        "@type is Recipe, with recipeIngredient."
    )


def _recipe_in(data: object, depth: int) -> Recipe | None:
    if depth == 0:
        return None
    if isinstance(data, list):
        found = (_recipe_in(each, depth - 1) for each in data)
        return next((each for each in found if each is not None), None)
    if not isinstance(data, dict):
        return None
    kinds = data.get("@type")
    listed = data.get("recipeIngredient", data.get("ingredients"))
    is_recipe = kinds == "Recipe" or (isinstance(kinds, list) and "Recipe" in kinds)
    if is_recipe and isinstance(listed, list):
        lines = tuple(each.strip() for each in listed if isinstance(each, str) and each.strip())
        if lines:
            name = data.get("name")
            return Recipe(name[:80] if isinstance(name, str) else "", lines[:MOST_LINES])
    for held in ("@graph", "mainEntity", "mainEntityOfPage"):
        found_inside = _recipe_in(data.get(held), depth - 1)
        if found_inside is not None:
            return found_inside
    return None


class _Scripts(HTMLParser):
    def __init__(self) -> None:
        super().__init__()
        self.found: list[str] = []
        self._inside = False

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        """Note where a script with data begins."""
        self._inside = tag == "script" and ("type", "application/ld+json") in attrs

    def handle_data(self, data: str) -> None:
        """Keep what is in it."""
        if self._inside:
            self.found.append(data)

    def handle_endtag(self, tag: str) -> None:
        """Note where it ends."""
        self._inside = False


def _scripts(page: str) -> list[str]:
    parser = _Scripts()
    parser.feed(page)
    return parser.found
