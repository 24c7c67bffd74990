"""What stands at the heat now, or will today: as it is read, foretold, and wanted."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal
from zoneinfo import ZoneInfo

from pantry_core.dish.answer import DishStep, Gate
from pantry_core.heat.cooling import Cooling, cooling
from pantry_core.history.log import hours_between
from pantry_core.measures.said import span
from pantry_core.readings.sift import Sample
from pantry_core.readings.watch import Watched, watched
from pantry_core.text import Text, say
from pantry_web.devices.actions.take_readings import samples_of
from pantry_web.devices.models import Channel
from pantry_web.drawings.fireday import Course, Curve, curve
from pantry_web.feasts.models import Event
from pantry_web.planning.hands import Task, gate_now, look_again_at, tasks
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.quantities import hours_of

AT_THE_HEAT = frozenset(("oven", "smoker", "hob", "fire", "grill", "coals"))
LONGEST = timedelta(hours=30)
"""So far back a curve is drawn."""
EARLY = timedelta(minutes=30)
MOST_POINTS = 120

Standing = Literal["running", "to-come", "cooling"]


@dataclass(frozen=True, slots=True)
class Hours:
    """When it is done, usually and within its band."""

    usual: datetime
    low: datetime
    high: datetime


@dataclass(frozen=True, slots=True)
class AtTheHeat:
    """A dish at the heat, or that comes to it today.

    `late` is by how much its forecast passes the start of what follows, at the usual hour; `spare`
    how much lies between them.
    """

    view: Outlook
    step: DishStep
    standing: Standing
    begins: datetime | None
    gate: Gate | None
    read_c: float | None
    watched: Watched
    fire: Watched | None
    fire_band_c: tuple[float, float] | None
    done: Hours | None
    wanted_by: datetime | None
    curve: Curve | None
    cooling: Cooling | None
    look_again: datetime | None
    task: Task | None
    channels: tuple[Channel, ...]

    @property
    def spare(self) -> timedelta | None:
        """What lies between when it is done and when it is wanted; below nothing where late."""
        if self.done is None or self.wanted_by is None:
            return None
        return self.wanted_by - self.done.usual

    @property
    def late(self) -> timedelta | None:
        """By how much it is late; None where it is in time."""
        spare = self.spare
        return -spare if spare is not None and spare < timedelta(0) else None

    @property
    def held(self) -> Text | None:
        """How it waits, if it would be ready early."""
        spare = self.spare
        if self.standing != "running" or spare is None or spare < EARLY or self.done is None:
            return None
        return say(
            "It would be ready {early} early: wrapped, it waits in a warm box at 60 °C or above, "
            "read each hour. Below that the two hours count.",
            early=span(hours_of(spare)),
        )


def at_the_heat(wholes: Sequence[FeastOutlook], zone: ZoneInfo) -> list[AtTheHeat]:
    """All that is at the heat, cools, or comes to the heat today, the nearest first.

    Parameters: wholes, the feasts ahead; zone, of the kitchen.
    """
    views = [view for whole in wholes for view in whole.dishes if not view.dish.is_given_up]
    channels: dict[int, list[Channel]] = {}
    dishes = [view.dish.pk for view in views]
    found = Channel.objects.filter(dish__in=dishes, device__revoked_at=None)
    for channel in found.select_related("device"):
        channels.setdefault(channel.dish_id or 0, []).append(channel)
    rows = [
        row for view in views
        if (row := _row(view, channels.get(view.dish.pk, ()), zone)) is not None
    ]  # fmt: skip
    order: dict[Standing, int] = {"running": 0, "cooling": 0, "to-come": 1}
    far = max((each.now for each in views), default=None)
    return sorted(rows, key=lambda row: (order[row.standing], row.begins or far))


def _row(view: Outlook, channels: Sequence[Channel], zone: ZoneInfo) -> AtTheHeat | None:
    running = view.step(view.state.running or "")
    gate = gate_now(view)
    if view.is_discarded:
        return None
    if running is not None and gate is not None and (gate.goal_c or 99.0) < 30.0:
        return _built(view, running, "cooling", gate, channels)
    if running is not None and (running.kind == "cook" or running.place in AT_THE_HEAT):
        return _built(view, running, "running", gate, channels)
    today = view.now.astimezone(zone).date()
    for step in view.steps:
        planned = view.planned(step.id)
        if step.kind != "cook" or step.id in view.state.begun or planned is None:
            continue
        if planned.start.astimezone(zone).date() == today:
            return _built(view, step, "to-come", None, channels)
        return None
    return None


def _built(
    view: Outlook,
    step: DishStep,
    standing: Standing,
    gate: Gate | None,
    channels: Sequence[Channel],
) -> AtTheHeat:
    now = view.now
    planned = view.planned(step.id)
    begins = view.state.running_since if standing != "to-come" else None
    begins = begins or (planned.start if planned else None)
    meat = next((each for each in channels if each.what == Channel.What.MEAT), None)
    at_grate = next((each for each in channels if each.what == Channel.What.FIRE), None)
    fire_read = samples_of(at_grate, now - LONGEST) if at_grate else []
    band = None
    if at_grate and at_grate.low_c is not None and at_grate.high_c is not None:
        band = (at_grate.low_c, at_grate.high_c)
    fire = watched("fire", fire_read, now.timestamp(), band_c=band) if at_grate else None
    read = _read(view, step, meat, begins)
    seen = watched(
        "meat", read if meat else [], now.timestamp(), fire_c=fire.read_c if fire else None
    )
    done = _done(view, gate, planned.end if planned else None)
    read_c = read[-1].celsius if read else None
    course = _course(view, read, gate, done)
    cools = None
    if standing == "cooling" and read_c is not None and begins is not None:
        cools = cooling(min(hours_between(begins, now), 100.0), read_c)
    return AtTheHeat(
        view, step, standing, begins, gate, read_c, seen, fire, band, done,
        _wanted_by(view, step), curve(course) if course else None, cools, look_again_at(view),
        next(iter(tasks(view)), None), tuple(channels),
    )  # fmt: skip


def _read(
    view: Outlook, step: DishStep, meat: Channel | None, begins: datetime | None
) -> list[Sample]:
    """What was read of it at this step: by its probe, else what was written down."""
    since = max(begins or view.now, view.now - LONGEST)
    samples = samples_of(meat, since) if meat else []
    if not samples:
        samples = [
            Sample(each.at.timestamp(), each.temperature_c)
            for each in view.state.events
            if each.what == Event.What.TEMPERATURE_READ
            and each.step_key == step.id
            and each.temperature_c is not None
        ]
    return samples


def _done(view: Outlook, gate: Gate | None, planned_end: datetime | None) -> Hours | None:
    if gate is not None and gate.left_h is not None:
        left = gate.left_h
        ends = (view.now + timedelta(hours=h) for h in (left.usual, left.low, left.high))
        return Hours(*ends)
    if planned_end is not None and planned_end > view.now:
        return Hours(planned_end, planned_end, planned_end)
    return None


def _wanted_by(view: Outlook, step: DishStep) -> datetime | None:
    """When it may leave the heat at the latest, so that what follows is in time."""
    after = view.steps[view.place_of(step.id) + 1 :]
    served_at = view.dish.serve_at or view.whole.feast.serve_at
    return served_at - timedelta(hours=sum(each.min_h for each in after))


def _course(
    view: Outlook, read: Sequence[Sample], gate: Gate | None, done: Hours | None
) -> Course | None:
    zone = ZoneInfo(view.dish.feast.time_zone)
    now = view.now.astimezone(zone)
    every = max(1, len(read) // MOST_POINTS)
    points = tuple(
        (datetime.fromtimestamp(each.at_s, zone), each.celsius)
        for n, each in enumerate(read)
        if n % every == 0 or n == len(read) - 1
    )
    foretold = tuple(
        (now + timedelta(hours=h), c) for h, c in (gate.foretold if gate is not None else ())
    )
    if not points and not foretold:
        return None
    left = gate.left_h if gate is not None else None
    is_told = left is not None and left.usual > 0
    return Course(
        points, foretold, gate.goal_c if gate else None, now,
        (done.low.astimezone(zone), done.high.astimezone(zone)) if done and is_told else None,
        (view.dish.serve_at or view.whole.feast.serve_at).astimezone(zone),
        left.low / left.usual if left and is_told else 1.0,
        left.high / left.usual if left and is_told else 1.0,
    )  # fmt: skip
