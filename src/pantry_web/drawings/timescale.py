"""A scale of time that runs down: low rows for ordinary days, the feast day large by the hour."""

from bisect import bisect_left, bisect_right
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, date, datetime, time, timedelta
from itertools import accumulate, pairwise
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
    """Where and when people are awake, and whether their clock has twelve hours."""

    zone: ZoneInfo
    wake: time
    sleep: time
    is_of_12: bool = False


@dataclass(frozen=True, slots=True)
class TimeScale:
    """Instants and their heights, straight lines between them; `known` has those by instant."""

    moments: tuple[datetime, ...]
    heights: tuple[float, ...]
    known: Mapping[datetime, float] = field(default_factory=dict)

    def y(self, moment: datetime) -> float:
        """Height of a moment; what lies outside is drawn at the edge."""
        if (known := self.known.get(moment)) is not None:
            return known
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


@dataclass(frozen=True, slots=True)
class Timeline:
    """The instants that matter, and for each span between neighbours whether it is night.

    From the span `hourly_from` on it is drawn by the hour; `held` are the spans of each stay.
    """

    moments: tuple[datetime, ...]
    hours: tuple[float, ...]
    is_night: tuple[bool, ...]
    hourly_from: int
    held: tuple[range, ...]


def timeline(
    days: Sequence[datetime],
    hourly_from: datetime,
    stays: Sequence[tuple[datetime, datetime]],
    asleep: Sequence[tuple[datetime, datetime]],
) -> Timeline:
    """The time that is drawn, from a midnight to an end.

    Parameters: days, the midnights from the first to the last, and the end; hourly_from, the
    midnight from which it is drawn by the hour; stays, begins and ends; asleep, the nights, none of
    which begins before the first midnight.
    """
    edges = {*days, *(edge for night in asleep for edge in night)}
    edges |= {edge for stay in stays for edge in stay if days[0] < edge < days[-1]}
    moments = tuple(sorted(edges))
    begins, ends = {night[0] for night in asleep}, {night[1] for night in asleep}
    hours, dark, is_night = [], [], False
    for left, right in pairwise(moments):
        is_night = (is_night and left not in ends) or left in begins
        hours.append((right - left).total_seconds() / 3600)
        dark.append(is_night)
    held = tuple(range(bisect_left(moments, a), bisect_right(moments, b) - 1) for a, b in stays)
    return Timeline(
        moments, tuple(hours), tuple(dark), bisect_left(moments, hourly_from), held
    )  # fmt: skip


def time_scale(line: Timeline, heights: Heights, top: float) -> TimeScale:
    """The scale of what is drawn.

    A stay that would be drawn lower than the least height is stretched, and the rest moves down:
    days on which hands work grow.

    Parameters: line; heights; top of the picture.
    """
    sizes = [hours * heights.day / 24 for hours in line.hours[: line.hourly_from]]
    sizes += [
        hours * (heights.night_hour if is_night else heights.hour)
        for hours, is_night in zip(line.hours, line.is_night, strict=True)
    ][line.hourly_from :]
    for inside in line.held:
        drawn = sum(sizes[inside.start : inside.stop])
        if 0 < drawn < heights.least:
            for i in inside:
                sizes[i] *= heights.least / drawn
    exact = [round(y, 2) for y in accumulate(sizes, initial=top)]
    inner = zip(line.moments[1:-1], exact[1:-1], strict=True)
    return TimeScale(line.moments, tuple(exact), {moment: round(y, 1) for moment, y in inner})


def _local(day: date, clock_time: time, zone: ZoneInfo) -> datetime:
    return datetime.combine(day, clock_time, zone).astimezone(UTC)
