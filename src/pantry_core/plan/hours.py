"""When somebody is there, works, and finds a place open: spans of instants between two others."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field
from datetime import UTC, date, datetime, timedelta

from pantry_core.plan.grid import Span
from pantry_core.plan.problem import Open, Problem, WeekHours


@dataclass(frozen=True, slots=True)
class Hours:
    """Sorted spans in UTC, cut to a stretch of time.

    `work` None: in all waking hours. A place that is not in `open` is always open.
    """

    awake: list[Span]
    home: list[Span]
    work: list[Span] | None = None
    open: dict[str, list[Span]] = field(default_factory=dict)

    @property
    def present(self) -> list[Span]:
        """When somebody is awake and at home."""
        return overlap(self.awake, self.home)


def hours_of(problem: Problem, begin: datetime, end: datetime) -> Hours:
    """The hours of a problem between two instants: true hours also where the clocks change.

    Parameters: problem; begin, end. Raises: nothing.
    """

    def of_days(hours: Callable[[date], Iterator[tuple[timedelta, timedelta]]]) -> list[Span]:
        return _joined(_clipped(_by_day(problem, begin, end, hours), begin, end))

    def awake(_: date) -> Iterator[tuple[timedelta, timedelta]]:
        yield tuple(  # type: ignore[misc]
            timedelta(hours=each.hour, minutes=each.minute)
            for each in (problem.wake, problem.sleep)
        )

    def week(hours: Sequence[WeekHours]) -> Callable[[date], Iterator[tuple[timedelta, timedelta]]]:
        return lambda day: ((each.begins, each.ends) for each in hours if each.holds_on(day))

    def opened(place: Open) -> list[Span]:
        of_week = week(place.hours)
        return of_days(lambda day: iter(()) if day in place.closed else of_week(day))

    return Hours(
        of_days(awake),
        _at_home(problem, begin, end),
        None if problem.work is None else of_days(week(problem.work)),
        {name: opened(place) for name, place in problem.open.items()},
    )


def overlap(these: Sequence[Span], those: Sequence[Span]) -> list[Span]:
    """Times that lie in both of two sorted lists of spans."""
    spans = [(max(a, c), min(b, d)) for a, b in these for c, d in those if max(a, c) < min(b, d)]
    return sorted(spans)


def _at_home(problem: Problem, begin: datetime, end: datetime) -> list[Span]:
    spans = []
    left = begin
    for away_from, away_to in sorted(problem.away):
        if away_from > left:
            spans.append((left, away_from))
        left = max(left, away_to)
    spans.append((left, end))
    return list(_clipped(spans, begin, end))


def _by_day(
    problem: Problem,
    begin: datetime,
    end: datetime,
    hours: Callable[[date], Iterator[tuple[timedelta, timedelta]]],
) -> Iterator[Span]:
    """Hours of each day by the clocks of the zone."""

    def moment(day: date, hour: timedelta) -> datetime:
        local = datetime.combine(day, datetime.min.time()) + hour
        return local.replace(tzinfo=problem.zone).astimezone(UTC)

    day = begin.astimezone(problem.zone).date() - timedelta(days=1)
    last = end.astimezone(problem.zone).date()
    while day <= last:
        for from_, to in hours(day):
            yield moment(day, from_), moment(day, to)
        day += timedelta(days=1)


def _clipped(
    spans: Iterator[Span] | Sequence[Span], begin: datetime, end: datetime
) -> Iterator[Span]:
    for left, right in spans:
        if max(left, begin) < min(right, end):
            yield max(left, begin), min(right, end)


def _joined(spans: Iterator[Span]) -> list[Span]:
    """The same times, spans that touch or overlap as one."""
    joined: list[Span] = []
    for begin, end in sorted(spans):
        if joined and begin <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(end, joined[-1][1]))
        else:
            joined.append((begin, end))
    return joined
