"""The best plan, in the order of weight: wishes first, then start late, then few visits."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

from ortools.sat.python import cp_model

from pantry_core.plan.assemble import assembled
from pantry_core.plan.deviation import (
    WISH_LIMIT,
    Nearest,
    Progress,
    deviation_s,
    nearest,
    wish,
)
from pantry_core.plan.fewest_rounds import (
    more_visits_than_needed,
    visit_moments,
    visits_needed,
)
from pantry_core.plan.grid import Span
from pantry_core.plan.half_hours import starts_on_half_hours
from pantry_core.plan.hours import Hours, hours_of
from pantry_core.plan.keep_starts import Starts, kept_as_they_were
from pantry_core.plan.model import build, build_to, slots_of, solve
from pantry_core.plan.parts import LONGEST, DishModel, Model, edges
from pantry_core.plan.problem import Problem
from pantry_core.plan.result import Plan, PlannedStep
from pantry_core.plan.trips import trips_made, trips_needed, trips_of
from pantry_core.plan.why import explain

TRIP_LIMIT, LATE_LIMIT, VISIT_LIMIT, HALF_LIMIT, SLACK_LIMIT = 0.4, 0.25, 0.4, 0.1, 0.25
"""Deterministic seconds for the later wishes, and for the slack of all steps together."""

POSSIBLE_LIMIT = 0.2
"""Deterministic seconds to find out whether there is a plan at all."""


@dataclass
class _Search:
    """The model as it is narrowed, the best solution so far, and how much of it is proven."""

    model: Model
    best: list[int]
    gap: float
    effort: float = 1.0

    def improve(self, limit: float) -> cp_model.CpSolver | None:
        """Solve for the present objective; the old solution stays when none is found."""
        status, found = solve(self.model, hint=self.best, limit=self.effort * limit)
        if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            self.best = slots_of(self.model, found)
            if status == cp_model.FEASIBLE:
                self.gap = max(self.gap, _gap(found))
            return found
        self.gap = max(self.gap, 1.0)
        return None


def plan(
    problem: Problem,
    progress: Progress | None = None,
    wants_stop: Callable[[], bool] | None = None,
    *,
    effort: float = 1.0,
    keep: Starts | None = None,
    says_why: bool = True,
) -> Plan:
    """Plan a feast backwards from its hour.

    Parameters: problem, times in UTC, windows [s]; progress, told of every better plan; wants_stop,
    asked now and then, once there is a plan, whether to go on with it; effort, a share of the usual
    limits; keep, starts of an earlier plan, by dish and step: as many of them as can be stay;
    says_why, whether it looks for the reasons where there is no plan, and for another hour.
    Returns: the plan, its instants in the problem's zone; `slack_h` [h]; `gap` of the first wish
    that is not proven best; when there is no plan, why, and the earliest hour the feast could be
    served with the present start. The same problem gives the same plan.
    Raises: nothing.
    Source: the rules of the `plan` document; constraint solving by OR-Tools CP-SAT.
    """
    if not any(dish.pending for dish in problem.dishes):
        return assembled(problem, _past(problem), [], 0.0)
    hours = hours_of(problem, problem.now, problem.horizon)
    bound = kept_as_they_were(problem, hours, keep) if keep else problem

    def fresh() -> Model:
        return build(bound, hours, problem.horizon, is_kept=True)

    found = nearest(problem, fresh, progress, wants_stop or (lambda: False), effort)
    if found == cp_model.INFEASIBLE:
        return explain(problem) if says_why else Plan(status="infeasible")
    if not isinstance(found, Nearest):
        return Plan(status="unsettled")
    return _by_later_wishes(problem, hours, fresh, build_to(problem), found)


def best_of(
    problem: Problem, hours: Hours, fresh: Callable[[], Model], first: list[int], effort: float
) -> Plan:
    """The best of the plans that a model allows.

    Parameters: problem; hours, from now to its horizon; fresh, makes the model; first, a slot for
    each boundary of a plan that it allows; effort, a share of the usual limits.
    Returns: the plan. Raises: nothing.
    """
    model = fresh()
    model.cp.minimize(wish(model))
    status, solver = solve(model, hint=first, limit=effort * WISH_LIMIT)
    is_better = status in (cp_model.OPTIMAL, cp_model.FEASIBLE)
    slots = slots_of(model, solver) if is_better else first
    least_s = solver.best_objective_bound if is_better else 0.0
    nearest_found = Nearest(slots, deviation_s(model, slots), least_s)
    return _by_later_wishes(problem, hours, fresh, fresh(), nearest_found, effort)


def _by_later_wishes(
    problem: Problem, hours: Hours, fresh: Callable[[], Model], free: Model, found: Nearest,
    effort: float = 1.0,
) -> Plan:  # fmt: skip
    """The plan nearest to the wishes that makes the fewest trips, starts late, asks few visits.

    Parameters: problem; hours; fresh, makes the model; free, one in which what is kept of an
    earlier plan may move; found, the nearest; effort, a share of the usual limits.
    """
    present = hours.present
    search = _Search(fresh(), found.slots, found.gap, effort)
    found.narrow(search.model)
    _fewest_trips(search, fresh, found)
    _start_late(search)
    _fewest_visits(search, problem, present)
    if problem.likes_half_hours:
        _half_hours(search, problem, present)
    latest, first_latest = _latest_starts(free, search.best, effort)
    steps = _past(problem) + _pending(problem, search, latest)
    order = {dish.id: i for i, dish in enumerate(problem.dishes)}
    return assembled(
        problem,
        sorted(steps, key=lambda each: order[each.dish]),
        present,
        search.gap,
        latest_start=None if first_latest is None else free.grid.moment(first_latest),
        overrun=[each.dish.pending[0] for each in free.dishes if each.overrun],
    )


def is_possible(problem: Problem) -> bool:
    """Whether there is a plan at all, as far as a short search tells.

    Parameters: problem. Raises: nothing.
    """
    if not any(dish.pending for dish in problem.dishes):
        return True
    model = build_to(problem)
    status, _ = solve(model, limit=POSSIBLE_LIMIT)
    return status in (cp_model.OPTIMAL, cp_model.FEASIBLE)


def latest_begin(problem: Problem, dish_id: str) -> datetime | None:
    """The latest hour at which a dish that has not begun can begin, the others moving as they may.

    Parameters: problem; dish_id, one of its dishes with pending steps.
    Returns: the hour in the problem's zone, the latest that a short search finds; None where it
    finds no plan.
    Raises: StopIteration when there is no such dish.
    """
    model = build_to(problem)
    first = next(each for each in model.dishes if each.dish.id == dish_id).bounds[0]
    model.cp.maximize(first)
    status, solver = solve(model, limit=POSSIBLE_LIMIT)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return model.grid.moment(solver.value(first)).astimezone(problem.zone)


def begins_between(
    problem: Problem, dish_id: str, step_id: str
) -> tuple[datetime, datetime] | None:
    """The hours between which a step that has not begun can begin, the others moving as they may.

    Parameters: problem; dish_id and step_id, of a pending step.
    Returns: the earliest and the latest in the problem's zone, as far as a short search finds them;
    None where it finds no plan.
    Raises: StopIteration when there is no such step.
    """
    model = build_to(problem)
    found = next(each for each in model.dishes if each.dish.id == dish_id)
    at = next(i for i, step in enumerate(found.dish.pending) if step.id == step_id)
    slots = []
    for objective in (found.bounds[at], -found.bounds[at]):
        model.cp.minimize(objective)
        status, solver = solve(model, limit=POSSIBLE_LIMIT)
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            return None
        slots.append(solver.value(found.bounds[at]))
    earliest, latest = (model.grid.moment(slot).astimezone(problem.zone) for slot in slots)
    return earliest, latest


def _gap(solver: cp_model.CpSolver, per: float = 4.0) -> float:
    """How far the best may still be, in parts of it; `per` units of the objective are an hour."""
    value, bound = solver.objective_value / per, solver.best_objective_bound / per
    return abs(value - bound) / max(1.0, abs(value))


def _fewest_trips(search: _Search, fresh: Callable[[], Model], found: Nearest) -> None:
    """As few trips as will do: each of them at once, where that can be, else some of them."""
    trips = [each for each in trips_of(search.model).values() if len(each) > 1]
    made, needed = _trips_made(search), trips_needed(search.model)
    if made > needed:
        _all_at_once(search, fresh, found)
        made = _trips_made(search)
    if made > needed:
        search.model.cp.maximize(sum(search.model.joining))
        status, solver = solve(search.model, hint=search.best, limit=search.effort * TRIP_LIMIT)
        if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            search.best = slots_of(search.model, solver)
            made = _trips_made(search)
        if status != cp_model.OPTIMAL:
            search.gap = max(search.gap, (made - needed) / made)
    if trips:
        alone = trips_needed(search.model) - len(trips)
        along = sum(map(len, trips)) - (made - alone)
        search.model.cp.add(sum(search.model.joining) >= along)


def _all_at_once(search: _Search, fresh: Callable[[], Model], found: Nearest) -> None:
    """Look for a plan, no worse, in which each trip is made once."""
    model = fresh()
    found.narrow(model)
    for (n, i), *others in trips_of(model).values():
        for m, j in others:
            model.cp.add(model.dishes[m].bounds[j] == model.dishes[n].bounds[i])
    status, solver = solve(model, hint=search.best, limit=search.effort * TRIP_LIMIT)
    if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        search.model, search.best = model, slots_of(model, solver)


def _trips_made(search: _Search) -> int:
    slots = dict(zip(_boundaries(search.model), search.best, strict=True))
    return trips_made(search.model, slots)


def _fewest_visits(search: _Search, problem: Problem, present: list[Span]) -> None:
    planned = _pending(problem, search, {})
    if not more_visits_than_needed(problem, planned, present):
        return
    needed = visits_needed(search.model, problem, present)
    if needed:
        search.model.cp.minimize(sum(needed))
        found = search.improve(VISIT_LIMIT)
        if found is not None:
            search.model.cp.add(sum(needed) <= sum(found.value(each) for each in needed))


def _half_hours(search: _Search, problem: Problem, present: list[Span]) -> None:
    """More starts on the half hour before the last day, where all else stays as good."""
    before = search.best
    visits = len(visit_moments(problem, _pending(problem, search, {}), present))
    wished = starts_on_half_hours(search.model, problem)
    if not wished:
        return
    search.model.cp.maximize(sum(wished))
    status, solver = solve(search.model, hint=before, limit=search.effort * HALF_LIMIT)
    if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        search.best = slots_of(search.model, solver)
        if len(visit_moments(problem, _pending(problem, search, {}), present)) > visits:
            search.best = before


def _boundaries(model: Model) -> list[tuple[int, int]]:
    return [(n, i) for n, each in enumerate(model.dishes) for i in range(len(each.bounds))]


def _start_late(search: _Search) -> None:
    """The feast's first start as late as can be, then every dish's."""
    model = search.model
    firsts = [each.bounds[0] for each in model.dishes if each.begun_s is None]
    if not firsts:
        return
    first = _first(model, firsts)
    model.cp.maximize(first)
    found = search.improve(LATE_LIMIT)
    if found is not None:
        model.cp.add(first >= found.value(first))
    if len(firsts) > 1:
        model.cp.maximize(cp_model.LinearExpr.sum(firsts))
        found = search.improve(LATE_LIMIT)
        if found is not None:
            total = sum(found.value(each) for each in firsts)
            model.cp.add(cp_model.LinearExpr.sum(firsts) >= total)


def _first(model: Model, firsts: list[cp_model.IntVar]) -> cp_model.IntVar:
    """The earliest of some starts, or anything before it."""
    first = model.cp.new_int_var(-LONGEST, LONGEST, "first")
    for each in firsts:
        model.cp.add(first <= each)
    return first


def _latest_starts(
    model: Model, best: list[int], effort: float
) -> tuple[dict[tuple[int, int], int], int | None]:
    """Latest slot at which each open step, and the feast, could begin, the others moving.

    A dish is asked for as a whole first: mostly all of its steps can be as late at once as each of
    them alone. What nobody proves in time is given as far as it was found.
    """
    bounds = [(each, i) for each in model.dishes for i in range(len(each.bounds))]
    reached = {(each.index, i): slot for (each, i), slot in zip(bounds, best, strict=True)}
    open_steps = [(each, i) for each in model.dishes for i in each.planned()]
    highest = {(each.index, i): _highest(each, i) for each, i in open_steps}
    limit, spent, first_latest = effort * SLACK_LIMIT, 0.0, None

    def ask(objective: cp_model.LinearExprT) -> cp_model.CpSolver | None:
        nonlocal spent
        if spent >= limit:
            return None
        model.cp.maximize(objective)
        status, solver = solve(model, hint=best, limit=limit - spent, is_narrow=True)
        spent += solver.response_proto.deterministic_time
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            return None
        for each, i in open_steps:
            key = (each.index, i)
            reached[key] = max(reached[key], solver.value(each.bounds[i]))
        return solver

    for each in model.dishes:
        if starts := [each.bounds[i] for i in each.planned()]:
            ask(cp_model.LinearExpr.sum(starts))
    firsts = [each.bounds[0] for each in model.dishes if each.begun_s is None]
    if firsts:
        first = firsts[0] if len(firsts) == 1 else _first(model, firsts)
        solver = ask(first)
        first_latest = None if solver is None else solver.value(first)
    for each, i in reversed(open_steps):
        if reached[each.index, i] < highest[each.index, i]:
            ask(each.bounds[i])
    return reached, first_latest


def _highest(each: DishModel, i: int) -> int:
    """The last slot that the rules of its own dish leave a start."""
    return edges(each.bounds[i])[1]


def _past(problem: Problem) -> list[PlannedStep]:
    return [
        PlannedStep(dish.id, step.id, step.started_at, step.ended_at, 0.0)
        for dish in problem.dishes
        for step in dish.done
        if step.started_at is not None and step.ended_at is not None
    ]


def _pending(
    problem: Problem, search: _Search, latest: dict[tuple[int, int], int]
) -> list[PlannedStep]:
    found: list[PlannedStep] = []
    at = 0
    for each in search.model.dishes:
        count = len(each.bounds)
        slots = search.best[at : at + count]
        at += count
        moments: list[datetime] = [search.model.grid.moment(slot) for slot in slots]
        if each.dish.begun_at is not None:
            moments[0] = each.dish.begun_at
        for i, step in enumerate(each.dish.pending):
            slack = latest.get((each.index, i), slots[i]) - slots[i] if i in each.planned() else 0
            found.append(PlannedStep(each.dish.id, step.id, moments[i], moments[i + 1], slack / 4))
    return found
