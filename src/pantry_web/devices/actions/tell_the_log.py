"""Telling the log of a dish what its probe and its fire show, with nothing held meanwhile."""

from datetime import UTC, datetime, timedelta

from pantry_core.readings.sift import Sample
from pantry_core.readings.watch import mean_c
from pantry_web.devices.actions.take_readings import EVERY, samples_of
from pantry_web.devices.models import Channel
from pantry_web.feasts.actions.log.record import record
from pantry_web.feasts.models import Event
from pantry_web.planning.hands import gate_now
from pantry_web.planning.looking import outlook_alone
from pantry_web.planning.outlook import Outlook
from pantry_web.presses.once import once

AGAIN = timedelta(minutes=1)
"""So soon it is looked again whether the dish goes by a probe by now."""
FIRE_EVERY = timedelta(minutes=15)
"""So often the log is told how hot it was around the piece."""


def tell_the_log(channel: Channel, sample: Sample, now: datetime) -> None:
    """Write down what a probe shows, where its dish waits for a temperature or a feel of it.

    Parameters: channel, in the meat of a dish; sample that it showed; now.
    """
    dish = channel.dish
    if dish is None:
        return
    view = outlook_alone(dish, dish.feast.kitchen, now)
    gate = gate_now(view)
    is_asked = gate is not None and (gate.asks == "temperature" or gate.medium_c is not None)
    with once():
        if gate is None or not is_asked or view.state.running is None:
            channel.goal_c, channel.written_at = None, now - EVERY + AGAIN
        else:
            channel.goal_c, channel.written_at = gate.goal_c or gate.hint_c, now
            record(
                view, channel.device.added_by, Event.What.TEMPERATURE_READ,
                step_key=view.state.running, temperature_c=round(sample.celsius, 1),
                line=str(channel)[:80],
            )  # fmt: skip
            _tell_of_the_fire(view, channel, now)
        channel.save(update_fields=["goal_c", "written_at"])


def _tell_of_the_fire(view: Outlook, channel: Channel, now: datetime) -> None:
    """Write down how hot it was around the piece since that was last told, on the average."""
    begun = view.state.running_since
    fires = Channel.objects.filter(
        device__kitchen=view.kitchen, device__revoked_at=None, what=Channel.What.FIRE,
        dish=view.dish,
    )  # fmt: skip
    fire = fires.first()
    if fire is None or begun is None:
        return
    since = max(begun, fire.written_at or begun)
    if now - since < FIRE_EVERY:
        return
    around_c = mean_c(samples_of(fire, since.astimezone(UTC)))
    if around_c is None:
        return
    fire.written_at = now
    fire.save(update_fields=["written_at"])
    record(
        view, channel.device.added_by, Event.What.HEAT_READ, step_key=view.state.running,
        temperature_c=round(min(around_c, 300.0), 1), line=str(fire)[:80],
    )  # fmt: skip
