"""What the model shows of a mix: the inside by day, and what is quicker."""

import json
from dataclasses import dataclass

from pantry_core.mixes.colour import Heart, heart_colour
from pantry_core.mixes.inside import Change, Inside, changes, inside
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.readiness import even_pct, wait_of
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Ready, WeighOut
from pantry_core.salt.ready import COOKED
from pantry_web.drawings.inside import InsidePicture, picture

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


def salt_by_day(
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
