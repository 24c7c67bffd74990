"""What a plan gives up of the wishes: how much longer or shorter steps are than they should be."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Final

from pantry_core.plan.result import PlannedStep

LEAST_H: Final = 0.5
"""Less is not worth a word [h]."""
LEAST_SHARE: Final = 0.1
"""Nor is less than this part of the wish."""


@dataclass(frozen=True, slots=True)
class Cost:
    """A step that is not as long as it should be: by how much, longer or (below 0) shorter [h]."""

    step: str
    by_h: float


def costs(
    planned: Sequence[PlannedStep], wished_h: Mapping[str, float | None], now: datetime
) -> list[Cost]:
    """The steps that lie ahead and are far from their wish, the farthest first.

    Parameters: planned, the steps of one dish; wished_h, for each step what it should be [h], None
    where any length is as good; now, before which what began is a fact.
    Returns: those that differ by half an hour and a tenth of the wish. Raises: nothing.
    """
    found = []
    for each in planned:
        wish = wished_h.get(each.step)
        if wish is None or each.start < now:
            continue
        by_h = (each.end - each.start).total_seconds() / 3600.0 - wish
        if abs(by_h) >= max(LEAST_H, LEAST_SHARE * wish):
            found.append(Cost(each.step, by_h))
    return sorted(found, key=lambda cost: -abs(cost.by_h))
