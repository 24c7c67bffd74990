"""Plays a device against a kitchen: it posts what it would read, by that kitchen's clock."""

import json
import random
import time
import urllib.error
import urllib.request
from argparse import ArgumentParser, ArgumentTypeError, Namespace
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from pantry_devices.world import Fire, Fridge, Meat

HUMID_PA = 15_000.0
NOISE_C = 0.25
USUAL_M2_S, WETNESS = 1.3e-7, 1.2
LONGEST_S = 900.0
SHAPES = {"slab": 0, "cylinder": 1, "ball": 2}


@dataclass
class Kitchen:
    """The kitchen that is posted to."""

    address: str
    token: str

    def post(self, readings: Sequence[dict[str, object]]) -> dict[str, object]:
        """Post readings; what it answers.

        Raises: OSError where it cannot be reached or refuses.
        """
        body = json.dumps({"readings": readings}).encode()
        headers = {"Authorization": f"Bearer {self.token}", "Content-Type": "application/json"}
        asked = urllib.request.Request(f"{self.address}/devices/readings/", body, headers)  # noqa: S310
        with urllib.request.urlopen(asked, timeout=10) as answer:  # noqa: S310 - the cook names it
            found: dict[str, object] = json.load(answer)
            return found

    def now(self) -> datetime:
        """What its clock says."""
        return datetime.fromisoformat(str(self.post([])["now"]))


class Probe:
    """A probe of up to four wires: one in each piece of meat, the last at the grate."""

    def __init__(self, asked: Namespace, rng: random.Random) -> None:
        self.rng, self.asked = rng, asked
        self.fire = Fire(asked.fire, rng, wind=asked.wind, celsius=asked.fire)
        self.pieces = [
            Meat(
                each / 1000.0, SHAPES[asked.shape], asked.start,
                rng.uniform(0.9, 1.1) * USUAL_M2_S, asked.film, WETNESS,
            )
            for each in asked.thickness
        ]  # fmt: skip
        self.hours = 0.0

    def go_on(self, seconds: float) -> None:
        """Let so much time pass."""
        self.hours += seconds / 3600.0
        is_left_alone = self.asked.fire_down_h and self.hours > self.asked.fire_down_h
        if self.fire.fuel_h < 0.3 and not is_left_alone:
            self.fire.top_up()
        self.fire.step(seconds)
        for each in self.pieces:
            each.step(self.fire.celsius, seconds, HUMID_PA)

    def read(self) -> list[tuple[int, float]]:
        """What its channels show."""
        is_out = self.asked.out_h and self.asked.out_h < self.hours < self.asked.out_h + 0.2
        inside = [each.heart_c for each in self.pieces]
        if is_out:
            inside[0] = self.fire.celsius - 2.0
        return list(enumerate([*inside, self.fire.celsius], start=1))


class Scale:
    """A kitchen scale on which somebody heaps one thing after another."""

    def __init__(self, asked: Namespace, rng: random.Random) -> None:
        self.rng, self.hours, self.grams = rng, 0.0, 0.0
        self.wanted = list(asked.weights)

    def go_on(self, seconds: float) -> None:
        """Let so much time pass: it is heaped on by and by, rests, and is taken off."""
        self.hours += seconds / 3600.0
        if self.wanted and self.grams < self.wanted[0]:
            self.grams = min(self.wanted[0], self.grams + self.wanted[0] * seconds / 20.0)

    def read(self) -> list[tuple[int, float]]:
        """What it shows."""
        return [(1, self.grams)]


class Thermometer:
    """A thermometer in the fridge."""

    def __init__(self, asked: Namespace, rng: random.Random) -> None:
        self.asked, self.hours = asked, 0.0
        self.fridge = Fridge(rng)

    def go_on(self, seconds: float) -> None:
        """Let so much time pass."""
        before, self.hours = self.hours, self.hours + seconds / 3600.0
        if self.asked.open_h and before < self.asked.open_h <= self.hours:
            self.fridge.open_s = 3600.0
        self.fridge.step(seconds)

    def read(self) -> list[tuple[int, float]]:
        """What its channel shows."""
        return [(1, self.fridge.celsius)]


Maker = Callable[[Namespace, random.Random], Probe | Thermometer | Scale]
DEVICES: dict[str, Maker] = {
    "probe": Probe, "fridge": Thermometer, "scale": Scale,
}  # fmt: skip


def play(asked: Namespace, made: Maker | None = None) -> None:
    """Post readings until somebody ends it, or it has lasted as long as was asked.

    `made` makes the device, where it is another than the one that is asked for by name.
    """
    rng = random.Random(asked.seed)  # noqa: S311 - it is a toss of noise
    kitchen = Kitchen(asked.address.rstrip("/"), asked.token)
    device = (made or DEVICES[asked.kind])(asked, rng)
    what, noise = ("grams", 0.0) if asked.kind == "scale" else ("celsius", NOISE_C)
    at = now = kitchen.now()
    while device.hours < asked.hours:
        time.sleep(asked.wait)
        readings: list[dict[str, object]] = []
        while now - at >= timedelta(seconds=asked.every):
            step = min((now - at).total_seconds(), asked.every)
            at += timedelta(seconds=step)
            device.go_on(step)
            if rng.random() < asked.drop_outs:
                continue
            readings += [
                {
                    "channel": n, what: round(c + rng.gauss(0.0, noise), 1),
                    "at": at.isoformat(),
                }
                for n, c in device.read()
            ]  # fmt: skip
        for first in range(0, max(len(readings), 1), 400):
            told = kitchen.post(readings[first : first + 400])
            now = datetime.fromisoformat(str(told["now"]))
            for each in told.get("left_out", []):  # type: ignore[attr-defined]  # JSON
                print("left out:", each, flush=True)
        if readings:
            print(f"{at:%H:%M:%S}", *(f"{c:.1f}" for _, c in device.read()), flush=True)


def _seconds(text: str) -> float:
    """Seconds between two readings.

    Raises: ArgumentTypeError for less than one.
    """
    seconds = float(text)
    if not seconds >= 1.0:
        raise ArgumentTypeError(f"{text} is too short; use 1 or more")
    return seconds


def parser() -> ArgumentParser:
    """What can be asked."""
    found = ArgumentParser(prog="bin/device", description="Plays a device against a kitchen.")
    found.add_argument("kind", choices=tuple(DEVICES))
    found.add_argument("token", help="as the page of devices told it")
    found.add_argument("--address", default="http://127.0.0.1:8000")
    found.add_argument("--every", type=_seconds, default=5.0, help="seconds of the kitchen's clock")
    found.add_argument("--wait", type=float, default=1.0, help="seconds between two posts")
    found.add_argument("--hours", type=float, default=24.0, help="by the kitchen's clock")
    found.add_argument("--seed", type=int, default=1)
    found.add_argument("--drop-outs", type=float, default=0.02, help="share that is lost")
    found.add_argument(
        "--thickness", type=float, nargs="+", default=[70.0], help="of each piece, up to three [mm]"
    )
    found.add_argument("--shape", choices=tuple(SHAPES), default="cylinder")
    found.add_argument("--start", type=float, default=5.0, help="the piece at first [°C]")
    found.add_argument("--fire", type=float, default=110.0, help="wanted of the fire [°C]")
    found.add_argument("--film", type=float, default=14.0, help="heat transfer [W/m2K]")
    found.add_argument("--wind", type=float, default=0.3, help="0 for none, 1 for a storm")
    found.add_argument("--out-h", type=float, default=0.0, help="it is pulled out then [h]")
    found.add_argument("--fire-down-h", type=float, default=0.0, help="nobody tops up then [h]")
    found.add_argument("--weights", type=float, nargs="*", default=[71.4], help="heaped on [g]")
    found.add_argument("--open-h", type=float, default=0.0, help="the door stays open [h]")
    return found


def main() -> int:
    """Play what the command line asks for."""
    try:
        play(parser().parse_args())
    except urllib.error.HTTPError as error:
        print(error.code, error.read().decode(errors="replace")[:300])
        return 1
    except (OSError, KeyboardInterrupt) as error:
        print(error or "ended")
        return 1
    return 0
