"""The one place that reads the clock."""

from datetime import UTC, datetime
from typing import Protocol


class Clocked(Protocol):
    """Whatever may have a clock of its own that stands still."""

    stands_at: datetime | None
    runs_since: datetime | None
    runs_times: int


def now(kitchen: Clocked) -> datetime:
    """The present moment in a kitchen: by its own clock, which stands or runs, else the real one.

    A clock of its own runs so many times as fast as the world's, from where it stood.
    """
    if kitchen.stands_at is None:
        return real()
    if kitchen.runs_since is None:
        return kitchen.stands_at
    return kitchen.stands_at + kitchen.runs_times * (real() - kitchen.runs_since)


def real() -> datetime:
    """The present moment of the world, for what is none of the cooking: links, forms, copies."""
    return datetime.now(UTC)
