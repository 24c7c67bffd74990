"""The picture of a plan: time runs down, places run across, a dish is a ribbon between them."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from itertools import pairwise

from pantry_core.quantities import Clock, Moment, Number
from pantry_core.text import say
from pantry_web.drawings.bands import ends, joins, links, stems
from pantry_web.drawings.lanes import FIXED
from pantry_web.drawings.lettering import short_name
from pantry_web.drawings.rooms import full, shades
from pantry_web.drawings.scene import PLACES, Drawn, Scene
from pantry_web.drawings.shapes import (
    BETWEEN,
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
from pantry_web.drawings.timescale import Heights, House, TimeScale, time_scale
from pantry_web.drawings.writing import Numbers, lettered, numbered

WIDE = Format(860, 100, Heights(day=34, hour=17, night_hour=3, least=19), 6.7, 10, 2.0, 0.55, 22,
              has_tag=True)  # fmt: skip
NARROW = Format(358, 66, Heights(day=32, hour=20, night_hour=3, least=19), 5.4, 2, 1.4, 0.62, 12.9)
HEAD, HEADS = 36.0, 18.0
"""Of the names of places, and of dishes below that of the fridge."""
HEAD_LETTER = 5.6
NAMED_LANE = 30.0
"""A lane that is narrower has no name at its head."""
WIDEST_LANE = 46.0
"""A lane among several is no wider, that what it holds can be told from where it goes."""
SQUEEZED = 2
"""Of twice the letters that have room, squeezed, a name can still be read."""
TAG_LETTER, TAG = 6.4, 24.0
TIGHT_LETTER, SMALL_LETTER = 10.6, 5.6
"""Width of a letter in the name of a place, and in a small one."""
HIDDEN = 17.0
"""The name of a day is hidden by now, which names it, so near to it."""
DAY_LABEL, FEAST_DAY_LABEL = 15.5, 21.0


def passage(shown: Scene, size: Format, *, numbers: Numbers | None = None) -> Passage:
    """Draw a plan.

    Parameters: shown, what of it is seen; size; numbers, those of another size of the picture.
    Returns: shapes in the units of the picture, its origin at the top left.
    """
    columns = _columns(shown, size)
    head = HEAD + (HEADS if any(each.heads for each in columns.values()) else 0.0)
    scale = time_scale(shown.timeline, size.heights, head)
    now_y = scale.y(shown.now) if shown.begin <= shown.now <= shown.end else None
    tag = None if now_y is None else _tag(shown, size)
    lanes = {name: _lanes(column, size) for name, column in columns.items()}
    bare = [
        [_bare(chain, stay, *lanes[stay.place][shown.lanes[i, j]], scale)
         for j, stay in enumerate(stays)]
        for i, (chain, stays) in enumerate(shown.drawn)
    ]  # fmt: skip
    covered = [] if now_y is None else list(_covered(now_y, tag, size))
    written = [list(row) for row in lettered(bare, size, covered, has_heads=head > HEAD)]
    ribbons = numbered(written, shown.house.zone, numbers)
    at_the_table = ends(shown.drawn, ribbons, scale) if shown.has_feast else ()
    last = max(columns.values(), key=lambda each: each.x)
    return Passage(
        width=round(last.x + last.width, 1),
        height=round(scale.heights[-1] + 8, 1),
        axis=size.axis,
        scale=scale,
        columns=tuple(columns.values()),
        rows=tuple(_rows(shown, scale, now_y)),
        nights=tuple((scale.y(a), round(scale.y(b) - scale.y(a), 1)) for a, b in shown.nights),
        hours=tuple(_hours(shown, scale, now_y)),
        shades=tuple(shades(columns, shown.around, scale)),
        ribbons=tuple(ribbon for row in ribbons for ribbon in row),
        full=tuple(full(shown.fills, columns, scale, shown.house.zone)),
        tag=tag,
        links=(
            *(stems(ribbons, at_the_table) if shown.has_feast else ()),
            *((row[0].hue, link) for row in ribbons for link in links(row)),
        ),
        joins=tuple(joins(ribbons)),
        before=tuple(_before(shown.drawn, ribbons, scale)),
        marks=tuple(mark for row in ribbons for mark in _marks(row[0].chain.visits, row, scale)),
        served=at_the_table,
        now=None if now_y is None else (now_y, _weekday_and_hour(_local(shown, shown.now))),
        is_broad=last.x + last.width > size.width + 1,
        serve=(scale.y(shown.serve_at), say("{hour}", hour=Clock(_local(shown, shown.serve_at))))
        if shown.has_feast
        else None,
    )


def _local(shown: Scene, moment: datetime) -> datetime:
    return moment.astimezone(shown.house.zone)


def _tag(shown: Scene, size: Format) -> tuple[float, float, str] | None:
    """What goes on at now, at the line of now, where the picture has room for it."""
    said = shown.around.going_on
    if not said or not size.has_tag:
        return None
    return (size.axis + 4.0, round(len(said) * TAG_LETTER + 14.0, 1), said)


def _covered(
    now_y: float, tag: tuple[float, float, str] | None, size: Format
) -> Iterator[tuple[float, float, float, float]]:
    """What now covers: its line, and what is said there."""
    if tag is not None:
        yield (size.axis, now_y - TAG / 2, tag[1], TAG)
    yield (size.axis, now_y, size.width, 1.0)


def _columns(shown: Scene, size: Format) -> dict[str, Column]:
    """The places from left to right; with so many dishes that lanes get thin, more width."""
    drawn, most = shown.drawn, dict[str, int]()
    for (i, j), lane in shown.lanes.items():
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
        column = Column(
            name, round(x, 1), width, most[name], is_tight, filled=shown.most.get(name, ""),
            squeezed=squeezed,
        )  # fmt: skip
        if name == FIXED and len(drawn) > 1:
            column = replace(column, heads=tuple(_heads(shown, column, size)))
        columns[name] = column
        x += room * share
    return columns


def _heads(shown: Scene, column: Column, size: Format) -> Iterator[Head]:
    """The names of dishes over their lanes, the last word of those that have no room."""
    lane_width = (column.width - 2 * size.pad) / column.lanes
    if lane_width < NAMED_LANE:
        return
    room, names = int(lane_width / HEAD_LETTER), [chain.name for chain, _ in shown.drawn]
    for i, (chain, stays) in enumerate(shown.drawn):
        lane = next(
            (shown.lanes[i, j] for j, each in enumerate(stays) if each.place == FIXED), None
        )
        if lane is None:
            continue
        words = _head_words(chain.name, names, room)
        x = round(column.x + size.pad + (lane + 0.5) * lane_width, 1)
        yield Head(x, chain.hue, words, None if len(words) <= room else round(lane_width - 2.0, 1))


def _head_words(name: str, names: Sequence[str], room: int) -> str:
    """A name where there is room for it, else its short form, squeezed; at the worst cut."""
    short = name if len(name) <= room else short_name(name, names)
    if len(short) <= SQUEEZED * room:
        return short
    last = short.split()[-1]
    return last if len(last) <= SQUEEZED * room else f"{last[: int(SQUEEZED * room) - 1]}…"


def _lanes(column: Column, size: Format) -> list[tuple[float, float]]:
    """Left edges and widths of the ribbons in each lane of a place."""
    wide = (column.width - 2 * size.pad) / column.lanes
    width = min(wide - BETWEEN, WIDEST_LANE) if column.lanes > 1 else wide
    left = column.x + size.pad + (wide - width) / 2
    return [(round(left + lane * wide, 1), round(width, 1)) for lane in range(column.lanes)]


def _bare(chain: Chain, stay: Stay, x: float, width: float, scale: TimeScale) -> Ribbon:
    """A ribbon without its writing."""
    y = scale.y(stay.start)
    latest = scale.y(stay.latest) if stay.latest else None
    return Ribbon(stay, chain, x, y, width, round(scale.y(stay.end) - y, 1), latest=latest)


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


def _rows(shown: Scene, scale: TimeScale, now_y: float | None) -> Iterator[Row]:
    feast_day = _local(shown, shown.serve_at).date()
    for left, right in pairwise([*shown.days, shown.end]):
        y = scale.y(left)
        day = _local(shown, left).date()
        is_hourly = left >= shown.hourly_from
        label_y = y + (FEAST_DAY_LABEL if is_hourly else DAY_LABEL)
        yield Row(
            y=y,
            height=round(scale.y(right) - y, 1),
            label_y=round(label_y, 1),
            label=say("{day}", day=Moment(day, "weekday-day")),
            day=day,
            to_go=(feast_day - day).days,
            is_hourly=is_hourly,
            covered=now_y is not None and abs(label_y - 5 - now_y) < HIDDEN,
        )


def _hours(shown: Scene, scale: TimeScale, now_y: float | None) -> Iterator[tuple[float, str]]:
    """Every second waking hour, where it is drawn by the hour, that now and feast do not hide."""
    taken = [scale.y(shown.serve_at), *([now_y] if now_y is not None else [])]
    taken.append(scale.y(shown.hourly_from) + FEAST_DAY_LABEL - 6)
    moment = shown.hourly_from
    while moment < shown.end:
        local = _local(shown, moment)
        y = scale.y(moment)
        is_shown = local.hour % 2 == 0 and local.time() >= shown.house.wake
        if is_shown and all(abs(y - each) > 13 for each in taken):
            yield y, _on_the_axis(local, shown.house)
        moment += timedelta(hours=1)


def _on_the_axis(local: datetime, house: House) -> str:
    """A whole hour: 18, or 6 pm."""
    if not house.is_of_12:
        return f"{local:%H}"
    hour = Number(local.hour % 12 or 12)
    return say("{hour} am", hour=hour) if local.hour < 12 else say("{hour} pm", hour=hour)


def _weekday_and_hour(local: datetime) -> str:
    return say("{moment}", moment=Moment(local, "weekday-hour"))


def _marks(visits: Sequence[Visit], ribbons: Sequence[Ribbon], scale: TimeScale) -> Iterator[Mark]:
    by_key = {ribbon.key: ribbon for ribbon in ribbons}
    for visit in visits:
        ribbon = by_key.get(visit.key)
        if ribbon is not None and visit.at >= scale.moments[0]:
            x, y = round(ribbon.x + ribbon.width, 1), scale.y(visit.at)
            yield Mark(x, y, visit.done, f"M{x - 3.5:.1f} {y:.1f}l2.5 3 4.5 -5.5")
