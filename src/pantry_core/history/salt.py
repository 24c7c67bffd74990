"""The salt of a piece from what happened: when it went in, how cold it was, when it came out."""

from collections.abc import Sequence
from dataclasses import dataclass

from pantry_core.errors import within
from pantry_core.history.log import Log, hours_between
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.readiness import stages
from pantry_core.mixes.request import WeighRequest
from pantry_core.salt.properties import LEAST_C, MOST_C, at_temperature
from pantry_core.salt.request import MOST_HOURS, Rest, Stage


@dataclass(frozen=True, slots=True)
class Reading:
    """A temperature from an hour after the piece went in, until the next reading [h, °C]."""

    after_h: float
    temperature_c: float


def hours_at_4_c(hours: float, readings: Sequence[Reading]) -> float:
    """How long the same way would have taken at 4 °C.

    Parameters: hours since the piece went in, 0 to a year; readings in order; before the first it
    was 4 °C. A reading outside 0 to 15 °C counts as the nearer end: frozen meat stands still, and
    meat that warm is past saving.
    Returns: hours at 4 °C [h].
    Raises: OutOfRange.
    Source: diffusivity as T over the viscosity of water (derived).

    >>> hours_at_4_c(24.0, [])
    24.0
    >>> 26 < hours_at_4_c(24.0, [Reading(12.0, 10.0)]) < 27
    True
    """
    within("hours", hours, 0.0, 24.0 * 366, "h")
    total, since, pace = 0.0, 0.0, 1.0
    for reading in readings:
        until = min(max(reading.after_h, since), hours)
        total += (until - since) * pace
        clipped = min(max(reading.temperature_c, LEAST_C), MOST_C)
        since, pace = until, at_temperature(1.0, clipped)
    return total + (hours - since) * pace


def stages_since(request: WeighRequest, log: Log, curing_step: str) -> tuple[Stage, ...] | None:
    """What a piece went through since it went in, as stages of the salt's way.

    Parameters: request of its sheet; log; curing_step, the id of its step in the cure.
    Returns: the cure, as long as it would have taken at 4 °C, and the rest since it came out; None
    before it is in.
    Raises: OutOfRange.
    Source: the model of `salt.travel`.
    """
    put_in = log.put_in
    if put_in is None:
        return None
    out_at = log.taken_out(curing_step)
    readings = [
        Reading(hours_between(put_in, each.at), each.temperature_c)
        for each in log.happened
        if each.temperature_c is not None and each.step == curing_step and each.at >= put_in
    ]
    hours = min(hours_at_4_c(hours_between(put_in, out_at or log.now), readings), MOST_HOURS)
    if hours <= 0:
        return None
    way: tuple[Stage, ...] = tuple(stages(request, mixed(request), hours, None))
    rested_h = hours_between(out_at, log.now) if out_at else 0.0
    if rested_h > 0:
        way = (*way, Rest(kind="rest", hours=min(rested_h, MOST_HOURS)))
    return way
