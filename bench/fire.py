"""Cooks that the simulated world cooks, foretold from half time on by the core and by the kilo.

Run it with `bin/bench fire` (about two minutes); COOKS sets how many. Each is a slab, a cylinder or
a ball of another thickness at another fire, with wind, noise and drop-outs. From half of the true
time on, at a few moments: whether the true hour lies in the band, and the error of the forecast as
a share of the time that is left, beside that of a guess by the kilo which no reading mends.
"""

import math
import os
import random
import statistics

from pantry_core.heat.body import Body
from pantry_core.heat.forecast import Reading, forecast
from pantry_core.heat.stages import Stage
from pantry_devices.world import Fire, Meat

COOKS = int(os.environ.get("COOKS", "300"))
GOALS = (63.0, 71.0, 74.0, 88.0)
SHARES = (0.5, 0.65, 0.8)
GRATE = os.environ.get("GRATE", "1") == "1"
EVERY_S, LONGEST_S = 30.0, 30 * 3600.0
SHAPES = ("slab", "cylinder", "ball")
DENSITY = 1060.0


def cooked(rng: random.Random) -> tuple[dict[str, float | str], list[tuple[float, float, float]]]:
    """A cook to its goal: what it was, and what was read in it and at the grate [h, °C]."""
    fire_c = rng.choice((107.0, 120.0, 135.0, 160.0, 180.0))
    what = {
        "shape": rng.choice(SHAPES), "thickness_mm": rng.uniform(35.0, 110.0), "fire_c": fire_c,
        "goal_c": rng.choice([each for each in GOALS if each < 80.0 or fire_c < 140.0]),
    }  # fmt: skip
    fire = Fire(fire_c, rng, wind=rng.choice((0.0, 0.3, 1.0)), celsius=fire_c)
    meat = Meat(
        what["thickness_mm"] / 1000.0, SHAPES.index(what["shape"]), rng.uniform(3.0, 8.0),
        1.3e-7 * rng.uniform(0.88, 1.12), rng.uniform(12.0, 24.0), rng.uniform(0.6, 2.0),
    )  # fmt: skip
    # A closed smoker is moist, for its stall lies between 65 and 75 °C; an oven is vented.
    humid_pa = rng.uniform(9e3, 24e3) if fire_c <= 135.0 else rng.uniform(3e3, 11e3)
    read, at = [], 0.0
    while meat.heart_c < what["goal_c"] and at < LONGEST_S:
        if fire.fuel_h < 0.3 * rng.random():
            fire.top_up()
        fire.step(EVERY_S)
        meat.step(fire.celsius, EVERY_S, humid_pa)
        at += EVERY_S
        read.append((at / 3600.0, meat.heart_c, fire.celsius))
    return what, read


def kilos(what) -> float:
    """What such a piece weighs: a slab three by four of its thickness, a roast three long [kg]."""
    volume = {"slab": 12.0, "cylinder": 3.0 * math.pi / 4.0, "ball": math.pi / 6.0}[what["shape"]]
    return DENSITY * volume * (what["thickness_mm"] / 1000.0) ** 3


def main() -> None:
    """Foretell each cook, and print how well as one line."""
    cooks = [cooked(random.Random(7919 * n + 3)) for n in range(COOKS)]
    done = [(what, read) for what, read in cooks if read[-1][1] >= what["goal_c"]]
    rates = [(what, read[-1][0] / kilos(what)) for what, read in done]
    inside, errors, by_kilo = [], [], []
    for n, (what, read) in enumerate(done):
        rng, done_h = random.Random(n), read[-1][0]
        body = Body(what["shape"], what["thickness_mm"])
        medium = "smoker" if what["fire_c"] <= 135.0 else "oven"
        # A chart by the kilo: what others of this shape, at this fire, took a kilo on the average.
        alike = [
            rate for other, rate in rates
            if other is not what and other["shape"] == what["shape"]
            and abs(other["fire_c"] - what["fire_c"]) <= 25.0
        ]  # fmt: skip
        chart_h = statistics.median(alike) * kilos(what) if alike else done_h
        for share in SHARES:
            now_h, left = share * done_h, (1.0 - share) * done_h
            seen = [
                Reading(h, c + rng.gauss(0.0, 0.25))
                for h, c, _ in read[:: int(300 / EVERY_S)]
                if h <= now_h and rng.random() > 0.02
            ]
            at_grate = statistics.mean(fire_c for h, _, fire_c in read if h <= now_h)
            stage = Stage(medium, at_grate if GRATE else what["fire_c"], None, what["goal_c"])
            found = forecast(body, 5.0, [stage], seen).done
            inside.append(found is not None and found.low <= done_h <= found.high)
            errors.append(abs(found.usual - done_h) / left if found is not None else math.inf)
            by_kilo.append(abs(max(chart_h, now_h) - done_h) / left)
    print(
        f"{len(done)} of {COOKS} cooks came to their goal: in the band "
        f"{100 * statistics.mean(inside):.0f} %; error at the median "
        f"{100 * statistics.median(errors):.0f} % of the time left, by the kilo "
        f"{100 * statistics.median(by_kilo):.0f} %"
    )


main()
