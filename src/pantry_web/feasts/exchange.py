"""A whole feast as one document, out and in again."""

from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any
from uuid import UUID, uuid4
from zoneinfo import ZoneInfo

from django.db import IntegrityError, transaction

from pantry_core.formats.feast import DishDocument, EventDocument, FeastDocument
from pantry_core.formats.reading import Problem, WrongInput, parse_json, read_document
from pantry_core.plan.instants import NotAnInstant, read_instant, read_zone
from pantry_web.feasts.models import Dish, Event, Feast, Step, WeighSheet
from pantry_web.kitchens.models import Cook, Kitchen

Document = dict[str, Any]

OF_A_DISH = tuple(
    name
    for name in DishDocument.model_fields
    if name not in ("serve_at", "steps", "events", "sheets", "sauces", "spices", "customs")
)
OF_A_STEP = (
    "key", "kind", "title", "begin", "tend", "place", "min_h", "prefer_h", "max_h", "hands_min",
    "attended", "uses", "every_h", "is_changed", "is_own",
)  # fmt: skip
OF_AN_EVENT = ("what", "mass_g", "temperature_c", "taste", "note", "line")


def feast_document(feast: Feast) -> Document:
    """A feast with its dishes, steps, logs and sheets as one JSON document."""
    dishes = feast.dishes.prefetch_related("steps", "events", "sheets")
    return {
        "format": "pantry-clock/1",
        "name": feast.name,
        "serve_at": _text(feast.serve_at),
        "tz": feast.time_zone,
        "heads": feast.heads,
        "note": feast.note,
        "dishes": [_dish_document(dish) for dish in dishes],
    }


def _dish_document(dish: Dish) -> Document:
    events = list(dish.events.all())
    presses = {batch: n for n, batch in enumerate(dict.fromkeys(each.batch for each in events), 1)}
    return {
        **{name: getattr(dish, name) for name in OF_A_DISH},
        "sauces": dish.sauces,
        "spices": dish.spices,
        "customs": dish.customs,
        "serve_at": _text(dish.serve_at),
        "steps": [
            {**{name: getattr(step, name) for name in OF_A_STEP},
             "locked_start": _text(step.locked_start)}
            for step in dish.steps.all()
        ],
        "events": [
            {**{name: getattr(each, name) for name in OF_AN_EVENT},
             "press": presses[each.batch], "at": _text(each.at), "step": each.step_key,
             "withdraws": presses.get(each.withdraws) if each.withdraws else None}
            for each in events
        ],
        "sheets": [
            {"press": presses[sheet.batch], "rules_version": sheet.rules_version,
             "weighed": sheet.weighed, "request": sheet.request, "answer": sheet.answer}
            for sheet in dish.sheets.all()
        ],
    }  # fmt: skip


def read_feast(text: bytes, kitchen: Kitchen, by: Cook) -> Feast:
    """Make a feast from its document; whoever brings it in stands for whoever did what it tells.

    Parameters: text, the JSON document; kitchen it becomes a feast of; by.
    Raises: WrongInput with all that is wrong; nothing is kept then.
    """
    document: FeastDocument = read_document(FeastDocument, parse_json(text))
    wrongs = [*_wrong_times(document), *_wrong_dishes(document)]
    if wrongs:
        raise WrongInput(tuple(wrongs))
    zone = read_zone(document.tz)
    try:
        with transaction.atomic():
            feast = Feast.objects.create(
                kitchen=kitchen, name=document.name, time_zone=document.tz, note=document.note,
                heads=document.heads, serve_at=read_instant(document.serve_at, zone),
            )  # fmt: skip
            for each in document.dishes:
                _make_dish(feast, each, zone, by)
    except IntegrityError:
        what = "what it says of a dish contradicts itself; write it out anew from Pantry Clock"
        raise WrongInput((Problem("dishes", what),)) from None
    return feast


def _make_dish(feast: Feast, document: DishDocument, zone: ZoneInfo, by: Cook) -> None:
    def instant(text: str | None) -> datetime | None:
        return read_instant(text, zone) if text else None

    plain = document.model_dump(mode="json")
    dish = Dish.objects.create(
        feast=feast, serve_at=instant(document.serve_at),
        **{name: plain[name] for name in (*OF_A_DISH, "sauces", "spices", "customs")},
    )  # fmt: skip
    Step.objects.bulk_create(
        Step(dish=dish, position=position, locked_start=instant(step.locked_start),
             **{name: getattr(step, name) for name in OF_A_STEP})
        for position, step in enumerate(document.steps)
    )  # fmt: skip
    batches: dict[int, UUID] = {each.press: uuid4() for each in document.events}
    Event.objects.bulk_create(
        _event(dish, each, batches, by, read_instant(each.at, zone)) for each in document.events
    )
    for sheet in document.sheets:
        WeighSheet.objects.create(
            dish=dish, batch=batches[sheet.press], rules_version=sheet.rules_version,
            weighed=sheet.weighed, request=sheet.request, answer=sheet.answer,
        )  # fmt: skip


def _event(
    dish: Dish, document: EventDocument, batches: Mapping[int, UUID], by: Cook, at: datetime
) -> Event:
    return Event(
        dish=dish, by=by, at=at, batch=batches[document.press], step_key=document.step,
        withdraws=batches[document.withdraws] if document.withdraws else None,
        **{name: getattr(document, name) for name in OF_AN_EVENT},
    )  # fmt: skip


def _wrong_times(document: FeastDocument) -> list[Problem]:
    try:
        zone = read_zone(document.tz)
    except NotAnInstant as error:
        return [Problem("tz", str(error))]
    times: list[tuple[str, str | None]] = [("serve_at", document.serve_at)]
    for i, dish in enumerate(document.dishes):
        times.append((f"dishes.{i}.serve_at", dish.serve_at))
        times += [
            (f"dishes.{i}.steps.{j}.locked_start", step.locked_start)
            for j, step in enumerate(dish.steps)
        ]
        times += [(f"dishes.{i}.events.{j}.at", event.at) for j, event in enumerate(dish.events)]
    found = []
    for where, text in times:
        try:
            if text:
                read_instant(text, zone)
        except NotAnInstant as error:
            found.append(Problem(where, str(error)))
    return found


def _wrong_dishes(document: FeastDocument) -> list[Problem]:
    found = []
    for i, dish in enumerate(document.dishes):
        where = f"dishes.{i}"
        if not dish.job and not (dish.cut and dish.method and dish.thickness_mm):
            found.append(Problem(where, "a piece has a cut, a method and a thickness_mm"))
        presses = {event.press for event in dish.events}
        for j, event in enumerate(dish.events):
            path = f"{where}.events.{j}"
            if event.what not in Event.What.values:
                known = ", ".join(Event.What.values)
                found.append(Problem(f"{path}.what", f"unknown; {known} would do"))
            if (event.what == Event.What.WITHDRAWN) != (event.withdraws in presses):
                found.append(Problem(f"{path}.withdraws", "names a press of this dish, or nothing"))
        found += [
            Problem(f"{where}.sheets.{j}.press", "no event has this press")
            for j, sheet in enumerate(dish.sheets)
            if sheet.press not in presses
        ]
    return found


def _text(moment: datetime | None) -> str | None:
    return moment.astimezone(UTC).isoformat() if moment else None
