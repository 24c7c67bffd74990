"""Why there is no plan: the fewest rules that collide, and the earliest hour that would do."""

from collections.abc import Iterable
from dataclasses import replace
from datetime import datetime, timedelta

from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, awake_spans, home_spans
from pantry_core.plan.model import build, solve
from pantry_core.plan.parts import Group, Model, Rule
from pantry_core.plan.problem import GRID, Problem
from pantry_core.plan.reasons import reason
from pantry_core.plan.result import Plan, Why

LONGEST_AWAY = timedelta(days=30)
"""How long after its hour a dish is still looked for, beyond its own least length."""

EARLIEST_LIMIT, WHY_LIMIT = 0.6, 0.8
"""Deterministic seconds to look for an hour, and for each look at what collides."""
BEYOND = 400 * 24 * 4
"""Slots after the hour within which another is looked for."""

OF_THE_HOUR: tuple[Rule, ...] = ("too-late", "not-yet")
"""Kinds of constraint that keep a dish to its hour."""


def explain(problem: Problem) -> Plan:
    """An infeasible plan with its reasons.

    Parameters: problem, known to have no plan.
    Returns: the plan document of status infeasible: `why`, of which no reason can be left out, and
    `earliest_serve`, the first quarter hour at which the feast could be served when it is begun now
    or goes on from where it is, None when no hour would do.
    Raises: nothing.
    """
    earliest = earliest_serve(problem)
    return Plan(
        status="infeasible",
        earliest_serve=earliest.astimezone(problem.zone) if earliest else None,
        why=collisions(problem, earliest),
    )


def collisions(problem: Problem, earliest: datetime | None = None) -> tuple[Why, ...]:
    """A smallest set of rules that cannot be kept together.

    Parameters: problem, known to have no plan; earliest, the hour that would do, where it is known.
    Raises: nothing.
    """
    model = _reaching_beyond(problem)
    return tuple(reason(problem, group, earliest) for group in _fewest(model))


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
    Returns: the instant in UTC, None when no hour within reach would do.
    Raises: nothing.
    """
    first = max(problem.now + GRID, not_before or problem.now)
    model = _reaching_beyond(problem)
    followers = [
        each
        for each in model.dishes
        if (each.index == alone if alone is not None else not each.dish.has_own_hour)
    ]
    if not followers or (len(followers) == len(model.dishes) and _never(problem)):
        return None
    serve = model.cp.new_int_var(model.grid.at_or_after(first), BEYOND, "serve")
    for each in followers:
        early = int(each.dish.early.total_seconds()) // SLOT_S
        model.cp.add(each.bounds[-1] <= serve)
        model.cp.add(each.bounds[-1] >= serve - early)
    free = {(each.index, 0, rule) for each in followers for rule in OF_THE_HOUR}
    model.cp.add_bool_and([literal for group, literal in model.groups.items() if group not in free])
    model.cp.minimize(serve)
    status, solver = solve(model, limit=EARLIEST_LIMIT * effort)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return model.grid.moment(solver.value(serve))


def _never(problem: Problem) -> bool:
    """Whether the dishes leave each other too little room and hands at whatever hour.

    Found out at the hour that is asked for, as if it had been known long before, nobody slept or
    went away, and nothing was locked. Where a dish has begun, or more is against it, nobody knows.
    """
    if any(dish.begun_at for dish in problem.dishes):
        return False
    dishes = tuple(
        replace(dish, pending=tuple(replace(step, locked_start=None) for step in dish.pending))
        for dish in problem.dishes
    )
    known = problem.serve_at - _least(problem) - LONGEST_AWAY
    always = [(known, problem.horizon)]
    ideal = replace(problem, now=known, dishes=dishes)
    model = build(ideal, always, always, problem.horizon, is_kept=True)
    status, _ = solve(model, limit=EARLIEST_LIMIT)
    return status == cp_model.INFEASIBLE


def _least(problem: Problem) -> timedelta:
    """The least length of the longest dish."""
    return max(
        sum((timedelta(seconds=step.min_s) for step in dish.pending), timedelta())
        for dish in problem.dishes
    )


def _reaching_beyond(problem: Problem) -> Model:
    """The model with room after the hour of serving, each rule on its literal."""
    home_again = max((until for _, until in problem.away), default=problem.now)
    horizon = max(home_again, problem.horizon) + _least(problem) + LONGEST_AWAY
    awake = awake_spans(problem, problem.now, horizon)
    home = home_spans(problem, problem.now, horizon)
    return build(problem, awake, home, horizon, is_kept=False)


def _fewest(model: Model) -> list[Group]:
    """Named constraints that collide, none of which can be left out.

    The hour of serving is given; it is a reason of its own only where time alone does not suffice.
    """
    of_the_hour = [group for group in model.groups if group[2] in OF_THE_HOUR]
    core = _colliding(model, of_the_hour)
    if core is None:
        model.cp.add_bool_and([model.groups[group] for group in of_the_hour])
        core = _colliding(model, [each for each in model.groups if each not in of_the_hour])
    core = core or []
    for group in list(core):
        if group in core and len(core) > 1:
            core = _colliding(model, [each for each in core if each != group]) or core
    return core


def _colliding(model: Model, groups: Iterable[Group]) -> list[Group] | None:
    """Those of the groups that suffice for a collision, None when they can all be kept."""
    model.cp.clear_assumptions()
    model.cp.add_assumptions([model.groups[group] for group in groups])
    status, solver = solve(model, limit=WHY_LIMIT)
    if status != cp_model.INFEASIBLE:
        return None
    by_index = {literal.index: group for group, literal in model.groups.items()}
    return sorted(by_index[i] for i in solver.sufficient_assumptions_for_infeasibility())
