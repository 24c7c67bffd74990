"""The piece that a recipe names: its cut, its weight, and whether it is ground."""

import re
from dataclasses import dataclass
from typing import Final

from pantry_core.recipes.cut_words import cut_in
from pantry_core.recipes.found import read_lines
from pantry_core.recipes.words import Cups

_GROUND: Final = re.compile(r"\b(?:ground|minced|mince|sausage meat)\b", re.IGNORECASE)
_RAW: Final = re.compile(
    r"\b(?:eaten|served?|sliced) raw\b|\braw[ -]cured\b|\broh (?:gegessen|serviert|essen)\b|"
    r"\b(?:mang[ée]e?|servie?) crue?\b|\bse come crud[oa]\b|\bmangiat[oa] crud[oa]\b",
    re.IGNORECASE,
)
_MASS: Final = re.compile(
    r"(?P<count>\d+(?:[.,]\d+)?)\s*(?P<unit>kg|kilos?|g|grams?|lbs?|pounds?)\b", re.IGNORECASE
)
_GRAMS: Final = {"k": 1000.0, "g": 1.0, "l": 453.59237, "p": 453.59237}


@dataclass(frozen=True, slots=True)
class PieceSaid:
    """What a recipe says of its piece; None what it does not say: cut, mass [g]; and its title.

    `is_raw`: it is eaten raw.
    """

    cut: str | None
    mass_g: float | None
    is_ground: bool = False
    title: str = ""
    is_raw: bool = False


def piece_said(text: str, cups: Cups = "us") -> PieceSaid:
    r"""The piece that a recipe names.

    Parameters: text of the recipe; cups, whose are meant.
    Returns: the cut by its words and the weight of the line that names it, else of a line of the
    meat; None for what it does not say.
    Raises: NotARecipe for a text that is too long.
    Source: common practice.

    >>> piece_said("3 lb brisket\n1 gallon water\n1 cup salt").cut
    'brisket'
    >>> piece_said("1 kg minced veal and pork\n2 onions").mass_g
    1000.0
    """
    lines = read_lines(text, cups)
    meat = [each for each in lines if each.is_meat]
    is_titled = bool(lines) and lines[0].is_heading and not lines[0].per and not lines[0].days
    title = lines[0].text.strip(" .:") if is_titled else ""
    mass_g = next((each.per.grams for each in meat if each.per), None)
    of_a_cut = [each.text for each in meat if cut_in(each.text) is not None]
    written = next(iter(of_a_cut or [each.text for each in meat]), "")
    for line in text.splitlines():
        cut = cut_in(line)
        if mass_g is None and cut is not None:
            weight = _MASS.search(line)
            if weight is not None:
                mass_g = (
                    float(weight["count"].replace(",", ".")) * _GRAMS[weight["unit"][0].lower()]
                )
        if cut_in(written) is None and cut is not None:
            written = line
    is_ground = _GROUND.search(written) is not None
    return PieceSaid(cut_in(written), mass_g, is_ground, title, _RAW.search(text) is not None)
