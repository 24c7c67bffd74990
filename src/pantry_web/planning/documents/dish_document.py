"""The `dish` document of a stored dish, with what was planned and what happened."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Any

from pantry_core.dish.answer import DishStep
from pantry_core.history.log import hours_between
from pantry_core.history.warmth import hours_met
from pantry_core.plan.problem import GRID
from pantry_core.plan.result import PlannedStep
from pantry_web.feasts.models import Dish, Event, Mishap
from pantry_web.feasts.state import NOT_OF_THE_MEAT, DishState

Document = dict[str, Any]


def with_facts(
    document: Document, facts: Sequence[Document], now: datetime, zone: str, serve_at: datetime
) -> Document:
    """The document with what happened; without facts it does not depend on the moment.

    The present is told to the quarter hour, or as the latest fact, so that the answer can be kept.
    """
    if not facts:
        return document
    latest = max(datetime.fromisoformat(each["at"]) for each in facts)
    told = {"facts": facts, "now": max(quarter_of(now), latest).isoformat(), "tz": zone}
    return {**document, **told, "serve_at": _text(serve_at)}


def quarter_of(now: datetime) -> datetime:
    """The beginning of the quarter of an hour in which a moment lies."""
    since_midnight = timedelta(hours=now.hour, minutes=now.minute, seconds=now.second,
                               microseconds=now.microsecond)  # fmt: skip
    return now - since_midnight % GRID


def with_plan(document: Document, planned: Iterable[PlannedStep]) -> Document:
    """The document with the times of its steps."""
    times = [
        {"step": each.step, "start": each.start.isoformat(), "end": each.end.isoformat()}
        for each in planned
    ]
    return {**document, "planned": times} if times else document


def as_it_went(
    planned: Iterable[PlannedStep], dish: str, steps: Sequence[DishStep], state: DishState
) -> Iterator[PlannedStep]:
    """The steps of a dish in an earlier plan, with the times at which they began and ended.

    Parameters: planned, of all dishes; dish, its key; steps, as they are now: others have gone;
    state, what has happened.
    """
    keys = {step.id for step in steps}
    for each in planned:
        if each.dish == dish and each.step in keys:
            fact = state.facts.get(each.step)
            start, end = (fact.started_at, fact.ended_at) if fact else (None, None)
            yield replace(each, start=start or each.start, end=end or each.end)


def facts_of(
    dish: Dish, steps: Iterable[DishStep], state: DishState, mishaps: Iterable[Mishap],
    now: datetime,
) -> list[Document]:  # fmt: skip
    """What happened to a dish, its part of what befell the kitchen included."""
    cold = {step.id for step in steps if step.place == "fridge"}
    stays = [
        (fact.started_at, fact.ended_at or now)
        for key, fact in state.facts.items()
        if key in cold and fact.started_at is not None
    ]
    events = [_fact(each) for each in state.events if each.what not in NOT_OF_THE_MEAT]
    return [*events, *(fact for each in mishaps if (fact := _befell(dish, each, stays)))]


def _fact(event: Event) -> Document:
    told = {
        "step": event.step_key, "mass_g": event.mass_g, "temperature_c": event.temperature_c,
        "taste": event.taste, "touch": event.touch, **(event.heat or {}),
    }  # fmt: skip
    known = {name: value for name, value in told.items() if value not in (None, "")}
    return {"what": event.what, "at": _text(event.at), **known}


def _befell(dish: Dish, mishap: Mishap, stays: list[tuple[datetime, datetime]]) -> Document | None:
    if mishap.kind == Mishap.Kind.LEFT_OUT:
        is_its = mishap.dish_id == dish.pk
        hours = hours_between(mishap.begins, mishap.ends) if is_its else 0.0
    else:
        hours = hours_met(stays, mishap.begins, mishap.ends)
    if not hours:
        return None
    told = {"what": "mishap", "at": _text(mishap.begins), "kind": mishap.kind, "hours": hours}
    if mishap.temperature_c is not None:
        told["temperature_c"] = mishap.temperature_c
    return told


def _text(moment: datetime) -> str:
    return moment.astimezone(UTC).isoformat()
