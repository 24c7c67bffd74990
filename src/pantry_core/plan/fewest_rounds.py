"""Fewest rounds, as the last wish of the constraint model."""

import math
from collections.abc import Sequence
from datetime import datetime, timedelta

from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, Grid, Span
from pantry_core.plan.model import solve
from pantry_core.plan.parts import DishModel, Model, edges
from pantry_core.plan.problem import Problem, Step
from pantry_core.plan.result import PlannedStep
from pantry_core.plan.rounds import Tended, gathered, visits

FAR_S = 2**40
MOST_STARTS = 4000
"""Starts that are looked at one by one; beyond them the fewest rounds are left to chance."""


def more_visits_than_needed(
    problem: Problem, planned: Sequence[PlannedStep], present: list[Span]
) -> bool:
    """Whether fewer visits could do: no step needs fewer rounds than its shortest time asks for.

    Parameters: problem; planned, its pending steps in UTC; present, spans in which somebody is
    awake and at home.
    """
    least = max(
        (
            math.ceil(step.min_s / step.every_s) - 1
            for dish in problem.dishes
            for step in dish.pending
            if step.every_s is not None and step.started_at is None
        ),
        default=0,
    )
    return len(visit_moments(problem, planned, present)) > least


def visit_moments(
    problem: Problem, planned: Sequence[PlannedStep], present: list[Span]
) -> set[datetime]:
    """When somebody goes on a round by a plan.

    Parameters: as of `more_visits_than_needed`. Returns: the moments of all visits.
    """
    steps = {(dish.id, step.id): step for dish in problem.dishes for step in dish.pending}
    tended = []
    for each in planned:
        step = steps[each.dish, each.step]
        if step.every_s is not None:
            last = max((each.start, *step.rounds_done))
            tended.append(Tended((each.dish, each.step), last, each.end, step.every_s))
    gathered(tended, present, Grid(problem.serve_at))
    return {at for each in tended for at in each.jobs}


def visits_needed(model: Model, problem: Problem, present: list[Span]) -> list[cp_model.IntVar]:
    """A literal for each round that a plan needs, over all steps that ask for them.

    A step needs its j-th round when it ends later than a moment that follows from its start alone,
    so these moments are worked out for every start that is still possible.

    Parameters: model, its earlier wishes already bound; problem; present, spans in which somebody
    is awake and at home.
    Returns: the literals; none where there is nothing to choose, or too much to look at.
    """
    asked = [
        (each, i, step)
        for each in model.dishes
        for i, step in enumerate(each.dish.pending)
        if step.every_s is not None
    ]
    ranges = _ranges(model, [(each, i) for each, i, _ in asked])
    if not asked or sum(last - first + 1 for first, last in ranges) > MOST_STARTS:
        return []
    return [
        literal
        for (each, i, step), (first, last) in zip(asked, ranges, strict=True)
        for literal in _needed(model, problem, each, i, step, present, first, last)
    ]


def _needed(
    model: Model,
    problem: Problem,
    each: DishModel,
    i: int,
    step: Step,
    present: list[Span],
    first: int,
    last: int,
) -> list[cp_model.IntVar]:
    end_s = each.bounds[i + 1] * SLOT_S
    if i in each.planned():
        chains = [
            _thresholds(model, problem, step, slot * SLOT_S, present)
            for slot in range(first, last + 1)
        ]
    else:
        chains = [_thresholds(model, problem, step, each.begun_s or 0, present)]
    literals = []
    for j in range(max(len(chain) for chain in chains)):
        moments = [chain[j] if j < len(chain) else FAR_S for chain in chains]
        moment: cp_model.LinearExprT = moments[0]
        if len(set(moments)) > 1:
            name = f"{each.index}-{i}-{j}"
            moment = model.cp.new_int_var(min(moments), max(moments), f"round-{name}")
            model.cp.add_element(each.bounds[i] - first, moments, moment)
        literal = model.cp.new_bool_var(f"visit-{each.index}-{i}-{j}")
        model.cp.add(end_s <= moment).only_enforce_if(~literal)
        literals.append(literal)
    return literals


def _ranges(model: Model, asked: list[tuple[DishModel, int]]) -> list[tuple[int, int]]:
    """First and last slot at which each step can still start; what is not proven stays wide."""
    left = RANGE_LIMIT
    ranges = []
    for each, i in asked:
        ends = list(edges(each.bounds[i]))
        for side, sign in enumerate((1, -1)):
            if i not in each.planned() or left <= 0:
                continue
            model.cp.minimize(sign * each.bounds[i])
            status, solver = solve(model, limit=left)
            left -= solver.response_proto.deterministic_time
            if status == cp_model.OPTIMAL:
                ends[side] = solver.value(each.bounds[i])
        ranges.append((ends[0], ends[1]))
    return ranges


RANGE_LIMIT = 0.2
"""Deterministic seconds for the ends of all ranges together."""


def _thresholds(
    model: Model, problem: Problem, step: Step, start_s: int, present: list[Span]
) -> list[int]:
    """Moments, in seconds from the anchor, past which a step needs one round more."""
    grid, every_s = model.grid, step.every_s or 0
    last = max((grid.anchor + timedelta(seconds=start_s), *step.rounds_done))
    found = visits(last, problem.horizon, every_s, present, grid)
    moments = []
    for moment in found.at:
        due = grid.seconds(last) + every_s
        moments.append(max(due, grid.seconds(moment)) if moment in found.late else due)
        last = moment
    return moments
