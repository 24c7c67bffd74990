"""What happened to a dish, in order, and the moments that matter."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from pantry_core.heat.media import MediumName
from pantry_core.heat.warm import Kind as MishapKind

What = Literal[
    "weighed", "put-in", "turned", "lifted", "tasted", "touched", "temperature-read",
    "step-started", "step-ended", "mishap", "heat-set", "heat-read",
]  # fmt: skip
Taste = Literal["flat", "right", "salty", "too-salty"]
SECONDS_PER_HOUR = 3600.0


@dataclass(frozen=True, slots=True)
class Happened:
    """Something that happened at a moment; mass [g], temperature [°C], how long [h]."""

    what: What
    at: datetime
    step: str = ""
    mass_g: float | None = None
    temperature_c: float | None = None
    taste: Taste | None = None
    touch: str | None = None
    kind: MishapKind | None = None
    hours: float | None = None
    medium: MediumName | None = None
    covered: bool | None = None
    halved: bool = False


@dataclass(frozen=True, slots=True)
class Log:
    """What happened so far, in order, and the present moment."""

    happened: tuple[Happened, ...]
    now: datetime

    def first(self, what: What, step: str | None = None) -> Happened | None:
        """The first that happened of a kind, of a step if given."""
        return next((each for each in self.all_of(what, step)), None)

    def last(self, what: What, step: str | None = None) -> Happened | None:
        """The last that happened of a kind, of a step if given."""
        return next((each for each in reversed(self.all_of(what, step))), None)

    @property
    def put_in(self) -> datetime | None:
        """When the piece went in."""
        found = self.first("put-in")
        return found.at if found else None

    def taken_out(self, curing_step: str) -> datetime | None:
        """When the piece came out of its cure."""
        found = self.last("step-ended", curing_step) or self.last("lifted")
        return found.at if found else None

    def has_begun(self, step: str) -> bool:
        """Whether a step has started or ended."""
        return bool(self.all_of("step-started", step) or self.all_of("step-ended", step))

    def all_of(self, what: What, step: str | None = None) -> list[Happened]:
        """All that happened of a kind, of a step if given, in order."""
        return [
            each
            for each in self.happened
            if each.what == what and (step is None or each.step == step)
        ]


def log_of(happened: Sequence[Happened], now: datetime) -> Log:
    """A log in order of its moments; what lies ahead is left out."""
    known = (each for each in happened if each.at <= now)
    return Log(tuple(sorted(known, key=lambda each: each.at)), now)


def hours_between(begin: datetime, end: datetime) -> float:
    """Hours from one moment to another [h]."""
    return (end - begin).total_seconds() / SECONDS_PER_HOUR
