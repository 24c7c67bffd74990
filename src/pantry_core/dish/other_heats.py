"""Other temperatures of the oven that a dish can take, with its hours there."""

from dataclasses import replace
from functools import lru_cache
from typing import Final

from pantry_core.dish.answer import DishStep
from pantry_core.dish.request import DishRequest
from pantry_core.plan.request import OtherHeat
from pantry_core.routes.heating import FORETOLD, Cooking, NeverDone, timed

APART_C: Final = (-50.0, -25.0, 25.0, 50.0)
"""Other temperatures are so far from the dish's own [°C] (our own choice)."""
LEAST_C: Final = 120.0
MOST_C: Final = 230.0
"""Between these a roast is put to another heat [°C] (common practice)."""
TO_C: Final = 5.0
"""An oven is set to so much [°C]."""
LONGER_H: Final = 0.25
"""A stage is given so much more than it is planned for, at the least [h]."""


def with_other_heats(
    steps: tuple[DishStep, ...], cooking: Cooking, asked: DishRequest
) -> tuple[DishStep, ...]:
    """The steps, those in the oven with the other temperatures that they can take.

    Hours that the cook set himself hold at his own temperature alone.

    Parameters: steps; cooking, the way of the dish; asked, with the cook's edits.
    Returns: the same steps, `heats` of them filled in [°C, h].
    Source: hours by the model of `heat.through`.
    """
    timed_by_cook = {edit.step for edit in asked.edits if edit.min_h or edit.prefer_h or edit.max_h}
    stages = {stage.id for stage in cooking.stages if stage.ends in FORETOLD}
    return tuple(
        replace(step, heats=_others(step.id, step.heat_c, cooking))
        if step.heat_c is not None and step.id in stages - timed_by_cook
        else step
        for step in steps
    )


@lru_cache(maxsize=512)
def _others(stage_id: str, own_c: float, cooking: Cooking) -> tuple[OtherHeat, ...]:
    """The other temperatures of a stage, kept: a dish is worked out at every keystroke."""
    nearby = (TO_C * round((own_c + apart_c) / TO_C) for apart_c in APART_C)
    there = (_at(stage_id, heat_c, cooking) for heat_c in nearby if LEAST_C <= heat_c <= MOST_C)
    return tuple(other for other in there if other is not None)


def _at(stage_id: str, heat_c: float, cooking: Cooking) -> OtherHeat | None:
    """A stage at another temperature; None where it is never done there."""
    other = replace(cooking, edited=(*cooking.edited, (stage_id, None, heat_c)))
    try:
        stage = next(each for each in timed(other) if each.stage.id == stage_id)
    except NeverDone:
        return None
    hours = stage.planned
    most = max(stage.high, hours + LONGER_H)
    return OtherHeat(heat_c=heat_c, min_h=hours, prefer_h=hours, max_h=most)
