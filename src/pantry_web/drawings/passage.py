"""The picture of a plan: time runs down, places run across, a dish is a ribbon between them."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from itertools import pairwise

from pantry_core.routes.steps import PLACES as KITCHEN_PLACES
from pantry_core.text import say
from pantry_web.drawings.bands import LINES_FROM, band_boxes, ends, links, stems
from pantry_web.drawings.lanes import FIXED, lanes_of
from pantry_web.drawings.lettering import NAMED_FROM, Text, along, beside, extent, inside
from pantry_web.drawings.shapes import (
    Chain,
    Column,
    Format,
    Full,
    Head,
    Mark,
    Passage,
    Ribbon,
    Row,
    Stay,
    Visit,
)
from pantry_web.drawings.timescale import (
    AFTER,
    Heights,
    House,
    TimeScale,
    midnights,
    nights,
    time_scale,
)

PLACES: tuple[str, ...] = (say("shop"), *KITCHEN_PLACES, say("table"))
EMPTY_DAYS = timedelta(days=2)
"""More empty days than these before the first step are not drawn."""


WIDE = Format(860, 100, Heights(day=34, hour=17, night_hour=3, least=17), 6.7, 10, 2.0, 0.55)
NARROW = Format(358, 66, Heights(day=32, hour=20, night_hour=3, least=18), 5.4, 2, 1.4, 0.62)
LEFT = frozenset(PLACES[: PLACES.index(FIXED)])
HEAD, HEADS = 36.0, 18.0
"""Of the names of places, and of dishes below that of the fridge."""
HEAD_LETTER = 5.6
NAMED_LANE = 30.0
"""A lane that is narrower has no name at its head."""
WIDEST_LANE = 46.0
"""A lane among several is no wider, that what it holds can be told from where it goes."""
TAG_LETTER = 6.4
TIGHT_LETTER = 9.8
"""Width of a letter in the name of a place."""
BOLD = 1.06
"""Width of a bold letter over that of a usual one."""
HIDDEN = 17.0
"""The name of a day is hidden by now, which names it, so near to it."""
DAY_LABEL, FEAST_DAY_LABEL = 15.5, 21.0


def passage(
    chains: Sequence[Chain],
    now: datetime,
    serve_at: datetime,
    house: House,
    size: Format,
    since: datetime | None = None,
    *,
    rooms: Mapping[str, float] | None = None,
    going_on: str = "",
) -> Passage:
    """Draw a plan.

    Parameters: chains, at least one with a stay that takes time; now; serve_at; house; size; since,
    before which nothing is drawn; rooms, how much fits into each place; going_on, what is said at
    the line of now.
    Returns: shapes in the units of the picture, its origin at the top left.
    """
    drawn = [(chain, stays) for chain in chains if (stays := list(_since(chain.stays, since)))]
    first = min(stays[0].start for _, stays in drawn)
    begin = min(first, now) if first - now <= EMPTY_DAYS else first
    spans = [(stay.start, stay.end) for _, stays in drawn for stay in stays]
    stays_of = [stays for _, stays in drawn]
    lanes = lanes_of(stays_of, LEFT)
    columns = _columns(drawn, lanes, size)
    head = HEAD + (HEADS if any(each.heads for each in columns.values()) else 0.0)
    scale = time_scale(begin, serve_at, spans, house, size.heights, head)
    ribbons = [
        [_bare(chain, stay, columns[stay.place], lanes[i, j], scale, size)
         for j, stay in enumerate(stays)]
        for i, (chain, stays) in enumerate(drawn)
    ]  # fmt: skip
    serve_y = scale.y(serve_at)
    now_y = scale.y(now) if begin <= now <= serve_at + AFTER else None
    at_the_table = ends(drawn, ribbons, scale)
    tag = None
    if now_y is not None and going_on:
        tag = (size.axis + 4.0, round(len(going_on) * TAG_LETTER + 14.0, 1), going_on)
    return Passage(
        width=size.width,
        height=round(scale.heights[-1] + 8, 1),
        axis=size.axis,
        columns=tuple(columns.values()),
        rows=tuple(_rows(scale, serve_at, house, now_y)),
        nights=tuple(
            (scale.y(a), round(scale.y(b) - scale.y(a), 1))
            for a, b in nights(scale.moments[0], serve_at + AFTER, house)
        ),
        hours=tuple(_hours(scale, serve_at, house, now_y)),
        ribbons=tuple(_lettered(drawn, ribbons, size, has_heads=head > HEAD)),
        full=tuple(_full(drawn, columns, rooms or {}, scale, house)),
        tag=tag,
        links=(
            *stems(drawn, ribbons, at_the_table),
            *(
                (chain.hue, link)
                for (chain, _), row in zip(drawn, ribbons, strict=True)
                for link in links(row)
            ),
        ),
        marks=tuple(
            mark
            for (chain, _), row in zip(drawn, ribbons, strict=True)
            for mark in _marks(chain.visits, row, scale)
        ),
        served=at_the_table,
        now=None if now_y is None else (now_y, f"{now.astimezone(house.zone):%a %H:%M}"),
        serve=(serve_y, f"{serve_at.astimezone(house.zone):%H:%M}"),
    )


def _since(stays: Sequence[Stay], since: datetime | None) -> Iterator[Stay]:
    """Stays that take time, cut off before a moment."""
    for stay in stays:
        begin = max(stay.start, since) if since else stay.start
        if stay.end > begin:
            yield replace(stay, start=begin)


def _columns(
    drawn: Sequence[tuple[Chain, list[Stay]]], lanes: dict[tuple[int, int], int], size: Format
) -> dict[str, Column]:
    most: dict[str, int] = {}
    for (i, j), lane in lanes.items():
        place = drawn[i][1][j].place
        most[place] = max(most.get(place, 1), lane + 1)
    names = [name for name in PLACES if name in most]
    shares = [
        {FIXED: size.fridge, "table": 0.8, "shop": 0.8}.get(name, 1.0)
        + size.lane * (most[name] - 1)
        for name in names
    ]
    room = (size.width - size.axis) / sum(shares)
    columns, x = {}, size.axis
    for name, share in zip(names, shares, strict=True):
        width = round(room * share, 1)
        is_tight = len(name) * TIGHT_LETTER > width
        column = Column(name, round(x, 1), width, most[name], is_tight)
        if name == FIXED and len(drawn) > 1:
            column = replace(column, heads=tuple(_heads(drawn, lanes, column, size)))
        columns[name] = column
        x += room * share
    return columns


def _heads(
    drawn: Sequence[tuple[Chain, list[Stay]]], lanes: dict[tuple[int, int], int], column: Column,
    size: Format,
) -> Iterator[Head]:  # fmt: skip
    """The names of dishes over their lanes, the last word of those that have no room."""
    lane_width = (column.width - 2 * size.pad) / column.lanes
    if lane_width < NAMED_LANE:
        return
    room = int(lane_width / HEAD_LETTER)
    for i, (chain, stays) in enumerate(drawn):
        lane = next((lanes[i, j] for j, each in enumerate(stays) if each.place == FIXED), None)
        if lane is None:
            continue
        words = chain.name if len(chain.name) <= room else chain.name.split()[-1]
        x = round(column.x + size.pad + (lane + 0.5) * lane_width, 1)
        yield Head(x, chain.hue, words, None if len(words) <= room else round(lane_width - 2.0, 1))


def _bare(
    chain: Chain, stay: Stay, column: Column, lane: int, scale: TimeScale, size: Format
) -> Ribbon:
    """A ribbon without its writing."""
    lane_width = (column.width - 2 * size.pad) / column.lanes
    width = min(lane_width - 3.0, WIDEST_LANE) if column.lanes > 1 else lane_width
    x = column.x + size.pad + lane * lane_width + (lane_width - width) / 2
    y = scale.y(stay.start)
    return Ribbon(
        stay.key, chain.hue, round(x, 1), y, round(width, 1), round(scale.y(stay.end) - y, 1),
        stay.state, f"{chain.name}: {stay.title}, {stay.length}", (),
        f"{chain.address}#step-{stay.key}" if chain.address else "",
    )  # fmt: skip


def _lettered(
    drawn: Sequence[tuple[Chain, list[Stay]]], ribbons: Sequence[Sequence[Ribbon]], size: Format,
    *, has_heads: bool,
) -> Iterator[Ribbon]:  # fmt: skip
    """Ribbons with their writing, wherever it has room; of several dishes their names as well."""
    taken = [ribbon.box for row in ribbons for ribbon in row]
    taken += [box for row in ribbons for box in band_boxes(row)]
    several = len(drawn) > 1
    bounds = (size.axis + 2, size.width - 2)
    for (chain, stays), row in zip(drawn, ribbons, strict=True):
        for stay, ribbon in zip(stays, row, strict=True):
            is_told = stay.place == FIXED and has_heads
            is_named = several and chain.name != stay.title and not is_told
            lines = _within(chain, stay, ribbon, size, is_named=is_named)
            if lines is None:
                wide = BOLD * size.letter
                text = beside(_wordings(chain, stay, several=several), ribbon.box, taken, bounds,
                              wide)  # fmt: skip
                lines = () if text is None else (text,)
                taken += [extent(each, wide) for each in lines]
            yield replace(ribbon, lines=lines)


def _within(
    chain: Chain, stay: Stay, ribbon: Ribbon, size: Format, *, is_named: bool
) -> tuple[Text, ...] | None:
    """The writing in a ribbon: in lines where it is wide enough, else along it."""
    named = [chain.name] if is_named else []
    whole = inside([*named, stay.title, stay.length], ribbon.box, size.letter)
    is_slim = ribbon.width < LINES_FROM and ribbon.height > NAMED_FROM
    if whole is not None and not is_slim:
        return whole
    told = f"{stay.title}, {stay.length}"
    wordings = [f"{chain.name}: {told.lower()}", f"{chain.name}: {stay.title.lower()}"]
    turned = along(
        [*(wordings if is_named else [told]), stay.title],
        ribbon.box, BOLD * size.letter,
    )  # fmt: skip
    if turned is not None:
        return (turned,)
    return inside([*named, stay.title], ribbon.box, size.letter)


def _wordings(chain: Chain, stay: Stay, *, several: bool) -> list[str]:
    plain = [f"{stay.title}, {stay.length}", stay.title]
    return [f"{chain.name}: {stay.title.lower()}", stay.title] if several else plain


def _rows(scale: TimeScale, serve_at: datetime, house: House, now_y: float | None) -> Iterator[Row]:
    days = midnights(scale.moments[0], serve_at + AFTER, house.zone)
    feast_day = serve_at.astimezone(house.zone).date()
    for left, right in pairwise([*days, scale.moments[-1]]):
        y = scale.y(left)
        day = left.astimezone(house.zone).date()
        is_feast = day == feast_day
        label_y = y + (FEAST_DAY_LABEL if is_feast else DAY_LABEL)
        yield Row(
            y=y,
            height=round(scale.y(right) - y, 1),
            label_y=round(label_y, 1),
            label=f"{day:%a} {day.day}",
            to_go=(feast_day - day).days,
            is_feast=is_feast,
            covered=now_y is not None and abs(label_y - 5 - now_y) < HIDDEN,
        )


def _hours(
    scale: TimeScale, serve_at: datetime, house: House, now_y: float | None
) -> Iterator[tuple[float, str]]:
    """Every second waking hour of the feast day that is not hidden by now or by the feast."""
    taken = [scale.y(serve_at), *([now_y] if now_y is not None else [])]
    midnight = midnights(serve_at, serve_at + AFTER, house.zone)[0]
    taken.append(scale.y(midnight) + FEAST_DAY_LABEL - 6)
    moment = midnight
    while moment < serve_at + AFTER:
        local = moment.astimezone(house.zone)
        y = scale.y(moment)
        shown = local.hour % 2 == 0 and local.time() >= house.wake
        if shown and all(abs(y - each) > 13 for each in taken):
            yield y, f"{local:%H}"
        moment += timedelta(hours=1)


def _full(
    drawn: Sequence[tuple[Chain, list[Stay]]], columns: Mapping[str, Column],
    rooms: Mapping[str, float], scale: TimeScale, house: House,
) -> Iterator[Full]:  # fmt: skip
    """When two dishes or more fill a place, or more than fill it."""
    for name, column in columns.items():
        if name == "shop" or name not in rooms:
            continue
        stays = [each for _, held in drawn for each in held if each.place == name]
        for begin, end in _filled(stays, rooms[name]):
            y = scale.y(begin)
            hours = [f"{each.astimezone(house.zone):%H:%M}" for each in (begin, end)]
            words = say("full {begin}–{end}", begin=hours[0], end=hours[1])
            yield Full(column.x, y, column.width, round(scale.y(end) - y, 1), words)


def _filled(stays: Sequence[Stay], room: float) -> list[tuple[datetime, datetime]]:
    """The spans in which several stays together take all of a room."""
    edges = sorted({edge for each in stays for edge in (each.start, each.end)})
    found: list[tuple[datetime, datetime]] = []
    for begin, end in pairwise(edges):
        there = [each for each in stays if each.start <= begin and end <= each.end]
        if len(there) < 2 or sum(each.uses for each in there) < room:
            continue
        if found and found[-1][1] == begin:
            begin = found.pop()[0]  # noqa: PLW2901 - it goes on from the one before
        found.append((begin, end))
    return found


def _marks(visits: Sequence[Visit], ribbons: Sequence[Ribbon], scale: TimeScale) -> Iterator[Mark]:
    by_key = {ribbon.key: ribbon for ribbon in ribbons}
    for visit in visits:
        ribbon = by_key.get(visit.key)
        if ribbon is not None and visit.at >= scale.moments[0]:
            x, y = round(ribbon.x + ribbon.width, 1), scale.y(visit.at)
            yield Mark(x, y, visit.done, f"M{x - 3.5:.1f} {y:.1f}l2.5 3 4.5 -5.5")
