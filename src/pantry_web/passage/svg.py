"""The picture as SVG.

It is written here and not in a template: figures of a drawing do not follow the habits of a
language, and there are some thousand of them.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import date, datetime
from html import escape

from django.utils.safestring import SafeString
from django.utils.translation import gettext

from pantry_web.drawings.lettering import Text
from pantry_web.drawings.shapes import Column, Passage, Ribbon

BADGE = {"wide": 76, "narrow": 66}
BADGE_A_SIGN = 7.0
"""Widths of the badge of now; with an hour of twelve it takes more."""


@dataclass(frozen=True, slots=True)
class Telling:
    """How words and addresses are told.

    `said` is of a text of the core, `at` of a moment, `step` the address of a step by its dish and
    key, `day` that of a day, None where days lead nowhere. With `pointed` the picture is worked in:
    `data` is what the pointer needs to know of it.
    """

    name: str
    title: str
    said: Callable[[str], str]
    at: Callable[[datetime], str]
    step: Callable[[str, str], str]
    day: Callable[[date], str] | None = None
    data: dict[str, str] | None = None

    @property
    def is_pointed(self) -> bool:
        """Whether ribbons are buttons."""
        return self.data is not None

    def words(self, text: str) -> str:
        """A text of the core, safe."""
        return escape(self.said(text))


def svg(drawn: Passage, told: Telling) -> SafeString:
    """The picture, safe to be put on a page."""
    data = "".join(f' data-{key}="{escape(value)}"' for key, value in (told.data or {}).items())
    broad = f' width="{drawn.width:g}"' if drawn.is_broad else ""
    title = f'<title id="passage-{told.name}">{escape(told.title)}</title>'
    return SafeString(
        f'<svg class="passage {told.name}{" broad" if drawn.is_broad else ""}"'
        f' viewBox="0 0 {drawn.width:g} {drawn.height:g}"{broad}{data}'
        f' role="group" aria-labelledby="passage-{told.name}">'
        f"{title}{''.join(_parts(drawn, told))}</svg>"
    )


def _parts(drawn: Passage, told: Telling) -> Iterator[str]:
    """From the ground up: what comes later lies over what came before.

    What lies above the ribbons is not in the way of a press on them.
    """
    yield from _defined(drawn, told)
    for column in drawn.columns:
        yield from _place(column, drawn, told)
    yield from _hours(drawn, told)
    yield from _days(drawn, told)
    yield from _full(drawn, told)
    for hue, *box in drawn.before:
        yield f'<rect class="before hue-{hue}" {_box(*box)} rx="4"/>'
    for ribbon in drawn.ribbons:
        yield from _ribbon(ribbon, told)
    yield '<g class="above">'
    for hue, path in drawn.links:
        yield f'<path class="halo" d="{path}"/><path class="link hue-{hue}" d="{path}"/>'
    for hue, path in drawn.joins:
        yield f'<path class="join hue-{hue}" d="{path}"/>'
    for ribbon in drawn.ribbons:
        yield from _words(ribbon, told)
    yield from _full_words(drawn, told)
    yield from _rounds(drawn)
    yield from _feast(drawn, told)
    for ribbon in drawn.ribbons:
        yield from _number(ribbon)
    yield from _now(drawn, told)
    yield "</g>"


def _box(x: float, y: float, width: float, height: float) -> str:
    return f'x="{x:g}" y="{y:g}" width="{width:g}" height="{height:g}"'


def _text(
    kind: str, x: float, y: float, words: str, anchor: str = "start", dx: float = 0, dy: float = 0
) -> str:
    moved = (f' dx="{dx:g}"' if dx else "") + (f' dy="{dy:g}"' if dy else "")
    turned = "" if anchor == "start" else f' text-anchor="{anchor}"'
    return f'<text class="{kind}" x="{x:g}" y="{y:g}"{moved}{turned}>{words}</text>'


def _defined(drawn: Passage, told: Telling) -> Iterator[str]:
    def pattern(key: str, gap: int, angle: int, line: str) -> str:
        return (
            f'<pattern id="{key}" width="{gap}" height="{gap}" patternUnits="userSpaceOnUse"'
            f' patternTransform="rotate({angle})"><path class="{line}" d="M0 0V{gap}"/></pattern>'
        )

    yield f"<defs>{pattern(f'shut-{told.name}', 7, 45, 'shut-line')}"
    for hue, angle, gap in drawn.hatches:
        yield pattern(f"hatch-{told.name}-{hue}", gap, angle, f"hatch hue-{hue}")
    yield "</defs>"


def _place(column: Column, drawn: Passage, told: Telling) -> Iterator[str]:
    def named(kind: str, x: float, y: float, words: str, squeezed: float | None) -> str:
        tight = f' textLength="{squeezed:g}" lengthAdjust="spacingAndGlyphs"' if squeezed else ""
        return (
            f'<text class="{kind}" x="{x:g}" y="{y:g}" text-anchor="middle"{tight}>{words}</text>'
        )

    yield f'<rect class="place" {_box(column.x, 0, column.width, drawn.height)}/>'
    name = told.said(column.name)
    tight = " tight" if column.is_tight else ""
    yield named(
        f"place-name{tight}", column.middle, 23, escape(name[:1].upper() + name[1:]),
        column.squeezed,
    )  # fmt: skip
    for head in column.heads:
        yield named(f"lane-name hue-{head.hue}", head.x, 42, escape(head.words), head.squeezed)
    if column.filled and told.is_pointed:
        yield _text("to-go", column.right, 23, told.words(column.filled), "end", -6)


def _hours(drawn: Passage, told: Telling) -> Iterator[str]:
    """Nights, and hours in which something is shut, no work is done or nobody is at home."""
    for y, height in drawn.nights:
        yield f'<rect class="night" {_box(drawn.axis, y, drawn.inner_width, height)}/>'
    for each in drawn.shades:
        box = _box(each.x, each.y, each.width, each.height)
        yield f'<rect class="{each.kind}" {box} fill="url(#shut-{told.name})"/>'
        if each.kind == "away" and told.is_pointed:
            yield _text("away-words", each.x, each.y, escape(gettext("away")), dx=6, dy=13)


def _days(drawn: Passage, told: Telling) -> Iterator[str]:
    counts = told.is_pointed and any(not row.is_hourly for row in drawn.rows)
    if counts:
        yield _text("to-go", drawn.axis, 23, escape(gettext("days to go")), "end", -10)
    for row in drawn.rows:
        yield f'<path class="midnight" d="M0 {row.y:g}H{drawn.width:g}"/>'
        if row.covered:
            continue
        kind = "feast-day" if row.is_hourly else "day"
        label = _text(kind, 4, row.label_y, told.words(row.label))
        yield (
            label
            if told.day is None
            else f'<a class="to-day" href="{escape(told.day(row.day))}">{label}</a>'
        )
        if counts and not row.is_hourly:
            yield _text("to-go", drawn.axis, row.label_y, str(row.to_go), "end", -10)
    for y, hour in drawn.hours:
        yield f'<path class="hour" d="M{drawn.axis:g} {y:g}H{drawn.width:g}"/>'
        yield _text("to-go", drawn.axis, y, told.words(hour), "end", -10, 4)


def _full(drawn: Passage, told: Telling) -> Iterator[str]:
    for each in drawn.full:
        over = " over" if each.is_over else ""
        box = _box(each.x, each.y, each.width, each.height)
        yield f'<g class="full{over}"><rect {box}/><title>{told.words(each.words)}</title></g>'


def _full_words(drawn: Passage, told: Telling) -> Iterator[str]:
    for each in drawn.full if told.is_pointed else ():
        over = " over" if each.is_over else ""
        yield _text(f"full-words{over}", each.right, each.y, told.words(each.words), "end", -3, -3)


def _rounds(drawn: Passage) -> Iterator[str]:
    for mark in drawn.marks:
        tick = f'<path d="{mark.tick}"/>' if mark.done else ""
        done = " done" if mark.done else ""
        circle = f'<circle cx="{mark.x:g}" cy="{mark.y:g}" r="4.8"/>'
        yield f'<g class="mark{done}">{circle}{tick}</g>'


def _ribbon(ribbon: Ribbon, told: Telling) -> Iterator[str]:
    stay, box = ribbon.stay, _box(*ribbon.box)
    kind = f'class="ribbon {stay.state}{" wrong" if stay.why else ""} hue-{ribbon.hue}"'
    if told.is_pointed:
        latest = f' data-latest="{stay.latest.timestamp():.0f}"' if stay.latest else ""
        yield (
            f'<a {kind} role="button" href="{escape(told.step(ribbon.chain.dish, stay.key))}"'
            f' data-step="{ribbon.chain.dish}.{escape(stay.key)}"'
            f' data-from="{stay.start.timestamp():.0f}"{latest}'
            f' aria-label="{escape(_whole(ribbon, told))}">'
        )
    else:
        yield f"<g {kind}>"
    hatch = f"url(#hatch-{told.name}-{ribbon.hue})"
    yield f'<rect class="ground" {box} rx="4"/><rect class="cover" {box} rx="4" fill="{hatch}"/>'
    if stay.is_locked:
        yield f'<path class="lock" d="M{ribbon.x:g} {ribbon.y:g}h{ribbon.width:g}"/>'
    if told.is_pointed and ribbon.latest and ribbon.latest > ribbon.y:
        yield f'<path class="slack" d="M{ribbon.x:g} {ribbon.y:g}V{ribbon.latest:g}h8"/>'
    yield "</a>" if told.is_pointed else "</g>"


def _whole(ribbon: Ribbon, told: Telling) -> str:
    """All that a ribbon is, in words."""
    stay = ribbon.stay
    begins = told.said(told.at(stay.start))
    parts = [f"{ribbon.chain.name}: {told.said(stay.title)}", stay.length, begins]
    fixed = [gettext("fixed")] if stay.is_locked else []
    return ", ".join([*parts, *fixed]) + (f". {stay.why}" if stay.why else "")


def _words(ribbon: Ribbon, told: Telling) -> Iterator[str]:
    if not ribbon.lines:
        return
    yield f'<g class="words {ribbon.stay.state}" aria-hidden="true">'
    for n, line in enumerate(ribbon.lines):
        yield _line(line, told, is_first=n == 0)
    yield "</g>"


def _line(line: Text, told: Telling, *, is_first: bool) -> str:
    turned = f' dy="4" transform="rotate(-90 {line.x:g} {line.y:g})"' if line.turned else ""
    first = ' class="first"' if is_first else ""
    return (
        f'<text x="{line.x:g}" y="{line.y:g}"{turned} text-anchor="{line.anchor}"{first}>'
        f"{told.words(line.words)}</text>"
    )


def _feast(drawn: Passage, told: Telling) -> Iterator[str]:
    if drawn.serve is not None:
        y, hour = drawn.serve
        yield f'<path class="serve" d="M0 {y:g}H{drawn.width:g}"/>'
        yield _text("serve-hour", 4, y, told.words(hour), dy=-6)
    for hue, x, y in drawn.served:
        yield f'<circle class="served hue-{hue}" cx="{x:g}" cy="{y:g}" r="5.5"/>'


def _number(ribbon: Ribbon) -> Iterator[str]:
    if ribbon.number:
        x, y = ribbon.middle
        yield (
            f'<g class="numbered hue-{ribbon.hue}" aria-hidden="true">'
            f'<circle cx="{x:g}" cy="{y:g}" r="{ribbon.radius:g}"/>'
            f'<text x="{x:g}" y="{y:g}" dy="4" text-anchor="middle">{ribbon.number}</text></g>'
        )


def _now(drawn: Passage, told: Telling) -> Iterator[str]:
    if drawn.now is None:
        return
    y, hour = drawn.now
    words = told.words(hour)
    badges = [(0.0, max(float(BADGE[told.name]), BADGE_A_SIGN * len(words) + 10), words)]
    if drawn.tag is not None:
        x, width, going_on = drawn.tag
        badges.insert(0, (x, width, told.words(going_on)))
    yield f'<path class="now" d="M0 {y:g}H{drawn.width:g}"/>'
    for x, width, words in badges:
        yield (
            f'<g transform="translate({x:g} {y:g})"><rect class="now-badge" x="0" y="-11"'
            f' width="{width:g}" height="22" rx="3"/>'
            f'<text class="now-hour" x="5" y="4.5">{words}</text></g>'
        )
