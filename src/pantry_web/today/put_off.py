"""The hours to which something may be put off with one press."""

from collections.abc import Iterator
from datetime import datetime, time, timedelta
from zoneinfo import ZoneInfo

from django.utils.translation import gettext_lazy as _

from pantry_core.plan.instants import NotAnInstant, local_instant
from pantry_core.plan.problem import GRID
from pantry_web.fields import InstantField
from pantry_web.kitchens.forms import ZonedForm
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning.hands import Task
from pantry_web.planning.outlook import Outlook

LATER = (timedelta(minutes=30), timedelta(hours=1), timedelta(hours=2))
EVENING = time(19)
"""The day begins in the evening after work (common practice)."""


class PutOffForm(ZonedForm):
    """Until when something is put off."""

    ids = "id_put_off_%s"
    at = InstantField(label=_("Until"))


def offered(view: Outlook, task: Task, kitchen: Kitchen) -> list[datetime]:
    """Hours that are offered for what is next: a little later, the evening, the next morning.

    Parameters: view and task, what is put off; kitchen, when somebody is awake in it.
    Returns: hours before the meal, in their order, as long as it can wait; none for what is not
    next.
    """
    if not task.is_next:
        return []
    end = view.dish.serve_at or view.dish.feast.serve_at
    found = set(_hours(view.now, task.at, kitchen))
    if task.can_wait_until is not None:
        end = min(end, task.can_wait_until + GRID)
        found.add(task.can_wait_until)
    return sorted(each for each in found if max(view.now, task.at or view.now) < each < end)


def _hours(now: datetime, due: datetime | None, kitchen: Kitchen) -> Iterator[datetime]:
    zone = ZoneInfo(kitchen.time_zone)
    since = max(now, due or now)
    quarter = since + (datetime.min.replace(tzinfo=since.tzinfo) - since) % GRID
    for later in LATER:
        if kitchen.wake <= (quarter + later).astimezone(zone).time() < kitchen.sleep:
            yield quarter + later
    day = since.astimezone(zone).date()
    for on, at in ((day, EVENING), (day + timedelta(days=1), kitchen.wake)):
        try:
            named = local_instant(datetime.combine(on, at), zone)
        except NotAnInstant:
            continue
        if named > since:
            yield named
