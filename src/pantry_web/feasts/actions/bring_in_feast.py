"""Bringing in a feast from its document."""

from base64 import b64decode
from datetime import datetime
from uuid import UUID, uuid4
from zoneinfo import ZoneInfo

from django.db import IntegrityError

from pantry_core.formats.feast import DishDocument, FeastDocument
from pantry_core.formats.reading import Problem, WrongInput
from pantry_core.plan.instants import read_instant, read_zone
from pantry_web.feasts.actions.keep_waits import keep_waits
from pantry_web.feasts.brought_in import OF_A_REVIEW, event_of
from pantry_web.feasts.exchange import CONTRADICTS
from pantry_web.feasts.models import Dish, Event, Feast, WeighSheet
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.ledger.models import Leftover, Photo, Review
from pantry_web.ledger.pictures import size_of
from pantry_web.presses.once import once


def bring_in_feast(document: FeastDocument, kitchen: Kitchen, by: Cook) -> Feast:
    """Make a feast from its document; whoever brings it in stands for whoever did what it tells.

    Raises: WrongInput when it contradicts itself; nothing is kept then.
    """
    zone = read_zone(document.tz)
    try:
        with once():
            feast = Feast.objects.create(
                kitchen=kitchen, name=document.name, time_zone=document.tz, note=document.note,
                heads=document.people, serve_at=read_instant(document.serve_at, zone),
            )  # fmt: skip
            made = [(each.id, _make_dish(feast, each, zone, by)) for each in document.dishes]
            keep_waits({key: dish for key, dish in made if key is not None})
    except IntegrityError:
        raise WrongInput((Problem("dishes", str(CONTRADICTS)),)) from None
    return feast


def _make_dish(feast: Feast, document: DishDocument, zone: ZoneInfo, by: Cook) -> Dish:
    dish = Dish.objects.create(
        feast=feast, name=document.name, document=document.decided, note=document.note,
        early_max_min=document.early_max_min, is_given_up=document.given_up,
        recipe=document.recipe_text, hue=feast.free_hue(),
        serve_at=read_instant(document.serve_at, zone) if document.serve_at else None,
    )  # fmt: skip
    batches: dict[int, UUID] = {each.press: uuid4() for each in document.events}
    events = [event_of(dish, each, batches, zone) for each in document.events]
    for event in events:
        event.by = by
    Event.objects.bulk_create(events)
    for sheet in document.sheets:
        WeighSheet.objects.create(
            dish=dish, batch=batches[sheet.press], rules_version=sheet.rules_version,
            weighed=sheet.weighed, request=sheet.request, answer=sheet.answer,
        )  # fmt: skip
    _tell_of(dish, document, zone, by)
    return dish


def _tell_of(dish: Dish, document: DishDocument, zone: ZoneInfo, by: Cook) -> None:
    """What came of a dish, what was left of it, and its photos."""

    def at(text: str | None) -> datetime | None:
        return read_instant(text, zone) if text else None

    review = document.review
    if review is not None:
        Review.objects.create(
            dish=dish, by=by, is_skipped=review.skipped, ready_at=at(review.ready_at),
            told_at=read_instant(review.told_at, zone),
            **{name: getattr(review, name) for name in OF_A_REVIEW},
        )  # fmt: skip
    for left in document.leftovers:
        Leftover.objects.create(
            dish=dish, what=left.what, mass_g=left.mass_g, place=left.place, fate=left.fate,
            since=read_instant(left.since, zone), until=at(left.until), ended_at=at(left.ended_at),
        )  # fmt: skip
    for each in document.photos:
        data = b64decode(each.jpeg)
        width, height = size_of(data)
        Photo.objects.create(
            dish=dish, jpeg=data, width=width, height=height, by=by,
            kept_at=read_instant(each.kept_at, zone),
        )  # fmt: skip
