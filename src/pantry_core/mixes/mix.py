"""The masses of a mix, solved so that salt and nitrite are met together."""

from dataclasses import dataclass, replace

from pantry_core.mixes.request import Cure, Sauce, WeighRequest
from pantry_core.rules.constants import HEAP_SHARE


@dataclass(frozen=True, slots=True)
class Mix:
    """Masses for the scale [g]; `salt_too_much`: what comes in over what was asked for.

    `water_short` is the water that a needle's pickle would lack, should it be all salt.
    """

    water: float
    plain_salt: float
    curing_salt: float
    sugar: float
    salt_too_much: float
    sauces: tuple[Sauce, ...]
    cure: Cure | None
    water_short: float = 0.0

    @property
    def nitrite(self) -> float:
        """Sodium nitrite [g]."""
        return self.curing_salt * (self.cure.nitrite_share or 0.0) if self.cure else 0.0

    @property
    def nitrate(self) -> float:
        """Nitrate, as the salt that the curing salt has it in [g]."""
        return self.curing_salt * self.cure.nitrate_share if self.cure else 0.0

    @property
    def salt(self) -> float:
        """All sodium chloride, that of curing salt and sauces included [g]."""
        curing = self.curing_salt * self.cure.salt_share if self.cure else 0.0
        return self.plain_salt + curing + sum(each.salt_g for each in self.sauces)

    @property
    def liquid_water(self) -> float:
        """Water of the pickle, that of sauces included [g]."""
        return self.water + sum(each.water_g for each in self.sauces)

    @property
    def water_phase_pct(self) -> float:
        """Salt in its water, of dry salt all of it [% of salt and water]."""
        return 100.0 * self.salt / (self.salt + self.liquid_water) if self.salt else 0.0

    @property
    def pickle(self) -> float:
        """All of the liquid with what is dissolved in it [g]."""
        sauces = sum(each.mass_g for each in self.sauces)
        return self.water + self.plain_salt + self.curing_salt + self.sugar + sauces

    def part(self, share: float) -> "Mix":
        """So large a part of all of it [-]."""
        return replace(
            self,
            water=share * self.water,
            plain_salt=share * self.plain_salt,
            curing_salt=share * self.curing_salt,
            sugar=share * self.sugar,
            sauces=tuple(
                each.model_copy(update={"mass_g": share * each.mass_g}) for each in self.sauces
            ),
        )


def mixed(request: WeighRequest) -> Mix:
    """Masses for a request, solved so that target and ingoing nitrite are met together.

    Parameters: request, as for `weigh`.
    Returns: the masses [g].
    Raises: nothing for a request that could be made.
    Source: mass balance (derived). With p the asked-for share of nitrite, n and k the shares of
    nitrite and nitrate in the curing salt, an even brine takes
    cure · n = p · (meat + water + all salt + sugar + what else is in the pickle + cure · (n + k));
    a dry cure, ground meat and a needle alone cure · n = p · meat.
    """
    if request.method == "strong-brine":
        return _strong(request)
    meat_g, water_g = request.meat.salted_g, request.used_water_g
    basis_g = meat_g + water_g
    if request.is_needle_alone:
        basis_g = meat_g * (1.0 + request.injection_share)
    salt = request.target_salt_pct / 100.0 * basis_g - request.meat.own_salt_g
    if request.heaped:
        salt = HEAP_SHARE.value * meat_g
    sugar = request.sugar_pct / 100.0 * basis_g
    counted_g = meat_g
    is_spread = request.is_brine and not request.is_mixed_in
    if is_spread:
        counted_g = basis_g + salt + sugar + _saltless(request.sauces)
    curing = _curing_salt(request.cure, counted_g, grows=is_spread)
    return _complete(request, water_g, salt, sugar, curing)


def _strong(request: WeighRequest) -> Mix:
    """A brine of a strength: salt and sugar are parts of a pickle that they are part of."""
    strength, sugar_share = (request.brine_salt_pct or 0.0) / 100.0, request.sugar_pct / 100.0
    water_g, cure, meat_g = request.used_water_g, request.cure, request.meat.salted_g
    cure_share = unsalted = 0.0
    if cure is not None and cure.sizing_share:
        cure_share = cure.ingoing_ppm * 1e-6 / cure.sizing_share
        unsalted = 1.0 - cure.salt_share
    is_spread = not request.is_mixed_in
    room = 1.0 - strength - sugar_share - (cure_share * unsalted if is_spread else 0.0)
    pickle = (water_g + _saltless(request.sauces) + cure_share * unsalted * meat_g) / room
    curing = cure_share * (meat_g + (pickle if is_spread else 0.0))
    return _complete(request, water_g, strength * pickle, sugar_share * pickle, curing)


def _curing_salt(cure: Cure | None, counted_g: float, *, grows: bool) -> float:
    """Curing salt for all that the count is taken of; `grows`: it is part of that itself [g]."""
    if cure is None or not cure.sizing_share:
        return 0.0
    asked = cure.ingoing_ppm * 1e-6
    unsalted = 1.0 - cure.salt_share if grows else 0.0
    return asked * counted_g / (cure.sizing_share - asked * unsalted)


def _complete(
    request: WeighRequest, water_g: float, salt: float, sugar: float, curing: float
) -> Mix:
    """Take from the salt what curing salt and sauces bring; a needle's water fills its pickle."""
    by_cure = curing * request.cure.salt_share if request.cure else 0.0
    plain = salt - by_cure - sum(each.salt_g for each in request.sauces)
    short = 0.0
    if request.is_needle_alone:
        solids = max(plain, 0.0) + curing + sugar + sum(each.mass_g for each in request.sauces)
        left = request.injection_share * request.meat.salted_g - solids
        water_g, short = max(left, 0.0), max(-left, 0.0)
    return Mix(
        water_g, max(plain, 0.0), curing, sugar, max(-plain, 0.0),
        request.sauces, request.cure, short,
    )  # fmt: skip


def _saltless(sauces: tuple[Sauce, ...]) -> float:
    return sum(each.mass_g - each.salt_g for each in sauces)
