"""What ribbons say: along them where nothing crosses, else a number for the words beside them."""

from collections.abc import Iterator, Mapping, Sequence
from datetime import date, datetime
from zoneinfo import ZoneInfo

from pantry_web.drawings.bands import LINES_FROM, band_boxes
from pantry_web.drawings.lanes import FIXED
from pantry_web.drawings.lettering import ALONG_PAD, NAMED_FROM, Box, Text, along, inside
from pantry_web.drawings.shapes import Format, Ribbon

BOLD = 1.06
"""Width of a bold letter over that of a usual one."""
CLEAR = 3.0
"""So far words stay from a band that crosses their ribbon."""

Rows = Sequence[Sequence[Ribbon]]
Numbers = Mapping[tuple[str, str], int]
"""The numbers of steps, by their dish and key."""


def lettered(
    rows: Rows, size: Format, covered: Sequence[Box], *, has_heads: bool
) -> Iterator[Iterator[Ribbon]]:
    """Ribbons with their writing, wherever it has room; of several dishes their names as well.

    Parameters: rows, a dish each; size; covered, what is drawn over ribbons besides bands;
    has_heads, whether dishes are named over their lanes in the fridge.
    """
    bands = [*covered, *(box for row in rows for box in band_boxes(row))]
    for row in rows:
        yield (_lettered(ribbon, bands, size, len(rows), has_heads=has_heads) for ribbon in row)


def _lettered(
    ribbon: Ribbon, bands: Sequence[Box], size: Format, dishes: int, *, has_heads: bool
) -> Ribbon:
    is_named = _is_named(ribbon, has_several=dishes > 1, has_heads=has_heads)
    lines = _within(ribbon, bands, size, is_named=is_named)
    return ribbon.written(lines) if lines else ribbon


def _is_named(ribbon: Ribbon, *, has_several: bool, has_heads: bool) -> bool:
    is_told = ribbon.stay.place == FIXED and has_heads
    return has_several and ribbon.chain.name != ribbon.stay.title and not is_told


def _free(box: Box, covers: Sequence[Box]) -> Box:
    """The longest part of a box that nothing covers."""
    x, y, width, height = box
    begin, free = y, []
    crossing = sorted(
        (top - CLEAR, top + thick + CLEAR)
        for left, top, wide, thick in covers
        if left < x + width and x < left + wide and y < top + thick and top < y + height
    )
    for top, foot in crossing:
        free.append((begin, top - begin))
        begin = max(begin, foot)
    top, tall = max([*free, (begin, y + height - begin)], key=lambda part: part[1])
    return (x, top, width, max(tall, 0.0))


def _within(
    ribbon: Ribbon, covers: Sequence[Box], size: Format, *, is_named: bool
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
    free = _free(ribbon.box, covers)
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
