"""Fire day with four devices of four wires that have read every five seconds for a day.

Run it with `bin/bench watching` (about a minute). It makes a kitchen of its own in a temporary
folder, takes the readings in as they would come, a few minutes at a time, and measures the page,
another look at it, and a post. Times are of the server alone; queries are counted.
"""

import json
import math
import random
from datetime import timedelta

from bench.timing import HEAD, measure
from django.core.cache import cache
from django.core.management import call_command
from django.test import Client

from pantry_core.readings.sift import Sample
from pantry_web.demo import kitchen as demo
from pantry_web.devices.actions.add_device import add_device
from pantry_web.devices.actions.take_readings import take_readings
from pantry_web.devices.actions.use_channel import use_channel
from pantry_web.devices.models import Channel, Reading
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.models import Event, Feast
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.planning.looking import ask_for_plan, feast_outlook
from pantry_web.planning.solving import work_out_plan

DAY_H, EVERY_S, AT_ONCE_S = 24, 5, 600
DEVICES, REPEATS = 4, 40
SHOULDER = {
    "piece": {"cut": "pork-shoulder", "mass_g": 5000, "thickness_mm": 140},
    "cure": {"method": "none"}, "heat": {"way": "smoke", "medium_c": 107.0},
}  # fmt: skip


def main() -> None:
    """Fill the kitchen, and print a table."""
    call_command("migrate", verbosity=0)
    demo.load()
    kitchen, cook = Kitchen.objects.get(), Cook.objects.get(username=demo.COOK)
    now = demo.STANDS_AT
    begins = now - timedelta(hours=DAY_H)
    feast = Feast.objects.create(
        kitchen=kitchen, name="Four Shoulders", serve_at=now + timedelta(hours=6),
        time_zone=demo.ZONE, heads=8,
    )  # fmt: skip
    tokens = [_at_the_fire(kitchen, cook, feast, n, begins) for n in range(DEVICES)]
    raw = _read_for_a_day(kitchen, begins, now)
    print(f"{raw} readings came, {Reading.objects.count()} are kept")
    ask_for_plan(feast, kitchen, now)
    whole = feast_outlook(feast, kitchen, now)
    if whole.solving is not None:
        work_out_plan.call(whole.solving.pk)
    client = Client()
    client.force_login(cook)
    print(HEAD)
    measure("fire day", lambda: client.get("/fire/"), REPEATS)
    measure("a post of two readings", lambda: _post(tokens[0]), REPEATS)


def _at_the_fire(kitchen, cook, feast, n, begins) -> str:
    """A shoulder in the smoker, with a probe of four wires; its token."""
    dish = add_dish(feast, f"Shoulder {n}", SHOULDER)
    step = next(
        each for each in feast_outlook(feast, kitchen, begins).of(dish).steps if each.kind == "cook"
    )
    for what in ("step-started", "temperature-read"):
        Event.objects.create(
            dish=dish, batch=f"{n:032x}", what=what, at=begins, by=cook, step_key=step.id,
            temperature_c=None if what == "step-started" else 6.0,
        )  # fmt: skip
    device, token = add_device(kitchen, cook, f"Probe {n}", begins)
    for channel, what in zip(
        device.channels.all(), ("meat", "fire", "fridge", "fire"), strict=True
    ):
        use_channel(channel, what, None if what == "fridge" else dish, 97.0, 117.0)
    return token


def _read_for_a_day(kitchen, begins, now) -> int:
    """Take a day's readings in, the log being told of none; how many there were."""
    toss, count = random.Random(3), 0
    for at_s in range(0, DAY_H * 3600, AT_ONCE_S):
        until = begins + timedelta(seconds=at_s + AT_ONCE_S)
        for device in kitchen.devices.filter(name__startswith="Probe "):
            told = {
                number: [
                    Sample(begins.timestamp() + s, round(shown(what, s, toss), 1))
                    for s in range(at_s, at_s + AT_ONCE_S, EVERY_S)
                ]
                for number, what in device.channels.values_list("number", "what")
            }  # fmt: skip
            count += sum(len(each) for each in told.values())
            take_readings(device, told, min(until, now))
    return count


def shown(what, seconds, toss):
    """What a wire shows."""
    if what == Channel.What.MEAT:
        return 6.0 + 76.0 * (1.0 - math.exp(-seconds / 40_000.0)) + toss.gauss(0.0, 0.1)
    return {"fire": 107.0, "fridge": 3.6}[what] + toss.gauss(0.0, 0.4)


def _post(token) -> None:
    cache.clear()
    body = json.dumps(
        {"readings": [{"channel": 1, "celsius": 74.0}, {"channel": 2, "celsius": 108}]}
    )
    answer = Client().post(
        "/devices/readings/", body, content_type="application/json",
        headers={"Authorization": f"Bearer {token}"},
    )  # fmt: skip
    assert answer.status_code == 200, answer.content


main()
