"""Rounds on a step: one every so many hours, with as few visits as will do."""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta

from pantry_core.plan.grid import Grid, Span

LEAST = 0.5
"""A round comes after this part of the interval, and within the whole of it, where it can."""


@dataclass(frozen=True, slots=True)
class Visits:
    """Moments of rounds, and those of them that come late because nobody could come before."""

    at: tuple[datetime, ...]
    late: tuple[datetime, ...]


def next_round(
    last: datetime, every_s: int, present: Sequence[Span], grid: Grid
) -> tuple[datetime, bool] | None:
    """The latest fit moment for the round after one at `last`.

    Going as late as allowed each time never needs more visits than any other choice, for a later
    round never brings the following one forward.

    Parameters: last; every_s, the interval that is asked for [s]; present, sorted spans in which
    somebody is awake and at home; grid, on which the round falls where it can.
    Returns: the moment and whether it is late (nobody was there in time), or None when nobody comes
    any more.
    """
    earliest = last + timedelta(seconds=LEAST * every_s)
    latest = last + timedelta(seconds=every_s)
    following = bisect_right(present, latest, key=lambda span: span[0])
    if following:
        begin, end = present[following - 1]
        if end > earliest:
            return _within(max(begin, earliest), min(end, latest), end, grid), False
    if following < len(present):
        return present[following][0], True
    return None


def visits(
    last: datetime, end: datetime, every_s: int, present: Sequence[Span], grid: Grid
) -> Visits:
    """All rounds from one at `last` until the step ends; start and end count as rounds themselves.

    Parameters: as for `next_round`; end of the step.
    Returns: the visits strictly between last and end.
    """
    at: list[datetime] = []
    late: list[datetime] = []
    while (end - last).total_seconds() > every_s:
        found = next_round(last, every_s, present, grid)
        if found is None or found[0] >= end:
            break
        last, is_late = found
        at.append(last)
        if is_late:
            late.append(last)
    return Visits(tuple(at), tuple(late))


@dataclass(slots=True)
class Tended:
    """A step that wants rounds: from its start or last round until its end."""

    key: tuple[str, str]
    last: datetime
    end: datetime
    every_s: int
    first: datetime = field(init=False)
    jobs: list[datetime] = field(default_factory=list)
    late: list[datetime] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.first = self.last

    def wants_more(self) -> bool:
        """Whether another round must come before the step ends."""
        return (self.end - self.last).total_seconds() > self.every_s


def gathered(steps: Sequence[Tended], present: Sequence[Span], grid: Grid) -> None:
    """Give every step its rounds so that as few visits as will do serve them all.

    Each visit comes when the first of the open rounds can wait no longer, and serves every step
    that is under way: a later round never brings the following one forward, so no other choice
    needs fewer visits. Then each step keeps only those of its visits that it needs.

    Parameters: steps, whose `jobs` and `late` are filled; present, sorted spans in which somebody
    is awake and at home; grid.
    """
    moments: list[datetime] = []
    while True:
        due = [
            found[0]
            for each in steps
            if each.wants_more()
            and (found := next_round(each.last, each.every_s, present, grid)) is not None
            and found[0] < each.end
        ]
        if not due:
            break
        moment = min(due)
        moments.append(moment)
        for each in steps:
            if each.last < moment < each.end:
                each.last = moment
    for each in steps:
        each.last = each.first
        _keep_what_is_needed(each, moments, present, grid)


def _keep_what_is_needed(
    each: Tended, moments: Sequence[datetime], present: Sequence[Span], grid: Grid
) -> None:
    """Of the visits take the last that is in time, again and again."""
    while each.wants_more():
        found = next_round(each.last, each.every_s, present, grid)
        if found is None or found[0] >= each.end:
            return
        fit = [at for at in moments if each.last < at <= found[0]]
        each.last = fit[-1] if fit else found[0]
        each.jobs.append(each.last)
        if found[1] and each.last == found[0]:
            each.late.append(each.last)


def _within(begin: datetime, latest: datetime, closes: datetime, grid: Grid) -> datetime:
    """The last quarter hour in the span, the end excluded when it closes there, else its begin."""
    slot = grid.at_or_before(latest)
    if grid.moment(slot) >= closes:
        slot -= 1
    return max(grid.moment(slot), begin)
