"""Saying what a channel is in."""

from pantry_web.devices.models import Channel
from pantry_web.feasts.models import Dish
from pantry_web.presses.once import once


@once()
def use_channel(
    channel: Channel,
    what: str,
    dish: Dish | None,
    low_c: float | None,
    high_c: float | None,
) -> None:
    """Say what a channel is in, and between what a fire is wanted [°C].

    What was read before, of something else, is no longer its curve.
    """
    if (channel.what, channel.dish) != (what, dish):
        channel.readings.all().delete()
        channel.waiting, channel.left_out = [], {}
        channel.goal_c = channel.written_at = channel.thinned_at = channel.refused_at = None
    channel.what, channel.dish = what, dish
    channel.low_c, channel.high_c = low_c, high_c
    channel.save()
