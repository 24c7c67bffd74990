"""Counting nitrite, and judging the count."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.errors import within
from pantry_core.meat import Meat
from pantry_core.rules.constants import PICK_UP
from pantry_core.rules.profiles import NitriteCase, NitriteLimits

Verdict = Literal["none", "unknown", "low", "ok", "over"]

PPM = 1e6


@dataclass(frozen=True, slots=True)
class Counts:
    """Ingoing by each count, None where one does not apply [mg/kg]."""

    even: float | None = None
    pickup: float | None = None
    needle: float | None = None
    dry: float | None = None

    @property
    def governing(self) -> float:
        """The count that is held against the limit.

        With needle and cover each count must be within: the needle's and pick-up's sum as well.
        """
        together = self.needle
        if together is not None and self.pickup is not None:
            together += self.pickup
        return max(each for each in (self.even, together, self.dry) if each is not None)

    @property
    def least(self) -> float:
        """The count by which too little is judged: even, the needle's without a cover, or dry."""
        return next(each for each in (self.even, self.needle, self.dry) if each is not None)


def even_ppm(nitrite_g: float, meat_g: float, pickle_g: float) -> float:
    """Nitrite when a cover brine and its meat have evened out.

    Parameters: nitrite_g, meat_g and pickle_g, all of the liquid [g].
    Returns: ingoing sodium nitrite [mg/kg].
    Raises: OutOfRange for negative nitrite or no mass to hold it.
    Source: FSIS Directive 7620.3, immersion-cured products, method of evening out (from memory).

    >>> round(even_ppm(0.45, 1500.0, 1500.0))
    150
    """
    return PPM * _share(nitrite_g, meat_g + pickle_g)


def pickup_ppm(nitrite_g: float, pickle_g: float) -> float:
    """Nitrite when the meat takes up a tenth of its weight of a cover brine and no more.

    Parameters: nitrite_g and pickle_g, all of the liquid [g].
    Returns: ingoing sodium nitrite [mg/kg].
    Raises: OutOfRange for negative nitrite or no pickle.
    Source: FSIS Directive 7620.3, immersion-cured products, pick-up of 10 % (from memory).

    >>> round(pickup_ppm(2.0, 1000.0))
    200
    """
    return PPM * PICK_UP.value * _share(nitrite_g, pickle_g)


def dry_ppm(nitrite_g: float, meat_g: float) -> float:
    """Nitrite of a dry cure, or of a cure mixed into ground meat.

    Parameters: nitrite_g and meat_g [g].
    Returns: ingoing sodium nitrite [mg/kg].
    Raises: OutOfRange for negative nitrite or no meat.
    Source: FSIS Directive 7620.3, dry-cured and comminuted products (from memory). A quarter of an
    ounce of nitrite to a hundred pounds of meat:

    >>> round(dry_ppm(28.349523125 / 4, 100 * 453.59237))
    156
    """
    return PPM * _share(nitrite_g, meat_g)


def needle_ppm(nitrite_g: float, pickle_g: float, share: float) -> float:
    """Nitrite that a needle puts into the meat.

    Parameters: nitrite_g and pickle_g, of the whole pickle [g]; share, injected mass over that of
    the meat, 0 to 0.3.
    Returns: ingoing sodium nitrite [mg/kg of meat].
    Raises: OutOfRange for negative nitrite, no pickle, or a share outside its range.
    Source: FSIS Directive 7620.3, pumped products (from memory).

    >>> round(needle_ppm(2.0, 1000.0, 0.10))
    200
    """
    within("share", share, 0.0, 0.3)
    return PPM * share * _share(nitrite_g, pickle_g)


def nitrite_case(meat: Meat, *, is_brine: bool) -> NitriteCase:
    """Which of a profile's limits governs this piece: ground before bacon before the method.

    Skin and a fat cap are one field of the document, so a brined bacon with a closed face takes
    the stricter limit of skin-on bacon.
    """
    if meat.form == "ground":
        return "ground"
    if meat.will_be == "bacon":
        if not is_brine:
            return "bacon-dry"
        return "bacon-brine-skin" if meat.closed_faces else "bacon-brine"
    return "brine" if is_brine else "dry"


def judge(ppm: float, limits: NitriteLimits) -> Verdict:
    """Verdict on an ingoing count [mg/kg], compared at 0.1 mg/kg; equal to a limit is ok.

    >>> from pantry_core.rules.profiles import US
    >>> [judge(ppm, US.nitrite["brine"]) for ppm in (0.0, 119.9, 120.0, 200.04, 200.1)]
    ['none', 'low', 'ok', 'ok', 'over']
    """
    tenths = round(ppm, 1)
    if tenths == 0.0:
        return "none"
    if tenths > limits.most.value:
        return "over"
    return "low" if tenths < limits.enough.value else "ok"


def _share(nitrite_g: float, mass_g: float) -> float:
    within("nitrite_g", nitrite_g, 0.0, 1e9, "g")
    within("mass that holds the nitrite", mass_g, 1e-9, 1e9, "g")
    return nitrite_g / mass_g
