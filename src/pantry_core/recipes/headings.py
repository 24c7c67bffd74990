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


def part_of(heading: str) -> Part | None:
    """The part of a recipe that a heading names.

    Parameters: heading, such as "For the pot:".
    Returns: the part, None where it names none.
    Raises: nothing. Source: common practice.

    >>> part_of("For the gravy:"), part_of("per pound:")
    ('sauce', None)
    """
    for part, words in _WORDS:
        if re.search(rf"\b(?:{words})", heading, re.IGNORECASE):
            return part
    return None
