"""Readings of a device as they come: what cannot be is left out, and said.

A reading stands against the last one that was believed. What jumps is held until those after it
agree, so that one spark of the wire changes nothing and a probe that was really moved is followed.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Final, Literal

from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import Text, say

What = Literal["meat", "fire", "fridge"]
Code = Literal["future", "twice", "old", "range", "fahrenheit", "jump"]


def _ours(name: str, value: float, unit: str, why: str) -> Rule:
    return Rule(name, value, unit, why, Mark.PRACTICE)


AHEAD_S: Final = _ours("reading-ahead-of-clock", 60.0, "s", "clocks of devices differ")
OLD_S: Final = _ours("reading-too-old", 12 * 3600.0, "s", "nothing is done by it any more")
AGREE_C: Final = _ours("readings-agree", 3.0, "°C", "of what jumped, with each other")
AGREE_N: Final = 3
"""So many readings that agree are believed, however far they jumped (our own choice)."""
JUMP_C: Final = _ours("reading-jump", 4.0, "°C", "what a wire may be off by")
PER_MIN: Final[dict[What, Rule]] = {
    "meat": _ours("meat-rise", 4.0, "°C/min", "no thickest part is quicker"),
    "fire": _ours("fire-rise", 60.0, "°C/min", "a lid is lifted"),
    "fridge": _ours("fridge-rise", 4.0, "°C/min", "a door is open"),
}
RANGE: Final[dict[What, tuple[float, float]]] = {
    "meat": (-30.0, 120.0), "fire": (-30.0, 450.0), "fridge": (-40.0, 60.0),
}  # fmt: skip
"""What can be read in each place [°C] (our own choice)."""
WHY: Final[dict[Code, Text]] = {
    "future": say("It is from the future: the device's clock is ahead."),
    "twice": say("It came twice."),
    "old": say("It is more than twelve hours old."),
    "range": say("That cannot be read there."),
    "fahrenheit": say("It looks like °F; say so, or the device is set to it."),
    "jump": say("It jumped, and nothing after it agrees."),
}


@dataclass(frozen=True, slots=True, order=True)
class Sample:
    """A temperature at a moment [s since some moment, °C]."""

    at_s: float
    celsius: float


@dataclass(frozen=True, slots=True)
class LeftOut:
    """A reading that is not believed, and why."""

    sample: Sample
    code: Code

    @property
    def why(self) -> Text:
        """Why, as a sentence."""
        return WHY[self.code]


@dataclass
class Sieve:
    """What was believed of a channel so far, and what waits to be confirmed.

    `last` is the latest that was believed, `waiting` those after it that jumped.
    """

    what: What
    last: Sample | None = None
    waiting: list[Sample] = field(default_factory=list)
    seen: set[float] = field(default_factory=set)

    def sift(self, samples: Iterable[Sample], now_s: float) -> tuple[list[Sample], list[LeftOut]]:
        """Take readings in, in the order of their hours.

        Parameters: samples, in any order; now_s, the present moment.
        Returns: those that are believed, earlier ones that were confirmed among them, and those
        that are left out. A reading that came late is believed where it fits between its time's.
        Raises: nothing.

        >>> sieve = Sieve("meat", Sample(0.0, 50.0))
        >>> kept, out = sieve.sift([Sample(60.0, 51.0), Sample(65.0, 124.0)], 70.0)
        >>> kept, [each.code for each in out]
        ([Sample(at_s=60.0, celsius=51.0)], ['fahrenheit'])
        """
        kept: list[Sample] = []
        out: list[LeftOut] = []
        for sample in sorted(samples):
            code = self._impossible(sample, now_s)
            if code is not None:
                out.append(LeftOut(sample, code))
                continue
            self.seen.add(sample.at_s)
            if self._fits(sample):
                out.extend(LeftOut(each, "jump") for each in self.waiting)
                self.waiting.clear()
                self._believe([sample], kept)
            else:
                self.waiting.append(sample)
                self._confirm(kept, out)
        return kept, out

    def _impossible(self, sample: Sample, now_s: float) -> Code | None:
        low, high = RANGE[self.what]
        if sample.at_s > now_s + AHEAD_S.value:
            return "future"
        if sample.at_s < now_s - OLD_S.value:
            return "old"
        if self._is_fahrenheit(sample.celsius):
            return "fahrenheit"
        if not low <= sample.celsius <= high:
            return "range"
        return "twice" if sample.at_s in self.seen else None

    def _is_fahrenheit(self, read: float) -> bool:
        """Whether it is where the last one was, if it is taken for °F, and nowhere near as °C."""
        if self.last is None:
            return False
        as_celsius = (read - 32.0) / 1.8
        is_near = abs(as_celsius - self.last.celsius) <= AGREE_C.value
        return is_near and abs(read - self.last.celsius) > 4.0 * AGREE_C.value

    def _fits(self, sample: Sample) -> bool:
        if self.last is None:
            return True
        minutes = abs(sample.at_s - self.last.at_s) / 60.0
        allowed = JUMP_C.value + PER_MIN[self.what].value * minutes
        return abs(sample.celsius - self.last.celsius) <= allowed

    def _confirm(self, kept: list[Sample], out: list[LeftOut]) -> None:
        """Believe what jumped once so many in a row agree; what stood alone before them is not."""
        agreeing = [
            each for each in self.waiting
            if abs(each.celsius - self.waiting[-1].celsius) <= AGREE_C.value
        ]  # fmt: skip
        if len(agreeing) >= AGREE_N:
            out.extend(LeftOut(each, "jump") for each in self.waiting if each not in agreeing)
            self.waiting.clear()
            self._believe(agreeing, kept)

    def _believe(self, samples: Sequence[Sample], kept: list[Sample]) -> None:
        kept.extend(samples)
        self.last = max([*samples, *([self.last] if self.last else [])])
