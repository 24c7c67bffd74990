"""The salt inside a piece by day, for a mix: what the picture and the comparison need."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from pantry_core.conduction.shells import Vector
from pantry_core.errors import within
from pantry_core.meat import Meat
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.readiness import readiness, stages, wait_of
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Ready
from pantry_core.salt.properties import at_temperature, band_of
from pantry_core.salt.request import SaltRequest
from pantry_core.salt.travel import followed

NOT_INTACT = "not intact any more: hotter inside, never rare"
RINGS, SAMPLES, BAND_SAMPLES = 14, 44, 20


@dataclass(frozen=True, slots=True)
class Inside:
    """Salt of the meat by day [%]: rim, mean, heart and its band, and rings from the heart out."""

    days: tuple[float, ...]
    rim: tuple[float, ...]
    mean: tuple[float, ...]
    heart: tuple[float, ...]
    heart_slow: tuple[float, ...]
    heart_fast: tuple[float, ...]
    rings: tuple[tuple[float, ...], ...]


@dataclass(frozen=True, slots=True)
class Change:
    """What a change would make of the wait [d]; `gives_up` says at what price."""

    name: str
    days: float
    gives_up: str


def inside(request: WeighRequest, days: float, wait: Ready | None = None) -> Inside | None:
    """The salt's way through the piece of a mix.

    Parameters: request; days to look ahead, 0.1 to 120; wait, when it is ready, where that is known
    already. A piece that must be lifted rests after it.
    Returns: salt by day; the heart also for the slow and the fast end of the band. None where the
    model does not reach or nothing is salted.
    Raises: OutOfRange.
    Source: the model of `salt.travel`.
    """
    within("days", days, 0.1, 120.0, "d")
    mix = mixed(request)
    wait = wait or wait_of(request)
    if wait is None:
        return None
    lift_h = 24.0 * request.days if request.days and request.is_lifted else wait.lift_h
    way = tuple(stages(request, mix, 24.0 * days, lift_h))
    band = band_of(request.meat.kind, request.meat.salt_speed)

    def asked(diffusivity: float) -> SaltRequest:
        return SaltRequest(
            meat=request.meat,
            diffusivity_m2_s=at_temperature(diffusivity, request.temperature_c),
            stages=way,
        )

    usual = followed(asked(band.usual.value), most_samples=SAMPLES)
    hours = np.asarray(usual.hours)
    slow, fast = (
        followed(asked(rule.value), most_samples=BAND_SAMPLES) for rule in (band.low, band.high)
    )
    return Inside(
        days=_rounded(hours / 24.0),
        rim=_rounded(usual.rim_pct),
        mean=_rounded(usual.mean_pct),
        heart=_rounded(usual.heart_pct),
        heart_slow=_rounded(np.interp(hours, slow.hours, slow.heart_pct)),
        heart_fast=_rounded(np.interp(hours, fast.hours, fast.heart_pct)),
        rings=tuple(map(tuple, np.round(usual.rings_pct(RINGS), 3).tolist())),
    )


def changes(request: WeighRequest, ready: Ready) -> tuple[Change, ...]:
    """What other cuts of the same piece would be ready sooner, the quickest first.

    Parameters: request; ready, as it is now.
    Returns: those changes that help, each with its wait [d].
    Raises: nothing for a request that could be made.
    Source: the model of `salt.travel` and `salt.ready`.
    """
    found = (each for each in _cuts(request) if each.days < ready.days)
    return tuple(sorted(found, key=lambda each: each.days))


def _cuts(request: WeighRequest) -> Iterator[Change]:
    meat, mix = request.meat, mixed(request)
    opened = [
        ("Opened flat, or cut in two, to half the thickness",
         {"thickness_mm": meat.thickness_mm / 2}, "a thinner piece cooks drier"),
    ]  # fmt: skip
    if meat.closed_faces:
        opened.append(("Skin or fat cap off", {"closed_faces": 0}, "no crackling"))
        opened.append(("Skin pricked all over", {"closed_faces": 0}, NOT_INTACT))
    for name, values, gives_up in opened:
        other = Meat.model_validate(meat.model_dump() | values)
        ready = readiness(request.model_copy(update={"meat": other}), mix)
        if ready is not None:
            yield Change(name, ready.days, gives_up)


def _rounded(values: Vector) -> tuple[float, ...]:
    return tuple(np.round(values, 3).tolist())
