"""What a rule is."""

from dataclasses import dataclass
from enum import StrEnum

from pantry_core.text import say


class Mark(StrEnum):
    """How far a number can be trusted."""

    SOURCE = "looked up"
    MEMORY = "source not yet checked"
    PRACTICE = "common practice"
    DERIVED = "derived"
    DEFINED = "by definition"


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
