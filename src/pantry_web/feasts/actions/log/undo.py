"""Taking back what was written down last."""

from pantry_web.feasts.actions.log.as_seen import as_seen
from pantry_web.feasts.actions.log.record import record
from pantry_web.feasts.models import Event
from pantry_web.feasts.refusal import Refused
from pantry_web.kitchens.models import Cook
from pantry_web.planning.outlook import Outlook


def undo(view: Outlook, by: Cook) -> None:
    """Take back what was ticked or written down last; the log keeps both.

    Raises: Refused when there is nothing to take back.
    """
    batch = view.state.last_batch
    if batch is None:
        raise Refused("There is nothing to take back.")
    with as_seen(view):
        record(view, by, Event.What.WITHDRAWN, withdraws=batch)
