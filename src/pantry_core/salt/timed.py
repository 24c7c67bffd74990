"""When to lift, and how long a needle shortens the wait: tables without dimensions, made once."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from pantry_core.conduction.shells import CLOSED, HELD, LAYERS, Vector, between, modes, shells
from pantry_core.errors import within
from pantry_core.meat import Meat, Shape
from pantry_core.salt.properties import at_temperature, band_of
from pantry_core.salt.ready import Wait
from pantry_core.salt.request import SATURATED_G_G
from pantry_core.salt.travel import hearts_of

BATHS = np.geomspace(1e-3, 1e4, 43)
"""Water of the bath in parts of the water of the piece."""
FRACTIONS = np.concatenate((np.geomspace(1e-3, 0.4, 26), 1.0 - np.geomspace(0.5, 0.004, 14)))
"""What the mean is to have when it is lifted, in parts of what it would have if left for ever."""
LIFTS = np.geomspace(1e-7, 20.0, 400)
RESTS = np.geomspace(1e-4, 10.0, 240)
"""Times in parts of way² / diffusivity."""
NEEDLE_BATHS = np.geomspace(0.02, 300.0, 90)
NEEDLE_TIMES = np.geomspace(1e-3, 10.0, 120)
EVERY = 2
"""Every second layer is enough to find the least salty one."""


@dataclass(frozen=True, slots=True)
class LiftWait:
    """The hour to lift [h], and when, after the rest, the piece is ready, with its band [d]."""

    lift_h: float
    wait: Wait


def lift_wait(
    meat: Meat, bath: float | None, fraction: float, share: float, temperature_c: float
) -> LiftWait | None:
    """When to lift from a strong brine or a heaped cure, and when it is ready after the rest.

    Parameters: meat; bath, its water in parts of the water of the piece (0.001 to 10000), None
    under heaped salt; fraction, the mean at the lift in parts of what it would have if left for
    ever; share of the mean that the least salty point must have, 0.70 or 0.85; temperature_c, 0 to
    15.
    Returns: lift and wait; None where the mean does not get there.
    Raises: OutOfRange.
    Source: Fick's second law; the rule by common practice. `salt.advice.lift_then_rest` reckons
    the same without a table.
    """
    if not FRACTIONS[0] <= fraction <= FRACTIONS[-1]:
        return None
    if bath is None:
        row = _lift_row(meat.shape, HELD, share)
        at_lift, at_ready = (_between(FRACTIONS, each, fraction) for each in row)
    else:
        within("ratio of the waters", bath, BATHS[0], BATHS[-1])
        left = min(int(np.searchsorted(BATHS, bath, side="right")) - 1, len(BATHS) - 2)
        rows = [_lift_row(meat.shape, float(BATHS[left + i]), share) for i in (0, 1)]
        at_lift, at_ready = (
            _between(
                BATHS[left : left + 2],
                [_between(FRACTIONS, row[which], fraction) for row in rows],
                bath,
            )
            for which in (0, 1)
        )
    days = _days(meat, temperature_c)
    return LiftWait(24.0 * at_lift * days[0], Wait(*(at_ready * each for each in days)))


def needle_wait(
    meat: Meat, bath: float, fraction: float, share: float, temperature_c: float
) -> Wait | None:
    """How long a piece waits after a needle, under what is left of the pickle or alone.

    Parameters: meat; bath, water of the cover in parts of the water of the swollen piece, 0 without
    a cover; fraction of all salt that went in by needle, 0 to 1; share of the even value that the
    least salty point must have, 0.70 or 0.85; temperature_c, 0 to 15.
    Returns: the wait; None for a bath out of proportion.
    Raises: OutOfRange.
    Source: Fick's second law; the needle spreads its pickle over the inner half.
    `salt.advice.needle_wait_h` reckons the same without a table.
    """
    within("fraction by needle", fraction, 0.0, 1.0)
    if bath > NEEDLE_BATHS[-1] or 0.0 < bath < NEEDLE_BATHS[0]:
        return None
    is_closed = bool(meat.closed_faces)
    if bath == 0.0:
        scaled = _needle_scaled(meat.shape, 0.0, 1.0, share, is_closed=is_closed)
    else:
        left = int(np.searchsorted(NEEDLE_BATHS, bath, side="right")) - 1
        ends = NEEDLE_BATHS[left : left + 2] if left < len(NEEDLE_BATHS) - 1 else NEEDLE_BATHS[-2:]
        waits = [
            _needle_scaled(meat.shape, float(end), fraction, share, is_closed=is_closed)
            for end in ends
        ]
        scaled = _between(ends, waits, bath)
    return Wait(*(scaled * each for each in _days(meat, temperature_c)))


def lift_fraction(meat: Meat, target_pct: float, even_pct: float | None) -> float:
    """The target in parts of what the meat would have if left for ever [%]; None: under a heap."""
    most_pct = 100.0 * SATURATED_G_G * meat.water_g_g if even_pct is None else even_pct
    return target_pct / most_pct if most_pct > 0 else 0.0


def _days(meat: Meat, temperature_c: float) -> tuple[float, float, float]:
    """way² / diffusivity by the usual, the fast and the slow end of the band [d]."""
    band = band_of(meat.kind, meat.salt_speed)
    way_m = meat.thickness_mm / 1000.0 * (1.0 if meat.closed_faces else 0.5)
    usual, fast, slow = (
        way_m**2 / at_temperature(rule.value, temperature_c) / 86400.0
        for rule in (band.usual, band.high, band.low)
    )
    return usual, fast, slow


def _between(xs: Vector, ys: Vector | list[float], x: float) -> float:
    """Between the entries of a row, both on a scale of logarithms."""
    return float(np.exp(np.interp(np.log(x), np.log(xs), np.log(ys))))


@lru_cache(maxsize=512)
def _lift_row(shape: Shape, bath: float, share: float) -> tuple[Vector, Vector]:
    """Times to lift and to be ready for every fraction."""
    lifts, hearts = _lifted(shape, bath)
    rests = [_first(column, share, RESTS) for column in hearts.T]
    return lifts, lifts + np.asarray(rests)


@lru_cache(maxsize=256)
def _lifted(shape: Shape, bath: float) -> tuple[Vector, Vector]:
    """Times to lift, and the heart in parts of the mean while it rests, a column a fraction."""
    if bath == HELD:
        state, offset = np.full(LAYERS, -1.0), 1.0
    else:
        state, offset = np.zeros(LAYERS + 1), 0.0
        state[-1] = (1.0 + bath) / bath
    system, shares = modes(shape, bath), shells(shape).shares
    weights = np.zeros(len(state))
    weights[:LAYERS] = shares
    means = offset + system.course(state, weights).at(LIFTS)
    lifts = np.exp(np.interp(FRACTIONS, np.maximum.accumulate(means), np.log(LIFTS)))
    profiles = offset + system.later(state, lifts)[:, :LAYERS]
    return lifts, _heart_later(shape) @ profiles.T / (profiles @ shares)


@lru_cache(maxsize=8)
def _heart_later(shape: Shape) -> Vector:
    """What each layer's salt gives the heart of a resting piece, a row a time of RESTS."""
    closed = modes(shape, CLOSED)
    columns = [hearts_of(closed.later(unit, RESTS), shape) for unit in np.eye(LAYERS)]
    return np.asarray(columns).T


def _needle_scaled(
    shape: Shape, bath: float, fraction: float, share: float, *, is_closed: bool
) -> float:
    """The wait in parts of way² / diffusivity."""
    by_needle, by_bath = _needle_rows(shape, bath, is_closed=is_closed)
    least = (fraction * by_needle + (1.0 - fraction) * by_bath).min(axis=1)
    return _first(least, share, NEEDLE_TIMES)


@lru_cache(maxsize=1024)
def _needle_rows(shape: Shape, bath: float, *, is_closed: bool) -> tuple[Vector, Vector]:
    """Heart and layers over NEEDLE_TIMES, in parts of the even value, a row a time.

    First when all salt went in by needle, then when all is in the bath: what lies between is the
    sum of its parts, for diffusion is linear.
    """
    layers = shells(shape)
    low, high = (0.25, 0.75) if is_closed else (0.0, 0.5)
    inner = between(shape, low, high)
    inner = inner / float(layers.shares @ inner) * (1.0 + bath)
    system = modes(shape, bath if bath > 0 else CLOSED)
    outside = np.zeros(LAYERS)
    if bath > 0:
        inner = np.append(inner, 0.0)
        outside = np.append(outside, (1.0 + bath) / bath)
    return _heart_and_layers(system.later(inner, NEEDLE_TIMES), shape), _heart_and_layers(
        system.later(outside, NEEDLE_TIMES), shape
    )


def _heart_and_layers(rows: Vector, shape: Shape) -> Vector:
    return np.column_stack((hearts_of(rows[:, :LAYERS], shape), rows[:, :LAYERS:EVERY]))


def _first(values: Vector, share: float, times: Vector) -> float:
    """When values, in the end above a share, get there for good."""
    below = np.flatnonzero(values < share)
    if not len(below):
        return float(times[0])
    at = min(int(below[-1]) + 1, len(times) - 1)
    low, high = values[at - 1], values[at]
    part = min(max((share - low) / (high - low), 0.0), 1.0) if high > low else 1.0
    return float(times[at - 1] * (times[at] / times[at - 1]) ** part)
