"""Heat on its way through a piece, stage by stage."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from math import ceil

import numpy as np

from pantry_core.conduction.shells import (
    HELD,
    LAYERS,
    Modes,
    Vector,
    centre_of,
    modes,
    rim_conductance,
    shells,
)
from pantry_core.heat.body import Body
from pantry_core.heat.stages import MOST_STAGE_H, USUAL, Doubt, Stage, film_of, wetness_from
from pantry_core.heat.wet import LATENT_J_KG, Film
from pantry_core.meat import Shape

SAMPLE_H = 0.1
LEAST_SAMPLES, MOST_SAMPLES = 12, 60
"""A stage is told every six minutes or so, at least and at most so many times."""
DRY_LOOKS, LOOKS_AT_ONCE = 2, 24
"""When a surface has dried is looked for so often, at so many moments, ever closer together."""
LOOKS = 240
"""So often along a stage the heart is looked at, to find when it first has a temperature."""


@dataclass
class Piece:
    """A piece with its temperatures by layers from the heart to the rim [°C], and its book.

    `dried_kg_m2` is the water that its surface has lost; `taken` the heat that came in, in degrees
    of the whole piece.
    """

    body: Body
    doubt: Doubt
    layers: Vector
    hours: float = 0.0
    dried_kg_m2: float = 0.0
    taken: float = 0.0
    samples: list[tuple[Vector, Vector, Vector]] = field(default_factory=list)
    """By stretches: hours, layers a row a time, surface."""

    @property
    def heart_c(self) -> float:
        """The slowest point [°C]."""
        return float(centre_of(self.layers, self.body.shape))

    @property
    def mean_c(self) -> float:
        """The mean [°C]."""
        return float(shells(self.body.shape).shares @ self.layers)

    @property
    def per_hour(self) -> float:
        """An hour in parts of way² / diffusivity."""
        return 3600.0 * self.body.diffusivity_m2_s * self.doubt.diffusivity / self.body.way_m**2


@dataclass(frozen=True, slots=True)
class Stretch:
    """A time in which the film does not change: its eigenvectors and what the surface feels.

    `inner_part` says how near the surface is to the outermost layer, from 0 to 1.
    """

    film: Film
    system: Modes
    inner_part: float

    def surface(self, outer: Vector) -> Vector:
        """The surface from the outermost layer [°C]."""
        return self.film.outside_c + self.inner_part * (outer - self.film.outside_c)


def begun(body: Body, start_c: float, doubt: Doubt = USUAL) -> Piece:
    """A piece before its first stage, all of it at one temperature."""
    piece = Piece(body, doubt, np.full(LAYERS, start_c))
    now = np.zeros(1)
    piece.samples.append((now, piece.layers[None, :].copy(), np.full(1, start_c)))
    return piece


def go_through(piece: Piece, stage: Stage) -> bool:
    """Take a piece through one stage.

    Returns: whether it came to an end: False where the heart never gets to its temperature, or not
    within 72 h; the piece then stands where it stood.
    """
    left_h = MOST_STAGE_H if stage.hours is None else stage.hours
    before = (piece.hours, piece.layers, piece.dried_kg_m2, piece.taken, len(piece.samples))
    if _is_there(piece, stage):
        return True
    if stage.film is None and not stage.dries:
        piece.dried_kg_m2 = 0.0
    for wetness, dry_at in wetness_from(stage, piece.dried_kg_m2, piece.doubt.drying):
        stretch = _stretch(piece, stage, wetness)
        end_h, is_done = _end_of(piece, stretch, stage, left_h, dry_at)
        if end_h > 0.0:
            _follow(piece, stretch, end_h)
        left_h -= end_h
        if is_done:
            return True
        if left_h <= 1e-12:
            break
    if stage.until_c is None:
        return True
    piece.hours, piece.layers, piece.dried_kg_m2, piece.taken, count = before
    del piece.samples[count:]
    return False


def _is_there(piece: Piece, stage: Stage) -> bool:
    """Whether the heart has its temperature already."""
    if stage.until_c is None:
        return False
    return stage.sign * (piece.heart_c - stage.until_c) >= 0.0


def _stretch(piece: Piece, stage: Stage, wetness: float) -> Stretch:
    body = piece.body
    film = film_of(stage, wetness, piece.doubt)
    biot = film.film * body.way_m / (body.conductivity_w_mk * piece.doubt.diffusivity)
    bare = shells(body.shape).rim_conductance
    inner = 1.0 - rim_conductance(body.shape, biot) / bare
    return Stretch(film, modes(body.shape, HELD, biot), inner)


def _end_of(
    piece: Piece, stretch: Stretch, stage: Stage, left_h: float, most_kg_m2: float | None
) -> tuple[float, bool]:
    """How long a stretch lasts [h], and whether the stage is over with it."""
    end_h, is_done = left_h, stage.until_c is None
    if stage.until_c is not None:
        reached_h = _reached(piece, stretch, stage, end_h)
        if reached_h is not None:
            end_h, is_done = reached_h, True
    if most_kg_m2 is not None:
        dried_h = _dried_after(piece, stretch, most_kg_m2, end_h)
        if dried_h is not None:
            return dried_h, False
    return end_h, is_done


def _reached(piece: Piece, stretch: Stretch, stage: Stage, most_h: float) -> float | None:
    """When the heart has the temperature of a stage, None when not by then [h]."""
    outside, sign, goal_c = stretch.film.outside_c, stage.sign, stage.until_c or 0.0
    heart = stretch.system.course(piece.layers - outside, heart_weights(piece.body.shape))

    def surplus(hours: Vector) -> Vector:
        return sign * (outside + heart.at(hours * piece.per_hour) - goal_c)

    # After a sear the heart may pass a goal and come to rest below it: look along the way.
    times = np.linspace(0.0, most_h, LOOKS + 1)
    there = np.flatnonzero(surplus(times) >= 0.0)
    if not len(there):
        return None
    first = int(there[0])
    return _crossing(surplus, float(times[first - 1]), float(times[first])) if first else 0.0


def _dried_after(
    piece: Piece, stretch: Stretch, most_kg_m2: float, within_h: float
) -> float | None:
    """When the surface has lost so much water, None when not by then [h]."""
    lost = _losing(piece, stretch)
    missing = most_kg_m2 - piece.dried_kg_m2
    low, high = 0.0, within_h
    for _ in range(DRY_LOOKS):
        times = np.linspace(low, high, LOOKS_AT_ONCE)
        over = lost(times) - missing
        there = np.flatnonzero(over >= 0.0)
        if not len(there):
            return None
        first = int(there[0])
        if first == 0:
            return low
        low, high = float(times[first - 1]), float(times[first])
    before, after = float(over[first - 1]), float(over[first])
    return low + (high - low) * -before / (after - before)


def _losing(piece: Piece, stretch: Stretch) -> Callable[[Vector], Vector]:
    """Water that the surface loses by an hour [kg/m²]."""
    film = stretch.film
    weights = np.zeros(LAYERS)
    weights[-1] = 1.0
    outer = stretch.system.course(piece.layers - film.outside_c, weights)
    at_rest = film.air_film * (film.air_c - film.outside_c)
    for_each_degree = (film.film - film.air_film) * stretch.inner_part

    def lost(hours: Vector) -> Vector:
        above = outer.summed(hours * piece.per_hour) / piece.per_hour
        heat = at_rest * hours + for_each_degree * above
        return np.asarray(heat * 3600.0 / LATENT_J_KG.value)

    return lost


def _crossing(of_hours: Callable[[Vector], Vector], low: float, high: float) -> float:
    from scipy.optimize import brentq  # noqa: PLC0415 - it takes 0.3 s to import

    return float(brentq(lambda hours: float(of_hours(np.asarray(hours))), low, high, xtol=1e-7))


def _follow(piece: Piece, stretch: Stretch, hours: float) -> None:
    """Go on for so long; the heat that came in is reckoned by the film, not by the layers."""
    shape, outside = piece.body.shape, stretch.film.outside_c
    count = max(LEAST_SAMPLES, min(MOST_SAMPLES, ceil(hours / SAMPLE_H)))
    times = np.linspace(0.0, hours, 1 + count)[1:]
    levels = piece.layers - outside
    weights = np.zeros(LAYERS)
    weights[-1] = 1.0
    time = hours * piece.per_hour
    summed = float(stretch.system.course(levels, weights).summed(np.asarray(time)))
    through = shells(shape).rim_conductance * (1.0 - stretch.inner_part)
    piece.dried_kg_m2 += float(_losing(piece, stretch)(np.asarray(hours)))
    rows = outside + stretch.system.later(levels, times * piece.per_hour)
    piece.samples.append((piece.hours + times, rows, stretch.surface(rows[:, -1])))
    piece.taken -= through * summed
    piece.hours += hours
    piece.layers = rows[-1]


@lru_cache
def heart_weights(shape: Shape) -> Vector:
    """The heart as a weighted sum of the layers."""
    return np.asarray([float(centre_of(row, shape)) for row in np.eye(LAYERS)])


@dataclass(frozen=True)
class Journey:
    """Temperatures over time: heart, mean and surface [°C], times from the beginning [h]."""

    piece: Piece
    hours: Vector
    heart_c: Vector
    mean_c: Vector
    surface_c: Vector
    ends_h: tuple[float, ...]

    @property
    def balance_error(self) -> float:
        """Heat lost or made, in parts of what the piece took, or of a degree where it is less."""
        first = float(shells(self.piece.body.shape).shares @ self.piece.samples[0][1][0])
        change = self.piece.mean_c - first
        return abs(change - self.piece.taken) / max(abs(change), 1.0)


def followed(
    body: Body, start_c: float, stages: Sequence[Stage], doubt: Doubt = USUAL
) -> Journey | None:
    """Follow the heat through all stages.

    Parameters: body; start_c, all of it at first [°C]; stages; doubt, how piece and fire differ
    from the usual.
    Returns: the temperatures; None where the heart never gets to what a stage goes on until.
    Raises: OutOfRange.
    Source: Fourier's law in layers, a resistance at the surface (Carslaw and Jaeger, Conduction of
    Heat in Solids); a wet surface rests at the wet bulb and dries as it loses water.

    >>> from pantry_core.heat.body import Body
    >>> water = Stage("water", 80.0, until_c=63.0)
    >>> round(followed(Body("slab", 50.0), 4.0, [water]).ends_h[-1], 1)
    1.0
    """
    piece = begun(body, start_c, doubt)
    ends = []
    for stage in stages:
        if not go_through(piece, stage):
            return None
        ends.append(piece.hours)
    hours, layers, surfaces = zip(*piece.samples, strict=True)
    rows = np.concatenate(layers)
    return Journey(
        piece=piece,
        hours=np.concatenate(hours),
        heart_c=rows @ heart_weights(body.shape),
        mean_c=rows @ shells(body.shape).shares,
        surface_c=np.concatenate(surfaces),
        ends_h=tuple(ends),
    )


def stood(body: Body, start_c: float, before: Sequence[Stage], last: Stage) -> float:
    """Where the heart comes to in a stage that never ends [°C].

    Parameters: body; start_c [°C]; before, stages that have an end; last, a stage without one.
    Returns: the heart after 72 h of it.
    Raises: OutOfRange.
    """
    for_long = replace(last, until_c=None, hours=MOST_STAGE_H)
    journey = followed(body, start_c, [*before, for_long])
    return start_c if journey is None else journey.piece.heart_c
