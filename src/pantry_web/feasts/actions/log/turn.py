"""Ticking a round."""

from datetime import timedelta

from django.utils.translation import gettext

from pantry_web.feasts.actions.log.as_seen import as_seen
from pantry_web.feasts.actions.log.record import record
from pantry_web.feasts.models import Event
from pantry_web.kitchens.models import Cook
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused

DOUBLE_PRESS = timedelta(minutes=10)
"""A second tick of a round within this time is a slip of the thumb."""


def turn(view: Outlook, by: Cook) -> None:
    """Record a round on the step that runs.

    Raises: Refused when nothing runs that wants rounds, or the button was pressed twice.
    """
    running = view.step(view.state.running or "")
    if running is None or running.every_h is None:
        raise Refused(gettext("Nothing in the kitchen wants turning now."))
    done = view.state.facts[running.id].rounds_done
    if done and view.now - done[-1] < DOUBLE_PRESS:
        raise Refused(gettext("That round was ticked a moment ago."))
    with as_seen(view):
        record(view, by, Event.What.TURNED, step_key=running.id)
