"""What a step at the heat goes on until and never gets to."""

from collections.abc import Iterator, Sequence
from typing import Final

from pantry_core.dish.answer import DishStep
from pantry_core.dish.cooking import Cook
from pantry_core.heat.through import stood
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius
from pantry_core.routes.heating import as_stage, start_c
from pantry_core.routes.steps import Route
from pantry_core.rules.rule import Mark, Source
from pantry_core.text import say

_PRACTICE: Final = Source("", Mark.PRACTICE)


def never_reached(steps: Sequence[DishStep], cook: Cook, way: Route) -> Iterator[Notice]:
    """What a cook asks of a step that its oven, pot or fire never brings.

    Parameters: steps as they are edited; cook; way, its route.
    Returns: a caution for each that goes on until more than its medium gives.
    Raises: OutOfRange.
    Source: the model of `heat.through`.
    """
    by_route = {each.id: each for each in way.steps}
    stages = {each.stage.id: each.stage for each in way.stages if each.stage.medium}
    for step in steps:
        goal_c = (step.until or {}).get("inside_c")
        stage, usual = stages.get(step.id), by_route.get(step.id)
        if goal_c is None or stage is None or (usual and usual.until == step.until):
            continue
        comes_to = stood(cook.cooking.body, start_c(cook.cooking), (), as_stage(stage, until_c=100))
        if comes_to < goal_c:
            text = say(
                "{step} at {medium_c} brings it to {comes_to} and never to {goal_c}: make it "
                "hotter, or ask for less inside.",
                step=step.title,
                medium_c=Celsius(stage.medium_c),
                comes_to=Celsius(comes_to, 0),
                goal_c=Celsius(goal_c),
            )
            yield notice("caution", "never-reached", text, _PRACTICE)
