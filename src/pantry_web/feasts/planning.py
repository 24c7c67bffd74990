"""The plan of a dish as it stands: built from steps and log, solved by the core, kept a while."""

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cached_property

from django.core.cache import cache

from pantry_core.notice import Notice
from pantry_core.plan.problem import GRID, resolve
from pantry_core.plan.request import Away, Day, DishRequest, PlanRequest, StepRequest
from pantry_core.plan.result import Plan, PlannedStep
from pantry_web.feasts.mixing import Mixed, house_of, mix_of, work_out
from pantry_web.feasts.models import Dish, Step
from pantry_web.feasts.state import DishState, StepFacts, derive
from pantry_web.kitchens.models import Kitchen

KEPT_S = 7 * 24 * 3600


@dataclass(frozen=True)
class Outlook:
    """A dish at a moment: its steps, what has happened, and the plan for the rest."""

    dish: Dish
    kitchen: Kitchen
    now: datetime
    steps: tuple[Step, ...]
    state: DishState

    @cached_property
    def plan(self) -> Plan | None:
        """The plan, solved when first asked for; None once the hour of the feast has passed."""
        if self.dish.feast.serve_at <= self.now or not self.steps:
            return None
        found = _solved(plan_request(self, hold=False), self.now)
        if found.status == "infeasible":
            held = _solved(plan_request(self, hold=True), self.now)
            return found if held.status == "infeasible" else held
        return found

    @cached_property
    def mixed(self) -> Mixed:
        """The mix as the rules of today work it out."""
        return work_out(mix_of(self.dish), house_of(self.kitchen))

    @property
    def stops(self) -> tuple[Notice, ...]:
        """What keeps the meat out, as long as it is out."""
        return () if self.state.put_in else self.mixed.stops

    def planned(self, key: str) -> PlannedStep | None:
        """The planned or past times of a step."""
        if self.plan is None:
            return None
        return next((each for each in self.plan.steps if each.step == key), None)

    def step(self, key: str) -> Step | None:
        """The step with this key."""
        return next((each for each in self.steps if each.key == key), None)


def outlook(dish: Dish, kitchen: Kitchen, now: datetime) -> Outlook:
    """The outlook of a dish: its steps and its log are read, one query each."""
    return Outlook(dish, kitchen, now, tuple(dish.steps.all()), derive(dish.events.all(), now))


def plan_request(view: Outlook, *, hold: bool) -> PlanRequest:
    """The `plan` document of a dish; steps passed over before the last fact are left out.

    Holding a piece before the heat is for one that was lifted early: without `hold` it is left out,
    so that no plan takes a piece out of its cure only to let it lie.
    """
    dish, kitchen, now, facts = view.dish, view.kitchen, view.now, view.state.facts
    asked = [
        _step_request(step, facts.get(step.key, StepFacts()))
        for step in view.steps
        if hold or step.kind != "hold" or step.key in view.state.begun
    ]
    begun = [i for i, each in enumerate(asked) if each.started_at or each.ended_at]
    last_fact = begun[-1] if begun else -1
    asked = [each for i, each in enumerate(asked) if i >= last_fact or i in begun]
    return PlanRequest(
        now=now.isoformat(),
        tz=dish.feast.time_zone,
        serve_at=dish.feast.serve_at.isoformat(),
        day=Day(wake=f"{kitchen.wake:%H:%M}", sleep=f"{kitchen.sleep:%H:%M}"),
        away=tuple(
            Away.model_validate({"from": each.begins.isoformat(), "to": each.ends.isoformat()})
            for each in kitchen.absences.all()
            if each.ends > now
        ),
        cooks=kitchen.cooks,
        places={place.name: place.capacity for place in kitchen.places.all()},
        dishes=(DishRequest(id=str(dish.pk), steps=tuple(asked)),),
    )


def _step_request(step: Step, fact: StepFacts) -> StepRequest:
    return StepRequest(
        id=step.key,
        kind=step.kind,
        place=step.place or None,
        min_h=step.min_h,
        prefer_h=step.prefer_h,
        max_h=step.max_h,
        hands_min=step.hands_min,
        attended=step.attended,
        uses=step.uses,
        every_h=step.every_h,
        rounds_done=tuple(each.isoformat() for each in fact.rounds_done),
        started_at=fact.started_at.isoformat() if fact.started_at else None,
        ended_at=fact.ended_at.isoformat() if fact.ended_at else None,
        locked_start=step.locked_start.isoformat() if step.locked_start else None,
    )


def _solved(request: PlanRequest, now: datetime) -> Plan:
    """Solve, or take the plan kept for the same house, steps and facts while it still holds."""
    document = request.model_dump_json(by_alias=True, exclude={"now"})
    key = f"plan-{hashlib.sha256(document.encode()).hexdigest()}"
    kept: tuple[Plan, datetime] | None = cache.get(key)
    if kept is not None and _still_holds(*kept, request, now):
        return kept[0]
    from pantry_core.plan.solve import plan  # noqa: PLC0415 - the solver takes 0.6 s to import

    solved = plan(resolve(request))
    cache.set(key, (solved, now), KEPT_S)
    return solved


def _still_holds(kept: Plan, solved_at: datetime, request: PlanRequest, now: datetime) -> bool:
    """Whether nothing that was planned lies undone in the past by now."""
    if kept.status == "infeasible":
        return timedelta(0) <= now - solved_at < GRID
    facts: Sequence[StepRequest] = request.dishes[0].steps
    begun = {each.id for each in facts if each.started_at or each.ended_at}
    ended = {each.id for each in facts if each.ended_at}
    done = {datetime.fromisoformat(text) for each in facts for text in each.rounds_done}
    steps_ahead = all(
        (each.start >= now or each.step in begun) and (each.end >= now or each.step in ended)
        for each in kept.steps
    )
    return steps_ahead and all(each.at >= now or each.at in done for each in kept.rounds)
