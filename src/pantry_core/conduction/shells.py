"""Diffusion in shells: a slab, a cylinder or a ball cut into thin layers, exact in time.

The layers exchange salt, or heat, in proportion to the difference of their levels: concentrations
or temperatures. That makes a symmetric tridiagonal system whose eigenvectors give every later
moment at once, without steps in time. Lengths are in parts of the way from rim to heart, times in
parts of way² / diffusivity, masses of water in parts of the water of the piece.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import inf, isfinite

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import eigh_tridiagonal

from pantry_core.meat import Shape

LAYERS = 72
GRADING = 2.0
"""Layers grow thinner towards the rim, where it changes most."""

POWER: dict[Shape, int] = {"slab": 1, "cylinder": 2, "ball": 3}
"""Volume grows with this power of the distance from the heart."""

HALVINGS = 52
GONE = 300.0
"""A mode that has died away to exp(-300) is gone; beyond it numbers get too small to be fast."""

CLOSED, HELD = 0.0, inf
"""A bath of no water: nothing enters or leaves. A bath without end: the rim is held as it is."""
BARE = inf
"""The Biot number of a rim without a resistance of its own."""

Vector = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Shells:
    """Layers of a shape from the heart to the rim; `shares` are their parts of the volume."""

    edges: Vector
    middles: Vector
    shares: Vector
    conductances: Vector
    rim_conductance: float


@dataclass(frozen=True, slots=True)
class Modes:
    """The layers, with the bath behind them where it has water to count, by eigenvectors."""

    capacities: Vector
    rates: Vector
    vectors: Vector
    keeps_all: bool

    def later(self, levels: Vector, times: Vector) -> Vector:
        """The levels at each of the times, a row a time."""
        roots = np.sqrt(self.capacities)
        past = np.minimum(np.outer(times, self.rates), GONE)
        moved = np.exp(-past) * (self.vectors.T @ (levels * roots))
        rows = np.asarray(moved @ self.vectors.T / roots)
        if self.keeps_all:
            # The eigenvectors are orthogonal to 1e-12 or so; what that loses is spread evenly.
            lost = self.capacities @ levels - rows @ self.capacities
            rows += (lost / self.capacities.sum())[:, None]
        return rows

    def course(self, levels: Vector, weights: Vector) -> "Course":
        """How a weighted sum of the levels goes on in time, without each of them."""
        roots = np.sqrt(self.capacities)
        parts = (self.vectors.T @ (levels * roots)) * (self.vectors.T @ (weights / roots))
        return Course(self.rates, parts)


@dataclass(frozen=True, slots=True)
class Course:
    """A sum of what dies away: one number over time."""

    rates: Vector
    parts: Vector

    def at(self, times: Vector) -> Vector:
        """The number at each of the times."""
        past = np.minimum(np.multiply.outer(times, self.rates), GONE)
        return np.asarray(np.exp(-past) @ self.parts)

    def summed(self, times: Vector) -> Vector:
        """The number summed over time, from the beginning to each of the times.

        For a held rim alone: there every mode dies away.
        """
        past = np.minimum(np.multiply.outer(times, self.rates), GONE)
        return np.asarray(-np.expm1(-past) @ (self.parts / self.rates))


@lru_cache
def shells(shape: Shape) -> Shells:
    """The layers of a shape."""
    power = POWER[shape]
    edges = 1.0 - (1.0 - np.arange(LAYERS + 1) / LAYERS) ** GRADING
    middles = (edges[1:] + edges[:-1]) / 2.0
    between = power * edges[1:-1] ** (power - 1) / np.diff(middles)
    return Shells(
        edges, middles, np.diff(edges**power), between, float(power / (1.0 - middles[-1]))
    )


def rim_conductance(shape: Shape, biot: float = BARE) -> float:
    """How readily the outer layer takes from a held rim, through the rim's own resistance."""
    bare = shells(shape).rim_conductance
    return bare / (1.0 + bare / (POWER[shape] * biot))


@lru_cache(maxsize=512)
def modes(shape: Shape, bath: float, biot: float = BARE) -> Modes:
    """The eigenvectors of a shape in a bath.

    Parameters: shape; bath, its water in parts of the water of the piece, CLOSED or HELD. With a
    held rim levels count from what is outside; biot, above 0, is the conductance of the film around
    the piece in parts of that of the way from rim to heart.
    """
    layers = shells(shape)
    capacities, conductances = layers.shares, layers.conductances
    if bath > 0 and isfinite(bath):
        capacities = np.append(capacities, bath)
        conductances = np.append(conductances, layers.rim_conductance)
    diagonal = np.zeros_like(capacities)
    diagonal[:-1] += conductances
    diagonal[1:] += conductances
    if bath == HELD:
        diagonal[-1] += rim_conductance(shape, biot)
    roots = np.sqrt(capacities)
    rates, vectors = eigh_tridiagonal(
        diagonal / capacities,
        -conductances / (roots[:-1] * roots[1:]),
        lapack_driver="stevd",
    )
    if bath != HELD:
        # What is even stays even: the first mode is known exactly.
        rates[0], vectors[:, 0] = 0.0, roots / np.sqrt(capacities.sum())
    return Modes(capacities, rates, vectors, keeps_all=bath != HELD)


def centre_of(levels: Vector, shape: Shape) -> Vector:
    """The levels at the very heart, from the two innermost layers, as a parabola."""
    first, second = centre_weights(shape)[:2]
    return np.asarray(levels[..., 0] * first + levels[..., 1] * second)


@lru_cache
def centre_weights(shape: Shape) -> Vector:
    """What each layer counts at the very heart: a parabola through the two innermost [-]."""
    middles = shells(shape).middles
    bend = middles[0] ** 2 / (middles[1] ** 2 - middles[0] ** 2)
    weights = np.zeros(LAYERS)
    weights[:2] = 1.0 + bend, -bend
    return weights


def between(shape: Shape, low: float, high: float) -> Vector:
    """The part of each layer that lies between two distances from the heart [-]."""
    layers, power = shells(shape), POWER[shape]
    edges = np.clip(layers.edges, low, high) ** power
    return np.asarray(np.diff(edges) / layers.shares)


def time_to_take(shape: Shape, layers: Vector, amount: float) -> float:
    """When a piece whose rim is held has taken so much.

    Parameters: shape; layers, concentrations counted from that of the rim [g/g]; amount [g per g of
    water in the piece].
    Returns: the time in parts of way² / diffusivity, infinite when there is no room for so much.
    """
    system = modes(shape, HELD)
    roots = np.sqrt(system.capacities)
    weights = (system.vectors.T @ (layers * roots)) * (system.vectors.T @ roots)
    room = -float(shells(shape).shares @ layers)
    if amount >= room:
        return inf

    def taken(time: float) -> float:
        return room + float(weights @ np.exp(-system.rates * time))

    low, high = 0.0, 1.0
    while taken(high) < amount:
        high *= 2.0
    for _ in range(HALVINGS):
        middle = (low + high) / 2.0
        low, high = (middle, high) if taken(middle) < amount else (low, middle)
    return high
