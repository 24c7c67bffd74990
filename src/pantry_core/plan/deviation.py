"""The first wish: lengths as near the wished ones as can be, and how well that is proven."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from ortools.sat.python import cp_model

from pantry_core.plan.bound import ROUNDING_S, Bound, lower_bound
from pantry_core.plan.grid import SLOT_S
from pantry_core.plan.model import slots_of, solve
from pantry_core.plan.parts import LATENESS, DishModel, Model, late_slots
from pantry_core.plan.problem import Problem
from pantry_core.plan.resources import shares
from pantry_core.plan.waits import ties

WISH_LIMIT, NEAR_LIMIT, REST_LIMIT = 3.0, 0.2, 1.0
"""Deterministic seconds for a plan, for one at the bound, and for one between it and the best."""

NEAR_ROOMS_S = (0.0, 3600.0, 4 * 3600.0, 12 * 3600.0)
"""How much worse than the plan that the bound knows one may be, until one is found [s]."""

Progress = Callable[[float, float], None]
"""Told of each better plan: its deviation and the bound [h]."""
WantsStop = Callable[[], bool]


@dataclass(slots=True)
class Nearest:
    """A slot for each boundary, their deviation [s], and that below which there is no plan [s].

    `bound` knows more about it where dishes share what is scarce.
    """

    slots: list[int]
    deviation_s: int
    least_s: float
    bound: Bound | None = None

    @property
    def is_proven(self) -> bool:
        """Whether there is none better."""
        return self.deviation_s <= self.least_s + ROUNDING_S

    @property
    def gap(self) -> float:
        """How far the best may still be, in parts of it, or of an hour where it is less."""
        if self.is_proven:
            return 0.0
        return (self.deviation_s - self.least_s) / max(3600.0, self.deviation_s)

    def narrow(self, model: Model) -> None:
        """Cut a model to what a plan can use that is as near."""
        model.cp.add(wish(model) <= self.deviation_s)
        if self.bound is not None:
            self.bound.narrow(model, self.deviation_s - self.bound.least_s)


class _Watch(cp_model.CpSolverSolutionCallback):
    """Passes every better plan on, and knows whether there is one."""

    def __init__(self, progress: Progress | None) -> None:
        super().__init__()
        self._progress = progress
        self.has_plan = False

    def on_solution_callback(self) -> None:
        """A better plan was found."""
        self.has_plan = True
        if self._progress is not None:
            self._progress(self.objective_value / 3600, self.best_objective_bound / 3600)


def nearest(
    problem: Problem,
    fresh: Callable[[], Model],
    progress: Progress | None,
    wants_stop: WantsStop,
    effort: float,
) -> Nearest | cp_model.CpSolverStatus:
    """The plan nearest to the wishes: a first one, then one at the bound, then what is left.

    Parameters: problem; fresh, makes its model; progress, told of each better plan; wants_stop,
    asked once there is a plan; effort, a share of the usual limits.
    Returns: the plan, or the solver's status where there is none.
    """
    model = fresh()
    shared, tied = shares(model, problem), ties(model)
    model.cp.minimize(wish(model))
    watch = _Watch(progress)

    def stops() -> bool:
        return watch.has_plan and wants_stop()

    status, solver = solve(
        model,
        limit=WISH_LIMIT * effort,
        callback=watch,
        wants_stop=stops,
        is_first=bool(shared or tied),
    )
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return status
    best = Nearest(slots_of(model, solver), 0, solver.best_objective_bound)
    best.deviation_s = deviation_s(model, best.slots)
    if best.is_proven or stops():
        return best
    best.bound = lower_bound(model, shared, tied)
    if best.bound is not None:
        best.least_s = max(best.least_s, best.bound.least_s)
        _come_near(best, best.bound, fresh)
        if progress is not None:
            progress(best.deviation_s / 3600, best.least_s / 3600)
    if not (best.is_proven or stops()):
        _search(best, fresh, watch, stops, effort)
    return best


def _come_near(best: Nearest, bound: Bound, fresh: Callable[[], Model]) -> None:
    """Take the plan that the bound knows, with every rule, or one not much worse."""
    near = bound.near()
    if near is None and (bound.shares or bound.ties):
        return
    for room_s in NEAR_ROOMS_S:
        model = fresh()
        most_s = bound.least_s + ROUNDING_S if near is None else deviation_s(model, near)
        bound.narrow(model, room_s)
        model.cp.add(wish(model) <= round(most_s + room_s))
        status, solver = solve(model, hint=near, limit=NEAR_LIMIT)
        if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            best.slots = slots_of(model, solver)
            best.deviation_s = deviation_s(model, best.slots)
            return


def _search(
    best: Nearest,
    fresh: Callable[[], Model],
    watch: _Watch,
    stops: WantsStop,
    effort: float,
) -> None:
    """Look for a better plan among those that the bound leaves."""
    model = fresh()
    best.narrow(model)
    model.cp.minimize(wish(model))
    limit = effort * (WISH_LIMIT if best.bound is None else REST_LIMIT)
    status, solver = solve(model, hint=best.slots, limit=limit, callback=watch, wants_stop=stops)
    if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        best.slots = slots_of(model, solver)
        best.deviation_s = deviation_s(model, best.slots)
        best.least_s = max(best.least_s, solver.best_objective_bound)


def wish(model: Model) -> cp_model.LinearExprT:
    """Total deviation from the wished lengths, and lateness by its weight [s]."""
    deviations = [
        _deviation(model, each, i, wished)
        for each in model.dishes
        for i in range(len(each.sizes))
        if (wished := each.wished_s(i)) is not None
    ]
    late = [_lateness(model, each) for each in model.dishes if late_slots(each.dish)]
    return cp_model.LinearExpr.sum([*deviations, *late])


def deviation_s(model: Model, slots: Sequence[int]) -> int:
    """The same of a slot for each boundary."""
    total, at = 0, 0
    for each in model.dishes:
        own = slots[at : at + len(each.bounds)]
        at += len(own)
        for i in range(len(each.sizes)):
            begin_s = own[i] * SLOT_S
            if i == 0 and each.begun_s is not None:
                begin_s = each.begun_s
            if (wished := each.wished_s(i)) is not None:
                total += abs(own[i + 1] * SLOT_S - begin_s - wished)
        total += LATENESS * SLOT_S * max(own[-1] - each.hour, 0)
    return total


def _lateness(model: Model, each: DishModel) -> cp_model.LinearExpr:
    """How much after its hour a dish ends, by its weight [s]."""
    late = model.cp.new_int_var(0, late_slots(each.dish), f"late-{each.index}")
    model.cp.add(late >= each.bounds[-1] - each.hour)
    return LATENESS * SLOT_S * late


def _deviation(model: Model, each: DishModel, i: int, wished: int) -> cp_model.IntVar:
    """Deviation of a length from the wished one [s].

    A length between two quarter hours cannot be, so the least deviation is that of the nearer one;
    said to the solver, with the line between the two, this saves it most of the proof.
    """
    length = each.length_s(i)
    part = (each.begun_s or 0) % SLOT_S if i == 0 and each.begun_s is not None else 0
    over = (wished + part) % SLOT_S
    under = SLOT_S - over
    deviation = model.cp.new_int_var(min(over, under), 2**40, f"deviation-{each.index}-{i}")
    model.cp.add(deviation >= length - wished)
    model.cp.add(deviation >= wished - length)
    # Through the points (wished - over, over) and (wished + under, under).
    model.cp.add(SLOT_S * deviation >= SLOT_S * over + (under - over) * (length - wished + over))
    return deviation
