"""The mix of a dish by its recipe, line by line, with what could be changed."""

from collections.abc import Iterator
from dataclasses import dataclass

from django.utils.translation import gettext_lazy as _

from pantry_core.dish.answer import DishOut, MixLine
from pantry_core.dish.offers import offers_of
from pantry_core.dish.recipe_asked import RecipeAsked
from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import Worked, worked
from pantry_core.foods.ingredient import ingredient, is_ingredient
from pantry_core.mixes.result import Proposal
from pantry_core.rules.ingredients import LOOSE
from pantry_web.feasts.line_labels import label_with

PARTS = {
    "cure": _("in the mix"),
    "pot": _("into the pot"),
    "coat": _("for the coat"),
    "stuffing": _("for the stuffing"),
    "sauce": _("for the sauce"),
    "table": _("at the table"),
}
"""The parts of a recipe, as a cook says them."""


@dataclass(frozen=True, slots=True)
class RecipeLine:
    """A line as it is shown: what goes in, its step, and whether the cook changed it.

    `is_changed`: it weighs something else than the recipe has; `is_added`: the recipe has no such
    line.
    """

    at: int | None
    text: str
    name: str
    label: str
    grams: float | None
    count: float | None
    unit: str
    goes: str
    step: str
    is_changed: bool
    is_added: bool
    written_g: float | None = None

    @property
    def says_how_much(self) -> bool:
        """Whether its label is the recipe's own line, with its amount."""
        return self.name in LOOSE

    @property
    def part(self) -> str:
        """Where it goes, in words; "" for the cure."""
        return "" if self.goes == "cure" else str(PARTS[self.goes])


@dataclass(frozen=True, slots=True)
class RecipeMix:
    """All lines of a recipe for this piece, and what could be changed of it."""

    lines: tuple[RecipeLine, ...]
    proposals: tuple[Proposal, ...]
    times: float | None

    @property
    def is_scaled(self) -> bool:
        """Whether it was written for another weight."""
        return self.times is not None and abs(self.times - 1.0) > 1e-6


def shown_mix(found: Worked) -> RecipeMix | None:
    """The mix of a dish that has a recipe, with proposals; None without one.

    Parameters: found, the dish worked out.
    """
    recipe, piece = found.asked.recipe, found.asked.piece
    if recipe is None or piece is None:
        return None
    proposals = offers_of(found.asked, found.settled, found.out, lambda other: worked(other).out)
    times = None if recipe.for_g is None else piece.mass_g / recipe.for_g
    return RecipeMix(tuple(lines_of(recipe, found.out)), proposals, times)


def mix_of_a_job(asked: DishRequest, out: DishOut) -> RecipeMix | None:
    """The mix of a side job that has a recipe; None without one.

    Parameters: asked; out, its answer.
    """
    if asked.job is None or asked.job.recipe is None:
        return None
    recipe = asked.job.recipe
    times = None if recipe.for_g is None else asked.job.made_g / recipe.for_g
    return RecipeMix(tuple(lines_of(recipe, out)), (), times)


def lines_of(recipe: RecipeAsked, out: DishOut) -> Iterator[RecipeLine]:
    """The lines of a recipe as they are shown.

    Parameters: recipe; out, the answer of its dish.
    """
    titles = {step.id: step.title for step in out.steps}
    for each in out.mix:
        asked = None if each.line is None else recipe.lines[each.line]
        yield RecipeLine(
            at=each.line,
            text="" if each.name in LOOSE else each.text,
            name=each.name,
            label=_label(each),
            grams=each.grams if each.count is None else None,
            count=each.count,
            unit=each.unit or "",
            goes=each.goes,
            step=titles.get(each.step or "", ""),
            is_changed=asked is not None
            and (asked.grams is not None or asked.instead_of is not None),
            is_added=asked is not None and not asked.text,
            written_g=_would_weigh(each, out, recipe),
        )


def _would_weigh(line: MixLine, out: DishOut, recipe: RecipeAsked) -> float | None:
    """What a line would weigh for the piece as it is written [g]."""
    if line.as_written_g is None or recipe.for_g is None or out.asked is None:
        return line.as_written_g
    return line.as_written_g * out.asked.meat.mass_g / recipe.for_g


def _label(line: MixLine) -> str:
    """Its name; of any other spice the words of the recipe."""
    if line.name in LOOSE and line.text:
        return line.text
    return ingredient(line.name).name if is_ingredient(line.name) else label_with(line.name, None)
