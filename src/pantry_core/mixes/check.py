"""A recipe as it was found, worked out for a piece: strength, salt, nitrite, what is wrong."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from pantry_core.mixes.check_cautions import check_cautions
from pantry_core.mixes.counting import count_nitrate, count_nitrite, limits_for
from pantry_core.mixes.mix import Mix
from pantry_core.mixes.readiness import readiness, stages
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Nitrate, Nitrite, Pickle, Ready, Salt, WeighOut
from pantry_core.mixes.weigh import pickle_of, salt_of, weigh
from pantry_core.notice import Notice
from pantry_core.rules.constants import ORDINARY_SALT_PCT
from pantry_core.rules.ingredients import INGREDIENTS, SALTS
from pantry_core.salt.request import MOST_HOURS, SaltRequest
from pantry_core.salt.travel import End, ended

FRIDGE_C = 4.0
LEAST_WATER = 0.5
"""Less water than this hardly covers a piece [g per g of meat] (common practice)."""
MOST_BY_SAUCES = 0.8
"""Of the salt, what sauces may bring: the curing salt brings some too [g/g]."""
LEAST_STRENGTH_PCT, USUAL_STRENGTH_PCT, MOST_STRENGTH_PCT = 5.0, 10.0, 20.0


@dataclass(frozen=True, slots=True)
class CheckLine:
    """A line under its name, with the grams of the recipe as written, None for what is counted."""

    name: str
    grams: float | None


@dataclass(frozen=True, slots=True)
class SaltKind:
    """The recipe with its spoons of another salt [%]: strength of the pickle, salt of the meat."""

    name: str
    pickle_pct: float | None
    in_meat_pct: float


@dataclass(frozen=True, slots=True)
class After:
    """Salt of the meat after the days of the recipe [%]."""

    mean_pct: float
    heart_pct: float
    rim_pct: float


@dataclass(frozen=True, slots=True)
class Instead:
    """The recipe put right: a `weigh` document for this piece, and its answer."""

    input: WeighRequest
    answer: WeighOut


@dataclass(frozen=True, slots=True)
class CheckOut:
    """What a recipe comes to; masses [g] as written, all other figures of the share used."""

    lines: tuple[CheckLine, ...]
    pickle: Pickle | None
    salt: Salt
    nitrite: Nitrite
    nitrate: Nitrate
    needle_g: float | None
    ready: Ready | None
    after: After | None
    salts: tuple[SaltKind, ...]
    instead: Instead
    notices: tuple[Notice, ...]
    format: Literal["pantry-clock/1"] = "pantry-clock/1"

    @property
    def stops(self) -> tuple[Notice, ...]:
        """The notices that cannot be passed."""
        return tuple(each for each in self.notices if each.level == "stop")


def check(request: CheckRequest) -> CheckOut:
    """Work a recipe out as it stands.

    Parameters: request; its fields carry their units and ranges.
    Returns: the figures of `weigh` for the share of the liquid that was used; `after`, the salt
    after the days of the recipe [%]; `salts`, what other salts by the same spoons would come to;
    `instead`, the recipe put right. What is wrong with it are notices.
    Raises: nothing for a request that could be made.
    Source: mass balance (derived); spoons and counts as in `rules`.

    >>> from pantry_core.meat import Meat
    >>> out = check(CheckRequest.model_validate({
    ...     "profile": "us", "method": "even-brine",
    ...     "meat": {"kind": "pork", "mass_g": 1000, "thickness_mm": 50, "shape": "slab"},
    ...     "lines": [{"name": "water", "amount": 1, "unit": "l"},
    ...               {"name": "salt-table", "amount": 40, "unit": "g"}]}))
    >>> round(out.salt.target_pct, 2), round(out.pickle.salt_pct, 2)
    (2.0, 3.85)
    """
    mix = request.mix(1.0 if request.is_dry else request.used_share)
    weighed = _as_weighed(request, mix)
    in_meat = _that_goes_in(weighed, mix)
    salt = salt_of(weighed, in_meat)
    is_wet = weighed.is_brine or weighed.is_needle_alone
    limits = limits_for(request.profile, request.meat, is_brine=is_wet)
    share = 1.0 if request.is_dry else request.used_share
    meat_g = request.meat.salted_g
    cures = request.cures()
    nitrite = count_nitrite(
        limits,
        nitrite_g=share * sum((cure.nitrite_share or 0.0) * grams for cure, grams in cures),
        meat_g=meat_g,
        pickle_g=mix.pickle,
        is_brine=weighed.is_brine and mix.pickle > 0,
        needle=request.injection_share
        if request.method == "injection" and mix.pickle > 0
        else None,
        is_unknown=any(cure.nitrite_share is None for cure, _ in cures),
    )
    nitrate_g = share * sum(cure.nitrate_share * grams for cure, grams in cures)
    spread_g = meat_g
    if weighed.is_brine:
        spread_g += mix.pickle
    elif weighed.is_needle_alone and mix.pickle > 0:
        nitrate_g *= min(request.injection_share * meat_g / mix.pickle, 1.0)
    nitrate = count_nitrate(
        request.profile, cures[0][0] if cures else None, nitrate_g, spread_g, is_brine=is_wet
    )
    pickle = pickle_of(mix, FRIDGE_C) if is_wet and mix.pickle > 0 else None
    ready = readiness(_to_be_lifted(weighed), mix)
    after = _after(request, weighed, mix, ready)
    salts = tuple(_by_other_salts(request))
    return CheckOut(
        lines=tuple(CheckLine(line.name, line.grams) for line in request.lines),
        pickle=pickle,
        salt=salt,
        nitrite=nitrite,
        nitrate=nitrate,
        needle_g=request.injection_share * meat_g if request.method == "injection" else None,
        ready=ready,
        after=after,
        salts=salts,
        instead=_instead(request, mix),
        notices=check_cautions(
            request, weighed, mix, salt=salt, nitrite=nitrite, nitrate=nitrate, limits=limits,
            ready=ready, after_pct=after.mean_pct if after else None,
            by_salt=[(each.name, each.pickle_pct or each.in_meat_pct) for each in salts],
        ),
    )  # fmt: skip


def _as_weighed(request: CheckRequest, mix: Mix) -> WeighRequest:
    """The recipe as if it had been asked for: what the model and the cautions reckon with.

    The target is what the recipe comes to by the convention.
    """
    meat_g = request.meat.salted_g
    is_alone = request.method == "injection" and not request.cover
    if is_alone:
        going_in = min(request.injection_share * meat_g / mix.pickle, 1.0) if mix.pickle else 0.0
        target = 100.0 * going_in * mix.salt / (meat_g * (1.0 + request.injection_share))
    else:
        target = 100.0 * mix.salt / (meat_g + (0.0 if request.is_dry else mix.water))
    return WeighRequest.model_construct(
        profile=request.profile,
        meat=request.meat,
        method=request.method,
        target_salt_pct=target,
        cover=request.cover,
        water_g=mix.water or None,
        heaped=request.heaped,
        brine_salt_pct=100.0 * mix.salt / mix.pickle if mix.pickle else None,
        injection_share=request.injection_share,
        sauces=mix.sauces,
        temperature_c=FRIDGE_C,
    )


def _to_be_lifted(weighed: WeighRequest) -> WeighRequest:
    """What must be lifted is lifted at the ordinary saltiness."""
    if not weighed.is_lifted:
        return weighed
    return weighed.model_copy(update={"target_salt_pct": ORDINARY_SALT_PCT.value})


def _that_goes_in(weighed: WeighRequest, mix: Mix) -> Mix:
    """Of a needle's pickle what the needle takes, of anything else all of it."""
    if not weighed.is_needle_alone or mix.pickle == 0:
        return mix
    part = min(weighed.injection_share * weighed.meat.salted_g / mix.pickle, 1.0)
    return mix.part(part)


def _after(
    request: CheckRequest, weighed: WeighRequest, mix: Mix, ready: Ready | None
) -> After | None:
    if request.days is None or ready is None or mix.salt == 0:
        return None
    hours = min(24.0 * request.days, MOST_HOURS)
    end: End = ended(
        SaltRequest(
            meat=request.meat,
            temperature_c=FRIDGE_C,
            stages=tuple(stages(weighed, mix, hours, None)),
        )
    )
    return After(end.mean_pct, end.heart_pct, end.rim_pct)


def _by_other_salts(request: CheckRequest) -> Iterator[SaltKind]:
    """The same spoons of every other salt."""
    lines = [each for each in request.lines if each.ingredient.role == "salt"]
    if not any(each.is_by_volume for each in lines):
        return
    for name in SALTS:
        if name == "salt-rock-pink":
            continue
        other = request.model_copy(
            update={
                "lines": tuple(
                    each.model_copy(update={"name": name})
                    if each in lines and each.is_by_volume
                    else each
                    for each in request.lines
                )
            }
        )
        mix = other.mix(1.0 if request.is_dry else request.used_share)
        weighed = _as_weighed(other, mix)
        is_wet = (weighed.is_brine or weighed.is_needle_alone) and mix.pickle > 0
        pickle_pct = 100.0 * mix.salt / mix.pickle if is_wet else None
        salt = salt_of(weighed, _that_goes_in(weighed, mix))
        yield SaltKind(INGREDIENTS[name].name, pickle_pct, salt.in_meat_pct)


def _instead(request: CheckRequest, mix: Mix) -> Instead:
    """The same ingredients for this piece, to the ordinary target and within the limits."""
    asked = WeighRequest.model_validate(_put_right(request, mix))
    answer = weigh(asked)
    return Instead(asked, answer)


def _put_right(request: CheckRequest, mix: Mix) -> dict[str, object]:
    meat, method = request.meat, request.method
    target = ORDINARY_SALT_PCT.value
    water_g = None
    needs_water = method in ("even-brine", "strong-brine") or (
        method == "injection" and request.cover
    )
    if needs_water:
        water_g = max(mix.water, LEAST_WATER * meat.salted_g) if mix.water else meat.salted_g
    elif method == "marinade":
        water_g = mix.water or None
    basis_g = meat.salted_g + (water_g or 0.0)
    most_salt_g = MOST_BY_SAUCES * target / 100.0 * basis_g
    by_sauces = sum(each.salt_g for each in mix.sauces)
    fewer = min(1.0, most_salt_g / by_sauces) if by_sauces else 1.0
    is_wet = needs_water or method in ("injection", "marinade")
    sugar_pct = min(100.0 * mix.sugar / basis_g, 50.0)
    strength = 100.0 * mix.salt / mix.pickle if mix.pickle else 0.0
    if not LEAST_STRENGTH_PCT <= strength <= MOST_STRENGTH_PCT:
        strength = USUAL_STRENGTH_PCT
    return {
        "profile": request.profile,
        "meat": meat.model_dump(),
        "method": method,
        "target_salt_pct": target,
        "water_g": water_g,
        "brine_salt_pct": strength if method == "strong-brine" else None,
        "heaped": request.heaped,
        "injection_share": max(request.injection_share, 0.05),
        "cover": request.cover,
        "sugar_pct": 0.0 if method == "injection" and not request.cover else sugar_pct,
        "cure": _cure_instead(request, is_wet=is_wet),
        "sauces": [
            {"name": each.name, "mass_g": fewer * each.mass_g, "salt_pct": each.salt_pct}
            for each in mix.sauces
        ],
    }


def _cure_instead(request: CheckRequest, *, is_wet: bool) -> dict[str, object] | None:
    """Curing salt no. 1 at what is usual, where the recipe has any and the piece may have it."""
    if not request.cures() or request.heaped or request.meat.kind in ("fish", "vegetable"):
        return None
    usual = limits_for(request.profile, request.meat, is_brine=is_wet).usual
    return {"name": "cure-1", "ingoing_ppm": usual.value}
