"""Instants: read as local time or with an offset, kept in UTC, written with their offset."""

from dataclasses import dataclass
from datetime import UTC, datetime, time, timedelta
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pantry_core.quantities import Clock, Moment
from pantry_core.text import say


class NotAnInstant(ValueError):
    """The text names no moment; the message says what is allowed."""


@dataclass(frozen=True, slots=True, order=True)
class Instant:
    """A moment with the zone in which it is told.

    >>> Instant(datetime(2027, 3, 28, 17, 30, tzinfo=UTC), "Europe/London").local.isoformat()
    '2027-03-28T18:30:00+01:00'
    """

    moment: datetime
    zone: str

    @property
    def local(self) -> datetime:
        """The moment by the clocks of its zone."""
        return self.moment.astimezone(ZoneInfo(self.zone))


def read_zone(name: str) -> ZoneInfo:
    """The IANA time zone of that name.

    Raises: NotAnInstant for an unknown name.
    """
    try:
        return ZoneInfo(name)
    except (ZoneInfoNotFoundError, ValueError, OSError):
        raise NotAnInstant(
            say("“{name}” is no IANA time zone; use one like Europe/London", name=name)
        ) from None


def read_instant(text: str, zone: ZoneInfo) -> datetime:
    """Read an ISO 8601 time, local in zone or with an offset.

    Parameters: text, date and time of day; zone, of times without an offset.
    Returns: the instant in UTC; of a local time that exists twice, the first.
    Raises: NotAnInstant for other text, and for a local time that the clocks skip.

    >>> read_instant("2027-03-22T18:30", ZoneInfo("Europe/London")).isoformat()
    '2027-03-22T18:30:00+00:00'
    """
    try:
        moment = datetime.fromisoformat(text)
    except ValueError:
        moment = None
    if moment is None or len(text) <= len("2027-03-22"):
        raise NotAnInstant(
            say("“{text}” is no time; use one like 2027-03-22T18:30", text=text[:40])
        )
    try:
        if moment.tzinfo is not None:
            return moment.astimezone(UTC)
        return local_instant(moment, zone)
    except OverflowError:
        raise NotAnInstant(say("“{text}” is out of all reckoning", text=text[:40])) from None


def local_instant(moment: datetime, zone: ZoneInfo) -> datetime:
    """The instant, in UTC, of a naive local time; of one that exists twice, the first.

    Raises: NotAnInstant when the clocks skip that time.

    >>> local_instant(datetime(2027, 3, 28, 1, 30), ZoneInfo("Europe/London"))
    Traceback (most recent call last):
    ...
    pantry_core.plan.instants.NotAnInstant: 01:30 does not exist on 28 March 2027: the clocks go \
forward; try 02:30
    """
    instant = moment.replace(tzinfo=zone, fold=0).astimezone(UTC)
    shown = instant.astimezone(zone)
    if shown.replace(tzinfo=None) != moment:
        raise NotAnInstant(
            say(
                "{hour} does not exist on {day}: the clocks go forward; try {shown}",
                hour=Clock(moment),
                day=Moment(moment, "date"),
                shown=Clock(shown),
            )
        )
    return instant


def read_time_of_day(text: str) -> time:
    """Read a time of day like 07:00.

    Raises: NotAnInstant for other text.
    """
    try:
        return datetime.strptime(text, "%H:%M").time()  # noqa: DTZ007 - of any day
    except ValueError:
        raise NotAnInstant(
            say("“{text}” is no time of day; use one like 07:00", text=text[:40])
        ) from None


def read_hour(text: str, *, is_end: bool = False) -> timedelta:
    """Read an hour of the day, as the time since midnight; an end may be 24:00.

    Raises: NotAnInstant for other text.

    >>> read_hour("24:00", is_end=True)
    datetime.timedelta(days=1)
    """
    if is_end and text == "24:00":
        return timedelta(days=1)
    hour = read_time_of_day(text)
    return timedelta(hours=hour.hour, minutes=hour.minute)
