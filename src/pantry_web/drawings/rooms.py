"""How full places are, and when they are shut."""

from collections.abc import Iterator, Mapping, Sequence
from datetime import datetime
from itertools import pairwise
from zoneinfo import ZoneInfo

from pantry_core.text import say
from pantry_web.drawings.shapes import Around, Chain, Column, Full, Kind, Room, Shade, Span, Stay
from pantry_web.drawings.timescale import TimeScale

HANDS = "counter"
"""Where it is shown that no work is done."""
LEAST_SEEN = 2.0
TINY = 1e-6


def full(
    drawn: Sequence[tuple[Chain, list[Stay]]], columns: Mapping[str, Column],
    rooms: Mapping[str, Room], scale: TimeScale, zone: ZoneInfo,
) -> Iterator[Full]:  # fmt: skip
    """When two dishes or more fill a place, or more than fill it."""
    for name, column in columns.items():
        if name not in rooms:
            continue
        stays = [each for _, held in drawn for each in held if each.place == name]
        for begin, end, is_over in _filled(stays, rooms[name].holds):
            y = scale.y(begin)
            hours = [f"{each.astimezone(zone):%H:%M}" for each in (begin, end)]
            words = (
                say("too full {begin}–{end}", begin=hours[0], end=hours[1])
                if is_over
                else say("full {begin}–{end}", begin=hours[0], end=hours[1])
            )
            yield Full(column.x, y, column.width, round(scale.y(end) - y, 1), words, is_over)


def filled(drawn: Sequence[tuple[Chain, list[Stay]]], name: str, room: Room | None) -> str:
    """How much of a place is taken at the most, where that is not counted in pieces."""
    if room is None or room.told is None:
        return ""
    stays = [each for _, held in drawn for each in held if each.place == name]
    edges = {each.start for each in stays}
    most = max((_taken(stays, at, at) for at in edges), default=0.0)
    taken, whole = room.told(most), room.told(room.holds)
    unit = whole.split()[-1]
    return say("{taken} of {whole}", taken=taken.removesuffix(unit).strip(), whole=whole)


def _filled(stays: Sequence[Stay], room: float) -> list[tuple[datetime, datetime, bool]]:
    """The spans in which several stays together take all of a room, or more than there is."""
    edges = sorted({edge for each in stays for edge in (each.start, each.end)})
    found: list[tuple[datetime, datetime, bool]] = []
    for begin, end in pairwise(edges):
        there = [each for each in stays if each.start <= begin and end <= each.end]
        taken = sum(each.uses for each in there)
        if len(there) < 2 or taken < room - TINY:
            continue
        is_over = taken > room + TINY
        if found and found[-1][1:] == (begin, is_over):
            begin = found.pop()[0]  # noqa: PLW2901 - it goes on from the one before
        found.append((begin, end, is_over))
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
