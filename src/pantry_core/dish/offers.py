"""All that is offered of a recipe: what its words propose, and what would help."""

from collections.abc import Callable, Iterator

from pantry_core.dish.answer import DishOut
from pantry_core.dish.beginnings import way_said
from pantry_core.dish.curing import Settled
from pantry_core.dish.piece import Prepared
from pantry_core.dish.proposals import Change, Said, changed_by, figures_of, proposals_of
from pantry_core.dish.request import DishRequest
from pantry_core.mixes.result import Proposal
from pantry_core.quantities import Celsius
from pantry_core.recipes.instructions import taken_out_c_said
from pantry_core.routes.heats import HEATS
from pantry_core.text import Sentence, say


def offers_of(
    asked: DishRequest, settled: Settled, out: DishOut, work_out: Callable[[DishRequest], DishOut]
) -> tuple[Proposal, ...]:
    """What could be changed of a dish with a recipe.

    Parameters: asked; settled, its cure; out, its answer; work_out, which answers a changed
    document.
    Returns: how the recipe's words cook it and when they take it from the heat, where neither is
    set and no stop comes of it; then what would help, as of `proposals_of`.
    Raises: nothing. Source: common practice, and as of `proposals_of`.
    """
    return (
        *_by_its_words(asked, settled.piece, out, work_out),
        *proposals_of(asked, settled, out, work_out),
    )


def _by_its_words(
    asked: DishRequest, piece: Prepared, out: DishOut, work_out: Callable[[DishRequest], DishOut]
) -> Iterator[Proposal]:
    for code, field, value, text in _said(asked, piece):
        changes: tuple[Change, ...] = ({"field": field, "value": value},)
        try:
            changed = work_out(changed_by(asked, changes))
        except ValueError:
            continue
        if not Said(changed.notices).stops - Said(out.notices).stops:
            yield Proposal(code, text, changes, figures_of(out), figures_of(changed), ())


def _said(asked: DishRequest, piece: Prepared) -> Iterator[tuple[str, str, str | float, Sentence]]:
    if asked.recipe is None:
        return
    words, heat = asked.recipe.text, asked.heat
    way = way_said(words, piece.cut, piece.form) if heat.way is None else None
    if way is not None:
        text = say("By its words it is cooked so: {way:lower}.", way=HEATS[way].name)
        yield "heat", "heat.way", way, text
    out_c = taken_out_c_said(words) if heat.take_out_c is None else None
    if out_c is not None:
        text = say("By its words it is taken out at {take_out_c}.", take_out_c=Celsius(out_c))
        yield "take-out", "heat.take_out_c", out_c, text
