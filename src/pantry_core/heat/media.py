"""What a piece is heated or cooled in: how readily each gives its heat, and how moist it is."""

from dataclasses import dataclass
from typing import Final, Literal

from pantry_core.quantities import Between, Celsius
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import Sentence, say

MediumName = Literal[
    "oven", "fan-oven", "smoker", "coals", "pan", "water", "steam", "pressure", "fat", "air",
    "ice-bath", "fridge",
]  # fmt: skip
Surface = Literal["drying", "boiling", "wet"]
"""What a surface does: it dries in moving air; boils dry in fat or pan; stays under water."""

_FILM = "surface heat transfer, loosely"


@dataclass(frozen=True, slots=True)
class Medium:
    """A medium: its film [W/m²K] with its band, its temperatures [°C], its moisture.

    `humidity_pct` is water vapour in parts of what the air can hold, of air above 100 °C in parts
    of all of it. `share` is the part of the film that works: a pan heats one face at a time.
    """

    name: MediumName
    words: str
    film: Rule
    film_low: Rule
    film_high: Rule
    least_c: float
    most_c: float
    surface: Surface
    humidity_pct: float = 100.0
    share: float = 1.0

    @property
    def cools(self) -> bool:
        """Whether a piece from the heat grows cold in it."""
        return self.name in ("air", "ice-bath", "fridge")


def _medium(
    name: MediumName,
    words: str,
    film: tuple[float, float, float],
    range_c: tuple[float, float],
    surface: Surface,
    *,
    humidity_pct: float = 100.0,
    share: float = 1.0,
) -> Medium:
    def rule(which: str, value: float) -> Rule:
        return Rule(f"film-{name}-{which}", value, "W/m²K", _FILM, Mark.MEMORY)

    low, usual, high = film
    return Medium(
        name, words, rule("usual", usual), rule("low", low), rule("high", high), *range_c, surface,
        humidity_pct, share,
    )  # fmt: skip


MEDIA: Final[dict[MediumName, Medium]] = {
    each.name: each
    for each in (
        _medium("oven", "an oven", (15, 20, 25), (40, 320), "drying", humidity_pct=10),
        _medium("fan-oven", "a fan oven", (25, 35, 45), (40, 320), "drying", humidity_pct=7),
        _medium("smoker", "a smoker", (10, 15, 20), (5, 180), "drying",
                humidity_pct=25),
        _medium("coals", "the heat of coals", (40, 70, 100), (80, 600), "drying", humidity_pct=3),
        _medium("pan", "a pan", (200, 400, 600), (80, 350), "boiling", share=0.5),
        _medium("water", "a pot", (500, 1000, 2000), (1, 102), "wet"),
        _medium("steam", "steam", (1000, 1500, 3000), (80, 102), "wet"),
        _medium("pressure", "a pressure pot", (1000, 1500, 3000), (100, 130), "wet"),
        _medium("fat", "fat", (250, 400, 600), (40, 230), "boiling"),
        _medium("air", "room air", (5, 7.5, 10), (-45, 60), "drying", humidity_pct=50),
        _medium("ice-bath", "an ice bath", (200, 400, 600), (-2, 12), "wet"),
        _medium("fridge", "a fridge", (5, 7.5, 10), (-5, 15), "drying", humidity_pct=75),
    )
}  # fmt: skip
"""Film: literature, loosely, from memory. Moisture, and one face of a pan: common practice."""


def medium_range(medium: Medium, medium_c: float) -> Sentence:
    """What is said of a temperature that a medium has not [°C]."""
    return say(
        "{words} is not at {medium_c}; use {between}",
        words=medium.words,
        medium_c=Celsius(medium_c),
        between=Between(Celsius(medium.least_c), Celsius(medium.most_c)),
    )
