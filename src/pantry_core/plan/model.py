"""The constraint model of a feast: boundaries of all steps on the quarter-hour grid."""

import math
from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime
from typing import Literal

import numpy as np
from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, Grid, Span, between, whole_slots
from pantry_core.plan.problem import Dish, Problem, Step
from pantry_core.plan.reach import intervals, reachable, slots_in

SEED = 7
DETERMINISTIC_LIMIT = 6.0
WALL_LIMIT_S = 60.0
"""A backstop only; the deterministic limit ends a solve first, the same way each time."""
MILLI = 1000
"""Room in a place is counted in thousandths."""

Rule = Literal["too-late", "not-yet", "place-full", "asleep", "away", "hands-full", "locked"]
"""Kinds of constraint that can be named; "not-yet": what has begun would be done too soon."""

Group = tuple[int, int, Rule]
"""A named constraint: index of the dish, of its pending step, and its kind."""


@dataclass
class DishModel:
    """Boundary i is the start of pending step i and the end of the step before, in slots.

    `windows` are the shortest and longest lengths of the pending steps, in slots.
    `begun_s` is the bound start of the first pending step, in seconds from the anchor, when it has
    one; boundary 0 is then where the grid goes on from now.
    """

    index: int
    dish: Dish
    begun_s: int | None
    windows: list[tuple[int, int]] = field(default_factory=list)
    bounds: list[cp_model.IntVar] = field(default_factory=list)
    sizes: list[cp_model.IntVar] = field(default_factory=list)
    overrun: bool = False

    def length_s(self, i: int) -> cp_model.LinearExpr:
        """Length of a pending step [s]."""
        if i == 0 and self.begun_s is not None:
            return self.bounds[1] * SLOT_S - self.begun_s
        return self.sizes[i] * SLOT_S

    def planned(self) -> range:
        """Pending steps whose start is still open."""
        return range(0 if self.begun_s is None else 1, len(self.dish.pending))


@dataclass
class Model:
    """All dishes, and a literal for each group of constraints."""

    grid: Grid
    cp: cp_model.CpModel
    dishes: list[DishModel]
    groups: dict[Group, cp_model.IntVar] = field(default_factory=dict)

    def group(self, dish: int, step: int, rule: Rule) -> cp_model.IntVar:
        """The literal of a named group, made on first use."""
        key = (dish, step, rule)
        if key not in self.groups:
            self.groups[key] = self.cp.new_bool_var(f"{rule}-{dish}-{step}")
        return self.groups[key]

    def bounds(self) -> list[cp_model.IntVar]:
        """Every boundary of every dish."""
        return [bound for each in self.dishes for bound in each.bounds]


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
    _places(model, problem)
    _cooks(model, problem)
    if is_kept:
        model.cp.add_bool_and(list(model.groups.values()))
    return model


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
    hands = _up(step.hands_s)
    least = max(step.min_s, hands)
    begun = i == 0 and dish.begun_s is not None
    offset = (dish.begun_s or 0) % SLOT_S if begun else 0
    # Lengths are whole slots, less the part of a slot by which a bound start is off the grid.
    shortest = _up(least + offset) - offset
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


LONGEST = 400 * 24 * 4
"""Slots of a step without a longest time."""


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
    hands = _up(step.hands_s) // SLOT_S
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


def _places(model: Model, problem: Problem) -> None:
    """No place holds more than its room. What lies in it already is a fact and stays."""
    for place, room in problem.places.items():
        capacity = math.floor(round(MILLI * room, 3))
        users = [
            (each, i, step)
            for each in model.dishes
            for i, step in enumerate(each.dish.pending)
            if step.place == place and step.uses > 0
        ]
        running = [(each, i, step) for each, i, step in users if _is_running(each, i)]
        lying = sum(_demand(step) for _, _, step in running)
        intervals, demands = [], []
        for each, i, step in users:
            demand = _demand(step)
            if _is_running(each, i):
                if lying > capacity:
                    demand = capacity * demand // lying
                intervals.append(_interval(model, each, i, None))
            else:
                literal = model.group(each.index, i, "place-full")
                if demand > capacity:
                    model.cp.add(literal == 0)
                    continue
                intervals.append(_interval(model, each, i, literal))
            demands.append(demand)
        if sum(demands) > capacity:
            model.cp.add_cumulative(intervals, demands, capacity)


def _cooks(model: Model, problem: Problem) -> None:
    """No more work at once than there are cooks; work that goes on now is a fact."""
    intervals = []
    going_on = 0
    for each in model.dishes:
        for i, step in enumerate(each.dish.pending):
            name = f"hands-{each.index}-{i}"
            if step.attended and _is_running(each, i):
                going_on += 1
                intervals.append(_interval(model, each, i, None))
            elif i not in each.planned():
                continue
            elif step.attended:
                literal = model.group(each.index, i, "hands-full")
                intervals.append(_interval(model, each, i, literal))
            elif step.hands_s:
                literal = model.group(each.index, i, "hands-full")
                hands = _up(step.hands_s) // SLOT_S
                intervals.append(
                    model.cp.new_optional_fixed_size_interval_var(
                        each.bounds[i], hands, literal, name
                    )
                )
    capacity = max(problem.cooks, going_on)
    if capacity == 1:
        model.cp.add_no_overlap(intervals)
    elif len(intervals) > capacity:
        model.cp.add_cumulative(intervals, [1] * len(intervals), capacity)


def say_hour_by_hour(model: Model, cooks: int) -> None:
    """Say of each quarter hour of a short choice that no more is begun than there are cooks.

    This adds no rule: it lets the solver prove in seconds how near the wishes can be come, which
    else takes it minutes. For what is asked after that it is a burden.
    """
    busy: dict[int, list[cp_model.IntVar]] = defaultdict(list)
    for each in model.dishes:
        for i in each.planned():
            start, step = each.bounds[i], each.dish.pending[i]
            slots = [slot for a, b in _pairs(start) for slot in range(a, b + 1)]
            if not step.hands_s or len(slots) > MOST_SLOTS:
                continue
            begins = [model.cp.new_bool_var(f"{start.name}-at-{slot}") for slot in slots]
            model.cp.add_exactly_one(begins)
            model.cp.add(start == cp_model.LinearExpr.weighted_sum(begins, slots))
            for slot, literal in zip(slots, begins, strict=True):
                for work in range(_up(step.hands_s) // SLOT_S):
                    busy[slot + work].append(literal)
    for literals in busy.values():
        if len(literals) > cooks:
            model.cp.add(cp_model.LinearExpr.sum(literals) <= cooks)


MOST_SLOTS = 80
"""Starts with more choices than these are left to the intervals."""


def edges(variable: cp_model.IntVar) -> tuple[int, int]:
    """First and last value of a variable's domain; the field counts from the front only."""
    domain = list(variable.proto.domain)
    return int(domain[0]), int(domain[len(domain) - 1])


def _pairs(variable: cp_model.IntVar) -> list[tuple[int, int]]:
    domain = [int(each) for each in variable.proto.domain]
    return list(zip(domain[::2], domain[1::2], strict=True))


def _is_running(each: DishModel, i: int) -> bool:
    return i == 0 and each.begun_s is not None


def _demand(step: Step) -> int:
    return math.ceil(round(MILLI * step.uses, 3))


def _interval(
    model: Model, each: DishModel, i: int, literal: cp_model.IntVar | None
) -> cp_model.IntervalVar:
    name = f"stay-{each.index}-{i}"
    start, size, end = each.bounds[i], each.sizes[i], each.bounds[i + 1]
    if literal is None:
        return model.cp.new_interval_var(start, size, end, name)
    return model.cp.new_optional_interval_var(start, size, end, literal, name)


def solve(
    model: Model,
    *,
    hint: list[int] | None = None,
    limit: float = DETERMINISTIC_LIMIT,
    callback: cp_model.CpSolverSolutionCallback | None = None,
    wants_stop: Callable[[], bool] | None = None,
) -> tuple[cp_model.CpSolverStatus, cp_model.CpSolver]:
    """Solve as it stands, deterministically: one worker, a fixed seed, a deterministic limit.

    Parameters: model; hint, a slot for each of its boundaries; limit, in the solver's deterministic
    seconds; callback, told of every better solution; wants_stop, asked whenever the bound moves.
    """
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.linearization_level = 2
    solver.parameters.random_seed = SEED
    solver.parameters.max_deterministic_time = limit
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


def _up(seconds: int) -> int:
    return -(-seconds // SLOT_S) * SLOT_S


def _down(seconds: int) -> int:
    return seconds // SLOT_S * SLOT_S
