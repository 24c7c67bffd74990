"""What is said where a dish is reckoned with what its kitchen has learnt."""

from collections.abc import Iterator

from pantry_core.dish.curing import Settled
from pantry_core.dish.request import DishRequest
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Percent
from pantry_core.routes.steps import Route
from pantry_core.rules.rule import Mark, Source
from pantry_core.text import say

OWN = Source("what this kitchen has cooked and tasted", Mark.DERIVED)


def of_the_learnt(asked: DishRequest, settled: Settled, way: Route) -> Iterator[Notice]:
    """What of a dish is reckoned with figures of the kitchen's own.

    Parameters: asked; settled; way, its route.
    Returns: a note for each figure that is used.
    Raises: nothing.
    """
    learnt = asked.house.learnt
    meat, usual_pct = settled.piece.meat, settled.request.target_salt_pct / learnt.salt_liking
    is_limit = meat.will_be == "raw" or meat.is_kept_smoked
    is_aimed = asked.cure.target_salt_pct is None and settled.written is None
    is_usual = is_aimed and settled.way is not None and usual_pct > 0
    if learnt.salt_liking != 1.0 and is_usual and not is_limit:
        text = say(
            "Salted to {pct} as this kitchen likes it; {usual} is usual.",
            pct=Percent(settled.request.target_salt_pct, 1),
            usual=Percent(usual_pct, 1),
        )
        yield notice("note", "learnt-liking", text, OWN)
    if meat.salt_speed != 1.0 and settled.purpose == "through":
        text = say(
            "Salt goes in {percent} as fast as usual in this kitchen, and the wait allows for it.",
            percent=Percent(100.0 * meat.salt_speed, 0),
        )
        yield notice("note", "learnt-speed", text, OWN)
    for place in dict.fromkeys(each.stage.place for each in way.stages if each.pace != 1.0):
        more_pct = 100.0 * (learnt.hours[place] - 1.0)
        text = say(
            "Your {place} takes {percent} longer than usual."
            if more_pct >= 0
            else "Your {place} is {percent} quicker than usual.",
            place=place,
            percent=Percent(abs(more_pct), 0),
        )
        yield notice("note", "learnt-hours", text, OWN)
