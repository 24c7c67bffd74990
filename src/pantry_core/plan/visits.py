"""Fewest visits, as the last wish of the constraint model."""

from datetime import timedelta

from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, Span
from pantry_core.plan.model import Model, solve
from pantry_core.plan.problem import Problem, Step
from pantry_core.plan.rounds import MOST, visits

FAR_S = 2**40


def count_visits(model: Model, problem: Problem, present: list[Span]) -> bool:
    """Make the number of rounds the model's objective.

    A step needs its j-th round when it ends later than a moment that follows from its start alone,
    so these moments are worked out for every start that is still possible.

    Parameters: model, its earlier wishes already bound; problem; present, spans in which somebody
    is awake and at home.
    Returns: whether any step asks for rounds.
    """
    needed = [
        literal
        for i, step in enumerate(model.steps)
        if step.every_s is not None
        for literal in _needed(model, problem, i, step, present)
    ]
    model.cp.minimize(sum(needed))
    return bool(needed)


def _needed(
    model: Model, problem: Problem, i: int, step: Step, present: list[Span]
) -> list[cp_model.IntVar]:
    end_s = model.bounds[i + 1] * SLOT_S
    if i in model.planned():
        first, last = _range(model, i)
        chains = [
            _thresholds(model, problem, step, slot * SLOT_S, present)
            for slot in range(first, last + 1)
        ]
    else:
        first = 0
        chains = [_thresholds(model, problem, step, model.begun_s or 0, present)]
    literals = []
    for j in range(max(len(chain) for chain in chains)):
        moments = [chain[j] if j < len(chain) else FAR_S for chain in chains]
        moment: cp_model.LinearExprT = moments[0]
        if len(set(moments)) > 1:
            moment = model.cp.new_int_var(min(moments), max(moments), f"round-{i}-{j}")
            model.cp.add_element(model.bounds[i] - first, moments, moment)
        literal = model.cp.new_bool_var(f"visit-{i}-{j}")
        model.cp.add(end_s <= moment).only_enforce_if(~literal)
        literals.append(literal)
    return literals


def _range(model: Model, i: int) -> tuple[int, int]:
    """First and last slot at which a step can still start."""
    ends = []
    for sign in (1, -1):
        model.cp.minimize(sign * model.bounds[i])
        _, solver = solve(model)
        ends.append(solver.value(model.bounds[i]))
    return ends[0], ends[1]


def _thresholds(
    model: Model, problem: Problem, step: Step, start_s: int, present: list[Span]
) -> list[int]:
    """Moments, in seconds from the anchor, past which a step needs one round more."""
    grid, every_s = model.grid, step.every_s or 0
    last = max((grid.anchor + timedelta(seconds=start_s), *step.rounds_done))
    found = visits(last, problem.dish.serve_at, every_s, present, grid)
    moments = []
    for moment in found.at:
        due = grid.seconds(last) + int(MOST * every_s)
        moments.append(max(due, grid.seconds(moment)) if moment in found.late else due)
        last = moment
    return moments
