"""Solving again after something happened, with as few changes as will do."""

from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime

from ortools.sat.python import cp_model

from pantry_core.plan.grid import Grid
from pantry_core.plan.hours import Hours
from pantry_core.plan.model import build, solve
from pantry_core.plan.problem import GRID, Dish, Problem

AGAIN_LIMIT = 0.5
"""Deterministic seconds to find how many starts can stay."""

Starts = Mapping[tuple[str, str], datetime]
"""Starts of an earlier plan, by dish and step."""


def kept_as_they_were(problem: Problem, hours: Hours, starts: Starts) -> Problem:
    """Lock as many steps as can be to the starts they had.

    Parameters: problem; hours, from now to the horizon; starts.
    Returns: the problem with those starts locked, as it was when there is no plan at all.
    Raises: nothing.
    """
    model = build(problem, hours, problem.horizon, is_kept=True)
    stays: dict[tuple[int, int], cp_model.IntVar] = {}
    for each in model.dishes:
        for i in each.planned():
            step = each.dish.pending[i]
            start = starts.get((each.dish.id, step.id))
            if start is None or step.locked_start or (start - problem.serve_at) % GRID:
                continue
            literal = model.cp.new_bool_var(f"stays-{each.index}-{i}")
            slot = Grid(problem.serve_at).at_or_before(start)
            model.cp.add(each.bounds[i] == slot).only_enforce_if(literal)
            stays[each.index, i] = literal
    model.cp.maximize(cp_model.LinearExpr.sum(list(stays.values())))
    status, solver = solve(model, limit=AGAIN_LIMIT)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return problem
    kept = {key for key, literal in stays.items() if solver.value(literal)}
    dishes = tuple(
        _locked(dish, {i for index, i in kept if index == n}, starts)
        for n, dish in enumerate(problem.dishes)
    )
    return replace(problem, dishes=dishes)


def _locked(dish: Dish, kept: set[int], starts: Starts) -> Dish:
    pending = tuple(
        replace(step, locked_start=starts[dish.id, step.id]) if i in kept else step
        for i, step in enumerate(dish.pending)
    )
    return replace(dish, pending=pending)
