"""What the model advises: when to lift, how long to soak, what would be quicker."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import exp, log

from pantry_core.errors import OutOfRange, within
from pantry_core.meat import Meat
from pantry_core.salt.ready import COOKED
from pantry_core.salt.request import (
    MOST_HOURS,
    MOST_SOAK_H,
    Brine,
    Dry,
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
class Pickle:
    """Water and salt that a piece is to have from [g]."""

    water_g: float
    salt_g: float

    @property
    def mass_g(self) -> float:
        """Both together [g]."""
        return self.water_g + self.salt_g

    @property
    def salt_share(self) -> float:
        """Salt in parts of the pickle [-]."""
        return self.salt_g / self.mass_g


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
    meat: Meat,
    water_g: float | None,
    salt_g: float,
    target_pct: float,
    temperature_c: float = 4.0,
) -> Lift | None:
    """The hour to lift from a strong brine or a heaped cure, and the rest until it is ready.

    Parameters: meat; water_g and salt_g of the brine [g], water_g None for a heaped cure that is
    washed off; target_pct, the salt aimed at in the mean of the meat [%]; temperature_c, 0 to 15.
    Returns: lift when the mean is at the target; ready when after the rest the least salty point
    has 70 % of the mean. None when it is too weak to bring the mean there.
    Raises: OutOfRange.
    Source: rule by common practice on the model of `travel`.
    """
    within("target_pct", target_pct, 1e-6, 30.0, "%")

    def told(*stages: Stage) -> End:
        return ended(SaltRequest(meat=meat, temperature_c=temperature_c, stages=stages))

    def salted(hours: float) -> Stage:
        if water_g is None:
            return Dry(kind="dry", hours=hours, salt_g=salt_g)
        return Brine(kind="brine", hours=hours, water_g=water_g, salt_g=salt_g)

    lift_h = first_hour(lambda h: told(salted(h)).mean_pct - target_pct, MOST_HOURS)
    if not lift_h:
        return None

    def even_enough(rest_h: float) -> float:
        end = told(salted(lift_h), Rest(kind="rest", hours=rest_h))
        return end.least_pct - COOKED.value * end.mean_pct

    rest_h = first_hour(even_enough, MOST_HOURS)
    return None if rest_h is None else Lift(lift_h, lift_h + rest_h)


def needle_wait_h(
    meat: Meat,
    pickle: Pickle,
    share: float,
    *,
    cover: bool = True,
    least: float = COOKED.value,
    temperature_c: float = 4.0,
) -> float | None:
    """How long a piece waits when pickle goes in by needle, and the rest of it covers the piece.

    Parameters: meat; pickle, all of it; share by needle, in parts of the meat's mass, 0 to 0.3;
    cover, whether what is left covers the piece, else it rests; least, the part of the even value
    that the least salty point must have; temperature_c, 0 to 15.
    Returns: hours, None when the pickle is too little for the needle or it takes too long.
    Raises: OutOfRange.
    Source: the model of `travel`; the needle spreads its pickle over the inner half.
    """
    within("share", share, 1e-6, 0.3)
    needle_g = share * meat.salted_g
    if needle_g >= pickle.mass_g * (1.0 if cover else 1.0 + 1e-9):
        return None
    needle_salt_g = needle_g * pickle.salt_share
    needle = Needle(kind="needle", share=share, salt_pct=100.0 * pickle.salt_share)
    water_g, salt_g = pickle.water_g - needle_g + needle_salt_g, pickle.salt_g - needle_salt_g
    swollen_g = meat.water_g_g * meat.salted_g + needle_g - needle_salt_g
    even_g_g = pickle.salt_g / (water_g + swollen_g) if cover else needle_salt_g / swollen_g
    goal_pct = least * 100.0 * even_g_g * swollen_g / meat.salted_g

    def margin(hours: float) -> float:
        after: Stage = Rest(kind="rest", hours=hours)
        if cover:
            after = Brine(kind="brine", hours=hours, water_g=water_g, salt_g=salt_g)
        asked = SaltRequest(meat=meat, temperature_c=temperature_c, stages=(needle, after))
        return ended(asked).least_pct - goal_pct

    return first_hour(margin, MOST_HOURS)


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

    from scipy.optimize import brentq  # noqa: PLC0415 - it takes 0.3 s to import

    return float(exp(brentq(of_log, log(SHORTEST_H), log(most_h), xtol=1e-3, rtol=1e-3)))
