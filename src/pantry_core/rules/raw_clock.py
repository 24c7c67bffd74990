"""How long a raw piece may be kept, curing included."""

from dataclasses import dataclass

from pantry_core.rules.constants import COLD_STORAGE
from pantry_core.rules.rule import Mark, Rule


@dataclass(frozen=True, slots=True)
class RawLimits:
    """Days from purchase, or from the end of thawing, to the heat [d]."""

    caution: Rule
    stop: Rule


def _days(name: str, days: float, source: str, mark: Mark) -> Rule:
    return Rule(f"raw-{name}", days, "days raw", source, mark)


_OWN = "the same advice, stretched for the salt"

BIRD_OR_FISH = RawLimits(
    _days("bird-fish-caution", 2.0, COLD_STORAGE, Mark.MEMORY),
    _days("bird-fish-stop", 5.0, _OWN, Mark.PRACTICE),
)
DRY_BRINED_BIRD = RawLimits(
    _days("dry-brined-bird-caution", 3.0, _OWN, Mark.PRACTICE), BIRD_OR_FISH.stop
)
RED_MEAT = RawLimits(
    _days("red-meat-caution", 5.0, COLD_STORAGE, Mark.MEMORY),
    _days("red-meat-stop", 10.0, _OWN, Mark.PRACTICE),
)
CURED_RED_MEAT = RawLimits(
    _days("cured-caution", 21.0, "nitrite enough and salt of 2 % or more", Mark.PRACTICE),
    _days("cured-stop", 28.0, "nitrite enough and salt of 2 % or more", Mark.PRACTICE),
)
