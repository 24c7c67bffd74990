"""A plan document with its times resolved and its facts in order."""

from dataclasses import dataclass, field, replace
from datetime import date, datetime, time, timedelta
from typing import Final
from zoneinfo import ZoneInfo

from pantry_core.plan.circles import waiting_wrongs
from pantry_core.plan.instants import read_hour, read_instant, read_time_of_day, read_zone
from pantry_core.plan.request import (
    SHARES_WITHIN_C,
    WEEKDAYS,
    DayHours,
    DishRequest,
    HouseRequest,
    Opening,
    OtherHeat,
    Place,
    PlanRequest,
    RoomUnit,
    StepRequest,
)
from pantry_core.plan.wrongs import Wrong, raw_wrongs
from pantry_core.quantities import Clock, CubicFeet, Litres, Number, Quantity, Quarts
from pantry_core.text import say

GRID = timedelta(minutes=15)
COOKING: Final = "cook"
COOLING: Final = frozenset({"cool", "chill"})
COLD_PLACES: Final = frozenset({"fridge", "freezer"})
HOT_PLACES: Final = frozenset({"hob", "oven", "smoker", "fire"})
SHORT_WORK_S = 600
"""Up to here work needs only somebody awake."""


@dataclass(frozen=True, slots=True)
class WeekHours:
    """Hours of some days of the week, Monday being 0, and of some dates; since midnight."""

    days: frozenset[int]
    dates: frozenset[date]
    begins: timedelta
    ends: timedelta

    def holds_on(self, day: date) -> bool:
        """Whether these are hours of a day."""
        return day.weekday() in self.days or day in self.dates


@dataclass(frozen=True, slots=True)
class Open:
    """When a place is open, by the week, but for dates on which it is shut."""

    hours: tuple[WeekHours, ...]
    closed: frozenset[date]


@dataclass(frozen=True, slots=True)
class Wait:
    """The end of a step of another dish, and how long after it a step begins [s]."""

    dish: str
    step: str
    min_s: int
    max_s: int | None


@dataclass(frozen=True, slots=True)
class Step:
    """A step, its windows [s] and instants (UTC)."""

    id: str
    name: str
    kind: str | None
    place: str | None
    min_s: int
    prefer_s: int | None
    max_s: int | None
    hands_s: int
    attended: bool
    uses: float
    every_s: int | None
    rounds_done: tuple[datetime, ...]
    started_at: datetime | None
    ended_at: datetime | None
    locked_start: datetime | None
    trip: str | None = None
    after: tuple[Wait, ...] = ()
    heat_c: float | None = None
    heats: tuple[OtherHeat, ...] = ()
    ends_hot: bool | None = None
    """Whether the piece is hot after it; None: as it was before."""

    @property
    def is_work(self) -> bool:
        """Whether it is work of more than ten minutes, which is done in the hours of work."""
        return self.attended or self.hands_s > SHORT_WORK_S


@dataclass(frozen=True, slots=True)
class Dish:
    """A dish: `done` steps lie in the past as they were; `pending` ones are to be planned.

    `begun_at` is the bound start of the first pending step: it runs already, or the step before it
    has ended. `running` tells the two apart.
    """

    id: str
    name: str
    serve_at: datetime
    has_own_hour: bool
    early: timedelta
    late: timedelta
    done: tuple[Step, ...]
    pending: tuple[Step, ...]
    begun_at: datetime | None
    running: bool


_ROOMS: dict[RoomUnit, type[Litres]] = {"l": Litres, "qt": Quarts, "cu ft": CubicFeet}


@dataclass(frozen=True, slots=True)
class Problem:
    """What is to be planned, in UTC."""

    now: datetime
    serve_at: datetime
    zone: ZoneInfo
    wake: time
    sleep: time
    away: tuple[tuple[datetime, datetime], ...]
    cooks: int
    places: dict[str, float | None]
    dishes: tuple[Dish, ...]
    work: tuple[WeekHours, ...] | None = None
    open: dict[str, Open] = field(default_factory=dict)
    likes_half_hours: bool = False
    room_units: dict[str, RoomUnit] = field(default_factory=dict)
    shares_within_c: dict[str, float] = field(default_factory=dict)

    def shares_heat(self, place: str, one_c: float, other_c: float) -> bool:
        """Whether two temperatures can be together in a place [°C]."""
        return abs(one_c - other_c) <= self.shares_within_c.get(place, SHARES_WITHIN_C)

    def room(self, place: str | None, amount: float) -> Quantity:
        """How much of a place: by the unit of its room, or a bare count.

        Parameters: place, its name; amount, as its capacity.
        """
        unit = self.room_units.get(place or "")
        return Number(amount) if unit is None else _ROOMS[unit](amount, 0)

    @property
    def horizon(self) -> datetime:
        """The last hour at which anything is served."""
        return max((self.serve_at, *(dish.serve_at + dish.late for dish in self.dishes)))


class WrongPlan(ValueError):
    """Times or facts that cannot be; `wrongs` says where and what is allowed."""

    def __init__(self, wrongs: tuple[Wrong, ...]) -> None:
        super().__init__("; ".join(f"{where}: {what}" for where, what in wrongs))
        self.wrongs = wrongs


def resolve(request: PlanRequest) -> Problem:
    """Resolve the times of a document and put its facts in order.

    Parameters: request, the document.
    Returns: the problem, in UTC.
    Raises: WrongPlan with all that is wrong with times and facts.
    """
    wrongs = list(raw_wrongs(request.model_dump(mode="json", by_alias=True)))
    wrongs += waiting_wrongs(request)
    if wrongs:
        raise WrongPlan(tuple(wrongs))
    house = household(request)
    zone, now, serve_at = house.zone, house.now, house.serve_at
    if house.sleep <= house.wake:
        wrongs.append(("day.sleep", "sleep comes after wake on the same day"))
    if serve_at <= now:
        wrongs.append(("serve_at", "the feast is over; use an hour after now"))
    elif serve_at - now > timedelta(days=366):
        wrongs.append(("serve_at", "over a year ahead; use an hour within a year"))
    wrongs += [
        (f"away.{k}.to", "coming home is after leaving")
        for k, (begin, end) in enumerate(house.away)
        if end <= begin
    ]
    dishes = []
    for i, each in enumerate(request.dishes):
        dish, dish_wrongs = _resolve_dish(i, each, zone, now, serve_at)
        wrongs += dish_wrongs
        if dish is not None:
            dishes.append(dish)
    if wrongs:
        raise WrongPlan(tuple(wrongs))
    return replace(house, dishes=tuple(dishes))


def household(request: HouseRequest) -> Problem:
    """The house of a document, with nothing to be planned.

    Parameters: request, its times such as can be read.
    Returns: the problem without dishes, in UTC; its hour may have passed.
    Raises: NotAnInstant for a time that does not exist.
    """
    zone = read_zone(request.tz)
    work = request.day.work
    return Problem(
        read_instant(request.now, zone),
        read_instant(request.serve_at, zone),
        zone,
        read_time_of_day(request.day.wake),
        read_time_of_day(request.day.sleep),
        tuple((read_instant(e.from_, zone), read_instant(e.to, zone)) for e in request.away),
        request.cooks,
        {name: _capacity(place) for name, place in request.places.items()},
        (),
        work=None if work is None else tuple(map(_week_hours, work)),
        open={place: _open(opening) for place, opening in request.open.items()},
        likes_half_hours=request.day.half,
        room_units={
            name: place.unit
            for name, place in request.places.items()
            if isinstance(place, Place) and place.unit
        },
        shares_within_c={
            name: place.shares_within_c
            for name, place in request.places.items()
            if isinstance(place, Place)
        },
    )


def _capacity(place: Place | float | None) -> float | None:
    return place.capacity if isinstance(place, Place) else place


def _week_hours(hours: DayHours) -> WeekHours:
    of_all = () if hours.dates else WEEKDAYS
    days = of_all if hours.days is None else hours.days
    return WeekHours(
        frozenset(map(WEEKDAYS.index, days)),
        frozenset(map(date.fromisoformat, hours.dates)),
        read_hour(hours.from_),
        read_hour(hours.to, is_end=True),
    )


def _open(opening: Opening) -> Open:
    return Open(
        tuple(map(_week_hours, opening.hours)), frozenset(map(date.fromisoformat, opening.closed))
    )


def _resolve_dish(
    i: int, request: DishRequest, zone: ZoneInfo, now: datetime, feast_at: datetime
) -> tuple[Dish | None, list[Wrong]]:
    def instant(text: str | None) -> datetime | None:
        return None if text is None else read_instant(text, zone)

    wrongs: list[Wrong] = []
    serve_at = instant(request.serve_at) or feast_at
    if (serve_at - feast_at) % GRID:
        wrongs.append(
            (f"dishes.{i}.serve_at", "a dish's own hour lies whole quarters from the feast's")
        )
    if serve_at <= now and request.serve_at is not None:
        wrongs.append((f"dishes.{i}.serve_at", "this hour is over; use one after now"))
    steps = []
    for j, each in enumerate(request.steps):
        step = _step(each, zone)
        wrongs += _fact_wrongs(f"dishes.{i}.steps.{j}", step, now)
        locked = step.locked_start
        if locked is not None and (locked - feast_at) % GRID:
            wrongs.append(
                (
                    f"dishes.{i}.steps.{j}.locked_start",
                    say(
                        "a locked start lies whole quarters from the feast at {hour}",
                        hour=Clock(feast_at.astimezone(zone)),
                    ),
                )
            )
        steps.append(step)
    if wrongs:
        return None, wrongs
    last_fact = max(
        (j for j, step in enumerate(steps) if step.started_at or step.ended_at), default=-1
    )
    steps, wrongs = _filled(i, steps, last_fact)
    if wrongs:
        return None, wrongs
    running = last_fact >= 0 and steps[last_fact].ended_at is None
    first_pending = last_fact if running else last_fact + 1
    begun_at = steps[last_fact].started_at if running else None
    if last_fact >= 0 and not running:
        begun_at = max(steps[last_fact].ended_at or now, now)
    return (
        Dish(
            id=request.id,
            name=request.name or request.id,
            serve_at=serve_at,
            has_own_hour=request.serve_at is not None,
            early=timedelta(minutes=request.early_max_min),
            late=timedelta(minutes=request.late_max_min) // GRID * GRID,
            done=tuple(steps[:first_pending]),
            pending=tuple(steps[first_pending:]),
            begun_at=begun_at if first_pending < len(steps) else None,
            running=running,
        ),
        [],
    )


def _step(asked: StepRequest, zone: ZoneInfo) -> Step:
    def instant(text: str | None) -> datetime | None:
        return None if text is None else read_instant(text, zone)

    def seconds(hours: float | None) -> int | None:
        return None if hours is None else round(hours * 3600)

    return Step(
        id=asked.id,
        name=asked.name or asked.id,
        kind=asked.kind,
        place=asked.place,
        min_s=round(asked.min_h * 3600),
        prefer_s=seconds(asked.prefer_h),
        max_s=seconds(asked.max_h),
        hands_s=round(asked.hands_min * 60),
        attended=asked.attended,
        uses=asked.uses,
        every_s=seconds(asked.every_h),
        rounds_done=tuple(sorted(read_instant(text, zone) for text in asked.rounds_done)),
        started_at=instant(asked.started_at),
        ended_at=instant(asked.ended_at),
        locked_start=instant(asked.locked_start),
        trip=asked.trip,
        after=tuple(
            Wait(each.dish, each.step, round(each.min_h * 3600), seconds(each.max_h))
            for each in asked.after
        ),
        heat_c=asked.heat_c,
        heats=asked.heats,
        ends_hot=_ends_hot(asked),
    )


def _ends_hot(asked: StepRequest) -> bool | None:
    """Whether the piece is hot after a step: after heat, until it is cooled in the cold."""
    if asked.until is not None and "cold_c" in asked.until:
        return False
    if asked.kind in COOLING or asked.place in COLD_PLACES:
        return False
    is_hot = asked.kind == COOKING or asked.heat_c is not None or asked.place in HOT_PLACES
    return True if is_hot else None


def _fact_wrongs(path: str, step: Step, now: datetime) -> list[Wrong]:
    wrongs = [
        (f"{path}.{name}", "this has not happened yet; use a time up to now")
        for name, moment in (("started_at", step.started_at), ("ended_at", step.ended_at))
        if moment is not None and moment > now
    ]
    wrongs += [
        (f"{path}.rounds_done", "this has not happened yet; use times up to now")
        for moment in step.rounds_done
        if moment > now
    ]
    if step.started_at and step.ended_at and step.ended_at < step.started_at:
        wrongs.append((f"{path}.ended_at", "a step ends after it started"))
    return wrongs


def _filled(i: int, steps: list[Step], last_fact: int) -> tuple[list[Step], list[Wrong]]:
    """Give every step up to the last fact its start and end, from its neighbours where needed."""
    wrongs: list[Wrong] = []
    filled = list(steps)
    for j in range(last_fact + 1):
        step = filled[j]
        started = step.started_at or (filled[j - 1].ended_at if j else None)
        ended = step.ended_at or (filled[j + 1].started_at if j < last_fact else None)
        if started is None or (ended is None and j < last_fact):
            wrongs.append(
                (
                    f"dishes.{i}.steps.{j}",
                    "a later step has begun; say when this one started and ended",
                )
            )
        filled[j] = replace(step, started_at=started, ended_at=ended)
    return filled, wrongs
