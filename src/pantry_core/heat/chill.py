"""How cold a mix of hot, cold and ice becomes, and how much ice it takes."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from pantry_core.document import Document
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius
from pantry_core.rules.constants import FRIDGE_GOAL_C, FRIDGE_STOP_C
from pantry_core.rules.profiles import PROFILES, ProfileName
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

WATER_HEAT = Rule("heat-of-water", 4.186, "kJ/kg·K", "specific heat of water", Mark.MEMORY)
ICE_HEAT = Rule("heat-of-ice", 2.10, "kJ/kg·K", "specific heat of ice", Mark.MEMORY)
MELTING = Rule("melting", 334.0, "kJ/kg", "heat of melting of ice", Mark.MEMORY)
FREEZER_C = Rule("home-freezer", -18.0, "°C", "a home freezer", Mark.PRACTICE)

Mass = Annotated[float, Field(gt=0, le=1e6)]


class Liquid(Document):
    """Water or brine of a mass [g] at a temperature [°C]; brine is reckoned as water."""

    mass_g: Mass
    temperature_c: Annotated[float, Field(ge=0, le=110)]


class Ice(Document):
    """Ice of a mass [g] at a temperature of 0 °C or below."""

    mass_g: Mass
    temperature_c: Annotated[float, Field(ge=-80, le=0)] = FREEZER_C.value


class ChillRequest(Document):
    """What is mixed, and how cold it is to be [°C]."""

    format: Literal["pantry-clock/1"] = "pantry-clock/1"
    hot: Liquid
    cold: Liquid | None = None
    ice: Ice | None = None
    goal_c: Annotated[float, Field(ge=0, le=60)]


@dataclass(frozen=True, slots=True)
class ChillAnswer:
    """Temperature of the mix [°C], all the ice that the goal takes [g]."""

    temperature_c: float
    ice_needed_g: float
    notices: tuple[Notice, ...]
    format: Literal["pantry-clock/1"] = "pantry-clock/1"


def chill(request: ChillRequest) -> ChillAnswer:
    """Mix hot, cold and ice.

    Parameters: request; its fields carry their units and ranges.
    Returns: the temperature when all is even, no heat lost to pot or air [°C]; the ice that would
    bring the same hot and cold to the goal, 0 when they are there without it [g].
    Raises: nothing for a request that could be made.
    Source: heat balance with the heats of water, ice and melting (from memory).

    >>> mix = ChillRequest.model_validate({
    ...     "hot": {"mass_g": 2840, "temperature_c": 100},
    ...     "ice": {"mass_g": 1810, "temperature_c": -18}, "goal_c": 4})
    >>> round(chill(mix).temperature_c, 1), round(chill(mix).ice_needed_g / 1000, 2)
    (26.5, 2.94)
    """
    liquids = [each for each in (request.hot, request.cold) if each is not None]
    temperature_c = _mixed(liquids, request.ice)
    ice_c = request.ice.temperature_c if request.ice else FREEZER_C.value
    goal_c = request.goal_c
    surplus = sum(each.mass_g * (each.temperature_c - goal_c) for each in liquids)
    per_gram = -ICE_HEAT.value * ice_c + MELTING.value + WATER_HEAT.value * goal_c
    needed_g = max(surplus * WATER_HEAT.value / per_gram, 0.0)
    return ChillAnswer(temperature_c, needed_g, tuple(brine_warm(temperature_c)))


def brine_warm(temperature_c: float, profile: ProfileName = "us") -> Iterator[Notice]:
    """What a brine's temperature means for the meat that is to go in.

    Parameters: temperature_c, reckoned or read [°C]; profile.
    Returns: a stop above 5 °C, a caution above what the profile calls cold, else nothing.

    >>> [[each.level for each in brine_warm(c)] for c in (4.4, 4.5, 6.0)]
    [[], ['caution'], ['stop']]
    """
    if temperature_c > FRIDGE_STOP_C.value:
        text = say(
            "At {temperature_c} the meat stays out: more ice, or the fridge, until it is "
            "at {fridge_goal_c} or below. Only for what lies less than 2 h in all cold tap "
            "water will do.",
            temperature_c=Celsius(temperature_c, 1),
            fridge_goal_c=Celsius(FRIDGE_GOAL_C.value),
        )
        yield notice("stop", "brine-warm", text, FRIDGE_STOP_C)
    elif temperature_c > PROFILES[profile].fridge.value:
        text = say(
            "At {temperature_c} it is a little warm; {fridge_goal_c} is the goal.",
            temperature_c=Celsius(temperature_c, 1),
            fridge_goal_c=Celsius(FRIDGE_GOAL_C.value),
        )
        yield notice("caution", "brine-warm", text, PROFILES[profile].fridge)


def _mixed(liquids: list[Liquid], ice: Ice | None) -> float:
    """The temperature of the mix [°C]; 0 while ice and water lie together."""
    water_g = sum(each.mass_g for each in liquids)
    heat = WATER_HEAT.value * sum(each.mass_g * each.temperature_c for each in liquids)
    if ice is None:
        return heat / (WATER_HEAT.value * water_g)
    total_g = water_g + ice.mass_g
    heat += ICE_HEAT.value * ice.mass_g * ice.temperature_c
    if heat >= MELTING.value * ice.mass_g:
        return (heat - MELTING.value * ice.mass_g) / (WATER_HEAT.value * total_g)
    if heat >= -MELTING.value * water_g:
        return 0.0
    return (heat + MELTING.value * water_g) / (ICE_HEAT.value * total_g)
