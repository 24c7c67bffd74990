"""A dish at the fire as a curve: what was read, what is foretold with its doubt, what is wanted."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime, tzinfo

WIDTH, HEIGHT, FOOT = 560.0, 150.0, 22.0
STRIP, GAP = 44.0, 8.0
"""Below the curve the fire has a strip of its own."""
STRIP_ROOM_C = 12.0
LABEL_DROP, HOURS_UP = 16.0, 6.0
HEADROOM_C, FOOTROOM_C, SPAN_C = 6.0, 3.0, 20.0
BEFORE_S, AFTER_S = 900.0, 1200.0
TICKS = (15, 30, 60, 120, 240, 480)
LABEL_WIDTH, LABEL_C = 44.0, 6.0

Point = tuple[float, float]
"""A moment [s since 1970] and a temperature [°C]."""


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

    at: str
    moment: datetime | None = None
    celsius: float | None = None


@dataclass(frozen=True, slots=True)
class Strip:
    """The fire below the curve: its top and line, and where what is wanted begins, how high it is.

    `label_y` is where its words stand.
    """

    top: str
    read: str
    band: tuple[str, str] | None
    label_y: str
    height: str = f"{STRIP:g}"


@dataclass(frozen=True, slots=True)
class Curve:
    """The geometry of the picture, in units of WIDTH by HEIGHT, as it stands in the page.

    `done` is where the band begins and how wide it is; `goal_label_y` where the goal is named.
    """

    read: str
    foretold: str
    doubt: str
    goal_y: str | None
    goal_label_y: str
    now_x: str
    done: tuple[str, str] | None
    served_x: str | None
    hours: tuple[Tick, ...]
    degrees: tuple[Tick, ...]
    foot: str
    hours_y: str
    fire: Strip | None = None
    width: str = f"{WIDTH:g}"
    height: str = f"{HEIGHT:g}"


def curve(course: Course) -> Curve:
    """Draw a course.

    Parameters: course, with a reading or something that is foretold.
    Returns: geometry; the hour of the meal is drawn where it is near.
    """
    late = [_stretched(course, course.late), _stretched(course, course.early)]
    now, served_at = course.now.timestamp(), course.served_at.timestamp()
    done_at = [each.timestamp() for each in course.done or ()]
    moments = [at for at, _ in (*course.read, *course.foretold, *late[0])]
    begin = min([*moments, now]) - BEFORE_S
    end = max([*moments, now, *done_at]) + AFTER_S
    if served_at - end < (end - begin) / 2:
        end = max(end, served_at + AFTER_S)
    warm = [c for _, c in (*course.read, *course.foretold)]
    top = max([*warm, course.goal_c or 0.0]) + HEADROOM_C
    low = min([*warm, (course.goal_c or 0.0) - SPAN_C]) - FOOTROOM_C

    def x(at_s: float) -> float:
        return round(WIDTH * (at_s - begin) / (end - begin), 1)

    def y(celsius: float) -> float:
        return round(HEIGHT * (1.0 - (celsius - low) / (top - low)), 1)

    def line(points: Sequence[Point]) -> str:
        return " ".join(f"{x(at)},{y(c)}" for at, c in points)

    sides = [*late[1], *reversed(late[0])]
    goal_y = None if course.goal_c is None else y(course.goal_c)
    done = [x(each) for each in done_at]
    foot = HEIGHT + FOOT + (GAP + STRIP if course.fire else 0.0)
    return Curve(
        read=line(course.read),
        foretold=line(course.foretold),
        doubt=line(sides) if course.foretold else "",
        goal_y=None if goal_y is None else f"{goal_y:g}",
        goal_label_y=f"{(goal_y or 0.0) + LABEL_DROP:g}",
        now_x=f"{x(now):g}",
        done=(f"{done[0]:g}", f"{done[1] - done[0]:.1f}") if done else None,
        served_x=f"{x(served_at):g}" if begin <= served_at <= end else None,
        hours=tuple(_hours(begin, end, course.now.tzinfo, x)),
        degrees=tuple(
            Tick(f"{y(c):g}", celsius=c)
            for n in range(1, 30)
            if low < (c := 20.0 * n) < top and abs(c - (course.goal_c or top)) > LABEL_C
        ),
        foot=f"{foot:g}",
        hours_y=f"{foot - HOURS_UP:g}",
        fire=_strip(course, x),
    )


def _strip(course: Course, x: Callable[[float], float]) -> Strip | None:
    if not course.fire:
        return None
    known = [c for _, c in course.fire] + list(course.band_c or ())
    low, high = min(known) - STRIP_ROOM_C, max(known) + STRIP_ROOM_C
    top = HEIGHT + GAP

    def y(celsius: float) -> float:
        return round(top + STRIP * (1.0 - (celsius - low) / (high - low)), 1)

    band = None
    if course.band_c is not None:
        upper, lower = y(course.band_c[1]), y(course.band_c[0])
        band = (f"{upper:g}", f"{lower - upper:.1f}")
    read = " ".join(f"{x(at):g},{y(c):g}" for at, c in course.fire)
    return Strip(f"{top:g}", read, band, f"{top + LABEL_DROP - 2.0:g}")


def _stretched(course: Course, factor: float) -> list[Point]:
    """What is foretold, if the rest takes so many times as long."""
    now = course.now.timestamp()
    return [(now + factor * (at - now), c) for at, c in course.foretold]


def _hours(
    begin: float, end: float, zone: tzinfo | None, x: Callable[[float], float]
) -> list[Tick]:
    """Round hours, no nearer to each other than their words are wide."""
    minutes = (end - begin) / 60.0
    most = WIDTH / (1.6 * LABEL_WIDTH)
    step = next((each for each in TICKS if minutes / each <= most), TICKS[-1])
    first = datetime.fromtimestamp(begin, zone)
    midnight = first.replace(hour=0, minute=0, second=0, microsecond=0)
    past = (begin - midnight.timestamp()) / 60.0
    at_s = midnight.timestamp() + 60.0 * step * (int(past // step) + 1)
    found = []
    while at_s < end:
        place = x(at_s)
        if LABEL_WIDTH / 2 <= place <= WIDTH - LABEL_WIDTH / 2:
            found.append(Tick(f"{place:g}", moment=datetime.fromtimestamp(at_s, zone)))
        at_s += 60.0 * step
    return found
