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
_PARTLY = "once 1 % of salt and 40 ppm of nitrite are in"
_WHOLLY = "once it is out of the cure"


def _practice(name: str, caution: float, stop: float, source: str) -> RawLimits:
    return RawLimits(
        _days(f"{name}-caution", caution, source, Mark.PRACTICE),
        _days(f"{name}-stop", stop, source, Mark.PRACTICE),
    )


BIRD_OR_FISH = RawLimits(
    _days("bird-fish-caution", 2.0, COLD_STORAGE, Mark.MEMORY),
    _days("bird-fish-stop", 5.0, _OWN, Mark.PRACTICE),
)
DRY_SALTED = RawLimits(_days("dry-salted-caution", 3.0, _OWN, Mark.PRACTICE), BIRD_OR_FISH.stop)
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
PARTLY_CURED_RED_MEAT = _practice("partly-cured", 14.0, 21.0, _PARTLY)
CURED_RED_MEAT = _practice("cured", 21.0, 28.0, _CURED)

CURED_PPM = Rule("long-cure-nitrite", 100.0, "mg/kg even count", _CURED, Mark.PRACTICE)
WHOLLY_SALT_PCT = Rule("wholly-cured-salt", 1.5, "% salt on average", _WHOLLY, Mark.PRACTICE)
WHOLLY_SHARE = Rule("wholly-cured-share", 0.85, "of its even value", _WHOLLY, Mark.PRACTICE)
WHOLLY_PPM = Rule("wholly-cured-nitrite", 50.0, "mg/kg taken up", _WHOLLY, Mark.PRACTICE)
PARTLY_SALT_PCT = Rule("partly-cured-salt", 1.0, "% salt on average", _PARTLY, Mark.PRACTICE)
PARTLY_PPM = Rule("partly-cured-nitrite", 40.0, "mg/kg taken up", _PARTLY, Mark.PRACTICE)
OUT_AS_LONG_H = Rule(
    "protected-out-of-the-cure", 72.0, "h", "as long as it lay in it, at most so long",
    Mark.PRACTICE,
)  # fmt: skip
SURFACE_SALT_PCT = Rule("dry-salted", 0.8, "% salt on its surface", "without liquid", Mark.PRACTICE)
HISTAMINE_FROM_C = Rule("histamine-from", 4.4, "°C", HISTAMINE_GUIDE, Mark.MEMORY)
ASKS_H = Rule(
    "warm-air-asks", 0.25, "h", "until the food is read after a warm reading of the air",
    Mark.PRACTICE,
)  # fmt: skip
TAINT_D = Rule("bone-taint", 10.0, "days raw", "bone deep in the meat, no needle", Mark.PRACTICE)
TAINT_MM = Rule(
    "bone-taint-depth", 50.0, "mm from the surface to the bone", "salt comes late there",
    Mark.PRACTICE,
)  # fmt: skip
RAW_FISH_AFTER_D = Rule(
    "raw-cured-fish-keeps", 3.0, "d unwrapped, from the cure", "7 in all", Mark.PRACTICE
)
FROZEN_RAW_D = Rule("frozen-raw", 120.0, "d", "bones and pieces are best by then", Mark.PRACTICE)
LEFTOVERS_D = Rule("leftovers", 4.0, "d", "USDA, leftovers 3 to 4 days", Mark.MEMORY)


def leftovers_keep(*, is_raw_fish: bool) -> Rule:
    """The rule by which what is left over keeps in the fridge [d].

    >>> leftovers_keep(is_raw_fish=False).value
    4.0
    """
    return RAW_FISH_AFTER_D if is_raw_fish else LEFTOVERS_D
