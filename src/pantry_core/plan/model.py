"""The constraint model of a feast: boundaries of all steps on the quarter-hour grid."""

import math
from collections.abc import Callable
from datetime import datetime

import numpy as np
from ortools.sat.python import cp_model

from pantry_core.plan.grid import (
    SLOT_S,
    Grid,
    Span,
    awake_spans,
    between,
    home_spans,
    up,
    whole_slots,
)
from pantry_core.plan.parts import LONGEST, DishModel, Model, Rule
from pantry_core.plan.problem import Dish, Problem, Step
from pantry_core.plan.reach import intervals, reachable, slots_in
from pantry_core.plan.resources import share_out

SEED = 7
DETERMINISTIC_LIMIT = 6.0
WALL_LIMIT_S = 60.0
"""A backstop only; the deterministic limit ends a solve first, the same way each time."""


def build(
    problem: Problem, awake: list[Span], home: list[Span], horizon: datetime, *, is_kept: bool
) -> Model:
    """The model of a problem up to a horizon, which may lie after the hour of serving.

    Parameters: problem; awake and home, sorted spans from now to the horizon; horizon, an instant;
    is_kept, whether every rule holds: then windows are cut to what can be reached, else each rule
    hangs on its literal.
    Returns: the model, without objective.
    """
    grid = Grid(problem.serve_at)
    model = Model(grid, cp_model.CpModel(), [])
    first, last = grid.at_or_after(problem.now), grid.at_or_after(horizon)
    for index, dish in enumerate(problem.dishes):
        if not dish.pending:
            continue
        each = _dish(problem, index, dish, grid)
        model.dishes.append(each)
        if is_kept:
            _narrowed(model, each, first, awake, home)
        else:
            _reaching(model, each, first, last, awake, home)
        for i, step in enumerate(dish.pending):
            if step.attended:
                _attend(model, each, i, "asleep", between(grid, awake, problem.now, horizon))
                _attend(model, each, i, "away", between(grid, home, problem.now, horizon))
    share_out(model, problem)
    if is_kept:
        model.cp.add_bool_and(list(model.groups.values()))
    return model


def build_to(problem: Problem, horizon: datetime | None = None, *, is_kept: bool = True) -> Model:
    """The model of a problem by its own waking hours and absences.

    Parameters: problem; horizon, an instant, the last hour of serving where it is None; is_kept.
    """
    until = problem.horizon if horizon is None else horizon
    awake = awake_spans(problem, problem.now, until)
    home = home_spans(problem, problem.now, until)
    return build(problem, awake, home, until, is_kept=is_kept)


def _dish(problem: Problem, index: int, dish: Dish, grid: Grid) -> DishModel:
    """A dish with the windows of its steps, its boundaries not yet made."""
    begun_s = None if dish.begun_at is None else grid.seconds(dish.begun_at)
    found = DishModel(index, dish, begun_s)
    for i, step in enumerate(dish.pending):
        found.windows.append(_window(grid, problem, found, i, step))
    return found


def _narrowed(
    model: Model, each: DishModel, first: int, awake: list[Span], home: list[Span]
) -> None:
    """Boundaries that keep every rule of their own dish, cut to what can be reached."""
    grid = model.grid
    hour = grid.at_or_before(each.dish.serve_at)
    count = max(hour - first + 1, 1)
    free = [np.ones(count, dtype=bool) for _ in range(len(each.windows) + 1)]
    for i in each.planned():
        step = each.dish.pending[i]
        for spans in (awake, home) if step.hands_s else ():
            free[i] &= slots_in(_free_starts(grid, step, spans), first, count)
        if step.locked_start is not None:
            locked = grid.at_or_before(step.locked_start)
            free[i] &= slots_in([[locked, locked]], first, count)
    if each.begun_s is not None:
        free[0][1:] = False
    free[-1] &= slots_in([[hour - _early(each.dish), hour]], first, count)
    ways = reachable(free, each.windows)
    if ways is None or hour < first:
        model.cp.add_bool_or([])
        ways = free
    for i, slots in enumerate(ways):
        domain = cp_model.Domain.from_intervals(intervals(slots, first) or [[first, first]])
        each.bounds.append(model.cp.new_int_var_from_domain(domain, f"bound-{each.index}-{i}"))
    _sizes(model, each)


def _reaching(
    model: Model, each: DishModel, first: int, last: int, awake: list[Span], home: list[Span]
) -> None:
    """Boundaries anywhere up to the horizon, each rule on its literal."""
    for i in range(len(each.windows) + 1):
        each.bounds.append(model.cp.new_int_var(first, last, f"bound-{each.index}-{i}"))
    _sizes(model, each)
    if each.begun_s is not None:
        model.cp.add(each.bounds[0] == first)
    _serve(model, each)
    for i in each.planned():
        _start(model, each, i, awake, home)


def _sizes(model: Model, each: DishModel) -> None:
    for i, (least, most) in enumerate(each.windows):
        size = model.cp.new_int_var(least, max(most, least), f"size-{each.index}-{i}")
        model.cp.add(each.bounds[i] + size == each.bounds[i + 1])
        each.sizes.append(size)


def _window(grid: Grid, problem: Problem, dish: DishModel, i: int, step: Step) -> tuple[int, int]:
    """Shortest and longest length of a step in slots; of one that has begun, from now on."""
    hands = up(step.hands_s)
    least = max(step.min_s, hands)
    begun = i == 0 and dish.begun_s is not None
    offset = (dish.begun_s or 0) % SLOT_S if begun else 0
    # Lengths are whole slots, less the part of a slot by which a bound start is off the grid.
    shortest = up(least + offset) - offset
    longest = None if step.max_s is None else max(_down(step.max_s + offset) - offset, 0)
    if longest is not None and longest < shortest:
        # An empty window takes the nearest length, the longer of two that are equally near.
        nearer_below = least - longest < shortest - max(step.max_s or 0, least)
        shortest = longest = longest if nearer_below and longest >= hands else shortest
    elapsed = 0
    if begun:
        elapsed = grid.at_or_after(problem.now) * SLOT_S - (dish.begun_s or 0)
        if longest is not None and longest < elapsed:
            longest = None
            dish.overrun = True
    most = LONGEST if longest is None else (longest - elapsed) // SLOT_S
    return max((shortest - elapsed) // SLOT_S, 0), most


def _early(dish: Dish) -> int:
    return math.floor(dish.early.total_seconds() / SLOT_S)


def _serve(model: Model, each: DishModel) -> None:
    hour = model.grid.at_or_before(each.dish.serve_at)
    on_time = model.group(each.index, 0, "too-late")
    model.cp.add(each.bounds[-1] <= hour).only_enforce_if(on_time)
    not_too_soon = model.group(each.index, 0, "not-yet")
    model.cp.add(each.bounds[-1] >= hour - _early(each.dish)).only_enforce_if(not_too_soon)


def _start(model: Model, each: DishModel, i: int, awake: list[Span], home: list[Span]) -> None:
    start, step = each.bounds[i], each.dish.pending[i]
    if step.hands_s:
        present: tuple[tuple[Rule, list[Span]], ...] = (("asleep", awake), ("away", home))
        for rule, spans in present:
            domain = cp_model.Domain.from_intervals(_free_starts(model.grid, step, spans))
            allowed = model.cp.add_linear_expression_in_domain(start, domain)
            allowed.only_enforce_if(model.group(each.index, i, rule))
    if step.locked_start is not None:
        locked = model.grid.at_or_before(step.locked_start)
        model.cp.add(start == locked).only_enforce_if(model.group(each.index, i, "locked"))


def _free_starts(grid: Grid, step: Step, spans: list[Span]) -> list[list[int]]:
    """Closed intervals of slots in which the hands of a step can begin inside a span."""
    hands = up(step.hands_s) // SLOT_S
    return [[a, b - hands] for a, b in whole_slots(grid, spans) if a <= b - hands]


def _attend(
    model: Model, each: DishModel, i: int, rule: Rule, absent: list[tuple[int, int]]
) -> None:
    """Keep an attended step out of the slots in which nobody is there; what is past is past."""
    literal = model.group(each.index, i, rule)
    for begin, end in absent:
        before = model.cp.new_bool_var(f"before-{rule}-{each.index}-{i}-{begin}")
        model.cp.add(each.bounds[i + 1] <= begin).only_enforce_if(before, literal)
        model.cp.add(each.bounds[i] >= end).only_enforce_if(~before, literal)


def solve(
    model: Model,
    *,
    hint: list[int] | None = None,
    limit: float = DETERMINISTIC_LIMIT,
    callback: cp_model.CpSolverSolutionCallback | None = None,
    wants_stop: Callable[[], bool] | None = None,
    is_first: bool = False,
) -> tuple[cp_model.CpSolverStatus, cp_model.CpSolver]:
    """Solve as it stands, deterministically: one worker, a fixed seed, a deterministic limit.

    Parameters: model; hint, a slot for each of its boundaries; limit, in the solver's deterministic
    seconds; callback, told of every better solution; wants_stop, asked whenever the bound moves;
    is_first, whether the first solution will do.
    """
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    # A relaxation helps to prove, and holds up whoever only wants a solution.
    solver.parameters.linearization_level = 0 if is_first else 2
    solver.parameters.random_seed = SEED
    solver.parameters.max_deterministic_time = limit
    solver.parameters.stop_after_first_solution = is_first
    solver.parameters.max_time_in_seconds = WALL_LIMIT_S
    if hint is not None:
        model.cp.clear_hints()  # type: ignore[no-untyped-call]
        for bound, slot in zip(model.bounds(), hint, strict=True):
            model.cp.add_hint(bound, slot)
    if wants_stop is not None:
        solver.best_bound_callback = lambda _: solver.stop_search() if wants_stop() else None
    return solver.solve(model.cp, callback), solver


def slots_of(model: Model, solver: cp_model.CpSolver) -> list[int]:
    """The slot of every boundary in a solution."""
    return [solver.value(bound) for bound in model.bounds()]


def _down(seconds: int) -> int:
    return seconds // SLOT_S * SLOT_S
