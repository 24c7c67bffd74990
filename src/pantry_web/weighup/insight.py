"""What the model shows of a mix: the inside by day, what is quicker, each method's verdict."""

import json
from dataclasses import dataclass
from datetime import datetime

from pantry_core.dish.request import CureAsked
from pantry_core.dish.work import compared
from pantry_core.mixes.colour import Heart, heart_colour
from pantry_core.mixes.inside import Change, Inside, changes, inside
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.readiness import even_pct, wait_of
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Ready, WeighOut
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.steps import Route
from pantry_core.routes.ways import WAYS, Way
from pantry_core.salt.ready import COOKED
from pantry_web.drawings.inside import InsidePicture, picture
from pantry_web.feasts.mixing import House, Mix, Mixed, dish_request
from pantry_web.quantities import hours_of, span

LONGEST_D, SHORTEST_D = 60.0, 2.0


@dataclass(frozen=True, slots=True)
class Insight:
    """The picture of the inside, the data of its slider, what is quicker and whether in time."""

    picture: InsidePicture
    data: str
    ready: Ready | None
    changes: tuple[tuple[Change, bool], ...]
    is_closed: bool
    last_sample: int
    shown_day: float
    shown_rim: float
    shown_mean: float
    shown_heart: float
    heart: Heart | None
    out_d: float


@dataclass(frozen=True, slots=True)
class MethodSays:
    """When a method would have this piece ready, and whether that is before the feast."""

    method: str
    words: str
    in_time: bool


def insight(
    request: WeighRequest, result: WeighOut, out_d: float, spare_d: float | None = None
) -> Insight | None:
    """Insight into a mix that is taken out after so many days; None where the model is silent.

    Parameters: request and its sheet; out_d [d]; spare_d, how long the cure may take for the feast
    [d], None when the piece is in already and nothing can be changed.
    """
    wait = result.ready or wait_of(request)
    if wait is None:
        return None
    ahead_d = min(max(1.25 * wait.even_days, 1.15 * out_d, SHORTEST_D), LONGEST_D)
    found = inside(request, ahead_d, wait)
    if found is None:
        return None
    meat = request.meat
    drawn = picture(
        found,
        even_pct=request.target_salt_pct
        if request.is_lifted
        else even_pct(request, mixed(request)),
        share=COOKED.value,
        ready_d=result.ready.days if result.ready else None,
        out_d=out_d,
        is_slab=meat.shape == "slab",
        closed=bool(meat.closed_faces),
    )
    i = drawn.shown
    return Insight(
        picture=drawn,
        data=_data(found, drawn),
        ready=result.ready,
        changes=tuple((each, each.days <= spare_d) for each in changes(request, wait))
        if spare_d is not None
        else (),
        is_closed=bool(meat.closed_faces),
        last_sample=len(found.days) - 1,
        shown_day=found.days[i],
        shown_rim=found.rim[i],
        shown_mean=found.mean[i],
        shown_heart=found.heart[i],
        heart=heart_colour(request, result, max(min(out_d, LONGEST_D), 0.1)),
        out_d=out_d,
    )


def methods_say(
    mix: Mix, own: Mixed, house: House, now: datetime, serve_at: datetime
) -> list[MethodSays]:
    """What each method would do with this piece; a brine not yet poured takes as much as meat.

    Parameters: mix; own, what it comes to by its own method; house; now and when it is eaten.
    """
    left_h = hours_of(serve_at - now)
    is_vegetable = CUTS[mix.cut].kind == "vegetable"
    asked = dish_request(mix, house)
    unfit = {
        method: "for meat" if is_vegetable else "for vegetables"
        for method, way in WAYS.items()
        if way.group == ("Needle" if is_vegetable else "Side")
    }
    others = [way for method, way in WAYS.items() if method not in unfit and way != mix.way]
    settled = compared(asked, (_other_cure(asked.cure, mix, way) for way in others))
    told = {
        way.id: _method_says(way, cure.judged, route, left_h)
        for way, (cure, route) in zip(others, settled, strict=True)
    }
    told[mix.way.id] = _method_says(mix.way, own.judged, own.route, left_h)
    return [
        MethodSays(method, unfit[method], in_time=False) if method in unfit else told[method]
        for method in WAYS
    ]


def _other_cure(cure: CureAsked, mix: Mix, way: Way) -> CureAsked:
    """The cook's own cure, by another method."""
    other = {
        "method": way.id,
        "water_g": (mix.water_g or mix.mass_g) if way.has_water else None,
        "curing_salt": None if way.heaped else mix.cure,
        "sauces": (),
    }
    return cure.model_copy(update=other)


def _method_says(way: Way, judged: Judged, route: Route, left_h: float) -> MethodSays:
    curing = next(step for step in route.steps if step.kind == way.id)
    is_silent = judged.request.purpose == "through" and judged.wait is None
    if way.timing in ("model", "lift") and is_silent:
        return MethodSays(way.id, "the model is silent", in_time=False)
    in_time = route.least_h <= left_h
    stopped = any(each.level == "stop" for each in route.notices)
    verdict = "raw too long" if stopped else "before the feast" if in_time else "too late"
    words = f"{span(curing.min_h)}: {verdict}"
    return MethodSays(way.id, words, in_time and not stopped)


def _data(found: Inside, drawn: InsidePicture) -> str:
    return json.dumps(
        {
            "days": found.days,
            "rim": found.rim,
            "mean": found.mean,
            "heart": found.heart,
            "rings": found.rings,
            "xs": drawn.xs,
            "full": drawn.full_pct,
        },
        separators=(",", ":"),
    )
