"""Setting the clock of a demo kitchen."""

from datetime import datetime

from pantry_web.kitchens.models import Kitchen
from pantry_web.presses.once import once


@once()
def set_clock(kitchen: Kitchen, stands_at: datetime) -> None:
    """Let the clock of a demo kitchen stand at a moment."""
    kitchen.stands_at = stands_at
    kitchen.save(update_fields=["stands_at"])
