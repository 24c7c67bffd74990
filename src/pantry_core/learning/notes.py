"""Which step a note of the last time belongs to."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from pantry_core.routes.ways import WAYS

_SENTENCE = re.compile(r"(?<=[.!?;])\s+")
_KINDS: tuple[tuple[frozenset[str], tuple[str, ...]], ...] = (
    (frozenset({"buy"}), ("order", "shop", "butcher", "bought", "buy", "fishmonger")),
    (frozenset({"thaw"}), ("thaw", "frozen", "freezer")),
    (frozenset({"stand", "keep-warm"}), ("rested", "rest ", "resting", "stood", "foil")),
    (frozenset({"carve"}), ("carv", "slice", "dish up", "plates")),
    (frozenset({"trim"}), ("trim", "butterfl", "bone", "weigh")),
    (frozenset({"make-brine", *WAYS}), ("salt", "sugar", "brine", "spice")),
    (frozenset(WAYS), ("cure", "yoghurt", "marinade", "pickle", "turn", "vessel")),
    (
        frozenset({"cook"}),
        ("oven", "roast", "smok", "fire", "coals", "simmer", "pot", "tough", "cook", "crackl",
         "skin", "glaze", "hot"),
    ),
)  # fmt: skip
"""Words by which a cook speaks of a kind of step, the surest first (our own choice)."""


@dataclass(frozen=True, slots=True)
class Kind:
    """A step by its id and its kind."""

    id: str
    kind: str


def sentences(note: str) -> list[str]:
    """The sentences of a note.

    >>> sentences("Too salty. Order it earlier!")
    ['Too salty.', 'Order it earlier!']
    """
    return [each.strip() for each in _SENTENCE.split(note) if each.strip()]


def step_of(sentence: str, steps: Sequence[Kind]) -> str | None:
    """The step that a sentence speaks of.

    Parameters: sentence, of a cook; steps of the dish in order.
    Returns: the id of the step; the first one where no word tells, so that it is read in time; None
    where there is no step.
    Raises: nothing.
    Source: our own choice of words; they are English.

    >>> steps = [Kind("buy", "buy"), Kind("brine", "even-brine"), Kind("stand", "stand")]
    >>> step_of("Rested too long.", steps), step_of("A little less salt.", steps)
    ('stand', 'brine')
    """
    tidy = f"{sentence.lower()} "
    for kinds, words in _KINDS:
        if any(word in tidy for word in words):
            found = next((each.id for each in steps if each.kind in kinds), None)
            if found is not None:
                return found
    return steps[0].id if steps else None
