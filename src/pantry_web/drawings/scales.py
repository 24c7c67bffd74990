"""Straight scales: the nitrite gauge and the bars of time."""

from collections.abc import Sequence
from dataclasses import dataclass

GAUGE_WIDTH = 400.0


@dataclass(frozen=True, slots=True)
class Gauge:
    """Nitrite on its scale; positions in a width of 400."""

    enough_x: float
    most_x: float
    value_x: float
    width: float = GAUGE_WIDTH


@dataclass(frozen=True, slots=True)
class Bar:
    """One time, drawn from 0; `label_x` is where its length is written."""

    name: str
    hours: float
    width: float
    label_x: float
    kind: str
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


def bars(times: Sequence[tuple[str, float, str]], width: float = 340.0) -> Bars:
    """Lay times out as bars from 0 on one axis.

    Parameters: times, of (name, hours, kind), hours 0 or more; width of the picture.
    """
    longest = max((hours for _, hours, _ in times), default=0.0) or 24.0
    room = width - 92.0
    step_d = next((step for step in (1, 2, 7, 14, 28) if longest / 24 / step <= 6), 56)
    drawn = []
    for i, (name, hours, kind) in enumerate(times):
        length = round(max(room * hours / longest, 2.0), 1)
        drawn.append(Bar(name, hours, length, length + 6.0, kind, 44.0 * i))
    axis_y = 44.0 * len(times) + 4.0
    ticks = [
        Tick(round(room * 24.0 * day / longest, 1), str(day))
        for day in range(0, int(longest / 24) + 1, step_d)
    ]
    return Bars(tuple(drawn), tuple(ticks), width, axis_y + 24.0, axis_y)
