"""The cook's recipe for this piece: its lines in proportion, and the part that cures as `check`."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from pydantic import ValidationError

from pantry_core.dish.clock import WrongDish
from pantry_core.dish.piece import Prepared, treatment_of
from pantry_core.dish.recipe_asked import WITH_THE_PIECE, RecipeAsked, RecipeLineAsked
from pantry_core.dish.request import CureAsked, DishRequest
from pantry_core.foods.ingredient import is_ingredient
from pantry_core.mixes.instead import sized_packet
from pantry_core.mixes.recipe import CheckRequest, RecipeLine
from pantry_core.mixes.request import MOST_WATER_G
from pantry_core.quantities import Kilograms
from pantry_core.routes.ways import Way
from pantry_core.text import say

LEAST_COUNT: Final = 1.0
"""Eggs and the like are whole ones, and one at the least."""
BY_THE_RECIPE: Final = (
    "target_salt_pct", "water_g", "brine_salt_pct", "sugar_pct", "sauces", "spices", "ingoing_ppm",
)  # fmt: skip
"""Fields of the cure that size a mix, which the recipe does."""
_USUAL_SHARE: Final = 0.10


@dataclass(frozen=True, slots=True)
class WrittenLine:
    """A line for this piece: its place, its amount in its own unit, its grams [g] or its number.

    `as_written_g` is what it weighs in the recipe itself [g].
    """

    at: int
    asked: RecipeLineAsked
    amount: float | None
    grams: float | None
    count: float | None
    as_written_g: float | None

    @property
    def cures_share(self) -> float:
        """What of it is not held back for the pot: of what is counted whole ones [-]."""
        held_back = self.asked.held_back
        if not self.count or not self.count.is_integer():
            return 1.0 - held_back
        return (self.count - round(held_back * self.count)) / self.count


@dataclass(frozen=True, slots=True)
class Written:
    """A recipe for this piece: all of its lines, and what goes into the cure as a `check`."""

    recipe: RecipeAsked
    lines: tuple[WrittenLine, ...]
    check: CheckRequest
    at: tuple[int, ...]
    """The line of the recipe for each line of the check."""


def refuse_what_the_recipe_says(asked: DishRequest) -> None:
    """Refuse fields of the cure that would size the mix beside a recipe.

    Raises: WrongDish with all of them.
    """
    usual = CureAsked()
    said = [name for name in BY_THE_RECIPE if getattr(asked.cure, name) != getattr(usual, name)]
    what = "the recipe says how much goes in; leave this out, or leave out the recipe"
    if said:
        raise WrongDish(tuple((f"cure.{name}", what) for name in said))


def lines_for(recipe: RecipeAsked, mass_g: float, people: int | None) -> tuple[WrittenLine, ...]:
    """The lines of a recipe for a piece.

    Parameters: recipe; mass_g of the piece [g]; people at the table, None where nobody says.
    Returns: its lines; what goes into cure, coat and stuffing in proportion to the piece, the rest
    in proportion to the people; what is counted by whole ones; nothing else is changed.
    Raises: nothing. Source: mass balance (derived).
    """
    by_piece = 1.0 if recipe.for_g is None else mass_g / recipe.for_g
    by_people = 1.0
    if recipe.for_people is not None and people is not None:
        by_people = people / recipe.for_people

    def grows(line: RecipeLineAsked, water_g: float) -> float:
        if line.per_mass_g is not None:
            return mass_g / line.per_mass_g
        if line.per_water_g is not None:
            return (water_g or mass_g) / line.per_water_g
        return by_piece if line.goes in WITH_THE_PIECE else by_people

    water_g = sum(
        (written_g(line) or 0.0) * grows(line, 0.0)
        for line in recipe.lines
        if line.name in ("water", "ice") and line.per_water_g is None and line.goes == "cure"
    )
    return tuple(_for_this(at, line, grows(line, water_g)) for at, line in enumerate(recipe.lines))


def written_g(line: RecipeLineAsked) -> float | None:
    """What a line weighs as it is written, None for what is counted or pinched [g]."""
    return _weighs(line, line.amount)


def _weighs(line: RecipeLineAsked, amount: float | None) -> float | None:
    if amount is None or line.unit is None:
        return None
    return RecipeLine.model_construct(
        name=line.name, amount=amount, unit=line.unit, salt_pct=line.salt_pct
    ).grams


def _for_this(at: int, line: RecipeLineAsked, factor: float) -> WrittenLine:
    amount = None if line.amount is None else factor * line.amount
    count = None
    if line.unit == "piece" and amount is not None and line.amount:
        is_whole = float(line.amount).is_integer()
        count = amount if not is_whole else max(float(round(amount)), LEAST_COUNT)
        amount = count
    elif line.unit in ("pinch", "handful"):
        count = amount
    grams = _weighs(line, amount) if line.grams is None else line.grams
    return WrittenLine(at, line, amount, grams, count, written_g(line))


def written_for(asked: DishRequest, recipe: RecipeAsked, piece: Prepared, way: Way) -> Written:
    """A recipe for a piece and a method.

    Parameters: asked; its recipe; its piece, prepared; way.
    Returns: its lines, and those that go into the cure as a `check` document, less what is held
    back for the pot.
    Raises: WrongDish for a line that cannot be: a label that is missing, more than anybody lifts.
    """
    lines = lines_for(recipe, piece.asked.mass_g, asked.people)
    curing = [each for each in lines if each.asked.goes == "cure"]
    checked = list(_checked(curing))
    share = asked.cure.injection_share
    total_g = sum(each.grams or 0.0 for _, each in checked)
    if total_g > MOST_WATER_G:
        what = say(
            "all lines together have {total}; use at most {most}",
            total=Kilograms(total_g / 1000.0, 0),
            most=Kilograms(MOST_WATER_G / 1000.0, 0),
        )
        raise WrongDish((("recipe.lines", what),))
    check = CheckRequest.model_construct(
        profile=asked.profile,
        meat=piece.meat,
        method=way.method,
        days=None,
        treatment=treatment_of(piece),
        used_share=recipe.used_share,
        injection_share=_USUAL_SHARE if share is None else share,
        cover=way.cover,
        heaped=way.heaped,
        packet=next((each for each in asked.house.packets if sized_packet(each)), None),
        lines=tuple(line for _, line in checked),
    )
    return Written(recipe, lines, check, tuple(at for at, _ in checked))


def _checked(curing: list[WrittenLine]) -> Iterator[tuple[int, RecipeLine]]:
    """The lines of the cure as `check` takes them, each with its place in the recipe."""
    wrongs: list[tuple[str, str]] = []
    for each in curing:
        line, goes_in = each.asked, each.cures_share
        given: dict[str, object] = {"name": line.name, "salt_pct": line.salt_pct}
        if line.grams is not None:
            given |= {"amount": goes_in * line.grams, "unit": "g"}
        else:
            given |= {"amount": goes_in * (each.amount or 0.0), "unit": line.unit or "to-taste"}
        if is_ingredient(line.name):
            label = line.strength.model_dump(exclude_none=True)
            given |= label
        try:
            yield each.at, RecipeLine.model_validate(given)
        except ValidationError as error:
            wrongs += [
                (f"recipe.lines.{each.at}.{'.'.join(map(str, one['loc']))}", one["msg"])
                for one in error.errors()
            ]
    if wrongs:
        raise WrongDish(tuple(wrongs))
