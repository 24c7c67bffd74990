"""What a plan breaks, in words and minutes."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta

from pantry_core.plan.allowed import RUSH
from pantry_core.plan.grid import SLOT_S, Grid, up, whole_slots
from pantry_core.plan.hours import Hours, hours_of
from pantry_core.plan.parts import early_slots
from pantry_core.plan.problem import GRID, Dish, Problem, Step
from pantry_core.plan.reasons import span
from pantry_core.plan.result import Break, Plan
from pantry_core.quantities import Clock, Moment, Number
from pantry_core.text import joined, listed, say

SLOT_MIN = SLOT_S // 60


@dataclass(frozen=True, slots=True)
class _Work:
    """Hands on a step, from a slot to the one after the last; `is_running`: they are a fact."""

    dish: Dish
    step: Step
    first: int
    after: int
    is_running: bool


def breaks_of(problem: Problem, rest: Problem, plan: Plan, left_out: set[str]) -> Iterator[Break]:
    """What a plan breaks: what is left out, then each dish's hour and hours of work, then hands.

    Parameters: problem, with the leave that each dish has; rest, what was planned; plan, of it;
    left_out, ids of the dishes that were not.
    """
    for dish in problem.dishes:
        if dish.id in left_out:
            yield Break(
                dish.id, dish.pending[0].id, "left-out", 0.0,
                say("{dish} cannot be ready within four hours of its hour, and is left out.",
                    dish=dish.name),
            )  # fmt: skip
    planned = {(each.dish, each.step): each for each in plan.steps}
    hours = hours_of(problem, problem.now, rest.horizon)
    for dish in problem.dishes:
        if dish.id in left_out or not dish.pending:
            continue
        yield from _hour_broken(problem, dish, planned[dish.id, dish.pending[-1].id].end)
        for i, step in enumerate(dish.pending):
            if (i or dish.begun_at is None) and step.is_work and hours.work is not None:
                yield from _work_broken(problem, dish, step, planned[dish.id, step.id].start,
                                        planned[dish.id, step.id].end, hours)  # fmt: skip
    yield from _hands_broken(problem, rest, plan)


def _hour_broken(problem: Problem, dish: Dish, end: datetime) -> Iterator[Break]:
    last = dish.pending[-1].id
    at, late, early = Clock(end), end - dish.serve_at, dish.serve_at - end
    if late > dish.late:
        text = say("{dish} is ready at {at}, {late} late.", dish=dish.name, at=at, late=span(late))
        yield Break(dish.id, last, "late", _minutes(late - dish.late), text)
    early_most = early_slots(dish) * SLOT_MIN
    if _minutes(early) > early_most:
        text = say(
            "{dish} is ready at {at}, {early} before its hour.",
            dish=dish.name, at=at, early=span(early),
        )  # fmt: skip
        yield Break(dish.id, last, "early", _minutes(early) - early_most, text)


def _work_broken(
    problem: Problem, dish: Dish, step: Step, start: datetime, end: datetime, hours: Hours
) -> Iterator[Break]:
    grid = Grid(problem.serve_at)
    first, hour = grid.at_or_before(start), grid.at_or_before(dish.serve_at)
    if first >= hour - RUSH:
        return
    after = grid.at_or_before(end) if step.attended else first + up(step.hands_s) // SLOT_S
    at_work = whole_slots(grid, hours.work or ())
    off = sum(not any(a <= slot < b for a, b in at_work) for slot in range(first, after))
    if off:
        text = say(
            "{step} of {dish} on {day} at {at}: {length} of work out of your hours.",
            step=step.name, dish=dish.name, day=Moment(start, "weekday"), at=Clock(start),
            length=span(off * GRID),
        )  # fmt: skip
        yield Break(dish.id, step.id, "work", float(off * SLOT_MIN), text)


def _hands_broken(problem: Problem, rest: Problem, plan: Plan) -> Iterator[Break]:
    """Where more is done at once than there are cooks, each stretch of it as one break."""
    grid, at_hand = Grid(problem.serve_at), _hands(rest, plan)
    facts = sum(1 for work in at_hand if work.is_running)
    cooks = max(problem.cooks, facts)
    stretch: list[_Work] = []
    begin = lacking = previous = 0

    def broken(after: int) -> Iterator[Break]:
        if not stretch:
            return
        last = max(stretch, key=lambda work: work.first)
        at = grid.moment(begin).astimezone(problem.zone)
        text = say(
            "On {day} at {at} {count} things want hands: {names}. "
            "Ask somebody to help for {length}.",
            day=Moment(at, "weekday"), at=Clock(at), count=Number(len(stretch)),
            names=listed([joined(", ", (work.dish.name, work.step.name)) for work in stretch]),
            length=span((after - begin) * GRID),
        )  # fmt: skip
        by_min = float((after - begin) * lacking * SLOT_MIN)
        yield Break(last.dish.id, last.step.id, "hands", by_min, text)

    slots = sorted({slot for work in at_hand for slot in range(work.first, work.after)})
    for slot in slots:
        busy = [work for work in at_hand if work.first <= slot < work.after]
        now = busy if _count(busy) > cooks else []
        if now != stretch or (stretch and slot - 1 not in slots):
            yield from broken(slot if slot - 1 in slots else previous + 1)
            stretch, begin, lacking = now, slot, _count(now) - cooks
        previous = slot
    yield from broken(slots[-1] + 1 if slots else 0)


def _count(busy: list[_Work]) -> int:
    """Pairs of hands: what goes on one trip and started together takes one."""
    return len({(work.step.trip, work.first) if work.step.trip else work for work in busy})


def _hands(problem: Problem, plan: Plan) -> list[_Work]:
    grid = Grid(problem.serve_at)
    planned = {(each.dish, each.step): each for each in plan.steps}
    at_hand = []
    for dish in problem.dishes:
        for i, step in enumerate(dish.pending):
            times, has_begun = planned[dish.id, step.id], i == 0 and dish.begun_at is not None
            first = grid.at_or_after(max(times.start, problem.now))
            if step.attended:
                at_hand.append(
                    _Work(dish, step, first, grid.at_or_after(times.end), is_running=has_begun)
                )
            elif step.hands_s and not has_begun:
                after = first + up(step.hands_s) // SLOT_S
                at_hand.append(_Work(dish, step, first, after, is_running=False))
    return at_hand


def _minutes(length: timedelta) -> float:
    return length.total_seconds() / 60
