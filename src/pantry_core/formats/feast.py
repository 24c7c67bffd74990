"""The `feast` document: a whole feast with its dishes, their steps and what has happened."""

from collections.abc import Iterable
from typing import Annotated, Any, Literal

from pydantic import Field, field_validator

from pantry_core.document import Document, wrong
from pantry_core.plan.request import MOST_DISHES, Hours
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.jobs import JOBS
from pantry_core.routes.steps import PLACES
from pantry_core.routes.ways import WAYS
from pantry_core.rules.cures import CURING_SALTS

MOST_STEPS, MOST_EVENTS, MOST_LINES = 40, 2000, 40

ShortText = Annotated[str, Field(max_length=80)]
Name = Annotated[str, Field(min_length=1, max_length=80)]
Text = Annotated[str, Field(max_length=2000)]
Grams = Annotated[float, Field(gt=0, le=200_000)]
Percent = Annotated[float, Field(ge=0, le=100)]
Press = Annotated[int, Field(ge=1, le=MOST_EVENTS)]


class SauceDocument(Document):
    """A sauce as it was written, and what it comes to [g, %]."""

    text: Annotated[str, Field(max_length=200)]
    name: ShortText
    mass_g: Grams
    salt_pct: Percent | None = None


class SpiceDocument(Document):
    """A spice as it was written; the share held back for the pot [-]."""

    text: Annotated[str, Field(max_length=200)]
    amount: Annotated[float, Field(ge=0, le=100_000)]
    unit: ShortText
    held_back: Annotated[float, Field(ge=0, le=1)] = 0.0


class StepDocument(Document):
    """A step: windows [h], hands [min], rounds [h]."""

    key: Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]
    kind: Annotated[str, Field(max_length=20)]
    title: Name
    begin: Annotated[str, Field(max_length=200)] = ""
    tend: Annotated[str, Field(max_length=200)] = ""
    place: str = ""
    min_h: Hours
    prefer_h: Hours | None = None
    max_h: Hours | None = None
    hands_min: Annotated[float, Field(ge=0, le=1440)] = 0.0
    attended: bool = False
    uses: Annotated[float, Field(ge=0, le=10_000)] = 1.0
    every_h: Annotated[float, Field(ge=0.25, le=1440)] | None = None
    locked_start: str | None = None
    is_changed: bool = False
    is_own: bool = False

    @field_validator("place")
    @classmethod
    def _known_place(cls, place: str) -> str:
        if place and place not in PLACES:
            raise wrong("place", f"{place[:20]!r} is no place; {', '.join(PLACES)} would do")
        return place


class EventDocument(Document):
    """Something that happened; what belongs to one press has the same number."""

    press: Press
    what: ShortText
    at: str
    step: Annotated[str, Field(max_length=40)] = ""
    mass_g: Grams | None = None
    temperature_c: Annotated[float, Field(ge=-40, le=300)] | None = None
    taste: Annotated[str, Field(max_length=10)] = ""
    note: Annotated[str, Field(max_length=500)] = ""
    line: ShortText = ""
    withdraws: Press | None = None


class SheetDocument(Document):
    """A weigh-out sheet as it was when the meat went in, and by which press."""

    press: Press
    rules_version: Annotated[str, Field(max_length=20)]
    weighed: dict[str, float] = {}
    request: dict[str, Any]
    answer: dict[str, Any]


class DishDocument(Document):
    """A dish: what was decided of it [g, mm, %], its steps, its log."""

    name: Name
    job: str = ""
    cut: str = ""
    method: str = ""
    mass_g: Grams
    thickness_mm: Annotated[float, Field(gt=0, le=1000)] | None = None
    is_thickness_guessed: bool = False
    bone_share: Annotated[float, Field(ge=0, lt=1)] = 0.0
    is_frozen: bool = False
    target_salt_pct: Percent = 0.0
    sugar_pct: Percent = 0.0
    water_g: Grams | None = None
    cure: str = ""
    nitrite_pct: Percent | None = None
    ingoing_ppm: Annotated[float, Field(ge=0, le=10_000)] | None = None
    brine_salt_pct: Percent | None = None
    injection_share: Annotated[float, Field(ge=0, le=0.3)] | None = None
    sauces: Annotated[tuple[SauceDocument, ...], Field(strict=False, max_length=MOST_LINES)] = ()
    spices: Annotated[tuple[SpiceDocument, ...], Field(strict=False, max_length=MOST_LINES)] = ()
    customs: dict[ShortText, ShortText] = {}
    school: Annotated[str, Field(max_length=16)] = "model"
    recipe: Annotated[str, Field(max_length=8000)] = ""
    serve_at: str | None = None
    early_max_min: Annotated[float, Field(ge=0, le=1440)] = 0.0
    is_given_up: bool = False
    note: Text = ""
    steps: Annotated[tuple[StepDocument, ...], Field(strict=False, max_length=MOST_STEPS)] = ()
    events: Annotated[tuple[EventDocument, ...], Field(strict=False, max_length=MOST_EVENTS)] = ()
    sheets: Annotated[tuple[SheetDocument, ...], Field(strict=False, max_length=MOST_LINES)] = ()

    @field_validator("job", "cut", "method", "cure")
    @classmethod
    def _known(cls, value: str, info: Any) -> str:
        tables: dict[str, Iterable[str]] = {
            "job": JOBS, "cut": CUTS, "method": WAYS, "cure": CURING_SALTS
        }  # fmt: skip
        known = tables[info.field_name]
        if value and value not in known:
            raise wrong("unknown", f"{value[:20]!r} is unknown; {', '.join(known)} would do")
        return value

    @field_validator("steps")
    @classmethod
    def _told_apart(cls, steps: tuple[StepDocument, ...]) -> tuple[StepDocument, ...]:
        if len({step.key for step in steps}) < len(steps):
            raise wrong("twice", "two steps have the same key; each needs its own")
        return steps


class FeastDocument(Document):
    """A whole feast."""

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    name: Name
    serve_at: str
    tz: str
    heads: Annotated[int, Field(ge=1, le=500)]
    note: Text = ""
    dishes: Annotated[tuple[DishDocument, ...], Field(strict=False, max_length=MOST_DISHES)] = ()
