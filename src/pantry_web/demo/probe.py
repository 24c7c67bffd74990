"""A probe of two wires in tonight's trout, with what it has read so far."""

import random
from datetime import datetime, timedelta

from pantry_web.devices.actions.add_device import add_device
from pantry_web.devices.actions.use_channel import use_channel
from pantry_web.devices.models import Channel, Reading
from pantry_web.feasts.models import Dish
from pantry_web.kitchens.models import Cook, Kitchen

FIRE_C, BAND_C = 107.0, (100.0, 115.0)
FIRST_C, PER_MIN, BENT = 10.0, 1.35, -0.01056
"""From the fridge, so fast at first, by and by slower [°C, °C/min, °C/min²]: 41 and 53 °C come
when the cook has read them."""
EVERY_S = 15


def put_in_the_probe(
    kitchen: Kitchen, cook: Cook, dish: Dish, begins: datetime, now: datetime
) -> None:
    """Put a probe into a dish that has been at the fire since a moment."""
    device, _ = add_device(kitchen, cook, "Probe of two wires", begins)
    meat, fire, *_ = device.channels.all()
    use_channel(meat, Channel.What.MEAT, dish, None, None)
    use_channel(fire, Channel.What.FIRE, dish, *BAND_C)
    toss = random.Random(4)  # noqa: S311 - it is a toss of noise
    read = []
    for n in range(int((now - begins).total_seconds()) // EVERY_S + 1):
        minutes = n * EVERY_S / 60.0
        inside_c = FIRST_C + PER_MIN * minutes + BENT * minutes**2
        at = begins + timedelta(seconds=n * EVERY_S)
        for channel, celsius, noise in ((meat, inside_c, 0.1), (fire, FIRE_C, 1.2)):
            shown = round(celsius + toss.gauss(0.0, noise), 1)
            read.append(Reading(channel=channel, at=at, celsius=shown))
    Reading.objects.bulk_create(read)
    device.seen_at = now
    device.save(update_fields=["seen_at"])
