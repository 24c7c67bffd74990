"""To which part of a recipe the lines beneath a heading go, by its words."""

import re
from typing import Final, Literal

Part = Literal["cure", "pot", "coat", "stuffing", "sauce", "table"]
_WORDS: Final[tuple[tuple[Part, str], ...]] = (
    ("coat", r"coat|bread(?:ing|ed)|batter|dredge|crust|panade|panier|panure|rebozado|impanatura"),
    ("stuffing", r"stuff|filling|f[üu]llung|farce|relleno|ripieno"),
    ("sauce", r"sauce|gravy|glaze|reduction|so(?:ss|ß)e|salsa"),
    ("pot", r"pot\b|broth|simmer|braise|cook(?:ing)?\b|topf|kochen|cuisson|olla|pentola"),
    ("table", r"serve|serving|table|garnish|dazu|accompagn|servir|servire"),
    ("cure", r"brine|cure|marinade|rub|lake|p[öo]kel|saumure|salmuera|salamoia"),
)


_BEGINS: Final = re.compile(
    r"\s*(?:for|f[üu]r|zum|zur|pour|para|per (?:il|la|lo)|to serve|at the)\b", re.IGNORECASE
)
MOST_WORDS: Final = 2
"""A heading without a colon has no more words."""


def part_of(heading: str) -> Part | None:
    """The part of a recipe that a heading names.

    Parameters: heading, such as "For the pot:".
    Returns: the part; None where it names none, and for a sentence that only has such a word.
    Raises: nothing. Source: common practice.

    >>> part_of("For the gravy:"), part_of("per pound:"), part_of("Two heats and a pot")
    ('sauce', None, None)
    """
    is_short = len(heading.split()) <= MOST_WORDS
    if not (heading.rstrip().endswith(":") or _BEGINS.match(heading) or is_short):
        return None
    for part, words in _WORDS:
        if re.search(rf"\b(?:{words})", heading, re.IGNORECASE):
            return part
    return None
