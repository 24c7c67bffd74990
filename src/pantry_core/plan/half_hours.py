"""The last wish: starts on the half hour, as people count before the last day."""

from datetime import datetime

from ortools.sat.python import cp_model

from pantry_core.plan.parts import Model, edges
from pantry_core.plan.problem import Problem

HALF_MIN = 30


def starts_on_half_hours(model: Model, problem: Problem) -> list[cp_model.IntVar]:
    """For each step that can begin before the day of the feast, whether it does on a half hour.

    Parameters: model; problem, in whose zone the clocks are read.
    Returns: the literals; none where the hour of the feast lies between the quarters, so that no
    start can be on a half hour.
    """
    zone = problem.zone
    phase = next(
        (slot for slot in (0, 1) if not model.grid.moment(slot).astimezone(zone).minute % HALF_MIN),
        None,
    )
    if phase is None:
        return []
    last_day = datetime.combine(problem.serve_at.astimezone(zone).date(), datetime.min.time(), zone)
    midnight = model.grid.at_or_after(last_day)
    found = []
    for each in model.dishes:
        for i in each.planned():
            low, high = edges(each.bounds[i])
            if low >= midnight or low == high:
                continue
            literal = model.cp.new_bool_var(f"half-{each.index}-{i}")
            pair = model.cp.new_int_var(low // 2 - 1, high // 2 + 1, f"pair-{each.index}-{i}")
            model.cp.add(each.bounds[i] == 2 * pair + phase).only_enforce_if(literal)
            model.cp.add(each.bounds[i] < midnight).only_enforce_if(literal)
            found.append(literal)
    return found
