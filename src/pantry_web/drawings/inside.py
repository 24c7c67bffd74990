"""The salt inside a piece: its cross-section by rings, and the curves by day."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from pantry_core.mixes.inside import Inside

WIDTH, HEIGHT = 340.0, 150.0
"""Of the plot, without its margins."""
LEFT = 34.0
SECTION_HEIGHT = 112.0
NAMED = 36.0
"""The name of an upright is no wider."""
FULLEST = 1.3
"""A ring is inked in full at so many times its even value."""


@dataclass(frozen=True, slots=True)
class Ring:
    """A ring of the cross-section, from heart to rim; a slab has its rings as level layers."""

    x: float
    y: float
    width: float
    height: float
    ink: float


@dataclass(frozen=True, slots=True)
class Tick:
    """A mark on an axis."""

    at: float
    label: str


@dataclass(frozen=True, slots=True)
class Edge:
    """An upright that has a name, at its left or its right."""

    at: float
    anchor: Literal["start", "end"]

    @property
    def dx(self) -> int:
        """How far its name is from it."""
        return 4 if self.anchor == "start" else -4


@dataclass(frozen=True, slots=True)
class InsidePicture:
    """Everything drawn, and the numbers a slider moves through."""

    form: Literal["layers", "rounds"]
    rings: tuple[Ring, ...]
    rim: str
    mean: str
    heart: str
    doubt: str
    band_y: float
    band_height: float
    days: tuple[Tick, ...]
    levels: tuple[Tick, ...]
    ready: Edge | None
    out: Edge | None
    shown: int
    shown_x: float
    full_pct: float
    xs: tuple[float, ...]


def picture(
    inside: Inside,
    *,
    even_pct: float,
    share: float,
    ready_d: float | None,
    out_d: float,
    is_slab: bool,
    closed: bool,
) -> InsidePicture:
    """Lay out the inside of a piece.

    Parameters: inside; even_pct, its salt when all is even [%]; share of that which makes it ready;
    ready_d and out_d, when the model calls it ready (None: never) and when the plan takes it out
    [d]; is_slab; closed, whether one face is.
    """
    last = inside.days[-1]
    top = 1.9 * even_pct

    def x(day: float) -> float:
        return round(LEFT + WIDTH * min(day / last, 1.0), 1)

    def y(pct: float) -> float:
        return round(HEIGHT * (1.0 - min(pct / top, 1.0)), 1)

    xs = tuple(x(day) for day in inside.days)

    def points(values: Sequence[float]) -> list[str]:
        return [f"{at} {y(pct)}" for at, pct in zip(xs, values, strict=True)]

    def line(values: Sequence[float]) -> str:
        return "M" + "L".join(points(values))

    doubt = f"{line(inside.heart_fast)}L{'L'.join(reversed(points(inside.heart_slow)))}Z"
    shown = min(range(len(inside.days)), key=lambda i: abs(inside.days[i] - out_d))
    full = FULLEST * even_pct
    inks = [round(min(pct / full, 1.0), 3) for pct in inside.rings[shown]]
    step_d = next((step for step in (1, 2, 7, 14) if last / step <= 8), 28)
    return InsidePicture(
        form="layers" if is_slab else "rounds",
        rings=_layers(inks, closed=closed) if is_slab else _rounds(inks),
        rim=line(inside.rim),
        mean=line(inside.mean),
        heart=line(inside.heart),
        doubt=doubt,
        band_y=y(even_pct),
        band_height=round(y(share * even_pct) - y(even_pct), 1),
        days=tuple(Tick(x(day), str(day)) for day in range(0, int(last) + 1, step_d)),
        levels=tuple(
            Tick(y(pct), f"{pct:.1f}") for pct in (0.5 * even_pct, even_pct, 1.5 * even_pct)
        ),
        ready=Edge(x(ready_d), "start" if x(ready_d) + NAMED <= LEFT + WIDTH else "end")
        if ready_d is not None and ready_d <= last
        else None,
        out=Edge(x(out_d), "end" if x(out_d) - 2 * NAMED >= LEFT else "start")
        if out_d <= last
        else None,
        shown=shown,
        shown_x=xs[shown],
        full_pct=full,
        xs=xs,
    )


def _layers(inks: Sequence[float], *, closed: bool) -> tuple[Ring, ...]:
    """Level layers, from the heart: both ways to an open face, or from the closed one down."""
    count, width = len(inks), LEFT + WIDTH
    if closed:
        high = SECTION_HEIGHT / count
        return tuple(
            Ring(0, round(i * high, 2), width, round(high, 2), ink) for i, ink in enumerate(inks)
        )
    high, middle = SECTION_HEIGHT / 2 / count, SECTION_HEIGHT / 2
    # A layer is drawn from its outer edge to its mirror's, the rim first, so that each covers less.
    return tuple(
        Ring(0, round(middle - (i + 1) * high, 2), width, round(2 * (i + 1) * high, 2), inks[i])
        for i in reversed(range(count))
    )[::-1]


def _rounds(inks: Sequence[float]) -> tuple[Ring, ...]:
    """Rounds about the heart, as centre and half axes."""
    count, across = len(inks), (LEFT + WIDTH) / 2
    return tuple(
        Ring(
            round(across, 1), SECTION_HEIGHT / 2, round(across * (i + 1) / count, 2),
            round(SECTION_HEIGHT / 2 * (i + 1) / count, 2), ink,
        )
        for i, ink in enumerate(inks)
    )  # fmt: skip
