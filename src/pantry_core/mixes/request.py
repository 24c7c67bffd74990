"""What a cook asks of a weigh-out: the `weigh` document."""

from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, field_validator, model_validator

from pantry_core import quantities
from pantry_core.document import Document, wrong
from pantry_core.foods.ingredient import ingredient, is_ingredient
from pantry_core.foods.table import is_food
from pantry_core.meat import Meat, Treatment
from pantry_core.rules.constants import READY_SALTED_MG
from pantry_core.rules.cures import CURING_SALTS, CureName
from pantry_core.rules.ingredients import SAUCES
from pantry_core.rules.profiles import ProfileName
from pantry_core.text import say

Method = Literal[
    "even-brine", "strong-brine", "dry-cure", "dry-brine", "injection", "marinade", "mixed-in",
]  # fmt: skip
DRY: tuple[Method, ...] = ("dry-cure", "dry-brine", "mixed-in")
"""Methods whose salt goes on or in without a liquid of its own."""

MOST_WATER_G = 400_000.0
MOST_SALT_PCT = 50.0
MOST_SUGAR_PCT = 50.0
MOST_INJECTION_SHARE = 0.3
MOST_SAUCES = 30
LEAST_ROOM = 0.05
"""A curing salt may be a twentieth of all at the most by what is not salt in it [g/g]."""
MOST_CELERY = 0.5
"""Celery powder, which is no salt, may be half of all at the most [g/g]."""
MOST_OF_PICKLE = 0.95
"""Salt, sugar and curing salt may be so much of a pickle at the most [g/g]."""

Percent = Annotated[float, Field(ge=0, le=100)]
InjectionShare = Annotated[float, Field(ge=0, le=MOST_INJECTION_SHARE)]
MOST_DAYS = 365.0
Days = Annotated[float, Field(gt=0, le=MOST_DAYS)]
Purpose = Literal["through", "season"]
Treatments = Annotated[tuple[Treatment, ...], Field(strict=False, max_length=6)]


def storage_is_the_meats(raw: object) -> object:
    """A document whose `storage` stands beside the meat, with it in the meat."""
    if not isinstance(raw, dict) or "storage" not in raw or not isinstance(raw.get("meat"), dict):
        return raw
    rest = {name: value for name, value in raw.items() if name != "storage"}
    return rest | {"meat": {"storage": raw["storage"], **raw["meat"]}}


class Cure(Document):
    """The curing salt, and what is to go in [mg/kg]: nitrite, of saltpetre nitrate."""

    name: CureName
    ingoing_ppm: Annotated[float, Field(ge=0, le=10_000)] = 150.0
    nitrite_pct: Percent | None = None
    nitrate_pct: Percent | None = None
    salt_pct: Percent | None = None

    @field_validator("salt_pct")
    @classmethod
    def _salt_of_celery(cls, salt_pct: float | None, info: ValidationInfo) -> float | None:
        if salt_pct is None:
            return None
        if info.data.get("name", "celery") != "celery":
            raise wrong("fixed", "only celery powder has a salt of its own; leave this out")
        others = (info.data.get("nitrite_pct") or 0.0) + (info.data.get("nitrate_pct") or 0.0)
        if others + salt_pct > 100.0:
            raise wrong("over_all", "nitrite, nitrate and salt are more than all of it")
        return salt_pct

    @field_validator("nitrite_pct", "nitrate_pct")
    @classmethod
    def _fixed_by_name(cls, given: float | None, info: ValidationInfo) -> float | None:
        salt = CURING_SALTS.get(info.data.get("name", ""))
        if salt is None or given is None:
            return given
        rule = salt.nitrite if info.field_name == "nitrite_pct" else salt.nitrate
        if rule is not None and abs(given - 100.0 * rule.value) > 1e-9:
            raise wrong(
                "fixed",
                say(
                    "{data} has {rule}; leave this out",
                    data=info.data["name"],
                    rule=quantities.Percent(100 * rule.value),
                ),
            )
        return given

    @field_validator("nitrate_pct")
    @classmethod
    def _can_be_reached(cls, nitrate_pct: float | None, info: ValidationInfo) -> float | None:
        nitrite_pct = info.data.get("nitrite_pct") or 0.0
        if nitrite_pct + (nitrate_pct or 0.0) > 100.0:
            raise wrong("over_all", "nitrite and nitrate are more than all of it; give percent")
        asked = info.data.get("ingoing_ppm", 0.0) * 1e-6
        is_celery = info.data.get("name") == "celery"
        unsalted_pct = 100.0 if is_celery else nitrite_pct + (nitrate_pct or 0.0)
        room = MOST_CELERY if is_celery else LEAST_ROOM
        if nitrite_pct and room * nitrite_pct <= asked * unsalted_pct:
            raise wrong("out_of_reach", "so weak a salt cannot bring so much; ask for less nitrite")
        return nitrate_pct

    @property
    def nitrite_share(self) -> float | None:
        """Sodium nitrite in parts of it, None when only a label could tell [g/g]."""
        rule = CURING_SALTS[self.name].nitrite
        if rule is not None:
            return rule.value
        return self.nitrite_pct / 100.0 if self.nitrite_pct else None

    @property
    def nitrate_share(self) -> float:
        """Nitrate in parts of it, 0 where none is stated [g/g]."""
        rule = CURING_SALTS[self.name].nitrate
        return rule.value if rule is not None else (self.nitrate_pct or 0.0) / 100.0

    @property
    def sizing_share(self) -> float | None:
        """What `ingoing_ppm` counts, in parts of it: nitrite, of saltpetre nitrate [g/g]."""
        return self.nitrate_share if self.name == "saltpetre" else self.nitrite_share

    @property
    def salt_share(self) -> float:
        """Sodium chloride in parts of it: all that is neither nitrite nor nitrate [g/g].

        Celery powder is no salt, but for what its label says.
        """
        if self.name == "celery":
            return (self.salt_pct or 0.0) / 100.0
        return 1.0 - (self.nitrite_share or 0.0) - self.nitrate_share

    @property
    def is_unknown(self) -> bool:
        """Whether nobody can say how much nitrite it brings."""
        return self.nitrite_share is None


class Sauce(Document):
    """A sauce, wine, oil, fruit or dairy that goes in, by a known name or with its salt."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    mass_g: Annotated[float, Field(gt=0, le=MOST_WATER_G)]
    salt_pct: Annotated[Percent | None, Field(validate_default=True)] = None

    @field_validator("salt_pct")
    @classmethod
    def _known(cls, salt_pct: float | None, info: ValidationInfo) -> float | None:
        name = info.data.get("name", SAUCES[0])
        if salt_pct is None and name not in SAUCES and not is_food(name):
            known = ", ".join(SAUCES)
            raise wrong(
                "unknown",
                say("this sauce is not known; give its salt_pct, or one of {known}", known=known),
            )
        return salt_pct

    @property
    def salt_g(self) -> float:
        """Sodium chloride in it [g]."""
        if self.salt_pct is not None:
            return self.mass_g * self.salt_pct / 100.0
        return self.mass_g * ingredient(self.name).salt

    @property
    def water_g(self) -> float:
        """Water in it [g]; of one that is not known, all that is not salt."""
        if is_ingredient(self.name):
            return self.mass_g * ingredient(self.name).water
        return self.mass_g - self.salt_g


class WeighRequest(Document):
    """All that a weigh-out depends on; percentages as percent, masses [g], temperature [°C]."""

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    profile: ProfileName
    meat: Meat
    method: Method
    target_salt_pct: Annotated[float, Field(ge=0, le=MOST_SALT_PCT)]
    cover: bool = True
    water_g: Annotated[float, Field(gt=0, le=MOST_WATER_G)] | None = None
    sugar_pct: Annotated[float, Field(ge=0, le=MOST_SUGAR_PCT)] = 0.0
    brine_salt_pct: Percent | None = None
    heaped: bool = False
    cure: Cure | None = None
    injection_share: InjectionShare = 0.10
    sauces: Annotated[tuple[Sauce, ...], Field(strict=False, max_length=MOST_SAUCES)] = ()
    scale_division_g: Annotated[float, Field(gt=0, le=1000)] | None = None
    temperature_c: Annotated[float, Field(ge=-5, le=60)] = 4.0
    days: Days | None = None
    treatment: Treatments = ()
    purpose: Purpose | None = None

    _storage = model_validator(mode="before")(storage_is_the_meats)

    @field_validator("water_g")
    @classmethod
    def _water_for_brine(cls, water_g: float | None, info: ValidationInfo) -> float | None:
        method, cover = info.data.get("method"), info.data.get("cover", True)
        needed = method in ("even-brine", "strong-brine") or (method == "injection" and cover)
        if water_g is None and needed:
            raise wrong("needs_water", "a brine needs its water; give grams above 0")
        return water_g

    @field_validator("brine_salt_pct")
    @classmethod
    def _strength(cls, strength_pct: float | None, info: ValidationInfo) -> float | None:
        if info.data.get("method") != "strong-brine":
            return strength_pct
        if strength_pct is None or strength_pct == 0:
            raise wrong("needs_strength", "a strong brine needs its strength; use 8 to 20")
        if strength_pct + info.data.get("sugar_pct", 0.0) > 90.0:
            raise wrong("no_room", "salt and sugar leave no room for the water; use 8 to 20")
        return strength_pct

    @field_validator("cure")
    @classmethod
    def _leaves_room(cls, cure: Cure | None, info: ValidationInfo) -> Cure | None:
        if cure is None or not cure.sizing_share or info.data.get("method") != "strong-brine":
            return cure
        solids = ((info.data.get("brine_salt_pct") or 0.0) + info.data.get("sugar_pct", 0.0)) / 100
        by_cure = cure.ingoing_ppm * 1e-6 / cure.sizing_share * (1.0 - cure.salt_share)
        if solids + by_cure > MOST_OF_PICKLE:
            raise wrong("no_room", "salt, sugar and curing salt leave no room for the water")
        return cure

    @field_validator("heaped")
    @classmethod
    def _heaped_is_dry(cls, heaped: bool, info: ValidationInfo) -> bool:  # noqa: FBT001 - Pydantic calls it so
        if heaped and info.data.get("method") not in ("dry-cure", None):
            raise wrong("not_dry", "only a dry cure is heaped; leave heaped out")
        return heaped

    @field_validator("injection_share")
    @classmethod
    def _something_injected(cls, share: float, info: ValidationInfo) -> float:
        if share == 0 and info.data.get("method") == "injection":
            raise wrong("no_needle", "nothing would be injected; use 0.08 to 0.15")
        return share

    @property
    def used_water_g(self) -> float:
        """Water that is made for the piece, ice included; none for a dry cure [g]."""
        return 0.0 if self.method in DRY or self.is_needle_alone else self.water_g or 0.0

    @property
    def is_needle_alone(self) -> bool:
        """Whether all of the pickle goes in by needle."""
        return self.method == "injection" and not self.cover

    @property
    def is_brine(self) -> bool:
        """Whether the piece lies in a liquid that is made for it.

        Oil, herbs and salt are no liquid but a paste, reckoned as a dry cure.
        """
        if self.method == "marinade":
            return self.water_g is not None or any(each.water_g > 0 for each in self.sauces)
        return self.method in ("even-brine", "strong-brine") or (
            self.method == "injection" and self.cover
        )

    @property
    def is_mixed_in(self) -> bool:
        """Whether salt and cure are mixed through the meat, and have nowhere to go."""
        return self.method == "mixed-in" or self.meat.form == "ground"

    @property
    def is_wet(self) -> bool:
        """Whether there is a pickle, in which it lies or which goes in by needle."""
        return self.is_brine or self.is_needle_alone

    @property
    def needle(self) -> float | None:
        """The share that goes in by needle, None without one [g/g]."""
        return self.injection_share if self.method == "injection" else None

    @property
    def treatments(self) -> frozenset[Treatment]:
        """All that was done to it: a needle, and meat sold ready-salted, count as injected.

        Plain meat has some sodium of its own.
        """
        done: set[Treatment] = set(self.treatment)
        if self.method == "injection" or (self.meat.sodium_mg or 0.0) >= READY_SALTED_MG.value:
            done.add("injected")
        return frozenset(done)

    @property
    def seasons(self) -> bool:
        """Whether the salt need not reach the heart: marinades never aim at it."""
        return self.purpose == "season" or self.method == "marinade"

    @property
    def is_lifted(self) -> bool:
        """Whether it must come out on time: the target sets only when."""
        return self.method == "strong-brine" or self.heaped
