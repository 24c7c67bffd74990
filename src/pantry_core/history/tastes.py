"""What a slice that was tasted asks for, and what a weight says."""

from collections.abc import Sequence
from dataclasses import dataclass

from pantry_core.errors import within
from pantry_core.history.log import Taste
from pantry_core.meat import Meat
from pantry_core.routes.ways import Group
from pantry_core.rules.rule import Mark, Rule
from pantry_core.salt.advice import SoakAdvice, soak_to
from pantry_core.salt.request import SaltRequest, Stage
from pantry_core.salt.travel import ended

SALTY_LESS = Rule("salty-less", 0.80, "of the salt stays", "a salty slice", Mark.PRACTICE)
TOO_SALTY_LESS = Rule("too-salty-less", 0.65, "of the salt stays", "too salty", Mark.PRACTICE)
SOAK_WATER = Rule("soak-water", 2.0, "times the meat", "fresh water for a soak", Mark.PRACTICE)
SOAK_CHANGES = 2
"""How often the water of a soak is changed (common practice)."""
LONG_SOAK_H = Rule("long-soak", 24.0, "h", "longer than cooks soak", Mark.PRACTICE)
USUAL_CHANGE_PCT: dict[Group, tuple[float, float]] = {
    "Brine": (1.0, 10.0), "Dry": (-8.0, -0.5), "Needle": (2.0, 15.0), "Marinade": (-5.0, 5.0),
    "Side": (-30.0, 5.0),
}  # fmt: skip
"""Gain or loss of weight by the time it comes out [%] (common practice)."""


@dataclass(frozen=True, slots=True)
class TasteAnswer:
    """What a tasting asks for: a soak, or none, and the water for it [g]."""

    taste: Taste
    soak: SoakAdvice | None
    soak_water_g: float

    @property
    def is_long(self) -> bool:
        """Whether the soak is longer than cooks soak."""
        return self.soak is not None and self.soak.hours > LONG_SOAK_H.value


@dataclass(frozen=True, slots=True)
class WeighIn:
    """A weight against that which went in, and what is usual by the end [%]."""

    change_pct: float
    low_pct: float
    high_pct: float

    @property
    def is_usual(self) -> bool:
        """Whether the change is as is usual."""
        return self.low_pct <= self.change_pct <= self.high_pct

    @property
    def change(self) -> float:
        """The change without its sign [%]."""
        return abs(self.change_pct)


def answer_to(taste: Taste, meat: Meat, stages: Sequence[Stage]) -> TasteAnswer:
    """What a slice that tasted so asks for.

    Parameters: taste; meat; stages that it went through.
    Returns: of a salty one a soak to 80 % of its salt, of a too salty one to 65 %; else none.
    Raises: OutOfRange.
    Source: common practice, on the model of `salt.travel`.
    """
    water_g = SOAK_WATER.value * meat.mass_g
    less = {"salty": SALTY_LESS, "too-salty": TOO_SALTY_LESS}.get(taste)
    if less is None:
        return TasteAnswer(taste, None, water_g)
    mean_pct = ended(SaltRequest(meat=meat, stages=tuple(stages))).mean_pct
    soak = soak_to(meat, tuple(stages), less.value * mean_pct, water_g, SOAK_CHANGES)
    return TasteAnswer(taste, soak, water_g)


def weighed_in(before_g: float, after_g: float, group: Group) -> WeighIn:
    """A weight against the one that went in.

    Parameters: before_g and after_g [g], above 0; group of the method.
    Returns: the change and what is usual [%].
    Raises: OutOfRange.

    >>> weighed_in(2000.0, 2100.0, "Brine").is_usual
    True
    """
    within("before_g", before_g, 1e-6, 1e6, "g")
    within("after_g", after_g, 1e-6, 1e6, "g")
    return WeighIn(100.0 * (after_g / before_g - 1.0), *USUAL_CHANGE_PCT[group])
