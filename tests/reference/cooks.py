"""Cooks from another generator than the model: round joints in two dimensions, step by step.

No eigenvectors and no wet bulb: the surface takes h(T) that drifts and flickers, meat conducts the
better the hotter it is, and for a while the surface is held back by a stall.
"""

from dataclasses import dataclass

import numpy as np

CELLS, STEP_S = 14, 10.0


@dataclass(frozen=True)
class Cook:
    """What a cook knows, what the probe read, and when it was really done."""

    thickness_mm: float
    air_c: float
    goal_c: float
    readings: list[tuple[float, float]]
    done_h: float


def cook(rng: np.random.Generator) -> Cook:
    """One made-up cook: a short cylinder in hot air, probe readings with noise from late on."""
    radius_m = rng.uniform(0.03, 0.07)
    half_m = radius_m * rng.uniform(1.5, 4.0)
    air_c, goal_c = rng.uniform(140, 190), rng.uniform(58, 76)
    diffusivity = 1.3e-7 * np.exp(rng.normal(0, 0.1))
    film, drift = rng.uniform(14, 26), rng.uniform(-0.25, 0.25)
    stall_c = rng.uniform(60, 85)
    stall = (rng.uniform(0.3, 1.5), rng.uniform(0.15, 0.4), stall_c, rng.uniform(0.1, 0.7))
    heart, times = _heart(radius_m, half_m, diffusivity, air_c, goal_c, film, drift, stall)
    done_h = times[-1]
    every_h, first_h = rng.uniform(0.03, 0.1), rng.uniform(0.1, 0.4) * done_h
    at = np.arange(first_h, done_h, every_h)
    read = np.interp(at, times, heart) + rng.normal(0, 0.3, len(at))
    told_mm = 2000 * radius_m * np.exp(rng.normal(0, 0.05))
    return Cook(told_mm, air_c, goal_c, list(zip(at.tolist(), read.tolist(), strict=True)), done_h)


def _heart(radius_m, half_m, diffusivity, air_c, goal_c, film, drift, stall):
    """The coldest point, by explicit steps over rings and slices of one eighth."""
    dr, dz = radius_m / CELLS, half_m / CELLS
    edges = np.arange(CELLS + 1) * dr
    middles = (edges[1:] + edges[:-1]) / 2
    state = np.full((CELLS, CELLS), 4.0)  # rings by slices
    hearts, times, at_h = [4.0], [0.0], 0.0
    begins, lasts, held_c, crust_h = stall
    while hearts[-1] < goal_c and at_h < 12.0:
        warm = diffusivity * (1.0 + 0.002 * (state - 40.0))
        h = film * (1.0 + drift * np.sin(at_h * 2.0)) * (1.0 + 0.3 * np.sin(at_h * 40.0))
        is_wet = at_h < crust_h or begins <= at_h < begins + lasts
        sweat = 6.0 if is_wet else 1.0
        flow_r = np.zeros((CELLS + 1, CELLS))
        flow_r[1:-1] = np.diff(state, axis=0) / dr
        flow_z = np.zeros((CELLS, CELLS + 1))
        flow_z[:, 1:-1] = np.diff(state, axis=1) / dz
        flow_r[-1] = _taken(h, sweat, air_c, held_c, state[-1], dr)
        flow_z[:, -1] = _taken(h, sweat, air_c, held_c, state[:, -1], dz)
        into = np.diff(edges[:, None] * flow_r, axis=0) / (middles[:, None] * dr)
        state = state + STEP_S * warm * (into + np.diff(flow_z, axis=1) / dz)
        at_h += STEP_S / 3600
        hearts.append(float(state[0, 0]))
        times.append(at_h)
    return np.asarray(hearts), np.asarray(times)


def _taken(h, sweat, air_c, held_c, outer, cell_m):
    """Slope of temperature at a face [K/m]: air gives heat, what is above the wet bulb sweats."""
    inner = 2 * 0.45 / cell_m
    dry = (h * air_c + inner * outer) / (h + inner)
    wet = (h * air_c + h * sweat * held_c + inner * outer) / (h * (1 + sweat) + inner)
    surface = np.where(dry > held_c, wet, dry)
    return inner * (surface - outer) / 0.45
