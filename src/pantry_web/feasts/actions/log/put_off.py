"""Putting off what is due."""

from datetime import datetime

from django.utils.translation import gettext

from pantry_core.plan.problem import GRID
from pantry_web.feasts.actions.log.as_seen import as_seen
from pantry_web.feasts.actions.log.record import record
from pantry_web.feasts.models import Event
from pantry_web.kitchens.models import Cook
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused


def put_off(view: Outlook, by: Cook, key: str, until: datetime) -> None:
    """Record that the next step, or the next round of the one that runs, waits until an hour.

    A step is then planned for that hour, or the quarter after it; whether that is too late is for
    the plan to say.

    Parameters: view; by; key of the step; until.
    Raises: Refused for what is not next, and for an hour that has passed or is after the meal.
    """
    running, following = view.step(view.state.running or ""), view.next_in_hands
    has_round = running is not None and running.id == key and running.every_h is not None
    if not has_round and (following is None or following.id != key):
        raise Refused(gettext("That is not what comes next; look again."))
    if until <= view.now:
        raise Refused(gettext("That hour has passed; name one that is to come."))
    if until >= (view.dish.serve_at or view.dish.feast.serve_at):
        raise Refused(gettext("It is eaten by then; name an hour before the meal."))
    on_grid = until + (view.dish.feast.serve_at - until) % GRID
    with as_seen(view):
        record(view, by, Event.What.PUT_OFF, step_key=key, until=on_grid)


def put_off_no_longer(view: Outlook, by: Cook, key: str) -> None:
    """Record that a step waits no longer; nothing where it was not put off."""
    fact = view.state.facts.get(key)
    if fact is not None and fact.put_off_until is not None:
        record(view, by, Event.What.PUT_OFF, step_key=key, until=view.now)
