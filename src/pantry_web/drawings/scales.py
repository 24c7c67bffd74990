"""Straight scales: the nitrite gauge and the bars of time."""

from collections.abc import Sequence
from dataclasses import dataclass

GAUGE_WIDTH = 400.0
BAR_HEIGHT, LABEL_ROOM = 35.0, 92.0


@dataclass(frozen=True, slots=True)
class Gauge:
    """Nitrite on its scale; positions in a width of 400."""

    enough_x: float
    most_x: float
    value_x: float
    width: float = GAUGE_WIDTH


@dataclass(frozen=True, slots=True)
class Length:
    """A length of time to draw [h]: from 0 to `hours`, or as a band about it."""

    name: str
    hours: float
    kind: str
    band: tuple[float, float] | None = None


@dataclass(frozen=True, slots=True)
class Bar:
    """A length as drawn; `label_x` is where it is written, `usual_x` the middle of a band."""

    name: str
    hours: float
    kind: str
    x: float
    width: float
    label_x: float
    usual_x: float | None
    y: float


@dataclass(frozen=True, slots=True)
class Tick:
    """A mark on the axis of days."""

    x: float
    label: str


@dataclass(frozen=True, slots=True)
class Bars:
    """Bars of time over an axis of days."""

    bars: tuple[Bar, ...]
    ticks: tuple[Tick, ...]
    width: float
    height: float
    axis_y: float


def gauge(ppm: float, enough_ppm: float, most_ppm: float) -> Gauge:
    """Lay nitrite out on a scale that ends half above its limit; what is beyond stops at the end.

    Parameters: ppm, enough_ppm and most_ppm [mg/kg], most_ppm above 0.
    """
    end = 1.5 * most_ppm

    def x(value: float) -> float:
        return round(GAUGE_WIDTH * min(max(value / end, 0.0), 1.0), 1)

    return Gauge(x(enough_ppm), x(most_ppm), x(ppm))


def bars(lengths: Sequence[Length], width: float = 340.0) -> Bars:
    """Lay lengths of time out as bars on one axis of days.

    Parameters: lengths [h], 0 or more; width of the picture.
    """
    ends = [each.band[1] if each.band else each.hours for each in lengths]
    longest = max(ends, default=0.0) or 24.0
    room = width - LABEL_ROOM

    def x(hours: float) -> float:
        return round(room * hours / longest, 1)

    drawn = []
    for i, each in enumerate(lengths):
        begin, end = each.band or (0.0, each.hours)
        length = max(x(end) - x(begin), 2.0)
        drawn.append(
            Bar(
                each.name, each.hours, each.kind, x(begin), round(length, 1),
                round(x(begin) + length + 6.0, 1),
                x(each.hours) if each.band else None, BAR_HEIGHT * i,
            )
        )  # fmt: skip
    step_d = next((step for step in (1, 2, 7, 14, 28) if longest / 24 / step <= 6), 56)
    axis_y = BAR_HEIGHT * len(lengths) + 4.0
    ticks = [Tick(x(24.0 * day), str(day)) for day in range(0, int(longest / 24) + 1, step_d)]
    return Bars(tuple(drawn), tuple(ticks), width, axis_y + 20.0, axis_y)
