"""What is said of a piece that is seasoned only: its average and its edge, never its heart."""

from collections.abc import Iterator

from pantry_core.mixes.judged import Judged
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.uptake import after_days
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Percent
from pantry_core.rules.rule import Mark, Rule, Source
from pantry_core.text import say

SALTY_EDGE_PCT = Rule(
    "salty-edge", 3.0, say("% salt in the outer {5 mm}"), "too salty", Mark.PRACTICE
)
_MODEL = Source("Fick's second law; Crank, The Mathematics of Diffusion", Mark.MEMORY)


def seasoned(judged: Judged) -> Iterator[Notice]:
    """What a piece comes to after the days that are asked for, where it is seasoned only."""
    request = judged.request
    if request.purpose != "season" or request.method == "marinade":
        return
    end = after_days(request, judged.mix)
    if end is not None:
        yield from seasoned_at(end.mean_pct, end.outer_pct, request)


def seasoned_at(mean_pct: float, outer_pct: float, request: WeighRequest) -> Iterator[Notice]:
    """What a seasoned piece comes to.

    Parameters: mean_pct and outer_pct, its salt on average and in the outer 5 mm [%]; request, how
    it was salted.
    Returns: what it comes to; a caution where the outside is too salty.
    """
    if outer_pct > SALTY_EDGE_PCT.value:
        pattern = "The outer {5 mm} come to {outer_pct} salt: take less, or salt it a day sooner."
        if request.heaped:
            pattern = (
                "The outer {5 mm} come to {outer_pct} salt: lift it sooner, or let it rest longer."
            )
        elif request.is_wet:
            pattern = (
                "The outer {5 mm} come to {outer_pct} salt: lift it sooner, make the "
                "brine weaker, or let it rest a day."
            )
        text = say(pattern, outer_pct=Percent(outer_pct, 1))
        yield notice("caution", "salty-edge", text, SALTY_EDGE_PCT)
    text = say(
        "It comes out with {mean_pct} salt on average and {outer_pct} in its outer "
        "{5 mm}. A guide to saltiness, never a safety claim.",
        mean_pct=Percent(mean_pct, 1),
        outer_pct=Percent(outer_pct, 1),
    )
    yield notice("note", "seasons", text, _MODEL)
