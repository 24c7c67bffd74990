"""Where the salt of a dish is now, from what really happened, and what a tasting asks for."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from pantry_core.formats.operations import weigh_out_from
from pantry_core.history.log import hours_between
from pantry_core.history.salt import stages_since
from pantry_core.history.tastes import TasteAnswer, WeighIn, answer_to, weighed_in
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.readiness import even_pct, wait_of
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Ready
from pantry_core.routes.ways import WAYS
from pantry_core.salt.properties import band_of
from pantry_core.salt.ready import COOKED
from pantry_core.salt.request import SaltRequest, Stage
from pantry_core.salt.travel import End, ended
from pantry_web.feasts.models import Event, WeighSheet
from pantry_web.feasts.state import log_from
from pantry_web.planning.outlook import Outlook


@dataclass(frozen=True, slots=True)
class SaltNow:
    """Salt of the meat now [%], and when the model calls it ready."""

    mean_pct: float
    heart_pct: float
    rim_pct: float
    heart_low_pct: float
    heart_high_pct: float
    goal_pct: float
    ready_at: datetime | None
    is_out: bool

    @property
    def is_ready(self) -> bool:
        """Whether the heart has what makes it ready."""
        return self.heart_pct >= self.goal_pct


@dataclass(frozen=True, slots=True)
class Past:
    """What the piece went through, and when its sheet called it ready."""

    request: WeighRequest
    ready: Ready | None
    stages: tuple[Stage, ...]
    hours_done: float
    is_out: bool


def past_of(view: Outlook) -> Past | None:
    """What the piece went through; None before it is in, or where the model is silent."""
    put_in = view.state.put_in
    if put_in is None:
        return None
    kept = WeighSheet.objects.get(batch=put_in.batch)
    request, sheet = WeighRequest.model_validate(kept.request), weigh_out_from(kept.answer)
    if (sheet.ready or wait_of(request)) is None:
        return None
    key = put_in.step_key
    log = log_from(view.state, view.now)
    way = stages_since(request, log, key)
    if way is None:
        return None
    out_at = log.taken_out(key)
    done_h = hours_between(put_in.at, out_at or view.now)
    return Past(request, sheet.ready, way, done_h, out_at is not None)


def salt_now(view: Outlook, past: Past | None) -> SaltNow | None:
    """Where the salt is now."""
    if past is None:
        return None
    band = band_of(past.request.meat.kind)

    def end(diffusivity: float) -> End:
        meat = past.request.meat
        return ended(SaltRequest(meat=meat, diffusivity_m2_s=diffusivity, stages=past.stages))

    usual = end(band.usual.value)
    request = past.request
    even = request.target_salt_pct if request.is_lifted else even_pct(request, mixed(request))
    goal = COOKED.value * even
    left_h = 24.0 * past.ready.days - past.hours_done if past.ready else 0.0
    ready_at = None
    if not past.is_out and left_h > 0:
        ready_at = view.now + timedelta(hours=left_h)
    return SaltNow(
        mean_pct=usual.mean_pct,
        heart_pct=usual.heart_pct,
        rim_pct=usual.rim_pct,
        heart_low_pct=end(band.low.value).heart_pct,
        heart_high_pct=end(band.high.value).heart_pct,
        goal_pct=goal,
        ready_at=ready_at,
        is_out=past.is_out,
    )


def taste_answer(view: Outlook, past: Past | None) -> TasteAnswer | None:
    """What the last slice asks for: nothing, or a soak so long."""
    tasted = _last(view, Event.What.TASTED)
    if tasted is None or past is None:
        return None
    return answer_to(tasted.taste, past.request.meat, past.stages)  # type: ignore[arg-type]  # the database holds tastes


def weigh_in(view: Outlook) -> WeighIn | None:
    """The last weight since the piece went in against the weight that went in."""
    put_in, weighed = view.state.put_in, _last(view, Event.What.WEIGHED)
    if put_in is None or weighed is None or not put_in.mass_g or not weighed.mass_g:
        return None
    way = WAYS.get(view.dish.cure.get("method", ""))
    return weighed_in(put_in.mass_g, weighed.mass_g, way.group) if way else None


def _last(view: Outlook, what: Event.What) -> Event | None:
    put_in = view.state.put_in
    return next(
        (
            each
            for each in reversed(view.state.events)
            if each.what == what and put_in is not None and each.pk > put_in.pk
        ),
        None,
    )
