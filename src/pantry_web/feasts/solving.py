"""Solving a plan document once, and keeping the plan while it still holds."""

import hashlib
from collections.abc import Mapping
from datetime import datetime, timedelta

from django.core.cache import cache

from pantry_core.plan.problem import GRID, resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Plan

KEPT_S = 7 * 24 * 3600

Kept = Mapping[tuple[str, str], datetime]
"""Starts of the plan that the cook last went by, by dish and step."""


def solved(request: PlanRequest, keep: Kept) -> Plan:
    """Solve, or take the plan kept for the same house, steps and facts while it still holds.

    Parameters: request; keep, starts that stay where they can.
    """
    now = datetime.fromisoformat(request.now)
    key = _key(request, keep)
    kept: tuple[Plan, datetime] | None = cache.get(key)
    if kept is not None and _still_holds(*kept, request, now):
        return kept[0]
    from pantry_core.plan.solve import plan  # noqa: PLC0415 - the solver takes 0.6 s to import

    found = plan(resolve(request), keep=keep)
    cache.set(key, (found, now), KEPT_S)
    return found


def _key(request: PlanRequest, keep: Kept) -> str:
    document = request.model_dump_json(by_alias=True, exclude={"now"})
    starts = sorted((*key, start.isoformat()) for key, start in keep.items())
    return f"plan-{hashlib.sha256(f'{document}{starts}'.encode()).hexdigest()}"


def _still_holds(kept: Plan, solved_at: datetime, request: PlanRequest, now: datetime) -> bool:
    """Whether nothing that was planned lies undone in the past by now."""
    if kept.status == "infeasible":
        return timedelta(0) <= now - solved_at < GRID
    facts = [(dish.id, step) for dish in request.dishes for step in dish.steps]
    begun = {(dish, each.id) for dish, each in facts if each.started_at or each.ended_at}
    ended = {(dish, each.id) for dish, each in facts if each.ended_at}
    done = {
        (dish, each.id, datetime.fromisoformat(text))
        for dish, each in facts
        for text in each.rounds_done
    }
    steps_ahead = all(
        (each.start >= now or (each.dish, each.step) in begun)
        and (each.end >= now or (each.dish, each.step) in ended)
        for each in kept.steps
    )
    return steps_ahead and all(
        each.at >= now or (job.dish, job.step, each.at) in done
        for each in kept.rounds
        for job in each.jobs
    )
