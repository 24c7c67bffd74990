"""Limits on nitrite by profile. A new profile is a new table, no new code."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.rules.rule import Mark, Rule

ProfileName = Literal["us", "eu"]
NitriteCase = Literal["brine", "dry", "ground", "bacon-brine", "bacon-brine-skin", "bacon-dry"]

_CFR = "9 CFR 424.21(c)"
_BACON = "9 CFR 424.22(b)"
_EU = "Regulation (EU) 2023/2108, 80 mg/kg as nitrite ion"
_EU_NITRATE = "Regulation (EU) 2023/2108, 90 mg/kg as nitrate ion"
_NOT_625 = "as for brined meat; the 625 ppm for long-kept dry-cured goods is not used here"


@dataclass(frozen=True, slots=True)
class NitriteLimits:
    """Ingoing sodium nitrite [mg/kg]: the most allowed, what is enough to cure, what is usual."""

    most: Rule
    enough: Rule
    usual: Rule


@dataclass(frozen=True, slots=True)
class Profile:
    """The rules of one authority."""

    nitrite: dict[NitriteCase, NitriteLimits]
    nitrate_brine: Rule | None
    nitrate_unheated_ion: Rule | None = None


def _limits(
    case: str, most: Rule, enough: float, usual: float, enough_mark: Mark = Mark.MEMORY
) -> NitriteLimits:
    return NitriteLimits(
        most,
        Rule(f"{case}-enough", enough, "mg/kg", "too little to cure or protect", enough_mark),
        Rule(f"{case}-usual", usual, "mg/kg", "between enough and most", Mark.PRACTICE),
    )


def _us(
    case: str, most: float, source: str, enough: float, usual: float, mark: Mark = Mark.MEMORY
) -> NitriteLimits:
    return _limits(f"us-{case}", Rule(f"us-{case}", most, "mg/kg", source, mark), enough, usual)


def _eu(case: str) -> NitriteLimits:
    most = Rule(f"eu-{case}", 120.0, "mg/kg", _EU, Mark.MEMORY)
    return _limits(f"eu-{case}", most, 60.0, 100.0, Mark.PRACTICE)


US = Profile(
    {
        "brine": _us("brine", 200.0, _CFR, 120.0, 150.0),
        "dry": _us("dry", 200.0, _NOT_625, 120.0, 150.0, Mark.PRACTICE),
        "ground": _us("ground", 156.0, _CFR, 120.0, 140.0),
        "bacon-brine": _us("bacon-brine", 120.0, _BACON, 100.0, 110.0),
        "bacon-brine-skin": _us("bacon-brine-skin", 108.0, f"{_BACON}, skin on", 100.0, 103.0),
        "bacon-dry": _us("bacon-dry", 200.0, _BACON, 120.0, 150.0),
    },
    Rule("us-nitrate-brine", 700.0, "mg/kg", _CFR, Mark.MEMORY),
)

EU = Profile(
    {
        "brine": _eu("brine"),
        "dry": _eu("dry"),
        "ground": _eu("ground"),
        "bacon-brine": _eu("bacon-brine"),
        "bacon-brine-skin": _eu("bacon-brine-skin"),
        "bacon-dry": _eu("bacon-dry"),
    },
    None,
    Rule("eu-nitrate", 90.0, "mg/kg as ion", f"{_EU_NITRATE}, unheated goods only", Mark.MEMORY),
)

PROFILES: dict[ProfileName, Profile] = {"us": US, "eu": EU}
