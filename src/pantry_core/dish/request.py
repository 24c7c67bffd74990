"""A dish as the cook has it: the `dish` document."""

from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, field_validator, model_validator

from pantry_core import quantities
from pantry_core.dish.house_asked import HouseAsked
from pantry_core.dish.recipe_asked import RecipeAsked
from pantry_core.document import PLAIN_LINE, PLAIN_TEXT, Document, wrong
from pantry_core.heat.media import MEDIA, MediumName, medium_range
from pantry_core.judging.side_jobs import Keeps
from pantry_core.meat import (
    MOST_BONE_SHARE,
    MOST_MEAT_G,
    MOST_PIECES,
    MOST_SODIUM_MG,
    MOST_THICKNESS_MM,
    NEVER_CURED,
    Treatment,
)
from pantry_core.mixes.request import (
    MOST_SALT_PCT,
    MOST_SAUCES,
    MOST_SUGAR_PCT,
    MOST_WATER_G,
    Days,
    InjectionShare,
    Percent,
    Purpose,
    Sauce,
)
from pantry_core.plan.request import MOST_AFTER, After, Hours, StepRequest
from pantry_core.recipes.lengths import LengthWindow, NotALength, length_said
from pantry_core.routes.customs import CUSTOMS
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.heats import HeatName
from pantry_core.routes.jobs import MOST_MADE_G
from pantry_core.routes.schools import SchoolName
from pantry_core.routes.ways import WayName
from pantry_core.rules.cures import CureName
from pantry_core.rules.profiles import ProfileName
from pantry_core.text import either, say

MOST_EDITS, MOST_FACTS, MOST_LINES, MOST_STEPS = 240, 2000, 60, 240

Form = Literal[
    "whole", "flat", "halves", "pieces", "cubes", "strips", "slices", "ground", "rolled", "stuffed",
]  # fmt: skip
Method = WayName | Literal["none"]
Name = Annotated[str, Field(min_length=1, max_length=80), PLAIN_LINE]
Text = Annotated[str, Field(max_length=400), PLAIN_TEXT]
StepId = Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]
Grams = Annotated[float, Field(gt=0, le=MOST_MEAT_G)]


class Bought(Document):
    """How the piece was bought."""

    vacuum: bool = False


class Piece(Document):
    """The piece as it was prepared: mass_g of it all [g], thickness_mm of one piece [mm]."""

    cut: str
    mass_g: Grams
    form: Form | None = None
    count: Annotated[int, Field(ge=1, le=MOST_PIECES)] = 1
    thickness_mm: Annotated[float, Field(gt=0, le=400)] | None = None
    bone_share: Annotated[float, Field(ge=0, le=MOST_BONE_SHARE)] | None = None
    skin: bool | None = None
    frozen: bool = False
    wild: Literal["deer", "other"] | None = None
    treatment: Annotated[tuple[Treatment, ...], Field(strict=False, max_length=6)] = ()
    sodium_mg: Annotated[float, Field(ge=0, le=MOST_SODIUM_MG)] | None = None
    will_be: Literal["bacon", "corned", "raw", "smoked"] | None = None
    storage: Literal["meal", "air", "vacuum"] = "meal"
    bought: Bought = Bought()
    purchase: Name | None = None

    @field_validator("cut")
    @classmethod
    def _known(cls, cut: str) -> str:
        if cut not in CUTS:
            raise wrong(
                "unknown",
                say("“{cut}” is no cut; use {cuts}", cut=cut[:40], cuts=", ".join(CUTS)),
            )
        return cut

    @field_validator("will_be")
    @classmethod
    def _of_its_kind(cls, will_be: str | None, info: ValidationInfo) -> str | None:
        cut = CUTS.get(info.data.get("cut", ""))
        if cut is None or will_be is None:
            return will_be
        if will_be in ("bacon", "corned") and cut.kind in NEVER_CURED:
            raise wrong(
                "will_be",
                say(
                    "{cut} does not become {will_be}; leave this out", cut=cut.name, will_be=will_be
                ),
            )
        if will_be == "smoked" and cut.kind == "vegetable":
            raise wrong("will_be", say("{cut} is not smoked here; leave this out", cut=cut.name))
        return will_be


class Spice(Document):
    """A spice as it was written; the share that is held back for the pot [-]."""

    text: Text
    amount: Annotated[float, Field(ge=0, le=100_000)]
    unit: Name
    held_back: Annotated[float, Field(ge=0, le=1)] = 0.0


class SauceAsked(Sauce):
    """A sauce in grams, and as it was written."""

    text: Text | None = None

    @property
    def plain(self) -> Sauce:
        """The sauce as `weigh` takes it."""
        return Sauce(name=self.name, mass_g=self.mass_g, salt_pct=self.salt_pct)


class CureAsked(Document):
    """What of the cure the recipe or the cook says; what is absent is by cut and method."""

    method: Method | None = None
    purpose: Purpose | None = None
    school: SchoolName | None = None
    target_salt_pct: Annotated[float, Field(ge=0, le=MOST_SALT_PCT)] | None = None
    days: Days | None = None
    lies: Annotated[str, Field(min_length=1, max_length=60), PLAIN_LINE] | None = None
    water_g: Annotated[float, Field(gt=0, le=MOST_WATER_G)] | None = None
    brine_salt_pct: Annotated[float, Field(gt=0, le=40)] | None = None
    sugar_pct: Annotated[float, Field(ge=0, le=MOST_SUGAR_PCT)] = 0.0
    curing_salt: CureName | None = None
    ingoing_ppm: Annotated[float, Field(ge=0, le=10_000)] | None = None
    nitrite_pct: Percent | None = None
    nitrate_pct: Percent | None = None
    salt_pct: Percent | None = None
    injection_share: InjectionShare | None = None
    sauces: Annotated[tuple[SauceAsked, ...], Field(strict=False, max_length=MOST_SAUCES)] = ()
    spices: Annotated[tuple[Spice, ...], Field(strict=False, max_length=MOST_LINES)] = ()

    @field_validator("lies")
    @classmethod
    def _is_a_length(cls, lies: str | None, info: ValidationInfo) -> str | None:
        if lies is None:
            return None
        if info.data.get("days") is not None:
            raise wrong("twice", "the days are given as well; use one of the two")
        try:
            length_said(lies)
        except NotALength as error:
            raise wrong("length", str(error)) from None
        return lies

    @property
    def lain(self) -> LengthWindow | None:
        """How long it lies by the cook's word, None where he says nothing [h]."""
        return None if self.lies is None else length_said(self.lies)

    @property
    def lain_d(self) -> float | None:
        """The same in days, by number or by words [d]."""
        return self.days if self.lain is None else self.lain.usual / 24.0


class HeatAsked(Document):
    """How it is cooked: the way, and its oven, pot or fire [°C].

    `inside_c` is what the thickest part has to reach by the cook's choice, `take_out_c` when it
    leaves the heat, to climb to that while it rests [°C].
    """

    way: HeatName | None = None
    medium_c: Annotated[float, Field(ge=0, le=600)] | None = None
    inside_c: Annotated[float, Field(ge=40, le=100)] | None = None
    take_out_c: Annotated[float, Field(ge=40, le=100)] | None = None
    vegetables: bool = False


class CustomsAsked(Document):
    """How this cook handles it, where cooks disagree."""

    brine_by: str = "boiled"
    after_cure: str = "rinse"
    pot: str = "thrown"
    scoring: str = "late"
    tempering: str = "none"
    pressing: str = "none"
    fish: str = "cooked"

    @field_validator("*")
    @classmethod
    def _a_side(cls, side: str, info: ValidationInfo) -> str:
        sides = next(
            [each.id for each in custom.choices]
            for custom in CUSTOMS
            if custom.id == info.field_name
        )
        if side not in sides:
            raise wrong(
                "side",
                say(
                    "“{side}” is no side of this; use {sides}",
                    side=side[:40],
                    sides=either(tuple(sides)),
                ),
            )
        return side


class Edit(Document):
    """A change of a step by the cook: any of its fields; removed; or a step of the cook's own.

    An own step stands before another one, or at the end.
    """

    step: StepId
    removed: bool = False
    own: bool = False
    before: StepId | None = None
    kind: Annotated[str, Field(max_length=20)] | None = None
    title: Name | None = None
    text: Text | None = None
    tend: Text | None = None
    until: dict[str, float | bool] | None = None
    place: Annotated[str, Field(max_length=20)] | None = None
    min_h: Hours | None = None
    prefer_h: Hours | None = None
    max_h: Hours | None = None
    hands_min: Annotated[float, Field(ge=0, le=1440)] | None = None
    attended: bool | None = None
    uses: Annotated[float, Field(ge=0, le=10_000)] | None = None
    every_h: Annotated[float, Field(ge=0.25, le=1440)] | None = None
    locked_start: str | None = None
    trip: Name | None = None
    after: Annotated[tuple[After, ...], Field(strict=False, max_length=MOST_AFTER)] | None = None
    medium: MediumName | None = None
    medium_c: Annotated[float, Field(ge=-40, le=600)] | None = None
    covered: bool | None = None
    form: Form | None = None
    count: Annotated[int, Field(ge=1, le=MOST_PIECES)] | None = None
    thickness_mm: Annotated[float, Field(gt=0, le=MOST_THICKNESS_MM)] | None = None

    @field_validator("medium_c")
    @classmethod
    def _of_its_medium(cls, medium_c: float | None, info: ValidationInfo) -> float | None:
        name = info.data.get("medium")
        if medium_c is None or name is None:
            return medium_c
        medium = MEDIA[name]
        if not medium.least_c <= medium_c <= medium.most_c:
            raise wrong("medium", medium_range(medium, medium_c))
        return medium_c

    @field_validator("max_h")
    @classmethod
    def _after_min(cls, max_h: float | None, info: ValidationInfo) -> float | None:
        least = info.data.get("min_h")
        if max_h is not None and least is not None and max_h < least:
            raise wrong(
                "window",
                say(
                    "at most {max_h} contradicts at least {least}",
                    max_h=quantities.Hours(max_h),
                    least=quantities.Hours(least),
                ),
            )
        return max_h


class PlannedAsked(Document):
    """When a step is planned."""

    step: StepId
    start: str
    end: str


class Fact(Document):
    """Something that happened to the dish.

    `heat-set` is how it goes on at the heat from then on: how hot, in what, covered, cut in two;
    `heat-read` how hot it was around it since it was last read, on the average.
    """

    what: Literal[
        "weighed", "put-in", "turned", "lifted", "tasted", "touched", "temperature-read",
        "step-started", "step-ended", "mishap", "heat-set", "heat-read",
    ]  # fmt: skip
    at: str
    step: StepId | None = None
    mass_g: Grams | None = None
    temperature_c: Annotated[float, Field(ge=-40, le=300)] | None = None
    taste: Literal["flat", "right", "salty", "too-salty"] | None = None
    touch: Annotated[str, Field(max_length=40)] | None = None
    kind: Literal["power-out", "fridge-warm", "left-out"] | None = None
    hours: Hours | None = None
    medium: MediumName | None = None
    covered: bool | None = None
    halved: bool = False


class Ingredient(Document):
    """What goes into a side job [g], in all or for each of the people."""

    name: Name
    grams: Annotated[float, Field(ge=0, le=1e6)]
    a_head: bool = False


class JobAsked(Document):
    """A side job, which has no piece: how much is made [g], of what, in which steps.

    Without ingredients, recipe and steps it takes those of its name; what is boiled down is left so
    far (`reduced_to`, a part of what it was). A recipe grows with how much is made.
    """

    name: Name
    made_g: Annotated[float, Field(ge=1, le=MOST_MADE_G)]
    reduced_to: Annotated[float, Field(ge=0.05, le=1)] | None = None
    ingredients: (
        Annotated[tuple[Ingredient, ...], Field(strict=False, max_length=MOST_LINES)] | None
    ) = None
    steps: Annotated[tuple[StepRequest, ...], Field(strict=False, max_length=MOST_STEPS)] = ()
    keeps: Keeps | None = None
    recipe: RecipeAsked | None = None

    @model_validator(mode="after")
    def _one_list(self) -> "JobAsked":
        if self.recipe is not None and self.ingredients is not None:
            raise wrong("twice", "the ingredients are given as well; use one of the two")
        return self


class DishRequest(Document):
    """A dish: its piece, cure, heat and customs, or a side job; the house; the cook's changes.

    `other_heats`: whether its steps in the oven are timed at other temperatures as well, which
    takes as long again as the rest of a piece that was not worked out before.
    """

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    profile: ProfileName
    job: JobAsked | None = None
    piece: Piece | None = None
    recipe: RecipeAsked | None = None
    cure: CureAsked = CureAsked()
    heat: HeatAsked = HeatAsked()
    customs: CustomsAsked = CustomsAsked()
    house: HouseAsked = HouseAsked()
    edits: Annotated[tuple[Edit, ...], Field(strict=False, max_length=MOST_EDITS)] = ()
    people: Annotated[int, Field(ge=1, le=500)] | None = None
    serve_at: str | None = None
    now: str | None = None
    tz: str | None = None
    planned: Annotated[tuple[PlannedAsked, ...], Field(strict=False, max_length=80)] = ()
    facts: Annotated[tuple[Fact, ...], Field(strict=False, max_length=MOST_FACTS)] = ()
    other_heats: bool = True

    @model_validator(mode="after")
    def _piece_or_job(self) -> "DishRequest":
        if (self.piece is None) == (self.job is None):
            raise wrong("piece", "a dish is of a piece or is a side job; give the one or the other")
        return self

    @field_validator("edits")
    @classmethod
    def _once(cls, edits: tuple[Edit, ...]) -> tuple[Edit, ...]:
        if len({each.step for each in edits}) < len(edits):
            raise wrong("twice", "a step is changed twice; use one edit of each")
        return edits
