"""One unknown figure from few and careless observations: its posterior on a grid.

The unknown is the natural logarithm of a factor on the general figure, or another figure on a line.
What is known before is a normal distribution around the general figure; each observation adds its
log-likelihood. A measurement has the heavy tails of Student's t, so that a careless one pulls
little; of what is only known to lie on one side, a share is taken for careless.

Source: Bayes' rule on a grid, Gelman et al., Bayesian Data Analysis, ch. 2 and 17 (from memory).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from pantry_core.errors import within

Vector = NDArray[np.float64]

TAIL_DF = 3.0
"""Degrees of freedom of the tails of a measurement (our own choice)."""
CARELESS = 0.05
"""So many of what is told are taken for slips (our own choice)."""
POINTS, SPREADS = 801, 5.0
LOW, MIDDLE, HIGH = 0.05, 0.5, 0.95
"""The band holds the figure nine times in ten."""


@dataclass(frozen=True, slots=True)
class Estimate:
    """A figure, its band that holds it nine times in ten, and of how many observations."""

    value: float
    low: float
    high: float
    count: int


class Unknown:
    """A figure that is to be learnt: around 0, within `spread` two times in three.

    Raises: OutOfRange for a spread that is not above 0.
    """

    def __init__(self, spread: float) -> None:
        self.values = np.linspace(-SPREADS * spread, SPREADS * spread, POINTS)
        self._log = -0.5 * (self.values / within("spread", spread, 1e-9, 1e9)) ** 2
        self._count = 0

    def measured(self, value: float, noise: float) -> None:
        """It was measured to be `value`, give or take `noise`."""
        off = (self.values - value) / noise
        self._learn(-0.5 * (TAIL_DF + 1.0) * np.log1p(off**2 / TAIL_DF))

    def at_most(self, value: float, noise: float) -> None:
        """It is not above `value`, give or take `noise`."""
        self.likely(_below((value - self.values) / noise))

    def likely(self, chances: Vector) -> None:
        """Something was seen that has these chances, one for each of `values`."""
        self._learn(np.log(CARELESS + (1.0 - CARELESS) * chances))

    def _learn(self, log_likelihood: Vector) -> None:
        self._log = self._log + log_likelihood
        self._count += 1

    def estimate(self) -> Estimate:
        """The middle of what is known, and its band.

        >>> oven = Unknown(0.15)
        >>> abs(round(oven.estimate().value, 6))
        0.0
        >>> for _ in range(20):
        ...     oven.measured(0.2, 0.1)
        >>> round(oven.estimate().value, 2)
        0.2
        """
        weights = np.exp(self._log - self._log.max())
        reached = (np.cumsum(weights) - weights / 2.0) / weights.sum()
        low, middle, high = np.interp((LOW, MIDDLE, HIGH), reached, self.values)
        return Estimate(float(middle), float(low), float(high), self._count)


def between(values: Vector, seen: float, bounds: tuple[float, float], noise: float) -> Vector:
    """The chance that `seen` lies between bounds from each of the values, give or take noise."""
    low, high = bounds
    off = seen - values
    return _below((high - off) / noise) - _below((low - off) / noise)


def _below(deviations: Vector) -> Vector:
    """The part of a normal distribution that lies below so many standard deviations [-]."""
    from scipy.special import ndtr  # noqa: PLC0415 - it takes 0.2 s to import

    return np.asarray(ndtr(deviations))
