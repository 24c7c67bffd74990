"""What always holds of a kitchen, looked up: for whoever suspects that something is broken."""

import json
from collections.abc import Iterator

from django.db import connection

from pantry_core.formats.reading import WrongInput
from pantry_web import clock
from pantry_web.feasts.models import Dish, Event, WeighSheet
from pantry_web.kitchens.models import Kitchen, Membership
from pantry_web.moving.read_in import read_kitchen
from pantry_web.moving.taken_out import kitchen_document


def broken_of_the_database() -> Iterator[str]:
    """What of the file itself does not hold together."""
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA integrity_check")
        yield from (told for (told,) in cursor.fetchall() if told != "ok")
        cursor.execute("PRAGMA foreign_key_check")
        yield from (f"{table}, row {row}: what it names is gone" for table, row, *_ in cursor)


def broken_of(kitchen: Kitchen) -> Iterator[str]:
    """What does not hold of a kitchen: an owner, sound logs, and a document that reads back."""
    if not kitchen.memberships.filter(role=Membership.Role.OWNER).exists():
        yield "nobody owns it"
    for dish in Dish.objects.filter(feast__kitchen=kitchen).select_related("feast"):
        for told in (*_broken_log(dish), *_broken_waits(dish)):
            yield f"{dish.feast}, {dish}: {told}"
    try:
        read_kitchen(json.dumps(kitchen_document(kitchen)).encode(), clock.real())
    except WrongInput as wrong:
        yield from (f"{each.where}: {each.what}" for each in wrong.problems)


def _broken_log(dish: Dish) -> Iterator[str]:
    events = list(Event.objects.filter(dish=dish))
    batches = {each.batch for each in events if each.what != Event.What.WITHDRAWN}
    withdrawn = [each.withdraws for each in events if each.withdraws is not None]
    went_in = {each.batch for each in events if each.what == Event.What.PUT_IN}
    sheets = set(WeighSheet.objects.filter(dish=dish).values_list("batch", flat=True))
    if not batches.issuperset(withdrawn):
        yield "something is taken back that was never written down"
    if len(withdrawn) > len(set(withdrawn)):
        yield "something is taken back twice"
    if went_in != sheets:
        yield "what went in and the sheets are not the same"
    standing = [each for each in events if each.batch not in withdrawn]
    for what in (Event.What.STEP_STARTED, Event.What.STEP_ENDED):
        keys = [each.step_key for each in standing if each.what == what]
        for key in sorted({key for key in keys if keys.count(key) > 1}):
            yield f"{key} has {what} {keys.count(key)} times"


def _broken_waits(dish: Dish) -> Iterator[str]:
    siblings = {str(pk) for pk in dish.feast.dishes.values_list("pk", flat=True)}
    for edit in dish.document.get("edits", ()):
        for wait in edit.get("after", ()):
            if wait["dish"] not in siblings:
                yield f"{edit['step']} waits for a dish that its feast does not have"
