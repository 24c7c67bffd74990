"""How full each place gets by a plan, and when."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Final

SHOWN: Final = 0.5
"""A place that never holds more than this share of its room is not worth a word."""


@dataclass(frozen=True, slots=True)
class Stay:
    """A dish in a place, and the room that it takes there."""

    dish: str
    place: str
    start: datetime
    end: datetime
    uses: float


@dataclass(frozen=True, slots=True)
class Peak:
    """The fullest moment of a place: its load of its room, until when, and the dishes there."""

    place: str
    load: float
    room: float
    at: datetime
    until: datetime
    dishes: tuple[str, ...]


def peaks(stays: Iterable[Stay], rooms: Mapping[str, float], now: datetime) -> list[Peak]:
    """Places in which several dishes lie at once at their fullest, the fullest first.

    Parameters: stays by the plan; rooms, of how much each place holds [l, pieces]; now, before
    which nothing counts.
    Returns: of each place that is more than half full with several dishes its fullest moment.
    Raises: nothing.
    """
    by_place: dict[str, list[Stay]] = {}
    for stay in stays:
        if stay.end > max(stay.start, now) and rooms.get(stay.place):
            by_place.setdefault(stay.place, []).append(stay)
    fullest = [_fullest(here, rooms[place], now) for place, here in by_place.items()]
    told = [each for each in fullest if len(each.dishes) > 1 and each.load > SHOWN * each.room]
    return sorted(told, key=lambda each: -each.load / each.room)


def _fullest(stays: list[Stay], room: float, now: datetime) -> Peak:
    moments = []
    for at in (max(stay.start, now) for stay in stays):
        inside = [stay for stay in stays if max(stay.start, now) <= at < stay.end]
        names = tuple(dict.fromkeys(stay.dish for stay in inside))
        load = sum(stay.uses for stay in inside)
        until = min(stay.end for stay in inside)
        moments.append(Peak(stays[0].place, load, room, at, until, names))
    return max(moments, key=lambda each: each.load)
