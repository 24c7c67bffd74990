"""What a weigh-out answers: the result of `weigh`."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.mixes.nitrite import Verdict
from pantry_core.notice import Notice


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
    salometer_deg: float | None
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
    def governing_ppm(self) -> float | None:
        """The count that is held against the limit, None where the strength is unknown [mg/kg].

        With needle and cover each count must be within: the needle's and pick-up's sum as well.
        """
        if self.verdict == "unknown":
            return None
        needle = self.needle_ppm
        if needle is not None and self.pickup_ppm is not None:
            needle += self.pickup_ppm
        counts = [each for each in (self.even_ppm, needle, self.dry_ppm) if each is not None]
        return max(counts, default=None)


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
    def stops(self) -> tuple[Notice, ...]:
        """The notices that cannot be passed."""
        return tuple(each for each in self.notices if each.level == "stop")
