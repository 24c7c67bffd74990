"""The older `feast` document, pantry-clock/1, and what it is in that of today."""

from collections.abc import Iterable, Mapping
from typing import Annotated, Any, Literal

from pydantic import Field, field_validator

from pantry_core.dish.answer import DishStep
from pantry_core.dish.edits import edits_between
from pantry_core.dish.request import CustomsAsked, DishRequest, Edit
from pantry_core.dish.work import dish
from pantry_core.document import Document, wrong
from pantry_core.formats.feast import (
    MOST_EVENTS,
    EventDocument,
    FeastDocument,
    Grams,
    Name,
    SheetDocument,
    ShortText,
    Text,
)
from pantry_core.plan.request import MOST_DISHES, Hours
from pantry_core.routes.cuts import CUTS, Cut
from pantry_core.routes.jobs import JOBS
from pantry_core.routes.steps import PLACES
from pantry_core.routes.ways import WAYS
from pantry_core.rules.cures import CURING_SALTS
from pantry_core.rules.profiles import ProfileName
from pantry_core.text import say

MOST_STEPS, MOST_LINES = 40, 40
OLDER_ROUNDS_H = {16.0: 24.0, 8.0: 12.0}
"""What once and twice a day was written as, and is now."""

Percent = Annotated[float, Field(ge=0, le=100)]


class OlderSauce(Document):
    """A sauce as it was written, and what it comes to [g, %]."""

    text: Annotated[str, Field(max_length=200)]
    name: ShortText
    mass_g: Grams
    salt_pct: Percent | None = None


class OlderSpice(Document):
    """A spice as it was written; the share held back for the pot [-]."""

    text: Annotated[str, Field(max_length=200)]
    amount: Annotated[float, Field(ge=0, le=100_000)]
    unit: ShortText
    held_back: Annotated[float, Field(ge=0, le=1)] = 0.0


class OlderStep(Document):
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
            raise wrong(
                "place",
                say(
                    "“{place}” is no place; use {places}",
                    place=place[:20],
                    places=", ".join(PLACES),
                ),
            )
        return place


class OlderDish(Document):
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
    sauces: Annotated[tuple[OlderSauce, ...], Field(strict=False, max_length=MOST_LINES)] = ()
    spices: Annotated[tuple[OlderSpice, ...], Field(strict=False, max_length=MOST_LINES)] = ()
    customs: dict[ShortText, ShortText] = {}
    school: Annotated[str, Field(max_length=16)] = "model"
    recipe: Annotated[str, Field(max_length=8000)] = ""
    serve_at: str | None = None
    early_max_min: Annotated[float, Field(ge=0, le=1440)] = 0.0
    is_given_up: bool = False
    note: Text = ""
    steps: Annotated[tuple[OlderStep, ...], Field(strict=False, max_length=MOST_STEPS)] = ()
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
            raise wrong(
                "unknown",
                say(
                    "“{value}” is unknown; use {known}",
                    value=value[:20],
                    known=", ".join(known),
                ),
            )
        return value

    @field_validator("steps")
    @classmethod
    def _told_apart(cls, steps: tuple[OlderStep, ...]) -> tuple[OlderStep, ...]:
        if len({step.key for step in steps}) < len(steps):
            raise wrong("twice", "two steps have the same key; each needs its own")
        return steps


class OlderFeast(Document):
    """A whole feast."""

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    name: Name
    serve_at: str
    tz: str
    heads: Annotated[int, Field(ge=1, le=500)]
    note: Text = ""
    dishes: Annotated[tuple[OlderDish, ...], Field(strict=False, max_length=MOST_DISHES)] = ()


def as_it_is_now(older: OlderFeast, profile: ProfileName) -> FeastDocument:
    """The document of today that says the same.

    Parameters: older; profile of the kitchen that reads it, by which its routes are laid out.
    Returns: each dish with the changes of its steps as edits; one that has begun keeps its steps as
    they are.
    Raises: pydantic.ValidationError, dish.clock.WrongDish or errors.OutOfRange for a dish that
    cannot be worked out.
    """
    return FeastDocument.model_validate(
        {
            "name": older.name, "serve_at": older.serve_at, "tz": older.tz, "people": older.heads,
            "note": older.note,
            "dishes": [_dish(each, profile)
                       for each in older.dishes],
        }
    )  # fmt: skip


def _dish(older: OlderDish, profile: ProfileName) -> dict[str, Any]:
    plain = older.model_dump(mode="json")
    kept = ("name", "serve_at", "early_max_min", "note", "recipe", "events", "sheets")
    document = {
        **{name: plain[name] for name in kept},
        "given_up": older.is_given_up,
        **decided_of_older(plain),
    }
    edits = _edits(
        older, DishRequest.model_validate({"profile": profile, **decided_of_older(plain)})
    )
    changed = [each.model_dump(mode="json", exclude_unset=True) for each in edits]
    return document | ({"edits": changed} if changed else {})


def decided_of_older(older: Mapping[str, Any]) -> dict[str, Any]:
    """What was decided of a dish, from the older fields to the parts of the `dish` document."""
    if older["job"]:
        return {"job": {"name": older["job"], "made_g": older["mass_g"]}}
    sides, cut = older["customs"], CUTS[older["cut"]]
    is_smoked = sides.get("heat") == "smoked" and cut.kind != "vegetable"
    names = CustomsAsked.model_fields
    return {
        "piece": _piece(older, cut, is_smoked=is_smoked),
        "cure": _cure(older),
        "heat": {"vegetables": sides.get("vegetables") == "late"}
        | ({"way": "smoke"} if is_smoked else {}),
        "customs": {name: side for name, side in sides.items() if name in names},
    }


def _piece(older: Mapping[str, Any], cut: Cut, *, is_smoked: bool) -> dict[str, Any]:
    sides = older["customs"]
    piece = {
        "cut": older["cut"], "mass_g": older["mass_g"], "bone_share": older["bone_share"],
        "frozen": older["is_frozen"], "storage": sides.get("storage", "meal"),
    }  # fmt: skip
    if not older["is_thickness_guessed"]:
        piece["thickness_mm"] = older["thickness_mm"]
    if cut.kind == "game" and sides.get("game") in ("deer", "other"):
        piece["wild"] = sides["game"]
    opened = sides.get("opened", "intact")
    if opened == "pricked":
        piece["treatment"] = ["pricked"]
    elif opened in ("rolled", "stuffed"):
        piece["form"] = opened
    if cut.kind == "fish" and sides.get("fish", "cooked") != "cooked":
        piece["will_be"] = "raw"
    elif is_smoked and cut.will_be is None:
        piece["will_be"] = "smoked"
    return piece


def _cure(older: Mapping[str, Any]) -> dict[str, Any]:
    way = WAYS[older["method"]]
    cure = {
        "method": older["method"], "school": older["school"],
        "target_salt_pct": older["target_salt_pct"], "sugar_pct": older["sugar_pct"],
        "curing_salt": older["cure"] or None, "sauces": older["sauces"], "spices": older["spices"],
    }  # fmt: skip
    for name in ("nitrite_pct", "ingoing_ppm", "brine_salt_pct", "injection_share"):
        if older[name] is not None:
            cure[name] = older[name]
    if way.has_water and older["water_g"] is not None:
        cure["water_g"] = older["water_g"]
    return cure


def _edits(older: OlderDish, asked: DishRequest) -> tuple[Edit, ...]:
    """What the cook had changed of the steps; of a dish that has begun whatever is different."""
    by_route = {each.id: each for each in dish(asked).steps}
    has_begun = bool(older.events)
    wanted = [
        _step(each, by_route.get(each.key)) if has_begun or each.is_changed or each.is_own
        else by_route[each.key]
        for each in older.steps
        if has_begun or each.is_changed or each.is_own or each.key in by_route
    ]  # fmt: skip
    return edits_between(tuple(by_route.values()), wanted) if older.steps else ()


def rounds_as_now(every_h: float | None) -> float | None:
    """An older interval of rounds, once and twice a day being 24 and 12 h now [h]."""
    return None if every_h is None else OLDER_ROUNDS_H.get(every_h, every_h)


def _step(older: OlderStep, by_route: DishStep | None) -> DishStep:
    return DishStep(
        older.key, older.kind, older.title, older.begin, older.place or None, older.min_h,
        older.prefer_h, older.max_h, older.hands_min, older.attended,
        by_route.uses if by_route else older.uses, rounds_as_now(older.every_h), older.tend,
        by_route.until if by_route else None, older.locked_start,
        by_route.trip if by_route else None,
    )  # fmt: skip
