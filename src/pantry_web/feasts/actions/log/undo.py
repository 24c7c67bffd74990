"""Taking back what was written down last."""

from uuid import UUID

from django.utils.translation import gettext

from pantry_web.feasts.actions.log.as_seen import as_seen
from pantry_web.feasts.actions.log.record import record
from pantry_web.feasts.models import Event
from pantry_web.kitchens.models import Cook
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused


def undo(view: Outlook, by: Cook, seen: str) -> None:
    """Take back what the page showed as written down last; the log keeps both.

    Parameters: view; by; seen, the batch that the page named.
    Raises: Refused when that was taken back already, or something else was written down since.
    """
    standing = {str(each.batch): each.batch for each in view.state.events}
    batch: UUID | None = standing.get(seen)
    if batch is None:
        raise Refused(gettext("That is taken back already; look again."))
    if not view.state.can_take_back(batch):
        raise Refused(gettext("Something else was written down since; look again before you undo."))
    with as_seen(view):
        record(view, by, Event.What.WITHDRAWN, withdraws=batch)
