"""When a dish is served, how much earlier it may be done, and its notes."""

from datetime import datetime

from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once


@once()
def set_hour(dish: Dish, serve_at: datetime | None, early_max_min: float | None, note: str) -> None:
    """Set its own hour, None for the feast's; how much earlier it may be done [min]; its notes."""
    dish.serve_at, dish.early_max_min, dish.note = serve_at, early_max_min, note
    dish.save(update_fields=["serve_at", "early_max_min", "note"])
