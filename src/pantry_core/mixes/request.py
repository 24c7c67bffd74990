"""What a cook asks of a weigh-out: the `weigh` document."""

from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, field_validator

from pantry_core.document import Document, only, wrong
from pantry_core.meat import Meat
from pantry_core.rules.constants import NITRITE_IN_CURE_1
from pantry_core.rules.profiles import ProfileName

Method = Literal["even-brine", "strong-brine", "dry-cure", "dry-brine", "injection", "marinade"]
CureName = Literal["cure-1", "cure-2", "nitrite-salt", "saltpetre", "celery"]

COMPUTED_METHODS = ("even-brine", "dry-cure", "dry-brine")
COMPUTED_CURES = ("cure-1",)

MOST_WATER_G = 400_000.0
MOST_SALT_PCT = 50.0
MOST_SUGAR_PCT = 50.0

Percent = Annotated[float, Field(ge=0, le=100)]


class Cure(Document):
    """The curing salt, and the nitrite that is to go in [mg/kg]."""

    name: CureName
    ingoing_ppm: Annotated[float, Field(ge=0, le=10_000)] = 150.0
    nitrite_pct: Percent | None = None
    nitrate_pct: Percent | None = None

    @field_validator("name")
    @classmethod
    def _computed(cls, name: str) -> str:
        return only(name, COMPUTED_CURES, "curing salt")

    @field_validator("nitrite_pct", "nitrate_pct")
    @classmethod
    def _fixed_by_name(cls, share: float | None, info: ValidationInfo) -> float | None:
        fixed = 100.0 * NITRITE_IN_CURE_1.value if info.field_name == "nitrite_pct" else 0.0
        if share is not None and info.data.get("name") == "cure-1" and share != fixed:
            raise wrong("fixed", f"cure-1 has {fixed:g} %; leave this out")
        return share


class Sauce(Document):
    """A sauce that brings salt of its own."""

    name: str
    mass_g: Annotated[float, Field(gt=0, le=MOST_WATER_G)]
    salt_pct: Percent | None = None


class WeighRequest(Document):
    """All that a weigh-out depends on; percentages as percent, masses [g], temperature [°C]."""

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    profile: ProfileName
    meat: Meat
    method: Method
    target_salt_pct: Annotated[float, Field(ge=0, le=MOST_SALT_PCT)]
    water_g: Annotated[float, Field(gt=0, le=MOST_WATER_G)] | None = None
    brine_salt_pct: Percent | None = None
    heaped: bool = False
    sugar_pct: Annotated[float, Field(ge=0, le=MOST_SUGAR_PCT)] = 0.0
    cure: Cure | None = None
    injection_share: Annotated[float, Field(ge=0, le=0.3)] = 0.10
    cover: bool = True
    sauces: Annotated[tuple[Sauce, ...], Field(strict=False)] = ()
    scale_division_g: Annotated[float, Field(gt=0, le=1000)] | None = None
    temperature_c: Annotated[float, Field(ge=-5, le=60)] = 4.0

    @field_validator("method")
    @classmethod
    def _computed(cls, method: str) -> str:
        return only(method, COMPUTED_METHODS, "method")

    @field_validator("water_g")
    @classmethod
    def _water_for_brine(cls, water_g: float | None, info: ValidationInfo) -> float | None:
        if water_g is None and info.data.get("method") == "even-brine":
            raise wrong("needs_water", "an even brine needs its water; give grams above 0")
        return water_g

    @field_validator("heaped")
    @classmethod
    def _not_heaped(cls, heaped: bool) -> bool:  # noqa: FBT001 - Pydantic calls it so
        if heaped:
            raise wrong("not_yet", "a heaped cure is not computed yet; leave heaped out")
        return heaped

    @field_validator("sauces")
    @classmethod
    def _no_sauces(cls, sauces: tuple[Sauce, ...]) -> tuple[Sauce, ...]:
        if sauces:
            raise wrong("not_yet", "the salt of sauces is not counted yet; leave sauces out")
        return sauces

    @property
    def is_brine(self) -> bool:
        """Whether the piece lies in a liquid that is made for it."""
        return self.method == "even-brine"
