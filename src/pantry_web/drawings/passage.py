"""The picture of a plan: time runs down, places run across, a dish is a ribbon between them."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from itertools import pairwise

from pantry_core.routes.steps import PLACES as KITCHEN_PLACES
from pantry_core.text import say
from pantry_web.drawings.lettering import beside, extent, inside
from pantry_web.drawings.shapes import (
    Chain,
    Column,
    Format,
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


WIDE = Format(860, 100, Heights(day=20, hour=13, night_hour=2, least=17), 6.7, 10, 2.0, 0.55)
NARROW = Format(358, 66, Heights(day=24, hour=20, night_hour=3, least=18), 6.0, 3, 1.4, 0.4)
HEAD = 36.0
TIGHT_LETTER = 7.0
"""Width of a letter in the name of a place."""
BOLD = 1.06
"""Width of a bold letter over that of a usual one."""
DAY_LABEL, FEAST_DAY_LABEL = 15.5, 21.0


def passage(
    chains: Sequence[Chain],
    now: datetime,
    serve_at: datetime,
    house: House,
    size: Format,
    since: datetime | None = None,
) -> Passage:
    """Draw a plan.

    Parameters: chains, at least one with a stay that takes time; now; serve_at; house; size; since,
    before which nothing is drawn.
    Returns: shapes in the units of the picture, its origin at the top left.
    """
    drawn = [(chain, stays) for chain in chains if (stays := list(_since(chain.stays, since)))]
    first = min(stays[0].start for _, stays in drawn)
    begin = min(first, now) if first - now <= EMPTY_DAYS else first
    spans = [(stay.start, stay.end) for _, stays in drawn for stay in stays]
    scale = time_scale(begin, serve_at, spans, house, size.heights, HEAD)
    lanes = _lanes([stays for _, stays in drawn])
    columns = _columns([stays for _, stays in drawn], lanes, size)
    ribbons = [
        [_bare(chain, stay, columns[stay.place], lanes[i, j], scale, size)
         for j, stay in enumerate(stays)]
        for i, (chain, stays) in enumerate(drawn)
    ]  # fmt: skip
    serve_y = scale.y(serve_at)
    now_y = scale.y(now) if begin <= now <= serve_at + AFTER else None
    table_x = columns["table"].middle
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
        ribbons=tuple(_lettered(drawn, ribbons, size)),
        links=tuple(
            (chain.hue, link)
            for (chain, _), row in zip(drawn, ribbons, strict=True)
            for link in _links(row, table_x, scale.y(chain.serve_at))
        ),
        marks=tuple(
            mark
            for (chain, _), row in zip(drawn, ribbons, strict=True)
            for mark in _marks(chain.visits, row, scale)
        ),
        served=tuple((chain.hue, table_x, scale.y(chain.serve_at)) for chain, _ in drawn),
        now=None if now_y is None else (now_y, f"{now.astimezone(house.zone):%a %H:%M}"),
        serve=(serve_y, f"{serve_at.astimezone(house.zone):%H:%M}"),
    )


def _since(stays: Sequence[Stay], since: datetime | None) -> Iterator[Stay]:
    """Stays that take time, cut off before a moment."""
    for stay in stays:
        begin = max(stay.start, since) if since else stay.start
        if stay.end > begin:
            yield replace(stay, start=begin)


def _lanes(chains: Sequence[Sequence[Stay]]) -> dict[tuple[int, int], int]:
    """The lane of each stay in its place: the first that is free when it begins."""
    ends: dict[str, list[datetime]] = {}
    lanes = {}
    in_order = sorted(
        ((stay.start, i, j) for i, stays in enumerate(chains) for j, stay in enumerate(stays))
    )
    for start, i, j in in_order:
        stay = chains[i][j]
        taken = ends.setdefault(stay.place, [])
        lane = next((n for n, end in enumerate(taken) if end <= start), len(taken))
        taken[lane : lane + 1] = [stay.end]
        lanes[i, j] = lane
    return lanes


def _columns(
    chains: Sequence[Sequence[Stay]], lanes: dict[tuple[int, int], int], size: Format
) -> dict[str, Column]:
    most = {"table": 1}
    for (i, j), lane in lanes.items():
        place = chains[i][j].place
        most[place] = max(most.get(place, 1), lane + 1)
    names = [name for name in PLACES if name in most]
    shares = [
        {"fridge": size.fridge, "table": 0.8, "shop": 0.8}.get(name, 1.0)
        + size.lane * (most[name] - 1)
        for name in names
    ]
    room = (size.width - size.axis) / sum(shares)
    columns, x = {}, size.axis
    for name, share in zip(names, shares, strict=True):
        width = round(room * share, 1)
        is_tight = len(name) * TIGHT_LETTER > width
        columns[name] = Column(name, round(x, 1), width, most[name], is_tight)
        x += room * share
    return columns


def _bare(
    chain: Chain, stay: Stay, column: Column, lane: int, scale: TimeScale, size: Format
) -> Ribbon:
    """A ribbon without its writing."""
    width = (column.width - 2 * size.pad) / column.lanes
    gap = 3.0 if column.lanes > 1 else 0.0
    y = scale.y(stay.start)
    return Ribbon(
        stay.key, chain.hue, round(column.x + size.pad + lane * width, 1), y,
        round(width - gap, 1), round(scale.y(stay.end) - y, 1), stay.state,
        f"{chain.name}: {stay.title}, {stay.length}", (),
    )  # fmt: skip


def _lettered(
    drawn: Sequence[tuple[Chain, list[Stay]]], ribbons: Sequence[Sequence[Ribbon]], size: Format
) -> Iterator[Ribbon]:
    """Ribbons with their writing, wherever it has room; of several dishes their names as well."""
    taken = [ribbon.box for row in ribbons for ribbon in row]
    several = len(drawn) > 1
    bounds = (size.axis + 2, size.width - 2)
    for (chain, stays), row in zip(drawn, ribbons, strict=True):
        for stay, ribbon in zip(stays, row, strict=True):
            named = [chain.name] if several and chain.name != stay.title else []
            lines = None
            for wording in ([*named, stay.title, stay.length], [*named, stay.title], named):
                lines = inside(wording, ribbon.box, size.letter) if wording else None
                if lines is not None:
                    break
            if lines is None:
                wide = BOLD * size.letter
                text = beside(_wordings(chain, stay, several=several), ribbon.box, taken, bounds,
                              wide)  # fmt: skip
                lines = () if text is None else (text,)
                taken += [extent(each, wide) for each in lines]
            yield replace(ribbon, lines=lines)


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
            covered=now_y is not None and abs(label_y - 5 - now_y) < 16.5,
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


def _links(ribbons: Sequence[Ribbon], table_x: float, serve_y: float) -> Iterator[str]:
    """Level lines from the edge of a ribbon to the near edge of the one that follows elsewhere."""
    for left, right in pairwise(ribbons):
        if right.x > left.x + left.width:
            yield f"M{left.x + left.width:.1f} {right.y:.1f}H{right.x:.1f}"
        elif right.x + right.width < left.x:
            yield f"M{left.x:.1f} {right.y:.1f}H{right.x + right.width:.1f}"
    last = ribbons[-1]
    yield f"M{last.x + last.width:.1f} {serve_y:.1f}H{table_x:.1f}"


def _marks(visits: Sequence[Visit], ribbons: Sequence[Ribbon], scale: TimeScale) -> Iterator[Mark]:
    by_key = {ribbon.key: ribbon for ribbon in ribbons}
    for visit in visits:
        ribbon = by_key.get(visit.key)
        if ribbon is not None and visit.at >= scale.moments[0]:
            x, y = round(ribbon.x + ribbon.width - 14, 1), scale.y(visit.at)
            yield Mark(x, y, visit.done, f"M{x - 3.5:.1f} {y:.1f}l2.5 3 4.5 -5.5")
