"""What the picture of a plan is made from, and of."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from pantry_web.drawings.lettering import Box, Text
from pantry_web.drawings.timescale import Heights

State = Literal["done", "running", "ahead"]


HATCHES = ((45, 7), (135, 7), (0, 9), (90, 9), (45, 4), (135, 4), (20, 11), (160, 11))


@dataclass(frozen=True, slots=True)
class Stay:
    """A step as the picture takes it: where, from when to when."""

    key: str
    title: str
    place: str
    start: datetime
    end: datetime
    state: State
    length: str
    uses: float = 1.0


@dataclass(frozen=True, slots=True)
class Visit:
    """A round on a step."""

    key: str
    at: datetime
    done: bool


@dataclass(frozen=True, slots=True)
class Chain:
    """A dish: its stays in order, back to back, its rounds, and the hue that tells it apart.

    `address` is where its steps are worked on.
    """

    name: str
    hue: int
    stays: Sequence[Stay]
    visits: Sequence[Visit]
    serve_at: datetime
    address: str = ""


@dataclass(frozen=True, slots=True)
class Format:
    """Measures of one size of the picture; `lane` is the share of a lane beside the first."""

    width: float
    axis: float
    heights: Heights
    letter: float
    pad: float
    fridge: float
    lane: float


@dataclass(frozen=True, slots=True)
class Head:
    """A dish's name at the head of its lane; one that is too long is squeezed to a width."""

    x: float
    hue: int
    words: str
    squeezed: float | None = None


@dataclass(frozen=True, slots=True)
class Full:
    """When a place is full, and where that is written."""

    x: float
    y: float
    width: float
    height: float
    words: str

    @property
    def right(self) -> float:
        """Its right edge, at which its words end."""
        return round(self.x + self.width, 1)


@dataclass(frozen=True, slots=True)
class Column:
    """A place, with as many lanes as dishes lie there at once, or one for each dish."""

    name: str
    x: float
    width: float
    lanes: int = 1
    is_tight: bool = False
    heads: tuple[Head, ...] = ()

    @property
    def middle(self) -> float:
        """Its middle."""
        return round(self.x + self.width / 2, 1)


@dataclass(frozen=True, slots=True)
class Row:
    """A day; `to_go` days before the feast."""

    y: float
    height: float
    label_y: float
    label: str
    to_go: int
    is_feast: bool
    covered: bool


@dataclass(frozen=True, slots=True)
class Ribbon:
    """A stay, with its writing inside or beside it."""

    key: str
    hue: int
    x: float
    y: float
    width: float
    height: float
    state: State
    title: str
    lines: tuple[Text, ...]
    href: str = ""

    @property
    def box(self) -> Box:
        """What it covers."""
        return (self.x, self.y, self.width, self.height)


@dataclass(frozen=True, slots=True)
class Mark:
    """A round on a ribbon, and the tick that is drawn in it when done."""

    x: float
    y: float
    done: bool
    tick: str


@dataclass(frozen=True, slots=True)
class Passage:
    """The whole picture."""

    width: float
    height: float
    axis: float
    columns: tuple[Column, ...]
    rows: tuple[Row, ...]
    nights: tuple[tuple[float, float], ...]
    hours: tuple[tuple[float, str], ...]
    ribbons: tuple[Ribbon, ...]
    links: tuple[tuple[int, str], ...]
    marks: tuple[Mark, ...]
    served: tuple[tuple[int, float, float], ...]
    now: tuple[float, str] | None
    serve: tuple[float, str]
    full: tuple[Full, ...] = ()
    tag: tuple[float, float, str] | None = None
    """Of what goes on at now: its left edge, its width, its words."""

    @property
    def hatches(self) -> tuple[tuple[int, int, int], ...]:
        """Hue, angle and gap of each hatch that is drawn, so that dishes differ without colour."""
        return tuple((hue, *HATCHES[hue]) for hue in sorted({each.hue for each in self.ribbons}))
