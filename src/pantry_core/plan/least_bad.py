"""The plan that breaks least where none keeps every rule: what is late, early, or lacks hands."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import timedelta

from ortools.sat.python import cp_model

from pantry_core.plan.allowed import RUSH
from pantry_core.plan.breaks import breaks_of
from pantry_core.plan.grid import SLOT_S, up, whole_slots
from pantry_core.plan.hours import Hours, hours_of
from pantry_core.plan.model import build, slots_of, solve
from pantry_core.plan.parts import DishModel, Model, early_slots, edges
from pantry_core.plan.problem import Dish, Problem
from pantry_core.plan.result import Break, Plan
from pantry_core.plan.solve import best_of, is_possible

LATEST = timedelta(hours=4)
"""A dish that cannot be ready so long after its hour is left out."""
HOT_KEEPS, COLD_KEEPS = timedelta(hours=1), timedelta(hours=24)
"""How long before its hour a hot dish and a cold one may be ready."""
LATE, EARLY, HELP, OUT_OF_HOURS = 4, 1, 2, 2
"""What a minute costs: late, early, of a missing cook, and of work out of its hours."""
LEFT_OUT = 1_000_000
"""What a dish costs that is left out: more than all else together."""
BREAKS_LIMIT = 0.5
"""Deterministic seconds to look for the least that has to be broken."""
EFFORT = 0.1
"""A share of the usual limits for all that is wished besides."""
SLOT_MIN = SLOT_S // 60


@dataclass(frozen=True, slots=True)
class LeastBad:
    """The plan that breaks least, and what it breaks: dishes that are left out come first."""

    plan: Plan
    breaks: tuple[Break, ...]


def least_bad(problem: Problem, keeps: Mapping[str, timedelta] | None = None) -> LeastBad | None:
    """The plan of a feast that breaks least, where none keeps every rule.

    Facts, the order of steps, waits for other dishes, sleep, absences, shut places, capacities,
    temperatures, locked starts and the windows of steps are never broken. A dish may be up to four
    hours late, and early as long as it keeps; work may lie out of its hours, and a pair of hands
    may be missing. A dish that cannot be even so is left out, with all that waits for it.

    Parameters: problem, times in UTC, windows [s]; keeps, how long before its hour a dish may be
    ready, by its id, where that is known better.
    Returns: the plan of what is not left out, and the breaks [min]; None where all is left out.
    Raises: nothing.
    Source: the rules of the `plan` document; constraint solving by OR-Tools CP-SAT.
    """
    bent = _bent(problem, keeps or {})
    left_out = _with_what_waits(bent, {dish.id for dish in bent.dishes if _never(bent, dish)})
    rest = _without(bent, left_out)
    if not any(dish.pending for dish in rest.dishes):
        return None
    hours = hours_of(problem, problem.now, rest.horizon)
    model = build(rest, hours_of(rest, rest.now, rest.horizon), rest.horizon, is_kept=True,
                  can_leave_out=True, can_get_help=True)  # fmt: skip
    usual = {dish.id: dish for dish in problem.dishes}
    missing = [~present for present in model.presence.values()]
    breaking = _Breaking(model, usual, hours)
    model.cp.minimize(
        cp_model.LinearExpr.sum([LEFT_OUT * each for each in missing]) + breaking.cost()
    )
    status, solver = solve(model, limit=BREAKS_LIMIT)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    left_out |= {
        rest.dishes[index].id
        for index, present in model.presence.items()
        if not solver.value(present)
    }
    is_whole = all(solver.value(present) for present in model.presence.values())
    return _planned(
        problem, _without(bent, left_out), left_out,
        slots_of(model, solver) if is_whole else None, round(solver.objective_value),
        is_proven=status == cp_model.OPTIMAL,
    )  # fmt: skip


def _planned(
    problem: Problem, rest: Problem, left_out: set[str], slots: list[int] | None, least: int,
    *, is_proven: bool,
) -> LeastBad | None:  # fmt: skip
    """The best of the plans that break least, once it is clear which dishes are left out.

    Parameters: problem; rest, without those; left_out, their ids; slots, a slot for each boundary
    of a plan that breaks `least`, None where it is still to be found; is_proven, whether no other
    dishes need to be left out, and none breaks less.
    """
    if not any(dish.pending for dish in rest.dishes):
        return None
    usual = {dish.id: dish for dish in problem.dishes}
    hours = hours_of(problem, problem.now, rest.horizon)
    free = hours_of(rest, rest.now, rest.horizon)

    def fresh() -> tuple[Model, "_Breaking"]:
        model = build(rest, free, rest.horizon, is_kept=True, can_get_help=True)
        return model, _Breaking(model, usual, hours)

    if slots is None:
        model, breaking = fresh()
        model.cp.minimize(breaking.cost())
        status, solver = solve(model, limit=BREAKS_LIMIT)
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            return None
        slots, least = slots_of(model, solver), round(solver.objective_value)
        is_proven = is_proven and status == cp_model.OPTIMAL

    def bound() -> Model:
        narrowed, own = fresh()
        narrowed.cp.add(own.cost() <= least)
        return narrowed

    best = best_of(rest, free, bound, slots, EFFORT)
    # What is late stands among the breaks.
    best = replace(best, notices=tuple(each for each in best.notices if each.code != "late"))
    if not is_proven:
        best = replace(best, status="feasible", gap=best.gap or 1.0)
    return LeastBad(best, tuple(breaks_of(problem, rest, best, left_out)))


def _bent(problem: Problem, keeps: Mapping[str, timedelta]) -> Problem:
    """The problem with all the leave that a plan is given which breaks something."""
    dishes = tuple(
        replace(
            dish,
            late=max(dish.late, LATEST),
            early=max(dish.early, keeps.get(dish.id, _keeps(dish))),
        )
        for dish in problem.dishes
    )
    return replace(problem, dishes=dishes, work=None)


def _keeps(dish: Dish) -> timedelta:
    """How long a dish keeps when it is ready: what is hot, or might be, an hour."""
    steps = (*dish.done, *dish.pending)
    ends = [step.ends_hot for step in steps if step.ends_hot is not None]
    is_hot = ends[-1] if ends else not any(step.kind for step in steps)
    return HOT_KEEPS if is_hot else COLD_KEEPS


def _never(problem: Problem, dish: Dish) -> bool:
    return not is_possible(replace(problem, dishes=(dish,), cooks=max(problem.cooks, 1)))


def _with_what_waits(problem: Problem, gone: set[str]) -> set[str]:
    """Dishes that cannot be, with those that wait for one of their steps to come."""
    to_come = {(dish.id, step.id) for dish in problem.dishes for step in dish.pending}
    count = -1
    while count != len(gone):
        count = len(gone)
        gone = gone | {
            dish.id
            for dish in problem.dishes
            for step in dish.pending
            for wait in step.after
            if wait.dish in gone and (wait.dish, wait.step) in to_come
        }
    return gone


def _without(problem: Problem, gone: set[str]) -> Problem:
    return replace(problem, dishes=tuple(each for each in problem.dishes if each.id not in gone))


class _Breaking:
    """What a plan in a model breaks, as its cost [min]."""

    def __init__(self, model: Model, usual: Mapping[str, Dish], hours: Hours) -> None:
        """Count what is broken.

        Parameters: model, in which it may be; usual, the dishes with the leave they have; hours,
        those of work included.
        """
        self._model, self._usual, self._hours = model, usual, hours

    def cost(self) -> cp_model.LinearExpr:
        """What is broken, each minute by its weight."""
        costs: list[cp_model.LinearExprT] = []
        for each in self._model.dishes:
            own = [*self._off_its_hour(each), *self._out_of_hours(each)]
            costs += [SLOT_MIN * weight * slots for weight, slots in own]
        for helpers in self._model.help.values():
            costs += [SLOT_MIN * HELP * helper for helper in helpers]
        return cp_model.LinearExpr.sum(costs)

    def _off_its_hour(self, each: DishModel) -> Iterator[tuple[int, cp_model.LinearExprT]]:
        dish, end = self._usual[each.dish.id], each.bounds[-1]
        latest = each.hour + round(dish.late.total_seconds()) // SLOT_S
        soonest = each.hour - early_slots(dish)
        first, last = edges(end)
        for weight, most, over in (
            (LATE, last - latest, end - latest),
            (EARLY, soonest - first, soonest - end),
        ):
            if most > 0:
                slots = self._model.cp.new_int_var(0, most, f"off-{weight}-{each.index}")
                self._model.cp.add(slots >= over).only_enforce_if(*self._there(each))
                yield weight, slots

    def _out_of_hours(self, each: DishModel) -> Iterator[tuple[int, cp_model.LinearExprT]]:
        """Slots of work out of its hours, for each step that does not begin in the last hours."""
        if self._hours.work is None:
            return
        at_work = whole_slots(self._model.grid, self._hours.work)
        for i in each.planned():
            step = each.dish.pending[i]
            if not step.is_work:
                continue
            first, last = edges(each.bounds[i])[0], edges(each.bounds[i + 1])[1]
            off = [not any(a <= slot < b for a, b in at_work) for slot in range(first, last + 1)]
            if step.attended:
                yield OUT_OF_HOURS, self._attended(each, i, first, off)
            else:
                yield from self._worked(each, i, first, off)

    def _worked(
        self, each: DishModel, i: int, first: int, off: list[bool]
    ) -> Iterator[tuple[int, cp_model.LinearExprT]]:
        """A literal for each slot of the hands that may lie out of hours."""
        hands = up(each.dish.pending[i].hands_s) // SLOT_S
        last = edges(each.bounds[i])[1]
        out = {
            slot: 0 if slot >= each.hour - RUSH else sum(off[slot - first : slot - first + hands])
            for slot in range(first, last + 1)
        }
        for n in range(1, max(out.values(), default=0) + 1):
            over = self._model.cp.new_bool_var(f"out-{each.index}-{i}-{n}")
            fewer = cp_model.Domain.from_values([slot for slot, count in out.items() if count < n])
            kept = self._model.cp.add_linear_expression_in_domain(each.bounds[i], fewer)
            kept.only_enforce_if(~over, *self._there(each))
            yield OUT_OF_HOURS, over

    def _attended(self, each: DishModel, i: int, first: int, off: list[bool]) -> cp_model.IntVar:
        """All that lies out of hours between the start and the end of a step."""
        cp, count = self._model.cp, sum(off)
        before = [sum(off[:n]) for n in range(len(off))]
        begins, ends = (cp.new_int_var(0, count, f"off-{each.index}-{i}-{n}") for n in (0, 1))
        cp.add_element(each.bounds[i] - first, before, begins)
        cp.add_element(each.bounds[i + 1] - first, before, ends)
        slots = cp.new_int_var(0, count, f"out-{each.index}-{i}")
        is_rush = cp.new_bool_var(f"rush-{each.index}-{i}")
        cp.add(each.bounds[i] >= each.hour - RUSH).only_enforce_if(is_rush)
        cp.add(slots >= ends - begins).only_enforce_if(~is_rush, *self._there(each))
        return slots

    def _there(self, each: DishModel) -> list[cp_model.IntVar]:
        present = self._model.presence.get(each.index)
        return [] if present is None else [present]
