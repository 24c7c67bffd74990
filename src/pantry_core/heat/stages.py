"""The stages at the heat, and what a surface feels in each: its film, and how it dries."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import log, sqrt
from typing import Final

from pantry_core.heat.media import MEDIA, MediumName
from pantry_core.heat.wet import BOILING_C, Film, wet_film
from pantry_core.rules.rule import Mark, Rule

MOST_STAGE_H = 72.0


def _dries(name: str, kg_m2: float, set_by: str) -> Rule:
    why = f"water lost until the surface is e times less wet, set by {set_by}"
    return Rule(name, kg_m2, "kg/m²", why, Mark.PRACTICE)


DRIES: Final = _dries("dries-by", 0.5, "roasting charts")
SMOKED: Final = _dries("dries-by-in-smoke", 1.15, "the hours of briskets")
"""How much water a surface loses as it dries: in the smoke juice comes after, and it dries late."""
LEAST_WET, LEAST_WET_IN_SMOKE = 0.03, 0.01
"""A surface is never drier, for water comes after from inside (our own choice)."""
LESS_WET: Final = 0.7
"""Wetness falls in steps, each so many times the one before."""


@dataclass(frozen=True, slots=True)
class Stage:
    """One stage: medium, its temperature [°C], so long [h] or until the heart has a temperature.

    `film` [W/m²K] is used as it is, the surface being dry; None: by the medium. `is_dried`: the
    surface was dried before, as fish is before it is smoked.
    """

    medium: MediumName
    temperature_c: float
    hours: float | None = None
    until_c: float | None = None
    humidity_pct: float | None = None
    covered: bool = False
    film: float | None = None
    is_dried: bool = False

    @property
    def dries(self) -> bool:
        """Whether the surface gives off water: not under it, not covered, not as it is given."""
        is_wet = MEDIA[self.medium].surface == "wet"
        return self.film is None and not self.covered and not is_wet

    @property
    def sign(self) -> float:
        """1 where the heart is to rise, -1 where it is to fall."""
        return -1.0 if MEDIA[self.medium].cools else 1.0


@dataclass(frozen=True, slots=True)
class Doubt:
    """How the piece and its fire differ from the usual, as factors.

    Of diffusivity, film, how much water it takes to dry the surface, and how moist the air is.
    """

    diffusivity: float = 1.0
    film: float = 1.0
    drying: float = 1.0
    moisture: float = 1.0


USUAL = Doubt()


def film_of(stage: Stage, wetness: float, doubt: Doubt = USUAL) -> Film:
    """What a surface feels in a stage.

    Parameters: stage; wetness from 0 to 1; doubt, factors on the film and moisture of the medium.
    Returns: the film; as given where the stage has one. In a closed pot or wrap nothing
    evaporates, and it is no hotter than boiling water.
    Raises: OutOfRange.
    Source: `media`, `wet`.
    """
    if stage.film is not None:
        return Film(stage.temperature_c, stage.film, stage.temperature_c, stage.film)
    medium = MEDIA[stage.medium]
    dry = medium.film.value * medium.share * doubt.film
    if medium.surface == "wet":
        return Film(stage.temperature_c, dry, stage.temperature_c, dry)
    if stage.covered:
        inside_c = min(stage.temperature_c, BOILING_C)
        return Film(inside_c, dry, inside_c, dry)
    usual = medium.humidity_pct if stage.humidity_pct is None else stage.humidity_pct
    humidity = min(usual * doubt.moisture, 100.0)
    if medium.surface == "boiling" and stage.temperature_c <= BOILING_C:
        return Film(stage.temperature_c, dry, stage.temperature_c, dry)
    return wet_film(stage.temperature_c, dry, humidity, wetness)


def wetness_from(
    stage: Stage, dried_kg_m2: float, drying: float
) -> Iterator[tuple[float, float | None]]:
    """The wetness that a surface has, and then has, and the water it has lost at each end.

    Parameters: stage; dried_kg_m2 so far; drying, how much slower than usual it dries [-].
    """
    if not stage.dries:
        yield 0.0, None
        return
    if stage.is_dried:
        yield LEAST_WET, None
        return
    yield from _falling(dried_kg_m2, drying, is_smoke=stage.medium == "smoker")


def _falling(
    dried_kg_m2: float, drying: float, *, is_smoke: bool
) -> Iterator[tuple[float, float | None]]:
    """Wetness step by step, each until the smooth fall is half way to the next one."""
    least = LEAST_WET_IN_SMOKE if is_smoke else LEAST_WET
    by_kg_m2 = drying * (SMOKED if is_smoke else DRIES).value
    wetness = 1.0
    while wetness > least:
        most = -by_kg_m2 * log(wetness * sqrt(LESS_WET))
        if dried_kg_m2 < most:
            yield wetness, most
        wetness *= LESS_WET
    yield least, None
