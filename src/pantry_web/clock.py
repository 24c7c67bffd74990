"""The one place that reads the clock."""

from datetime import UTC, datetime
from typing import Protocol


class Clocked(Protocol):
    """Whatever may have a clock of its own that stands still."""

    stands_at: datetime | None


def now(kitchen: Clocked) -> datetime:
    """The present moment in a kitchen: its own clock where that stands, else the real one."""
    return kitchen.stands_at or real()


def real() -> datetime:
    """The present moment of the world, for what is none of the cooking: links, forms, copies."""
    return datetime.now(UTC)
