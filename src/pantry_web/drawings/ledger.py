"""What was planned of a dish and what happened, each step twice: one bar above the other."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

ROW, TOP = 34.0, 26.0
BAR = 10.0
DAY_S = 86_400.0
LEAST = 3.0
"""A bar is seen, however short."""

When = tuple[datetime, datetime]


@dataclass(frozen=True, slots=True)
class Size:
    """Of the picture, and of it for the titles: so wide, so many letters; moments at the top."""

    name: str
    width: float
    label: float
    letters: int
    most_moments: int


SIZES = (Size("wide", 760.0, 220.0, 30, 4), Size("narrow", 358.0, 124.0, 19, 1))


@dataclass(frozen=True, slots=True)
class Span:
    """A step: its title, when it was planned and when it was; None where that is not known."""

    title: str
    planned: When | None
    went: When | None


@dataclass(frozen=True, slots=True)
class Bar:
    """A bar of the picture, in its units."""

    x: float
    y: float
    width: float


@dataclass(frozen=True, slots=True)
class Row:
    """A step with its two bars and the line on which its title stands."""

    title: str
    y: float
    planned: Bar | None
    went: Bar | None


@dataclass(frozen=True, slots=True)
class Beside:
    """The whole picture: its height, its rows, and moments at the top, by days where it is long."""

    size: Size
    height: float
    rows: tuple[Row, ...]
    days: tuple[tuple[float, datetime], ...]
    is_long: bool


def beside(spans: Sequence[Span], size: Size) -> Beside:
    """Draw steps as they were planned and as they went, over one scale of time.

    Parameters: spans, at least one, each with one of its times at least; size.
    Returns: geometry in the units of the picture.
    """
    moments = [at for each in spans for when in (each.planned, each.went) if when for at in when]
    first, last = min(moments), max(moments)
    length = max((last - first).total_seconds(), 60.0)

    def x(at: datetime) -> float:
        return size.label + (size.width - size.label) * (at - first).total_seconds() / length

    def bar(when: When | None, y: float) -> Bar | None:
        if when is None:
            return None
        begin = min(x(when[0]), size.width - LEAST)
        return Bar(round(begin, 1), y, round(max(x(when[1]) - begin, LEAST), 1))

    rows = tuple(
        Row(
            each.title,
            TOP + ROW * n,
            bar(each.planned, TOP + ROW * n + 3),
            bar(each.went, TOP + ROW * n + 5 + BAR),
        )
        for n, each in enumerate(spans)
    )
    is_long = length > 2 * DAY_S
    of_days = min(size.most_moments, round(length / DAY_S))
    parts = max(1, of_days if is_long else size.most_moments // 2)
    marks = [first + (last - first) * k / parts for k in range(parts + 1)]
    days = tuple((round(x(each), 1), each) for each in marks)
    return Beside(size, TOP + ROW * len(spans) + 4, rows, days, is_long)
