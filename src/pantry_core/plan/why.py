"""Why there is no plan: the fewest rules that collide, and the earliest hour that is possible."""

from collections.abc import Iterable
from datetime import datetime

from ortools.sat.python import cp_model

from pantry_core.plan.earliest import earliest_serve
from pantry_core.plan.model import build_to, solve
from pantry_core.plan.parts import (
    DishModel,
    Group,
    Model,
    Rule,
    early_slots,
    edges,
    late_slots,
)
from pantry_core.plan.problem import Problem
from pantry_core.plan.reasons import reason
from pantry_core.plan.result import Plan, Why

WHY_LIMIT, WITHOUT_LIMIT, LEFT_OUT_LIMIT = 0.8, 0.1, 0.8
"""Deterministic seconds: to find what collides, without one rule, and for all that are left out."""

OF_THE_HOUR: tuple[Rule, ...] = ("too-late", "not-yet")
"""Kinds of constraint that keep a dish to its hour."""


def explain(problem: Problem) -> Plan:
    """An infeasible plan with its reasons.

    Parameters: problem, known to have no plan.
    Returns: the plan document of status infeasible: `why`, of which no reason can be left out, and
    `earliest_serve`, the first quarter hour at which the feast could be served when it is begun now
    or goes on from where it is, None when no hour is possible.
    Raises: nothing.
    """
    earliest = earliest_serve(problem)
    return Plan(
        status="infeasible",
        earliest_serve=earliest.astimezone(problem.zone) if earliest else None,
        why=collisions(problem, earliest),
    )


def collisions(problem: Problem, earliest: datetime | None = None) -> tuple[Why, ...]:
    """A smallest set of rules that cannot be kept together.

    Parameters: problem, known to have no plan; earliest, the possible hour, where it is known.
    Raises: nothing.
    """
    return tuple(reason(problem, group, earliest) for group in _fewest(problem))


def _fewest(problem: Problem) -> list[Group]:
    """Named constraints that collide, none of which can be left out, as far as a search tells.

    The hour of serving is given; it is a reason of its own only where time alone does not suffice.
    """
    model = build_to(problem, is_kept=False)
    for each in model.dishes:
        rule = _of_the_hour(model, each)
        if rule is not None:
            return [(each.index, 0, rule)]
    hours = [group for group in model.groups if group[2] in OF_THE_HOUR]
    model.cp.add_bool_and([model.groups[group] for group in hours])
    core, _ = _colliding(model, [each for each in model.groups if each not in hours], WHY_LIMIT)
    spent = 0.0
    for group in list(core):
        if group in core and len(core) > 1 and spent < LEFT_OUT_LIMIT:
            rest, took = _colliding(model, [each for each in core if each != group], WITHOUT_LIMIT)
            core, spent = rest or core, spent + took
    return core


def _of_the_hour(model: Model, each: DishModel) -> Rule | None:
    """What keeps a dish from its hour by the lengths of its steps alone."""
    begin = edges(each.bounds[0])[0]
    if begin + sum(least for least, _ in each.windows) > each.hour + late_slots(each.dish):
        return "too-late"
    last = begin + sum(most for _, most in each.windows)
    if each.begun_s is not None and last < each.hour - early_slots(each.dish):
        return "not-yet"
    return None


def _colliding(model: Model, groups: Iterable[Group], limit: float) -> tuple[list[Group], float]:
    """Those of the groups that suffice for a collision, and the time it took [deterministic s].

    None of them when they can all be kept, or nobody knows.
    """
    model.cp.clear_assumptions()
    model.cp.add_assumptions([model.groups[group] for group in groups])
    status, solver = solve(model, limit=limit)
    took = solver.response_proto.deterministic_time
    if status != cp_model.INFEASIBLE:
        return [], took
    by_index = {literal.index: group for group, literal in model.groups.items()}
    return sorted(by_index[i] for i in solver.sufficient_assumptions_for_infeasibility()), took
