"""How much nitrite to ask for where the cook does not say."""

from pantry_core.mixes.counting import limits_for
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.request import Cure, WeighRequest

A_LITTLE = 1.001
"""So that what is taken off is not undone by rounding [-]."""


def with_usual_cure(request: WeighRequest, cure: Cure) -> WeighRequest:
    """A request with a curing salt at what is usual for its case.

    Parameters: request; cure, whose asked-for nitrite does not matter.
    Returns: the request; less nitrite where the salt of a weak curing salt alone would pass the
    target, and where with the doubt of the scale the limit would not hold.
    Raises: nothing for a request that could be made.
    Source: what is usual by common practice, see `rules.profiles`.

    >>> from pantry_core.meat import Meat
    >>> bacon = WeighRequest(
    ...     profile="us", method="even-brine", target_salt_pct=2.25, water_g=1000.0,
    ...     meat=Meat(kind="pork", mass_g=1000.0, thickness_mm=40.0, shape="slab",
    ...               will_be="bacon"))
    >>> with_usual_cure(bacon, Cure(name="cure-1")).cure.ingoing_ppm
    110.0
    """
    limits = limits_for(request.profile, request.meat, is_brine=request.is_wet)
    usual = limits.usual.value
    asked = _with(request, cure, usual)
    mix = mixed(asked)
    by_cure_g = mix.curing_salt * cure.salt_share
    if cure.name == "nitrite-salt" and mix.salt_too_much > 0 and by_cure_g > 0:
        usual *= max(1.0 - A_LITTLE * mix.salt_too_much / by_cure_g, 0.0)
        asked = _with(request, cure, usual)
        mix = mixed(asked)
    if request.scale_division_g is not None and mix.curing_salt > 0:
        doubt_ppm = request.scale_division_g * usual / mix.curing_salt
        allowed = limits.most.value - A_LITTLE * doubt_ppm
        if limits.enough.value <= allowed < usual:
            asked = _with(request, cure, allowed)
    return asked


def _with(request: WeighRequest, cure: Cure, ppm: float) -> WeighRequest:
    return request.model_copy(update={"cure": cure.model_copy(update={"ingoing_ppm": ppm})})
