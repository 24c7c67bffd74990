"""What a kitchen teaches of salt, ovens, losses and beginnings, each with its band and its count.

Each figure is drawn towards the general one by what kitchens differ in (our own choice), so that
one dish moves it little; none is believed beyond what it is used within. Liking is learnt from
dishes whose salt is known, the speed of salt only from a heart that was cut or tasted: weight that
is gained is mostly water and tells nothing of it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, inf, log
from typing import Literal

import numpy as np

from pantry_core.conduction.shells import shells
from pantry_core.errors import within
from pantry_core.learning.estimate import Estimate, Unknown, Vector, between
from pantry_core.meat import LEAST_FACTOR, MOST_FACTOR, Meat
from pantry_core.salt.properties import at_temperature, band_of
from pantry_core.salt.request import SaltRequest, Stage
from pantry_core.salt.travel import begun, go_through

Saltiness = Literal["flat", "right", "salty", "too-salty"]

LIKING_SPREAD, LIKING_NOISE = 0.20, 0.12
"""Kitchens differ so much in how salty they like it, and one mouth from day to day (logarithms)."""
TASTES: dict[Saltiness, tuple[float, float]] = {
    "flat": (-inf, -0.2), "right": (-0.2, 0.2), "salty": (0.2, 0.5), "too-salty": (0.5, inf),
}  # fmt: skip
"""Between which logarithms of salt over what is liked each word is said (our own choice)."""
SPEED_SPREAD = 0.35
GREY_NOISE = 0.08
"""How well a cook sees how far the middle is still grey or bland, as a share of the thickness."""
BLAND = 0.5
"""Salt below this share of the mean is bland, or grey where it cures [-] (our own choice)."""
SPEEDS = np.exp(np.linspace(log(0.3), log(3.0), 25))
LEAST_H, MOST_H = 0.05, 100.0
LEAST_SALT_PCT, MOST_SALT_PCT = 0.05, 15.0
"""What lies outside was ticked in passing, or is no dish to learn from."""
OVEN_SPREAD, OVEN_NOISE = 0.18, 0.12
LOSS_SPREAD, LOSS_NOISE = 0.10, 0.04
LATE_SPREAD_MIN, LATE_NOISE_MIN = 20.0, 15.0


@dataclass(frozen=True, slots=True)
class Learnt:
    """A figure, its band that holds it nine times in ten, and from how many dishes.

    A factor on the general figure [-], or minutes of beginning late.
    """

    value: float
    low: float
    high: float
    count: int


@dataclass(frozen=True, slots=True)
class Tasted:
    """A dish whose salt is known: how much is in it, what is usual for its case [%], its taste."""

    salt_pct: float
    usual_pct: float
    taste: Saltiness


@dataclass(frozen=True, slots=True)
class HeartSeen:
    """A heart that was cut or tasted: what the piece went through, and which share is still bland.

    The share is of the thickness, 0 for seasoned or coloured through, 1 for not at all.
    """

    meat: Meat
    stages: tuple[Stage, ...]
    bland_share: float
    temperature_c: float = 4.0


@dataclass(frozen=True, slots=True)
class CookedIn:
    """Hours that were foretold, and hours that it took [h].

    `is_read`: a rising probe passed the mark then; else it was ready by then.
    """

    foretold_h: float
    took_h: float
    is_read: bool


@dataclass(frozen=True, slots=True)
class Lost:
    """Which share of a weight is usually lost at a stage, and which was [-]."""

    usual: float
    seen: float


def liking(tasted: Sequence[Tasted]) -> Learnt:
    """How salty a kitchen likes it.

    Parameters: tasted, dishes whose salt is known.
    Returns: a factor on the usual salt [-].
    Raises: OutOfRange for salt outside 0.05–15 %.
    Source: our own choice of words and bounds; the estimate by Bayes' rule.

    >>> round(liking([]).value, 9)
    1.0
    >>> salty = Tasted(2.0, 2.0, "salty")
    >>> liking([salty]).value > liking([salty] * 4).value
    True
    """
    unknown = Unknown(LIKING_SPREAD)
    for each in tasted:
        salt, usual = (
            within("salt", pct, LEAST_SALT_PCT, MOST_SALT_PCT, "%")
            for pct in (each.salt_pct, each.usual_pct)
        )
        bounds = TASTES[each.taste]
        unknown.likely(between(unknown.values, log(salt / usual), bounds, LIKING_NOISE))
    return _factor(unknown.estimate())


def salt_speed(hearts: Sequence[HeartSeen]) -> Learnt:
    """How fast salt goes into the pieces of a kitchen.

    Parameters: hearts that were cut or tasted in timed cures.
    Returns: a factor on the usual diffusivity [-].
    Raises: OutOfRange for a share outside 0–1.
    Source: the model of `salt.travel`; the estimate by Bayes' rule.
    """
    unknown = Unknown(SPEED_SPREAD)
    for each in hearts:
        seen = within("bland_share", each.bland_share, 0.0, 1.0)
        shares = [_bland_share(each, factor) for factor in SPEEDS]
        foretold = np.interp(np.exp(unknown.values), SPEEDS, shares)
        unknown.likely(_seen(foretold, seen))
    return _factor(unknown.estimate())


def _bland_share(heart: HeartSeen, factor: float) -> float:
    usual = at_temperature(band_of(heart.meat.kind).usual.value, heart.temperature_c)
    asked = SaltRequest(meat=heart.meat, diffusivity_m2_s=usual * factor, stages=heart.stages)
    piece = begun(asked)
    for stage in heart.stages:
        go_through(piece, stage)
    mean, layers = piece.salt_g / piece.water_g, np.maximum.accumulate(piece.layers)
    return float(np.interp(BLAND * mean, layers, shells(heart.meat.shape).middles, left=0.0))


def _seen(foretold: Vector, seen: float) -> Vector:
    """The chance of what was seen; at either end only that it is no further in."""
    bounds = (-GREY_NOISE / 2.0, GREY_NOISE / 2.0)
    if seen <= 0.0:
        bounds = (-inf, GREY_NOISE)
    elif seen >= 1.0:
        bounds = (-GREY_NOISE, inf)
    return between(foretold, seen, bounds, GREY_NOISE)


def appliance(times: Sequence[CookedIn]) -> Learnt:
    """How long an oven, a smoker or a pot takes, against what the heat model foretells.

    Parameters: times of the dishes that were cooked in it.
    Returns: a factor on the hours that are foretold [-].
    Raises: OutOfRange for hours outside 0.05–100.
    Source: the model of `heat.through`; the estimate by Bayes' rule.

    >>> slow = [CookedIn(2.0, 2.4, is_read=True)] * 6
    >>> 1.1 < appliance(slow).value < 1.2
    True
    """
    unknown = Unknown(OVEN_SPREAD)
    for each in times:
        foretold, took = (
            within("hours", h, LEAST_H, MOST_H, "h") for h in (each.foretold_h, each.took_h)
        )
        learn = unknown.measured if each.is_read else unknown.at_most
        learn(log(took / foretold), OVEN_NOISE)
    return _factor(unknown.estimate())


def loss(seen: Sequence[Lost]) -> Learnt:
    """How much is lost in trimming, or in cooking, against what is usual.

    Parameters: seen, what was lost of each dish.
    Returns: a factor on what is usually left [-].
    Raises: OutOfRange for shares outside 0–0.9.
    Source: the estimate by Bayes' rule.
    """
    unknown = Unknown(LOSS_SPREAD)
    for each in seen:
        usual, lost = (within("share lost", share, 0.0, 0.9) for share in (each.usual, each.seen))
        unknown.measured(log((1.0 - lost) / (1.0 - usual)), LOSS_NOISE)
    return _factor(unknown.estimate())


def lateness(minutes: Sequence[float]) -> Learnt:
    """How late the people of a kitchen begin.

    Parameters: minutes between what was planned and what was begun, early below 0 [min].
    Returns: minutes [min].
    Raises: OutOfRange for more than ten days.
    Source: the estimate by Bayes' rule.
    """
    unknown = Unknown(LATE_SPREAD_MIN)
    for each in minutes:
        unknown.measured(within("minutes", each, -14_400.0, 14_400.0, "min"), LATE_NOISE_MIN)
    found = unknown.estimate()
    return Learnt(found.value, found.low, found.high, found.count)


def _factor(found: Estimate) -> Learnt:
    value, low, high = (
        min(max(exp(each), LEAST_FACTOR), MOST_FACTOR)
        for each in (found.value, found.low, found.high)
    )
    return Learnt(value, low, high, found.count)
