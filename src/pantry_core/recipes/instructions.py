"""Lines of a recipe that say what is done, not what goes in."""

import re
from typing import Final

from pantry_core.measures.temperature import parse_temperature

_HEAT: Final = (
    r"smok|simmer|roast|bak|fry|fried|sear|glaz|cook|boil|brais|grill|steam|poach|brown|crisp|rest"
)
_DONE: Final = re.compile(
    rf"\s*(?:then |and )?(?:{_HEAT}|tak|turn|rins|eat|serv|keep|kept|forget|slic|cover|dry|dried|"
    r"pat|put|mix|stir|leave|left|let|wash|soak|under a|until|at \d)\w*\b",
    re.IGNORECASE,
)
_AT_THE_HEAT: Final = re.compile(rf"\s*(?:then |and )?(?:{_HEAT})\w*\b", re.IGNORECASE)
_FOR_MINUTES: Final = re.compile(
    r"\s*(?:\d+|an?|half an)(?:\s*(?:-|–|to)\s*\d+)?\s*(?:minutes?|mins?|hours?|hrs?|h)\b",
    re.IGNORECASE,
)
_TO_THE_POT: Final = re.compile(
    r"\b(?P<share>half|a half|a third|one third|two thirds|a quarter|all|\d+ ?%)\s+(?:of\s+)?"
    r"(?:the\s+)?(?:used\s+)?(?:brine|liquid|marinade|pickle)\b[^.;]*\bpot\b",
    re.IGNORECASE,
)
_TAKEN_OUT: Final = re.compile(
    r"\b(?:out|off|pull\w*(?:\s+(?:it|them))?)\s+at\s+"
    r"(?P<degrees>\d{2,3})\s*(?:°|º|degrees?)?\s*(?P<unit>[CF]\b)?",
    re.IGNORECASE,
)
_INSIDE_C: Final = (40.0, 99.0)
"""Between these a figure is the inside of a piece; a larger one without a unit is °F."""
SHARES: Final = {"half": 0.5, "a half": 0.5, "a third": 1 / 3, "one third": 1 / 3,
                  "two thirds": 2 / 3, "a quarter": 0.25, "all": 1.0}  # fmt: skip


def is_instruction(text: str) -> bool:
    """Whether a line that no table knows says what is done.

    >>> is_instruction("taken out at 71, rested"), is_instruction("moon moss")
    (True, False)
    """
    return _DONE.match(text) is not None


def is_for_a_time(text: str) -> bool:
    """Whether a line begins with a time at the heat, or says what of the brine goes into the pot.

    >>> is_for_a_time("12 minutes in a very hot oven"), is_for_a_time("12 peppercorns")
    (True, False)
    """
    return _FOR_MINUTES.match(text) is not None or _TO_THE_POT.search(text) is not None


def is_at_the_heat(text: str) -> bool:
    """Whether the time that a line says is one at the heat or after it, not in the cure.

    >>> is_at_the_heat("smoked at 110 for two hours"), is_at_the_heat("two days under a weight")
    (True, False)
    """
    return _AT_THE_HEAT.match(text) is not None


def taken_out_c_said(text: str) -> float | None:
    """At how much inside a recipe takes its piece from the heat [°C]; None where it does not say.

    >>> taken_out_c_said("taken out at 71, rested"), taken_out_c_said("pull it at 160 F")
    (71.0, 71.0)
    """
    for sentence in _TAKEN_OUT.finditer(text):
        degrees = sentence["degrees"]
        unit = sentence["unit"] or ("F" if float(degrees) > _INSIDE_C[1] else "C")
        inside_c = parse_temperature(f"{degrees} {unit}")
        if _INSIDE_C[0] <= inside_c <= _INSIDE_C[1]:
            return inside_c
    return None


def liquid_to_pot_said(text: str) -> float:
    """What of the used brine a recipe puts into the pot [-]; 0 where it says nothing.

    >>> liquid_to_pot_said("half of the brine goes into the pot")
    0.5
    """
    sentence = _TO_THE_POT.search(text)
    if sentence is None:
        return 0.0
    share = sentence["share"].lower()
    return SHARES[share] if share in SHARES else min(float(share.rstrip("% ")) / 100.0, 1.0)
