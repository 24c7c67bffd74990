"""Weights on the way to the table, by the stage of the piece that they are of."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Literal

from pantry_core.routes.ways import WAYS

Stage = Literal["bought", "trimmed", "cured", "cooked", "carved"]
STAGES: tuple[Stage, ...] = ("bought", "trimmed", "cured", "cooked", "carved")
_BEGUN: tuple[tuple[Stage, frozenset[str]], ...] = (
    ("carved", frozenset({"carve"})),
    ("cooked", frozenset({"cook", "stand", "keep-warm"})),
    ("cured", frozenset({*WAYS, "lift", "soak", "rest"})),
    ("trimmed", frozenset({"trim"})),
)
MOST_LOST = 0.7
"""What lost more of its weight was not the same thing any more (our own choice)."""


@dataclass(frozen=True, slots=True)
class StageWeight:
    """A weight of a stage [g]."""

    stage: Stage
    mass_g: float


def stage_of(begun: Collection[str]) -> Stage:
    """Which stage a weight is of.

    Parameters: begun, the kinds of the steps that had begun when it was written down.
    Returns: the stage.
    Raises: nothing.

    >>> stage_of([]), stage_of(["buy", "trim", "even-brine"])
    ('bought', 'cured')
    """
    return next((stage for stage, kinds in _BEGUN if not kinds.isdisjoint(begun)), "bought")


def lost(
    weights: Sequence[StageWeight], before: Sequence[Stage], after: Sequence[Stage]
) -> float | None:
    """Which share of the weight was lost between two stages.

    Parameters: weights in the order of their hours; before and after, the stages, the first of
    `before` that has a weight with its last one, the first of `after` with its first one.
    Returns: the share [-]; None where a weight is missing, or it gained, or hardly anything is
    left, so that they contradict each other.
    Raises: nothing.

    >>> bought, trimmed = StageWeight("bought", 2000.0), StageWeight("trimmed", 1900.0)
    >>> round(lost([bought, trimmed], ["bought"], ["trimmed"]), 3)
    0.05
    """
    by_stage: dict[Stage, list[float]] = {}
    for each in weights:
        by_stage.setdefault(each.stage, []).append(each.mass_g)
    first = next((by_stage[stage][-1] for stage in before if stage in by_stage), None)
    then = next((by_stage[stage][0] for stage in after if stage in by_stage), None)
    if not first or then is None:
        return None
    share = 1.0 - then / first
    return share if 0.0 <= share <= MOST_LOST else None
