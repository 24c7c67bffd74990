"""Hours, salt and strength that leave a seasoned piece with an edge that is not too salty."""

from dataclasses import replace

import numpy as np

from pantry_core.dish.request import CureAsked
from pantry_core.mixes.mix import Mix, mixed
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.seasoning import SALTY_EDGE_PCT
from pantry_core.mixes.uptake import after_days, edge_over
from pantry_core.mixes.weigh import judged_of
from pantry_core.routes.lying import Lying
from pantry_core.routes.ways import Way
from pantry_core.rules.rule import Mark, Rule

LONGER_H = Rule("edge-longer", 12.0, "h", "so much longer at a time", Mark.PRACTICE)
LONGEST_H = Rule("edge-longest", 72.0, "h", "a dry brine takes three days at most", Mark.PRACTICE)
AROUND_H = 24.0
"""So long it is raw before and after the cure, about [h] (common practice)."""
MARGIN = 0.99
"""What is made weaker comes just below the limit (our own choice)."""


def with_a_mild_edge(
    lying: Lying, request: WeighRequest, way: Way, cure: CureAsked
) -> tuple[Lying, WeighRequest]:
    """Hours and salt that keep the edge of a seasoned piece mild, where the cook gives neither.

    Parameters: lying, how long it lies by the rule [h]; request, with its days; way; cure, as the
    cook decided it: what is given there is kept.
    Returns: the first longer time that brings the outer 5 mm to 3 % or below, within the raw clock;
    where none does, less salt or a weaker brine as well.
    Raises: OutOfRange.
    Source: the limit by common practice, the salt by the model of `salt.travel`.
    """
    if cure.days is not None or way.heaped or way.group not in ("Dry", "Brine"):
        return lying, request
    mix = mixed(request)
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
    raw = judged_of(request).raw
    clock_h = LONGEST_H.value if raw is None else 24.0 * raw.caution.value - AROUND_H
    most_h = min(LONGEST_H.value, clock_h)
    hours = [*np.arange(lying.usual_h + LONGER_H.value, most_h + 1e-9, LONGER_H.value)]
    edges = edge_over(request, mix, hours) if hours else None
    return [] if edges is None else list(zip(map(float, hours), map(float, edges), strict=True))


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
