"""How long a raw piece may be kept, curing included."""

from dataclasses import dataclass

from pantry_core.rules.constants import COLD_STORAGE, HISTAMINE_GUIDE
from pantry_core.rules.rule import Mark, Rule


@dataclass(frozen=True, slots=True)
class RawLimits:
    """Days from purchase, or from the end of thawing, to the heat [d]."""

    caution: Rule
    stop: Rule


def _days(name: str, days: float, source: str, mark: Mark) -> Rule:
    return Rule(f"raw-{name}", days, "days raw", source, mark)


_OWN = "the same advice, stretched for the salt"
_CURED = "nitrite enough and salt of 2 % or more"
_TIMED = "a timed brine that takes up 50 ppm of nitrite and 1.5 % of salt"


def _practice(name: str, caution: float, stop: float, source: str) -> RawLimits:
    return RawLimits(
        _days(f"{name}-caution", caution, source, Mark.PRACTICE),
        _days(f"{name}-stop", stop, source, Mark.PRACTICE),
    )


BIRD_OR_FISH = RawLimits(
    _days("bird-fish-caution", 2.0, COLD_STORAGE, Mark.MEMORY),
    _days("bird-fish-stop", 5.0, _OWN, Mark.PRACTICE),
)
DRY_BRINED_BIRD = RawLimits(
    _days("dry-brined-bird-caution", 3.0, _OWN, Mark.PRACTICE), BIRD_OR_FISH.stop
)
CURED_BIRD = _practice("cured-bird", 5.0, 7.0, _CURED)
HISTAMINE_FISH = _practice(
    "histamine-fish", 1.0, 2.0, f"histamine survives the heat, {HISTAMINE_GUIDE}"
)
GROUND = _practice("ground", 2.0, 3.0, _OWN)
CURED_GROUND = _practice("cured-ground", 5.0, 7.0, _CURED)
RED_MEAT = RawLimits(
    _days("red-meat-caution", 5.0, COLD_STORAGE, Mark.MEMORY),
    _days("red-meat-stop", 10.0, _OWN, Mark.PRACTICE),
)
TIMED_RED_MEAT = _practice("timed-brine", 14.0, 21.0, _TIMED)
CURED_RED_MEAT = _practice("cured", 21.0, 28.0, _CURED)

TIMED_PPM = Rule("timed-brine-nitrite", 50.0, "mg/kg taken up", _TIMED, Mark.PRACTICE)
TIMED_SALT_PCT = Rule("timed-brine-salt", 1.5, "% salt taken up", _TIMED, Mark.PRACTICE)
RAW_FISH_AFTER_D = Rule(
    "raw-cured-fish-keeps", 3.0, "d unwrapped, from the cure", "7 in all", Mark.PRACTICE
)
LEFTOVERS_D = Rule("leftovers", 4.0, "d", "USDA, leftovers 3 to 4 days", Mark.MEMORY)


def leftovers_keep(*, is_raw_fish: bool) -> Rule:
    """The rule by which what is left over keeps in the fridge [d].

    >>> leftovers_keep(is_raw_fish=False).value
    4.0
    """
    return RAW_FISH_AFTER_D if is_raw_fish else LEFTOVERS_D
