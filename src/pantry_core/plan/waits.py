"""Steps that begin so long after the end of a step of another dish."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, down, up
from pantry_core.plan.parts import Model
from pantry_core.plan.problem import Problem, Wait


@dataclass(frozen=True, slots=True)
class Tie:
    """Two pending boundaries: the second lies so many slots after the first.

    Boundaries are dishes of the model, counted, and their own, counted; `most` None: any later.
    """

    first: tuple[int, int]
    second: tuple[int, int]
    least: int
    most: int | None


def ties(model: Model) -> list[Tie]:
    """The waits between steps that are both to come."""
    return [
        Tie(ended, (n, i), *_slots(wait))
        for n, i, wait in _waits(model)
        if (ended := _pending_end(model, wait)) is not None
    ]


def waits_for(model: Model, problem: Problem) -> None:
    """Make steps wait for others, each on its literal."""
    for n, i, wait in _waits(model):
        each = model.dishes[n]
        literal = model.group(each.index, i, "after")
        least, most = _slots(wait)
        ended = _pending_end(model, wait)
        if ended is not None:
            waited = model.dishes[ended[0]].index
            if waited in model.presence:
                model.cp.add_implication(literal, model.presence[waited])
            end = model.dishes[ended[0]].bounds[ended[1]]
            _between(
                model, each.bounds[i], literal, end + least, None if most is None else end + most
            )
        elif (over := _fact(problem, wait)) is not None:
            over_s = model.grid.seconds(over)
            soonest = up(over_s + wait.min_s) // SLOT_S
            latest = None
            if wait.max_s is not None:
                latest = max(down(over_s + wait.max_s) // SLOT_S, soonest)
            _between(model, each.bounds[i], literal, soonest, latest)


def _between(
    model: Model,
    start: cp_model.IntVar,
    literal: cp_model.IntVar,
    soonest: cp_model.LinearExprT,
    latest: cp_model.LinearExprT | None,
) -> None:
    model.cp.add(start >= soonest).only_enforce_if(literal)
    if latest is not None:
        model.cp.add(start <= latest).only_enforce_if(literal)


def _waits(model: Model) -> Iterator[tuple[int, int, Wait]]:
    for n, each in enumerate(model.dishes):
        for i in each.planned():
            for wait in each.dish.pending[i].after:
                yield n, i, wait


def _pending_end(model: Model, wait: Wait) -> tuple[int, int] | None:
    """The boundary at which a step that is to come ends."""
    for n, each in enumerate(model.dishes):
        if each.dish.id == wait.dish:
            for i, step in enumerate(each.dish.pending):
                if step.id == wait.step:
                    return n, i + 1
    return None


def _fact(problem: Problem, wait: Wait) -> datetime | None:
    """When a step that is over ended."""
    for dish in problem.dishes:
        if dish.id == wait.dish:
            return next((step.ended_at for step in dish.done if step.id == wait.step), None)
    return None


def _slots(wait: Wait) -> tuple[int, int | None]:
    """The least and the most of a wait in slots; an empty window takes the least."""
    least = up(wait.min_s) // SLOT_S
    if wait.max_s is None:
        return least, None
    return least, max(down(wait.max_s) // SLOT_S, least)
