"""What a rule is."""

from dataclasses import dataclass
from enum import StrEnum

from pantry_core.text import say


class Mark(StrEnum):
    """How far a number can be trusted."""

    SOURCE = "looked up"
    MEMORY = "from memory, not looked up"
    PRACTICE = "common practice"
    DERIVED = "derived"
    DEFINED = "by definition"


LOOKED_UP_ON = "2026-12-01"
"""When the figures that are marked as looked up were taken over."""


@dataclass(frozen=True, slots=True)
class Source:
    """Where a statement is from, and how far the source was followed."""

    source: str
    mark: Mark

    @property
    def basis(self) -> str:
        """The source as a cook reads it, its mark included."""
        if not self.source:
            return str(self.mark)
        if self.mark is Mark.SOURCE:
            return say("{source} (looked up on {day})", source=self.source, day=LOOKED_UP_ON)
        return say("{source} ({mark})", source=self.source, mark=str(self.mark))


@dataclass(frozen=True, slots=True)
class Rule:
    """One number of the trade: value in `unit`, where it is from, and its mark."""

    id: str
    value: float
    unit: str
    source: str
    mark: Mark

    @property
    def basis(self) -> str:
        """The source as a cook reads it, its mark included."""
        return Source(self.source, self.mark).basis
