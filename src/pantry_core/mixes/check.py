"""A recipe as it was found, worked out for a piece: strength, salt, nitrite, what is wrong."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from pantry_core.mixes.check_cautions import check_cautions
from pantry_core.mixes.instead import Instead, offered, put_right
from pantry_core.mixes.judged import Judged, judge_mix, salt_of
from pantry_core.mixes.mix import Mix
from pantry_core.mixes.readiness import readiness
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Nitrate, Nitrite, Pickle, Proposal, Ready, Salt
from pantry_core.mixes.uptake import after_days
from pantry_core.notice import Notice
from pantry_core.rules.constants import ORDINARY_SALT_PCT
from pantry_core.rules.ingredients import INGREDIENTS, SALTS

FRIDGE_C = 4.0


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
    offer: Instead | None
    notices: tuple[Notice, ...]
    inside_c: float | None = None
    proposals: tuple[Proposal, ...] = ()
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
    `instead`, the recipe put right with the cook's own packet; `offer`, where celery powder or
    saltpetre was meant to cure, what no. 1 would be. What is wrong with it are notices.
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
    weighed = as_asked(request)
    return check_of(request, judged_recipe(request, weighed))


def judged_recipe(request: CheckRequest, weighed: WeighRequest) -> Judged:
    """What a recipe comes to as it is written.

    Parameters: request; weighed, what is asked for by it, with the days that it really lies.
    Returns: salt, counts and wait of its own lines, of the share that is used; what must be lifted
    is lifted at the ordinary saltiness.
    Raises: nothing for a request that could be made.
    Source: mass balance (derived); spoons and counts as in `rules`.
    """
    share = 1.0 if request.is_dry else request.used_share
    mix = request.mix(share)
    lifted = _to_be_lifted(weighed)
    judged = judge_mix(
        lifted,
        mix,
        tuple((cure, share * grams) for cure, grams in request.cures()),
        readiness(lifted, mix),
        _that_goes_in(weighed, mix),
        is_unknown=request.has_unweighed_cure,
    )
    return replace(judged, salt=replace(judged.salt, target_pct=weighed.target_salt_pct))


def check_of(request: CheckRequest, judged: Judged) -> CheckOut:
    """The answer of `check` for what a recipe comes to.

    Parameters: request; judged, what it comes to.
    Errors as in `check`.
    """
    mix = judged.mix
    end = after_days(judged.request, mix)
    salts = tuple(_by_other_salts(request))
    by_salt = [(each.name, each.pickle_pct or each.in_meat_pct) for each in salts]
    return CheckOut(
        lines=tuple(CheckLine(line.name, line.grams) for line in request.lines),
        pickle=judged.pickle,
        salt=judged.salt,
        nitrite=judged.nitrite,
        nitrate=judged.nitrate,
        needle_g=judged.needle_g,
        ready=judged.ready,
        after=After(end.mean_pct, end.heart_pct, end.rim_pct) if end else None,
        salts=salts,
        instead=put_right(request, mix),
        offer=offered(request, mix),
        notices=check_cautions(request, judged, by_salt=by_salt),
        inside_c=judged.inside.value if judged.inside else None,
    )


def as_asked(request: CheckRequest) -> WeighRequest:
    """A recipe as if it had been asked for by its target, for the way of its salt.

    Parameters: request.
    Returns: a `weigh` request that comes to the same salt, all of it plain.
    Raises: nothing for a request that could be made.
    Source: mass balance (derived).
    """
    return _as_weighed(request, request.mix(1.0 if request.is_dry else request.used_share))


def _as_weighed(request: CheckRequest, mix: Mix) -> WeighRequest:
    """The recipe as if it had been asked for: what the model and the cautions reckon with.

    The target is what the recipe comes to by the convention.
    """
    meat_g = request.meat.salted_g
    is_alone = request.method == "injection" and not request.cover
    if is_alone:
        going_in = min(request.injection_share * meat_g / mix.pickle, 1.0) if mix.pickle else 0.0
        held_g = going_in * mix.salt + request.meat.own_salt_g
        target = 100.0 * held_g / (meat_g * (1.0 + request.injection_share))
    else:
        all_salt_g = mix.salt + request.meat.own_salt_g
        target = 100.0 * all_salt_g / (meat_g + (0.0 if request.is_dry else mix.water))
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
        days=request.days,
        treatment=request.treatment,
        purpose=request.purpose,
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
