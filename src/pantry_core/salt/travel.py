"""Salt on its way through a piece, stage by stage."""

from dataclasses import dataclass, field
from math import ceil
from typing import Literal

import numpy as np

from pantry_core.conduction.shells import (
    CLOSED,
    HELD,
    LAYERS,
    Vector,
    between,
    centre_of,
    modes,
    shells,
    time_to_take,
)
from pantry_core.meat import Meat, Shape
from pantry_core.rules.rule import Mark, Rule
from pantry_core.salt.properties import at_temperature, band_of, pace
from pantry_core.salt.request import (
    SATURATED_G_G,
    Brine,
    Dry,
    Needle,
    Pot,
    Rest,
    SaltRequest,
    Soak,
    Stage,
    Surface,
)

LEAST_SALT_G = 1.0
"""A balance is taken in parts of all salt, or of a gram, where there is less (our choice)."""
OUTER_MM = Rule("outer", 5.0, "mm", "the edge that is tasted", Mark.PRACTICE)
SAMPLE_H = 6.0
MOST_SAMPLES = 60
"""A stage is told every six hours or so, and at most so many times."""


@dataclass(frozen=True, slots=True)
class SaltAnswer:
    """Salt over time, of the meat as it was [%]; times from the first stage's beginning [h]."""

    hours: tuple[float, ...]
    mean_pct: tuple[float, ...]
    heart_pct: tuple[float, ...]
    rim_pct: tuple[float, ...]
    least_pct: tuple[float, ...]
    outside_g_g: float | None
    balance_error: float
    format: Literal["pantry-clock/1"] = "pantry-clock/1"


@dataclass
class Piece:
    """A piece with its salt by layers, and the book that is kept of all salt.

    `layers` are concentrations from the heart to the rim [g salt per g water], `water_g` the water
    in the piece, `way_m` how far the salt goes. `given_g` is all salt that came, `gone_g` what was
    poured or brushed away at a stage's end.
    """

    meat: Meat
    diffusivity_m2_s: float
    water_g: float
    layers: Vector
    temperature_c: float = 4.0
    outside_g_g: float | None = None
    given_g: float = 0.0
    gone_g: float = 0.0
    hours: float = 0.0
    most_samples: int = MOST_SAMPLES
    samples: list[tuple[Vector, Vector, Vector]] = field(default_factory=list)
    """By stages: hours, salt of the meat by layers, a row a time, and at the rim [%]."""

    @property
    def way_m(self) -> float:
        """Half of the thickness, all of it with a closed face: the wait is fourfold [m]."""
        return self.meat.thickness_mm / 1000.0 * (1.0 if self.meat.closed_faces else 0.5)

    @property
    def salt_g(self) -> float:
        """Salt in the piece [g]."""
        return self.water_g * float(shells(self.meat.shape).shares @ self.layers)

    @property
    def imbalance_g(self) -> float:
        """What the book lacks [g]."""
        return self.given_g - self.salt_g - self.gone_g

    def pct(self, concentrations: Vector) -> Vector:
        """Concentrations as salt of the meat as it was [%]."""
        return concentrations * (100.0 * self.water_g / self.meat.salted_g)

    def scaled(self, hours: Vector) -> Vector:
        """Hours in parts of way² / diffusivity."""
        return hours * 3600.0 * self.diffusivity_m2_s / self.way_m**2

    def times(self, hours: float) -> Vector:
        """When a stage of so many hours is told, its end included [h]."""
        count = max(1, min(self.most_samples, ceil(hours / SAMPLE_H)))
        return np.linspace(0.0, hours, 1 + count)[1:]

    def note(self, hours: Vector, layers: Vector, rim_g_g: Vector) -> None:
        """Take samples, hours after the last stage's end, a row and a rim each."""
        self.samples.append((self.hours + hours, self.pct(layers), self.pct(rim_g_g)))

    def note_now(self, rim_g_g: float) -> None:
        """Take a sample at the last stage's end."""
        self.note(np.zeros(1), self.layers[None, :], np.full(1, rim_g_g))


def travel(request: SaltRequest) -> SaltAnswer:
    """Follow the salt through all stages.

    Parameters: request; its fields carry their units and ranges.
    Returns: salt of the meat at the rim, at the heart, in the mean and where it is least [%], each
    stage's end included; `outside_g_g` at the end, None when nothing is outside; `balance_error`,
    salt lost or made in parts of all salt, or of a gram where there is less.
    Raises: nothing for a request that could be made.
    Source: Fick's second law in the water of the meat; Crank, The Mathematics of Diffusion. A
    needle spreads its pickle over the inner half of the thickness, its water over the piece.

    >>> from pantry_core.salt.request import SaltRequest
    >>> answer = travel(SaltRequest.model_validate({
    ...     "meat": {"kind": "pork", "mass_g": 1000, "thickness_mm": 40, "shape": "slab"},
    ...     "stages": [{"kind": "surface", "hours": 168, "water_phase_g_g": 0.03}]}))
    >>> round(answer.heart_pct[-1] / (0.03 * 74), 3)
    0.499
    """
    journey = followed(request)
    return SaltAnswer(
        hours=tuple(journey.hours),
        mean_pct=_listed(journey.mean_pct),
        heart_pct=_listed(journey.heart_pct),
        rim_pct=_listed(journey.rim_pct),
        least_pct=_listed(np.minimum(journey.heart_pct, journey.layers_pct.min(axis=1))),
        outside_g_g=journey.piece.outside_g_g,
        balance_error=abs(journey.piece.imbalance_g) / max(journey.piece.given_g, LEAST_SALT_G),
    )


@dataclass(frozen=True)
class Journey:
    """What `travel` tells, and the salt of every layer from heart to rim, a row a time [%]."""

    piece: Piece
    hours: list[float]
    layers_pct: Vector
    mean_pct: Vector
    heart_pct: Vector
    rim_pct: Vector

    @property
    def outer_pct(self) -> Vector:
        """The average of the outer 5 mm, of a thinner piece all of it, at each time [%]."""
        depth = min(OUTER_MM.value / 1000.0 / self.piece.way_m, 1.0)
        shape = self.piece.meat.shape
        weights = shells(shape).shares * between(shape, 1.0 - depth, 1.0)
        return np.asarray(self.layers_pct @ weights / weights.sum())

    def rings_pct(self, count: int) -> Vector:
        """Salt in so many rings of equal depth, from heart to rim, a row a time [%]."""
        middles = shells(self.piece.meat.shape).middles
        depths = (np.arange(count) + 0.5) / count
        right = np.clip(np.searchsorted(middles, depths), 1, LAYERS - 1)
        part = (depths - middles[right - 1]) / (middles[right] - middles[right - 1])
        inner, outer = self.layers_pct[:, right - 1], self.layers_pct[:, right]
        return np.asarray(np.maximum(inner + part * (outer - inner), 0.0))


def followed(request: SaltRequest, *, most_samples: int = MOST_SAMPLES) -> Journey:
    """Follow the salt through all stages and keep what lies in each layer.

    Parameters and errors as in `travel`; most_samples of a stage, its end being the last.
    """
    piece = begun(request)
    piece.most_samples = most_samples
    for stage in request.stages:
        go_through(piece, stage)
    hours, layers, rims = zip(*piece.samples, strict=True)
    layers_pct = np.concatenate(layers)
    shape = request.meat.shape
    return Journey(
        piece=piece,
        hours=np.concatenate(hours).tolist(),
        layers_pct=layers_pct,
        mean_pct=layers_pct @ shells(shape).shares,
        heart_pct=hearts_of(layers_pct, shape),
        rim_pct=np.concatenate(rims),
    )


@dataclass(frozen=True, slots=True)
class End:
    """Salt of the meat when all stages are over [%]; `outer_pct` is that of the outer 5 mm."""

    mean_pct: float
    heart_pct: float
    rim_pct: float
    least_pct: float
    outer_pct: float


def ended(request: SaltRequest) -> End:
    """Follow the salt and tell the end alone, for those who ask often.

    Parameters and errors as in `travel`.
    """
    journey = followed(request, most_samples=1)
    heart = float(journey.heart_pct[-1])
    return End(
        mean_pct=float(journey.mean_pct[-1]),
        heart_pct=heart,
        rim_pct=float(journey.rim_pct[-1]),
        least_pct=min(heart, float(journey.layers_pct[-1].min())),
        outer_pct=float(journey.outer_pct[-1]),
    )


def begun(request: SaltRequest) -> Piece:
    """The piece before its first stage, its diffusivity as given or by kind and temperature."""
    meat = request.meat
    diffusivity = request.diffusivity_m2_s or at_temperature(
        band_of(meat.kind).usual.value, request.temperature_c
    )
    start_g_g = request.start_pct / 100.0 / meat.water_g_g
    water_g = meat.water_g_g * meat.salted_g
    piece = Piece(
        meat, diffusivity, water_g, np.full(LAYERS, start_g_g), request.temperature_c
    )  # fmt: skip
    piece.given_g = piece.salt_g
    piece.note_now(start_g_g)
    return piece


def go_through(piece: Piece, stage: Stage) -> None:
    """Take a piece through one stage."""
    match stage:
        case Surface():
            _held(piece, stage.hours, stage.water_phase_g_g)
            piece.outside_g_g = stage.water_phase_g_g
        case Brine():
            piece.given_g += stage.salt_g
            _bathed(piece, stage.hours, stage.water_g, stage.salt_g)
        case Pot():
            piece.given_g += stage.salt_g
            _simmered(piece, stage)
        case Soak():
            for _ in range(stage.changes + 1):
                _bathed(piece, stage.hours / (stage.changes + 1), stage.water_g, 0.0)
        case Dry():
            _dry(piece, stage)
        case Needle():
            _needle(piece, stage)
        case Rest():
            _closed(piece, stage.hours)


def hearts_of(concentrations: Vector, shape: Shape) -> Vector:
    """Concentrations at the very heart, from the two innermost layers, as a parabola."""
    return np.asarray(np.maximum(centre_of(concentrations, shape), 0.0))


def _closed(piece: Piece, hours: float) -> None:
    times = piece.times(hours)
    rows = modes(piece.meat.shape, CLOSED).later(piece.layers, piece.scaled(times))
    piece.note(times, rows, rows[:, -1])
    _ended(piece, hours, rows[-1], None)


def _held(piece: Piece, hours: float, rim_g_g: float) -> None:
    """The rim is held; what the layers gain has come from outside."""
    before = piece.salt_g
    times = piece.times(hours)
    rows = rim_g_g + modes(piece.meat.shape, HELD).later(
        piece.layers - rim_g_g, piece.scaled(times)
    )
    piece.note(times, rows, np.full(len(times), rim_g_g))
    _ended(piece, hours, rows[-1], None)
    piece.given_g += piece.salt_g - before


def _bathed(piece: Piece, hours: float, water_g: float, salt_g: float) -> None:
    """A bath of its own water; what is left in it is poured away."""
    times = piece.times(hours)
    state = np.append(piece.layers, salt_g / water_g)
    rows = modes(piece.meat.shape, water_g / piece.water_g).later(state, piece.scaled(times))
    piece.note(times, rows[:, :-1], rows[:, -1])
    left_g_g = float(rows[-1][-1])
    _ended(piece, hours, rows[-1][:-1], left_g_g)
    piece.gone_g += left_g_g * water_g


def _simmered(piece: Piece, stage: Pot) -> None:
    """A bath in which the salt moves as fast as its heat lets it."""
    cold = piece.diffusivity_m2_s
    piece.diffusivity_m2_s = cold * pace(stage.temperature_c) / pace(piece.temperature_c)
    _bathed(piece, stage.hours, stage.water_g, stage.salt_g)
    piece.diffusivity_m2_s = cold


def _dry(piece: Piece, stage: Dry) -> None:
    """Salt dissolves at the rim until it is used up; what is left at the end is brushed off."""
    before, layers_before = piece.given_g, piece.layers
    used_up_h = used_up_after(piece, stage.salt_g)
    if used_up_h > 0:
        _held(piece, min(used_up_h, stage.hours), SATURATED_G_G)
    taken_g = piece.given_g - before
    piece.given_g = before + stage.salt_g
    if used_up_h < stage.hours:
        if taken_g > 0:  # the hour is known to a rounding, the salt exactly
            gained = piece.layers - layers_before
            piece.layers = layers_before + gained * (stage.salt_g / taken_g)
        _closed(piece, stage.hours - used_up_h)
    else:
        piece.gone_g += stage.salt_g - taken_g
        piece.outside_g_g = SATURATED_G_G


def used_up_after(piece: Piece, salt_g: float) -> float:
    """When so much dry salt has gone in, infinite when the piece cannot take it all [h]."""
    if salt_g == 0:
        return 0.0
    scaled = time_to_take(piece.meat.shape, piece.layers - SATURATED_G_G, salt_g / piece.water_g)
    return scaled / float(piece.scaled(np.asarray(1.0)))


def _needle(piece: Piece, stage: Needle) -> None:
    """Pickle over the inner half of the thickness; its water swells all of the piece alike."""
    pickle_g = stage.share * piece.meat.salted_g
    salt_g = pickle_g * stage.salt_pct / 100.0
    low, high = (0.25, 0.75) if piece.meat.closed_faces else (0.0, 0.5)
    inner = between(piece.meat.shape, low, high)
    swollen_g = piece.water_g + pickle_g - salt_g
    piece.layers = piece.layers * (piece.water_g / swollen_g)
    piece.layers = piece.layers + inner * salt_g / (
        swollen_g * float(shells(piece.meat.shape).shares @ inner)
    )
    piece.water_g = swollen_g
    piece.given_g += salt_g
    piece.outside_g_g = None
    piece.note_now(float(piece.layers[-1]))


def _ended(piece: Piece, hours: float, layers: Vector, outside_g_g: float | None) -> None:
    piece.hours += hours
    piece.layers = layers
    piece.outside_g_g = outside_g_g


def _listed(values: Vector) -> tuple[float, ...]:
    return tuple(float(value) for value in values)
