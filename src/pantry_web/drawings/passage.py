"""The picture of a plan: time runs down, places run across, a dish is a ribbon between them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from itertools import pairwise

from pantry_core.routes.steps import PLACES as KITCHEN_PLACES
from pantry_core.text import say
from pantry_web.drawings.bands import ends, joins, links, stems
from pantry_web.drawings.lanes import FIXED, lanes_of
from pantry_web.drawings.lettering import short_name
from pantry_web.drawings.rooms import filled, full, shades
from pantry_web.drawings.shapes import (
    BETWEEN,
    Around,
    Chain,
    Column,
    Format,
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
    next_midnight,
    nights,
    time_scale,
)
from pantry_web.drawings.writing import Numbers, lettered, numbered

PLACES: tuple[str, ...] = (say("shop"), *KITCHEN_PLACES, say("table"))
EMPTY_DAYS = timedelta(days=2)
"""More empty days than these before the first step are not drawn."""


WIDE = Format(860, 100, Heights(day=34, hour=17, night_hour=3, least=19), 6.7, 10, 2.0, 0.55, 22)
NARROW = Format(358, 66, Heights(day=32, hour=20, night_hour=3, least=19), 5.4, 2, 1.4, 0.62, 12)
LEFT = frozenset(PLACES[: PLACES.index(FIXED)])
HEAD, HEADS = 36.0, 18.0
"""Of the names of places, and of dishes below that of the fridge."""
HEAD_LETTER = 5.6
NAMED_LANE = 30.0
"""A lane that is narrower has no name at its head."""
WIDEST_LANE = 46.0
"""A lane among several is no wider, that what it holds can be told from where it goes."""
TAG_LETTER, TAG = 6.4, 24.0
TIGHT_LETTER, SMALL_LETTER = 10.6, 5.6
"""Width of a letter in the name of a place, and in a small one."""
BOLD = 1.06
"""Width of a bold letter over that of a usual one."""
HIDDEN = 17.0
"""The name of a day is hidden by now, which names it, so near to it."""
DAY_LABEL, FEAST_DAY_LABEL = 15.5, 21.0


Drawn = Sequence[tuple[Chain, list[Stay]]]
"""Dishes, each with its stays that are seen."""


@dataclass(frozen=True, slots=True)
class _Window:
    """What of the time is drawn: from when, to when, and from when by the hour."""

    begin: datetime
    end: datetime
    hourly_from: datetime


def passage(
    chains: Sequence[Chain],
    now: datetime,
    serve_at: datetime,
    house: House,
    size: Format,
    *,
    around: Around | None = None,
    since: datetime | None = None,
    day: datetime | None = None,
    numbers: Numbers | None = None,
) -> Passage:
    """Draw a plan.

    Parameters: chains, at least one with a stay that takes time and is seen; now; serve_at; house;
    size; around, what of the kitchen is seen; since, before which nothing is drawn; day, the
    midnight that begins the only day that is drawn; numbers, those of another size of the picture.
    Returns: shapes in the units of the picture, its origin at the top left.
    """
    around = around or Around()
    until = next_midnight(day, house.zone) if day else None
    drawn = [
        (chain, stays)
        for chain in chains
        if (stays := list(_seen(chain.stays, day or since, until)))
    ]
    window = _window(drawn, now, serve_at, house, day)
    spans = [(stay.start, stay.end) for _, stays in drawn for stay in stays]
    lanes = lanes_of([stays for _, stays in drawn], LEFT)
    columns = _columns(drawn, lanes, size)
    columns = {
        name: replace(each, filled=filled(drawn, name, around.rooms.get(name)))
        for name, each in columns.items()
    }
    head = HEAD + (HEADS if any(each.heads for each in columns.values()) else 0.0)
    scale = time_scale(
        window.begin, window.end, window.hourly_from, spans, house, size.heights, head
    )
    bare = [
        [_bare(chain, stay, columns[stay.place], lanes[i, j], scale, size)
         for j, stay in enumerate(stays)]
        for i, (chain, stays) in enumerate(drawn)
    ]  # fmt: skip
    is_on = window.begin <= serve_at <= window.end
    now_y = scale.y(now) if window.begin <= now <= window.end else None
    tag, covered = None, []
    if now_y is not None:
        said = around.going_on
        wide = round(len(said) * TAG_LETTER + 14.0, 1) if said else 0.0
        tag = (size.axis + 4.0, wide, said) if said else None
        covered = [(size.axis, now_y - TAG / 2, wide, TAG), (size.axis, now_y, size.width, 1.0)]
    written = [list(row) for row in lettered(bare, size, covered, has_heads=head > HEAD)]
    ribbons = numbered(written, house.zone, numbers)
    at_the_table = ends(drawn, ribbons, scale) if is_on else ()
    last = max(columns.values(), key=lambda each: each.x)
    return Passage(
        width=round(last.x + last.width, 1),
        height=round(scale.heights[-1] + 8, 1),
        axis=size.axis,
        scale=scale,
        columns=tuple(columns.values()),
        rows=tuple(_rows(scale, window, serve_at, house, now_y)),
        nights=tuple(
            (scale.y(a), round(scale.y(b) - scale.y(a), 1))
            for a, b in nights(scale.moments[0], window.end, house)
        ),
        hours=tuple(_hours(scale, window, serve_at, house, now_y)),
        shades=tuple(shades(columns, around, scale)),
        ribbons=tuple(ribbon for row in ribbons for ribbon in row),
        full=tuple(full(drawn, columns, around.rooms, scale, house.zone)),
        tag=tag,
        links=(
            *(stems(ribbons, at_the_table) if is_on else ()),
            *((row[0].hue, link) for row in ribbons for link in links(row)),
        ),
        joins=tuple(joins(ribbons)),
        before=tuple(_before(drawn, ribbons, scale)),
        marks=tuple(mark for row in ribbons for mark in _marks(row[0].chain.visits, row, scale)),
        served=at_the_table,
        now=None if now_y is None else (now_y, f"{now.astimezone(house.zone):%a %H:%M}"),
        is_broad=last.x + last.width > size.width + 1,
        serve=(scale.y(serve_at), f"{serve_at.astimezone(house.zone):%H:%M}") if is_on else None,
    )


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
) -> _Window:
    """From the first step, or now, to a little after the feast or what ends later; or a day."""
    last = max(stays[-1].end for _, stays in drawn)
    end = max(serve_at + AFTER, last + AFTER / 2)
    if day is not None:
        midnight = next_midnight(day, house.zone)
        return _Window(day, min(midnight, end) if day <= serve_at < midnight else midnight, day)
    first = min(stays[0].start for _, stays in drawn)
    begin = min(first, now) if first - now <= EMPTY_DAYS else first
    return _Window(begin, end, midnights(serve_at, serve_at + AFTER, house.zone)[0])


def _columns(drawn: Drawn, lanes: dict[tuple[int, int], int], size: Format) -> dict[str, Column]:
    """The places from left to right; with so many dishes that lanes get thin, more width."""
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
    room = max((size.width - size.axis) / sum(shares), size.least_lane / size.lane)
    columns, x = {}, size.axis
    for name, share in zip(names, shares, strict=True):
        width = round(room * share, 1)
        is_tight = len(name) * TIGHT_LETTER > width
        squeezed = round(width - 4.0, 1) if len(name) * SMALL_LETTER > width - 4.0 else None
        column = Column(name, round(x, 1), width, most[name], is_tight, squeezed=squeezed)
        if name == FIXED and len(drawn) > 1:
            column = replace(column, heads=tuple(_heads(drawn, lanes, column, size)))
        columns[name] = column
        x += room * share
    return columns


def _heads(
    drawn: Drawn, lanes: dict[tuple[int, int], int], column: Column, size: Format
) -> Iterator[Head]:
    """The names of dishes over their lanes, the last word of those that have no room."""
    lane_width = (column.width - 2 * size.pad) / column.lanes
    if lane_width < NAMED_LANE:
        return
    room, names = int(lane_width / HEAD_LETTER), [chain.name for chain, _ in drawn]
    for i, (chain, stays) in enumerate(drawn):
        lane = next((lanes[i, j] for j, each in enumerate(stays) if each.place == FIXED), None)
        if lane is None:
            continue
        words = chain.name if len(chain.name) <= room else short_name(chain.name, names)
        x = round(column.x + size.pad + (lane + 0.5) * lane_width, 1)
        yield Head(x, chain.hue, words, None if len(words) <= room else round(lane_width - 2.0, 1))


def _bare(
    chain: Chain, stay: Stay, column: Column, lane: int, scale: TimeScale, size: Format
) -> Ribbon:
    """A ribbon without its writing."""
    pad = size.pad
    lane_width = (column.width - 2 * pad) / column.lanes
    width = min(lane_width - BETWEEN, WIDEST_LANE) if column.lanes > 1 else lane_width
    x = column.x + pad + lane * lane_width + (lane_width - width) / 2
    y = scale.y(stay.start)
    return Ribbon(
        stay, chain, round(x, 1), y, round(width, 1), round(scale.y(stay.end) - y, 1),
        latest=scale.y(stay.latest) if stay.latest else None,
    )  # fmt: skip


def _before(
    drawn: Drawn, ribbons: Sequence[Sequence[Ribbon]], scale: TimeScale
) -> Iterator[tuple[int, float, float, float, float]]:
    """Where steps lay by another plan, in their lanes, of those that lie elsewhere now."""
    for (chain, _), row in zip(drawn, ribbons, strict=True):
        for ribbon in row:
            span = chain.before.get(ribbon.key)
            if span is None or span == (ribbon.stay.start, ribbon.stay.end):
                continue
            y = scale.y(span[0])
            yield chain.hue, ribbon.x, y, ribbon.width, round(scale.y(span[1]) - y, 1)


def _rows(
    scale: TimeScale, window: _Window, serve_at: datetime, house: House, now_y: float | None
) -> Iterator[Row]:
    days = midnights(scale.moments[0], window.end, house.zone)
    feast_day = serve_at.astimezone(house.zone).date()
    for left, right in pairwise([*days, scale.moments[-1]]):
        y = scale.y(left)
        day = left.astimezone(house.zone).date()
        is_hourly = left >= window.hourly_from
        label_y = y + (FEAST_DAY_LABEL if is_hourly else DAY_LABEL)
        yield Row(
            y=y,
            height=round(scale.y(right) - y, 1),
            label_y=round(label_y, 1),
            label=f"{day:%a} {day.day}",
            day=day,
            to_go=(feast_day - day).days,
            is_hourly=is_hourly,
            covered=now_y is not None and abs(label_y - 5 - now_y) < HIDDEN,
        )


def _hours(
    scale: TimeScale, window: _Window, serve_at: datetime, house: House, now_y: float | None
) -> Iterator[tuple[float, str]]:
    """Every second waking hour, where it is drawn by the hour, that now and feast do not hide."""
    taken = [scale.y(serve_at), *([now_y] if now_y is not None else [])]
    taken.append(scale.y(window.hourly_from) + FEAST_DAY_LABEL - 6)
    moment = window.hourly_from
    while moment < window.end:
        local = moment.astimezone(house.zone)
        y = scale.y(moment)
        shown = local.hour % 2 == 0 and local.time() >= house.wake
        if shown and all(abs(y - each) > 13 for each in taken):
            yield y, f"{local:%H}"
        moment += timedelta(hours=1)


def _marks(visits: Sequence[Visit], ribbons: Sequence[Ribbon], scale: TimeScale) -> Iterator[Mark]:
    by_key = {ribbon.key: ribbon for ribbon in ribbons}
    for visit in visits:
        ribbon = by_key.get(visit.key)
        if ribbon is not None and visit.at >= scale.moments[0]:
            x, y = round(ribbon.x + ribbon.width, 1), scale.y(visit.at)
            yield Mark(x, y, visit.done, f"M{x - 3.5:.1f} {y:.1f}l2.5 3 4.5 -5.5")
