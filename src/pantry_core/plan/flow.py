"""All dishes as a flow of slots: the linear program whose optimum no plan can fall below."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import Bounds, LinearConstraint, linprog, milp
from scipy.sparse import csr_matrix

from pantry_core.plan.chains import Chain
from pantry_core.plan.grid import SLOT_S
from pantry_core.plan.resources import Share
from pantry_core.plan.waits import Tie

Indices = NDArray[np.int64]
Reals = NDArray[np.float64]

WHOLE = 1e-6
"""A share of a way that differs by less from none or all counts as that."""

MOST_NODES = 200
"""Branches that are looked into for whole ways."""
WALL_LIMIT_S = 60.0
"""A backstop only, as that of the constraint model."""


@dataclass(frozen=True, slots=True)
class Prices:
    """For each share, what a unit of it costs in some slots [s]; elsewhere nothing.

    For each row of each tie, what it costs that its second boundary is passed by a slot and its
    first by another one is not [s].
    """

    slots: list[Indices]
    each: list[Reals]
    ties: list["TiePrice"]


@dataclass(frozen=True, slots=True)
class TiePrice:
    """Who passes `early` by its slots must have passed `late` by its own; else it costs [s]."""

    early: tuple[int, int]
    early_slots: Indices
    late: tuple[int, int]
    late_slots: Indices
    each: Reals


class Flow:
    """Ways of all dishes through chosen slots, each dish one unit of flow that may be divided.

    A variable for every length a step may have between two slots, and for each boundary and slot
    the share of the dish that has passed it by then. With that share the use of a place needs two
    entries for a step, however long it lasts.
    """

    def __init__(
        self,
        chains: Sequence[Chain],
        nodes: Sequence[Sequence[Indices]],
        shares: Sequence[Share],
        ties: Sequence[Tie] = (),
    ) -> None:
        """Lay out the columns and rows.

        Parameters: chains; nodes, for each dish and boundary the slots it may lie in, ascending;
        shares, what is shared, and ties between boundaries, their dishes counted as the chains.
        """
        self.nodes, self.shares, self.ties = nodes, shares, ties
        self._costs: list[Reals] = []
        self._arcs = [
            [self._arcs_of(chain, i, own) for i in range(len(chain.lengths))]
            for chain, own in zip(chains, nodes, strict=True)
        ]
        self.arcs = sum(len(each) for each in self._costs)
        self._passed: list[list[Indices]] = []
        self._columns = self.arcs
        for own in nodes:
            self._passed.append([self._more_columns(len(slots)) for slots in own])

    @property
    def count(self) -> int:
        """How many slots are let in, over all boundaries."""
        return self._columns - self.arcs

    def _more_columns(self, count: int) -> Indices:
        first = self._columns
        self._columns += count
        return np.arange(first, self._columns)

    def _arcs_of(
        self, chain: Chain, i: int, own: Sequence[Indices]
    ) -> tuple[Indices, Indices, Indices]:
        """Columns of a step's lengths, with the places of their slots in the lists of nodes."""
        least, most = chain.lengths[i]
        begin, after = own[i], own[i + 1]
        latest = begin + min(most, len(chain.free[0]))
        within = chain.inside(i)
        if within is not None:
            ends = np.full(len(begin), -1)
            for a, b in within:
                ends[(a <= begin) & (begin <= b)] = np.maximum(b, ends[(a <= begin) & (begin <= b)])
            latest = np.minimum(latest, ends)
        left = np.searchsorted(after, begin + least, "left")
        right = np.searchsorted(after, latest, "right")
        count = np.maximum(right - left, 0)
        start = np.repeat(np.arange(len(begin)), count)
        end = np.arange(len(start)) + np.repeat(left - (np.cumsum(count) - count), count)
        wished = chain.wished[i]
        length_s = (after[end] - begin[start]) * float(SLOT_S)
        column = np.arange(len(start)) + sum(len(each) for each in self._costs)
        costs = np.zeros(len(start)) if wished is None else np.abs(length_s - wished)
        if chain.late is not None and i == len(chain.lengths) - 1:
            costs = costs + chain.late[after[end]]
        self._costs.append(costs)
        return column, start, end

    @cached_property
    def _kept(self) -> csr_matrix:
        """What leaves or reaches a boundary in a slot is what passes it there."""
        rows, columns, entries, count = [], [], [], 0
        for arcs, own, passed in zip(self._arcs, self.nodes, self._passed, strict=True):
            for i, slots in enumerate(own):
                sides = [arcs[i - 1][::2]] if i else []
                sides += [arcs[i][:2]] if i < len(arcs) else []
                for column, place in sides:
                    at = count + np.arange(len(slots))
                    rows += [count + place, at, at[1:]]
                    columns += [column, passed[i], passed[i][:-1]]
                    entries += [np.ones(len(column)), -np.ones(len(at)), np.ones(len(at) - 1)]
                    count += len(slots)
        return _matrix(rows, columns, entries, (count, self._columns))

    @cached_property
    def _peaks(self) -> list[Indices]:
        """For each share the slots in which use can rise."""
        return [
            np.unique(np.concatenate([self.nodes[use.dish][use.i] for use in share.uses]))
            for share in self.shares
        ]

    @cached_property
    def _used(self) -> tuple[csr_matrix, Reals]:
        rows, columns, entries, count = [], [], [], 0
        for share, slots in zip(self.shares, self._peaks, strict=True):
            row = count + np.arange(len(slots))
            for use in share.uses:
                over = (use.i, slots - use.slots) if use.slots else (use.i + 1, slots)
                for sign, (boundary, at) in ((1, (use.i, slots)), (-1, over)):
                    passed, columns_passed = self._passed_by((use.dish, boundary), at)
                    rows.append(row[passed])
                    columns.append(columns_passed)
                    entries.append(np.full(len(rows[-1]), float(sign * use.demand)))
            count += len(slots)
        room = [
            np.full(len(slots), float(share.capacity))
            for share, slots in zip(self.shares, self._peaks, strict=True)
        ]
        for early, early_slots, late, late_slots in self._tied:
            row = count + np.arange(len(early_slots))
            for sign, tied, at in ((1, early, early_slots), (-1, late, late_slots)):
                passed, columns_passed = self._passed_by(tied, at)
                rows.append(row[passed])
                columns.append(columns_passed)
                entries.append(np.full(len(rows[-1]), float(sign)))
            room.append(np.zeros(len(early_slots)))
            count += len(early_slots)
        return _matrix(rows, columns, entries, (count, self._columns)), np.concatenate(room)

    @cached_property
    def _tied(self) -> list[tuple[tuple[int, int], Indices, tuple[int, int], Indices]]:
        """Rows of the ties: what is passed by some slots only if something else is by others."""
        rows = []
        for tie in self.ties:
            second = self.nodes[tie.second[0]][tie.second[1]]
            rows.append((tie.second, second, tie.first, second - tie.least))
            if tie.most is not None:
                first = self.nodes[tie.first[0]][tie.first[1]]
                rows.append((tie.first, first, tie.second, first + tie.most))
        return rows

    def _passed_by(self, boundary: tuple[int, int], at: Indices) -> tuple[Indices, Indices]:
        """Which of some slots a boundary can have passed by, and the columns that say so."""
        dish, i = boundary
        place = np.searchsorted(self.nodes[dish][i], at, "right") - 1
        passed = np.flatnonzero(place >= 0)
        return passed, self._passed[dish][i][place[passed]]

    @cached_property
    def _limits(self) -> tuple[Reals, Reals]:
        low, high = np.zeros(self._columns), np.ones(self._columns)
        for passed in self._passed:
            for columns in passed:
                low[columns[-1]] = 1.0
        return low, high

    @property
    def _objective(self) -> Reals:
        return np.concatenate([*self._costs, np.zeros(self._columns - self.arcs)])

    def divided(self) -> tuple[float, Prices, list[list[int]] | None] | None:
        """The optimum when dishes may be divided.

        Returns: the least deviation [s], the prices that prove it, and the slots of all boundaries
        where no dish is divided after all; None when nothing is possible.
        Source: the simplex method of SciPy's HiGHS.
        """
        used, room = self._used
        found = linprog(
            self._objective, A_ub=used, b_ub=room, A_eq=self._kept,
            b_eq=np.zeros(self._kept.shape[0]), bounds=np.column_stack(self._limits),
            method="highs-ds",
        )  # fmt: skip
        if found.status != 0:
            return None
        prices = np.maximum(-found.ineqlin.marginals, 0.0)
        counts = [len(slots) for slots in self._peaks] + [len(row[1]) for row in self._tied]
        parts = np.split(prices, np.cumsum(counts)[:-1])
        of_ties = [
            TiePrice(*row, part)
            for row, part in zip(self._tied, parts[len(self._peaks) :], strict=True)
        ]
        priced = Prices(self._peaks, parts[: len(self._peaks)], of_ties)
        return found.fun, priced, self._slots(found.x)

    def whole(self) -> list[list[int]] | None:
        """The best slots of all boundaries when no dish is divided, as far as a search finds them.

        Source: branch and bound of SciPy's HiGHS.
        """
        used, room = self._used
        is_arc = np.arange(self._columns) < self.arcs
        found = milp(
            self._objective,
            constraints=[LinearConstraint(self._kept, 0, 0), LinearConstraint(used, ub=room)],
            bounds=Bounds(*self._limits),
            integrality=is_arc.astype(int),
            options={"node_limit": MOST_NODES, "time_limit": WALL_LIMIT_S},
        )
        return None if found.x is None else self._slots(found.x)

    def _slots(self, values: Reals) -> list[list[int]] | None:
        found = []
        for own, passed in zip(self.nodes, self._passed, strict=True):
            chosen = []
            for slots, columns in zip(own, passed, strict=True):
                here = np.diff(values[columns], prepend=0.0)
                if here.max() < 1 - WHOLE:
                    return None
                chosen.append(int(slots[here.argmax()]))
            found.append(chosen)
        return found


def _matrix(
    rows: list[Indices], columns: list[Indices], entries: list[Reals], shape: tuple[int, int]
) -> csr_matrix:
    where = (np.concatenate(rows), np.concatenate(columns))
    return csr_matrix((np.concatenate(entries), where), shape=shape)
