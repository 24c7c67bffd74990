"""Trips: steps that start together take the hands of the longest of them, once."""

from collections import defaultdict

from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, up
from pantry_core.plan.parts import DishModel, Model

Member = tuple[int, int]
"""A step of a trip: dish of the model, counted, and its pending step."""


def trips_of(model: Model) -> dict[str, list[Member]]:
    """The steps of each trip that are to come."""
    found: dict[str, list[Member]] = defaultdict(list)
    for n, each in enumerate(model.dishes):
        for i in each.planned():
            trip = each.dish.pending[i].trip
            if trip is not None:
                found[trip].append((n, i))
    return found


def go_along(model: Model) -> dict[Member, cp_model.IntVar]:
    """For each step of a trip of several, whether it goes along with a longer one.

    Who goes along starts with one that goes for itself, and is no longer at work; the literals are
    kept in the model, for the number of trips is that of the steps that do not go along.
    """
    found: dict[Member, cp_model.IntVar] = {}
    for trip, members in trips_of(model).items():
        if len(members) == 1:
            continue
        along = {
            (n, i): model.cp.new_bool_var(f"along-{trip}-{n}-{i}") for n, i in members
        }  # fmt: skip
        for member in members:
            with_whom = [
                _with(model, member, other, along[other]) for other in members if other != member
            ]
            model.cp.add_bool_or([~along[member], *with_whom])
            for goes in with_whom:
                model.cp.add_implication(goes, along[member])
        found |= along
    model.joining = list(found.values())
    return found


def trips_needed(model: Model) -> int:
    """The fewest trips that there can be: one of each name."""
    return sum(1 for members in trips_of(model).values() if members)


def trips_made(model: Model, slots: dict[Member, int]) -> int:
    """The number of trips when the steps of trips start in these slots."""
    return sum(len({slots[each] for each in members}) for members in trips_of(model).values())


def _with(
    model: Model, member: Member, other: Member, other_goes_along: cp_model.IntVar
) -> cp_model.IntVar:
    """Whether a step goes along with another one."""
    (n, i), (m, j) = member, other
    goes = model.cp.new_bool_var(f"with-{n}-{i}-{m}-{j}")
    mine, others = model.dishes[n], model.dishes[m]
    model.cp.add(mine.bounds[i] == others.bounds[j]).only_enforce_if(goes)
    model.cp.add(_work(mine, i) <= _work(others, j)).only_enforce_if(goes)
    model.cp.add_implication(goes, ~other_goes_along)
    if others.index in model.presence:
        model.cp.add_implication(goes, model.presence[others.index])
    return goes


def _work(each: DishModel, i: int) -> cp_model.LinearExprT:
    """How long a step takes hands, in slots."""
    step = each.dish.pending[i]
    return each.sizes[i] if step.attended else up(step.hands_s) // SLOT_S
