"""What is to happen to a piece: the `salt` document."""

from typing import Annotated, Literal

from pydantic import Field

from pantry_core.document import Document
from pantry_core.meat import Meat
from pantry_core.rules.constants import SATURATION
from pantry_core.salt.properties import BOILS_C, LEAST_C, MOST_C

MOST_STAGES = 100
MOST_HOURS = 24.0 * 120
MOST_SOAK_H = 72.0
MOST_CHANGES = 50
SATURATED_G_G = SATURATION.value / (1.0 - SATURATION.value)
"""Salt in a saturated brine [g per g of water] (derived)."""

Hours = Annotated[float, Field(gt=0, le=MOST_HOURS)]
Grams = Annotated[float, Field(ge=0, le=1e6)]
Water = Annotated[float, Field(gt=0, le=1e6)]


class Surface(Document):
    """The rim is held at a strength [g salt per g water]."""

    kind: Literal["surface"]
    hours: Hours
    water_phase_g_g: Annotated[float, Field(ge=0, le=SATURATED_G_G)]


class Brine(Document):
    """The piece lies in a bath, well stirred, of so much water and salt [g]."""

    kind: Literal["brine"]
    hours: Hours
    water_g: Water
    salt_g: Grams


class Dry(Document):
    """Salt on the rim dissolves in the juice and goes in until it is used up [g]."""

    kind: Literal["dry"]
    hours: Hours
    salt_g: Grams


class Needle(Document):
    """Pickle goes in by needle: share of the meat's mass [-], its salt [% of the pickle]."""

    kind: Literal["needle"]
    share: Annotated[float, Field(ge=0, le=0.3)]
    salt_pct: Annotated[float, Field(ge=0, le=100 * SATURATION.value)]


class Rest(Document):
    """Nothing enters or leaves."""

    kind: Literal["rest"]
    hours: Hours


class Soak(Document):
    """Fresh water [g], renewed so many times, evenly."""

    kind: Literal["soak"]
    hours: Annotated[float, Field(gt=0, le=MOST_SOAK_H)]
    water_g: Water
    changes: Annotated[int, Field(ge=0, le=MOST_CHANGES)] = 0


class Pot(Document):
    """The piece simmers in so much water and salt [g] at a temperature [°C]."""

    kind: Literal["pot"]
    hours: Hours
    water_g: Water
    salt_g: Grams
    temperature_c: Annotated[float, Field(ge=LEAST_C, le=BOILS_C)]


Stage = Annotated[Surface | Brine | Dry | Needle | Rest | Soak | Pot, Field(discriminator="kind")]


class SaltRequest(Document):
    """A piece, its temperature [°C], its salt at the start [% of the meat], and its stages."""

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    meat: Meat
    temperature_c: Annotated[float, Field(ge=LEAST_C, le=MOST_C)] = 4.0
    diffusivity_m2_s: Annotated[float, Field(gt=0, le=1e-7)] | None = None
    start_pct: Annotated[float, Field(ge=0, le=30)] = 0.0
    stages: Annotated[tuple[Stage, ...], Field(strict=False, min_length=1, max_length=MOST_STAGES)]
