"""What would help: changes of the asked plan that were really solved."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from pantry_core.plan.changes import Change, LeaveOut
from pantry_core.plan.least_bad import least_bad
from pantry_core.plan.offers import EFFORT, Offer, named_dishes, offer, offers, only, resolved
from pantry_core.plan.problem import Problem, WrongPlan
from pantry_core.plan.result import Plan, Remedy, Why
from pantry_core.plan.solve import is_possible, plan
from pantry_core.plan.why import collisions
from pantry_core.text import joined, say

MOST_REMEDIES = 6
MOST_TOGETHER = 4
"""So many changes are tried at once when none helps alone."""

Document = dict[str, Any]


def answer(document: Document) -> Plan:
    """Plan a feast; where that cannot be, with the changes that would help.

    Parameters: document, a sound `plan` document as JSON data.
    Returns: the plan; `remedies` of an infeasible one are whole documents that differ from this one
    only as their text says, each with its plan; its `plan` and `breaks`, where they are asked, are
    the one that breaks least and what it breaks.
    Raises: pydantic.ValidationError and WrongPlan for a document that is not sound.
    """
    problem = resolved(document)
    found = plan(problem)
    if found.status != "infeasible":
        return found
    offered = tuple(remedies(document, problem, found))
    bad = least_bad(problem) if document.get("least_bad") else None
    return replace(
        found, remedies=offered,
        plan=bad.plan if bad else None, breaks=bad.breaks if bad else (),
    )  # fmt: skip


def remedies(document: Document, problem: Problem, found: Plan) -> Iterator[Remedy]:
    """Changes that make an infeasible feast possible, the smallest first.

    Parameters: document and the problem it asks; found, its infeasible plan with the reasons.
    Returns: at most MOST_REMEDIES; several changes together only where none helps alone.
    """
    offered = 0
    for change in offers(document, problem, found.why):
        solved = _solved(change)
        if solved is not None:
            yield solved
            offered += 1
            if offered == MOST_REMEDIES:
                return
    for together in () if offered else (_together, _without_some):
        joined = together(document, problem, found.why)
        solved = _solved(joined) if joined else None
        if solved is not None:
            yield solved
            return


def _solved(change: Offer) -> Remedy | None:
    problem = _sound(change)
    if problem is None or not is_possible(problem):
        return None
    found = plan(problem, effort=EFFORT)
    if found.status not in ("optimal", "feasible"):
        return None
    return Remedy(change.text, change.input, found, change.changes)


def _together(document: Document, problem: Problem, why: tuple[Why, ...]) -> Offer | None:
    """Several changes, each putting right what collides after those before it."""
    asked, texts, made = document, list[str](), list[Change]()
    for _ in range(MOST_TOGETHER):
        if not why:
            return None
        named = set(named_dishes(problem, why))
        change = next(
            (
                each
                for each in offers(document, only(problem, named), why)
                if (changed := _sound(each)) and is_possible(only(changed, named))
            ),
            None,
        )
        if change is None:
            return None
        texts.append(change.text)
        made += change.changes
        document = change.input
        problem = resolved(document)
        if is_possible(problem):
            return offer(asked, joined(" ", texts), *made)
        why = collisions(problem)
    return None


def _without_some(document: Document, problem: Problem, why: tuple[Why, ...]) -> Offer | None:
    """Dishes left out one after the other until the rest goes together; none without need."""
    left_out: list[str] = []
    kept = {dish.id for dish in problem.dishes}
    while why and len(kept) > 1:
        gone = max(why, key=lambda each: _length_s(problem, each.dish)).dish
        left_out.append(gone)
        kept.discard(gone)
        rest = only(problem, kept)
        why = () if is_possible(rest) else collisions(rest)
    for dish_id in list(left_out):
        if is_possible(only(problem, kept | {dish_id})):
            kept.add(dish_id)
            left_out.remove(dish_id)
    if not left_out:
        return None
    text = joined(" ", (say("Leave out {name}.", name=_name(problem, each)) for each in left_out))
    return offer(document, text, *(LeaveOut(each) for each in left_out))


def _length_s(problem: Problem, dish_id: str) -> int:
    dish = next(each for each in problem.dishes if each.id == dish_id)
    return sum(step.min_s for step in dish.pending)


def _sound(change: Offer) -> Problem | None:
    try:
        return resolved(change.input)
    except WrongPlan:
        return None


def _name(problem: Problem, dish_id: str) -> str:
    return next(each.name for each in problem.dishes if each.id == dish_id)
