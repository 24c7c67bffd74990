"""Dishes that cannot be together, each as it would be alone: where they are in each other's way."""

from collections.abc import Iterator
from dataclasses import replace
from datetime import datetime, timedelta

from pantry_core.plan.grid import up
from pantry_core.plan.problem import Dish, Problem
from pantry_core.plan.result import PlannedStep
from pantry_core.plan.solve import plan

EFFORT = 0.1
"""A share of the usual limits: what is drawn beside its reasons need not be the best."""


def apart(problem: Problem) -> tuple[PlannedStep, ...]:
    """Each dish planned as if there were no other.

    Parameters: problem, times in UTC, windows [s].
    Returns: the steps of all dishes; what cannot be even alone is hurried from now on, each step as
    short as it may be, whatever the hour: it ends after its hour where the time is too short.
    Raises: nothing.
    """
    return tuple(step for dish in problem.dishes for step in _alone(problem, dish))


def _alone(problem: Problem, dish: Dish) -> Iterator[PlannedStep]:
    free = replace(dish, pending=tuple(replace(each, after=()) for each in dish.pending))
    found = plan(replace(problem, dishes=(free,)), effort=EFFORT)
    yield from found.steps or _hurried(problem, dish)


def _hurried(problem: Problem, dish: Dish) -> Iterator[PlannedStep]:
    begin: datetime = dish.begun_at or problem.now
    for step in dish.pending:
        end = max(begin + timedelta(seconds=up(step.min_s)), problem.now)
        yield PlannedStep(
            dish.id, step.id, begin.astimezone(problem.zone), end.astimezone(problem.zone), 0.0
        )
        begin = end
