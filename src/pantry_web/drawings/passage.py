"""The picture of a plan: time runs down, places run across, a dish is a ribbon between them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import pairwise
from typing import Literal

from pantry_web.drawings.timescale import (
    AFTER,
    Heights,
    House,
    TimeScale,
    midnights,
    nights,
    time_scale,
)

State = Literal["done", "running", "ahead"]

PLACES = ("shop", "freezer", "fridge", "counter", "hob", "smoker", "oven", "table")
EMPTY_DAYS = timedelta(days=2)
"""More empty days than these before the first step are not drawn."""


@dataclass(frozen=True, slots=True)
class Stay:
    """A step as the picture takes it: where, from when to when."""

    key: str
    title: str
    place: str
    start: datetime
    end: datetime
    state: State
    length: str


@dataclass(frozen=True, slots=True)
class Visit:
    """A round on a step."""

    key: str
    at: datetime
    done: bool


@dataclass(frozen=True, slots=True)
class Format:
    """Measures of one size of the picture."""

    width: float
    axis: float
    heights: Heights
    letter: float
    pad: float
    fridge: float


WIDE = Format(860, 100, Heights(day=20, hour=13, night_hour=2, least=17), 6.7, 10, 2.0)
NARROW = Format(358, 66, Heights(day=24, hour=20, night_hour=3, least=18), 6.0, 3, 1.4)
HEAD = 36.0
LINE = 14.5
DAY_LABEL, FEAST_DAY_LABEL = 15.5, 21.0


@dataclass(frozen=True, slots=True)
class Column:
    """A place."""

    name: str
    x: float
    width: float

    @property
    def middle(self) -> float:
        """Its middle."""
        return round(self.x + self.width / 2, 1)


@dataclass(frozen=True, slots=True)
class Row:
    """A day; `to_go` days before the feast."""

    y: float
    height: float
    label_y: float
    label: str
    to_go: int
    is_feast: bool
    covered: bool


@dataclass(frozen=True, slots=True)
class Text:
    """A line of writing."""

    x: float
    y: float
    anchor: Literal["start", "end", "middle"]
    words: str


@dataclass(frozen=True, slots=True)
class Ribbon:
    """A stay, with its writing inside or beside it."""

    key: str
    x: float
    y: float
    width: float
    height: float
    state: State
    title: str
    lines: tuple[Text, ...]


@dataclass(frozen=True, slots=True)
class Mark:
    """A round on a ribbon, and the tick that is drawn in it when done."""

    x: float
    y: float
    done: bool
    tick: str


@dataclass(frozen=True, slots=True)
class Passage:
    """The whole picture."""

    width: float
    height: float
    axis: float
    columns: tuple[Column, ...]
    rows: tuple[Row, ...]
    nights: tuple[tuple[float, float], ...]
    hours: tuple[tuple[float, str], ...]
    ribbons: tuple[Ribbon, ...]
    links: tuple[str, ...]
    marks: tuple[Mark, ...]
    table: tuple[float, float]
    now: tuple[float, str] | None
    serve: tuple[float, str]


def passage(
    stays: Sequence[Stay],
    visits: Sequence[Visit],
    now: datetime,
    serve_at: datetime,
    house: House,
    size: Format,
) -> Passage:
    """Draw a plan.

    Parameters: stays in order, back to back, at least one; visits; now; serve_at; house; size.
    Returns: shapes in the units of the picture, its origin at the top left.
    """
    drawn = [stay for stay in stays if stay.end > stay.start]
    first = drawn[0].start
    begin = min(first, now) if first - now <= EMPTY_DAYS else first
    spans = [(stay.start, stay.end) for stay in drawn]
    scale = time_scale(begin, serve_at, spans, house, size.heights, HEAD)
    columns = _columns(drawn, size)
    by_name = {column.name: column for column in columns}
    ribbons = tuple(_ribbon(stay, by_name, scale, size) for stay in drawn)
    serve_y = scale.y(serve_at)
    now_y = scale.y(now) if begin <= now <= serve_at + AFTER else None
    table = by_name["table"]
    return Passage(
        width=size.width,
        height=round(scale.heights[-1] + 8, 1),
        axis=size.axis,
        columns=columns,
        rows=tuple(_rows(scale, serve_at, house, now_y)),
        nights=tuple(
            (scale.y(a), round(scale.y(b) - scale.y(a), 1))
            for a, b in nights(scale.moments[0], serve_at + AFTER, house)
        ),
        hours=tuple(_hours(scale, serve_at, house, now_y)),
        ribbons=ribbons,
        links=tuple(_links(ribbons, table.middle, serve_y)),
        marks=tuple(_marks(visits, ribbons, scale)),
        table=(table.middle, serve_y),
        now=None if now_y is None else (now_y, f"{now.astimezone(house.zone):%a %H:%M}"),
        serve=(serve_y, f"{serve_at.astimezone(house.zone):%H:%M}"),
    )


def _columns(stays: Sequence[Stay], size: Format) -> tuple[Column, ...]:
    used = {stay.place for stay in stays} | {"table"}
    names = [name for name in PLACES if name in used]
    shares = [{"fridge": size.fridge, "table": 0.8}.get(name, 1.0) for name in names]
    room = (size.width - size.axis) / sum(shares)
    columns, x = [], size.axis
    for name, share in zip(names, shares, strict=True):
        columns.append(Column(name, round(x, 1), round(room * share, 1)))
        x += room * share
    return tuple(columns)


def _ribbon(stay: Stay, columns: dict[str, Column], scale: TimeScale, size: Format) -> Ribbon:
    column = columns[stay.place]
    x, width = column.x + size.pad, column.width - 2 * size.pad
    y = scale.y(stay.start)
    height = round(scale.y(stay.end) - y, 1)
    lines = _written(stay, column, (x, y, width, height), size)
    return Ribbon(
        stay.key, round(x, 1), y, round(width, 1), height, stay.state, stay.title, tuple(lines)
    )


def _written(
    stay: Stay, column: Column, box: tuple[float, float, float, float], size: Format
) -> Iterator[Text]:
    """The title and length inside the ribbon where they fit, else in one line beside it."""
    x, y, width, height = box
    marks = 26.0 if height > 80 else 8.0
    inside = [*_wrapped(stay.title, width - marks, size.letter)]
    inside += _wrapped(stay.length, width - marks, size.letter)
    fits = all(len(line) * size.letter <= width - 8 for line in inside)
    if fits and len(inside) * LINE + 6 <= height:
        for i, words in enumerate(inside):
            yield Text(round(x + 7, 1), round(y + LINE * (i + 1), 1), "start", words)
        return
    middle = round(y + height / 2 + 4.5, 1)
    right, left = size.width - (x + width) - 8, x - size.axis - 8
    for words in (f"{stay.title}, {stay.length}", stay.title):
        needed = len(words) * size.letter
        if needed <= max(right, left):
            break
    if needed <= right or right >= left:
        yield Text(round(x + width + 6, 1), middle, "start", words)
    else:
        yield Text(round(x - 6, 1), middle, "end", words)


def _wrapped(words: str, width: float, letter: float) -> list[str]:
    lines: list[str] = []
    for word in words.split():
        longer = f"{lines[-1]} {word}" if lines else word
        if lines and len(longer) * letter <= width:
            lines[-1] = longer
        else:
            lines.append(word)
    return lines


def _rows(scale: TimeScale, serve_at: datetime, house: House, now_y: float | None) -> Iterator[Row]:
    days = midnights(scale.moments[0], serve_at + AFTER, house.zone)
    feast_day = serve_at.astimezone(house.zone).date()
    for left, right in pairwise([*days, scale.moments[-1]]):
        y = scale.y(left)
        day = left.astimezone(house.zone).date()
        is_feast = day == feast_day
        label_y = y + (FEAST_DAY_LABEL if is_feast else DAY_LABEL)
        yield Row(
            y=y,
            height=round(scale.y(right) - y, 1),
            label_y=round(label_y, 1),
            label=f"{day:%a} {day.day}",
            to_go=(feast_day - day).days,
            is_feast=is_feast,
            covered=now_y is not None and abs(label_y - 5 - now_y) < 16.5,
        )


def _hours(
    scale: TimeScale, serve_at: datetime, house: House, now_y: float | None
) -> Iterator[tuple[float, str]]:
    """Every second waking hour of the feast day that is not hidden by now or by the feast."""
    taken = [scale.y(serve_at), *([now_y] if now_y is not None else [])]
    midnight = midnights(serve_at, serve_at + AFTER, house.zone)[0]
    taken.append(scale.y(midnight) + FEAST_DAY_LABEL - 6)
    moment = midnight
    while moment < serve_at + AFTER:
        local = moment.astimezone(house.zone)
        y = scale.y(moment)
        shown = local.hour % 2 == 0 and local.time() >= house.wake
        if shown and all(abs(y - each) > 13 for each in taken):
            yield y, f"{local:%H}"
        moment += timedelta(hours=1)


def _links(ribbons: Sequence[Ribbon], table_x: float, serve_y: float) -> Iterator[str]:
    """Level lines from the edge of a ribbon to the near edge of the one that follows elsewhere."""
    for left, right in pairwise(ribbons):
        if right.x > left.x + left.width:
            yield f"M{left.x + left.width:.1f} {right.y:.1f}H{right.x:.1f}"
        elif right.x + right.width < left.x:
            yield f"M{left.x:.1f} {right.y:.1f}H{right.x + right.width:.1f}"
    last = ribbons[-1]
    yield f"M{last.x + last.width:.1f} {serve_y:.1f}H{table_x:.1f}"


def _marks(visits: Sequence[Visit], ribbons: Sequence[Ribbon], scale: TimeScale) -> Iterator[Mark]:
    by_key = {ribbon.key: ribbon for ribbon in ribbons}
    for visit in visits:
        ribbon = by_key.get(visit.key)
        if ribbon is not None:
            x, y = round(ribbon.x + ribbon.width - 14, 1), scale.y(visit.at)
            yield Mark(x, y, visit.done, f"M{x - 3.5:.1f} {y:.1f}l2.5 3 4.5 -5.5")
