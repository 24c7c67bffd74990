"""The cook's recipe as a part of a dish: its lines as they were written."""

from typing import Annotated, Literal

from pydantic import Field

from pantry_core.document import PLAIN_LINE, PLAIN_TEXT, Document
from pantry_core.measures.units import AnyUnit
from pantry_core.meat import MOST_MEAT_G
from pantry_core.mixes.recipe import LONGEST_NAME, MOST_AMOUNT, MOST_LINES
from pantry_core.mixes.request import MOST_WATER_G, Percent
from pantry_core.recipes.read import LONGEST_TEXT
from pantry_core.recipes.words import Cups

Goes = Literal["cure", "pot", "coat", "stuffing", "sauce", "table"]
WITH_THE_PIECE: tuple[Goes, ...] = ("cure", "coat", "stuffing")
"""Parts that grow with the piece; the others grow with the people."""
Share = Annotated[float, Field(ge=0, le=1)]
Basis = Annotated[float, Field(gt=0, le=MOST_WATER_G)]


class Strength(Document):
    """What a label says of a curing salt [%]."""

    nitrite_pct: Percent | None = None
    nitrate_pct: Percent | None = None


class RecipeLineAsked(Document):
    """A line of the recipe: as it was typed, and what was read from it.

    `name` is an ingredient's key or, of what is not known, its words; `strength` and `salt_pct` are
    what a label says [%]; `per_mass_g` the meat and `per_water_g` the water that the amount is for
    [g]; `goes` the part of the recipe; `held_back` the share that is kept for the pot [-]; `grams`
    what the cook decided to weigh instead, for this piece [g]; `instead_of` what the recipe has,
    where something else is used for it.
    """

    text: Annotated[str, Field(max_length=400), PLAIN_TEXT] = ""
    name: Annotated[str, Field(min_length=1, max_length=LONGEST_NAME), PLAIN_LINE]
    amount: Annotated[float, Field(ge=0, le=MOST_AMOUNT)] | None = None
    unit: AnyUnit | None = None
    strength: Strength = Strength()
    salt_pct: Percent | None = None
    per_mass_g: Basis | None = None
    per_water_g: Basis | None = None
    goes: Goes = "cure"
    held_back: Share = 0.0
    grams: Annotated[float, Field(ge=0, le=MOST_WATER_G)] | None = None
    instead_of: Annotated[str, Field(max_length=LONGEST_NAME), PLAIN_LINE] | None = None


class RecipeAsked(Document):
    """The recipe as the cook has it; `text` is kept as it was typed.

    `for_g` is the piece that it was written for [g], None: this one; `for_people` the same of
    people; `used_share` what of the liquid is used [-]; `liquid_to_pot` what of the used liquid
    goes into the pot [-].
    """

    text: Annotated[str, Field(max_length=LONGEST_TEXT), PLAIN_TEXT] = ""
    cups: Cups = "us"
    for_g: Annotated[float, Field(gt=0, le=MOST_MEAT_G)] | None = None
    for_people: Annotated[int, Field(ge=1, le=500)] | None = None
    used_share: Annotated[float, Field(gt=0, le=1)] = 1.0
    liquid_to_pot: Share = 0.0
    lines: Annotated[
        tuple[RecipeLineAsked, ...], Field(strict=False, min_length=1, max_length=MOST_LINES)
    ]
