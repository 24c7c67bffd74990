"""What the model advises: when to lift, how long to soak, what would be quicker."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import exp, log

from scipy.optimize import brentq

from pantry_core.errors import OutOfRange, within
from pantry_core.meat import Meat
from pantry_core.salt.ready import COOKED
from pantry_core.salt.request import (
    MOST_HOURS,
    MOST_SOAK_H,
    Brine,
    Needle,
    Rest,
    SaltRequest,
    Soak,
    Stage,
)
from pantry_core.salt.travel import End, ended

SHORTEST_H = 0.05
"""Nobody lifts or soaks to less than three minutes."""


@dataclass(frozen=True, slots=True)
class Lift:
    """When a strong brine has given enough, and when, after the rest, the piece is ready [h]."""

    lift_h: float
    ready_h: float


@dataclass(frozen=True, slots=True)
class SoakAdvice:
    """How long to soak [h], and the salt afterwards in the mean, at the heart, at the rim [%]."""

    hours: float
    mean_pct: float
    heart_pct: float
    rim_pct: float


def lift_then_rest(
    meat: Meat, water_g: float, salt_g: float, target_pct: float, temperature_c: float = 4.0
) -> Lift | None:
    """The hour to lift a piece from a strong brine, and the rest until it is ready.

    Parameters: meat; water_g and salt_g of the brine [g]; target_pct, the salt aimed at in the mean
    of the meat [%]; temperature_c, 0 to 15.
    Returns: lift when the mean is at the target; ready when after the rest the least salty point
    has 70 % of the mean. None when the brine is too weak to bring the mean there.
    Raises: OutOfRange.
    Source: rule by common practice on the model of `travel`.
    """
    within("target_pct", target_pct, 1e-6, 30.0, "%")

    def told(*stages: Stage) -> End:
        return ended(SaltRequest(meat=meat, temperature_c=temperature_c, stages=stages))

    def brine(hours: float) -> Brine:
        return Brine(kind="brine", hours=hours, water_g=water_g, salt_g=salt_g)

    lift_h = first_hour(lambda h: told(brine(h)).mean_pct - target_pct, MOST_HOURS)
    if not lift_h:
        return None

    def even_enough(rest_h: float) -> float:
        answer = told(brine(lift_h), Rest(kind="rest", hours=rest_h))
        return answer.least_pct - COOKED.value * answer.mean_pct

    rest_h = first_hour(even_enough, MOST_HOURS)
    return None if rest_h is None else Lift(lift_h, lift_h + rest_h)


def needle_then_brine_h(
    meat: Meat,
    water_g: float,
    salt_g: float,
    share: float,
    *,
    least: float = COOKED.value,
    temperature_c: float = 4.0,
) -> float | None:
    """How long a piece lies in its even brine when part of the pickle goes in by needle first.

    Parameters: meat; water_g and salt_g of the whole pickle [g]; share by needle, in parts of the
    meat's mass, 0 to 0.3; least, the part of the even value that the least salty point must have;
    temperature_c, 0 to 15.
    Returns: hours, None when the pickle is too little for the needle or it takes too long.
    Raises: OutOfRange.
    Source: the model of `travel`; the needle spreads its pickle over the inner half.
    """
    within("share", share, 1e-6, 0.3)
    pickle_g = share * meat.salted_g
    salt_pct = 100.0 * salt_g / (salt_g + water_g)
    needle_salt_g = pickle_g * salt_pct / 100.0
    if pickle_g >= 0.9 * (water_g + salt_g):
        return None
    needle = Needle(kind="needle", share=share, salt_pct=salt_pct)
    water_left_g, salt_left_g = water_g - pickle_g + needle_salt_g, salt_g - needle_salt_g
    even_pct = 100.0 * salt_g / (water_g + meat.water_g_g * meat.salted_g)
    swollen_g = meat.water_g_g * meat.salted_g + pickle_g - needle_salt_g
    goal_pct = least * even_pct * swollen_g / meat.salted_g

    def reached(hours: float) -> float:
        brine = Brine(kind="brine", hours=hours, water_g=water_left_g, salt_g=salt_left_g)
        asked = SaltRequest(meat=meat, temperature_c=temperature_c, stages=(needle, brine))
        return ended(asked).least_pct - goal_pct

    return first_hour(reached, MOST_HOURS)


def soak_to(
    meat: Meat,
    stages: Sequence[Stage],
    goal_pct: float,
    water_g: float,
    changes: int,
    temperature_c: float = 4.0,
) -> SoakAdvice | None:
    """How long a piece that is too salty must soak.

    Parameters: meat; stages that it has gone through; goal_pct, the mean salt wanted [% of the
    meat]; water_g, fresh water each time [g]; changes of it, evenly; temperature_c, 0 to 15.
    Returns: the shortest soak that brings the mean there, and what heart and rim have then; None
    when 72 h do not suffice.
    Raises: OutOfRange.
    Source: the model of `travel`.
    """
    within("goal_pct", goal_pct, 0.0, 30.0, "%")

    def after(hours: float) -> End:
        soak = Soak(kind="soak", hours=hours, water_g=water_g, changes=changes)
        asked = SaltRequest(meat=meat, temperature_c=temperature_c, stages=(*stages, soak))
        return ended(asked)

    hours = first_hour(lambda h: goal_pct - after(h).mean_pct, MOST_SOAK_H)
    if not hours:
        return None
    told = after(hours)
    return SoakAdvice(hours, told.mean_pct, told.heart_pct, told.rim_pct)


def first_hour(margin: Callable[[float], float], most_h: float) -> float | None:
    """When a margin that grows with time comes to zero, to one part in a thousand.

    Parameters: margin, of the hour [h]; most_h, above 0.
    Returns: the hour, 0 when there is a margin from the first, None when there is none by most_h.
    Raises: OutOfRange.

    >>> round(first_hour(lambda hours: hours - 5.5, 100.0), 1)
    5.5
    """
    if most_h <= 0:
        raise OutOfRange("most_h", most_h, "a time above 0 h")
    if margin(most_h) < 0:
        return None
    if margin(SHORTEST_H) >= 0:
        return 0.0

    def of_log(log_h: float) -> float:
        return margin(min(exp(log_h), most_h))

    return float(exp(brentq(of_log, log(SHORTEST_H), log(most_h), xtol=1e-3, rtol=1e-3)))
