"""The `plan` document of a feast, from its dishes as they are worked out and what happened."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from pantry_core.dish.answer import DishStep
from pantry_core.plan.problem import GRID
from pantry_web.feasts.models import Dish, Feast
from pantry_web.feasts.state import DishState, StepFacts
from pantry_web.planning.surroundings import Surroundings

Document = dict[str, Any]


@dataclass(frozen=True, slots=True)
class ToPlan:
    """A dish to be planned: as it is stored, its steps, and what has happened."""

    dish: Dish
    steps: tuple[DishStep, ...]
    state: DishState


def plan_document(
    feast: Feast, around: Surroundings, dishes: Iterable[ToPlan], *, hold: bool
) -> Document:
    """The `plan` document of a feast.

    Holding a piece before the heat is for one that was lifted early: without `hold` it is left out,
    so that no plan takes a piece out of its cure only to let it lie.
    """
    kitchen = around.kitchen
    return {
        "now": around.now.isoformat(),
        "tz": feast.time_zone,
        "serve_at": feast.serve_at.isoformat(),
        "day": {"wake": f"{kitchen.wake:%H:%M}", "sleep": f"{kitchen.sleep:%H:%M}"},
        "away": [
            {"from": each.begins.isoformat(), "to": each.ends.isoformat()}
            for each in around.absences
            if each.ends > around.now
        ],
        "cooks": kitchen.cooks,
        "places": {place.name: place.capacity for place in around.places},
        "dishes": [_dish(each, feast.serve_at, hold=hold) for each in dishes],
    }


def steps_document(steps: Iterable[DishStep], anchor: datetime | None = None) -> list[Document]:
    """Steps of which nothing has happened yet, without holding."""
    return [step_document(step, StepFacts(), anchor) for step in steps if step.kind != "hold"]


def step_document(step: DishStep, fact: StepFacts, anchor: datetime | None = None) -> Document:
    """A step of the plan document, with what has happened of it.

    A lock falls on the quarter hour before it, counted from the anchor: the feast may have moved.
    """
    locked = datetime.fromisoformat(step.locked_start) if step.locked_start else None
    told = {
        "name": step.title, "place": step.place, "prefer_h": step.prefer_h, "max_h": step.max_h,
        "hands_min": step.hands_min or None, "attended": step.attended or None, "uses": step.uses,
        "every_h": step.every_h,
        "rounds_done": [each.isoformat() for each in fact.rounds_done] or None,
        "started_at": fact.started_at.isoformat() if fact.started_at else None,
        "ended_at": fact.ended_at.isoformat() if fact.ended_at else None,
        "locked_start": on_grid(locked, anchor),
    }  # fmt: skip
    known = {name: value for name, value in told.items() if value is not None}
    return {"id": step.id, "kind": step.kind, "min_h": step.min_h, **known}


def on_grid(moment: datetime | None, anchor: datetime | None) -> str | None:
    """A moment at or before it on the quarter hours of an anchor."""
    if moment is None:
        return None
    return (moment - (moment - (anchor or moment)) % GRID).isoformat()


def _dish(asked: ToPlan, anchor: datetime, *, hold: bool) -> Document:
    """A dish; steps that were passed over before the last fact are left out."""
    facts, begun_steps = asked.state.facts, asked.state.begun
    steps = [
        step_document(step, facts.get(step.id, StepFacts()), anchor)
        for step in asked.steps
        if hold or step.kind != "hold" or step.id in begun_steps
    ]
    begun = [i for i, each in enumerate(steps) if "started_at" in each or "ended_at" in each]
    last_fact = begun[-1] if begun else -1
    own_hour = on_grid(asked.dish.serve_at, anchor)
    return {
        "id": str(asked.dish.pk),
        "name": asked.dish.name,
        **({"serve_at": own_hour} if own_hour else {}),
        "early_max_min": asked.dish.early_max_min,
        "steps": [each for i, each in enumerate(steps) if i >= last_fact or i in begun],
    }
