"""A scale of time that runs down: low rows for ordinary days, the feast day large by the hour."""

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo

AFTER = timedelta(hours=1)
"""What is still drawn after the hour of the feast."""


@dataclass(frozen=True, slots=True)
class Heights:
    """Of a day, of an hour and a night hour of the feast day, and the least of a step."""

    day: float
    hour: float
    night_hour: float
    least: float


@dataclass(frozen=True, slots=True)
class House:
    """Where and when people are awake."""

    zone: ZoneInfo
    wake: time
    sleep: time


@dataclass(frozen=True, slots=True)
class TimeScale:
    """Instants and their heights, straight lines between them."""

    moments: tuple[datetime, ...]
    heights: tuple[float, ...]

    def y(self, moment: datetime) -> float:
        """Height of a moment; what lies outside is drawn at the edge."""
        if moment <= self.moments[0]:
            return self.heights[0]
        if moment >= self.moments[-1]:
            return self.heights[-1]
        i = bisect_right(self.moments, moment)
        before, after = self.moments[i - 1], self.moments[i]
        share = (moment - before) / (after - before)
        return round(self.heights[i - 1] + share * (self.heights[i] - self.heights[i - 1]), 1)


def midnights(begin: datetime, end: datetime, zone: ZoneInfo) -> list[datetime]:
    """Local midnights from the one at or before begin to the last before end, in UTC."""
    day = begin.astimezone(zone).date()
    found = []
    while (midnight := _local(day, time(), zone)) < end:
        found.append(midnight)
        day += timedelta(days=1)
    return found


def next_midnight(midnight: datetime, zone: ZoneInfo) -> datetime:
    """The local midnight after one, in UTC."""
    day = midnight.astimezone(zone).date()
    return _local(day + timedelta(days=1), time(), zone)


def nights(begin: datetime, end: datetime, house: House) -> list[tuple[datetime, datetime]]:
    """Spans of sleep between two instants."""
    spans = []
    for midnight in midnights(begin - timedelta(days=1), end, house.zone):
        day = midnight.astimezone(house.zone).date()
        asleep = _local(day, house.sleep, house.zone)
        awake = _local(day + timedelta(days=1), house.wake, house.zone)
        if max(asleep, begin) < min(awake, end):
            spans.append((max(asleep, begin), min(awake, end)))
    return spans


def time_scale(
    begin: datetime,
    end: datetime,
    hourly_from: datetime,
    spans: Sequence[tuple[datetime, datetime]],
    house: House,
    heights: Heights,
    top: float,
) -> TimeScale:
    """The scale from the midnight before begin to an end.

    A span that would be drawn lower than the least height is stretched, and the rest moves down:
    days on which hands work grow.

    Parameters: begin and end; hourly_from, the midnight from which it is drawn by the hour; spans
    of the steps; house; heights; top of the picture.
    """
    days = midnights(begin, end, house.zone)
    asleep = nights(days[0], end, house)
    edges = {days[0], end, *days, *(edge for night in asleep for edge in night)}
    edges |= {edge for span in spans for edge in span if days[0] < edge < end}
    moments = sorted(edges)
    sizes = []
    for left, right in pairwise(moments):
        hours = (right - left).total_seconds() / 3600
        at_night = any(a <= left and right <= b for a, b in asleep)
        hourly = heights.night_hour if at_night else heights.hour
        sizes.append(hours * (hourly if left >= hourly_from else heights.day / 24))
    for a, b in spans:
        inside = range(bisect_left(moments, a), bisect_right(moments, b) - 1)
        drawn = sum(sizes[i] for i in inside)
        if 0 < drawn < heights.least:
            for i in inside:
                sizes[i] *= heights.least / drawn
    ys = [top]
    for size in sizes:
        ys.append(ys[-1] + size)
    return TimeScale(tuple(moments), tuple(round(y, 2) for y in ys))


def _local(day: date, clock_time: time, zone: ZoneInfo) -> datetime:
    return datetime.combine(day, clock_time, zone).astimezone(UTC)
