"""What a cook must know beside the numbers."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.rules.rule import Rule, Source
from pantry_core.text import Sentence

Level = Literal["stop", "caution", "note"]


@dataclass(frozen=True, slots=True)
class Notice:
    """Something the cook must know; a stop cannot be passed."""

    level: Level
    code: str
    text: Sentence
    basis: Sentence


def notice(level: Level, code: str, text: str, rule: Rule | Source) -> Notice:
    """A notice that names its rule as its basis."""
    return Notice(level, code, text, rule.basis)
