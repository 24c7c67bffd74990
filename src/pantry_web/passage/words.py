"""The words beside the picture, by day: what the hands do, and what has only a number in it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from zoneinfo import ZoneInfo

from pantry_core.routes.steps import SHOPPING
from pantry_core.text import Sentence
from pantry_web.drawings.lettering import short_name
from pantry_web.drawings.shapes import Passage
from pantry_web.planning.hands import Task, feast_tasks, tasks
from pantry_web.planning.outlook import FeastOutlook, Outlook

Told = tuple[Outlook, Task]


@dataclass(frozen=True, slots=True)
class Line:
    """A line of the words beside the picture; `number` is how its step is marked there."""

    at: datetime | None
    view: Outlook
    name: str
    key: str
    words: Sentence
    number: int | None
    withheld: Sentence = ""
    together: tuple[str, ...] = ()
    is_trip: bool = False


@dataclass(frozen=True, slots=True)
class Day:
    """The lines of a day; of none where the hour is not known yet."""

    date: date | None
    is_today: bool
    lines: tuple[Line, ...]


def tasks_of(whole: FeastOutlook, views: Sequence[Outlook]) -> list[Told]:
    """What is left to do for some dishes of a feast, in the order of its time."""
    if len(views) == 1:
        return [(views[0], task) for task in tasks(views[0])]
    return [(view, task) for view, task in feast_tasks(whole) if view in views]


def words_by_day(
    whole: FeastOutlook, views: Sequence[Outlook], drawn: Passage, found: Sequence[Told],
    between: tuple[datetime | None, datetime] | None,
) -> tuple[Day, ...]:  # fmt: skip
    """The words beside a picture.

    Parameters: whole; views, its dishes that are drawn; drawn, the picture that numbers them;
    found, what is left to do for them; between, the instants between which they lie where that is
    a day alone.
    """
    zone = ZoneInfo(whole.feast.time_zone)
    today = whole.now.astimezone(zone).date()
    days: dict[date | None, list[Line]] = {}
    lines = _lines(views, drawn, found)
    for line in sorted(lines, key=lambda each: (each.at or whole.now, each.number or 0)):
        if between is None or (line.at and (between[0] or line.at) <= line.at < between[1]):
            days.setdefault(line.at.astimezone(zone).date() if line.at else None, []).append(line)
    return tuple(Day(day, day == today, tuple(each)) for day, each in days.items())


def _lines(views: Sequence[Outlook], drawn: Passage, found: Sequence[Told]) -> Iterator[Line]:
    names = {view.key: short_name(view.dish.name, [e.dish.name for e in views]) for view in views}
    numbers = {(each.chain.dish, each.key): each.number for each in drawn.ribbons if each.number}
    chains = {each.chain.dish: each.chain for each in drawn.ribbons}
    starts = {
        (dish, stay.key): stay.start for dish, chain in chains.items() for stay in chain.stays
    }
    told: set[tuple[str, str]] = set()
    for view, task, at, together in _at_their_hours(found, starts):
        step, is_round = view.step(task.key), task.kind == "tend"
        if not is_round:
            told |= {(each.key, task.key) for each in views if each.dish.name in together}
            told.add((view.key, task.key))
        yield Line(
            at, view, names[view.key], task.key,
            task.title if is_round or step is None else step.title,
            None if is_round else numbers.get((view.key, task.key)),
            task.withheld, together, task.trip == SHOPPING,
        )  # fmt: skip
    by_key = {view.key: view for view in views}
    for ribbon in drawn.ribbons:
        dish, stay = ribbon.chain.dish, ribbon.stay
        if ribbon.number and (dish, stay.key) not in told and stay.state == "ahead":
            yield Line(stay.start, by_key[dish], names[dish], stay.key, stay.title, ribbon.number)


def _at_their_hours(
    found: Sequence[Told], starts: dict[tuple[str, str], datetime]
) -> Iterator[tuple[Outlook, Task, datetime | None, tuple[str, ...]]]:
    """Tasks with their hours, as drawn where no plan says, and the dishes that go together."""
    trips: dict[datetime | None, list[str]] = {}
    for view, task in found:
        if task.trip == SHOPPING:
            at = task.at or starts.get((view.key, task.key))
            trips.setdefault(at, []).extend(task.together or (view.dish.name,))
    for view, task in found:
        at = task.at or starts.get((view.key, task.key))
        if task.trip != SHOPPING:
            yield view, task, at, task.together
        elif together := trips.pop(at, None):
            yield view, task, at, tuple(together) if len(together) > 1 else ()
