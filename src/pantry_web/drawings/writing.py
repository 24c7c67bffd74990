"""What ribbons say: along them where nothing crosses, else a number for the words beside them."""

from bisect import bisect_left
from collections.abc import Iterator, Mapping, Sequence
from datetime import date, datetime
from operator import itemgetter
from zoneinfo import ZoneInfo

from pantry_web.drawings.bands import LINES_FROM, band_boxes
from pantry_web.drawings.lanes import FIXED
from pantry_web.drawings.lettering import (
    ALONG_PAD,
    LEAST_TALL,
    NAMED_FROM,
    Box,
    Text,
    along,
    inside,
)
from pantry_web.drawings.shapes import Format, Ribbon

BOLD = 1.06
"""Width of a bold letter over that of a usual one."""
CLEAR = 3.0
"""So far words stay from a band that crosses their ribbon."""

Rows = Sequence[Sequence[Ribbon]]
Numbers = Mapping[tuple[str, str], int]
"""The numbers of steps, by their dish and key."""


class Covers:
    """What is drawn over ribbons: bands, the line of now."""

    def __init__(self, boxes: Sequence[Box]) -> None:
        """Of boxes, sorted once, for each ribbon looks among them all."""
        self._by_top = sorted(boxes, key=itemgetter(1))
        self._tops = [top for _, top, _, _ in self._by_top]
        self._thickest = max((thick for _, _, _, thick in boxes), default=0.0)

    def longest_free(self, box: Box) -> Box:
        """The longest part of a box, from head to foot, that nothing covers."""
        x, y, width, height = box
        right, foot = x + width, y + height
        begin, longest = y, (y, 0.0)
        first = bisect_left(self._tops, y - self._thickest)
        for left, top, wide, thick in self._by_top[first : bisect_left(self._tops, foot)]:
            if left < right and x < left + wide and y < top + thick:
                longest = max(longest, (begin, top - CLEAR - begin), key=itemgetter(1))
                begin = max(begin, top + thick + CLEAR)
        top, tall = max(longest, (begin, foot - begin), key=itemgetter(1))
        return (x, top, width, tall)


def lettered(
    rows: Rows, size: Format, covered: Sequence[Box], *, has_heads: bool
) -> Iterator[Iterator[Ribbon]]:
    """Ribbons with their writing, wherever it has room; of several dishes their names as well.

    Parameters: rows, a dish each; size; covered, what is drawn over ribbons besides bands;
    has_heads, whether dishes are named over their lanes in the fridge.
    """
    bands = [*covered, *(box for row in rows for box in band_boxes(row))]
    covers = Covers(bands)
    for row in rows:
        yield (_lettered(ribbon, covers, size, len(rows), has_heads=has_heads) for ribbon in row)


def _lettered(
    ribbon: Ribbon, covers: Covers, size: Format, dishes: int, *, has_heads: bool
) -> Ribbon:
    if ribbon.height < LEAST_TALL:
        return ribbon
    is_named = _is_named(ribbon, has_several=dishes > 1, has_heads=has_heads)
    lines = _within(ribbon, covers, size, is_named=is_named)
    return ribbon.written(lines) if lines else ribbon


def _is_named(ribbon: Ribbon, *, has_several: bool, has_heads: bool) -> bool:
    is_told = ribbon.stay.place == FIXED and has_heads
    return has_several and ribbon.chain.name != ribbon.stay.title and not is_told


def _within(
    ribbon: Ribbon, covers: Covers, size: Format, *, is_named: bool
) -> tuple[Text, ...] | None:
    """The writing in a ribbon: in lines where it is wide enough, else along it.

    What covers it is kept clear of where the longest free part has room for some wording.
    """
    stay, name = ribbon.stay, ribbon.chain.name
    named = [name] if is_named else []
    is_slim = ribbon.width < LINES_FROM and ribbon.height > NAMED_FROM
    if not is_slim:
        whole = inside([*named, stay.title, stay.length], ribbon.box, size.letter)
        if whole is not None:
            return whole
    if ribbon.height <= NAMED_FROM:
        return inside([*named, stay.title], ribbon.box, size.letter)
    told = f"{stay.title}, {stay.length}"
    wordings = [f"{name}: {told.lower()}", f"{name}: {stay.title.lower()}"]
    letter = BOLD * size.letter
    all_of_them = [*(wordings if is_named else [told]), stay.title]
    free = covers.longest_free(ribbon.box)
    room = int((free[3] - ALONG_PAD) / letter)
    turned = along(all_of_them, free, letter) if min(map(len, all_of_them)) <= room else None
    turned = turned or along(all_of_them, ribbon.box, letter)
    if turned is not None:
        return (turned,)
    return inside([*named, stay.title], ribbon.box, size.letter)


def numbered(rows: Rows, zone: ZoneInfo, numbers: Numbers | None) -> list[list[Ribbon]]:
    """Ribbons that say nothing with a number, counted from one each day; one for a trip.

    Parameters: rows; zone; numbers, which are given already, by another size of the picture.
    """
    given = _counted(rows, zone) if numbers is None else numbers
    return [
        [
            ribbon if ribbon.lines
            else ribbon.written(number=given.get((ribbon.chain.dish, ribbon.key)))
            for ribbon in row
        ]
        for row in rows
    ]  # fmt: skip


def _counted(rows: Rows, zone: ZoneInfo) -> dict[tuple[str, str], int]:
    silent = [ribbon for row in rows for ribbon in row if not ribbon.lines]
    last: dict[date, int] = {}
    trips: dict[tuple[str, datetime], int] = {}
    found = {}
    for ribbon in sorted(silent, key=lambda each: (each.stay.start, each.x)):
        stay = ribbon.stay
        trip = (stay.trip, stay.start) if stay.trip else None
        if trip in trips:
            number = trips[trip]
        else:
            day = stay.start.astimezone(zone).date()
            number = last[day] = last.get(day, 0) + 1
            if trip is not None:
                trips[trip] = number
        found[ribbon.chain.dish, ribbon.key] = number
    return found
