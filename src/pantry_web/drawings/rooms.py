"""How full places are, and when they are shut."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise
from zoneinfo import ZoneInfo

from pantry_core.quantities import Clock
from pantry_core.text import say
from pantry_web.drawings.shapes import Around, Column, Full, Kind, Room, Shade, Span, Stay
from pantry_web.drawings.timescale import TimeScale

HANDS = "counter"
"""Where it is shown that no work is done."""
LEAST_SEEN = 2.0
TINY = 1e-6


@dataclass(frozen=True, slots=True)
class Fill:
    """A span in which several stays together take all of a place, or more than there is."""

    place: str
    begin: datetime
    end: datetime
    is_over: bool


def full(
    fills: Sequence[Fill], columns: Mapping[str, Column], scale: TimeScale, zone: ZoneInfo
) -> Iterator[Full]:
    """When places are full, or more than full, drawn and said."""
    for each in fills:
        column, y = columns[each.place], scale.y(each.begin)
        hours = [Clock(edge.astimezone(zone)) for edge in (each.begin, each.end)]
        words = (
            say("too full {begin}–{end}", begin=hours[0], end=hours[1])
            if each.is_over
            else say("full {begin}–{end}", begin=hours[0], end=hours[1])
        )
        height = round(scale.y(each.end) - y, 1)
        yield Full(column.x, y, column.width, height, words, each.is_over)


def filled(stays: Sequence[Stay], room: Room) -> str:
    """How much of a place is taken at the most, where that is not counted in pieces."""
    if room.told is None:
        return ""
    edges = {each.start for each in stays}
    most = max((_taken(stays, at, at) for at in edges), default=0.0)
    taken, whole = room.told(most), room.told(room.holds)
    unit = whole.split()[-1]
    return say("{taken} of {whole}", taken=taken.removesuffix(unit).strip(), whole=whole)


def fills(place: str, stays: Sequence[Stay], room: float) -> list[Fill]:
    """When two stays or more fill a place, or more than fill it."""
    changes: dict[datetime, list[tuple[int, float]]] = {}
    for each in stays:
        changes.setdefault(each.start, []).append((1, each.uses))
        changes.setdefault(each.end, []).append((-1, -each.uses))
    found: list[Fill] = []
    count, taken = 0, 0.0
    for begin, end in pairwise(sorted(changes)):
        for more, uses in changes[begin]:
            count, taken = count + more, taken + uses
        if count < 2 or taken < room - TINY:
            continue
        is_over = taken > room + TINY
        goes_on = found and (found[-1].end, found[-1].is_over) == (begin, is_over)
        found.append(Fill(place, found.pop().begin if goes_on else begin, end, is_over))
    return found


def _taken(stays: Sequence[Stay], begin: datetime, end: datetime) -> float:
    """How much room stays take that lie there from a moment to another and a little longer."""
    return sum(each.uses for each in stays if each.start <= begin and end < each.end)


def shades(columns: Mapping[str, Column], around: Around, scale: TimeScale) -> Iterator[Shade]:
    """When places are shut, no work is done, and nobody is at home."""
    for name, spans in around.shut.items():
        if name in columns:
            yield from _shaded("shut", spans, [columns[name]], scale)
    if HANDS in columns:
        yield from _shaded("idle", around.idle, [columns[HANDS]], scale)
    yield from _shaded("away", around.away, list(columns.values()), scale)


def _shaded(
    kind: Kind, spans: Sequence[Span], columns: Sequence[Column], scale: TimeScale
) -> Iterator[Shade]:
    left = min(each.x for each in columns)
    width = max(each.x + each.width for each in columns) - left
    for begin, end in spans:
        y = scale.y(begin)
        height = round(scale.y(end) - y, 1)
        if height > LEAST_SEEN:
            yield Shade(kind, left, y, round(width, 1), height)
