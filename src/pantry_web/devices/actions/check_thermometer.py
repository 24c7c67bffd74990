"""Keeping what a thermometer showed in ice and in boiling water."""

from datetime import datetime

from pantry_web.devices.models import Channel, ThermometerCheck
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.presses.once import once


@once()
def check_thermometer(
    kitchen: Kitchen,
    by: Cook,
    now: datetime,
    *,
    channel: Channel | None,
    name: str,
    ice_c: float,
    boiling_c: float,
    height_m: float,
) -> ThermometerCheck:
    """Keep a check; what a wire reads from then on is put right by it.

    Parameters: kitchen; by; now; channel, None for a thermometer that is no device, by its name;
    ice_c and boiling_c that it showed [°C]; height_m above the sea [m].
    """
    return ThermometerCheck.objects.create(
        kitchen=kitchen, channel=channel, name=name, ice_c=ice_c, boiling_c=boiling_c,
        height_m=height_m, at=now, by=by,
    )  # fmt: skip
