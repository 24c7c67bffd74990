"""When a piece is ready: from a table without dimensions, worked out once for each shape."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from pantry_core.conduction.shells import (
    CLOSED,
    HELD,
    LAYERS,
    POWER,
    Vector,
    centre_weights,
    modes,
    time_to_take,
)
from pantry_core.errors import within
from pantry_core.meat import Meat, Shape
from pantry_core.rules.rule import Mark, Rule
from pantry_core.salt.properties import at_temperature, band_of

COOKED = Rule("ready-cooked", 0.70, "of the even value", "for what will be cooked", Mark.PRACTICE)
RAW_FISH = Rule("ready-raw", 0.85, "of the even value", "for fish eaten raw", Mark.PRACTICE)
EVEN = Rule("even", 0.85, "of the even value", "as good as even", Mark.PRACTICE)

Supply = Literal["bath", "dry"]
"""Where the salt comes from: a bath of its own water, or dry salt on the rim."""

BATHS = np.geomspace(1e-3, 1e4, 71)
"""Water of the bath in parts of the water of the piece."""
DRY = np.concatenate((np.geomspace(1e-3, 0.5, 36), 1.0 - np.geomspace(0.45, 0.02, 14)))
"""Even concentration of a dry cure in parts of saturation."""
TIMES = np.geomspace(1e-3, 20.0, 600)
"""Times in parts of way² / diffusivity."""


@dataclass(frozen=True, slots=True)
class Wait:
    """Days until the heart has its share of the even value, usual, and as the band has it [d]."""

    days: float
    days_low: float
    days_high: float


def wait(
    meat: Meat, supply: Supply, ratio: float, share: float, temperature_c: float
) -> Wait | None:
    """How long until the least salty point has a share of what it will have when all is even.

    Parameters: meat; supply; ratio, for a bath its water in parts of the water of the piece (0.001
    to 10000), for dry salt the even concentration in parts of saturation (up to 0.98); share, 0.70
    or 0.85; temperature_c, 0 to 15.
    Returns: days; None where the share is not reached, as when dry salt is more than dissolves.
    Raises: OutOfRange.
    Source: Fick's second law; Crank, The Mathematics of Diffusion (figures of agreement in
    docs/method.md).

    >>> piece = Meat(kind="pork", mass_g=1000.0, thickness_mm=25.4, shape="slab")
    >>> round(wait(piece, "bath", 1 / 0.74, 0.85, 4.0).days, 1)
    4.5
    """
    if supply == "bath":
        within("ratio of the waters", ratio, BATHS[0], BATHS[-1])
    else:
        within("even concentration in parts of saturation", ratio, 0.0, 1e6)
    if supply == "dry" and ratio > DRY[-1]:
        return None
    band = band_of(meat.kind, meat.salt_speed)
    way_m = meat.thickness_mm / 1000.0 * (1.0 if meat.closed_faces else 0.5)
    scaled = scaled_wait(meat.shape, supply, ratio, share)
    usual, slow, fast = (
        scaled * way_m**2 / at_temperature(rule.value, temperature_c) / 86400.0
        for rule in (band.usual, band.low, band.high)
    )
    return Wait(usual, fast, slow)


def scaled_wait(shape: Shape, supply: Supply, ratio: float, share: float) -> float:
    """The wait in parts of way² / diffusivity, between the entries of the table."""
    ratios = BATHS if supply == "bath" else DRY
    ratio = max(ratio, float(ratios[0]))
    entries = table(shape, supply, share)
    return float(np.exp(np.interp(np.log(ratio), np.log(ratios), np.log(entries))))


@lru_cache(maxsize=32)
def table(shape: Shape, supply: Supply, share: float) -> Vector:
    """Waits for every ratio of a supply, in parts of way² / diffusivity."""
    follow, ratios = (_in_a_bath, BATHS) if supply == "bath" else (_under_dry_salt, DRY)
    return np.asarray([_crossing(follow(shape, float(ratio)), share) for ratio in ratios])


def work_out_tables() -> None:
    """Work out every table ahead of the first question, which would wait a second for them.

    Raises: nothing.
    """
    supplies: tuple[Supply, ...] = ("bath", "dry")
    for shape in POWER:
        for supply in supplies:
            for share in {COOKED.value, RAW_FISH.value, EVEN.value}:
                table(shape, supply, share)


@lru_cache(maxsize=512)
def _in_a_bath(shape: Shape, bath: float) -> Vector:
    """The heart in parts of the even value, over TIMES, all salt being in the bath at first."""
    state = np.zeros(LAYERS + 1)
    state[-1] = (1.0 + bath) / bath
    heart = np.append(centre_weights(shape), 0.0)
    return np.maximum(modes(shape, bath).course(state, heart).at(TIMES), 0.0)


@lru_cache(maxsize=512)
def _under_dry_salt(shape: Shape, even: float) -> Vector:
    """The heart in parts of the even value, over TIMES, with saturation as 1."""
    held, bare, heart = modes(shape, HELD), np.full(LAYERS, -1.0), centre_weights(shape)
    before = 1.0 + held.course(bare, heart).at(TIMES)
    used_up = time_to_take(shape, bare, even)
    profile = 1.0 + held.later(bare, np.asarray([used_up]))[0]
    after = modes(shape, CLOSED).course(profile, heart).at(np.maximum(TIMES - used_up, 0.0))
    return np.asarray(np.maximum(np.where(used_up > TIMES, before, after), 0.0) / even)


def _crossing(hearts: Vector, share: float) -> float:
    """When the heart first has its share."""
    at = int(np.argmax(hearts >= share))
    low, high = hearts[at - 1], hearts[at]
    part = (share - low) / (high - low)
    return float(np.exp(np.log(TIMES[at - 1]) + part * np.log(TIMES[at] / TIMES[at - 1])))
