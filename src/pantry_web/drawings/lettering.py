"""Writing on a picture: in lines inside a box, or along it."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

LINE = 14.5
LEAST_TALL = LINE + 6.0
"""A box that is lower has no room for a line."""
ALONG_PAD, NAMED_FROM, LEAST_WIDE = 8.0, 40.0, 11.0
"""Of a box that is written along; what is longer than this always says something."""

FEW_LETTERS = 3
SHORTENED = 2
"""Names of so many words are known by the last: “smoked trout”, not “lamb in slices”."""

Box = tuple[float, float, float, float]
"""Left, top, width, height."""


@dataclass(frozen=True, slots=True)
class Text:
    """A line of writing; `turned` ones run upwards, about their middle."""

    x: float
    y: float
    anchor: Literal["start", "end", "middle"]
    words: str
    turned: bool = False


def inside(lines: Sequence[str], box: Box, letter: float) -> tuple[Text, ...] | None:
    """Lines inside a box, None where they don't fit; `letter` is the width of one."""
    x, y, width, height = box
    if height < LEAST_TALL:
        return None
    marks = 26.0 if height > 80 else 8.0
    wrapped = [each for line in lines for each in wrap(line, width - marks, letter)]
    fits = all(len(line) * letter <= width - 8 for line in wrapped)
    if not fits or len(wrapped) * LINE + 6.0 > height:
        return None
    return tuple(
        Text(round(x + 7, 1), round(y + LINE * (i + 1), 1), "start", words)
        for i, words in enumerate(wrapped)
    )


def along(wordings: Sequence[str], box: Box, letter: float) -> Text | None:
    """The first wording that fits along a box from foot to head; None where it is too small.

    Where none fits the last is cut, so that whatever is long enough to be read says something.
    """
    x, y, width, height = box
    room = int((height - ALONG_PAD) / letter)
    if width < LEAST_WIDE or height <= NAMED_FROM:
        return None
    words = next((each for each in wordings if len(each) <= room), "")
    words = words or _shortened(wordings[-1], room)
    return Text(round(x + width / 2, 1), round(y + height / 2, 1), "middle", words, turned=True)


def _shortened(words: str, room: int) -> str:
    """The first words that fit, none of a few letters at their end, else as much as fits."""
    whole = words.split()
    while len(whole) > 1 and (len(" ".join(whole)) > room or len(whole[-1]) <= FEW_LETTERS):
        whole.pop()
    short = " ".join(whole).rstrip(",")
    return short if len(short) <= room else f"{short[: room - 1]}…"


def extent(text: Text, letter: float) -> Box:
    """The box that a text takes."""
    width = len(text.words) * letter
    if text.turned:
        return (text.x - LINE / 2, text.y - width / 2, LINE, width)
    return (text.x - (width if text.anchor == "end" else 0.0), text.y - 11.5, width, LINE)


def wrap(words: str, width: float, letter: float) -> list[str]:
    """Words in lines no longer than a width, where they can be broken."""
    lines: list[str] = []
    for word in words.split():
        longer = f"{lines[-1]} {word}" if lines else word
        if lines and len(longer) * letter <= width:
            lines[-1] = longer
        else:
            lines.append(word)
    return lines


def short_name(name: str, others: Sequence[str]) -> str:
    """The noun of a name, where it tells it from others; else all of it.

    That is what stands before a comma (“Loin, boned”), or the last word of two.
    """
    noun, comma, _ = name.partition(",")
    if comma:
        is_alone = sum(each.partition(",")[0] == noun for each in others) <= 1
        return noun if is_alone else name
    words = name.split()
    last = words[-1] if words else name
    is_alone = sum(each.split()[-1:] == [last] for each in others) <= 1
    return last if len(words) == SHORTENED and is_alone else name
