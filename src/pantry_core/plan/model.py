"""The constraint model of a feast: boundaries of all steps on the quarter-hour grid."""

from collections.abc import Callable, Container, Sequence
from datetime import datetime

import numpy as np
from ortools.sat.python import cp_model

from pantry_core.plan.allowed import Allowed, HoursInSlots
from pantry_core.plan.grid import SLOT_S, Grid, down, up
from pantry_core.plan.hours import Hours, hours_of
from pantry_core.plan.parts import (
    LONGEST,
    DishModel,
    Model,
    Stay,
    early_slots,
    edges,
    late_slots,
)
from pantry_core.plan.problem import Dish, Problem, Step
from pantry_core.plan.reach import intervals, reachable, slots_in
from pantry_core.plan.resources import share_out
from pantry_core.plan.waits import waits_for

SEED = 7
DETERMINISTIC_LIMIT = 6.0
WALL_LIMIT_S = 60.0
"""A backstop only; the deterministic limit ends a solve first, the same way each time."""


def build(
    problem: Problem,
    hours: Hours,
    horizon: datetime,
    *,
    is_kept: bool,
    movable: Container[int] = (),
    can_leave_out: bool = False,
    can_get_help: bool = False,
) -> Model:
    """The model of a problem up to a horizon, which may lie after the hour of serving.

    Parameters: problem; hours, from now to the horizon; horizon, an instant; is_kept, whether every
    rule holds: then windows are cut to what can be reached, else each rule hangs on its literal;
    movable, indices of dishes whose hour is looked for: their hours of work are left to others;
    can_leave_out, whether the dishes may be left out, can_get_help, whether there may be more work
    at once than there are cooks: the model knows of both.
    Returns: the model, without objective.
    """
    grid = Grid(problem.serve_at)
    model = Model(grid, cp_model.CpModel(), [])
    first, last = grid.at_or_after(problem.now), grid.at_or_after(horizon)
    in_slots = HoursInSlots(grid, hours)
    for index, dish in enumerate(problem.dishes):
        if not dish.pending:
            continue
        each = _dish(problem, index, dish, grid)
        model.dishes.append(each)
        if can_leave_out:
            model.presence[index] = model.cp.new_bool_var(f"present-{index}")
        allowed = [
            Allowed(in_slots, each, i, is_movable=index in movable)
            for i in range(len(dish.pending))
        ]
        if is_kept:
            _narrowed(model, each, first, allowed)
        else:
            _reaching(model, each, first, last, allowed)
    waits_for(model, problem)
    share_out(model, problem, can_get_help=can_get_help)
    if can_leave_out:
        for (dish_index, _, _), literal in model.groups.items():
            model.cp.add(literal == model.presence[dish_index])
    elif is_kept:
        model.cp.add_bool_and(list(model.groups.values()))
    return model


def build_to(
    problem: Problem,
    horizon: datetime | None = None,
    *,
    is_kept: bool = True,
    movable: Container[int] = (),
) -> Model:
    """The model of a problem by its own hours.

    Parameters: problem; horizon, an instant, the last hour of serving where it is None; is_kept and
    movable, as of `build`.
    """
    until = problem.horizon if horizon is None else horizon
    hours = hours_of(problem, problem.now, until)
    return build(problem, hours, until, is_kept=is_kept, movable=movable)


def _dish(problem: Problem, index: int, dish: Dish, grid: Grid) -> DishModel:
    """A dish with the windows of its steps, its boundaries not yet made."""
    begun_s = None if dish.begun_at is None else grid.seconds(dish.begun_at)
    found = DishModel(index, dish, begun_s, grid.at_or_before(dish.serve_at))
    for i, step in enumerate(dish.pending):
        found.windows.append(_window(grid, problem, found, i, step))
    return found


def _narrowed(model: Model, each: DishModel, first: int, allowed: Sequence[Allowed]) -> None:
    """Boundaries that keep every rule of their own dish, cut to what can be reached."""
    last = each.hour + late_slots(each.dish)
    count = max(last - first + 1, 1)
    free = [np.ones(count, dtype=bool) for _ in range(len(each.windows) + 1)]
    for i in each.planned():
        for spans in allowed[i].starts().values():
            free[i] &= slots_in(spans, first, count)
    if each.begun_s is not None:
        free[0][1:] = False
    free[-1] &= slots_in([[each.hour - early_slots(each.dish), last]], first, count)
    each.stays = [one.stay() for one in allowed]
    shifted = [
        None if stay is None else [(a - first, b - first) for a, b in stay] for stay in each.stays
    ]
    ways = reachable(free, each.windows, shifted)
    if ways is None or last < first:
        model.cp.add_bool_or([])
        ways = free
    for i, slots in enumerate(ways):
        domain = cp_model.Domain.from_intervals(intervals(slots, first) or [[first, first]])
        each.bounds.append(model.cp.new_int_var_from_domain(domain, f"bound-{each.index}-{i}"))
    _sizes(model, each)
    for i, stay in enumerate(each.stays):
        if stay is not None:
            inside(model, each, i, _within_reach(each, i, stay))


def _within_reach(each: DishModel, i: int, stay: Stay) -> Stay:
    """The intervals in which a step can begin and end at all."""
    low, high = edges(each.bounds[i])
    least = each.windows[i][0]
    return [(a, b) for a, b in stay if b - least >= low and a <= high]


def _reaching(
    model: Model, each: DishModel, first: int, last: int, allowed: Sequence[Allowed]
) -> None:
    """Boundaries anywhere up to the horizon, each rule on its literal."""
    for i in range(len(each.windows) + 1):
        each.bounds.append(model.cp.new_int_var(first, last, f"bound-{each.index}-{i}"))
    _sizes(model, each)
    if each.begun_s is not None:
        model.cp.add(each.bounds[0] == first)
    _serve(model, each)
    for i in each.planned():
        for rule, spans in allowed[i].starts().items():
            domain = cp_model.Domain.from_intervals(spans)
            kept = model.cp.add_linear_expression_in_domain(each.bounds[i], domain)
            kept.only_enforce_if(model.group(each.index, i, rule))
        for rule, stay in allowed[i].stays().items():
            inside(model, each, i, stay, model.group(each.index, i, rule))


def inside(
    model: Model,
    each: DishModel,
    i: int,
    stay: Stay,
    literal: cp_model.LiteralT | None = None,
) -> None:
    """Keep a step from start to end inside one of some closed intervals of slots.

    Parameters: model; each, a dish of it; i, its pending step; stay; literal, on which the rule
    hangs, None: it holds.
    """
    chosen: list[cp_model.LiteralT] = []
    for a, b in stay:
        lies_here = model.cp.new_bool_var(f"inside-{each.index}-{i}-{a}")
        model.cp.add(each.bounds[i] >= a).only_enforce_if(lies_here)
        model.cp.add(each.bounds[i + 1] <= b).only_enforce_if(lies_here)
        chosen.append(lies_here)
    model.cp.add_bool_or(chosen if literal is None else [*chosen, ~literal])


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
    longest = None if step.max_s is None else max(down(step.max_s + offset) - offset, 0)
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


def _serve(model: Model, each: DishModel) -> None:
    on_time = model.group(each.index, 0, "too-late")
    latest = each.hour + late_slots(each.dish)
    model.cp.add(each.bounds[-1] <= latest).only_enforce_if(on_time)
    not_too_soon = model.group(each.index, 0, "not-yet")
    soonest = each.hour - early_slots(each.dish)
    model.cp.add(each.bounds[-1] >= soonest).only_enforce_if(not_too_soon)


def solve(
    model: Model,
    *,
    hint: list[int] | None = None,
    limit: float = DETERMINISTIC_LIMIT,
    callback: cp_model.CpSolverSolutionCallback | None = None,
    wants_stop: Callable[[], bool] | None = None,
    is_first: bool = False,
    is_narrow: bool = False,
) -> tuple[cp_model.CpSolverStatus, cp_model.CpSolver]:
    """Solve as it stands, deterministically: one worker, a fixed seed, a deterministic limit.

    Parameters: model; hint, a slot for each of its boundaries; limit, in the solver's deterministic
    seconds; callback, told of every better solution; wants_stop, asked whenever the bound moves;
    is_first, whether the first solution will do; is_narrow, whether little is left to decide near
    the hint, so that preparing the model takes longer than searching it.
    """
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.linearization_level = 0 if is_first or is_narrow else _linearization(model)
    solver.parameters.cp_model_presolve = not is_narrow
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


def _linearization(model: Model) -> int:
    """How much of a model is relaxed to linear programs.

    A relaxation helps to prove, and holds up a search for any solution. Where hands may lack, each
    slot has a slack of its own: the full relaxation takes seconds there, and proves less.
    """
    return 1 if model.help else 2


def slots_of(model: Model, solver: cp_model.CpSolver) -> list[int]:
    """The slot of every boundary in a solution."""
    return [solver.value(bound) for bound in model.bounds()]
