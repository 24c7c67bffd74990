"""The salt's way against a general stiff solver, side by side on the same six stages.

Run it with `bin/bench salt`.
"""

import statistics
import time

from tests.reference.stiff import through
from tests.reference.test_salt import SIX_STAGES, WATER, WAY_M, D

from pantry_core.salt.request import SaltRequest
from pantry_core.salt.travel import travel

MEAT = {"kind": "pork", "mass_g": 1000, "thickness_mm": 2000 * WAY_M, "shape": "slab"}
THREE_WEEKS = [{"kind": "brine", "hours": 504, "water_g": 1000, "salt_g": 60}]


def main() -> None:
    """Print times and agreement."""
    print(f"three weeks in a brine: {1000 * _ours(THREE_WEEKS)[0]:.2f} ms")
    ours_s, mean, heart = _ours(SIX_STAGES)
    print(f"six stages: {1000 * ours_s:.2f} ms")
    for tolerance in (1e-4, 1e-6):
        begin = time.perf_counter()
        theirs = through(
            SIX_STAGES, mass_g=1000, water_share=WATER, thickness_mm=2000 * WAY_M,
            diffusivity=D, tolerance=tolerance,
        )  # fmt: skip
        taken = time.perf_counter() - begin
        apart = max(abs(mean / theirs[0] - 1), abs(heart / theirs[1] - 1))
        print(
            f"stiff solver, tolerance {tolerance:g}: {1000 * taken:.0f} ms, "
            f"{taken / ours_s:.0f} times as long, {100 * apart:.3f} % apart"
        )


def _ours(stages) -> tuple[float, float, float]:
    asked = SaltRequest.model_validate({"meat": MEAT, "diffusivity_m2_s": D, "stages": stages})
    times = []
    for _ in range(40):
        begin = time.perf_counter()
        answer = travel(asked)
        times.append(time.perf_counter() - begin)
    return statistics.median(times), answer.mean_pct[-1], answer.heart_pct[-1]


if __name__ == "__main__":
    main()
