"""What left the heat below its temperature or unread, and what never gets to its own."""

from collections.abc import Iterator, Sequence
from typing import Final

from pantry_core.dish.answer import DishStep
from pantry_core.dish.cooking import Cook
from pantry_core.dish.gates import JUST_AS_HOT, is_held
from pantry_core.dish.spots import coolest_spot
from pantry_core.heat.forecast import Reading
from pantry_core.heat.through import stood
from pantry_core.history.log import Happened, Log, hours_between
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius
from pantry_core.routes.heating import as_stage, start_c
from pantry_core.routes.steps import Route
from pantry_core.rules.rule import Mark, Source
from pantry_core.text import say

_PRACTICE: Final = Source("", Mark.PRACTICE)


def passed_too_soon(
    steps: Sequence[DishStep], log: Log | None, safe_c: float | None
) -> Iterator[Notice]:
    """What left the heat below what it may not be below, whatever its steps go on until.

    Parameters: steps as they are edited; log; safe_c [°C], None where it is not cooked.
    Returns: a stop below it, a caution where a temperature was to be read and nobody did.
    Raises: nothing.
    """
    cooked = [each.id for each in steps if each.kind == "cook"]
    ids = [each.id for each in steps]
    if log is None or safe_c is None or not cooked:
        return
    after = ids[ids.index(cooked[-1]) + 1 :]
    if not log.has_begun(cooked[-1]) or not any(log.has_begun(each) for each in after):
        return
    began = log.happened[0].at
    read = [
        Reading(hours_between(began, each.at), each.temperature_c)
        for each in log.happened
        if each.what == "temperature-read" and each.step in cooked
        and each.temperature_c is not None and _is_at_the_heat(each, log)
    ]  # fmt: skip
    ends = {end for each in steps if each.id in cooked for end in each.until or {}}
    is_to_be_read = "inside_c" in ends or not ends
    if not read:
        if is_to_be_read:
            text = say(
                "Nobody has read how hot it was inside: {safe_c} is what it needs.",
                safe_c=Celsius(safe_c),
            )
            yield notice("caution", "not-read", text, _PRACTICE)
        return
    read_c = coolest_spot(read) or 0.0
    if read_c < safe_c - JUST_AS_HOT and not is_held(read, safe_c):
        text = say(
            "{read_c} of {safe_c} when it was taken from the heat: back to the heat "
            "until the probe says so.",
            read_c=Celsius(read_c),
            safe_c=Celsius(safe_c),
        )
        yield notice("stop", "not-done", text, _PRACTICE)


def _is_at_the_heat(reading: Happened, log: Log) -> bool:
    ended = log.last("step-ended", reading.step)
    return ended is None or reading.at <= ended.at


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
