"""What several dishes share: places with their room, and pairs of hands."""

import math
from collections import defaultdict

from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, up
from pantry_core.plan.parts import DishModel, Model, pairs
from pantry_core.plan.problem import Problem, Step

MILLI = 1000
"""Room in a place is counted in thousandths."""

MOST_SLOTS = 40
"""Starts with more choices than these are left to the intervals."""


def share_places(model: Model, problem: Problem) -> None:
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


def share_hands(model: Model, problem: Problem) -> None:
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
                hands = up(step.hands_s) // SLOT_S
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
            slots = [slot for a, b in pairs(start) for slot in range(a, b + 1)]
            if not step.hands_s or len(slots) > MOST_SLOTS:
                continue
            begins = [model.cp.new_bool_var(f"{start.name}-at-{slot}") for slot in slots]
            model.cp.add_exactly_one(begins)
            model.cp.add(start == cp_model.LinearExpr.weighted_sum(begins, slots))
            for slot, literal in zip(slots, begins, strict=True):
                for work in range(up(step.hands_s) // SLOT_S):
                    busy[slot + work].append(literal)
    for literals in busy.values():
        if len(literals) > cooks:
            model.cp.add(cp_model.LinearExpr.sum(literals) <= cooks)


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
