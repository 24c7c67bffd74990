"""How long a recipe says that the piece lies."""

import re
from typing import Final

from pantry_core.measures.quantity import NotAQuantity, leading_number
from pantry_core.recipes.words import NUMBER_WORDS, OVERNIGHT, OVERNIGHT_D, TIME_UNITS

_FOR: Final = re.compile(
    r"(?:\b(?:for|about|leave|during|f[üu]r|w[äa]hrend|pendant|durante|per)\s+)?(?P<low>\d{1,3}"
    r"(?:[.,]\d)?(?:\s*1/2|½)?|\b(?:"
    + "|".join(sorted(NUMBER_WORDS, key=len, reverse=True))
    + r")\b)(?:\s*(?:-|–|to|bis|[àa]|or)\s*(?P<high>\d{1,3}))?",
    re.IGNORECASE,
)
_KEEPS: Final = re.compile(
    r"\b(?:keeps?|lasts?|h[äa]lt|se conserve|se garde|best before)\b", re.IGNORECASE
)
MOST_D = 365.0


def days_in(text: str) -> tuple[float | None, str]:
    """How long a text says that the piece lies, and the text without that.

    Parameters: text.
    Returns: days, the middle of a range; None where it says nothing, or says how long it keeps.

    >>> days_in("Leave it 5 to 7 days in the fridge")
    (6.0, 'Leave it in the fridge')
    >>> days_in("40 g salt")
    (None, '40 g salt')
    """
    if _KEEPS.search(text):
        return None, text
    for found in _FOR.finditer(text):
        rest = text[found.end() :]
        for unit, days in TIME_UNITS:
            said = unit.match(rest)
            low = number_said(found["low"]) if said else None
            if said is None or low is None:
                continue
            high = float(found["high"]) if found["high"] else low
            total = days * (low + high) / 2.0
            if 0 < total <= MOST_D:
                return total, _joined(text[: found.start()], rest[said.end() :])
    night = OVERNIGHT.search(text)
    if night:
        return OVERNIGHT_D, _joined(text[: night.start()], text[night.end() :])
    fortnight = re.search(r"\b(?:for )?a? ?fortnight\b", text, re.IGNORECASE)
    if fortnight:
        return 14.0, _joined(text[: fortnight.start()], text[fortnight.end() :])
    return None, text


def number_said(said: str) -> float | None:
    """A number in figures or in words, None where it is none.

    >>> number_said("five"), number_said("2½"), number_said("soon")
    (5.0, 2.5, None)
    """
    word = NUMBER_WORDS.get(" ".join(said.lower().split()))
    if word is not None:
        return word
    try:
        found = leading_number(said)
    except NotAQuantity:
        return None
    return found[0] if found else None


def _joined(before: str, after: str) -> str:
    return " ".join(f"{before} {after}".split()).strip(" ,;.")
