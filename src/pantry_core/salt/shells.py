"""Diffusion in shells: a slab, a cylinder or a ball cut into thin layers, exact in time.

The layers exchange salt in proportion to the difference of their concentrations. That makes a
symmetric tridiagonal system whose eigenvectors give every later moment at once, without steps in
time. Lengths are in parts of the way that salt goes, times in parts of way² / diffusivity, masses
of water in parts of the water of the piece.
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
"""Layers grow thinner towards the rim, where the salt changes most."""

POWER: dict[Shape, int] = {"slab": 1, "cylinder": 2, "ball": 3}
"""Volume grows with this power of the distance from the heart."""

HALVINGS = 80
GONE = 300.0
"""A mode that has died away to exp(-300) is gone; beyond it numbers get too small to be fast."""

CLOSED, HELD = 0.0, inf
"""A bath of no water: nothing enters or leaves. A bath without end: the rim is held as it is."""

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
    keeps_salt: bool

    def later(self, concentrations: Vector, times: Vector) -> Vector:
        """Concentrations [g/g] at each of the times, a row a time."""
        roots = np.sqrt(self.capacities)
        past = np.minimum(np.outer(times, self.rates), GONE)
        moved = np.exp(-past) * (self.vectors.T @ (concentrations * roots))
        rows = np.asarray(moved @ self.vectors.T / roots)
        if self.keeps_salt:
            # The eigenvectors are orthogonal to 1e-12 or so; what that loses is spread evenly.
            lost = self.capacities @ concentrations - rows @ self.capacities
            rows += (lost / self.capacities.sum())[:, None]
        return rows

    def observed(self, concentrations: Vector, times: Vector, weights: Vector) -> Vector:
        """A weighted sum of the concentrations at each of the times, without each of them."""
        roots = np.sqrt(self.capacities)
        past = np.minimum(np.outer(times, self.rates), GONE)
        parts = (self.vectors.T @ (concentrations * roots)) * (self.vectors.T @ (weights / roots))
        return np.asarray(np.exp(-past) @ parts)


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


@lru_cache(maxsize=512)
def modes(shape: Shape, bath: float) -> Modes:
    """The eigenvectors of a shape in a bath.

    Parameters: shape; bath, its water in parts of the water of the piece, CLOSED or HELD. With a
    held rim concentrations count from that of the rim.
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
        diagonal[-1] += layers.rim_conductance
    roots = np.sqrt(capacities)
    rates, vectors = eigh_tridiagonal(
        diagonal / capacities, -conductances / (roots[:-1] * roots[1:])
    )
    if bath != HELD:
        # What is even stays even: the first mode is known exactly.
        rates[0], vectors[:, 0] = 0.0, roots / np.sqrt(capacities.sum())
    return Modes(capacities, rates, vectors, keeps_salt=bath != HELD)


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
