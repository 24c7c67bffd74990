"""The earliest hour at which a feast that cannot be could be served."""

from collections.abc import Iterator
from dataclasses import replace
from datetime import datetime, timedelta

from ortools.sat.python import cp_model

from pantry_core.plan.allowed import RUSH, Allowed, HoursInSlots
from pantry_core.plan.hours import Hours, hours_of
from pantry_core.plan.model import build, build_to, inside, solve
from pantry_core.plan.parts import DishModel, Model, early_slots, late_slots
from pantry_core.plan.problem import GRID, Problem

LONGEST_AWAY = timedelta(days=30)
"""How long after its hour a dish is still looked for, beyond its own least length."""

LONGEST_LOOK = timedelta(days=90)
"""How long after the hour somebody may come home for it to be looked at."""

EARLIEST_LIMIT = 0.6
"""Deterministic seconds to look for an hour, in each stretch of time."""

FIRST_STRETCH, WIDER = timedelta(days=1), 1.5
"""Stretches are looked into one after the other, each so much wider than the one before."""


def earliest_serve(
    problem: Problem,
    alone: int | None = None,
    not_before: datetime | None = None,
    *,
    effort: float = 1.0,
) -> datetime | None:
    """The first quarter hour at which the feast could be served, begun now or going on.

    Dishes with an hour of their own keep to it.

    Parameters: problem; alone, the index of the one dish whose hour is free, the others keeping
    theirs, without it the feast's; not_before, an instant, now where it is None; effort, a share of
    the usual limit, with less than all of which it may be a later hour than the first.
    Returns: the instant in UTC, None when no hour within reach is possible.
    Raises: nothing.
    """
    followers = {
        n
        for n, dish in enumerate(problem.dishes)
        if dish.pending and (n == alone if alone is not None else not dish.has_own_hour)
    }
    if not followers or _never(_only(problem, followers)) or _others_collide(problem, followers):
        return None
    for begin, end in _stretches(problem, max(problem.now + GRID, not_before or problem.now)):
        found = _within(problem, followers, begin, end, EARLIEST_LIMIT * effort)
        if found is not None:
            return found
    return None


def _only(problem: Problem, chosen: set[int]) -> Problem:
    dishes = (dish for n, dish in enumerate(problem.dishes) if n in chosen)
    return replace(problem, dishes=tuple(dishes))


def _others_collide(problem: Problem, followers: set[int]) -> bool:
    """Whether the dishes that keep their hours cannot be done even without the others."""
    kept = {n for n, dish in enumerate(problem.dishes) if dish.pending} - followers
    if not kept:
        return False
    status, _ = solve(build_to(_only(problem, kept), problem.horizon), limit=EARLIEST_LIMIT)
    return status == cp_model.INFEASIBLE


def _last_hour(problem: Problem) -> datetime:
    """How far beyond the hour that is asked for others are looked at."""
    home_again = max((until for _, until in problem.away), default=problem.now)
    soon = max(min(home_again, problem.horizon + LONGEST_LOOK), problem.horizon)
    return soon + _least(problem) + LONGEST_AWAY


def _stretches(problem: Problem, first: datetime) -> Iterator[tuple[datetime, datetime]]:
    """Stretches of time on the grid, from the first hour to the last that is looked at."""
    begin = problem.serve_at - (problem.serve_at - first) // GRID * GRID
    last, width = _last_hour(problem), FIRST_STRETCH
    while begin <= last:
        end = min(begin + width // GRID * GRID, last)
        yield begin, end
        begin, width = end + GRID, WIDER * width


def _within(
    problem: Problem, followers: set[int], begin: datetime, end: datetime, limit: float
) -> datetime | None:
    """The first hour of a stretch: each dish may be done in it as early as it may be."""
    dishes = tuple(
        replace(dish, serve_at=end, early=dish.early + (end - begin)) if n in followers else dish
        for n, dish in enumerate(problem.dishes)
    )
    moved = replace(problem, dishes=dishes)
    horizon = max(moved.horizon, problem.horizon)
    hours = hours_of(problem, problem.now, horizon)
    model = build(moved, hours, horizon, is_kept=True, movable=followers)
    grid = model.grid
    in_slots = HoursInSlots(grid, hours)
    serve = model.cp.new_int_var(grid.at_or_after(begin), grid.at_or_before(end), "serve")
    for each in model.dishes:
        if each.index in followers:
            dish = problem.dishes[each.index]
            model.cp.add(each.bounds[-1] <= serve + late_slots(dish))
            model.cp.add(each.bounds[-1] >= serve - early_slots(dish))
            _work_before(model, each, in_slots, serve)
    model.cp.minimize(serve)
    status, solver = solve(model, limit=limit)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return grid.moment(solver.value(serve))


def _work_before(
    model: Model, each: DishModel, hours: HoursInSlots, serve: cp_model.IntVar
) -> None:
    """Work in its hours, or in the last hours before the dish's hour, which is looked for."""
    if hours.work is None:
        return
    for i in each.planned():
        step = each.dish.pending[i]
        if not step.is_work:
            continue
        is_rush = model.cp.new_bool_var(f"rush-{each.index}-{i}")
        model.cp.add(each.bounds[i] >= serve - RUSH).only_enforce_if(is_rush)
        if step.attended:
            inside(model, each, i, hours.work, ~is_rush)
        else:
            at_work = Allowed(hours, each, i).at_work()
            domain = cp_model.Domain.from_intervals(at_work)
            kept = model.cp.add_linear_expression_in_domain(each.bounds[i], domain)
            kept.only_enforce_if(~is_rush)


def _never(problem: Problem) -> bool:
    """Whether the dishes leave each other too little room and hands at whatever hour.

    Found out at the hour that is asked for, as if it had been known long before, nobody slept or
    went away, nothing was shut and nothing was locked. Where a dish has begun, or more is against
    it, nobody knows.
    """
    if any(dish.begun_at for dish in problem.dishes):
        return False
    dishes = tuple(
        replace(
            dish,
            pending=tuple(replace(step, locked_start=None, after=()) for step in dish.pending),
        )
        for dish in problem.dishes
    )
    known = problem.serve_at - _least(problem) - LONGEST_AWAY
    always = [(known, problem.horizon)]
    ideal = replace(problem, now=known, dishes=dishes)
    model = build(ideal, Hours(always, always), problem.horizon, is_kept=True)
    status, _ = solve(model, limit=EARLIEST_LIMIT)
    return status == cp_model.INFEASIBLE


def _least(problem: Problem) -> timedelta:
    """The least length of the longest dish."""
    return max(
        sum((timedelta(seconds=step.min_s) for step in dish.pending), timedelta())
        for dish in problem.dishes
    )
