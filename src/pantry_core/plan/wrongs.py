"""What of a raw plan document cannot be: times, hours, dates, places."""

from collections.abc import Iterator
from datetime import date
from typing import Any
from zoneinfo import ZoneInfo

from pantry_core.plan.instants import (
    NotAnInstant,
    read_hour,
    read_instant,
    read_time_of_day,
    read_zone,
)
from pantry_core.text import say

Wrong = tuple[str, str]
"""A dotted path, and what is allowed."""


def raw_wrongs(raw: object) -> tuple[Wrong, ...]:
    """Every text in a raw plan document that should be a time or a listed place and is not.

    Parameters: raw, JSON data that need not be a sound document otherwise.
    Returns: pairs of dotted path and what is allowed; fields that are no text are left to others.
    """
    if not isinstance(raw, dict):
        return ()
    wrongs: list[Wrong] = [*_unlisted_places(raw), *_wrong_hours(raw)]
    zone = ZoneInfo("UTC")
    if isinstance(raw.get("tz"), str):
        try:
            zone = read_zone(raw["tz"])
        except NotAnInstant as error:
            return (("tz", str(error)),)
    for path, text in _times(raw):
        try:
            read_instant(text, zone)
        except NotAnInstant as error:
            wrongs.append((path, str(error)))
    day = raw.get("day")
    for name in ("wake", "sleep"):
        if isinstance(day, dict) and isinstance(day.get(name), str):
            try:
                read_time_of_day(day[name])
            except NotAnInstant as error:
                wrongs.append((f"day.{name}", str(error)))
    return tuple(wrongs)


def _items(holder: object, name: str) -> list[Any]:
    found = holder.get(name) if isinstance(holder, dict) else None
    return found if isinstance(found, list) else []


def _unlisted_places(raw: dict[str, Any]) -> Iterator[Wrong]:
    places = raw.get("places", {})
    opened = raw.get("open")
    for name in opened if isinstance(opened, dict) and isinstance(places, dict) else ():
        if name not in places:
            yield f"open.{name}", say("“{name}” is not among the places; list it", name=name[:40])
    for i, dish in enumerate(_items(raw, "dishes")):
        for j, step in enumerate(_items(dish, "steps")):
            place = step.get("place") if isinstance(step, dict) else None
            if isinstance(place, str) and isinstance(places, dict) and place not in places:
                where = f"dishes.{i}.steps.{j}.place"
                yield (
                    where,
                    say(
                        "“{place}” is not among the places; list it with its capacity",
                        place=place[:40],
                    ),
                )


def _times(raw: dict[str, Any]) -> Iterator[tuple[str, str]]:
    def texts(path: str, holder: object, *names: str) -> Iterator[tuple[str, str]]:
        for name in names:
            if isinstance(holder, dict) and isinstance(holder.get(name), str):
                yield f"{path}{name}", holder[name]

    yield from texts("", raw, "now", "serve_at")
    for i, away in enumerate(_items(raw, "away")):
        yield from texts(f"away.{i}.", away, "from", "to")
    for i, dish in enumerate(_items(raw, "dishes")):
        yield from texts(f"dishes.{i}.", dish, "serve_at")
        for j, step in enumerate(_items(dish, "steps")):
            path = f"dishes.{i}.steps.{j}."
            yield from texts(path, step, "started_at", "ended_at", "locked_start")
            for k, done in enumerate(_items(step, "rounds_done")):
                if isinstance(done, str):
                    yield f"{path}rounds_done.{k}", done


def _wrong_hours(raw: dict[str, Any]) -> Iterator[Wrong]:
    """Hours of a week and dates that are none, or that end before they begin."""
    day, opened = raw.get("day"), raw.get("open")
    yield from _wrong_spans("day.work", day, "work")
    for place, opening in opened.items() if isinstance(opened, dict) else ():
        yield from _wrong_spans(f"open.{place}.hours", opening, "hours")
        for k, text in enumerate(_items(opening, "closed")):
            yield from _wrong_date(f"open.{place}.closed.{k}", text)


def _wrong_date(path: str, text: object) -> Iterator[Wrong]:
    try:
        date.fromisoformat(text) if isinstance(text, str) else None
    except ValueError:
        yield path, say("“{str}” is no date; use one like 2027-03-22", str=str(text)[:40])


def _wrong_spans(path: str, holder: object, name: str) -> Iterator[Wrong]:
    for k, hours in enumerate(_items(holder, name)):
        for n, text in enumerate(_items(hours, "dates")):
            yield from _wrong_date(f"{path}.{k}.dates.{n}", text)
        read = []
        for end in ("from", "to"):
            text = hours.get(end) if isinstance(hours, dict) else None
            if not isinstance(text, str):
                continue
            try:
                read.append(read_hour(text, is_end=end == "to"))
            except NotAnInstant as error:
                yield f"{path}.{k}.{end}", str(error)
        if len(read) == 2 and read[1] <= read[0]:
            yield f"{path}.{k}.to", "this is later than the beginning, on the same day"
