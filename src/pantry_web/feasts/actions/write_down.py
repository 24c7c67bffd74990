"""Writing down what happened in between: a round, a weight, a temperature, a taste."""

from datetime import timedelta
from uuid import uuid4

from django.db import transaction

from pantry_web.feasts.actions.as_seen import as_seen
from pantry_web.feasts.models import Event
from pantry_web.feasts.refusal import Refused
from pantry_web.kitchens.models import Cook
from pantry_web.planning.outlook import Outlook

DOUBLE_PRESS = timedelta(minutes=10)
"""A second tick of a round within this time is a slip of the thumb."""


def turn(view: Outlook, by: Cook) -> None:
    """Record a round on the step that runs.

    Raises: Refused when nothing runs that wants rounds, or the button was pressed twice.
    """
    running = view.step(view.state.running or "")
    if running is None or running.every_h is None:
        raise Refused("Nothing in the kitchen wants turning now.")
    done = view.state.facts[running.id].rounds_done
    if done and view.now - done[-1] < DOUBLE_PRESS:
        raise Refused("That round was ticked a moment ago.")
    with as_seen(view):
        _record(view, by, Event.What.TURNED, step_key=running.id)


def write_down(
    view: Outlook,
    by: Cook,
    *,
    mass_g: float | None = None,
    temperature_c: float | None = None,
    taste: str = "",
    note: str = "",
) -> None:
    """Record what was weighed, read or tasted, each as an event of its own in one batch.

    Parameters: view; by; mass_g [g]; temperature_c [°C]; taste, one of Event.Taste; note.
    Raises: Refused when there is nothing to write down.
    """
    batch = uuid4()
    kept = (
        (Event.What.WEIGHED, {"mass_g": mass_g}, mass_g is not None),
        (Event.What.TEMPERATURE_READ, {"temperature_c": temperature_c}, temperature_c is not None),
        (Event.What.TASTED, {"taste": taste}, bool(taste)),
        (Event.What.NOTED, {"note": note}, bool(note)),
    )
    if not any(given for _, _, given in kept):
        raise Refused("There is nothing to write down yet.")
    step_key = view.state.running or ""
    with transaction.atomic():
        for what, values, given in kept:
            if given:
                _record(view, by, what, batch=batch, step_key=step_key, **values)


def weigh_line(view: Outlook, by: Cook, line: str, mass_g: float) -> None:
    """Record what was really weighed of a line of the sheet.

    Parameters: view; by; line, by its name; mass_g [g].
    Raises: Refused once the meat is in: its sheet stays as it was.
    """
    if view.state.put_in is not None:
        raise Refused("The meat is in: its weigh-out sheet stays as it was.")
    with as_seen(view):
        _record(view, by, Event.What.LINE_WEIGHED, line=line, mass_g=mass_g)


def undo(view: Outlook, by: Cook) -> None:
    """Take back what was ticked or written down last; the log keeps both.

    Raises: Refused when there is nothing to take back.
    """
    batch = view.state.last_batch
    if batch is None:
        raise Refused("There is nothing to take back.")
    with as_seen(view):
        _record(view, by, Event.What.WITHDRAWN, withdraws=batch)


def _record(view: Outlook, by: Cook, what: Event.What, **values: object) -> None:
    values.setdefault("batch", uuid4())
    Event.objects.create(dish=view.dish, what=what, at=view.now, by=by, **values)
