"""What keeps a feast from being brought in: all that a form would refuse, and all that breaks."""

from base64 import b64decode
from collections.abc import Iterable, Iterator, Mapping
from datetime import datetime
from itertools import pairwise
from uuid import UUID, uuid4
from zoneinfo import ZoneInfo

from django.utils.translation import gettext
from pydantic import ValidationError

from pantry_core.dish.answer import DishOut
from pantry_core.errors import OutOfRange
from pantry_core.formats.feast import DishDocument, EventDocument, FeastDocument, SheetDocument
from pantry_core.formats.operations import weigh_out_from
from pantry_core.formats.reading import Problem, problem_of
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.weighed import go_on
from pantry_core.plan.instants import NotAnInstant, read_instant, read_zone
from pantry_core.quantities import Number
from pantry_core.rules.profiles import ProfileName
from pantry_web.feasts.models import Dish, Event
from pantry_web.feasts.state import DishState, derive
from pantry_web.fields import years_around
from pantry_web.ledger.pictures import kept
from pantry_web.planning.answers import work_out
from pantry_web.planning.documents.dish_document import facts_of, with_facts
from pantry_web.refusal import Refused
from pantry_web.sentences import tell

OF_A_REVIEW = (
    "saltiness", "tender", "doneness", "skin", "bland_share", "left_g", "next_time"
)  # fmt: skip
OF_AN_EVENT = ("what", "mass_g", "temperature_c", "taste", "touch", "note", "line")
CHOSEN = {"what": Event.What, "taste": Event.Taste, "touch": Event.Touch}


def wrongs_of(document: FeastDocument, profile: ProfileName, now: datetime) -> list[Problem]:
    """Everything that is wrong with the document of a feast.

    Parameters: document; profile of the kitchen that reads it; now, from which no year in it lies
    far away.
    """
    try:
        zone = read_zone(document.tz)
    except NotAnInstant as error:
        return [Problem("tz", str(error))]
    found = list(_wrong_times(document, zone, now))
    if found:
        return found
    for i, dish in enumerate(document.dishes):
        wrongs = list(_wrong_log(dish)) or _wrong_dish(dish, document, profile, zone, now)
        found += [Problem(f"dishes.{i}.{each.where}".rstrip("."), each.what) for each in wrongs]
    return found


def _wrong_times(document: FeastDocument, zone: ZoneInfo, now: datetime) -> Iterator[Problem]:
    times: list[tuple[str, str | None]] = [("serve_at", document.serve_at)]
    for i, dish in enumerate(document.dishes):
        times.append((f"dishes.{i}.serve_at", dish.serve_at))
        times += [
            (f"dishes.{i}.edits.{j}.locked_start", edit.locked_start)
            for j, edit in enumerate(dish.edits)
        ]
        for j, event in enumerate(dish.events):
            times.append((f"dishes.{i}.events.{j}.at", event.at))
            times.append((f"dishes.{i}.events.{j}.until", event.until))
        if dish.review is not None:
            times.append((f"dishes.{i}.review.ready_at", dish.review.ready_at))
            times.append((f"dishes.{i}.review.told_at", dish.review.told_at))
        for j, left in enumerate(dish.leftovers):
            times += [
                (f"dishes.{i}.leftovers.{j}.{name}", getattr(left, name))
                for name in ("since", "until", "ended_at")
            ]
        for j, photo in enumerate(dish.photos):
            times.append((f"dishes.{i}.photos.{j}.kept_at", photo.kept_at))
    for where, text in times:
        yield from wrong_time(where, text, zone, now)


def wrong_time(where: str, text: str | None, zone: ZoneInfo, now: datetime) -> Iterator[Problem]:
    """What is wrong with a time: it is none, or nobody means that year."""
    first, last = years_around(now)
    try:
        if text is not None and not first <= read_instant(text, zone).year <= last:
            yield Problem(
                where,
                tell("use a year from {first} to {last}", first=Number(first), last=Number(last)),
            )
    except NotAnInstant as error:
        yield Problem(where, str(error))


def _wrong_log(dish: DishDocument) -> Iterator[Problem]:
    """Events of no kind that is known, of no press, and sheets that do not belong to them."""
    presses = {event.press for event in dish.events}
    weighed_out = {sheet.press for sheet in dish.sheets}
    for j, event in enumerate(dish.events):
        path = f"events.{j}"
        for name, kind in CHOSEN.items():
            value = getattr(event, name)
            if value not in kind.values and (value or name == "what"):
                yield Problem(
                    f"{path}.{name}",
                    tell("unknown; use {values}", values=", ".join(kind.values)),
                )
        if (event.what == Event.What.WITHDRAWN) != (event.withdraws in presses):
            yield Problem(f"{path}.withdraws", gettext("names a press of this dish, or nothing"))
        if (event.what == Event.What.PUT_OFF) != (event.until is not None):
            yield Problem(f"{path}.until", gettext("until when it was put off, or nothing"))
        if event.what == Event.What.PUT_IN and event.press not in weighed_out:
            yield Problem(path, gettext("what went in has its sheet, of the same press"))
    yield from _wrong_told(dish)
    taken = [sheet.press for sheet in dish.sheets]
    for j, sheet in enumerate(dish.sheets):
        if sheet.press not in presses:
            yield Problem(f"sheets.{j}.press", gettext("no event has this press"))
        elif sheet.press in taken[:j]:
            yield Problem(f"sheets.{j}.press", gettext("this press has a sheet already"))
        yield from _wrong_sheet(f"sheets.{j}", sheet)


def _wrong_told(dish: DishDocument) -> Iterator[Problem]:
    """What is told of what came of a dish and cannot be."""
    for j, left in enumerate(dish.leftovers):
        if bool(left.fate) != (left.ended_at is not None):
            yield Problem(f"leftovers.{j}.ended_at", gettext("when it ended, if it did"))
    for j, photo in enumerate(dish.photos):
        try:
            kept(b64decode(photo.jpeg, validate=True))
        except (ValueError, Refused):
            yield Problem(f"photos.{j}.jpeg", gettext("use a JPEG in base 64"))


def _wrong_sheet(path: str, sheet: SheetDocument) -> Iterator[Problem]:
    """A sheet that no page could show."""
    try:
        asked = WeighRequest.model_validate(sheet.request)
        go_on(asked, sheet.weighed)
        weigh_out_from(sheet.answer)
    except ValidationError as error:
        for each in error.errors()[:3]:
            problem = problem_of(each)
            yield Problem(f"{path}.{problem.where}", problem.what)
    except OutOfRange as error:
        yield Problem(path, str(error))


def _wrong_dish(
    dish: DishDocument, document: FeastDocument, profile: ProfileName, zone: ZoneInfo, now: datetime
) -> list[Problem]:
    """What keeps the core from working a dish out, as it was decided and as it went."""
    plain = {"profile": profile, **dish.decided, "people": document.people}
    answer = work_out(plain)
    if not isinstance(answer, DishOut):
        return list(answer.problems)
    batches = {each.press: uuid4() for each in dish.events}
    events = [event_of(Dish(), each, batches, zone) for each in dish.events]
    state = derive(events)
    late = max([now, *(each.at for each in events)])
    disorder = list(_disorder(state, [step.id for step in answer.steps]))
    facts = facts_of(Dish(), answer.steps, state, (), late)
    serve_at = read_instant(dish.serve_at or document.serve_at, zone)
    went = work_out(with_facts(plain, facts, late, document.tz, serve_at))
    return [*disorder, *(() if isinstance(went, DishOut) else went.problems)]


def _disorder(state: DishState, steps: Iterable[str]) -> Iterator[Problem]:
    """Steps that ended before they began, or began before the one before them."""
    for key, fact in state.facts.items():
        if fact.started_at and fact.ended_at and fact.ended_at < fact.started_at:
            yield Problem("events", tell("{key} ends before it starts", key=key))
    moments = [
        (key, moment)
        for key in steps
        if key in state.facts
        and (moment := state.facts[key].started_at or state.facts[key].ended_at)
    ]
    for (first, before), (then, after) in pairwise(moments):
        if after < before:
            yield Problem(
                "events",
                tell(
                    "{then} comes after {first}, and is told to begin before it",
                    then=then,
                    first=first,
                ),
            )


def event_of(
    dish: Dish, document: EventDocument, batches: Mapping[int, UUID], zone: ZoneInfo
) -> Event:
    """An event of a dish as its document tells it, by nobody as yet."""
    return Event(
        dish=dish, at=read_instant(document.at, zone), batch=batches[document.press],
        step_key=document.step,
        until=read_instant(document.until, zone) if document.until else None,
        heat=document.heat.model_dump() if document.heat else None,
        withdraws=batches[document.withdraws] if document.withdraws else None,
        **{name: getattr(document, name) for name in OF_AN_EVENT},
    )  # fmt: skip
