"""What the picture of a plan shows, whatever its size: which stays, when, in which lanes."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from pantry_core.routes.steps import PLACES as KITCHEN_PLACES
from pantry_core.text import say
from pantry_web.drawings.lanes import FIXED, lanes_of
from pantry_web.drawings.rooms import Fill, filled, fills
from pantry_web.drawings.shapes import Around, Chain, Span, Stay
from pantry_web.drawings.timescale import (
    AFTER,
    House,
    Timeline,
    midnights,
    next_midnight,
    nights,
    timeline,
)

PLACES: tuple[str, ...] = (say("shop"), *KITCHEN_PLACES, say("table"))
LEFT = frozenset(PLACES[: PLACES.index(FIXED)])
EMPTY_DAYS = timedelta(days=2)
"""More empty days than these before the first step are not drawn."""

Drawn = Sequence[tuple[Chain, list[Stay]]]
"""Dishes, each with its stays that are seen."""


@dataclass(frozen=True, slots=True)
class Scene:
    """What is shown: dishes with the stays that are seen, from when to when.

    It is drawn by the hour from a midnight on. `lanes` are by dish and stay, `most` is how much of
    a place is taken at the most, where that is told, `fills` when places are full.
    """

    drawn: Drawn
    now: datetime
    serve_at: datetime
    house: House
    around: Around
    begin: datetime
    end: datetime
    hourly_from: datetime
    days: Sequence[datetime]
    nights: Sequence[Span]
    timeline: Timeline
    lanes: Mapping[tuple[int, int], int]
    most: Mapping[str, str]
    fills: Sequence[Fill]

    @property
    def has_feast(self) -> bool:
        """Whether the hour of the feast is shown."""
        return self.begin <= self.serve_at <= self.end


def scene(
    chains: Sequence[Chain],
    now: datetime,
    serve_at: datetime,
    house: House,
    *,
    around: Around | None = None,
    since: datetime | None = None,
    day: datetime | None = None,
) -> Scene:
    """What is shown of a plan.

    Parameters: chains, at least one with a stay that takes time and is seen; now; serve_at; house;
    around, what of the kitchen is seen; since, before which nothing is drawn; day, the midnight
    that begins the only day that is drawn.
    """
    around = around or Around()
    until = next_midnight(day, house.zone) if day else None
    drawn = [
        (chain, stays)
        for chain in chains
        if (stays := list(_seen(chain.stays, day or since, until)))
    ]
    begin, end, hourly_from = _window(drawn, now, serve_at, house, day)
    days = midnights(begin, end, house.zone)
    asleep = nights(days[0], end, house)
    spans = [(stay.start, stay.end) for _, stays in drawn for stay in stays]
    by_place: dict[str, list[Stay]] = {}
    for _, stays in drawn:
        for stay in stays:
            by_place.setdefault(stay.place, []).append(stay)
    rooms = {name: room for name, room in around.rooms.items() if name in by_place}
    return Scene(
        drawn, now, serve_at, house, around, begin, end, hourly_from,
        days, asleep, timeline([*days, end], hourly_from, spans, asleep),
        lanes_of([stays for _, stays in drawn], LEFT),
        {name: filled(by_place[name], room) for name, room in rooms.items()},
        [each for name, room in rooms.items() for each in fills(name, by_place[name], room.holds)],
    )  # fmt: skip


def _seen(stays: Sequence[Stay], since: datetime | None, until: datetime | None) -> Iterator[Stay]:
    """Stays that take time, cut off before a moment and after another."""
    for stay in stays:
        begin = max(stay.start, since) if since else stay.start
        end = min(stay.end, until) if until else stay.end
        if end > begin:
            is_whole = (begin, end) == (stay.start, stay.end)
            yield stay if is_whole else replace(stay, start=begin, end=end)


def _window(
    drawn: Drawn, now: datetime, serve_at: datetime, house: House, day: datetime | None
) -> tuple[datetime, datetime, datetime]:
    """From the first step, or now, to a little after the feast or what ends later; or a day.

    Returns: begin and end, and the midnight from which it is drawn by the hour.
    """
    last = max(stays[-1].end for _, stays in drawn)
    end = max(serve_at + AFTER, last + AFTER / 2)
    if day is not None:
        midnight = next_midnight(day, house.zone)
        return day, min(midnight, end) if day <= serve_at < midnight else midnight, day
    first = min(stays[0].start for _, stays in drawn)
    begin = min(first, now) if first - now <= EMPTY_DAYS else first
    return begin, end, midnights(serve_at, serve_at + AFTER, house.zone)[0]
