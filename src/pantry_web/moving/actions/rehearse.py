"""Rehearsing a feast: in a copy of its kitchen with a clock of its own, that leaves no trace."""

import json
from datetime import datetime

from django.db import connection

from pantry_web.feasts.migrations._guard import guarding, unguarding
from pantry_web.feasts.models import Dish, Event, Feast, WeighSheet
from pantry_web.kitchens.actions.set_clock import set_clock
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.moving.actions.bring_in_kitchen import bring_in_kitchen
from pantry_web.moving.read_in import read_kitchen
from pantry_web.moving.taken_out import rehearsal_document
from pantry_web.presses.once import once

USUAL_TIMES = 60


@once()
def rehearse(feast: Feast, by: Cook, now: datetime) -> tuple[Kitchen, Feast]:
    """Begin to rehearse a feast, from now on and sixty times as fast; one rehearsal at a time.

    Parameters: feast; by; now, by its kitchen's clock.
    Returns: the kitchen of the rehearsal, and the feast in it.
    Raises: Refused when the cook has ten kitchens.
    """
    for before in Kitchen.objects.filter(members=by, rehearses__isnull=False):
        end_rehearsal(before)
    text = json.dumps(rehearsal_document(feast)).encode()
    kitchen = bring_in_kitchen(read_kitchen(text, now), by)
    kitchen.is_demo, kitchen.rehearses = True, feast.kitchen
    kitchen.learnt = feast.kitchen.learnt
    kitchen.save(update_fields=["is_demo", "rehearses", "learnt"])
    set_clock(kitchen, now, USUAL_TIMES)
    return kitchen, kitchen.feasts.get()


@once()
def end_rehearsal(kitchen: Kitchen) -> None:
    """Remove a rehearsal with all that was written down in it.

    The log of a rehearsal is nobody's: what guards every other is lifted within the transaction,
    which nobody else can write beside, and is back with its end.
    """
    assert kitchen.rehearses_id is not None  # noqa: S101 - no other kitchen is ever removed
    with connection.cursor() as cursor:
        for statement in unguarding():
            cursor.execute(statement)
        for kind in (WeighSheet, Event):
            rows = kind._base_manager.filter(dish__feast__kitchen=kitchen)
            rows._raw_delete(rows.db)
        Dish.objects.filter(feast__kitchen=kitchen).delete()
        Feast.with_removed.filter(kitchen=kitchen).delete()
        kitchen.delete()
        for statement in guarding():
            cursor.execute(statement)
