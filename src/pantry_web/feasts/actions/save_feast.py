"""Writing down what a feast is."""

from datetime import datetime

from pantry_web.feasts.models import Feast
from pantry_web.kitchens.models import Kitchen
from pantry_web.presses.once import once


@once()
def new_feast(
    kitchen: Kitchen, *, name: str, serve_at: datetime, time_zone: str, heads: int, note: str
) -> Feast:
    """Write a new feast down, for so many people."""
    return Feast.objects.create(
        kitchen=kitchen, name=name, serve_at=serve_at, time_zone=time_zone, heads=heads, note=note
    )


@once()
def save_feast(
    feast: Feast, *, name: str, serve_at: datetime, time_zone: str, heads: int, note: str
) -> None:
    """Change a feast."""
    feast.name, feast.serve_at, feast.time_zone = name, serve_at, time_zone
    feast.heads, feast.note = heads, note
    feast.save(update_fields=["name", "serve_at", "time_zone", "heads", "note"])


@once()
def move_feast(feast: Feast, serve_at: datetime) -> None:
    """Eat at another hour."""
    feast.serve_at = serve_at
    feast.save(update_fields=["serve_at"])
