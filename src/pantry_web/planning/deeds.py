"""Doing something to a dish: read it, do it, and read it again when it has changed meanwhile."""

from collections.abc import Callable

from django.contrib import messages
from django.http import HttpRequest

from pantry_web import clock
from pantry_web.feasts.access import dish_of
from pantry_web.kitchens.access import kitchen_of
from pantry_web.planning.outlook import Outlook, feast_outlook, outlook_alone
from pantry_web.refusal import Refused, Stale

TRIES = 4


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
        dish, now = dish_of(request, dish_id), clock.now(kitchen)
        try:
            if alone:
                deed(outlook_alone(dish, kitchen, now))
            else:
                deed(feast_outlook(dish.feast, kitchen, now, looks=True).of(dish))
        except Stale as stale:
            refusal = str(stale)
        except Refused as refused:
            refusal = str(refused)
            break
        else:
            return True
    messages.error(request, refusal)
    return False
