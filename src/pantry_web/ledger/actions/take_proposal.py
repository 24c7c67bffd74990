"""Making a change that the last time asks for."""

from django.utils.translation import gettext

from pantry_web.feasts.actions.change_dish import change_dish
from pantry_web.feasts.actions.set_hour import set_hour
from pantry_web.ledger.next_time import last_time_of, proposals
from pantry_web.planning.outlook import Outlook
from pantry_web.presses.once import once
from pantry_web.refusal import Refused


def take_proposal(view: Outlook, code: str) -> str:
    """Make a change that was proposed.

    Returns: what it is.
    Raises: Refused when it is made already, or the dish has changed.
    """
    review = last_time_of(view.dish)
    asked = proposals(view, review) if review is not None else []
    found = next((each for each in asked if each.code == code), None)
    if found is None:
        raise Refused(gettext("That is made already; look again."))
    with once():
        if found.decided is not None:
            change_dish(view.dish, found.decided, vessel=view.dish.vessel)
        if found.serve_at is not None:
            set_hour(view.dish, found.serve_at, view.dish.early_max_min, view.dish.note)
    return found.text
