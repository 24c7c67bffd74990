"""What a weigh-out answers: the result of `weigh`."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.mixes.nitrite import Verdict
from pantry_core.notice import Notice
from pantry_core.rules.constants import NITRITE_IN_CURE_1


@dataclass(frozen=True, slots=True)
class Line:
    """One thing to weigh [g]."""

    name: str
    grams: float


@dataclass(frozen=True, slots=True)
class Pickle:
    """All of the liquid: mass [g], salt by weight [%], degrees, density without sugar [g/ml]."""

    mass_g: float
    salt_pct: float
    salometer_deg: float
    density_g_ml: float | None


@dataclass(frozen=True, slots=True)
class Salt:
    """Salt by convention, of the meat as it was, and in its water when even [%]."""

    target_pct: float
    in_meat_pct: float
    water_phase_pct: float


@dataclass(frozen=True, slots=True)
class Nitrite:
    """Ingoing sodium nitrite by each count that applies, and its limit [mg/kg]."""

    even_ppm: float | None
    pickup_ppm: float | None
    needle_ppm: float | None
    dry_ppm: float | None
    limit_ppm: float
    verdict: Verdict

    @property
    def governing_ppm(self) -> float:
        """The count that is held against the limit [mg/kg]."""
        counts = (self.even_ppm, self.needle_ppm, self.dry_ppm)
        return max(count for count in counts if count is not None)


@dataclass(frozen=True, slots=True)
class Nitrate:
    """Ingoing nitrate and its limit, where there is one [mg/kg]."""

    ppm: float
    limit_ppm: float | None
    verdict: Verdict


@dataclass(frozen=True, slots=True)
class Ready:
    """How long it takes, by the model and its band [d]; `lift_h` where it must be lifted [h]."""

    days: float
    even_days: float
    days_low: float
    days_high: float
    lift_h: float | None = None


@dataclass(frozen=True, slots=True)
class WeighOut:
    """The weigh-out sheet."""

    lines: tuple[Line, ...]
    pickle: Pickle | None
    salt: Salt
    nitrite: Nitrite
    nitrate: Nitrate
    needle_g: float | None
    ready: Ready | None
    notices: tuple[Notice, ...]
    format: Literal["pantry-clock/1"] = "pantry-clock/1"

    def grams(self, name: str) -> float:
        """Grams of the line with this name, 0 when there is none [g]."""
        return sum(line.grams for line in self.lines if line.name == name)

    @property
    def all_salt_g(self) -> float:
        """All sodium chloride, that of the curing salt included [g]."""
        return self.grams("salt") + self.grams("curing-salt") * (1.0 - NITRITE_IN_CURE_1.value)

    @property
    def stops(self) -> tuple[Notice, ...]:
        """The notices that cannot be passed."""
        return tuple(each for each in self.notices if each.level == "stop")
