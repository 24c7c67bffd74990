"""Heat through a piece against a general stiff solver, side by side, and two hundred forecasts.

Run it with `bin/bench heat`.
"""

import statistics
import time

import numpy as np
from tests.reference.cooks import cook
from tests.reference.test_heat import ALPHA, FIVE, K, stiffly

from pantry_core.heat.body import Body
from pantry_core.heat.forecast import Reading, forecast
from pantry_core.heat.stages import Stage
from pantry_core.heat.through import followed

COOKS = 200


def main() -> None:
    """Print times, agreement, and how near the forecasts are."""
    oven = [Stage("oven", 180.0, hours=3.0)]
    print(f"three hours in an oven: {1000 * _taken(Body('cylinder', 100.0), oven):.2f} ms")
    body = Body("cylinder", 80.0, ALPHA, K)
    stages = [Stage("oven", outside, hours=hours, film=film) for film, outside, hours in FIVE]
    ours_s = _taken(body, stages)
    print(f"five stages: {1000 * ours_s:.2f} ms")
    begin = time.perf_counter()
    heart, _ = stiffly("cylinder", 80.0, cells=72)
    taken = time.perf_counter() - begin
    journey = followed(body, 4.0, stages)
    apart = abs(journey.heart_c[-1] - heart) / 196
    print(
        f"stiff solver, tolerance 1e-6: {1000 * taken:.0f} ms, {taken / ours_s:.0f} times as long, "
        f"{100 * apart:.3f} % of the step apart"
    )
    _forecasts()


def _taken(body: Body, stages: list[Stage]) -> float:
    times = []
    for _ in range(40):
        begin = time.perf_counter()
        followed(body, 4.0, stages)
        times.append(time.perf_counter() - begin)
    return statistics.median(times)


def _forecasts() -> None:
    near, held, times = 0, 0, []
    for seed in range(COOKS):
        made = cook(np.random.default_rng(seed))
        half = made.readings[: max(1, len(made.readings) // 2)]
        stage = Stage("oven", made.air_c, until_c=made.goal_c)
        begin = time.perf_counter()
        found = forecast(
            Body("cylinder", made.thickness_mm), 4.0, [stage], [Reading(*each) for each in half]
        )
        times.append(time.perf_counter() - begin)
        done, left = found.done, made.done_h - half[-1][0]
        near += abs(done.usual - made.done_h) < 0.15 * left
        held += done.low <= made.done_h <= done.high
    print(
        f"from half of the readings of {COOKS} cooks: {100 * near / COOKS:.0f} % within 15 % of "
        f"what is left, {100 * held / COOKS:.0f} % within the band, "
        f"{1000 * statistics.median(times):.0f} ms each"
    )


if __name__ == "__main__":
    main()
