"""What several dishes share: places with their room, and pairs of hands."""

import math
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise

from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, up
from pantry_core.plan.parts import DishModel, Model, Rule, edges, pairs
from pantry_core.plan.problem import Problem, Step
from pantry_core.plan.trips import go_along

MOST_HELP = 150
"""Pairs of hands, over all slots, that can be lacking."""
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
    found = [*_places(model, problem), *_heats(model, problem), _hands(model, problem)]
    return [share for share in found if share.is_scarce]


def share_out(model: Model, problem: Problem, *, can_get_help: bool = False) -> None:
    """No place holds more than its room, and no more is done at once than there are cooks.

    Parameters: model; problem; can_get_help, whether more may be done at once: the model is told of
    the pairs of hands that are lacking in each slot.
    """
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
        if can_get_help and share.rule == "hands-full":
            _with_help(model, share, intervals, demands)
        elif share.capacity == 1 and set(demands) == {1}:
            model.cp.add_no_overlap(intervals)
        else:
            model.cp.add_cumulative(intervals, demands, share.capacity)


def _with_help(
    model: Model, share: Share, intervals: list[cp_model.IntervalVar], demands: list[int]
) -> None:
    """Let hands be lacking: what is free of the room for helpers is filled where nobody helps.

    In all but the last slots in which too much could come together nobody helps, so that there are
    at most MOST_HELP literals.
    """
    reaching = _most_at_once(model, share)
    lacking = {slot: n - share.capacity for slot, n in reaching.items() if n > share.capacity}
    most = max(lacking.values(), default=0)
    left, nobody = MOST_HELP, list[tuple[int, int]]()
    for slot in sorted(lacking, reverse=True):
        can_lack = min(lacking[slot], left)
        left -= can_lack
        helpers = [model.cp.new_bool_var(f"help-{slot}-{n}") for n in range(can_lack)]
        for one, other in pairwise(helpers):
            model.cp.add_implication(other, one)
        for helper in helpers:
            name = f"no-{helper.name}"
            intervals.append(model.cp.new_optional_interval_var(slot, 1, slot + 1, ~helper, name))
            demands.append(1)
        if most > can_lack:
            nobody.append((slot, most - can_lack))
        if helpers:
            model.help[slot] = helpers
    for first, after, demand in _stretches(sorted(nobody)):
        name = f"nobody-{first}"
        intervals.append(model.cp.new_fixed_size_interval_var(first, after - first, name))
        demands.append(demand)
    model.cp.add_cumulative(intervals, demands, share.capacity + most)


def _stretches(slots: list[tuple[int, int]]) -> list[tuple[int, int, int]]:
    """Slots in a row with the same demand: the first of each row and the one after its last."""
    rows: list[tuple[int, int, int]] = []
    for slot, demand in slots:
        if rows and rows[-1][1:] == (slot, demand):
            rows[-1] = (rows[-1][0], slot + 1, demand)
        else:
            rows.append((slot, slot + 1, demand))
    return rows


def _most_at_once(model: Model, share: Share) -> dict[int, int]:
    """How many dishes could take from something shared in each slot."""
    reached: dict[int, set[int]] = defaultdict(set)
    for use in share.uses:
        each = model.dishes[use.dish]
        for begin, end in pairs(each.bounds[use.i]):
            longest = each.windows[use.i][1] if use.slots is None else use.slots
            after = min(end + longest, edges(each.bounds[use.i + 1])[1])
            for slot in range(begin, max(after, begin)):
                reached[slot].add(use.dish)
    return {slot: len(dishes) for slot, dishes in reached.items()}


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


def _heats(model: Model, problem: Problem) -> Iterator[Share]:
    """Steps that want a place at temperatures too far apart: one of them at a time."""
    for place in problem.places:
        heated = [
            (step.heat_c, Use(n, i, 1, is_running=_is_running(each, i)))
            for n, each in enumerate(model.dishes)
            for i, step in enumerate(each.dish.pending)
            if step.place == place and step.uses > 0 and step.heat_c is not None
        ]
        collide = {
            (a, b)
            for a, (one_c, one) in enumerate(heated)
            for b, (other_c, other) in enumerate(heated)
            if one.dish != other.dish
            and not (one.is_running and other.is_running)
            and not problem.shares_heat(place, one_c, other_c)
        }
        while collide:
            clique = list(min(collide))
            for c in range(len(heated)):
                if c not in clique and all((c, other) in collide for other in clique):
                    clique.append(c)
            collide -= {(a, b) for a in clique for b in clique}
            yield Share("heat", 1, [heated[c][1] for c in clique])


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
