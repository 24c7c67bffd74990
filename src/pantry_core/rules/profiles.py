"""Limits on nitrite and nitrate by profile. A new profile is a new table, no new code."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.rules.constants import FRIDGE_QUIET_C, FRIDGE_STOP_C
from pantry_core.rules.rule import Mark, Rule

ProfileName = Literal["us", "eu"]
NitriteCase = Literal["brine", "dry", "ground", "bacon-brine", "bacon-brine-skin", "bacon-dry"]
NitrateCase = Literal["brine", "dry", "ground", "bacon"]

_CFR = "9 CFR 424.21(c)"
_BACON = "9 CFR 424.22(b)"
_EU = "Regulation (EU) 2023/2108, 80 mg/kg as nitrite ion"
_EU_NITRATE = "Regulation (EU) 2023/2108, nitrate in unheated goods only; ours are all heated"
_NOT_625 = "as for brined meat; the 625 ppm for long-kept dry-cured goods is not used here"
_ENOUGH = "FSIS Directive 7620.3, least for cured goods kept cold"
_ENOUGH_BACON = f"our choice, below the 120 of {_BACON}"
_ENOUGH_EU = "our choice, half of the most"


@dataclass(frozen=True, slots=True)
class NitriteLimits:
    """Ingoing sodium nitrite [mg/kg]: the most allowed, what is enough to cure, what is usual."""

    most: Rule
    enough: Rule
    usual: Rule


@dataclass(frozen=True, slots=True)
class Profile:
    """The rules of one authority: nitrite by case, and the most nitrate [mg/kg].

    Up to `fridge` nothing is said of how warm a fridge is [°C].
    """

    nitrite: dict[NitriteCase, NitriteLimits]
    nitrate: dict[NitrateCase, Rule]
    fridge: Rule

    @property
    def most_ppm(self) -> float:
        """The most nitrite of all its cases [mg/kg]."""
        return max(each.most.value for each in self.nitrite.values())


def _limits(case: str, most: Rule, enough: tuple[float, str, Mark], usual: float) -> NitriteLimits:
    least, source, mark = enough
    return NitriteLimits(
        most,
        Rule(f"{case}-enough", least, "mg/kg", source, mark),
        Rule(f"{case}-usual", usual, "mg/kg", "between enough and most", Mark.PRACTICE),
    )


def _us(
    case: str, most: float, source: str, usual: float, mark: Mark = Mark.MEMORY
) -> NitriteLimits:
    enough = (
        (100.0, _ENOUGH_BACON, Mark.PRACTICE)
        if case.startswith("bacon-brine")
        else (120.0, _ENOUGH, Mark.MEMORY)
    )
    return _limits(f"us-{case}", Rule(f"us-{case}", most, "mg/kg", source, mark), enough, usual)


def _eu(case: str) -> NitriteLimits:
    most = Rule(f"eu-{case}", 120.0, "mg/kg", _EU, Mark.MEMORY)
    return _limits(f"eu-{case}", most, (60.0, _ENOUGH_EU, Mark.PRACTICE), 100.0)


def _nitrate(case: str, most: float, source: str) -> Rule:
    return Rule(f"{case}-nitrate", most, "mg/kg", source, Mark.MEMORY)


US = Profile(
    {
        "brine": _us("brine", 200.0, _CFR, 150.0),
        "dry": _us("dry", 200.0, _NOT_625, 150.0, Mark.PRACTICE),
        "ground": _us("ground", 156.0, _CFR, 140.0),
        "bacon-brine": _us("bacon-brine", 120.0, _BACON, 110.0),
        "bacon-brine-skin": _us("bacon-brine-skin", 108.0, f"{_BACON}, skin on", 104.0),
        "bacon-dry": _us("bacon-dry", 200.0, _BACON, 150.0),
    },
    {
        "brine": _nitrate("us-brine", 700.0, _CFR),
        "dry": _nitrate("us-dry", 2187.0, _CFR),
        "ground": _nitrate("us-ground", 1718.0, _CFR),
        "bacon": _nitrate("us-bacon", 0.0, f"{_BACON}, no nitrate in bacon"),
    },
    FRIDGE_QUIET_C,
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
    {
        "brine": _nitrate("eu-brine", 0.0, _EU_NITRATE),
        "dry": _nitrate("eu-dry", 0.0, _EU_NITRATE),
        "ground": _nitrate("eu-ground", 0.0, _EU_NITRATE),
        "bacon": _nitrate("eu-bacon", 0.0, _EU_NITRATE),
    },
    FRIDGE_STOP_C,
)

PROFILES: dict[ProfileName, Profile] = {"us": US, "eu": EU}

BACON_ASCORBATE_PPM = Rule(
    "bacon-ascorbate", 550.0, "mg/kg", f"{_BACON}, ascorbate or erythorbate in pumped bacon",
    Mark.MEMORY,
)  # fmt: skip
