"""What the picture of a plan is made from, and of."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Literal

from pantry_web.drawings.lettering import Box, Text
from pantry_web.drawings.timescale import Heights, TimeScale

Span = tuple[datetime, datetime]
State = Literal["done", "running", "ahead"]
Kind = Literal["shut", "idle", "away"]
"""Of hours: a place is shut, no work is done, nobody is at home."""


NUMBER = 8.0
"""The largest circle around a number."""
BETWEEN = 3.0
"""So far ribbons of neighbouring lanes are apart."""
HATCHES = ((45, 7), (135, 7), (0, 9), (90, 9), (45, 4), (135, 4), (20, 11), (160, 11))


@dataclass(frozen=True, slots=True)
class Stay:
    """A step as the picture takes it: where, from when to when.

    `latest` is when it could start at the latest, where it may still be moved; `after` are the
    steps of other dishes that it waits for, each by the key of its dish and its own; `why` is what
    stands against it; what shares a `trip` and an hour is done in one go.
    """

    key: str
    title: str
    place: str
    start: datetime
    end: datetime
    state: State
    length: str
    uses: float = 1.0
    latest: datetime | None = None
    is_locked: bool = False
    after: tuple[tuple[str, str], ...] = ()
    why: str = ""
    trip: str | None = None


@dataclass(frozen=True, slots=True)
class Visit:
    """A round on a step."""

    key: str
    at: datetime
    done: bool


@dataclass(frozen=True, slots=True)
class Chain:
    """A dish: its stays in order, back to back, its rounds, and the hue that tells it apart.

    `dish` is its key; `before` are the spans of its steps by another plan, drawn beside them.
    """

    name: str
    hue: int
    stays: Sequence[Stay]
    visits: Sequence[Visit]
    serve_at: datetime
    dish: str = ""
    before: Mapping[str, Span] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Room:
    """How much fits into a place, and how that is said where it is not counted in pieces."""

    holds: float
    told: Callable[[float], str] | None = None


@dataclass(frozen=True, slots=True)
class Around:
    """What of a kitchen is seen: its rooms, when places are shut, no work is done, nobody home."""

    rooms: Mapping[str, Room] = field(default_factory=dict)
    shut: Mapping[str, Sequence[Span]] = field(default_factory=dict)
    idle: Sequence[Span] = ()
    away: Sequence[Span] = ()
    going_on: str = ""
    """What is said at the line of now."""


@dataclass(frozen=True, slots=True)
class Format:
    """Measures of one size of the picture.

    `lane` is the share of a lane beside the first; with lanes under `least_lane` it grows wider.
    `has_tag` says whether what goes on now is told at its line.
    """

    width: float
    axis: float
    heights: Heights
    letter: float
    pad: float
    fridge: float
    lane: float
    least_lane: float
    has_tag: bool = False


@dataclass(frozen=True, slots=True)
class Head:
    """A dish's name at the head of its lane; one that is too long is squeezed to a width."""

    x: float
    hue: int
    words: str
    squeezed: float | None = None


@dataclass(frozen=True, slots=True)
class Full:
    """When a place is full, or holds more than it can, and where that is written."""

    x: float
    y: float
    width: float
    height: float
    words: str
    is_over: bool = False

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
    filled: str = ""
    """How much of it is taken at the most."""
    squeezed: float | None = None
    """The width to which its name is squeezed, where even small it is too long."""

    @property
    def right(self) -> float:
        """Its right edge."""
        return round(self.x + self.width, 1)

    @property
    def middle(self) -> float:
        """Its middle."""
        return round(self.x + self.width / 2, 1)


@dataclass(frozen=True, slots=True)
class Row:
    """A day, `to_go` days before the feast; drawn by the hour, or not."""

    y: float
    height: float
    label_y: float
    label: str
    day: date
    to_go: int
    is_hourly: bool
    covered: bool


@dataclass(frozen=True, slots=True)
class Ribbon:
    """A stay: its writing, or the number by which it stands in the words beside the picture.

    `dish` counts the dishes from the left of the key; `latest` is the height to which its head may
    be moved.
    """

    stay: Stay
    chain: Chain
    x: float
    y: float
    width: float
    height: float
    lines: tuple[Text, ...] = ()
    number: int | None = None
    latest: float | None = None

    def written(self, lines: tuple[Text, ...] = (), number: int | None = None) -> "Ribbon":
        """The same with its writing or its number; as quick as can be, for there are many."""
        where = (self.x, self.y, self.width, self.height)
        return Ribbon(self.stay, self.chain, *where, lines, number, self.latest)

    @property
    def key(self) -> str:
        """The key of its step."""
        return self.stay.key

    @property
    def hue(self) -> int:
        """Of its dish."""
        return self.chain.hue

    @property
    def radius(self) -> float:
        """Of the circle around its number, which does not reach the next lane."""
        return round(min(NUMBER, (self.width + BETWEEN) / 2), 1)

    @property
    def middle(self) -> tuple[float, float]:
        """Its middle, where its number is written."""
        return round(self.x + self.width / 2, 1), round(self.y + self.height / 2, 1)

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
class Shade:
    """Hours in which a place is shut, no work is done, or nobody is at home."""

    kind: Kind
    x: float
    y: float
    width: float
    height: float


@dataclass(frozen=True, slots=True)
class Passage:
    """The whole picture; `before` is where steps lay by another plan.

    `serve` is None on a day without the hour of the feast.
    """

    width: float
    height: float
    axis: float
    scale: TimeScale
    columns: tuple[Column, ...]
    rows: tuple[Row, ...]
    nights: tuple[tuple[float, float], ...]
    hours: tuple[tuple[float, str], ...]
    ribbons: tuple[Ribbon, ...]
    links: tuple[tuple[int, str], ...]
    marks: tuple[Mark, ...]
    served: tuple[tuple[int, float, float], ...]
    now: tuple[float, str] | None
    serve: tuple[float, str] | None
    shades: tuple[Shade, ...] = ()
    joins: tuple[tuple[int, str], ...] = ()
    before: tuple[tuple[int, float, float, float, float], ...] = ()
    full: tuple[Full, ...] = ()
    tag: tuple[float, float, str] | None = None
    """Of what goes on at now: its left edge, its width, its words."""

    is_broad: bool = False
    """Whether it is wider than a page: it is then moved to and fro."""

    @property
    def inner_width(self) -> float:
        """Of what lies beside the names of days."""
        return round(self.width - self.axis, 1)

    @property
    def hatches(self) -> tuple[tuple[int, int, int], ...]:
        """Hue, angle and gap of each hatch that is drawn, so that dishes differ without colour."""
        return tuple((hue, *HATCHES[hue]) for hue in sorted({each.hue for each in self.ribbons}))
