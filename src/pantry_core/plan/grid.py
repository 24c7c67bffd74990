"""The quarter-hour grid."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from pantry_core.plan.problem import GRID

SLOT_S = int(GRID.total_seconds())

Span = tuple[datetime, datetime]


@dataclass(frozen=True, slots=True)
class Grid:
    """Slots of 15 minutes counted from an anchor; slot 0 begins at the anchor."""

    anchor: datetime

    def seconds(self, moment: datetime) -> int:
        """Seconds from the anchor."""
        return round((moment - self.anchor).total_seconds())

    def at_or_after(self, moment: datetime) -> int:
        """The first slot that begins at the moment or after it."""
        return -(-self.seconds(moment) // SLOT_S)

    def at_or_before(self, moment: datetime) -> int:
        """The last slot that begins at the moment or before it."""
        return self.seconds(moment) // SLOT_S

    def moment(self, slot: int) -> datetime:
        """The instant at which a slot begins."""
        return self.anchor + slot * GRID


def up(seconds: int) -> int:
    """Seconds rounded up to whole slots."""
    return -(-seconds // SLOT_S) * SLOT_S


def down(seconds: int) -> int:
    """Seconds rounded down to whole slots."""
    return seconds // SLOT_S * SLOT_S


def whole_slots(grid: Grid, spans: Sequence[Span]) -> list[tuple[int, int]]:
    """First slot and slot after the last that lie wholly inside each span."""
    slots = ((grid.at_or_after(begin), grid.at_or_before(end)) for begin, end in spans)
    return [(first, after) for first, after in slots if first < after]
