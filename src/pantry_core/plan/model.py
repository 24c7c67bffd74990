"""The constraint model of a dish: boundaries of its steps on the quarter-hour grid."""

import math
from dataclasses import dataclass, field
from datetime import datetime
from typing import Literal

from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, Grid, Span, between, whole_slots
from pantry_core.plan.problem import Dish, Problem, Step

SEED = 7
DETERMINISTIC_LIMIT = 4.0
WALL_LIMIT_S = 20.0
"""A backstop only; the deterministic limit ends a solve first, the same way each time."""

Rule = Literal["too-late", "not-yet", "place-full", "asleep", "away", "locked"]
"""Kinds of constraint that can be named; "not-yet": what has begun would be done too soon."""

Group = tuple[int, Rule]
"""A named constraint: index of the pending step, and its kind."""


@dataclass
class Model:
    """Boundary i is the start of pending step i and the end of the step before, in slots.

    `begun_s` is the bound start of the first pending step, in seconds from the anchor, when it has
    one; boundary 0 is then not used. Each group of constraints hangs on its literal.
    """

    grid: Grid
    steps: tuple[Step, ...]
    cp: cp_model.CpModel
    bounds: list[cp_model.IntVar]
    begun_s: int | None
    groups: dict[Group, cp_model.IntVar] = field(default_factory=dict)
    overrun: bool = False

    def group(self, index: int, rule: Rule) -> cp_model.IntVar:
        """The literal of a named group, made on first use."""
        key = (index, rule)
        if key not in self.groups:
            self.groups[key] = self.cp.new_bool_var(f"{rule}-{index}")
        return self.groups[key]

    def length_s(self, index: int) -> cp_model.LinearExpr:
        """Length of a pending step [s]."""
        end_s = self.bounds[index + 1] * SLOT_S
        if index == 0 and self.begun_s is not None:
            return end_s - self.begun_s
        return end_s - self.bounds[index] * SLOT_S

    def planned(self) -> range:
        """Pending steps whose start is still open."""
        return range(0 if self.begun_s is None else 1, len(self.steps))


def build(problem: Problem, awake: list[Span], home: list[Span], horizon: datetime) -> Model:
    """The model of a problem up to a horizon, which may lie after the hour of serving.

    Parameters: problem; awake and home, sorted spans from now to the horizon; horizon, an instant.
    Returns: the model, without objective and without its groups set.
    """
    dish = problem.dish
    grid = Grid(dish.serve_at)
    first, last = grid.at_or_after(problem.now), grid.at_or_after(horizon)
    cp = cp_model.CpModel()
    bounds = [cp.new_int_var(first, last, f"bound-{i}") for i in range(len(dish.pending) + 1)]
    begun_s = None if dish.begun_at is None else grid.seconds(dish.begun_at)
    model = Model(grid, dish.pending, cp, bounds, begun_s)
    if begun_s is not None:
        cp.add(bounds[0] == first)
    _serve(model, dish)
    for i, step in enumerate(dish.pending):
        _length(model, problem, i, step)
        if i in model.planned():
            _start(model, problem, i, step, awake, home)
        if step.attended:
            _attend(model, i, "asleep", between(grid, awake, problem.now, horizon))
            _attend(model, i, "away", between(grid, home, problem.now, horizon))
    return model


def _serve(model: Model, dish: Dish) -> None:
    early = math.floor(dish.early.total_seconds() / SLOT_S)
    on_time = model.group(0, "too-late")
    model.cp.add(model.bounds[-1] <= 0).only_enforce_if(on_time)
    not_too_soon = model.group(0, "not-yet")
    model.cp.add(model.bounds[-1] >= -early).only_enforce_if(not_too_soon)


def _length(model: Model, problem: Problem, i: int, step: Step) -> None:
    hands = _up(step.hands_s)
    least = max(step.min_s, hands)
    begun = i == 0 and model.begun_s is not None
    offset = (model.begun_s or 0) % SLOT_S if begun else 0
    # Lengths are whole slots, less the part of a slot by which a bound start is off the grid.
    shortest = _up(least + offset) - offset
    longest = None if step.max_s is None else max(_down(step.max_s + offset) - offset, 0)
    if longest is not None and longest < shortest:
        # An empty window takes the nearest length, the longer of two that are equally near.
        nearer_below = least - longest < shortest - max(step.max_s or 0, least)
        shortest = longest = longest if nearer_below and longest >= hands else shortest
    if begun and longest is not None:
        elapsed = model.grid.at_or_after(problem.now) * SLOT_S - (model.begun_s or 0)
        if longest < elapsed:
            longest = None
            model.overrun = True
    model.cp.add(model.length_s(i) >= shortest)
    if longest is not None:
        model.cp.add(model.length_s(i) <= longest)


def _start(
    model: Model, problem: Problem, i: int, step: Step, awake: list[Span], home: list[Span]
) -> None:
    start = model.bounds[i]
    if step.hands_s:
        hands = _up(step.hands_s) // SLOT_S
        present: tuple[tuple[Rule, list[Span]], ...] = (("asleep", awake), ("away", home))
        for rule, spans in present:
            free = [[a, b - hands] for a, b in whole_slots(model.grid, spans) if a <= b - hands]
            domain = cp_model.Domain.from_intervals(free)
            allowed = model.cp.add_linear_expression_in_domain(start, domain)
            allowed.only_enforce_if(model.group(i, rule))
    if step.locked_start is not None:
        locked = model.grid.at_or_before(step.locked_start)
        model.cp.add(start == locked).only_enforce_if(model.group(i, "locked"))
    if step.place is not None and step.uses > problem.places[step.place]:
        model.cp.add(model.group(i, "place-full") == 0)


def _attend(model: Model, i: int, rule: Rule, absent: list[tuple[int, int]]) -> None:
    """Keep an attended step out of the slots in which nobody is there; what is past is past."""
    literal = model.group(i, rule)
    for begin, end in absent:
        before = model.cp.new_bool_var(f"before-{rule}-{i}-{begin}")
        model.cp.add(model.bounds[i + 1] <= begin).only_enforce_if(before, literal)
        model.cp.add(model.bounds[i] >= end).only_enforce_if(~before, literal)


def solve(
    model: Model, *, hint: cp_model.CpSolver | None = None
) -> tuple[cp_model.CpSolverStatus, cp_model.CpSolver]:
    """Solve as it stands, deterministically: one worker, a fixed seed, a deterministic limit."""
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = SEED
    solver.parameters.max_deterministic_time = DETERMINISTIC_LIMIT
    solver.parameters.max_time_in_seconds = WALL_LIMIT_S
    if hint is not None:
        model.cp.clear_hints()  # type: ignore[no-untyped-call]
        for bound in model.bounds:
            model.cp.add_hint(bound, hint.value(bound))
    return solver.solve(model.cp), solver


def _up(seconds: int) -> int:
    return -(-seconds // SLOT_S) * SLOT_S


def _down(seconds: int) -> int:
    return seconds // SLOT_S * SLOT_S
