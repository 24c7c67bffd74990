"""The `read` document: a recipe as people write it, and what each of its lines means."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from pydantic import Field

from pantry_core.document import Document
from pantry_core.measures.units import RecipeUnit
from pantry_core.recipes.found import MOST_LINES, factor, read_lines
from pantry_core.recipes.line import ReadLine
from pantry_core.recipes.lines import LONGEST_LINE
from pantry_core.recipes.words import Cups

MOST_MEAT_G = 100_000.0
LONGEST_TEXT = MOST_LINES * LONGEST_LINE


class ReadRequest(Document):
    """A recipe's text, whose cups it means, and the piece that it is to be used for [g]."""

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    text: Annotated[str, Field(max_length=LONGEST_TEXT)]
    cups: Cups = "us"
    meat_g: Annotated[float, Field(gt=0, le=MOST_MEAT_G)] | None = None


@dataclass(frozen=True, slots=True)
class Choice:
    """What a line may be: the name of an ingredient, and the unit of its amount."""

    name: str
    unit: RecipeUnit | None


@dataclass(frozen=True, slots=True)
class Ask:
    """What has to be answered, and what there is to choose from."""

    what: str
    choices: tuple[Choice, ...]


@dataclass(frozen=True, slots=True)
class TextLine:
    """A thing of the recipe: a line of `check` once nothing is asked of it any more.

    `strength` is what its label says in the text [%]; `held_back` the share that is kept for the
    pot [-]; `per_mass_g` the meat, `per_water_g` the water that its amount is for [g], None for the
    whole recipe; `factor` by how much it grows for the piece, where that is known [-].
    """

    text: str
    name: str | None
    amount: float | None
    unit: RecipeUnit | None
    strength: dict[str, float] = field(default_factory=dict)
    held_back: float = 0.0
    per_mass_g: float | None = None
    per_water_g: float | None = None
    factor: float | None = None
    ask: Ask | None = None


@dataclass(frozen=True, slots=True)
class ReadOut:
    """The things of a recipe in order, and the days that it says, None where it says none."""

    lines: tuple[TextLine, ...]
    days: float | None
    format: Literal["pantry-clock/1"] = "pantry-clock/1"


def read(request: ReadRequest) -> ReadOut:
    """Read a recipe as people write it, in English, French, German, Spanish or Italian.

    Parameters: request; its fields carry their units and ranges.
    Returns: its things in order; a line that holds two gives two, a heading, a remark and the meat
    give none. What was not understood, and what could hurt when it was guessed wrong (curing salt,
    salt of unknown kind by the spoon, a mix that may hold salt), is asked about and has no name. A
    range gives its middle, of a curing salt its upper end.
    Raises: NotARecipe for more than 120 lines.
    Source: sizes by definition.

    >>> out = read(ReadRequest(text="2 qt water, 1 cup salt, leave 5 days"))
    >>> [(line.name, line.amount, line.unit, line.ask is not None) for line in out.lines]
    [('water', 2.0, 'us-quart', False), (None, 1.0, 'us-cup', True)]
    >>> out.days
    5.0
    """
    found = read_lines(request.text, request.cups)
    things = tuple(_thing(each, request.meat_g) for each in found if not _holds_nothing(each))
    return ReadOut(things, next((each.days for each in found if each.days is not None), None))


def _holds_nothing(line: ReadLine) -> bool:
    return line.is_heading and not line.asks


def _thing(line: ReadLine, meat_g: float | None) -> TextLine:
    ask = None
    if line.asks:
        ask = Ask(line.asks, tuple(Choice(name, line.unit) for name in line.keys))
    per = line.per
    is_meat = per is not None and per.of == "meat"
    grows = None
    if meat_g is not None and (per is None or is_meat):
        grows = factor(per, meat_g, None)
    return TextLine(
        text=line.text,
        name=None if ask else line.name,
        amount=line.amount,
        unit=line.unit,
        strength=line.strength,
        held_back=line.held_back,
        per_mass_g=per.grams if per is not None and is_meat else None,
        per_water_g=per.grams if per is not None and not is_meat else None,
        factor=grows,
        ask=ask,
    )
