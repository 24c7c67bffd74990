"""What a mix comes to, whether it was asked for or found: salt, counts, wait, keeping."""

from collections.abc import Sequence
from dataclasses import dataclass

from pantry_core.errors import OutOfRange
from pantry_core.heat.inside import inside_rule
from pantry_core.mixes.counting import (
    Spread,
    count_nitrate,
    count_nitrite,
    limits_for,
    nitrate_limit,
)
from pantry_core.mixes.mix import Mix
from pantry_core.mixes.protection import limits_in
from pantry_core.mixes.request import Cure, WeighRequest
from pantry_core.mixes.result import Nitrate, Nitrite, Pickle, Ready, Salt
from pantry_core.mixes.strength import brine_density_g_ml, salometer_degrees
from pantry_core.mixes.uptake import Uptake, uptake
from pantry_core.rules.profiles import NitriteLimits
from pantry_core.rules.raw_clock import RawLimits
from pantry_core.rules.rule import Rule
from pantry_core.salt.request import SATURATED_G_G

Cures = Sequence[tuple[Cure, float]]
"""Curing salts and their masses [g]."""


@dataclass(frozen=True, slots=True)
class Judged:
    """What a mix comes to: all that its cautions are made of.

    `wait` is when the model says that it is ready, whatever the raw clock says.
    """

    request: WeighRequest
    mix: Mix
    cures: Cures
    pickle: Pickle | None
    salt: Salt
    nitrite: Nitrite
    nitrate: Nitrate
    limits: NitriteLimits
    most_nitrate: Rule
    wait: Ready | None
    uptake: Uptake
    raw: RawLimits | None
    inside: Rule | None

    @property
    def ready(self) -> Ready | None:
        """When it is ready, None where it may not be kept raw so long."""
        return None if self.waits_too_long else self.wait

    @property
    def waits_too_long(self) -> bool:
        """Whether it would be ready only after the raw clock has stopped it."""
        if self.wait is None or self.raw is None:
            return False
        return self.wait.days > self.raw.stop.value

    @property
    def needle_g(self) -> float | None:
        """What goes in by needle [g]."""
        share = self.request.needle
        return None if share is None else share * self.request.meat.salted_g


def judge_mix(
    request: WeighRequest,
    mix: Mix,
    cures: Cures,
    wait: Ready | None,
    goes_in: Mix | None = None,
    *,
    is_unknown: bool = False,
) -> Judged:
    """Work out what a mix comes to.

    Parameters: request; its mix; the curing salts in it; wait, when it is ready by the model;
    goes_in, of a needle's pickle the part that the needle takes, where that is not all;
    is_unknown, whether more curing salt is in it than anybody has weighed.
    Returns: the figures of `weigh`.
    Raises: nothing for a request that could be made.
    """
    meat = request.meat
    has_pickle = mix.pickle > 0
    spread = Spread(
        meat.salted_g,
        mix.pickle,
        is_brine=request.is_brine and has_pickle,
        needle=request.needle if has_pickle else None,
        is_ground=request.is_mixed_in,
    )
    counts_as = meat
    if request.is_mixed_in and meat.form != "ground":
        counts_as = meat.model_copy(update={"form": "ground"})
    limits = limits_for(request.profile, counts_as, is_brine=request.is_wet)
    most_nitrate = nitrate_limit(request.profile, counts_as, is_brine=request.is_wet)
    taken = uptake(request, mix)
    nitrite = count_nitrite(
        limits,
        sum((cure.nitrite_share or 0.0) * grams for cure, grams in cures),
        spread,
        is_unknown=is_unknown or any(cure.is_unknown for cure, _ in cures),
        taken_up=taken.share if request.method == "strong-brine" else 1.0,
    )
    pickle = pickle_of(mix, request.temperature_c) if request.is_wet and has_pickle else None
    nitrate_g = sum(cure.nitrate_share * grams for cure, grams in cures)
    return Judged(
        request=request,
        mix=mix,
        cures=cures,
        pickle=pickle,
        salt=salt_of(request, mix if goes_in is None else goes_in),
        nitrite=nitrite,
        nitrate=count_nitrate(most_nitrate, nitrate_g, spread),
        limits=limits,
        most_nitrate=most_nitrate,
        wait=wait,
        uptake=taken,
        raw=limits_in(request, nitrite, pickle, taken.mean_pct),
        inside=inside_rule(meat, request.treatments),
    )


def pickle_of(mix: Mix, temperature_c: float) -> Pickle:
    """All of the liquid of a mix, at a temperature [°C]."""
    water_g = mix.liquid_water
    degrees = salometer_degrees(mix.salt, water_g) if water_g > 0 else None
    density = None
    if water_g > 0:
        try:
            density = brine_density_g_ml(mix.salt / (mix.salt + water_g), temperature_c)
        except OutOfRange:
            density = None
    return Pickle(mix.pickle, 100.0 * mix.salt / mix.pickle, degrees, density)


def salt_of(request: WeighRequest, mix: Mix) -> Salt:
    """How salty the piece is when all is even; of salt that cannot dissolve, what can [%]."""
    meat = request.meat
    outside_g = 0.0 if request.method == "mixed-in" else mix.liquid_water
    concentration = (mix.salt + meat.own_salt_g) / (outside_g + meat.water_g_g * meat.salted_g)
    if request.heaped:
        concentration = min(concentration, SATURATED_G_G)
    return Salt(
        target_pct=request.target_salt_pct,
        in_meat_pct=100.0 * concentration * meat.water_g_g,
        water_phase_pct=100.0 * concentration / (1.0 + concentration),
    )
