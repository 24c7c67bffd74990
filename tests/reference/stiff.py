"""The same stages through a general stiff solver: equal layers of a slab, no eigenvectors."""

import numpy as np
from scipy.integrate import solve_ivp

LAYERS = 400


def through(stages, *, mass_g, water_share, thickness_mm, diffusivity, tolerance=1e-7):
    """Mean and heart [% of the meat] of a slab after surface, brine, rest, soak, needle, dry."""
    water = water_share * mass_g
    rate = diffusivity / (thickness_mm / 2000) ** 2 * LAYERS**2 * 3600  # an hour, layer to layer
    layers = np.zeros(LAYERS)
    for stage in stages:
        kind = stage["kind"]
        if kind == "needle":
            pickle = stage["share"] * mass_g
            salt = pickle * stage["salt_pct"] / 100
            swollen = water + pickle - salt
            layers = layers * water / swollen
            layers[: LAYERS // 2] += 2 * salt / swollen
            water = swollen
            continue
        parts = stage.get("changes", 0) + 1
        for _ in range(parts):
            bath = stage.get("water_g", 0.0) / water
            outside = {
                "surface": stage.get("water_phase_g_g"), "rest": None, "soak": 0.0,
                "brine": stage.get("salt_g", 0.0) / max(stage.get("water_g", 1.0), 1e-9),
            }[kind]  # fmt: skip
            layers = _flow(layers, stage["hours"] / parts, rate, outside, bath, tolerance)
    share = 100 * water / mass_g
    return share * layers.mean(), share * (layers[0] - (layers[1] - layers[0]) / 8)


def _flow(layers, hours, rate, outside, bath, tolerance):
    def slopes(_, state):
        inner = state[:LAYERS]
        flows = np.zeros(LAYERS + 1)
        flows[1:-1] = np.diff(inner)
        if outside is not None:
            flows[-1] = 2 * ((state[-1] if bath else outside) - inner[-1])
        gains = rate * np.diff(flows)
        if outside is not None and bath:
            return np.append(gains, -rate * flows[-1] / LAYERS / bath)
        return gains

    state = np.append(layers, outside) if outside is not None and bath else layers
    size = len(state)
    near = np.eye(size) + np.eye(size, k=1) + np.eye(size, k=-1)
    end = at_the_end(slopes, hours, state, near, rtol=tolerance, atol=tolerance / 100)
    return end[:LAYERS]


def at_the_end(slopes, length, state, near, *, rtol, atol):
    """What a stiff system of rates becomes after a length of time; `near` is where it depends.

    The solver subtracts rows of differences that it has not filled yet and never uses: whatever
    stands in that memory is not a warning of ours.
    """
    with np.errstate(invalid="ignore", over="ignore"):
        return solve_ivp(
            slopes, (0, length), state, method="BDF", rtol=rtol, atol=atol, jac_sparsity=near,
            t_eval=[length],
        ).y[:, -1]  # fmt: skip
