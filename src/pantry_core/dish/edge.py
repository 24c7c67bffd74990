"""Hours, salt and strength that leave a seasoned piece with an edge that is not too salty."""

from bisect import bisect_left
from dataclasses import replace

import numpy as np

from pantry_core.dish.request import CureAsked
from pantry_core.mixes.mix import Mix, mixed
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.seasoning import SALTY_EDGE_PCT
from pantry_core.mixes.uptake import after_days, edge_over
from pantry_core.mixes.weigh import judged_of
from pantry_core.routes.lying import LATE, Lying
from pantry_core.routes.ways import Way
from pantry_core.rules.rule import Mark, Rule

LONGER_H = Rule("edge-longer", 12.0, "h", "so much longer at a time", Mark.PRACTICE)
LONGEST_H = Rule("edge-longest", 72.0, "h", "a dry brine takes three days at most", Mark.PRACTICE)
LONGEST_REST_H = Rule(
    "edge-rest", 96.0, "h", "washed, a piece rests up to four days", Mark.PRACTICE
)
AROUND_H = 24.0
"""So long it is raw before and after the cure, about [h] (common practice)."""
LIFTED_TO_H = 0.25
"""To the quarter of an hour, as a plan is laid out [h]."""
MARGIN = 0.99
"""What is made weaker comes just below the limit (our own choice)."""


def with_a_mild_edge(
    lying: Lying, request: WeighRequest, way: Way, cure: CureAsked
) -> tuple[Lying, WeighRequest]:
    """Hours and salt that keep the edge of a seasoned piece mild, where the cook gives neither.

    Parameters: lying, how long it lies by the rule [h]; request, with its days; way; cure, as the
    cook decided it: what is given there is kept.
    Returns: the first longer time that brings the outer 5 mm to 3 % or below, within the raw clock;
    where none does, less salt or a weaker brine as well. What lies under a heap of salt comes out
    when its average is there, and rests until its edge is mild.
    Raises: OutOfRange.
    Source: the limit by common practice, the salt by the model of `salt.travel`.
    """
    if cure.lain_d is not None or way.group not in ("Dry", "Brine"):
        return lying, request
    mix = mixed(request)
    if way.heaped:
        return _lifted_and_rested(lying, request, mix)
    end = after_days(request, mix)
    if end is None or end.outer_pct <= SALTY_EDGE_PCT.value:
        return lying, request
    edges = [(lying.usual_h, end.outer_pct), *_edges_later(lying, request, mix, way)]
    hours, edge_pct = next((each for each in edges if each[1] <= SALTY_EDGE_PCT.value), edges[-1])
    request = request.model_copy(update={"days": hours / 24.0})
    if edge_pct > SALTY_EDGE_PCT.value:
        request = _weaker(request, cure, MARGIN * SALTY_EDGE_PCT.value / edge_pct)
    return _lasting(lying, hours), request


def _edges_later(
    lying: Lying, request: WeighRequest, mix: Mix, way: Way
) -> list[tuple[float, float]]:
    """Longer hours of a dry cure, as far as the raw clock leaves, each with its edge [h, %]."""
    if way.group != "Dry":
        return []
    most_h = min(LONGEST_H.value, _clock_h(request))
    hours = [*np.arange(lying.usual_h + LONGER_H.value, most_h + 1e-9, LONGER_H.value)]
    edges = edge_over(request, mix, hours) if hours else None
    return [] if edges is None else list(zip(map(float, hours), map(float, edges), strict=True))


def _clock_h(request: WeighRequest) -> float:
    """How long it may lie and rest for the raw clock to keep silent [h]."""
    raw = judged_of(request).raw
    return LONGEST_H.value if raw is None else 24.0 * raw.caution.value - AROUND_H


def _lifted_and_rested(lying: Lying, request: WeighRequest, mix: Mix) -> tuple[Lying, WeighRequest]:
    """Under a heap until the average is what it is meant to be, then at rest until it is mild.

    Where the rest that the raw clock leaves is too short for that, it lies less long.
    """

    def lying_for(quarters: int) -> WeighRequest:
        return request.model_copy(update={"days": quarters * LIFTED_TO_H / 24.0})

    def has_its_salt(quarters: int) -> bool:
        end = after_days(lying_for(quarters), mix)
        return end is None or end.mean_pct >= request.target_salt_pct

    def is_mild(quarters: int, rests: int) -> bool:
        end = after_days(lying_for(quarters), mix, rests * LONGER_H.value)
        return end is None or end.outer_pct <= SALTY_EDGE_PCT.value

    most = round(lying.usual_h / LIFTED_TO_H)
    quarters = 1 + bisect_left(range(1, most), x=True, key=has_its_salt)
    left_h = min(_clock_h(request) - quarters * LIFTED_TO_H, LONGEST_REST_H.value)
    most_rests = max(int(left_h / LONGER_H.value), 0)
    rests = bisect_left(range(most_rests), x=True, key=lambda count: is_mild(quarters, count))
    if rests == most_rests:
        quarters -= bisect_left(
            range(quarters - 1), x=True, key=lambda fewer: is_mild(quarters - fewer, rests)
        )
    in_h, rest_h = quarters * LIFTED_TO_H, rests * LONGER_H.value
    least, usual, longest = lying.rest_h
    resting = (max(least, rest_h / 2.0), max(usual, rest_h), max(longest, 1.5 * rest_h))
    window = Lying((1.0 - LATE) * in_h, in_h, (1.0 + LATE) * in_h, resting)
    return window, lying_for(quarters)


def _lasting(lying: Lying, hours: float) -> Lying:
    """The same, lying for so long; a window that it leaves is laid around it."""
    if lying.longest_h is not None and hours > lying.longest_h:
        return replace(lying, least_h=hours / 2.0, usual_h=hours, longest_h=1.5 * hours)
    return replace(lying, usual_h=hours)


def _weaker(request: WeighRequest, cure: CureAsked, share: float) -> WeighRequest:
    """With less salt, unless the cook says how much."""
    if request.brine_salt_pct is not None:
        if cure.brine_salt_pct is not None:
            return request
        return request.model_copy(update={"brine_salt_pct": share * request.brine_salt_pct})
    if cure.target_salt_pct is not None:
        return request
    return request.model_copy(update={"target_salt_pct": share * request.target_salt_pct})
