"""The `plan` document of a feast, from its dishes as they are worked out and what happened."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import pairwise
from typing import Any
from zoneinfo import ZoneInfo

from pantry_core.days.named import public_holidays
from pantry_core.dish.answer import DishStep
from pantry_core.plan.circles import way_back
from pantry_core.plan.problem import GRID
from pantry_core.routes.cooking import usual_early_min
from pantry_core.routes.steps import SHOPPING as SHOP
from pantry_web.feasts.models import Dish, Feast
from pantry_web.feasts.state import DishState, StepFacts
from pantry_web.kitchens.hours import shop_opening, work_hours
from pantry_web.kitchens.models import Place
from pantry_web.planning.documents.dish_document import quarter_of
from pantry_web.planning.documents.surroundings import Surroundings
from pantry_web.quantities import DEFAULT_ROOM_UNIT

Document = dict[str, Any]

ON_TIME_MIN = 15.0
"""So late is on time once something has begun."""
LOOKS_BACK = timedelta(days=90)
"""Holidays so long before a feast are looked up."""


@dataclass(frozen=True, slots=True)
class ToPlan:
    """A dish to be planned: as it is stored, its steps, and what has happened."""

    dish: Dish
    steps: tuple[DishStep, ...]
    state: DishState


def plan_document(
    feast: Feast, around: Surroundings, dishes: Iterable[ToPlan]
) -> tuple[Document, Document]:
    """The `plan` document of a feast; its day is free, and the shop is shut on public holidays.

    Returns: it without holding, and with it. Holding a piece before the heat is for one that was
    lifted early: without it no plan takes a piece out of its cure only to let it lie. It is the
    same document where there is nothing to hold.
    """
    kitchen, asked = around.kitchen, list(dishes)
    early_min = _early_min(feast, asked, kitchen.cooks)
    parts = Counter(each.dish.piece.get("purchase") for each in asked)
    to_plan = [
        _on_trays(
            _dish(each, feast.serve_at, early_min[_hour(feast, each)]),
            parts[each.dish.piece.get("purchase")] if "purchase" in each.dish.piece else 1,
        )
        for each in asked
    ]
    plain = [_without_holding(each) for each in to_plan]
    house = _house(feast, around) | {
        "now": _now(asked, around.now).isoformat(),
        "serve_at": _serve_at(feast, asked, around.now),
    }
    held = house | {"dishes": _with_known_waits(to_plan)}
    return held if plain == to_plan else house | {"dishes": _with_known_waits(plain)}, held


def _house(feast: Feast, around: Surroundings) -> Document:
    """All of the document but its dishes, its hour and the present."""
    kitchen = around.kitchen
    day = feast.serve_at.astimezone(ZoneInfo(feast.time_zone)).date()
    holidays = public_holidays(kitchen.country, day - LOOKS_BACK, day)
    return {
        "tz": feast.time_zone,
        "day": {
            "wake": f"{kitchen.wake:%H:%M}", "sleep": f"{kitchen.sleep:%H:%M}", "half": True,
            "work": work_hours(kitchen, {day, *holidays}, around.changed_days),
        },
        "open": {SHOP: shop_opening(kitchen, holidays, around.changed_days)},
        "away": [
            {"from": each.begins.isoformat(), "to": each.ends.isoformat()}
            for each in around.absences
            if each.ends > around.now
        ],
        "cooks": kitchen.cooks,
        "places": {SHOP: None, **{place.name: _capacity(place, around) for place in around.places}},
    }  # fmt: skip


def _capacity(place: Place, around: Surroundings) -> float | Document | None:
    """What a place holds; the fridge in litres, with the unit in which its owner gave it."""
    if place.name != Place.FRIDGE:
        return place.capacity
    unit = place.unit or DEFAULT_ROOM_UNIT[around.kitchen.units]
    return {"capacity": place.capacity, "unit": unit}


def _now(dishes: Sequence[ToPlan], now: datetime) -> datetime:
    """The quarter of an hour that runs, in which what it begins with may still be begun.

    Nothing that has happened lies after it.
    """
    facts = (fact for each in dishes for fact in each.state.facts.values())
    happened = (
        moment
        for fact in facts
        for moment in (fact.started_at, fact.ended_at, *fact.rounds_done)
        if moment is not None and moment <= now
    )
    return max((quarter_of(now), *happened))


def _serve_at(feast: Feast, dishes: Sequence[ToPlan], now: datetime) -> str:
    """The hour of the feast; when it has passed, that of the last dish with an hour of its own."""
    ahead = [_hour(feast, each) for each in dishes if feast.serve_at <= now]
    return on_grid(max([feast.serve_at, *ahead]), feast.serve_at) or ""


def _without_holding(dish: Document) -> Document:
    steps = [each for each in dish["steps"] if each["kind"] != "hold" or _is_begun(each)]
    return dish if len(steps) == len(dish["steps"]) else {**dish, "steps": steps}


def _is_begun(step: Document) -> bool:
    return "started_at" in step or "ended_at" in step


def _on_trays(dish: Document, parts: int) -> Document:
    """Parts of one purchase share the oven: they lie in it on a tray each."""
    for step in dish["steps"] if parts > 1 else ():
        if step.get("place") == "oven":
            step["uses"] = step["uses"] / parts
    return dish


def _early_min(feast: Feast, dishes: Sequence[ToPlan], cooks: int) -> dict[datetime, float]:
    """How early the dishes of an hour may be done where nobody says: in its last half hour."""
    lasts: dict[datetime, list[DishStep]] = {}
    for each in dishes:
        lasts.setdefault(_hour(feast, each), []).extend(each.steps[-1:])
    return {
        hour: usual_early_min([last.trip for last in steps if last.kind == "carve"], cooks)
        for hour, steps in lasts.items()
    }


def _hour(feast: Feast, asked: ToPlan) -> datetime:
    return asked.dish.serve_at or feast.serve_at


def _with_known_waits(dishes: list[Document]) -> list[Document]:
    """The dishes without waiting for what is not planned, or goes in a circle."""
    known = {(dish["id"], step["id"]) for dish in dishes for step in dish["steps"]}
    before = {
        (dish["id"], following["id"]): [(dish["id"], last["id"])]
        for dish in dishes
        for last, following in pairwise(dish["steps"])
    }

    def waits(dish: str, step: Document) -> list[Document]:
        here, kept = (dish, step["id"]), []
        for wait in step["after"]:
            waited = (wait["dish"], wait["step"])
            if waited in known and dish != wait["dish"] and not way_back(waited, here, before):
                kept.append(wait)
                before.setdefault(here, []).append(waited)
        return kept

    return [
        {**dish, "steps": [
            {**step, "after": waits(dish["id"], step)} if "after" in step else step
            for step in dish["steps"]
        ]}
        for dish in dishes
    ]  # fmt: skip


def steps_document(steps: Iterable[DishStep], anchor: datetime | None = None) -> list[Document]:
    """Steps of which nothing has happened yet, without holding."""
    return [step_document(step, anchor=anchor) for step in steps if step.kind != "hold"]


def step_document(
    step: DishStep, fact: StepFacts | None = None, anchor: datetime | None = None
) -> Document:
    """A step of the plan document, with what has happened of it.

    A lock falls on the quarter hour before it, counted from the anchor: the feast may have moved.
    What is put off is locked to its hour.
    """
    told: Document = {
        "prefer_h": step.prefer_h, "max_h": step.max_h,
        "hands_min": step.hands_min or None, "attended": step.attended or None,
        "every_h": step.every_h, "trip": step.trip,
        "after": [each.model_dump(exclude_defaults=True) for each in step.after] or None,
        "place": SHOP if step.trip == SHOP else step.place,
        "heat_c": step.heat_c,
        "heats": [each.model_dump(exclude_none=True) for each in step.heats] or None,
    }  # fmt: skip
    known = {name: value for name, value in told.items() if value is not None}
    locked = datetime.fromisoformat(step.locked_start) if step.locked_start else None
    if fact is not None:
        known |= _happened(fact)
        locked = fact.put_off_until or locked
    if locked is not None:
        known["locked_start"] = on_grid(locked, anchor)
    document = {
        "id": step.id, "kind": step.kind, "name": step.title, "uses": step.uses,
        "min_h": step.min_h, **known,
    }  # fmt: skip
    return {name: _as_stored(value) for name, value in document.items()}


def _as_stored(value: object) -> object:
    """A number as it is read from a stored answer, so that the same question has the same key."""
    return float(value) if type(value) is int else value


def _happened(fact: StepFacts) -> Document:
    told = {
        "rounds_done": [each.isoformat() for each in fact.rounds_done],
        "started_at": fact.started_at.isoformat() if fact.started_at else None,
        "ended_at": fact.ended_at.isoformat() if fact.ended_at else None,
    }
    return {name: value for name, value in told.items() if value}


def on_grid(moment: datetime | None, anchor: datetime | None) -> str | None:
    """A moment at or before it on the quarter hours of an anchor."""
    if moment is None:
        return None
    return (moment - (moment - (anchor or moment)) % GRID).isoformat()


def _dish(asked: ToPlan, anchor: datetime, early_min: float) -> Document:
    """A dish; steps that were passed over before the last fact are left out."""
    facts = asked.state.facts
    steps = [step_document(step, facts.get(step.id), anchor) for step in asked.steps]
    begun = [i for i, each in enumerate(steps) if _is_begun(each)]
    last_fact = begun[-1] if begun else -1
    own_hour, early = on_grid(asked.dish.serve_at, anchor), asked.dish.early_max_min
    return {
        "id": str(asked.dish.pk),
        "name": asked.dish.name,
        **({"serve_at": own_hour} if own_hour else {}),
        "early_max_min": early_min if early is None else early,
        "late_max_min": ON_TIME_MIN if asked.state.begun else 0.0,
        "steps": [each for i, each in enumerate(steps) if i >= last_fact or i in begun],
    }
