"""From a route to the steps of a dish, with what the cook changed of them."""

from collections.abc import Iterable, Sequence
from dataclasses import asdict

from django.forms.models import model_to_dict

from pantry_core.routes.jobs import JOBS, job_route
from pantry_core.routes.step import RouteStep
from pantry_core.rules.constants import MEAT_DENSITY
from pantry_web.feasts.holding import fridge_litres
from pantry_web.feasts.mixing import Mixed
from pantry_web.feasts.models import Dish, Step

OF_A_ROUTE = (
    "key", "kind", "title", "begin", "tend", "place", "min_h", "prefer_h", "max_h", "hands_min",
    "attended", "uses", "every_h",
)  # fmt: skip
"""What of a step is kept with a route for another time."""
ROOM_OVER_VOLUME = 1.5
"""Room in the fridge over what is in a covered bowl (common practice)."""


def laid_out(dish: Dish, mixed: Mixed) -> list[Step]:
    """The steps of a dish by its mix, not yet stored."""
    return [
        _step(dish, position, step, fridge_litres(step, mixed, dish.vessel))
        for position, step in enumerate(mixed.route.steps)
    ]


def job_laid_out(dish: Dish) -> list[Step]:
    """The steps of a side job, not yet stored."""
    litres = round(ROOM_OVER_VOLUME * dish.mass_g / MEAT_DENSITY.value / 1000.0, 1)
    return [
        _step(dish, position, step, litres if step.place == "fridge" else 1.0)
        for position, step in enumerate(job_route(JOBS[dish.job], dish.mass_g))
    ]


def with_changes(steps: Sequence[Step], before: Iterable[Step]) -> list[Step]:
    """New steps, those the cook had changed as they were changed, the cook's own ones among them.

    An own step stays behind the step it followed.
    """
    told = list(before)
    changed = {step.key: step for step in told if step.is_changed and not step.is_own}
    found = [
        _as_changed(step, changed[step.key]) if step.key in changed else step for step in steps
    ]
    for i, own in enumerate(told):
        if own.is_own:
            keys = [step.key for step in found]
            ahead = next((each.key for each in reversed(told[:i]) if each.key in keys), None)
            own.pk = None
            found.insert(keys.index(ahead) + 1 if ahead else 0, own)
    for position, step in enumerate(found):
        step.position = position
    return found


def as_route(steps: Iterable[Step]) -> list[dict[str, object]]:
    """Steps as they are kept for another time."""
    return [model_to_dict(step, fields=OF_A_ROUTE) for step in steps]


def _as_changed(step: Step, changed: Step) -> Step:
    for name in ("place", "min_h", "prefer_h", "max_h", "hands_min", "attended", "every_h",
                 "locked_start", "title"):  # fmt: skip
        setattr(step, name, getattr(changed, name))
    step.is_changed = True
    return step


def _step(dish: Dish, position: int, step: RouteStep, uses: float) -> Step:
    plain = asdict(step)
    del plain["until"]
    return Step(
        dish=dish, position=position, key=plain.pop("id"), uses=uses,
        place=plain.pop("place") or "", **plain,
    )  # fmt: skip
