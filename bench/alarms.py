"""What is said of a fire, a probe and a fridge as they are played: what is missed or false.

Run it with `bin/bench alarms` (about a minute); COOKS sets how many. Each plays four hours with
noise, drop-outs, wind and a lid that is lifted; in all but one of six something goes wrong at a
moment. Whatever is said without it is counted as false, a gust that takes the fire down as well.
"""

import os
import random
import statistics

from pantry_core.readings.sift import Sample, Sieve
from pantry_core.readings.watch import watched
from pantry_devices.world import Fire, Fridge, Meat

COOKS = int(os.environ.get("COOKS", "120"))
HOURS, EVERY_S, LOOK_S = 4.0, 15.0, 60.0
FAULT_S, LASTS_S = 5400.0, 1500.0
WANTED_C, BAND_C = 110.0, (100.0, 120.0)
HUMID_PA = 15_000.0
FAULTS = ("none", "fire-low", "pulled-out", "frozen", "silent", "in-the-air")
LOOKED_BACK_S = 5400.0
ALSO = {
    "in-the-air": {"in-the-air", "pulled-out", "refused"}, "pulled-out": {"pulled-out", "refused"},
}  # fmt: skip


def played(fault: str, rng: random.Random):  # noqa: C901 - one thing after another, as it is played
    """Minute by minute: whether the fault goes on, and what is said."""
    fire = Fire(WANTED_C, rng, wind=rng.choice((0.0, 0.3)), celsius=WANTED_C)
    meat = Meat(rng.uniform(0.06, 0.1), 1, 5.0, 1.3e-7, 15.0, 1.2)
    sieves = {"meat": Sieve("meat"), "fire": Sieve("fire")}
    kept: dict[str, list[Sample]] = {"meat": [], "fire": []}
    at, stuck, refused_at = 0.0, None, None
    while at < HOURS * 3600.0:
        at += EVERY_S
        is_wrong = fault != "none" and FAULT_S <= at < FAULT_S + LASTS_S
        if fire.fuel_h < 0.6 and not (fault == "fire-low" and at >= FAULT_S - 1800.0):
            fire.top_up()
        if fault == "fire-low" and at == FAULT_S:
            fire.fuel_h = 0.0
        fire.step(EVERY_S)
        if at % 3600.0 < 45.0:  # the lid is lifted, to turn or to baste
            fire.celsius -= 8.0
        meat.step(fire.celsius, EVERY_S, HUMID_PA)
        shown = {"meat": meat.heart_c, "fire": fire.celsius}
        if is_wrong and fault == "pulled-out":
            shown["meat"] = 22.0
        if is_wrong and fault == "in-the-air":
            shown["meat"] = fire.celsius - 2.0
        if is_wrong and fault == "frozen":
            stuck = shown["meat"] if stuck is None else stuck
        for what, celsius in shown.items():
            lost = rng.random() < 0.02 or (is_wrong and fault == "silent" and what == "meat")
            if lost:
                continue
            read = celsius + rng.gauss(0.0, 0.25)
            if is_wrong and fault == "frozen" and what == "meat":
                read = stuck
            believed, out = sieves[what].sift([Sample(at, round(read, 1))], at)
            kept[what] += believed
            if what == "meat" and (out or sieves[what].waiting):
                refused_at = at
        if at % LOOK_S == 0.0 and kept["meat"] and kept["fire"]:
            recent = {
                what: [each for each in found if each.at_s >= at - LOOKED_BACK_S]
                for what, found in kept.items()
            }
            of_fire = watched("fire", recent["fire"], at, band_c=BAND_C)
            of_meat = watched(
                "meat", recent["meat"], at, fire_c=of_fire.read_c, refused_s=refused_at
            )
            yield at, is_wrong, {*of_fire.troubles, *of_meat.troubles}


def fridges(rng: random.Random):
    """Whether a door that stays open is said, and how often without one, in eight hours."""
    fridge, sieve, kept, false, said = Fridge(rng), Sieve("fridge"), [], 0, False
    before: set[str] = set()
    for n in range(int(8 * 3600 / EVERY_S)):
        at = n * EVERY_S
        if at == 6 * 3600.0:
            fridge.open_s = 3600.0
        fridge.step(EVERY_S)
        kept += sieve.sift([Sample(at, round(fridge.celsius, 1))], at)[0]
        if at % LOOK_S == 0.0 and kept:
            recent = [each for each in kept if each.at_s >= at - 1200.0]
            found = set(watched("fridge", recent, at, band_c=(-5.0, 5.0)).troubles)
            if at < 6 * 3600.0:
                false += len(found - before)
            said |= at >= 6 * 3600.0 and "warm" in found
            before = found
    return said, false / 6.0


def main() -> None:
    """Play them, and print what was missed and what was false as one line."""
    false, missed, late = [], [], []
    for n in range(COOKS):
        fault = FAULTS[n % len(FAULTS)]
        wanted = ALSO.get(fault, {fault})
        before: set[str] = set()
        count, found_at = 0, None
        for at, _, found in played(fault, random.Random(7919 * n + 1)):
            after_fault = fault != "none" and at >= FAULT_S
            is_its = after_fault and at < FAULT_S + LASTS_S + LOOKED_BACK_S
            if is_its and found & wanted and found_at is None:
                found_at = at
            # what a fault leaves behind it, as a fire that comes back, is no false alarm
            count += 0 if is_its else len(found - before)
            before = found
        hours = HOURS if fault == "none" else FAULT_S / 3600.0
        false.append(count / hours)
        if fault != "none":
            missed.append(found_at is None)
            late += [] if found_at is None else [(found_at - FAULT_S) / 60.0]
    cold = [fridges(random.Random(n)) for n in range(COOKS // 6)]
    print(
        f"{COOKS} cooks: missed {sum(missed)} of {len(missed)}, said after "
        f"{statistics.median(late):.0f} min at the median and {max(late):.0f} at the most; "
        f"false {statistics.mean(false):.2f} an hour, {max(false):.2f} at the most; fridge: missed "
        f"{sum(not said for said, _ in cold)} of {len(cold)}, false "
        f"{statistics.mean(each for _, each in cold):.2f} an hour"
    )


main()
