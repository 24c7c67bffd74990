"""Doing something to a dish: read it, do it, and read it again when it has changed meanwhile."""

from collections.abc import Callable
from datetime import datetime, timedelta

from django.contrib import messages
from django.db.models import Max
from django.http import HttpRequest
from django.utils.translation import gettext

from pantry_web import clock
from pantry_web.feasts.access import dish_of
from pantry_web.feasts.models import Dish
from pantry_web.kitchens.access import kitchen_of
from pantry_web.planning.looking import feast_outlook, outlook_alone
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused, Stale

TRIES, MOST_DIGITS = 4, 8


MOST_AGE = timedelta(days=2)
"""A press that was kept for longer, while the server was away, is too old to be believed."""


def told_hour(request: HttpRequest, dish: Dish, now: datetime) -> datetime:
    """When something was done: now, or so long ago as a press was kept while the server was away.

    It is not before what is in the log of the dish: what was ticked on another phone meanwhile was
    done in the order in which it came.

    Raises: Refused for what was kept too long.
    """
    told = request.POST.get("age_s", "")
    if not told.isdecimal() or len(told) > MOST_DIGITS:
        return now
    age = timedelta(seconds=int(told))
    if age > MOST_AGE:
        raise Refused(
            gettext("What was ticked over two days ago was not sent: write it down anew.")
        )
    latest = dish.events.aggregate(at=Max("at"))["at"]
    return max(now - age, latest) if latest is not None and latest <= now else now - age


def done(
    request: HttpRequest, dish_id: int, deed: Callable[[Outlook], None], *, alone: bool = True
) -> bool:
    """Do something to a dish of the cook's kitchen as it stands; what is refused is said.

    No plan is worked out for it: what is known of it is taken.

    Parameters: request; dish_id; deed; alone, whether neither the plan nor another dish bears on
    it, so that nothing of them is read.
    Returns: whether it was done.
    Raises: Http404 for a dish of another kitchen.
    """
    kitchen, refusal = kitchen_of(request), ""
    for _ in range(TRIES):
        dish = dish_of(request, dish_id)
        try:
            now = told_hour(request, dish, clock.now(kitchen))
            if alone:
                deed(outlook_alone(dish, kitchen, now))
            else:
                deed(feast_outlook(dish.feast, kitchen, now).of(dish))
        except Stale as stale:
            refusal = str(stale)
        except Refused as refused:
            refusal = str(refused)
            break
        else:
            return True
    messages.error(request, refusal)
    return False
