"""Changing the heat of what is at the fire, as was offered."""

from django.db.models import F
from django.utils.translation import gettext

from pantry_core.dish.answer import HeatHelp
from pantry_web.devices.models import Channel
from pantry_web.feasts.actions.log.as_seen import as_seen
from pantry_web.feasts.actions.log.record import record
from pantry_web.feasts.models import Event
from pantry_web.kitchens.models import Cook
from pantry_web.planning.hands import gate_now
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused


def change_heat(view: Outlook, by: Cook, code: str) -> str:
    """Write down that the heat was changed as was offered; what follows is foretold by it.

    Parameters: view; by; code of what was offered.
    Returns: what was done.
    Raises: Refused where that would no longer help.
    """
    gate = gate_now(view)
    helps = gate.helps if gate is not None else ()
    found = next((each for each in helps if each.code == code), None)
    if gate is None or found is None:
        raise Refused(gettext("That would no longer help; look again at what would."))
    with as_seen(view):
        record(
            view, by, Event.What.HEAT_SET, step_key=gate.step, temperature_c=found.temperature_c,
            heat={"medium": found.medium, "covered": found.covered, "halved": found.halved},
        )  # fmt: skip
        _move_the_band(view, found, gate.medium_c)
    return found.text


def _move_the_band(view: Outlook, found: HeatHelp, before_c: float | None) -> None:
    """What was wanted of its fire is wanted so much hotter now."""
    if before_c is None or found.temperature_c is None:
        return
    fires = Channel.objects.filter(
        dish=view.dish, what=Channel.What.FIRE, low_c__isnull=False, high_c__isnull=False
    )
    risen = found.temperature_c - before_c
    fires.update(low_c=F("low_c") + risen, high_c=F("high_c") + risen)
