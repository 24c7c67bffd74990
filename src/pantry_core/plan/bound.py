"""How near the wishes can be come at all, and which slots a plan that near could use."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from ortools.sat.python import cp_model

from pantry_core.plan.chains import Chain, Costs, least_through
from pantry_core.plan.flow import Flow, Indices, Prices
from pantry_core.plan.grid import SLOT_S
from pantry_core.plan.parts import LATENESS, DishModel, Model, edges, late_slots, pairs
from pantry_core.plan.resources import Share
from pantry_core.plan.waits import Tie

FIRST_ROOM_S = 2 * 3600.0
"""How far from its own least a dish is let go first, where the least of all cannot be together."""

MOST_ARCS = 60_000
"""Larger programs take many seconds and are left."""
MOST_WHOLE = 8_000
"""Larger ones are not solved for whole ways."""
MOST_ROUNDS = 12

ROUNDING_S = 0.5
"""Deviations are whole seconds, so less than half of one is rounding."""


@dataclass(frozen=True, slots=True)
class Bound:
    """No plan deviates less than `least_s` [s].

    `first` is the slot at which the axis begins; `through` are, for each dish and boundary, the
    least priced deviation of a way through each slot [s]; `plan` a plan of that deviation, a slot
    for each boundary of each dish, where one was found.
    """

    chains: list[Chain]
    shares: list[Share]
    first: int
    least_s: float
    through: list[list[Costs]]
    plan: list[list[int]] | None
    ties: Sequence[Tie] = ()

    def nodes(self, room_s: float) -> list[list[Indices]]:
        """Slots that a plan can use which deviates at most so much more than the least [s]."""
        return _within(self.through, room_s + ROUNDING_S)

    def narrow(self, model: Model, room_s: float) -> None:
        """Cut the boundaries of a model to those slots."""
        for each, own in zip(model.dishes, self.nodes(room_s), strict=True):
            for bound, slots in zip(each.bounds, own, strict=True):
                domain = cp_model.Domain.from_values([self.first + int(slot) for slot in slots])
                model.cp.add_linear_expression_in_domain(bound, domain)

    def near(self) -> list[int] | None:
        """A plan at the least deviation or near it, a slot for each boundary.

        Of a trip only the longest step is known here to take hands, so it may be a little too good.
        """
        found = self.plan
        if found is None and (self.shares or self.ties):
            flow = Flow(self.chains, self.nodes(0.0), self.shares, self.ties)
            found = flow.whole() if flow.arcs <= MOST_WHOLE else None
        return None if found is None else [self.first + slot for own in found for slot in own]


def lower_bound(model: Model, shares: Sequence[Share], ties: Sequence[Tie] = ()) -> Bound | None:
    """The least deviation that all dishes together can have, by linear programming.

    Slots are let in as the prices ask for them, until none that is left out could help; the bound
    is that of the prices, and holds whatever the program's rounding.

    Parameters: model, cut to what each dish can reach; shares and ties, dishes counted as in the
    model.
    Returns: the bound, or None where there is none or it would take too long.
    Source: Lagrangian duality; column generation.
    """
    first = min(edges(bound)[0] for bound in model.bounds())
    last = max(edges(bound)[1] for bound in model.bounds())
    chains = [_chain(each, first, last - first + 1) for each in model.dishes]
    through = [least_through(chain) for chain in chains]
    shares = [alone for share in shares if (alone := share.alone(model)).is_scarce]
    if not shares and not ties:
        return Bound(chains, [], first, sum(_least(own) for own in through), through, None)
    nodes, room_s = _within(through, ROUNDING_S), FIRST_ROOM_S
    everywhere = sum(int(np.isfinite(costs).sum()) for own in through for costs in own)
    best: Bound | None = None
    for _ in range(MOST_ROUNDS):
        flow = Flow(chains, nodes, shares, ties)
        if flow.arcs > MOST_ARCS:
            return best
        found = flow.divided()
        if found is None:
            if flow.count == everywhere:
                return None
            nodes, room_s = _within(through, room_s), 2 * room_s
            continue
        value, prices, plan = found
        priced = [
            least_through(chain, _priced(chain, n, shares, prices))
            for n, chain in enumerate(chains)
        ]
        paid = sum(
            share.capacity * float(each.sum())
            for share, each in zip(shares, prices.each, strict=True)
        )
        least_s = sum(_least(own) for own in priced) - paid
        if best is None or least_s > best.least_s:
            best = Bound(chains, shares, first, least_s, priced, None, ties)
        if least_s > value - ROUNDING_S:
            return Bound(chains, shares, first, least_s, priced, plan, ties)
        nodes = _both(nodes, _within(priced, ROUNDING_S))
    return best


def _chain(each: DishModel, first: int, count: int) -> Chain:
    free = [np.zeros(count, dtype=bool) for _ in each.bounds]
    for slots, bound in zip(free, each.bounds, strict=True):
        for a, b in pairs(bound):
            slots[a - first : b - first + 1] = True
    wished = [each.wished_s(i) for i in range(len(each.windows))]
    if each.begun_s is not None and wished[0] is not None:
        # The first length counts from where the grid goes on, not from where the step began.
        wished[0] -= edges(each.bounds[0])[0] * SLOT_S - each.begun_s
    within = [
        None if stay is None else [(a - first, b - first) for a, b in stay] for stay in each.stays
    ]
    late_s = LATENESS * SLOT_S * np.maximum(np.arange(count) + first - each.hour, 0.0)
    return Chain(free, each.windows, wished, within, late_s if late_slots(each.dish) else None)


def _priced(chain: Chain, dish: int, shares: Sequence[Share], prices: Prices) -> list[Costs]:
    """What each boundary of a dish costs in each slot: a stay pays from its start to its end."""
    count = len(chain.free[0])
    found = [np.zeros(count) for _ in chain.free]
    for share, slots, price in zip(shares, prices.slots, prices.each, strict=True):
        paid = np.zeros(count + 1)
        paid[slots + 1] = price
        paid = np.cumsum(paid)
        for use in share.uses:
            if use.dish != dish:
                continue
            found[use.i] -= use.demand * paid[:count]
            if use.slots is None:
                found[use.i + 1] += use.demand * paid[:count]
            else:
                ends = np.minimum(np.arange(count) + use.slots, count)
                found[use.i] += use.demand * paid[ends]
    for tie in prices.ties:
        for boundary, slots, sign in (
            (tie.early, tie.early_slots, 1.0),
            (tie.late, tie.late_slots, -1.0),
        ):
            if boundary[0] == dish:
                found[boundary[1]] += sign * _paid_after(slots, tie.each, count)
    return found


def _paid_after(slots: Indices, prices: Costs, count: int) -> Costs:
    """What is paid at all slots from each one on: who lies there has passed by them."""
    paid = np.zeros(count + 1)
    np.add.at(paid, np.clip(slots, -1, count - 1) + 1, prices)
    onward: Costs = np.cumsum(paid[::-1])[::-1][1:]
    return onward


def _least(through: Sequence[Costs]) -> float:
    return float(through[0].min())


def _within(through: Sequence[Sequence[Costs]], room_s: float) -> list[list[Indices]]:
    return [[np.flatnonzero(costs <= _least(own) + room_s) for costs in own] for own in through]


def _both(
    these: Sequence[Sequence[Indices]], those: Sequence[Sequence[Indices]]
) -> list[list[Indices]]:
    return [
        [np.union1d(a, b) for a, b in zip(own, other, strict=True)]
        for own, other in zip(these, those, strict=True)
    ]
