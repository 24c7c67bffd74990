"""The quarter-hour grid, and when somebody is awake and at home on it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from itertools import pairwise

from pantry_core.plan.problem import GRID, Problem

SLOT_S = int(GRID.total_seconds())

Span = tuple[datetime, datetime]


@dataclass(frozen=True, slots=True)
class Grid:
    """Slots of 15 minutes counted from an anchor; slot 0 begins at the anchor."""

    anchor: datetime

    def seconds(self, moment: datetime) -> int:
        """Seconds from the anchor."""
        return round((moment - self.anchor).total_seconds())

    def at_or_after(self, moment: datetime) -> int:
        """The first slot that begins at the moment or after it."""
        return -(-self.seconds(moment) // SLOT_S)

    def at_or_before(self, moment: datetime) -> int:
        """The last slot that begins at the moment or before it."""
        return self.seconds(moment) // SLOT_S

    def moment(self, slot: int) -> datetime:
        """The instant at which a slot begins."""
        return self.anchor + slot * GRID


def up(seconds: int) -> int:
    """Seconds rounded up to whole slots."""
    return -(-seconds // SLOT_S) * SLOT_S


def awake_spans(problem: Problem, begin: datetime, end: datetime) -> list[Span]:
    """Waking hours between two instants, in UTC: true hours also where the clocks change."""
    return list(_clipped(_days(problem, begin, end), begin, end))


def home_spans(problem: Problem, begin: datetime, end: datetime) -> list[Span]:
    """Times between two instants in which somebody is at home."""
    spans = []
    left = begin
    for away_from, away_to in sorted(problem.away):
        if away_from > left:
            spans.append((left, away_from))
        left = max(left, away_to)
    spans.append((left, end))
    return list(_clipped(spans, begin, end))


def overlap(these: Sequence[Span], those: Sequence[Span]) -> list[Span]:
    """Times that lie in both of two sorted lists of spans."""
    spans = [(max(a, c), min(b, d)) for a, b in these for c, d in those if max(a, c) < min(b, d)]
    return sorted(spans)


def whole_slots(grid: Grid, spans: Sequence[Span]) -> list[tuple[int, int]]:
    """First slot and slot after the last that lie wholly inside each span."""
    slots = ((grid.at_or_after(begin), grid.at_or_before(end)) for begin, end in spans)
    return [(first, after) for first, after in slots if first < after]


def between(
    grid: Grid, spans: Sequence[Span], begin: datetime, end: datetime
) -> list[tuple[int, int]]:
    """The rest: slots from begin to end that do not lie wholly inside a span."""
    free = whole_slots(grid, spans)
    edges = [(grid.at_or_before(begin),) * 2, *free, (grid.at_or_after(end),) * 2]
    return [(left[1], right[0]) for left, right in pairwise(edges) if left[1] < right[0]]


def _days(problem: Problem, begin: datetime, end: datetime) -> Iterator[Span]:
    day = begin.astimezone(problem.zone).date() - timedelta(days=1)
    last = end.astimezone(problem.zone).date()
    while day <= last:
        yield (
            datetime.combine(day, problem.wake, problem.zone).astimezone(UTC),
            datetime.combine(day, problem.sleep, problem.zone).astimezone(UTC),
        )
        day += timedelta(days=1)


def _clipped(
    spans: Iterator[Span] | Sequence[Span], begin: datetime, end: datetime
) -> Iterator[Span]:
    for left, right in spans:
        if max(left, begin) < min(right, end):
            yield max(left, begin), min(right, end)
