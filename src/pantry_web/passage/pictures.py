"""The picture of a plan in both sizes, and the words beside it."""

import json
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from functools import lru_cache, partial
from zoneinfo import ZoneInfo

from django.urls import reverse
from django.utils.safestring import SafeString

from pantry_core.dish.answer import DishStep
from pantry_core.measures.said import span
from pantry_core.plan.hours import hours_of as hours_of_plan
from pantry_core.plan.problem import household
from pantry_core.plan.request import HouseRequest
from pantry_core.plan.result import Plan, PlannedStep
from pantry_core.quantities import Celsius
from pantry_core.text import Sentence, say
from pantry_web.clock_face import hour, is_of_12
from pantry_web.drawings.passage import NARROW, WIDE, passage
from pantry_web.drawings.scene import scene
from pantry_web.drawings.shapes import (
    Around,
    Chain,
    Format,
    Passage,
    Room,
    Span,
    State,
    Stay,
    Visit,
)
from pantry_web.drawings.timescale import House, next_midnight
from pantry_web.passage.svg import Telling, svg
from pantry_web.passage.words import Day, Told, tasks_of, words_by_day
from pantry_web.planning.documents.dish_document import Document
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.quantities import at, hours_of, room
from pantry_web.sentences import said, speaker, tell

MOST_SAID, MOST_ADDRESSES = 90, 4096
DAY = timedelta(days=1)
OF_A_DAY = 1.7
"""A day alone is drawn so much larger."""
JUST_PAST = timedelta(hours=12)
"""How much of the past the picture of a whole feast shows."""
Spans = Mapping[tuple[str, str], Span]
"""Begins and ends of steps, by their dish and key."""


@dataclass(frozen=True, slots=True)
class Seen:
    """What is seen: of which dishes, from when, or which day; what is laid under it.

    `before` are spans of steps by another plan; `plan` is drawn in place of the feast's, in the
    house of a `plan` document.
    """

    since: datetime | None = None
    day: datetime | None = None
    before: Spans = field(default_factory=dict)
    plan: Plan | None = None
    house: Document | None = None


@dataclass(frozen=True, slots=True)
class Picture:
    """Both sizes, the words beside them by day, and the scale of the wide one, for the pointer."""

    wide: Passage
    narrow: Passage
    days: tuple[Day, ...]
    scale: str


def picture(whole: FeastOutlook, views: Sequence[Outlook], seen: Seen) -> Picture | None:
    """The picture of some dishes of a feast; None where none of them has a step that is seen."""
    zone = ZoneInfo(whole.feast.time_zone)
    chains = [_chain(view, seen) for view in views]
    until = next_midnight(seen.day, zone) if seen.day else None
    since = seen.day or seen.since
    if not any(_is_seen(each, since, until) for chain in chains for each in chain.stays):
        return None
    house = House(zone, whole.kitchen.wake, whole.kitchen.sleep, is_of_12=is_of_12())
    left = tasks_of(whole, views)
    around = _around(whole, chains, left, seen)
    shown = scene(
        chains, whole.now, whole.feast.serve_at, house,
        around=around, since=seen.since, day=seen.day,
    )  # fmt: skip
    wide = passage(shown, _in_size(WIDE, seen))
    numbers = {(each.chain.dish, each.key): each.number for each in wide.ribbons if each.number}
    narrow = passage(shown, _in_size(NARROW, seen), numbers=numbers)
    between = (since, until) if until else None
    return Picture(wide, narrow, words_by_day(whole, views, wide, left, between), _scale(wide))


def written(
    drawn: Picture, whole: FeastOutlook, only: Outlook | None, *, is_day: bool
) -> dict[str, SafeString]:
    """Both sizes as SVG, by their names; ribbons of the wide one are buttons.

    Parameters: drawn; whole; only, the dish that is looked at by itself; is_day, whether a day is.
    """
    feast, units = whole.feast, whole.kitchen.units
    of = "?of=dish" if only else ""
    title = tell(
        "{name}: time runs down, places across. The same stands in words below.",
        name=only.dish.name if only else feast.name,
    )
    narrow = Telling(
        "narrow",
        title,
        speaker(units),
        partial(at, zone=feast.time_zone),
        lambda dish, key: _address(dish, key) + of,
    )
    data = {
        "scale": drawn.scale,
        "anchor": f"{feast.serve_at.timestamp():.0f}",
        "now": f"{whole.now.timestamp():.0f}",
        "zone": feast.time_zone,
    }
    page = reverse("feast-passage", args=[feast.pk])
    to_day = None if only or is_day else lambda day: f"{page}?day={day.isoformat()}"
    wide = replace(narrow, name="wide", day=to_day, data=data)
    return {"wide": svg(drawn.wide, wide), "narrow": svg(drawn.narrow, narrow)}


@lru_cache(maxsize=MOST_ADDRESSES)
def _address(dish: str, key: str) -> str:
    """Of a step; looked up once, for a picture has some dozens and each takes a tenth of a ms."""
    return reverse("passage-step", args=[dish, key])


def _in_size(size: Format, seen: Seen) -> Format:
    """A size of the picture, a day alone drawn larger."""
    if seen.day is None:
        return size
    heights = replace(size.heights, hour=OF_A_DAY * size.heights.hour)
    return replace(size, heights=heights)


def _is_seen(stay: Stay, since: datetime | None, until: datetime | None) -> bool:
    is_after = stay.end > (since or stay.start)
    return stay.end > stay.start and is_after and (until is None or stay.start < until)


def _scale(drawn: Passage) -> str:
    """Instants [s] and their heights, as JSON."""
    pairs = zip(drawn.scale.moments, drawn.scale.heights, strict=True)
    return json.dumps([[round(at.timestamp()), y] for at, y in pairs], separators=(",", ":"))


def _chain(view: Outlook, seen: Seen) -> Chain:
    done = {key: set(fact.rounds_done) for key, fact in view.state.facts.items()}
    steps, rounds = _planned(view, seen)
    visits = [Visit(key, at, at in done.get(key, ())) for key, at in rounds]
    before = {step: span for (dish, step), span in seen.before.items() if dish == view.key}
    serve_at = view.dish.serve_at or view.dish.feast.serve_at
    stays = list(
        _stays(view, steps, is_other=seen.plan is not None or view.whole.solving is not None)
    )
    return Chain(view.dish.name, view.dish.hue, stays, visits, serve_at, view.key, before)


def _planned(view: Outlook, seen: Seen) -> tuple[Sequence[PlannedStep], list[tuple[str, datetime]]]:
    """The steps and rounds of a dish by what is drawn: its plan, or how it would be by itself."""
    if seen.plan is not None:
        own, rounds = seen.plan.by_dish().get(view.key, ((), ()))
    elif view.plan is not None and view.plan.steps:
        own, rounds = view.plan.steps, view.plan.rounds
    else:
        return view.whole.apart.get(view.key, []), []
    return own, [(job.step, each.at) for each in rounds for job in each.jobs]


def kept_spans(whole: FeastOutlook) -> dict[tuple[str, str], Span]:
    """When steps begin and end by the plan that the cook last went by."""
    return {
        (each["dish"], each["step"]):
        (datetime.fromisoformat(each["start"]), datetime.fromisoformat(each["end"]))
        for each in whole.feast.kept_plan or ()
    }  # fmt: skip


def spans_now(whole: FeastOutlook) -> dict[tuple[str, str], Span]:
    """When steps begin and end as it is now: by the plan, or each dish by itself."""
    planned = whole.plan.steps if whole.plan else ()
    alone = (step for steps in whole.apart.values() for step in steps)
    return {(each.dish, each.step): (each.start, each.end) for each in (*alone, *planned)}


def _stays(view: Outlook, steps: Sequence[PlannedStep], *, is_other: bool) -> Iterator[Stay]:
    """The steps as they are drawn; by another plan than the feast's now nothing can be moved."""
    told, against = speaker(view.kitchen.units), view.whole.against
    for planned in steps:
        step = view.step(planned.step)
        if step is None:
            continue
        why = None if is_other else against.get((view.key, step.id))
        is_ahead = step.id not in view.state.begun and not is_other
        yield Stay(
            key=step.id,
            title=told(step.title),
            place=step.place or "shop",
            start=planned.start,
            end=planned.end,
            state=_state(view, step.id),
            length=told(_length(step, planned)),
            uses=step.uses,
            latest=planned.latest_start if is_ahead else None,
            is_locked=bool(step.locked_start) and is_ahead,
            after=tuple((each.dish, each.step) for each in step.after),
            why=told(why.text if why else None),
            trip=step.trip,
        )


def _length(step: DishStep, planned: PlannedStep) -> Sentence:
    """How long a step takes, and how hot the oven is that others may share."""
    length = span(hours_of(planned.end - planned.start))
    if step.heat_c is None:
        return length
    return say("{length} at {heat}", length=length, heat=Celsius(step.heat_c, 0))


def _state(view: Outlook, key: str) -> State:
    fact = view.state.facts.get(key)
    if fact is None or fact.started_at is None:
        return "ahead"
    return "running" if fact.ended_at is None else "done"


def _around(
    whole: FeastOutlook, chains: Sequence[Chain], left: Sequence[Told], seen: Seen
) -> Around:
    """Rooms and hours of the kitchen over the time that is drawn, as a `plan` document has them.

    Of a dish by itself nobody can see how full places are.
    """
    asked = seen.house or whole.plan_documents[0]
    house = household(
        HouseRequest.model_validate({k: part for k, part in asked.items() if k != "dishes"})
    )
    is_whole = len(chains) >= len(whole.planned_dishes)
    rooms = {
        name: Room(holds, _said_in(house.room_units.get(name)))
        for name, holds in house.places.items()
        if holds is not None and is_whole
    }
    stays = [each for chain in chains for each in chain.stays]
    begin = seen.day or seen.since or min(*(each.start for each in stays), whole.now)
    end = max(*(each.end for each in stays), whole.feast.serve_at)
    ends = (begin - DAY, end + DAY)
    hours = hours_of_plan(house, *ends)
    return Around(
        rooms,
        {place: _between(open_at, ends) for place, open_at in hours.open.items()},
        () if hours.work is None else _between(hours.work, ends),
        _between(hours.home, ends),
        _going_on(whole, left),
    )


def _said_in(unit: str | None) -> Callable[[float], str] | None:
    return None if unit is None else partial(room, unit=unit)


def _between(spans: Sequence[Span], ends: Span) -> list[Span]:
    """What lies between spans."""
    edges = [ends[0], *(edge for each in spans for edge in each), ends[1]]
    return [(a, b) for a, b in zip(edges[::2], edges[1::2], strict=True) if a < b]


def _going_on(whole: FeastOutlook, left: Sequence[Told]) -> str:
    """What is said at the line of now: what a dish is at, and what is next and when."""
    for view, task in left:
        running = view.step(view.state.running or "")
        if running is None or task.at is None:
            continue
        told = tell(
            "{dish}: {step}, then {task} at {at}",
            dish=view.dish.name,
            step=said(running.title, view.kitchen.units).lower(),
            task=said(task.title, view.kitchen.units).lower(),
            at=hour(task.at.astimezone(ZoneInfo(whole.feast.time_zone))),
        )
        return told[:MOST_SAID]
    return ""
