"""A whole feast as one document, out and in again."""

from collections.abc import Iterator, Mapping
from datetime import UTC, datetime
from typing import Any

from pydantic import ValidationError

from pantry_core.dish.answer import DishOut
from pantry_core.dish.clock import WrongDish
from pantry_core.errors import OutOfRange
from pantry_core.formats.feast import DishDocument, FeastDocument
from pantry_core.formats.feast_1 import OlderFeast, as_it_is_now
from pantry_core.formats.reading import Problem, WrongInput, parse_json, read_document
from pantry_core.plan.instants import NotAnInstant, read_instant, read_zone
from pantry_core.rules.profiles import ProfileName
from pantry_web.feasts.documents import with_waits
from pantry_web.feasts.models import Dish, Event, Feast
from pantry_web.fields import years_around
from pantry_web.planning.answers import work_out

Document = dict[str, Any]

OLDER = "pantry-clock/1"
OF_AN_EVENT = ("what", "mass_g", "temperature_c", "taste", "touch", "note", "line")
CONTRADICTS = "what it says of a dish contradicts itself; write it out anew from Pantry Clock"


def feast_document(feast: Feast) -> Document:
    """A feast with its dishes, logs and sheets as one JSON document."""
    dishes = feast.dishes.prefetch_related("events", "sheets")
    ids = {str(dish.pk): f"dish-{n}" for n, dish in enumerate(dishes, 1)}
    return {
        "format": "pantry-clock/2",
        "name": feast.name,
        "serve_at": _text(feast.serve_at),
        "tz": feast.time_zone,
        "people": feast.heads,
        "note": feast.note,
        "dishes": [_dish_document(dish, ids) for dish in dishes],
    }


def _dish_document(dish: Dish, ids: Mapping[str, str]) -> Document:
    events = list(dish.events.all())
    presses = {batch: n for n, batch in enumerate(dict.fromkeys(each.batch for each in events), 1)}
    return {
        "id": ids[str(dish.pk)],
        "name": dish.name,
        **with_waits(dish.document, ids),
        "serve_at": _text(dish.serve_at),
        "early_max_min": dish.early_max_min,
        "given_up": dish.is_given_up,
        "note": dish.note,
        "recipe": dish.recipe,
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


def read_feast(text: bytes, profile: ProfileName, now: datetime) -> FeastDocument:
    """Read the document of a feast, an older one too.

    Parameters: text, the JSON document; profile of the kitchen that reads it; now, from which no
    year in it lies far away.
    Returns: the document of today.
    Raises: WrongInput with all that is wrong.
    """
    raw = parse_json(text)
    if isinstance(raw, dict) and raw.get("format", OLDER) == OLDER:
        document = _from_older(read_document(OlderFeast, raw), profile)
    else:
        document = read_document(FeastDocument, raw)
    wrongs = [*_wrong_times(document, now), *_wrong_dishes(document, profile)]
    if wrongs:
        raise WrongInput(tuple(wrongs))
    return document


def _from_older(older: OlderFeast, profile: ProfileName) -> FeastDocument:
    wrongs = [
        Problem(f"dishes.{i}", "a piece has a cut, a method and a thickness_mm")
        for i, dish in enumerate(older.dishes)
        if not dish.job and not (dish.cut and dish.method and dish.thickness_mm)
    ]
    if wrongs:
        raise WrongInput(tuple(wrongs))
    try:
        return as_it_is_now(older, profile)
    except (ValidationError, WrongDish, OutOfRange) as error:
        raise WrongInput((Problem("dishes", f"{CONTRADICTS}: {error}"[:300]),)) from None


def _wrong_times(document: FeastDocument, now: datetime) -> list[Problem]:
    try:
        zone = read_zone(document.tz)
    except NotAnInstant as error:
        return [Problem("tz", str(error))]
    times: list[tuple[str, str | None]] = [("serve_at", document.serve_at)]
    for i, dish in enumerate(document.dishes):
        times.append((f"dishes.{i}.serve_at", dish.serve_at))
        times += [
            (f"dishes.{i}.edits.{j}.locked_start", edit.locked_start)
            for j, edit in enumerate(dish.edits)
        ]
        times += [(f"dishes.{i}.events.{j}.at", event.at) for j, event in enumerate(dish.events)]
    found, (first, last) = list[Problem](), years_around(now)
    for where, text in times:
        try:
            if text and not first <= read_instant(text, zone).year <= last:
                found.append(Problem(where, f"a year from {first} to {last} would do"))
        except NotAnInstant as error:
            found.append(Problem(where, str(error)))
    return found


def _wrong_dishes(document: FeastDocument, profile: ProfileName) -> list[Problem]:
    found: list[Problem] = []
    for i, dish in enumerate(document.dishes):
        where = f"dishes.{i}"
        found += [Problem(f"{where}.{each.where}", each.what) for each in _wrong(dish, profile)]
        presses = {event.press for event in dish.events}
        for j, event in enumerate(dish.events):
            path = f"{where}.events.{j}"
            if event.what not in Event.What.values:
                known = ", ".join(Event.What.values)
                found.append(Problem(f"{path}.what", f"unknown; {known} would do"))
            if (event.what == Event.What.WITHDRAWN) != (event.withdraws in presses):
                found.append(Problem(f"{path}.withdraws", "names a press of this dish, or nothing"))
        weighed_out = {sheet.press for sheet in dish.sheets}
        found += [
            Problem(f"{where}.events.{j}", "what went in has its sheet, of the same press")
            for j, event in enumerate(dish.events)
            if event.what == Event.What.PUT_IN and event.press not in weighed_out
        ]
        found += [
            Problem(f"{where}.sheets.{j}.press", "no event has this press")
            for j, sheet in enumerate(dish.sheets)
            if sheet.press not in presses
        ]
    return found


def _wrong(dish: DishDocument, profile: ProfileName) -> Iterator[Problem]:
    """What keeps the core from working a dish out."""
    answer = work_out({"profile": profile, **dish.decided})
    if not isinstance(answer, DishOut):
        yield from answer.problems


def _text(moment: datetime | None) -> str | None:
    return moment.astimezone(UTC).isoformat() if moment else None
