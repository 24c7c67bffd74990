"""Writing down a weight, a temperature, a taste, a touch, a note."""

from uuid import uuid4

from django.utils.translation import gettext

from pantry_web.feasts.actions.log.record import record
from pantry_web.feasts.models import Event
from pantry_web.kitchens.models import Cook
from pantry_web.planning.outlook import Outlook
from pantry_web.presses.once import once
from pantry_web.refusal import Refused


def write_down(
    view: Outlook,
    by: Cook,
    *,
    mass_g: float | None = None,
    temperature_c: float | None = None,
    taste: str = "",
    touch: str = "",
    note: str = "",
) -> None:
    """Record what was weighed, read or tasted, each as an event of its own in one batch.

    Parameters: view; by; mass_g [g]; temperature_c [°C]; taste, one of Event.Taste;
    touch, one of Event.Touch; note.
    Raises: Refused when there is nothing to write down.
    """
    batch = uuid4()
    kept = (
        (Event.What.WEIGHED, {"mass_g": mass_g}, mass_g is not None),
        (Event.What.TEMPERATURE_READ, {"temperature_c": temperature_c}, temperature_c is not None),
        (Event.What.TASTED, {"taste": taste}, bool(taste)),
        (Event.What.TOUCHED, {"touch": touch}, bool(touch)),
        (Event.What.NOTED, {"note": note}, bool(note)),
    )
    if not any(given for _, _, given in kept):
        raise Refused(gettext("There is nothing to write down yet."))
    step_key = view.state.running or ""
    with once():
        for what, values, given in kept:
            if given:
                record(view, by, what, batch=batch, step_key=step_key, **values)
