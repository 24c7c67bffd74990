"""When it is done: the hour with its band, fitted to what the probe has read."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import exp, log, sqrt
from typing import Final

import numpy as np

from pantry_core.conduction.shells import Vector
from pantry_core.heat.body import DIFFUSIVITY_HIGH, DIFFUSIVITY_LOW, Body
from pantry_core.heat.media import MEDIA
from pantry_core.heat.stages import Doubt, Stage
from pantry_core.heat.through import Journey, followed
from pantry_core.rules.rule import Mark, Rule

ONE_SIDE: Final = 1.28
"""A band of eight in ten reaches so many standard deviations either way."""
NEVER_TIMES: Final = 3.0
"""What never gets there counts as taking so many times as long."""
LEAST_FILM_DOUBT: Final = 0.05


def _loosely(name: str, value: float, unit: str, why: str) -> Rule:
    return Rule(name, value, unit, why, Mark.PRACTICE)


_OF_LOG: Final = "of its logarithm"
SIZE_DOUBT: Final = _loosely("forecast-size", 0.4, _OF_LOG, "no joint is a cylinder")
FILM_DOUBT: Final = _loosely("forecast-film", 2.0, "bands of the film", "no fire is steady")
DRYING_DOUBT: Final = _loosely("forecast-drying", 1.6, _OF_LOG, "surfaces differ")
DRYING_BAND: Final = _loosely("drying-band", 0.7, _OF_LOG, "surfaces differ")
MOIST_DOUBT: Final = _loosely("forecast-moisture", 0.9, _OF_LOG, "vents and pans of water differ")
READ_C: Final = _loosely("probe-doubt", 0.4, "°C", "a probe and its place")
DRIFT_C_H: Final = _loosely("model-drift", 6.0, "°C/h back from the last reading", "no model holds")
UNTOLD: Final = _loosely("forecast-least", 0.18, "of what is left, either way", "no fire is steady")
"""How far piece, fire and surface are let to be off when readings tell of them (our choice)."""


@dataclass(frozen=True, slots=True)
class Reading:
    """What the probe read in the thickest part, so long after the beginning [h, °C]."""

    at_h: float
    inside_c: float


@dataclass(frozen=True, slots=True)
class Done:
    """When the last goal is reached, usually and within its band, from the beginning [h]."""

    usual: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Forecast:
    """When it is done, how piece and fire differ from the usual, and the way that it takes."""

    done: Done | None
    doubt: Doubt
    journey: Journey | None


def forecast(
    body: Body,
    start_c: float,
    stages: Sequence[Stage],
    readings: Sequence[Reading] = (),
    thickness_doubt: float = 0.0,
) -> Forecast:
    """When the heart has the temperature that the last stage goes on until.

    Parameters: body; start_c [°C]; stages, of which the last one has `until_c`; readings that are
    believed; thickness_doubt, of a thickness that was guessed, in parts of it either way.
    Returns: the hour and its band of about eight in ten; None where it is never reached.
    Raises: OutOfRange.
    Source: the model of `through`; diffusivity, film, drying and moisture are fitted by least
    squares, each held to its own band, late readings counting most.
    """
    if readings:
        found, spread = _fitted(body, start_c, stages, readings, _let_off(stages))
    else:
        sigmas = _published(stages, thickness_doubt)
        found, spread = np.zeros(len(sigmas)), np.diag(np.square(sigmas))
    doubt = _doubt(found)
    journey = followed(body, start_c, stages, doubt)
    if journey is None:
        return Forecast(None, doubt, None)
    usual = journey.ends_h[-1]
    if usual == 0.0:
        return Forecast(Done(0.0, 0.0, 0.0), doubt, journey)
    sure_h = max((each.at_h for each in readings), default=0.0)
    off = _ways_of_being_off(spread) if readings else _all_at_once(spread)
    low, high = _band(body, start_c, stages, found, off, usual)
    least = UNTOLD.value * max(usual - sure_h, 0.0) if readings else 0.0
    low, high = min(low, usual - least), max(high, usual + least)
    return Forecast(Done(usual, max(low, min(sure_h, usual)), high), doubt, journey)


def edges_of(stages: Sequence[Stage], thickness_doubt: float) -> tuple[Doubt, Doubt]:
    """How piece and fire differ from the usual at the slow and at the quick edge of the band.

    Parameters: stages; thickness_doubt, in parts of the thickness either way.
    """
    (step,) = _all_at_once(np.diag(np.square(_published(stages, thickness_doubt))))
    return _doubt(-step), _doubt(step)


def _published(stages: Sequence[Stage], thickness_doubt: float) -> Vector:
    """How far diffusivity, film and drying may be off before anything is read, in logarithms."""
    moves = log(DIFFUSIVITY_HIGH.value / DIFFUSIVITY_LOW.value) / 2.0
    own = sqrt(moves**2 + (2.0 * thickness_doubt) ** 2)
    return np.asarray([own, _film_doubt(stages), DRYING_BAND.value, 0.0]) / ONE_SIDE


def _let_off(stages: Sequence[Stage]) -> Vector:
    """How far they are let to be off where readings tell, in logarithms."""
    film = FILM_DOUBT.value * _film_doubt(stages)
    doubts = [SIZE_DOUBT.value, film, DRYING_DOUBT.value, MOIST_DOUBT.value]
    return np.asarray(doubts) / ONE_SIDE


def _film_doubt(stages: Sequence[Stage]) -> float:
    """Half of the widest band of a film among the stages, in logarithms."""
    media = [MEDIA[stage.medium] for stage in stages if stage.film is None]
    widths = [log(each.film_high.value / each.film_low.value) / 2.0 for each in media]
    return max([LEAST_FILM_DOUBT, *widths])


def _doubt(logs: Vector) -> Doubt:
    return Doubt(*(exp(float(each)) for each in logs))


def _fitted(
    body: Body,
    start_c: float,
    stages: Sequence[Stage],
    readings: Sequence[Reading],
    sigmas: Vector,
) -> tuple[Vector, Vector]:
    """The likeliest logarithms, and their covariance."""
    from scipy.optimize import least_squares  # noqa: PLC0415 - it takes 0.3 s to import

    at = np.asarray([each.at_h for each in readings])
    read = np.asarray([each.inside_c for each in readings])
    apart = max(1.0, len(at) / 8.0)  # readings a minute apart do not tell sixty things
    weights = 1.0 / (sqrt(apart) * (READ_C.value + DRIFT_C_H.value * (at.max() - at)))
    along = _until(stages, float(at.max()))

    def residuals(logs: Vector) -> Vector:
        journey = followed(body, start_c, along, _doubt(logs))
        told = np.full_like(read, start_c)
        if journey is not None:
            told = np.interp(at, journey.hours, journey.heart_c)
        return np.concatenate((weights * (told - read), logs / sigmas))

    found = least_squares(residuals, np.zeros(len(sigmas)), diff_step=0.05, xtol=1e-3, max_nfev=12)
    return found.x, np.linalg.inv(found.jac.T @ found.jac)


def _until(stages: Sequence[Stage], hours: float) -> list[Stage]:
    """The stages, the last of them by its hours: so that each reading is compared."""
    return [*stages[:-1], replace(stages[-1], until_c=None, hours=max(hours, 0.01))]


def _ways_of_being_off(spread: Vector) -> list[Vector]:
    """Steps from the likeliest to the ends of the band, one for each way of being off."""
    values, vectors = np.linalg.eigh(spread)
    return [
        ONE_SIDE * sqrt(max(float(value), 0.0)) * vector
        for value, vector in zip(values, vectors.T, strict=True)
    ]


def _all_at_once(spread: Vector) -> list[Vector]:
    """Before anything is read, one step for all: everything slow, or quick, but not wholly."""
    sizes = ONE_SIDE * np.sqrt(np.diag(spread)) / sqrt(2.0)
    return [sizes * np.asarray([1.0, 1.0, -1.0, 0.0])]


def _band(
    body: Body,
    start_c: float,
    stages: Sequence[Stage],
    found: Vector,
    off: Sequence[Vector],
    usual: float,
) -> tuple[float, float]:
    """The hours at the ends of the band: each way of being off, and what they come to together."""
    shorter, longer = 0.0, 0.0
    for step in off:
        ends = [_end(body, start_c, stages, found + sign * step, usual) for sign in (-1.0, 1.0)]
        shorter += min(0.0, *(log(end / usual) for end in ends)) ** 2
        longer += max(0.0, *(log(end / usual) for end in ends)) ** 2
    return usual * exp(-sqrt(shorter)), usual * exp(sqrt(longer))


def _end(body: Body, start_c: float, stages: Sequence[Stage], logs: Vector, usual: float) -> float:
    journey = followed(body, start_c, stages, _doubt(logs))
    return NEVER_TIMES * usual if journey is None else max(journey.ends_h[-1], 1e-3 * usual)
