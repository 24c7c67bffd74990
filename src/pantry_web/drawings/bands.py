"""The bands between the ribbons of a dish, and where each dish ends."""

from collections.abc import Iterator, Sequence
from itertools import pairwise

from pantry_web.drawings.lettering import Box
from pantry_web.drawings.shapes import Chain, Ribbon, Stay
from pantry_web.drawings.timescale import TimeScale

LINES_FROM = 64.0
"""A ribbon that is narrower is written along, where it is long enough."""
BEND = 9.0
"""So far from its ribbons a band bends."""
BAND = 3.0
"""So much of a band writing keeps away from: a line has room of its own above and below."""
APART = 17.0
"""Marks at the feast's line are no nearer to each other."""


def links(ribbons: Sequence[Ribbon]) -> Iterator[str]:
    """Bands that bend from the foot of a ribbon to the head of the one that follows elsewhere."""
    for before, after in pairwise(ribbons):
        y = after.y
        (out, leaves), (into, enters) = _joint(before, after), _joint(after, before)
        if before.x == after.x or (abs(into - out) < 2 * BEND and (leaves or enters)):
            continue
        turn = BEND if into > out else -BEND
        begin = f"M{out:.1f} {y - BEND / 2:.1f}Q{out:.1f} {y:.1f} {out + turn:.1f} {y:.1f}"
        end = f"H{into - turn:.1f}Q{into:.1f} {y:.1f} {into:.1f} {y + BEND / 2:.1f}"
        yield (begin if leaves else f"M{out:.1f} {y:.1f}") + (end if enters else f"H{into:.1f}")


def _joint(ribbon: Ribbon, other: Ribbon) -> tuple[float, bool]:
    """Where a band joins a ribbon, and whether it bends: in its middle; of a wide one, its edge."""
    if ribbon.width < LINES_FROM:
        return ribbon.x + ribbon.width / 2, True
    is_right = other.x + other.width / 2 > ribbon.x + ribbon.width / 2
    return (ribbon.x + ribbon.width if is_right else ribbon.x), False


def band_boxes(ribbons: Sequence[Ribbon]) -> Iterator[Box]:
    """What the bands between ribbons cover."""
    for before, after in pairwise(ribbons):
        (out, _), (into, _) = _joint(before, after), _joint(after, before)
        if before.x != after.x:
            yield (min(out, into), after.y - BAND / 2, abs(into - out), BAND)


def ends(
    drawn: Sequence[tuple[Chain, list[Stay]]], ribbons: Sequence[Sequence[Ribbon]],
    scale: TimeScale,
) -> tuple[tuple[int, float, float], ...]:  # fmt: skip
    """Where each dish ends: below its last ribbon, beside those that end there at that hour."""
    found: list[tuple[int, float, float]] = []
    for (chain, _), row in zip(drawn, ribbons, strict=True):
        x, y = row[-1].x + row[-1].width / 2, scale.y(chain.serve_at)
        while any(abs(x - a) < APART and abs(y - b) < APART for _, a, b in found):
            x -= APART
        found.append((chain.hue, round(x, 1), y))
    return tuple(found)


def stems(
    ribbons: Sequence[Sequence[Ribbon]], ends: Sequence[tuple[int, float, float]]
) -> Iterator[tuple[int, str]]:
    """From the last ribbon of each dish to its mark."""
    for row, (_, x, y) in zip(ribbons, ends, strict=True):
        last = row[-1]
        foot = last.y + last.height
        yield last.hue, f"M{last.x + last.width / 2:.1f} {foot:.1f}L{x:.1f} {max(y, foot):.1f}"


def joins(ribbons: Sequence[Sequence[Ribbon]]) -> Iterator[tuple[int, str]]:
    """From the end of a step to that of another dish which waits for it: one feeds the other."""
    known = {(each.chain.dish, each.key): each for row in ribbons for each in row}
    for each in known.values():
        for waited in each.stay.after:
            feeding = known.get(waited)
            if feeding is None:
                continue
            out, foot = feeding.x + feeding.width / 2, feeding.y + feeding.height
            into, top = each.x + each.width / 2, each.y
            half = (foot + top) / 2
            yield (
                feeding.hue,
                (
                    f"M{out:.1f} {foot:.1f}C{out:.1f} {half:.1f} {into:.1f} {half:.1f}"
                    f" {into:.1f} {top:.1f}"
                ),
            )
