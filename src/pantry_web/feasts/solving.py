"""Solving a plan document once, beside the pages where it takes long, and keeping the plan."""

import hashlib
from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import Any

from django.core.cache import cache
from django.utils import timezone
from django_tasks import task
from django_tasks.base import Task
from pydantic import TypeAdapter

from pantry_core.plan.problem import GRID, resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Plan
from pantry_web.feasts.models import Solve

KEPT_S = 7 * 24 * 3600
QUICK_STEPS = 24
"""Plans of so many open steps take under a second."""
PATIENCE = timedelta(seconds=15)
"""When nobody has begun to work a plan out after so long, the page does it itself."""

FORGOTTEN = timedelta(days=30)
"""Plans that were worked out so long ago are thrown away."""

Kept = Mapping[tuple[str, str], datetime]
"""Starts of the plan that the cook last went by, by dish and step."""

Document = dict[str, Any]

_PLAN = TypeAdapter(Plan)


def solved(request: PlanRequest, keep: Kept) -> Plan | Solve:
    """Solve, or take the plan kept for the same house, steps and facts while it still holds.

    Parameters: request; keep, starts that stay where they can.
    Returns: the plan, or what is worked out beside the pages and not done yet.
    """
    now = datetime.fromisoformat(request.now)
    key = _key(request, keep)
    kept: tuple[Plan, datetime] | None = cache.get(key)
    if kept is not None and _still_holds(*kept, request, now):
        return kept[0]
    if _open_steps(request) <= QUICK_STEPS:
        found = _solve(request, keep)
        cache.set(key, (found, now), KEPT_S)
        return found
    row = _row(key, request, keep, now)
    if row.answer is None:
        return row
    plan = _PLAN.validate_python(row.answer, strict=False)
    cache.set(key, (plan, datetime.fromisoformat(row.document["now"])), KEPT_S)
    return plan


@task()
def work_out_plan(key: str) -> None:
    """Work a plan out, telling how far it is; asked to stop, go on with the best so far."""
    row = Solve.objects.get(key=key)
    rows = Solve.objects.filter(key=key)
    rows.update(state=Solve.State.RUNNING)

    def tell(deviation_h: float, bound_h: float) -> None:
        rows.update(deviation_h=deviation_h, bound_h=bound_h)

    def wants_stop() -> bool:
        return rows.filter(wants_stop=True).exists()

    from pantry_core.plan.solve import plan  # noqa: PLC0415 - the solver takes 0.6 s to import

    keep = {(dish, step): datetime.fromisoformat(start) for dish, step, start in row.keep}
    problem = resolve(PlanRequest.model_validate(row.document))
    found = plan(problem, tell, wants_stop, keep=keep)
    rows.update(answer=_PLAN.dump_python(found, mode="json"), state=Solve.State.DONE)


def _row(key: str, request: PlanRequest, keep: Kept, now: datetime) -> Solve:
    """The plan as it is worked out; one that no longer holds, or waits too long, is begun anew."""
    row = Solve.objects.filter(key=key).first()
    if row is not None and row.answer is not None:
        plan = _PLAN.validate_python(row.answer, strict=False)
        if not _still_holds(plan, datetime.fromisoformat(row.document["now"]), request, now):
            row.delete()
            row = None
    if row is None:
        document = request.model_dump(mode="json", by_alias=True, exclude_defaults=True)
        starts = [(*pair, start.isoformat()) for pair, start in keep.items()]
        return handed_over(key, document, work_out_plan, starts)
    return hurried(row, work_out_plan)


def handed_over(
    key: str, document: Document, work: Task[[str], None], keep: Sequence[tuple[str, ...]] = ()
) -> Solve:
    """Hand something over to whoever works beside the pages.

    Parameters: key, by which it is known; document that is asked; work, the task, which takes the
    key; keep, starts that stay where they can.
    """
    Solve.objects.filter(begun_at__lt=timezone.now() - FORGOTTEN).delete()
    row = Solve.objects.create(key=key, document=document, keep=list(keep))
    work.enqueue(key)
    row.refresh_from_db()
    return row


def key_of(kind: str, now: datetime, asked: object) -> str:
    """The same for whatever is asked again within a quarter hour.

    Parameters: kind of what is asked; now; asked, whose text tells it apart.
    """
    quarter = now.timestamp() // GRID.total_seconds()
    return f"{kind}-{hashlib.sha256(repr((quarter, asked)).encode()).hexdigest()}"


def hurried(row: Solve, work: Task[[str], None]) -> Solve:
    """The same row; when nobody has begun it after a while, the page does it itself."""
    if row.state == Solve.State.WAITING and timezone.now() - row.begun_at > PATIENCE:
        work.call(row.key)
        row.refresh_from_db()
    return row


def _open_steps(request: PlanRequest) -> int:
    return sum(not step.ended_at for dish in request.dishes for step in dish.steps)


def _solve(request: PlanRequest, keep: Kept) -> Plan:
    from pantry_core.plan.solve import plan  # noqa: PLC0415 - the solver takes 0.6 s to import

    return plan(resolve(request), keep=keep)


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
