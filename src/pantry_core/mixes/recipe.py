"""A recipe as it was found: the `check` document, and what its lines weigh."""

from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, field_validator, model_validator

from pantry_core.document import PLAIN_LINE, Document, wrong
from pantry_core.foods.ingredient import ingredient, is_ingredient
from pantry_core.measures.units import RECIPE_GRAMS, RECIPE_ML, AnyUnit
from pantry_core.meat import Meat
from pantry_core.mixes.mix import Mix
from pantry_core.mixes.request import (
    DRY,
    MOST_WATER_G,
    Cure,
    Days,
    InjectionShare,
    Method,
    Percent,
    Purpose,
    Sauce,
    Treatments,
    storage_is_the_meats,
)
from pantry_core.quantities import Kilograms
from pantry_core.rules.cures import CURE_KEYS, CureName
from pantry_core.rules.ingredients import Ingredient, Role
from pantry_core.rules.profiles import ProfileName
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

MOST_LINES = 200
MOST_AMOUNT = 1e6
LONGEST_NAME = 80
_LIKE_WATER = Rule(
    "unknown-by-volume", 1.0, "g/ml", "what is not known, as if it were water", Mark.PRACTICE
)


def ingredient_named(name: str, salt_pct: float | None = None) -> Ingredient:
    """What a line of a recipe is, by its name.

    Parameters: name, a key of an ingredient, or the words of what is not known; salt_pct, what is
    said of the salt of what is not known [%].
    Returns: the ingredient; what is not known counts as a sauce where it has salt, else as a
    spice, and a millilitre of it as a gram.
    Raises: nothing. Source: common practice.

    >>> ingredient_named("pixie dust").role, ingredient_named("pixie dust", 12.0).role
    ('spice', 'sauce')
    """
    if is_ingredient(name):
        return ingredient(name)
    return Ingredient(name, name, "sauce" if salt_pct else "spice", _LIKE_WATER)


class RecipeLine(Document):
    """One line: an ingredient, an amount, a unit; its own label where it has one [%]."""

    name: Annotated[str, Field(min_length=1, max_length=LONGEST_NAME), PLAIN_LINE]
    amount: Annotated[float, Field(ge=0, le=MOST_AMOUNT)]
    unit: AnyUnit
    nitrite_pct: Percent | None = None
    nitrate_pct: Percent | None = None
    salt_pct: Annotated[Percent | None, Field(validate_default=True)] = None

    @field_validator("nitrite_pct", "nitrate_pct", "salt_pct")
    @classmethod
    def _has_such_a_label(cls, given: float | None, info: ValidationInfo) -> float | None:
        name = info.data.get("name")
        if not name or not is_ingredient(name):
            return given
        is_salt = info.field_name == "salt_pct"
        roles: tuple[Role, ...] = ("sauce",) if is_salt else ("cure",)
        is_salt_of_celery = is_salt and name == "celery-powder"
        if given is not None and ingredient(name).role not in roles:
            what = "sauces and celery powder" if is_salt else "curing salts"
            if not is_salt_of_celery:
                raise wrong(
                    "label",
                    say("only {what} have a label like this; {name} is none", what=what, name=name),
                )
        if given is None and is_salt and ingredient(name).needs_label:
            raise wrong("label", "how salty is it? give its salt_pct from the label")
        return given

    @property
    def ingredient(self) -> Ingredient:
        """What it is."""
        return ingredient_named(self.name, self.salt_pct)

    @property
    def is_by_volume(self) -> bool:
        """Whether it is measured by spoon, cup or jug."""
        return self.unit in RECIPE_ML

    @property
    def grams(self) -> float | None:
        """Its mass, None for what is counted and nobody knows the weight of [g]."""
        if self.unit in RECIPE_GRAMS:
            return self.amount * RECIPE_GRAMS[self.unit]
        if self.unit in RECIPE_ML and self.ingredient.g_per_ml is not None:
            return self.amount * RECIPE_ML[self.unit] * self.ingredient.g_per_ml.value
        if self.unit == "piece" and self.ingredient.g_per_piece is not None:
            return self.amount * self.ingredient.g_per_piece.value
        return None

    @property
    def cure(self) -> Cure | None:
        """The curing salt that it is, with its label."""
        if self.ingredient.cure is None:
            return None
        return Cure.model_construct(
            name=self.ingredient.cure,
            ingoing_ppm=0.0,
            nitrite_pct=self.nitrite_pct,
            nitrate_pct=self.nitrate_pct,
            salt_pct=self.salt_pct,
        )


class Packet(Document):
    """The curing salt that the cook has, with what its label says of it [%]."""

    name: CureName
    nitrite_pct: Percent | None = None
    nitrate_pct: Percent | None = None

    @field_validator("name", mode="before")
    @classmethod
    def _by_either_name(cls, name: object) -> object:
        """The name of the curing salt itself, or that of its line in a recipe."""
        return next((cure for cure, key in CURE_KEYS.items() if key == name), name)


class CheckRequest(Document):
    """A recipe and the piece that it is to be used for; `days` in the cure [d]."""

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    profile: ProfileName
    meat: Meat
    method: Method
    days: Days | None = None
    treatment: Treatments = ()
    purpose: Purpose | None = None
    used_share: Annotated[float, Field(gt=0, le=1)] = 1.0
    injection_share: InjectionShare = 0.10
    cover: bool = True
    heaped: bool = False
    packet: Packet | None = None
    lines: Annotated[
        tuple[RecipeLine, ...], Field(strict=False, min_length=1, max_length=MOST_LINES)
    ]

    _storage = model_validator(mode="before")(storage_is_the_meats)

    @field_validator("lines")
    @classmethod
    def _can_be_lifted(cls, lines: tuple[RecipeLine, ...]) -> tuple[RecipeLine, ...]:
        total_g = sum(line.grams or 0.0 for line in lines)
        if total_g > MOST_WATER_G:
            raise wrong(
                "too_much",
                say(
                    "all lines together have {total}; use at most {most}",
                    total=Kilograms(total_g / 1000.0, 0),
                    most=Kilograms(MOST_WATER_G / 1000.0, 0),
                ),
            )
        return lines

    @field_validator("heaped")
    @classmethod
    def _heaped_is_dry(cls, heaped: bool, info: ValidationInfo) -> bool:  # noqa: FBT001 - Pydantic calls it so
        if heaped and info.data.get("method") not in ("dry-cure", None):
            raise wrong("not_dry", "only a dry cure is heaped; leave heaped out")
        return heaped

    @property
    def is_dry(self) -> bool:
        """Whether it goes on dry: then there is no liquid of which a share could be used."""
        return self.method in DRY

    def total_g(self, role: Role) -> float:
        """Mass of all lines that play a role, as written [g]."""
        return sum(line.grams or 0.0 for line in self.lines if line.ingredient.role == role)

    def cures(self) -> tuple[tuple[Cure, float], ...]:
        """Its curing salts and their masses, as written [g]; of a pinch nobody knows the mass."""
        return tuple((line.cure, line.grams) for line in self.lines if line.cure and line.grams)

    @property
    def has_unweighed_cure(self) -> bool:
        """Whether a curing salt is in it whose mass nobody knows."""
        return any(line.cure and line.amount and line.grams is None for line in self.lines)

    def mix(self, share: float) -> Mix:
        """Its masses, of so large a share of all [g].

        What is nitrite and nitrate stands as curing salt without salt, for there may be several.
        """
        cures = self.cures()
        salt_g = sum(cure.salt_share * grams for cure, grams in cures)
        all_cures_g = sum(grams for _, grams in cures)
        return Mix(
            water=share * self.total_g("water"),
            plain_salt=share * (self.total_g("salt") + salt_g),
            curing_salt=share * (all_cures_g - salt_g),
            sugar=share * self.total_g("sugar"),
            salt_too_much=0.0,
            sauces=tuple(
                Sauce.model_construct(
                    name=line.name, mass_g=share * line.grams, salt_pct=line.salt_pct
                )
                for line in self.lines
                if line.ingredient.role == "sauce" and line.grams
            ),
            cure=None,
        )
