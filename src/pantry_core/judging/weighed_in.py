"""What was weighed is what is in: nitrite and salt by the piece that really went in."""

from collections.abc import Iterator

from pantry_core.judging.case import Case
from pantry_core.mixes.counting import Spread, counted
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Grams, Ppm
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

OTHER_PIECE = Rule(
    "other-piece", 0.03, "of its weight, either way", "less is what trimming and scales do",
    Mark.PRACTICE,
)  # fmt: skip


def nitrite_in(case: Case) -> float | None:
    """The count of nitrite that governs, by the piece that went in [mg/kg].

    Parameters: case.
    Returns: the count with the masses of the sheet and the piece as it was put in; None where that
    is as it was weighed out, within 3 %.
    Raises: OutOfRange. Source: FSIS Directive 7620.3 (from memory).
    """
    judged, request = case.judged, case.judged.request
    went_in_g = case.history.went_in_g
    meat = request.meat
    if went_in_g is None or not case.has_mix:
        return None
    if abs(went_in_g / meat.mass_g - 1.0) <= OTHER_PIECE.value:
        return None
    active_g = sum((cure.nitrite_share or 0.0) * grams for cure, grams in judged.cures)
    has_pickle = judged.mix.pickle > 0
    needle = request.needle if has_pickle else None
    spread = Spread(
        went_in_g * (1.0 - meat.bone_share),
        judged.mix.pickle,
        is_brine=request.is_brine and has_pickle,
        needle=None if needle is None else needle * meat.mass_g / went_in_g,
        is_ground=request.is_mixed_in,
    )
    return counted(active_g, spread).governing


def weighed_in(case: Case) -> Iterator[Notice]:
    """The nitrite of a piece that is not the one that was weighed out for."""
    ppm, went_in_g = nitrite_in(case), case.history.went_in_g
    if ppm is None or went_in_g is None:
        return
    meat, limits = case.meat, case.judged.limits
    if round(ppm, 1) > limits.most.value:
        text = say(
            "The cure was weighed for {wanted}, and {went_in} went in: {ppm} of nitrite, {most} is "
            "the most. Lift it out, rinse it, throw this mix away and weigh one for {went_in}.",
            wanted=Grams(meat.mass_g, 0),
            went_in=Grams(went_in_g, 0),
            ppm=Ppm(ppm, 0),
            most=Ppm(limits.most.value),
        )
        yield notice("stop", "nitrite-over", text, limits.most)
        return
    text = say(
        "The cure was weighed for {wanted}, and {went_in} went in: it comes out saltier or milder "
        "than the sheet says.",
        wanted=Grams(meat.mass_g, 0),
        went_in=Grams(went_in_g, 0),
    )
    yield notice("caution", "other-piece", text, OTHER_PIECE)
