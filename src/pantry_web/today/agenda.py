"""What is due over all feasts, by now, later today, tomorrow and this week."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Literal
from zoneinfo import ZoneInfo

from pantry_core.routes.steps import SHOPPING
from pantry_web.planning.hands import Task, feast_tasks
from pantry_web.planning.happenings import Happening, happenings
from pantry_web.planning.outlook import FeastOutlook, Outlook

SOON = timedelta(minutes=30)
"""What is due within this is due now (common practice: nobody counts finer before the last day)."""
WEEK = timedelta(days=7)
LATE = timedelta(minutes=15)
"""Ten minutes late is on time."""
JUST = timedelta(hours=12)
"""What was done so long ago is still shown, to be taken back."""

When = Literal["now", "today", "tomorrow", "week", "planning", "unplanned"]


@dataclass(frozen=True, slots=True)
class Entry:
    """A thing to do for a dish."""

    view: Outlook
    task: Task


@dataclass(frozen=True, slots=True)
class Visit:
    """What is done in one go: rounds of several dishes at one hour, or one thing."""

    entries: tuple[Entry, ...]

    @property
    def at(self) -> datetime | None:
        """When; None where no plan says."""
        return self.entries[0].task.at

    @property
    def is_being_planned(self) -> bool:
        """Whether its hour is being worked out for some dish, and the plan before has none."""
        return self.at is None and any(
            entry.view.whole.solving is not None for entry in self.entries
        )

    @property
    def is_unplanned(self) -> bool:
        """Whether no plan has room for any of it; what has begun is still to be done."""
        return self.at is None and all(entry.view.has_no_room for entry in self.entries)

    @property
    def has_several(self) -> bool:
        """Whether it is for several dishes."""
        return len(self.entries) > 1

    @property
    def is_trip(self) -> bool:
        """Whether somebody goes shopping for it."""
        return self.entries[0].task.trip == SHOPPING

    @property
    def has_press(self) -> bool:
        """Whether its line on the list has a tick; what is asked about is ticked where it says so.

        A trip is ticked on its list.
        """
        is_asked = any(entry.task.question for entry in self.entries)
        return self.can_tick and not self.is_trip and not is_asked

    @property
    def mark(self) -> int:
        """The same, in this process, for all that its line on the list is made of."""
        return hash(
            tuple(
                (each.task, each.view.key, each.view.dish.name, each.view.dish.hue)
                for each in self.entries
            )
        )  # fmt: skip

    @property
    def dishes(self) -> list[str]:
        """The names of its dishes."""
        named = (each.task.together or (each.view.dish.name,) for each in self.entries)
        return [name for names in named for name in names]

    @property
    def can_tick(self) -> bool:
        """Whether all of it can be ticked at once."""
        return all(each.task.can_tick for each in self.entries)


@dataclass(frozen=True, slots=True)
class Group:
    """The visits of now, of the rest of today, of tomorrow or of a later day."""

    when: When
    day: date | None
    visits: tuple[Visit, ...]

    @property
    def is_still(self) -> bool:
        """Whether nothing on it is ticked in its line, and no hour on it is told from now."""
        return self.when != "now" and not any(each.has_press for each in self.visits)

    @property
    def mark(self) -> int:
        """The same, in this process, for all that its lines are made of."""
        return hash(tuple(each.mark for each in self.visits))


@dataclass(frozen=True, slots=True)
class Done:
    """What was done last for a dish, and whether it can be taken back here."""

    view: Outlook
    happening: Happening


@dataclass(frozen=True, slots=True)
class Agenda:
    """All of it: what is next, then the rest by day, and what was done just now."""

    first: Visit | None
    groups: tuple[Group, ...]
    done: tuple[Done, ...]
    later: int


def agenda(wholes: Sequence[FeastOutlook], now: datetime, zone: ZoneInfo) -> Agenda:
    """What is due over all feasts within a week, in the order of its hours.

    Parameters: wholes, the feasts ahead; now; zone, of the kitchen.
    """
    entries = [each for whole in wholes for each in _entries(whole)]
    far = now + 10 * WEEK
    undated = now + SOON
    entries.sort(key=lambda each: (each.task.at or undated, each.task.kind, each.view.dish.pk))
    near = [each for each in entries if (each.task.at or now) <= now + WEEK]
    visits = sorted(_visits(near), key=lambda each: (each.is_being_planned, each.is_unplanned))
    has_hour = visits and not (visits[0].is_being_planned or visits[0].is_unplanned)
    first = visits.pop(0) if has_hour else None
    return Agenda(
        first,
        tuple(_groups(visits, now, zone)),
        tuple(_done(wholes, now)),
        sum(1 for each in entries if now + WEEK < (each.task.at or now) < far),
    )


def _entries(whole: FeastOutlook) -> Iterator[Entry]:
    """What is left of a feast; without an hour only what comes next can stand on a list."""
    for view, task in feast_tasks(whole):
        if task.at is not None or task.can_tick or task.withheld:
            yield Entry(view, task)


def _visits(entries: Sequence[Entry]) -> Iterator[Visit]:
    """Rounds at one hour are one visit, and so is a trip, whichever dishes they are of.

    What no plan has room for is a visit apart.
    """
    together: dict[tuple[str, datetime | None, bool], list[Entry]] = {}
    for each in entries:
        together.setdefault(_go(each), []).append(each)
    for each in entries:
        own = together.pop(_go(each), None)
        if own is not None:
            yield Visit(tuple(own))


def _go(entry: Entry) -> tuple[str, datetime | None, bool]:
    """What is the same for whatever is done in one go."""
    task = entry.task
    if task.kind == "tend" and task.at is not None:
        return "round", task.at, True
    has_room = task.at is not None or not entry.view.has_no_room
    if task.trip == SHOPPING:
        return SHOPPING, task.at, has_room
    return f"{entry.view.dish.pk}-{task.kind}-{task.key}", task.at, has_room


def _groups(visits: Sequence[Visit], now: datetime, zone: ZoneInfo) -> Iterator[Group]:
    today = now.astimezone(zone).date()
    found: dict[tuple[When, date | None], list[Visit]] = {}
    when: When
    for visit in visits:
        if visit.is_being_planned or visit.is_unplanned:
            when = "planning" if visit.is_being_planned else "unplanned"
            found.setdefault((when, None), []).append(visit)
            continue
        if visit.at is None or visit.at <= now + SOON:
            found.setdefault(("now", None), []).append(visit)
            continue
        day = visit.at.astimezone(zone).date()
        when = "today" if day == today else "week"
        if day == today + timedelta(days=1):
            when = "tomorrow"
        found.setdefault((when, day), []).append(visit)
    for (when, on), own in found.items():
        yield Group(when, on, tuple(own))


def _done(wholes: Sequence[FeastOutlook], now: datetime) -> Iterator[Done]:
    """The last thing of each dish that was done just now, the latest first."""
    found = []
    for whole in wholes:
        for view in whole.dishes:
            last = next(happenings(view), None)
            if last is not None and now - last.at <= JUST:
                found.append(Done(view, last))
    yield from sorted(found, key=lambda each: each.happening.at, reverse=True)
