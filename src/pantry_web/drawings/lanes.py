"""Which lane a dish lies in: a fixed one in the fridge, ordered so that few bands cross others."""

from collections.abc import Iterator, Sequence
from datetime import datetime
from itertools import pairwise, permutations

from pantry_web.drawings.shapes import Stay

FIXED = "fridge"
MOST_TRIED = 6
"""So many dishes are tried in every order; of more the order is bettered pair by pair."""

Crossings = list[list[int]]
"""How often bands cross, by dish and dish: if the second lies to the right of the first."""


def lanes_of(chains: Sequence[Sequence[Stay]], left: frozenset[str]) -> dict[tuple[int, int], int]:
    """The lane of each stay in its place.

    Parameters: chains, the stays of each dish in order; left, the places to the left of the fridge.
    Returns: lanes by dish and stay; in the fridge of several dishes one for each dish that lies
    there at all, elsewhere the first that is free when a stay begins.
    """
    fixed = _fixed(chains, left) if len(chains) > 1 else {}
    ends: dict[str, list[datetime]] = {}
    lanes = {}
    in_order = sorted(
        ((stay.start, i, j) for i, stays in enumerate(chains) for j, stay in enumerate(stays))
    )
    for start, i, j in in_order:
        stay = chains[i][j]
        if stay.place == FIXED and fixed:
            lanes[i, j] = fixed[i]
            continue
        taken = ends.setdefault(stay.place, [])
        lane = next((n for n, end in enumerate(taken) if end <= start), len(taken))
        taken[lane : lane + 1] = [stay.end]
        lanes[i, j] = lane
    return lanes


def _fixed(chains: Sequence[Sequence[Stay]], left: frozenset[str]) -> dict[int, int]:
    dishes = [i for i, stays in enumerate(chains) if any(each.place == FIXED for each in stays)]
    cost = crossings([chains[i] for i in dishes], left)
    order = best_order(cost)
    return {dishes[n]: lane for lane, n in enumerate(order)}


def crossings(chains: Sequence[Sequence[Stay]], left: frozenset[str]) -> Crossings:
    """How often the bands of dishes cross lanes in which another dish lies at that moment.

    Parameters: as of `lanes_of`.
    Returns: for each pair how often, if the second lies to the right of the first.
    """
    count = len(chains)
    cost = [[0] * count for _ in range(count)]
    cold = [
        (b, each.start, each.end)
        for b, stays in enumerate(chains) for each in stays if each.place == FIXED
    ]  # fmt: skip
    for a, stays in enumerate(chains):
        for at, goes_left in _bands(stays, left):
            for b, begin, end in cold:
                if begin < at < end and a != b:
                    first, second = (b, a) if goes_left else (a, b)
                    cost[first][second] += 1
    return cost


def _bands(stays: Sequence[Stay], left: frozenset[str]) -> Iterator[tuple[datetime, bool]]:
    """The moments at which a dish comes into its lane or leaves it, and whether on its left."""
    for before, after in pairwise(stays):
        if (before.place == FIXED) != (after.place == FIXED):
            elsewhere = before if after.place == FIXED else after
            yield after.start, elsewhere.place in left


def best_order(cost: Crossings) -> tuple[int, ...]:
    """The order with the fewest crossings, of many dishes one that no swap makes better."""
    count = len(cost)
    if count <= MOST_TRIED:
        return min(permutations(range(count)), key=lambda order: crossed(cost, order))
    order = list(range(count))
    is_better = True
    while is_better:
        is_better = False
        for n in range(count - 1):
            a, b = order[n], order[n + 1]
            if cost[b][a] < cost[a][b]:
                order[n], order[n + 1] = b, a
                is_better = True
    return tuple(order)


def crossed(cost: Crossings, order: Sequence[int]) -> int:
    """How many crossings an order has."""
    return sum(cost[a][b] for n, a in enumerate(order) for b in order[n + 1 :])
