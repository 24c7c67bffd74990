"""A calendar file: every hands-on moment and round, with its alarm."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from icalendar import Alarm, Calendar, Event

PRODUCT = "-//Pantry Clock//pantry-clock/1//EN"


@dataclass(frozen=True, slots=True)
class Moment:
    """An entry: uid stays the same over changes; alarm so many minutes before [min]."""

    uid: str
    at: datetime
    minutes: float
    title: str
    note: str
    alarm_min: int = 10


@dataclass(frozen=True, slots=True)
class Told:
    """Something to know of a whole calendar: its text, and its code, level and step to sort it."""

    text: str
    code: str
    level: str
    step: str = ""


def calendar(
    name: str, moments: Iterable[Moment], now: datetime, told: Iterable[Told] = ()
) -> bytes:
    """An iCalendar file (RFC 5545), times in UTC.

    Parameters: name of the calendar; moments, aware times and lengths [min]; now, the stamp; told,
    each as a comment of the calendar with its parameters.
    Returns: the file's bytes.
    Raises: ValueError for times without a zone.

    >>> b"TRIGGER:-PT10M" in calendar("x", [Moment("1@x", datetime(2027, 3, 22, 18, tzinfo=UTC),
    ...     15, "Carve", "")], datetime(2027, 3, 1, tzinfo=UTC))
    True
    """
    book = Calendar()
    book.add("prodid", PRODUCT)
    book.add("version", "2.0")
    book.add("x-wr-calname", name)
    for each in told:
        sorting = {"X-CODE": each.code, "X-LEVEL": each.level, "X-STEP": each.step}
        book.add("comment", each.text, parameters=sorting)
    for moment in moments:
        if moment.at.tzinfo is None or now.tzinfo is None:
            raise ValueError("a calendar needs times with their zone")
        at = moment.at.astimezone(UTC)
        entry = Event()
        entry.add("uid", moment.uid)
        entry.add("dtstamp", now.astimezone(UTC))
        entry.add("dtstart", at)
        entry.add("dtend", at + timedelta(minutes=moment.minutes))
        entry.add("summary", moment.title)
        if moment.note:
            entry.add("description", moment.note)
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", moment.title)
        alarm.add("trigger", timedelta(minutes=-moment.alarm_min))
        entry.add_component(alarm)
        book.add_component(entry)
    return bytes(book.to_ical())
