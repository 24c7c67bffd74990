"""What stands at the heat now, or will today: as it is read, foretold, and wanted."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal
from zoneinfo import ZoneInfo

from pantry_core.dish.answer import DishStep, Gate, HeatHelp
from pantry_core.dish.heat_helps import LATE_FROM_H
from pantry_core.heat.cooling import ALL_H, Cooling, cooling
from pantry_core.heat.fuel import Fuel, fuel_for
from pantry_core.history.log import hours_between
from pantry_core.measures.said import span
from pantry_core.quantities import Celsius
from pantry_core.readings.sift import Sample
from pantry_core.readings.watch import Watched, watched
from pantry_core.routes.hot_steps import HOT_PLACES
from pantry_core.rules.heat import WARM_BOX_C, WARM_BOX_H
from pantry_core.text import Text, say
from pantry_web import quantities
from pantry_web.devices.actions.take_readings import LONGEST, samples_by_channel
from pantry_web.devices.models import Channel
from pantry_web.drawings.fireday import Course, Curve, curve
from pantry_web.feasts.models import Event
from pantry_web.planning.hands import Task, gate_now, look_again_at, reckoned_at, tasks
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.quantities import hours_of

EARLY = timedelta(minutes=30)
MOST_POINTS = 60
BAND_C = 10.0
"""A fire of which no band was said may be so far off either way (our own choice)."""
ON_TIME = timedelta(hours=LATE_FROM_H)
LATER = timedelta(minutes=15)
MOST_FUEL_H = 72.0

LEFT = timedelta(hours=ALL_H.value)
"""So long what is left of a hot dish is watched until it is cold."""

Standing = Literal["running", "to-come", "cooling", "left"]


@dataclass(frozen=True, slots=True)
class Hours:
    """When it is done, usually and within its band."""

    usual: datetime
    low: datetime
    high: datetime


@dataclass(frozen=True, slots=True)
class Wires:
    """What is read of a dish, and what of the fire that it is at."""

    meat: Sequence[Sample] = ()
    fire: Sequence[Sample] | None = None
    band_c: tuple[float, float] | None = None
    is_in_meat: bool = False
    refused_at: datetime | None = None


@dataclass(frozen=True, slots=True)
class AtTheHeat:
    """A dish at the heat, or that comes to it today.

    `late` is by how much its forecast passes the start of what follows, at the usual hour; `spare`
    how much lies between them. `helps` are changes of the heat that there is room for.
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
    helps: tuple[HeatHelp, ...]
    fuel: Fuel | None
    is_watched: bool

    @property
    def spare(self) -> timedelta | None:
        """What lies between when it is done and when it is wanted; below nothing where late."""
        if self.done is None or self.wanted_by is None:
            return None
        return self.wanted_by - self.done.usual

    @property
    def has_spare(self) -> bool:
        """Whether anything lies between."""
        return self.spare is not None and self.spare > timedelta(0)

    @property
    def late(self) -> timedelta | None:
        """By how much it is late; None where it is in time."""
        spare = self.spare
        return -spare if spare is not None and spare < -ON_TIME else None

    @property
    def needs_help(self) -> bool:
        """Whether it is late, or never comes to its goal as it goes on now."""
        return self.standing == "running" and (self.late is not None or bool(self.helps))

    @property
    def later(self) -> datetime | None:
        """When it could be dished up instead, if it is late: to a quarter of an hour, upwards."""
        if self.late is None or self.standing != "running":
            return None
        served_at = self.view.dish.serve_at or self.view.whole.feast.serve_at
        return served_at + -(-self.late // LATER) * LATER

    @property
    def held(self) -> Text | None:
        """How it waits, if it would be ready early."""
        spare = self.spare
        if self.standing != "running" or spare is None or spare < EARLY or self.done is None:
            return None
        until = self.done.usual + timedelta(hours=WARM_BOX_H.value)
        return say(
            "It would be ready {early} early: wrapped, it waits in a warm box at {warm_c} or "
            "above, read each hour, until {until} at the latest. Below that the two hours count.",
            early=span(hours_of(spare)),
            warm_c=Celsius(WARM_BOX_C.value),
            until=quantities.five(until, self.view.dish.feast.time_zone),
        )


def at_the_heat(wholes: Sequence[FeastOutlook], zone: ZoneInfo) -> list[AtTheHeat]:
    """All that is at the heat, cools, or comes to the heat today, the nearest first.

    Parameters: wholes, the feasts ahead; zone, of the kitchen.
    """
    views = [view for whole in wholes for view in whole.dishes if not view.dish.is_given_up]
    standing = [(view, at) for view in views if (at := _standing(view, zone)) is not None]
    wires = _wires([(view, step) for view, (step, _) in standing])
    rows = [_built(view, step, how, wires[view.key]) for view, (step, how) in standing]
    order: dict[Standing, int] = {"running": 0, "cooling": 0, "to-come": 1, "left": 2}
    far = max((each.now for each in views), default=None)
    return sorted(rows, key=lambda row: (order[row.standing], row.begins or far))


def _wires(standing: Sequence[tuple[Outlook, DishStep]]) -> dict[str, Wires]:
    """What is read of each dish; dishes at one fire share what is read of it."""
    if not standing:
        return {}
    now = standing[0][0].now
    ids = [view.dish.pk for view, _ in standing]
    of_a_dish = (Channel.What.MEAT, Channel.What.FIRE)
    found = Channel.objects.filter(dish__in=ids, device__revoked_at=None, what__in=of_a_dish)
    channels = list({(each.dish_id, each.what): each for each in found.order_by("-pk")}.values())
    samples = samples_by_channel(channels, now)
    places = {view.dish.pk: step.place for view, step in standing}
    fires: dict[str | None, Channel] = {}
    for each in channels:
        if each.what == Channel.What.FIRE:
            fires.setdefault(places[each.dish_id or 0], each)
    return {
        view.key: _wires_of(view.dish.pk, channels, samples, fires.get(step.place))
        for view, step in standing
    }


def _wires_of(
    dish: int, channels: Iterable[Channel], samples: Mapping[int, Sequence[Sample]],
    at_place: Channel | None,
) -> Wires:  # fmt: skip
    own = {each.what: each for each in channels if each.dish_id == dish}
    meat, fire = own.get(Channel.What.MEAT), own.get(Channel.What.FIRE, at_place)
    band = None
    if fire is not None and fire.low_c is not None and fire.high_c is not None:
        band = (fire.low_c, fire.high_c)
    return Wires(
        samples.get(meat.pk, ()) if meat else (),
        None if fire is None else samples.get(fire.pk, ()),
        band,
        is_in_meat=meat is not None,
        refused_at=meat.refused_at if meat else None,
    )


def _standing(view: Outlook, zone: ZoneInfo) -> tuple[DishStep, Standing] | None:
    """The step that is at the heat now, or comes to it today, and which of them."""
    running = view.step(view.state.running or "")
    gate = gate_now(view)
    if view.is_discarded:
        return None
    if _is_left(view):
        return view.steps[-1], "left"
    if running is not None and gate is not None and (gate.goal_c or 99.0) < 30.0:
        return running, "cooling"
    if running is not None and (running.kind == "cook" or running.place in HOT_PLACES):
        return running, "running"
    today = view.now.astimezone(zone).date()
    for step in view.steps:
        planned = view.planned(step.id)
        if step.kind != "cook" or step.id in view.state.begun or planned is None:
            continue
        return (step, "to-come") if planned.start.astimezone(zone).date() == today else None
    return None


def _is_left(view: Outlook) -> bool:
    """Whether a dish that was hot has been served, so short ago that what is left still cools."""
    served_at = view.state.latest_fact()
    if view.next_in_hands is not None or served_at is None or not view.steps:
        return False
    was_hot = any(each.kind == "cook" for each in view.steps)
    return was_hot and view.steps[-1].id in view.state.begun and view.now - served_at < LEFT


def _built(view: Outlook, step: DishStep, standing: Standing, wires: Wires) -> AtTheHeat:
    now = view.now
    gate = gate_now(view) if standing in ("running", "cooling") else None
    planned = view.planned(step.id)
    begins = view.state.running_since if standing in ("running", "cooling") else None
    if standing == "left":
        begins = view.state.latest_fact()
    begins = begins or (planned.start if planned else None)
    fire, band = _fire(wires, gate, now, is_oven=step.place == "oven")
    read = _read(view, step, wires, begins, is_left=standing == "left")
    seen = watched(
        "meat", read if wires.is_in_meat else [], now.timestamp(),
        fire_c=fire.read_c if fire else None,
        refused_s=wires.refused_at.timestamp() if wires.refused_at else None,
    )  # fmt: skip
    done = None if standing == "left" else _done(view, gate, planned.end if planned else None)
    read_c = read[-1].celsius if read else None
    course = _course(view, read, wires.fire or (), band, gate, done)
    cools = None
    if standing in ("cooling", "left") and read_c is not None and begins is not None:
        cools = cooling(min(hours_between(begins, now), 100.0), read_c)
    return AtTheHeat(
        view, step, standing, begins, gate, read_c, seen, fire, band, done,
        _wanted_by(view, step), curve(course) if course else None, cools, look_again_at(view),
        next(iter(tasks(view)), None), _helps(view, gate),
        _fuel(step, begins or now, now, done), wires.is_in_meat,
    )  # fmt: skip


def _fire(
    wires: Wires, gate: Gate | None, now: datetime, *, is_oven: bool
) -> tuple[Watched | None, tuple[float, float] | None]:
    """The fire as it is watched, and what is wanted of it: as it was said, else by the dish."""
    band = wires.band_c
    if band is None and gate is not None and gate.medium_c is not None:
        band = (gate.medium_c - BAND_C, gate.medium_c + BAND_C)
    if wires.fire is None:
        return None, band
    seen = watched("fire", wires.fire, now.timestamp(), band_c=band, is_oven=is_oven)
    return seen, band


def _helps(view: Outlook, gate: Gate | None) -> tuple[HeatHelp, ...]:
    """What would help: nothing of an oven that other dishes fill meanwhile."""
    helps = gate.helps if gate is not None else ()
    return tuple(
        each for each in helps
        if each.medium != "oven" or _has_room(view, "oven", timedelta(hours=each.left_h))
    )  # fmt: skip


def _has_room(view: Outlook, place: str, lasts: timedelta) -> bool:
    """Whether a place has room for one more for so long from now on, by the plan."""
    room = next((each.capacity for each in view.whole.around.places if each.name == place), 0.0)
    until = view.now + lasts
    for other in view.whole.dishes:
        if other.key == view.key or other.plan is None:
            continue
        for step in other.steps:
            planned = other.planned(step.id)
            if step.place != place or planned is None:
                continue
            if planned.start < until and planned.end > view.now:
                room -= step.uses
    return room >= 1.0


def _fuel(step: DishStep, begins: datetime, now: datetime, done: Hours | None) -> Fuel | None:
    if done is None:
        return None
    hours = hours_between(max(now, begins), done.high)
    return fuel_for(step.place or "", min(max(hours, 0.0), MOST_FUEL_H))


def _read(
    view: Outlook, step: DishStep, wires: Wires, begins: datetime | None, *, is_left: bool
) -> list[Sample]:
    """What was read of it at this step: by its probe, else what was written down."""
    since = max(begins or view.now, view.now - LONGEST).timestamp()
    samples = [each for each in wires.meat if each.at_s >= since]
    if not samples:
        samples = [
            Sample(each.at.timestamp(), each.temperature_c)
            for each in view.state.events
            if each.what == Event.What.TEMPERATURE_READ
            and (each.step_key == step.id or is_left)
            and each.at.timestamp() >= since
            and each.temperature_c is not None
        ]
    return samples


def _done(view: Outlook, gate: Gate | None, planned_end: datetime | None) -> Hours | None:
    if gate is not None and gate.left_h is not None:
        left, now = gate.left_h, reckoned_at(view)
        ends = (now + timedelta(hours=h) for h in (left.usual, left.low, left.high))
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
    view: Outlook, read: Sequence[Sample], fire: Sequence[Sample],
    band_c: tuple[float, float] | None, gate: Gate | None, done: Hours | None,
) -> Course | None:  # fmt: skip
    zone = ZoneInfo(view.dish.feast.time_zone)
    now = view.now.astimezone(zone)
    points = _points(read)
    since = reckoned_at(view).timestamp()
    foretold = tuple(
        (since + 3600.0 * h, c) for h, c in (gate.foretold if gate is not None else ())
    )
    if not points and not foretold:
        return None
    left = gate.left_h if gate is not None else None
    goal_c = None if gate is None else gate.hint_c if gate.goal_c is None else gate.goal_c
    is_told = left is not None and left.usual > 0
    return Course(
        points, foretold, goal_c, now,
        (done.low.astimezone(zone), done.high.astimezone(zone)) if done and is_told else None,
        (view.dish.serve_at or view.whole.feast.serve_at).astimezone(zone),
        left.low / left.usual if left and is_told else 1.0,
        left.high / left.usual if left and is_told else 1.0,
        _points([each for each in fire if not read or each.at_s >= read[0].at_s]), band_c,
    )  # fmt: skip


def _points(samples: Sequence[Sample]) -> tuple[tuple[float, float], ...]:
    """So many of the readings as a curve needs."""
    every = max(1, len(samples) // MOST_POINTS)
    return tuple(
        (each.at_s, each.celsius)
        for n, each in enumerate(samples)
        if n % every == 0 or n == len(samples) - 1
    )
