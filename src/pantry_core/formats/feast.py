"""The `feast` document: a whole feast with its dishes, their changes and what has happened."""

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from pantry_core.dish.recipe_asked import RecipeAsked
from pantry_core.dish.request import (
    MOST_EDITS,
    CureAsked,
    CustomsAsked,
    DishRequest,
    Edit,
    HeatAsked,
    JobAsked,
    Piece,
)
from pantry_core.document import PLAIN_LINE, PLAIN_TEXT, Document, wrong
from pantry_core.heat.media import MediumName
from pantry_core.mixes.request import MOST_WATER_G
from pantry_core.plan.request import MOST_DISHES
from pantry_core.rules.profiles import ProfileName

MOST_EVENTS, MOST_SHEETS = 2000, 40
MOST_PHOTOS, MOST_PHOTO = 3, 3_000_000
"""So many photos of a dish, and so many signs of each in base 64."""
DECIDED = ("job", "piece", "cure", "heat", "customs", "edits")
"""The parts of the `dish` document that the cook decides."""

ShortText = Annotated[str, Field(max_length=80), PLAIN_LINE]
Name = Annotated[str, Field(min_length=1, max_length=80), PLAIN_LINE]
Text = Annotated[str, Field(max_length=2000), PLAIN_TEXT]
Grams = Annotated[float, Field(gt=0, le=200_000)]
Press = Annotated[int, Field(ge=1, le=MOST_EVENTS)]


class HeatDocument(Document):
    """How it goes on at the heat: in what, covered or not, cut in two."""

    medium: MediumName | None = None
    covered: bool | None = None
    halved: bool = False


class EventDocument(Document):
    """Something that happened; what belongs to one press has the same number."""

    press: Press
    what: ShortText
    at: str
    step: Annotated[str, Field(max_length=40), PLAIN_LINE] = ""
    mass_g: Grams | None = None
    temperature_c: Annotated[float, Field(ge=-40, le=300)] | None = None
    taste: Annotated[str, Field(max_length=10)] = ""
    touch: Annotated[str, Field(max_length=10)] = ""
    note: Annotated[str, Field(max_length=500), PLAIN_TEXT] = ""
    line: ShortText = ""
    withdraws: Press | None = None
    until: str | None = None
    heat: HeatDocument | None = None


class SheetDocument(Document):
    """A weigh-out sheet as it was when the meat went in, and by which press."""

    press: Press
    rules_version: Annotated[str, Field(max_length=20), PLAIN_LINE]
    weighed: dict[ShortText, Annotated[float, Field(gt=0, le=MOST_WATER_G)]] = {}
    request: dict[str, Any]
    answer: dict[str, Any]


class ReviewDocument(Document):
    """What came of a dish, as it was told after the meal; the bland share is of the thickness."""

    saltiness: Literal["", "flat", "right", "salty", "too-salty"] = ""
    tender: Literal["", "tough", "right", "soft"] = ""
    doneness: Literal["", "under", "right", "over"] = ""
    skin: Literal["", "crisp", "chewy", "soft"] = ""
    bland_share: Annotated[float, Field(ge=0, le=1)] | None = None
    ready_at: str | None = None
    left_g: Annotated[float, Field(ge=0, le=200_000)] | None = None
    next_time: Annotated[str, Field(max_length=1000), PLAIN_TEXT] = ""
    skipped: bool = False
    told_at: str


class LeftoverDocument(Document):
    """What was left of a dish, until when, and what became of it."""

    what: Literal["", "bones", "trimmings", "giblets", "fat", "piece"] = ""
    mass_g: Grams
    place: Literal["fridge", "freezer"] = "fridge"
    since: str
    until: str | None = None
    fate: Literal["", "eaten", "frozen", "thrown", "used"] = ""
    ended_at: str | None = None


class PhotoDocument(Document):
    """A photo of a dish: a JPEG in base 64."""

    jpeg: Annotated[str, Field(max_length=MOST_PHOTO)]
    kept_at: str


class DishDocument(Document):
    """A dish as in the `dish` document, with its hour, its words, and its log.

    `id` is what steps of other dishes name when they wait for it; early_max_min None: as usual.
    """

    id: Annotated[str, Field(min_length=1, max_length=40)] | None = None
    name: Name
    job: JobAsked | None = None
    piece: Piece | None = None
    cure: CureAsked = CureAsked()
    heat: HeatAsked = HeatAsked()
    customs: CustomsAsked = CustomsAsked()
    edits: Annotated[tuple[Edit, ...], Field(strict=False, max_length=MOST_EDITS)] = ()
    serve_at: str | None = None
    early_max_min: Annotated[float, Field(ge=0, le=1440)] | None = None
    given_up: bool = False
    note: Text = ""
    recipe: RecipeAsked | Annotated[str, Field(max_length=8000), PLAIN_TEXT] = ""
    events: Annotated[tuple[EventDocument, ...], Field(strict=False, max_length=MOST_EVENTS)] = ()
    sheets: Annotated[tuple[SheetDocument, ...], Field(strict=False, max_length=MOST_SHEETS)] = ()
    review: ReviewDocument | None = None
    leftovers: Annotated[tuple[LeftoverDocument, ...], Field(strict=False, max_length=20)] = ()
    photos: Annotated[tuple[PhotoDocument, ...], Field(strict=False, max_length=MOST_PHOTOS)] = ()

    @model_validator(mode="after")
    def _piece_or_job(self) -> "DishDocument":
        if (self.piece is None) == (self.job is None):
            raise wrong("piece", "a dish is of a piece or is a side job; give the one or the other")
        if self.piece is not None and self.cure.method is None:
            raise wrong("method", "a piece needs its cure.method; none is allowed")
        return self

    @property
    def decided(self) -> dict[str, Any]:
        """What the cook decided, as JSON data."""
        parts = set(DECIDED)
        if isinstance(self.recipe, RecipeAsked):
            parts.add("recipe")
        return self.model_dump(mode="json", include=parts, exclude_unset=True)

    @property
    def recipe_text(self) -> str:
        """The recipe as it was typed."""
        return self.recipe.text if isinstance(self.recipe, RecipeAsked) else self.recipe

    def request(self, profile: ProfileName) -> DishRequest:
        """The `dish` document of it, in a kitchen of a profile.

        Raises: pydantic.ValidationError.
        """
        return DishRequest.model_validate({"profile": profile, **self.decided})


class FeastDocument(Document):
    """A whole feast."""

    format: Literal["pantry-clock/2"] = "pantry-clock/2"
    name: Name
    serve_at: str
    tz: str
    people: Annotated[int, Field(ge=1, le=500)]
    note: Text = ""
    dishes: Annotated[tuple[DishDocument, ...], Field(strict=False, max_length=MOST_DISHES)] = ()
