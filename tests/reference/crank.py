"""Series of Crank, The Mathematics of Diffusion (from memory): constant surface, limited volume.

Times are in parts of way² / diffusivity; alpha is the water of the bath in parts of the piece's.
"""

import numpy as np
from scipy.optimize import brentq
from scipy.special import j0, j1, jn_zeros

TERMS = 400


def constant_surface(shape, time):
    """Mean and heart in parts of the surface (eqs. 4.17, 4.18; 5.22, 5.23; 6.18 to 6.20)."""
    n = np.arange(TERMS)
    if shape == "slab":
        odd = 2 * n + 1
        decay = np.exp(-(odd**2) * np.pi**2 * time / 4)
        heart = 1 - 4 / np.pi * np.sum((-1.0) ** n / odd * decay)
        return 1 - 8 / np.pi**2 * np.sum(decay / odd**2), heart
    if shape == "cylinder":
        roots = jn_zeros(0, TERMS)
        decay = np.exp(-(roots**2) * time)
        return 1 - 4 * np.sum(decay / roots**2), 1 - 2 * np.sum(decay / (roots * j1(roots)))
    whole = n + 1
    decay = np.exp(-(whole**2) * np.pi**2 * time)
    heart = 1 + 2 * np.sum((-1.0) ** whole * decay)
    return 1 - 6 / np.pi**2 * np.sum(decay / whole**2), heart


def limited_volume(shape, alpha, time):
    """Mean and heart in parts of the even value (eqs. 4.37, 4.40; 5.33, 5.36; 6.30, 6.33)."""
    if shape == "slab":
        q = _roots(lambda x: np.sin(x) + alpha * x * np.cos(x))
        mean = np.sum(2 * alpha * (1 + alpha) / (1 + alpha + alpha**2 * q**2) * _decay(q, time))
        bends = 1 / np.cos(q)
        heart = np.sum(2 * (1 + alpha) / (1 + alpha + alpha**2 * q**2) * bends * _decay(q, time))
        return 1 - mean, 1 + heart
    if shape == "cylinder":
        q = _roots(lambda x: alpha * x * j0(x) + 2 * j1(x))
        weights = 4 + 4 * alpha + alpha**2 * q**2
        mean = np.sum(4 * alpha * (1 + alpha) / weights * _decay(q, time))
        heart = np.sum(4 * (1 + alpha) / weights / j0(q) * _decay(q, time))
        return 1 - mean, 1 + heart
    # tan q = 3 q / (3 + alpha q²)
    q = _roots(lambda x: (3 + alpha * x**2) * np.sin(x) - 3 * x * np.cos(x))
    weights = 9 + 9 * alpha + q**2 * alpha**2
    mean = np.sum(6 * alpha * (1 + alpha) / weights * _decay(q, time))
    heart = np.sum(6 * (1 + alpha) / weights * q / np.sin(q) * _decay(q, time))
    return 1 - mean, 1 + heart


def _decay(roots, time):
    return np.exp(-(roots**2) * time)


def _roots(crossing):
    edges = np.linspace(1e-3, 60 * np.pi, 24_000)
    values = crossing(edges)
    at = np.flatnonzero(np.sign(values[:-1]) != np.sign(values[1:]))
    return np.asarray([brentq(crossing, edges[i], edges[i + 1]) for i in at])
