"""Where the salt of a dish is now, from what really happened, and what a tasting asks for."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from pantry_core.formats.operations import weigh_out_from
from pantry_core.history.salt import Reading, hours_at_4_c
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.readiness import even_pct, stages, wait_of
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Ready
from pantry_core.routes.steps import CURING
from pantry_core.salt.advice import SoakAdvice, soak_to
from pantry_core.salt.properties import band_of
from pantry_core.salt.ready import COOKED
from pantry_core.salt.request import MOST_HOURS, Rest, SaltRequest, Stage
from pantry_core.salt.travel import End, ended
from pantry_web.feasts.mixing import mix_of
from pantry_web.feasts.models import Event, WeighSheet
from pantry_web.feasts.planning import Outlook
from pantry_web.quantities import hours_of

SALTY_LESS, TOO_SALTY_LESS = 0.80, 0.65
"""What is left of the salt after the soak that a salty or a too salty slice asks for (practice)."""
SOAK_WATER_PER_MEAT, SOAK_CHANGES = 2.0, 2
"""Fresh water for a soak, and how often it is changed (common practice)."""
LONG_SOAK_H = 24.0
"""A soak longer than this is out of the usual (common practice)."""
USUAL_CHANGE_PCT = {
    "Brine": (1.0, 10.0), "Dry": (-8.0, -0.5), "Needle": (2.0, 15.0), "Marinade": (-5.0, 5.0),
    "Side": (-30.0, 5.0),
}  # fmt: skip
"""Gain or loss of weight by the time it comes out [%] (common practice)."""


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
class TasteAnswer:
    """What the last tasting asks for."""

    taste: str
    soak: SoakAdvice | None
    soak_water_g: float

    @property
    def is_long(self) -> bool:
        """Whether the soak is longer than cooks soak."""
        return self.soak is not None and self.soak.hours > LONG_SOAK_H


@dataclass(frozen=True, slots=True)
class WeighIn:
    """The last weight against that before, and what is usual by the end [%]."""

    change_pct: float
    low_pct: float
    high_pct: float
    is_usual: bool

    @property
    def change(self) -> float:
        """The change without its sign [%]."""
        return abs(self.change_pct)


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
    wait = sheet.ready or wait_of(request)
    if wait is None:
        return None
    key = next(step.key for step in view.steps if step.kind in CURING)
    out_at = view.state.facts[key].ended_at
    readings = [
        Reading(hours_of(event.at - put_in.at), event.temperature_c)
        for event in view.state.events
        if event.temperature_c is not None and event.step_key == key and event.at >= put_in.at
    ]
    lain_h = hours_of((out_at or view.now) - put_in.at)
    hours = min(hours_at_4_c(lain_h, readings), MOST_HOURS)
    if hours <= 0:
        return None
    way: tuple[Stage, ...] = tuple(stages(request, mixed(request), hours, None))
    rested_h = hours_of(view.now - out_at) if out_at else 0.0
    if rested_h > 0:
        way = (*way, Rest(kind="rest", hours=min(rested_h, MOST_HOURS)))
    return Past(request, sheet.ready, way, hours, out_at is not None)


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
    meat = past.request.meat
    soak_water_g = SOAK_WATER_PER_MEAT * meat.mass_g
    less = {Event.Taste.SALTY: SALTY_LESS, Event.Taste.TOO_SALTY: TOO_SALTY_LESS}.get(
        Event.Taste(tasted.taste)
    )
    soak = None
    if less is not None:
        mean_pct = ended(SaltRequest(meat=meat, stages=past.stages)).mean_pct
        soak = soak_to(meat, past.stages, less * mean_pct, soak_water_g, SOAK_CHANGES)
    return TasteAnswer(tasted.taste, soak, soak_water_g)


def weigh_in(view: Outlook) -> WeighIn | None:
    """The last weight since the piece went in against the weight that went in."""
    put_in, weighed = view.state.put_in, _last(view, Event.What.WEIGHED)
    if put_in is None or weighed is None or not put_in.mass_g or not weighed.mass_g:
        return None
    change = 100.0 * (weighed.mass_g / put_in.mass_g - 1.0)
    low, high = USUAL_CHANGE_PCT[mix_of(view.dish).way.group]
    return WeighIn(change, low, high, low <= change <= high)


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
