"""What a weigh-out answers: the result of `weigh`."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.mixes.nitrite import Counts, Verdict
from pantry_core.notice import Notice
from pantry_core.text import Sentence


@dataclass(frozen=True, slots=True)
class Line:
    """One thing to weigh [g]."""

    name: str
    grams: float


SATURATED_DEG = 100.0
"""Water holds no more salt than this on the salometer, by its definition."""


@dataclass(frozen=True, slots=True)
class Pickle:
    """All of the liquid: mass [g], salt by weight [%], degrees, density without sugar [g/ml]."""

    mass_g: float
    salt_pct: float
    salometer_deg: float | None
    density_g_ml: float | None

    @property
    def is_a_brine(self) -> bool:
        """Whether its water holds the salt: a paste with a little vinegar has no strength."""
        return self.salometer_deg is not None and self.salometer_deg <= SATURATED_DEG


@dataclass(frozen=True, slots=True)
class Salt:
    """Salt by convention, of the meat as it was, and in its water when even [%]."""

    target_pct: float
    in_meat_pct: float
    water_phase_pct: float


@dataclass(frozen=True, slots=True)
class Nitrite:
    """Ingoing sodium nitrite by each count that applies, and its limit [mg/kg].

    `taken_up_ppm` is what a timed brine has brought in when the piece is lifted, of anything else
    all of it. Where the verdict is unknown the counts are what is known: more than that goes in.
    """

    even_ppm: float | None
    pickup_ppm: float | None
    needle_ppm: float | None
    dry_ppm: float | None
    limit_ppm: float
    verdict: Verdict
    taken_up_ppm: float | None = None

    @property
    def counts(self) -> Counts:
        """Its counts."""
        return Counts(self.even_ppm, self.pickup_ppm, self.needle_ppm, self.dry_ppm)

    @property
    def governing_ppm(self) -> float | None:
        """The count that is held against the limit, None where a strength is unknown [mg/kg]."""
        return None if self.verdict == "unknown" else self.counts.governing


@dataclass(frozen=True, slots=True)
class Nitrate:
    """Ingoing nitrate by the count that governs, and its limit, 0 where none may be in [mg/kg]."""

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
class Figures:
    """What a proposal is weighed by: salt of the meat [%], nitrite by the governing count [mg/kg].

    None where there is nothing to say.
    """

    mean_pct: float | None
    rim_pct: float | None
    heart_pct: float | None
    nitrite_ppm: float | None


@dataclass(frozen=True, slots=True)
class Proposal:
    """One thing that could be changed: the smallest change that answers it, before and after.

    `changes` are {`line`, any of its fields}, {`add`: a line} or {`field`, `value`} of the
    document; `lifts` the codes of the notices that are gone with it.
    """

    code: str
    text: Sentence
    changes: tuple[dict[str, object], ...]
    before: Figures
    after: Figures
    lifts: tuple[str, ...]


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
    inside_c: float | None = None
    format: Literal["pantry-clock/1"] = "pantry-clock/1"

    def grams(self, name: str) -> float:
        """Grams of the line with this name, 0 when there is none [g]."""
        return sum(line.grams for line in self.lines if line.name == name)

    @property
    def stops(self) -> tuple[Notice, ...]:
        """The notices that cannot be passed."""
        return tuple(each for each in self.notices if each.level == "stop")
