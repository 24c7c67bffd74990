"""Setting the clock of a demo kitchen."""

from datetime import datetime

from pantry_web import clock
from pantry_web.kitchens.models import Kitchen
from pantry_web.presses.once import once


@once()
def set_clock(kitchen: Kitchen, stands_at: datetime, runs_times: int = 0) -> None:
    """Let the clock of a demo kitchen stand at a moment, or run from it so many times as fast."""
    kitchen.stands_at = stands_at
    kitchen.runs_since = clock.real() if runs_times else None
    kitchen.runs_times = runs_times or 1
    kitchen.save(update_fields=["stands_at", "runs_since", "runs_times"])
