"""What became of what was left."""

from datetime import datetime

from pantry_web.ledger.models import Leftover
from pantry_web.presses.once import once


@once()
def end_leftover(leftover: Leftover, fate: str, now: datetime) -> None:
    """It was eaten, frozen or thrown away; what is frozen keeps, and is looked after no more.

    Parameters: leftover; fate, one of Leftover.Fate; now.
    """
    leftover.fate, leftover.ended_at = fate, now
    leftover.save(update_fields=["fate", "ended_at"])


@once()
def take_back_end(leftover: Leftover) -> None:
    """It is there after all."""
    leftover.fate, leftover.ended_at = "", None
    leftover.save(update_fields=["fate", "ended_at"])
