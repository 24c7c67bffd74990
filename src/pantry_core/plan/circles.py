"""Steps that wait for steps of other dishes: whether they are there, and go in no circle."""

from collections.abc import Iterator, Mapping, Sequence
from itertools import groupby, pairwise

from pantry_core.plan.request import PlanRequest
from pantry_core.plan.wrongs import Wrong
from pantry_core.text import joined, say

Key = tuple[str, str]
"""A dish and its step."""


def waiting_wrongs(request: PlanRequest) -> list[Wrong]:
    """What of the waiting in a document cannot be.

    Parameters: request. Returns: dotted paths, each with what is allowed.
    """
    wrongs = list(_missing(request))
    return wrongs or list(_circles(request))


def _missing(request: PlanRequest) -> Iterator[Wrong]:
    steps = {dish.id: [step.id for step in dish.steps] for dish in request.dishes}
    for path, dish, _, k, wait in _waits(request):
        where = f"{path}.after.{k}"
        if wait[0] == dish:
            yield (
                f"{where}.dish",
                "a step waits for another dish; within one dish the order does it",
            )
        elif wait[0] not in steps:
            what = say(
                "there is no dish “{wait}”; name one of the others, or none", wait=wait[0][:40]
            )
            yield f"{where}.dish", what
        elif wait[1] not in steps[wait[0]]:
            known = ", ".join(steps[wait[0]])
            yield (
                f"{where}.step",
                say(
                    "that dish has no step “{wait}”; use {known}",
                    wait=wait[1][:40],
                    known=known,
                ),
            )


def _circles(request: PlanRequest) -> Iterator[Wrong]:
    """Each wait that leads back to its own step, by what comes before it."""
    before: dict[Key, list[Key]] = {}
    for dish in request.dishes:
        for last, following in pairwise(dish.steps):
            before.setdefault((dish.id, following.id), []).append((dish.id, last.id))
    waits = list(_waits(request))
    for _, dish_id, step_id, _, wait in waits:
        before.setdefault((dish_id, step_id), []).append(wait)
    names = {dish.id: dish.name or dish.id for dish in request.dishes}
    for path, dish_id, step_id, k, wait in waits:
        way = way_back(wait, (dish_id, step_id), before)
        if way:
            what = say(
                "this goes in a circle: {circle}; one of them has to begin without the other",
                circle=circle_of([names[dish] for dish, _ in ((dish_id, step_id), *way)]),
            )
            yield f"{path}.after.{k}", what


def way_back(begin: Key, end: Key, before: Mapping[Key, Sequence[Key]]) -> list[Key]:
    """Find the way from one step back to another, over the steps right before each.

    Parameters: begin and end, a dish and its step; before, the steps right before each.
    Returns: the steps from begin to end; an empty list where there is no way.
    """
    seen, left = set[Key](), [[begin]]
    while left:
        way = left.pop()
        if way[-1] == end:
            return way
        if way[-1] not in seen:
            seen.add(way[-1])
            left += [[*way, key] for key in before.get(way[-1], ())]
    return []


def circle_of(dishes: Sequence[str]) -> str:
    """Which dish waits for which, in words.

    Parameters: dishes, their names in the order of waiting, a name once or more in a row.
    """
    named = [name for name, _ in groupby(dishes)]
    waits = (say("{one} waits for {next}", one=one, next=after) for one, after in pairwise(named))
    return joined(", ", waits)


def _waits(request: PlanRequest) -> Iterator[tuple[str, str, str, int, Key]]:
    for i, dish in enumerate(request.dishes):
        for j, step in enumerate(dish.steps):
            for k, after in enumerate(step.after):
                path = f"dishes.{i}.steps.{j}"
                yield path, dish.id, step.id, k, (after.dish, after.step)
