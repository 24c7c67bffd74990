"""What several dishes share: places with their room, and pairs of hands."""

import math
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, replace

from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, up
from pantry_core.plan.parts import DishModel, Model, Rule
from pantry_core.plan.problem import Problem, Step
from pantry_core.plan.trips import go_along

MILLI = 1000
"""Room in a place is counted in thousandths."""


@dataclass(frozen=True, slots=True)
class Use:
    """What a pending step takes of something shared, all through or for some slots from its start.

    `dish` counts the dishes of the model. What goes on already is a fact, which no rule forbids.
    `trip` names the trip that it is part of: what starts together then takes hands once.
    """

    dish: int
    i: int
    demand: int
    slots: int | None = None
    is_running: bool = False
    trip: str | None = None


@dataclass(frozen=True, slots=True)
class Share:
    """Something of which there is only so much at once."""

    rule: Rule
    capacity: int
    uses: list[Use]

    @property
    def is_scarce(self) -> bool:
        """Whether there could be too little; a dish takes from it one step after the other."""
        most: dict[int, int] = defaultdict(int)
        for use in self.uses:
            most[use.dish] = max(most[use.dish], use.demand)
        return sum(most.values()) > self.capacity

    def alone(self, model: Model) -> "Share":
        """The same with one step of each trip, the longest: a trip takes no less than that."""
        longest: dict[str, Use] = {}
        for use in self.uses:
            if use.trip is not None:
                known = longest.get(use.trip)
                if known is None or _least_slots(model, use) > _least_slots(model, known):
                    longest[use.trip] = use
        uses = [use for use in self.uses if use.trip is None or use is longest[use.trip]]
        return replace(self, uses=uses)


def _least_slots(model: Model, use: Use) -> int:
    if use.slots is not None:
        return use.slots
    return model.dishes[use.dish].windows[use.i][0]


def shares(model: Model, problem: Problem) -> list[Share]:
    """What the dishes of a model share, as far as there could be too little of it."""
    found = [*_places(model, problem), _hands(model, problem)]
    return [share for share in found if share.is_scarce]


def share_out(model: Model, problem: Problem) -> None:
    """No place holds more than its room, and no more is done at once than there are cooks."""
    along = go_along(model)
    for share in shares(model, problem):
        intervals, demands = [], []
        for use in share.uses:
            index = model.dishes[use.dish].index
            literal = None if use.is_running else model.group(index, use.i, share.rule)
            if literal is not None and use.demand > share.capacity:
                model.cp.add(literal == 0)
                continue
            if share.rule == "hands-full" and (use.dish, use.i) in along:
                literal = _unless(model, along[use.dish, use.i], literal)
            intervals.append(_interval(model, use, literal))
            demands.append(use.demand)
        if share.capacity == 1 and set(demands) == {1}:
            model.cp.add_no_overlap(intervals)
        else:
            model.cp.add_cumulative(intervals, demands, share.capacity)


def _unless(
    model: Model, goes_along: cp_model.IntVar, literal: cp_model.IntVar | None
) -> cp_model.IntVar:
    """Whether a step of a trip takes hands of its own."""
    takes = model.cp.new_bool_var(f"takes-{goes_along.name}")
    model.cp.add_bool_or([goes_along, takes, *([] if literal is None else [~literal])])
    return takes


def _places(model: Model, problem: Problem) -> Iterator[Share]:
    """Each place of so much room; what lies in it already is a fact, and fills it at the most."""
    for place, room in problem.places.items():
        if room is None:
            continue
        capacity = math.floor(round(MILLI * room, 3))
        uses = [
            Use(n, i, _demand(step), is_running=_is_running(each, i))
            for n, each in enumerate(model.dishes)
            for i, step in enumerate(each.dish.pending)
            if step.place == place and step.uses > 0
        ]
        lying = sum(use.demand for use in uses if use.is_running)
        if lying > capacity:
            uses = [
                replace(use, demand=capacity * use.demand // lying) if use.is_running else use
                for use in uses
            ]
        yield Share("place-full", capacity, uses)


def _hands(model: Model, problem: Problem) -> Share:
    """The cooks; work that goes on now is a fact, and brings its own pair of hands."""
    uses = []
    for n, each in enumerate(model.dishes):
        for i, step in enumerate(each.dish.pending):
            if step.attended:
                trip = step.trip if i in each.planned() else None
                uses.append(Use(n, i, 1, is_running=_is_running(each, i), trip=trip))
            elif step.hands_s and i in each.planned():
                uses.append(Use(n, i, 1, up(step.hands_s) // SLOT_S, trip=step.trip))
    return Share("hands-full", max(problem.cooks, sum(use.is_running for use in uses)), uses)


def _is_running(each: DishModel, i: int) -> bool:
    return i == 0 and each.begun_s is not None


def _demand(step: Step) -> int:
    return math.ceil(round(MILLI * step.uses, 3))


def _interval(model: Model, use: Use, literal: cp_model.IntVar | None) -> cp_model.IntervalVar:
    each, i = model.dishes[use.dish], use.i
    name = f"{'stay' if use.slots is None else 'hands'}-{each.index}-{i}"
    start: cp_model.IntVar = each.bounds[i]
    size: cp_model.LinearExprT = each.sizes[i] if use.slots is None else use.slots
    end: cp_model.LinearExprT = each.bounds[i + 1] if use.slots is None else start + use.slots
    if literal is None:
        return model.cp.new_interval_var(start, size, end, name)
    return model.cp.new_optional_interval_var(start, size, end, literal, name)
