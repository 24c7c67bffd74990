"""How a recipe cooks its piece, by the words of the lines that say what is done at the heat."""

import re
from typing import Final

from pantry_core.recipes.instructions import is_at_the_heat, is_for_a_time

_AFTER: Final = (
    r"(?=\s*(?:$|[,.;:]|at|for|in|into|on|over|until|till|to|with|then|and|low|hot|slow|slowly|it|them|"
    r"gently|under|crisp|whole|a|per|\d)\b|\s*$|\s*[,.;:])"
)
_VERBS: Final = {
    "cold-smoke": r"cold[- ]smok\w+", "smoke": r"smok(?:e|ed|ing)", "simmer": r"simmer(?:ed|ing)?",
    "boil": r"boil(?:ed|ing)?", "glaze": r"glaz(?:e|ed|ing)", "braise": r"brais(?:e|ed|ing)",
    "stir-fry": r"stir[- ]?fr(?:y|ied)", "fry": r"(?:deep[- ]?)?fr(?:y|ied|ying)",
    "sear": r"sear(?:ed|ing)?", "grill": r"grill(?:ed|ing)?|barbecued?", "poach": r"poach(?:ed)?",
    "steam": r"steam(?:ed)?", "bake": r"bak(?:e|ed)", "roast": r"roast(?:ed)?",
    "crisp": r"crisp(?:ed)?",
}  # fmt: skip
_VERB: Final = {
    name: re.compile(rf"\b(?:{words})\b{_AFTER}", re.IGNORECASE) for name, words in _VERBS.items()
}
_WORDS: Final = {
    "pressure": re.compile(r"\bpressure[- ](?:pot|cook)", re.IGNORECASE),
    "spit": re.compile(r"\bspit\b", re.IGNORECASE),
    "coals": re.compile(r"\b(?:over|on) (?:hot )?(?:coals|charcoal|embers)\b", re.IGNORECASE),
    "fat": re.compile(r"\b(?:under|in) (?:its own |goose |duck )?fat\b|\bconfit\b", re.IGNORECASE),
    "pot": re.compile(r"\binto (?:the |a )?pot\b", re.IGNORECASE),
    "oven": re.compile(r"\boven\b", re.IGNORECASE),
    "low": re.compile(r"\blow\b|\bslow(?:ly)?\b", re.IGNORECASE),
    "hot": re.compile(r"\bhot\b", re.IGNORECASE),
}
_SURELY: Final = ("pressure", "spit", "coals", "fat")
"""No ingredient is called so: they count in any line."""
_FOR_FRYING: Final = re.compile(r"\bfor (?:deep[- ]?)?frying\b", re.IGNORECASE)

_WAYS: Final[tuple[tuple[tuple[tuple[str, ...], ...], str], ...]] = (
    ((("pressure",),), "pressure"), ((("spit",),), "spit"), ((("cold-smoke",),), "cold-smoke"),
    ((("smoke",), ("simmer", "boil", "pot")), "smoke-simmer"), ((("smoke",),), "smoke"),
    ((("fat",),), "in-fat"), ((("braise",), ("fry", "crisp")), "braise-fry"),
    ((("braise",),), "braise"), ((("stir-fry",),), "stir-fry"),
    ((("sear",), ("oven", "roast", "bake")), "sear-oven"),
    ((("simmer", "boil"), ("glaze",)), "simmer-glaze"), ((("simmer", "boil"),), "simmer"),
    ((("fry",),), "fry"), ((("sear",),), "sear"), ((("grill", "coals"),), "grill"),
    ((("poach",),), "poach"), ((("steam",),), "steam"),
    ((("roast",), ("low",), ("hot", "crisp")), "roast-staged"),
    ((("roast", "oven"), ("low",)), "slow-oven"), ((("bake",),), "bake"), ((("roast",),), "roast"),
)  # fmt: skip
"""All of these words, one of each group: the way of cooking that they mean (common practice)."""


def heat_said(text: str) -> str | None:
    r"""The way of cooking that a recipe's words name; None where they name none.

    Parameters: text of the recipe.
    Returns: the name of a way, as `dish` has it in `heat.way`. What is only an ingredient, smoked
    paprika or fried onions, names none.
    Raises: nothing.
    Source: common practice.

    >>> heat_said("1 kg thighs\nfried to 74"), heat_said("smoked, then into the pot")
    ('fry', 'smoke-simmer')
    >>> heat_said("seared, 12 minutes in a very hot oven, sliced"), heat_said("smoked paprika")
    ('sear-oven', None)
    """
    done = [line for line in text.splitlines() if is_at_the_heat(line) or is_for_a_time(line)]
    has = {
        name
        for line in done
        for name, words in _VERB.items()
        if words.search(line) and not _is_of_the_brine(line)
    }
    has |= {name for name in _SURELY if _WORDS[name].search(text)}
    if not has and _FOR_FRYING.search(text):
        has = {"fry"}
    if has:
        has |= {name for line in done for name, words in _WORDS.items() if words.search(line)}
    return next(
        (way for groups, way in _WAYS if all(has.intersection(each) for each in groups)), None
    )


def _is_of_the_brine(line: str) -> bool:
    """Whether it is the brine that is boiled."""
    return re.match(r"\s*boil\w*\s+(?:the\s+)?(?:brine|marinade|water)\b", line, re.I) is not None
