"""Writing on what was looked at: nothing is worked out while the database is held."""

from collections.abc import Iterator
from contextlib import contextmanager

from pantry_web.feasts.models import Event, Feast
from pantry_web.planning.outlook import Outlook
from pantry_web.presses.once import once
from pantry_web.refusal import Stale


@contextmanager
def as_seen(view: Outlook) -> Iterator[None]:
    """Write for a dish as it was seen.

    Raises: Stale when its feast was changed, or something was written down, since it was read.
    """
    dish = view.dish
    seen = max((each.pk for each in view.log), default=0)
    with once():
        version = Feast.objects.values_list("version", flat=True).get(pk=dish.feast_id)
        is_newer = Event.objects.filter(dish=dish, pk__gt=seen).exists()
        if version != dish.feast.version or is_newer:
            raise Stale
        yield
