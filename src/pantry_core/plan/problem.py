"""A plan document with its times resolved and its facts in order."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime, time, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from pantry_core.plan.instants import NotAnInstant, read_instant, read_time_of_day, read_zone
from pantry_core.plan.request import DishRequest, PlanRequest

GRID = timedelta(minutes=15)

Wrong = tuple[str, str]


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
    done: tuple[Step, ...]
    pending: tuple[Step, ...]
    begun_at: datetime | None
    running: bool


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
    places: dict[str, float]
    dishes: tuple[Dish, ...]

    @property
    def horizon(self) -> datetime:
        """The last hour at which anything is served."""
        return max((self.serve_at, *(dish.serve_at for dish in self.dishes)))


class WrongPlan(ValueError):
    """Times or facts that cannot be; `wrongs` says where and what would do."""

    def __init__(self, wrongs: tuple[Wrong, ...]) -> None:
        super().__init__("; ".join(f"{where}: {what}" for where, what in wrongs))
        self.wrongs = wrongs


def raw_wrongs(raw: object) -> tuple[Wrong, ...]:
    """Every text in a raw plan document that should be a time or a listed place and is not.

    Parameters: raw, JSON data that need not be a sound document otherwise.
    Returns: pairs of dotted path and what would do; fields that are no text are left to others.
    """
    if not isinstance(raw, dict):
        return ()
    wrongs: list[Wrong] = list(_unlisted_places(raw))
    zone = ZoneInfo("UTC")
    if isinstance(raw.get("tz"), str):
        try:
            zone = read_zone(raw["tz"])
        except NotAnInstant as error:
            return (("tz", str(error)),)
    for path, text in _times(raw):
        try:
            read_instant(text, zone)
        except NotAnInstant as error:
            wrongs.append((path, str(error)))
    day = raw.get("day")
    for name in ("wake", "sleep"):
        if isinstance(day, dict) and isinstance(day.get(name), str):
            try:
                read_time_of_day(day[name])
            except NotAnInstant as error:
                wrongs.append((f"day.{name}", str(error)))
    return tuple(wrongs)


def _items(holder: object, name: str) -> list[Any]:
    found = holder.get(name) if isinstance(holder, dict) else None
    return found if isinstance(found, list) else []


def _unlisted_places(raw: dict[str, Any]) -> Iterator[Wrong]:
    places = raw.get("places", {})
    for i, dish in enumerate(_items(raw, "dishes")):
        for j, step in enumerate(_items(dish, "steps")):
            place = step.get("place") if isinstance(step, dict) else None
            if isinstance(place, str) and isinstance(places, dict) and place not in places:
                where = f"dishes.{i}.steps.{j}.place"
                yield where, f"{place[:40]!r} is not among the places; list it with its capacity"


def _times(raw: dict[str, Any]) -> Iterator[tuple[str, str]]:
    def texts(path: str, holder: object, *names: str) -> Iterator[tuple[str, str]]:
        for name in names:
            if isinstance(holder, dict) and isinstance(holder.get(name), str):
                yield f"{path}{name}", holder[name]

    yield from texts("", raw, "now", "serve_at")
    for i, away in enumerate(_items(raw, "away")):
        yield from texts(f"away.{i}.", away, "from", "to")
    for i, dish in enumerate(_items(raw, "dishes")):
        yield from texts(f"dishes.{i}.", dish, "serve_at")
        for j, step in enumerate(_items(dish, "steps")):
            path = f"dishes.{i}.steps.{j}."
            yield from texts(path, step, "started_at", "ended_at", "locked_start")
            for k, done in enumerate(_items(step, "rounds_done")):
                if isinstance(done, str):
                    yield f"{path}rounds_done.{k}", done


def resolve(request: PlanRequest) -> Problem:
    """Resolve the times of a document and put its facts in order.

    Parameters: request, the document.
    Returns: the problem, in UTC.
    Raises: WrongPlan with all that is wrong with times and facts.
    """
    wrongs = list(raw_wrongs(request.model_dump(mode="json", by_alias=True)))
    if wrongs:
        raise WrongPlan(tuple(wrongs))
    zone = read_zone(request.tz)
    now = read_instant(request.now, zone)
    serve_at = read_instant(request.serve_at, zone)
    wake, sleep = read_time_of_day(request.day.wake), read_time_of_day(request.day.sleep)
    if sleep <= wake:
        wrongs.append(("day.sleep", "sleep comes after wake on the same day"))
    if serve_at <= now:
        wrongs.append(("serve_at", "the feast is over; an hour after now would do"))
    elif serve_at - now > timedelta(days=366):
        wrongs.append(("serve_at", "over a year ahead; an hour within a year would do"))
    away = []
    for k, absence in enumerate(request.away):
        begin, end = read_instant(absence.from_, zone), read_instant(absence.to, zone)
        if end <= begin:
            wrongs.append((f"away.{k}.to", "coming home is after leaving"))
        away.append((begin, end))
    dishes = []
    for i, each in enumerate(request.dishes):
        dish, dish_wrongs = _resolve_dish(i, each, zone, now, serve_at)
        wrongs += dish_wrongs
        if dish is not None:
            dishes.append(dish)
    if wrongs:
        raise WrongPlan(tuple(wrongs))
    return Problem(
        now, serve_at, zone, wake, sleep, tuple(away), request.cooks, dict(request.places),
        tuple(dishes),
    )  # fmt: skip


def _resolve_dish(
    i: int, request: DishRequest, zone: ZoneInfo, now: datetime, feast_at: datetime
) -> tuple[Dish | None, list[Wrong]]:
    def instant(text: str | None) -> datetime | None:
        return None if text is None else read_instant(text, zone)

    def seconds(hours: float | None) -> int | None:
        return None if hours is None else round(hours * 3600)

    wrongs: list[Wrong] = []
    serve_at = instant(request.serve_at) or feast_at
    if (serve_at - feast_at) % GRID:
        wrongs.append(
            (f"dishes.{i}.serve_at", "a dish's own hour lies whole quarters from the feast's")
        )
    if serve_at <= now and request.serve_at is not None:
        wrongs.append((f"dishes.{i}.serve_at", "this hour is over; one after now would do"))
    steps = []
    for j, each in enumerate(request.steps):
        step = Step(
            id=each.id,
            name=each.name or each.id,
            kind=each.kind,
            place=each.place,
            min_s=round(each.min_h * 3600),
            prefer_s=seconds(each.prefer_h),
            max_s=seconds(each.max_h),
            hands_s=round(each.hands_min * 60),
            attended=each.attended,
            uses=each.uses,
            every_s=seconds(each.every_h),
            rounds_done=tuple(sorted(read_instant(text, zone) for text in each.rounds_done)),
            started_at=instant(each.started_at),
            ended_at=instant(each.ended_at),
            locked_start=instant(each.locked_start),
        )
        wrongs += _fact_wrongs(f"dishes.{i}.steps.{j}", step, now)
        locked = step.locked_start
        if locked is not None and (locked - feast_at) % GRID:
            wrongs.append(
                (
                    f"dishes.{i}.steps.{j}.locked_start",
                    f"a locked start lies whole quarters from the feast at "
                    f"{feast_at.astimezone(zone):%H:%M}",
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
            done=tuple(steps[:first_pending]),
            pending=tuple(steps[first_pending:]),
            begun_at=begun_at if first_pending < len(steps) else None,
            running=running,
        ),
        [],
    )


def _fact_wrongs(path: str, step: Step, now: datetime) -> list[Wrong]:
    wrongs = [
        (f"{path}.{name}", "this has not happened yet; a time up to now would do")
        for name, moment in (("started_at", step.started_at), ("ended_at", step.ended_at))
        if moment is not None and moment > now
    ]
    wrongs += [
        (f"{path}.rounds_done", "this has not happened yet; times up to now would do")
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
