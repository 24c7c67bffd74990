"""What could still be made of a piece by the hour of a feast, beside what is planned already."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from pydantic import ValidationError

from pantry_core.errors import OutOfRange
from pantry_core.plan.problem import Problem, resolve
from pantry_core.plan.request import DishRequest, PlanRequest
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.ways import WAYS, Way
from pantry_web.feasts.laying import laid_out
from pantry_web.feasts.mixing import Mix, work_out
from pantry_web.feasts.models import Dish
from pantry_web.feasts.planning import FeastOutlook, plan_request, step_request
from pantry_web.feasts.state import StepFacts

NEW = "new"


@dataclass(frozen=True, slots=True)
class Still:
    """A method, whether it would be done in time, why not, and when it would have to begin."""

    way: Way
    can: bool
    why: str
    begin_by: datetime | None = None


def what_still(whole: FeastOutlook, cut_id: str, piece: dict[str, Any]) -> list[Still]:
    """Every method that goes with a cut, yes or no, with the reason.

    Dishes that cannot be done together as it is are left aside.

    Parameters: whole; cut_id; piece, mass_g [g], thickness_mm [mm] and is_frozen of the piece.
    """
    from pantry_core.plan.solve import is_possible  # noqa: PLC0415 - the solver is slow to import
    from pantry_core.plan.why import explain  # noqa: PLC0415

    told = []
    is_vegetable = CUTS[cut_id].kind == "vegetable"
    for way in WAYS.values():
        if is_vegetable != (way.group == "Side"):
            continue
        found = _asked(whole, cut_id, piece, way)
        if isinstance(found, str):
            told.append(Still(way, can=False, why=found))
        elif is_possible(found):
            told.append(Still(way, can=True, why=way.gives_up, begin_by=_begin_by(found)))
        else:
            why = " ".join(each.text for each in explain(found).why)
            told.append(Still(way, can=False, why=why))
    return sorted(told, key=lambda each: not each.can)


def _begin_by(problem: Problem) -> datetime:
    """The latest hour for the first step by its own windows alone."""
    dish = problem.dishes[-1]
    least_s = sum(step.min_s for step in dish.pending)
    return datetime.fromtimestamp(dish.serve_at.timestamp() - least_s, problem.zone)


def _asked(whole: FeastOutlook, cut_id: str, piece: dict[str, Any], way: Way) -> Problem | str:
    """The feast with the piece made this way, or what stops it."""
    mix = Mix(
        cut=cut_id, bone_share=CUTS[cut_id].bone_share, method=way.id,
        target_salt_pct=way.usual_salt_pct, water_g=piece["mass_g"] if way.has_water else None,
        **piece,
    )  # fmt: skip
    try:
        mixed = work_out(mix, whole.house)
    except (ValidationError, OutOfRange):
        return "The numbers lie outside what the rules know."
    if mixed.stops:
        return mixed.stops[0].text
    dish = Dish(name="This piece", **piece)
    steps = tuple(step_request(step, StepFacts()) for step in _without_hold(laid_out(dish, mixed)))
    request = plan_request(whole, hold=False)
    others = request.dishes if whole.plan and whole.plan.steps else ()
    new = DishRequest(id=NEW, name="this piece", steps=steps)
    asked: PlanRequest = request.model_copy(update={"dishes": (*others, new)})
    return resolve(asked)


def _without_hold(steps: list[Any]) -> Iterator[Any]:
    return (step for step in steps if step.kind != "hold")
