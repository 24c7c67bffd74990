"""A dish at the fire as a curve: what was read, what is foretold with its doubt, what is wanted."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

WIDTH, HEIGHT, FOOT = 560.0, 150.0, 22.0
STRIP, GAP = 44.0, 8.0
"""Below the curve the fire has a strip of its own."""
STRIP_ROOM_C = 12.0
HEADROOM_C, FOOTROOM_C, SPAN_C = 6.0, 3.0, 20.0
BEFORE, AFTER = timedelta(minutes=15), timedelta(minutes=20)
TICKS = (15, 30, 60, 120, 240, 480)
LABEL_WIDTH, LABEL_C = 44.0, 6.0

Point = tuple[datetime, float]


@dataclass(frozen=True, slots=True)
class Course:
    """What is drawn of a dish: temperatures [°C] at their moments.

    `early` and `late` are how much sooner and later than usual the rest may take, as factors.
    `fire` is what was read beside the piece, `band_c` what is wanted there.
    """

    read: tuple[Point, ...]
    foretold: tuple[Point, ...]
    goal_c: float | None
    now: datetime
    done: tuple[datetime, datetime] | None
    served_at: datetime
    early: float = 1.0
    late: float = 1.0
    fire: tuple[Point, ...] = ()
    band_c: tuple[float, float] | None = None


@dataclass(frozen=True, slots=True)
class Tick:
    """A mark on the scale of time, or of degrees."""

    at: float
    moment: datetime | None = None
    celsius: float | None = None


@dataclass(frozen=True, slots=True)
class Strip:
    """The fire below the curve: its top, its line, and the band that is wanted of it."""

    top: float
    read: str
    band: tuple[float, float] | None
    height: float = STRIP


@dataclass(frozen=True, slots=True)
class Curve:
    """The geometry of the picture, in units of WIDTH by HEIGHT."""

    read: str
    foretold: str
    doubt: str
    goal_y: float | None
    now_x: float
    done: tuple[float, float] | None
    served_x: float | None
    hours: tuple[Tick, ...]
    degrees: tuple[Tick, ...]
    fire: Strip | None = None
    width: float = WIDTH
    height: float = HEIGHT
    foot: float = HEIGHT + FOOT


def curve(course: Course) -> Curve:
    """Draw a course.

    Parameters: course, with a reading or something that is foretold.
    Returns: geometry; the hour of the meal is drawn where it is near.
    """
    late = [_stretched(course, course.late), _stretched(course, course.early)]
    moments = [at for at, _ in (*course.read, *course.foretold, *late[0])]
    begin = min([*moments, course.now]) - BEFORE
    end = max([*moments, course.now, *(course.done or ())]) + AFTER
    if course.served_at - end < (end - begin) / 2:
        end = max(end, course.served_at + AFTER)
    warm = [c for _, c in (*course.read, *course.foretold)]
    top = max([*warm, course.goal_c or 0.0]) + HEADROOM_C
    low = min([*warm, (course.goal_c or 0.0) - SPAN_C]) - FOOTROOM_C
    seconds = (end - begin).total_seconds()

    def x(at: datetime) -> float:
        place: float = WIDTH * (at - begin).total_seconds() / seconds
        return round(place, 1)

    def y(celsius: float) -> float:
        return round(HEIGHT * (1.0 - (celsius - low) / (top - low)), 1)

    def line(points: Sequence[Point]) -> str:
        return " ".join(f"{x(at)},{y(c)}" for at, c in points)

    sides = [*late[1], *reversed(late[0])]
    return Curve(
        read=line(course.read),
        foretold=line(course.foretold),
        doubt=line(sides) if course.foretold else "",
        goal_y=None if course.goal_c is None else y(course.goal_c),
        now_x=x(course.now),
        done=None if course.done is None else (x(course.done[0]), x(course.done[1])),
        served_x=x(course.served_at) if begin <= course.served_at <= end else None,
        hours=tuple(_hours(begin, end, x)),
        degrees=tuple(
            Tick(y(c), celsius=c)
            for n in range(1, 30)
            if low < (c := 20.0 * n) < top and abs(c - (course.goal_c or top)) > LABEL_C
        ),
        fire=_strip(course, x),
        foot=HEIGHT + FOOT + (GAP + STRIP if course.fire else 0.0),
    )


def _strip(course: Course, x: Callable[[datetime], float]) -> Strip | None:
    if not course.fire:
        return None
    known = [c for _, c in course.fire] + list(course.band_c or ())
    low, high = min(known) - STRIP_ROOM_C, max(known) + STRIP_ROOM_C
    top = HEIGHT + GAP

    def y(celsius: float) -> float:
        return round(top + STRIP * (1.0 - (celsius - low) / (high - low)), 1)

    band = None if course.band_c is None else (y(course.band_c[1]), y(course.band_c[0]))
    return Strip(top, " ".join(f"{x(at)},{y(c)}" for at, c in course.fire), band)


def _stretched(course: Course, factor: float) -> list[Point]:
    """What is foretold, if the rest takes so many times as long."""
    return [(course.now + factor * (at - course.now), c) for at, c in course.foretold]


def _hours(begin: datetime, end: datetime, x: Callable[[datetime], float]) -> list[Tick]:
    """Round hours, no nearer to each other than their words are wide."""
    minutes = (end - begin).total_seconds() / 60.0
    most = WIDTH / (1.6 * LABEL_WIDTH)
    step = next((each for each in TICKS if minutes / each <= most), TICKS[-1])
    midnight = begin.replace(hour=0, minute=0, second=0, microsecond=0)
    past = (begin - midnight).total_seconds() / 60.0
    first = midnight + timedelta(minutes=step * (int(past // step) + 1))
    found = []
    at = first
    while at < end:
        place = x(at)
        if LABEL_WIDTH / 2 <= place <= WIDTH - LABEL_WIDTH / 2:
            found.append(Tick(place, moment=at))
        at += timedelta(minutes=step)
    return found
