"""Writing down what was really weighed of a line of the sheet."""

from django.utils.translation import gettext

from pantry_web.feasts.actions.log.as_seen import as_seen
from pantry_web.feasts.actions.log.record import record
from pantry_web.feasts.models import Event
from pantry_web.kitchens.models import Cook
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused


def weigh_line(view: Outlook, by: Cook, line: str, mass_g: float) -> None:
    """Record what was really weighed of a line of the sheet.

    Parameters: view; by; line, by its name; mass_g [g].
    Raises: Refused once the meat is in: its sheet stays as it was.
    """
    if view.state.put_in is not None:
        raise Refused(gettext("It is in: its weigh-out sheet stays as it was."))
    with as_seen(view):
        record(view, by, Event.What.LINE_WEIGHED, line=line, mass_g=mass_g)
