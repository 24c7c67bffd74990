"""Level, cover and room in a vessel."""

from dataclasses import dataclass
from math import pi
from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, field_validator

from pantry_core.document import Document, wrong
from pantry_core.meat import MOST_MEAT_G
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Hours, Millilitres, Millimetres
from pantry_core.rules.constants import MEAT_DENSITY
from pantry_core.rules.rule import Mark, Rule, Source
from pantry_core.text import joined, listed, say

COVER_MM = Rule("cover", 20.0, "mm", "liquid above the meat", Mark.PRACTICE)
BAG_ROOM = Rule(
    "bag-room", 2.0, "times the meat", "room in a bag, besides the liquid", Mark.PRACTICE
)
BARE_METAL_H = Rule(
    "bare-metal", 2.0, "h", "salt, acid or curing salt in bare metal, cold", Mark.PRACTICE
)
MOST_HOURS = 10_000.0
HALVINGS = 60

Length = Annotated[float, Field(gt=0, le=2000)]
Shape = Literal["box", "round", "tapered", "bag"]
NEEDED: dict[Shape, tuple[str, ...]] = {
    "box": ("length_mm", "width_mm", "depth_mm"),
    "round": ("diameter_mm", "depth_mm"),
    "tapered": ("top_mm", "bottom_mm", "depth_mm"),
    "bag": ("litres",),
}
REACTIVE = ("aluminium", "copper", "iron")


class FitMeat(Document):
    """The piece as it lies: mass [g] and height [mm]."""

    mass_g: Annotated[float, Field(gt=0, le=MOST_MEAT_G)]
    height_mm: Length


class Vessel(Document):
    """A vessel by its inner measures [mm], a bag by what it holds [l]."""

    length_mm: Length | None = None
    width_mm: Length | None = None
    diameter_mm: Length | None = None
    top_mm: Length | None = None
    bottom_mm: Length | None = None
    depth_mm: Length | None = None
    litres: Annotated[float, Field(gt=0, le=1000)] | None = None
    material: Literal[
        "glass", "food-plastic", "stoneware", "stainless", "aluminium", "copper", "iron", "unknown"
    ]
    shape: Shape

    @field_validator("shape")
    @classmethod
    def _measured(cls, shape: Shape, info: ValidationInfo) -> Shape:
        lacking = [name for name in NEEDED[shape] if info.data.get(name, 0.0) is None]
        if lacking:
            raise wrong(
                "measures",
                say(
                    "a vessel that is {shape} needs {lacking}",
                    shape=shape,
                    lacking=listed(lacking),
                ),
            )
        return shape


class FitRequest(Document):
    """Meat, vessel, and the liquid made for it [ml].

    `hours` is how long they lie together [h], None for longer than bare metal bears; `has_cure`
    says that curing salt touches the vessel.
    """

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    meat: FitMeat
    vessel: Vessel
    liquid_ml: Annotated[float, Field(ge=0, le=1e6)]
    hours: Annotated[float, Field(gt=0, le=MOST_HOURS)] | None = None
    has_cure: bool = False


@dataclass(frozen=True, slots=True)
class FitAnswer:
    """Whether all goes in and is covered; None where a bag has no level.

    `cover_mm` is liquid above the meat, `level_mm` from the bottom [mm]; `spare_ml` room that is
    left, below zero what runs over; `liquid_to_cover_ml` the liquid that would cover it [ml];
    `fridge_litres` the room it takes in the fridge [l].
    """

    fits: bool
    covered: bool
    cover_mm: float | None
    level_mm: float | None
    spare_ml: float
    liquid_to_cover_ml: float
    fridge_litres: float
    notices: tuple[Notice, ...]
    format: Literal["pantry-clock/1"] = "pantry-clock/1"


def fit(request: FitRequest) -> FitAnswer:
    """Lay a piece into a vessel and pour the liquid on.

    Parameters: request; its fields carry their units and ranges.
    Returns: level and cover [mm], volumes [ml], fridge room as the vessel's box [l]. Bare metal
    that reacts, a vessel too small and a piece not covered are notices.
    Raises: nothing for a request that could be made.
    Source: volume by density 1.06 g/ml (from memory); a straight or tapered vessel by geometry
    (derived); cover of 20 mm, and a bag of twice the meat and the liquid (common practice).

    >>> answer = fit(FitRequest.model_validate({
    ...     "meat": {"mass_g": 1060, "height_mm": 80}, "liquid_ml": 3000,
    ...     "vessel": {"shape": "box", "length_mm": 200, "width_mm": 200, "depth_mm": 150,
    ...                "material": "glass"}}))
    >>> answer.level_mm, answer.cover_mm, answer.spare_ml
    (100.0, 20.0, 2000.0)
    """
    meat_ml = request.meat.mass_g / MEAT_DENSITY.value
    if request.vessel.shape == "bag":
        return _in_a_bag(request, meat_ml)
    vessel, height = request.vessel, request.meat.height_mm
    depth = vessel.depth_mm or 0.0
    poured_ml = meat_ml + request.liquid_ml
    spare_ml = _volume_ml(vessel, depth) - poured_ml
    goes_in = spare_ml >= 0 and height <= depth
    level = _level_mm(vessel, poured_ml) if spare_ml >= 0 else depth
    to_cover_ml = max(_volume_ml(vessel, height + COVER_MM.value) - meat_ml, 0.0)
    covered = goes_in and level >= height + COVER_MM.value - 1e-9
    across = [vessel.length_mm, vessel.width_mm] if vessel.shape == "box" else [_widest(vessel)] * 2
    litres = (across[0] or 0.0) * (across[1] or 0.0) * depth / 1e6
    notices = [
        *_material(request),
        *_room(fits=goes_in, spare_ml=spare_ml),
    ]
    if goes_in and not covered:
        over_mm = level - height
        text = say(
            "Only {over} of liquid stand over the meat; {to_cover_ml} more covers it."
            if over_mm >= 0
            else "{over} of the meat stand out of the liquid; {to_cover_ml} more covers it.",
            over=Millimetres(abs(over_mm), 0),
            to_cover_ml=Millilitres(to_cover_ml, 0),
        )
        notices.append(notice("caution", "not-covered", text, COVER_MM))
    return FitAnswer(
        goes_in, covered, level - height, level, spare_ml, to_cover_ml, litres, tuple(notices)
    )


def _in_a_bag(request: FitRequest, meat_ml: float) -> FitAnswer:
    """A bag clings to what is in it, so that what fits is covered."""
    room_ml = 1000.0 * (request.vessel.litres or 0.0)
    spare_ml = room_ml - BAG_ROOM.value * meat_ml - request.liquid_ml
    fits = spare_ml >= 0
    notices = [
        *_material(request),
        *_room(fits=fits, spare_ml=spare_ml),
    ]
    litres = (meat_ml + request.liquid_ml) / 1000.0
    return FitAnswer(fits, fits, None, None, spare_ml, 0.0, litres, tuple(notices))


def _widest(vessel: Vessel) -> float:
    return vessel.diameter_mm or max(vessel.top_mm or 0.0, vessel.bottom_mm or 0.0)


def _volume_ml(vessel: Vessel, height_mm: float) -> float:
    """Volume below a height; above the rim the walls are thought to go on."""
    if vessel.shape == "box":
        return (vessel.length_mm or 0.0) * (vessel.width_mm or 0.0) * height_mm / 1000.0
    bottom = (vessel.diameter_mm or vessel.bottom_mm or 0.0) / 2.0
    top = (vessel.diameter_mm or vessel.top_mm or 0.0) / 2.0
    there = bottom + (top - bottom) * height_mm / (vessel.depth_mm or 1.0)
    return pi * height_mm / 3.0 * (bottom**2 + bottom * there + there**2) / 1000.0


def _level_mm(vessel: Vessel, poured_ml: float) -> float:
    if vessel.shape != "tapered":
        return poured_ml / _volume_ml(vessel, 1.0)
    low, high = 0.0, vessel.depth_mm or 0.0
    for _ in range(HALVINGS):
        middle = (low + high) / 2.0
        low, high = (middle, high) if _volume_ml(vessel, middle) < poured_ml else (low, middle)
    return high


def _material(request: FitRequest) -> list[Notice]:
    practice, vessel = Source("", Mark.PRACTICE), request.vessel
    is_wet = request.liquid_ml > 0 or request.has_cure
    if vessel.material in REACTIVE and not is_wet:
        text = say(
            "Bare {material}: a dry brine on a rack may stand in it. Liquid, acid and curing "
            "salt may not.",
            material=vessel.material,
        )
        return [notice("note", "reactive-metal", text, practice)]
    if vessel.material in REACTIVE:
        if request.hours is not None and request.hours <= BARE_METAL_H.value:
            return []
        stop = say(
            "Bare {material} reacts with salt and acid in {hours}: take glass, food plastic, "
            "stoneware or stainless steel.",
            material=vessel.material, hours=Hours(BARE_METAL_H.value),
        )  # fmt: skip
        return [notice("stop", "reactive-metal", stop, BARE_METAL_H)]
    if vessel.material == "unknown":
        unknown = "Make sure that no bare aluminium, copper or iron touches the brine."
        return [notice("caution", "unknown-material", unknown, practice)]
    return []


def _room(*, fits: bool, spare_ml: float) -> list[Notice]:
    if fits:
        return []
    over = (
        say("{over_ml} would run over.", over_ml=Millilitres(-spare_ml, 0)) if spare_ml < 0 else ""
    )
    geometry = Source("geometry", Mark.DERIVED)
    return [notice("stop", "too-small", joined(" ", ("The vessel is too small.", over)), geometry)]
