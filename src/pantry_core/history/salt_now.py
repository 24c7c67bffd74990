"""Where the salt of a piece is now, from what really happened, and when it will be ready."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from pantry_core.history.log import Log, hours_between
from pantry_core.history.salt import stages_since
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.readiness import even_pct, wait_of
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Ready
from pantry_core.salt.properties import band_of
from pantry_core.salt.ready import COOKED
from pantry_core.salt.request import SaltRequest, Stage
from pantry_core.salt.travel import End, ended


@dataclass(frozen=True, slots=True)
class SaltNow:
    """Salt of the meat now [%], and when the model calls it ready.

    What only seasons is ready by its hours: nobody waits for its centre.
    """

    mean_pct: float
    heart_pct: float
    rim_pct: float
    heart_low_pct: float
    heart_high_pct: float
    goal_pct: float
    ready_at: datetime | None
    is_out: bool
    seasons: bool

    @property
    def is_ready(self) -> bool:
        """Whether the heart has what makes it ready."""
        return self.heart_pct >= self.goal_pct


@dataclass(frozen=True, slots=True)
class Past:
    """What the piece went through, so long [h], and when its sheet called it ready."""

    request: WeighRequest
    ready: Ready | None
    stages: tuple[Stage, ...]
    hours_done: float
    is_out: bool


def past_of(request: WeighRequest, ready: Ready | None, log: Log, curing_step: str) -> Past | None:
    """What a piece went through.

    Parameters: request and ready of its sheet; log; curing_step, the id of its step in the cure.
    Returns: its past; None before it is in, or where the model is silent.
    Raises: OutOfRange.
    Source: the model of `salt.travel`.
    """
    put_in = log.put_in
    if put_in is None or (ready or wait_of(request)) is None:
        return None
    way = stages_since(request, log, curing_step)
    if way is None:
        return None
    out_at = log.taken_out(curing_step)
    return Past(request, ready, way, hours_between(put_in, out_at or log.now), out_at is not None)


def salt_now(past: Past, now: datetime) -> SaltNow:
    """Where the salt is now.

    Parameters: past; now.
    Returns: mean, centre and edge, the centre by both ends of the band, and when it will be ready.
    Raises: OutOfRange.
    Source: the model of `salt.travel`; the goal by common practice.
    """
    request, meat = past.request, past.request.meat
    band = band_of(meat.kind, meat.salt_speed)

    def end(diffusivity: float) -> End:
        return ended(SaltRequest(meat=meat, diffusivity_m2_s=diffusivity, stages=past.stages))

    usual = end(band.usual.value)
    even = request.target_salt_pct if request.is_lifted else even_pct(request, mixed(request))
    left_h = 24.0 * past.ready.days - past.hours_done if past.ready else 0.0
    return SaltNow(
        mean_pct=usual.mean_pct,
        heart_pct=usual.heart_pct,
        rim_pct=usual.rim_pct,
        heart_low_pct=end(band.low.value).heart_pct,
        heart_high_pct=end(band.high.value).heart_pct,
        goal_pct=COOKED.value * even,
        ready_at=None if past.is_out or left_h <= 0 else now + timedelta(hours=left_h),
        is_out=past.is_out,
        seasons=request.seasons,
    )
