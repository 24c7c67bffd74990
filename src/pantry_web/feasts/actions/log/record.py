"""Appending to the log of a dish."""

from uuid import uuid4

from pantry_web.feasts.models import Event
from pantry_web.kitchens.models import Cook
from pantry_web.planning.outlook import Outlook


def record(view: Outlook, by: Cook, what: Event.What, **values: object) -> None:
    """Append something to the log of a dish; what belongs to one press shares its batch."""
    values.setdefault("batch", uuid4())
    Event.objects.create(dish=view.dish, what=what, at=view.now, by=by, **values)
