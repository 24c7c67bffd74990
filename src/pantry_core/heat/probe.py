"""What a probe says that cannot be: it fell, or it is not in the meat."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Final

import numpy as np

from pantry_core.heat.body import Body
from pantry_core.heat.forecast import Reading
from pantry_core.heat.stages import Doubt, Stage
from pantry_core.heat.through import followed
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius, Hours
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

FELL_C: Final = Rule("reading-fell", 3.0, "°C", "no centre grows colder at the heat", Mark.PRACTICE)
AHEAD_C: Final = Rule(
    "reading-ahead", 10.0, "°C above the quickest that could be", "a probe in the air",
    Mark.PRACTICE,
)  # fmt: skip
_IN_THE_AIR: Final = (
    "hotter than the thickest part can be by then: is the probe in the meat, off the bone?"
)
_SLIPPED: Final = "colder than it was: the probe has slipped, or it was read in another place."
QUICKEST: Final = Doubt(diffusivity=2.5, film=2.0, drying=0.1)
"""No piece and no fire is quicker, thickness wrongly guessed included."""


def believed(
    readings: Sequence[Reading], body: Body, start_c: float, stages: Sequence[Stage]
) -> tuple[list[Reading], tuple[Notice, ...]]:
    """The readings that can be of the heart of this piece, and what is to be said of the rest.

    Parameters: readings, in any order [h, °C]; body; start_c [°C]; stages, of which the first ones
    warm it.
    Returns: those in order that are believed, and notices: readings that fell while it warmed, and
    those hotter than the heart can be by then.
    Raises: OutOfRange.
    Source: the model of `through` with the quickest piece and fire.
    """
    in_order = sorted(readings, key=lambda each: each.at_h)
    if not in_order:
        return [], ()
    most_h = in_order[-1].at_h
    quickest = followed(body, start_c, _for_so_long(stages, most_h), QUICKEST)
    kept: list[Reading] = []
    fell, ahead = [], []
    is_warming = stages[0].temperature_c > start_c
    for each in in_order:
        top_c = np.inf
        if quickest is not None and is_warming:
            top_c = float(np.interp(each.at_h, quickest.hours, quickest.heart_c)) + AHEAD_C.value
        if each.inside_c > top_c:
            ahead.append(each)
        elif is_warming and kept and each.inside_c < kept[-1].inside_c - FELL_C.value:
            fell.append(each)
        else:
            kept.append(each)
    return kept, (
        *_left_out(ahead, "probe-in-air", AHEAD_C, _IN_THE_AIR),
        *_left_out(fell, "reading-fell", FELL_C, _SLIPPED),
    )


def _for_so_long(stages: Sequence[Stage], hours: float) -> list[Stage]:
    """The first stages by their hours; the first that goes on until something takes the rest."""
    taken: list[Stage] = []
    for stage in stages:
        if stage.hours is None or stage is stages[-1]:
            return [*taken, replace(stage, until_c=None, hours=max(hours, 0.01))]
        taken.append(stage)
    return taken


def _left_out(readings: Sequence[Reading], code: str, rule: Rule, why: str) -> tuple[Notice, ...]:
    """What is said of the first of the readings that are left out."""
    if not readings:
        return ()
    first = readings[0]
    text = say(
        "{inside_c} after {at_h} is {why} It is left out.",
        inside_c=Celsius(first.inside_c, 0),
        at_h=Hours(first.at_h, 1),
        why=why,
    )
    return (notice("caution", code, text, rule),)
