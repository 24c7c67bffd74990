"""What a weigh-out must say beside its numbers: one small function for each concern."""

from collections.abc import Iterator, Sequence

from pantry_core.meat import Meat
from pantry_core.mixes import curing_cautions
from pantry_core.mixes.counting import count_nitrate, limits_for
from pantry_core.mixes.mix import Mix
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Line, Nitrite, Pickle, Ready, Salt
from pantry_core.mixes.strength import dissolves
from pantry_core.notice import Notice, notice
from pantry_core.rules.constants import (
    ENZYME_H,
    FISH_GUIDE,
    FREEZING_C,
    FRIDGE_GOAL_C,
    FRIDGE_STOP_C,
    HERBS_IN_OIL_D,
    MEAT_DENSITY,
    NOT_INTACT_C,
    SALTY_CAUTION_PCT,
    SATURATION,
    THICK_FOR_MASS,
    THIN_FOR_MASS,
)
from pantry_core.rules.ingredients import INGREDIENTS
from pantry_core.rules.rule import Mark, Source

_LEAST_VOLUME = {"slab": 1.0, "cylinder": 0.785, "ball": 0.524}
"""Least volume of a piece over the cube of its thickest part, by geometry."""

_PRACTICE = Source("", Mark.PRACTICE)
_BALANCE = Source("mass balance", Mark.DERIVED)
_PARASITES = Source("FDA Food Code 3-402.11", Mark.MEMORY)
_MODEL = Source("Fick's second law; Crank, The Mathematics of Diffusion", Mark.MEMORY)
_AUTHORITY = Source("no limit here replaces it", Mark.PRACTICE)


def cautions(
    request: WeighRequest,
    mix: Mix,
    lines: Sequence[Line],
    salt: Salt,
    nitrite: Nitrite,
    pickle: Pickle | None,
    ready: Ready | None,
) -> tuple[Notice, ...]:
    """All notices for a weigh-out, stops first, then cautions, then notes.

    Parameters: request and its mix; lines, salt, nitrite, pickle and ready of the sheet.
    Returns: notices; each names its basis.
    Raises: nothing.
    """
    return in_order(
        [
            *_cold(request),
            *_amount_of_salt(request, mix),
            *_curing_salt(request, mix, lines, nitrite),
            *eaten_raw(request.meat),
            *geometry(request.meat),
            *_method(request, mix),
            *sauces([each.name for each in request.sauces]),
            *_model(request, ready),
            *_notes(request, salt, pickle),
        ]
    )


def in_order(found: Sequence[Notice]) -> tuple[Notice, ...]:
    """Stops first, then cautions, then notes."""
    order = ("stop", "caution", "note")
    return tuple(sorted(found, key=lambda each: order.index(each.level)))


def _cold(request: WeighRequest) -> Iterator[Notice]:
    if request.temperature_c > FRIDGE_STOP_C.value:
        yield notice(
            "stop",
            "too-warm",
            f"Planned at {request.temperature_c:g} °C. Above {FRIDGE_STOP_C.value:g} °C the meat "
            f"stays out; cure at {FRIDGE_GOAL_C.value:g} °C or below.",
            FRIDGE_GOAL_C,
        )
    elif request.temperature_c < FREEZING_C.value:
        yield notice(
            "caution",
            "too-cold",
            f"At {request.temperature_c:g} °C meat begins to freeze and the salt stands still.",
            FREEZING_C,
        )
    if request.is_brine:
        yield notice(
            "caution",
            "brine-cold",
            f"The brine is at {FRIDGE_GOAL_C.value:g} °C or below before the meat goes in. "
            "A used brine is never used for another piece.",
            FRIDGE_GOAL_C,
        )
    yield notice(
        "caution",
        "vessel",
        "Glass, food plastic, stoneware or stainless steel. Never bare aluminium, copper or iron.",
        _PRACTICE,
    )


def _amount_of_salt(request: WeighRequest, mix: Mix) -> Iterator[Notice]:
    if mix.salt_too_much > 0:
        who = "curing salt and sauces bring" if mix.sauces else "curing salt alone brings"
        text = (
            f"The {who} {mix.salt_too_much:.1f} g more salt than what was asked for. "
            "Ask for more salt, or take less of them."
        )
        yield notice("stop", "salt-below-zero", text, _BALANCE)
    if mix.water_short > 0:
        text = (
            f"The needle's pickle would hold {mix.water_short:.0f} g more than it may weigh, "
            "without any water. Inject more, or ask for less salt."
        )
        yield notice("stop", "undissolved", text, SATURATION)
    elif is_undissolved(request, mix):
        text = "This much salt will not dissolve in this much water. Take more water or less salt."
        yield notice("stop", "undissolved", text, SATURATION)
    if request.target_salt_pct > SALTY_CAUTION_PCT.value:
        yield notice(
            "caution",
            "very-salty",
            f"{request.target_salt_pct:g} % is saltier than old-fashioned ham; soak it afterwards.",
            SALTY_CAUTION_PCT,
        )


def is_undissolved(request: WeighRequest, mix: Mix) -> bool:
    """Whether there is a liquid, and more salt than its water dissolves."""
    if not (request.is_brine or request.is_needle_alone) or mix.salt == 0:
        return False
    return mix.liquid_water <= 0 or not dissolves(mix.salt, mix.liquid_water)


def _curing_salt(
    request: WeighRequest, mix: Mix, lines: Sequence[Line], nitrite: Nitrite
) -> Iterator[Notice]:
    is_wet = request.is_brine or request.is_needle_alone
    limits = limits_for(request.profile, request.meat, is_brine=is_wet)
    if request.cure is None:
        yield curing_cautions.uncured()
    else:
        yield from curing_cautions.kind_of_cure(
            request.cure, request.meat, is_heaped=request.heaped
        )
        if request.cure.name != "saltpetre":
            yield from curing_cautions.counts(nitrite, limits)
        counted_g = request.meat.salted_g + (mix.pickle if request.is_brine else 0.0)
        yield from curing_cautions.nitrate_count(
            count_nitrate(request.profile, request.cure, mix.nitrate, counted_g, is_brine=is_wet)
        )
    yield from curing_cautions.scale(
        request.scale_division_g, lines, nitrite, limits, has_water=mix.water > 0
    )


def eaten_raw(meat: Meat) -> Iterator[Notice]:
    """What is to be eaten raw, and what must have been done to it."""
    if meat.will_be != "raw" or meat.kind == "vegetable":
        return
    if meat.kind == "fish":
        yield notice(
            "stop",
            "parasites",
            "Fish eaten raw is frozen against parasites first: 7 days at −20 °C. A home freezer at "
            "−18 °C does not do.",
            _PARASITES,
        )
    else:
        yield notice(
            "stop", "raw-meat", "Meat to be eaten raw is out of this tool's scope.", _PRACTICE
        )


def geometry(meat: Meat) -> Iterator[Notice]:
    """Cautions about a thickness that does not go with the mass."""
    if meat.form == "ground":
        return
    volume = meat.salted_g / MEAT_DENSITY.value
    cube = (meat.thickness_mm / 10.0) ** 3
    if volume < THICK_FOR_MASS.value * _LEAST_VOLUME[meat.shape] * cube:
        yield notice(
            "caution",
            "thick-for-mass",
            f"{meat.mass_g:.0f} g is little for a piece {meat.thickness_mm:.0f} mm thick. "
            "Measure again.",
            THICK_FOR_MASS,
        )
    if meat.form == "whole" and volume > THIN_FOR_MASS.value * cube:
        yield notice(
            "caution",
            "thin-for-mass",
            f"{meat.mass_g:.0f} g in one piece {meat.thickness_mm:.0f} mm thick would be a sheet. "
            "Measure again.",
            THIN_FOR_MASS,
        )


def _method(request: WeighRequest, mix: Mix) -> Iterator[Notice]:
    if request.method == "injection":
        text = (
            "Meat that a needle went into is not intact any more: "
            f"{NOT_INTACT_C.value:g} °C inside, never rare."
        )
        yield notice("caution", "not-intact", text, NOT_INTACT_C)
        needle_g = request.injection_share * request.meat.salted_g
        if request.cover and needle_g >= mix.pickle:
            text = f"The needle alone takes {needle_g:.0f} g; make more brine, or inject less."
            yield notice("stop", "needle-short", text, _BALANCE)
    if request.is_lifted:
        text = (
            "It must come out on time: left in, it goes on getting saltier. Rinse it, then let it "
            "rest until the salt has evened out."
        )
        yield notice("caution", "lift-on-time", text, _PRACTICE)
    if request.method == "marinade":
        text = "Raw marinade goes into pot or sauce only boiled first."
        yield notice("caution", "boil-marinade", text, _PRACTICE)


def sauces(names: Sequence[str]) -> Iterator[Notice]:
    """What must be said of fruit that softens, and of oil with raw herbs or garlic."""
    if any(name in INGREDIENTS and INGREDIENTS[name].softens for name in names):
        text = (
            f"Raw enzyme fruit softens meat and then spoils it: {ENZYME_H.value:g} h at the most."
        )
        yield notice("caution", "enzyme-fruit", text, ENZYME_H)
    if "oil" in names:
        text = (
            "Raw garlic or herbs in oil: at 4 °C or below, and no longer than "
            f"{HERBS_IN_OIL_D.value:g} days."
        )
        yield notice("caution", "herbs-in-oil", text, HERBS_IN_OIL_D)


def _model(request: WeighRequest, ready: Ready | None) -> Iterator[Notice]:
    if request.target_salt_pct == 0:
        return
    if ready is None:
        yield notice(
            "caution",
            "no-model",
            "The model does not say when this is ready: it holds from 0 to 15 °C, for brines in "
            "proportion, for salt that dissolves, and for a brine strong enough to get there.",
            _MODEL,
        )
        return
    yield notice(
        "note",
        "model",
        f"A model, not a measurement: ready in {ready.days_low:.1f} to {ready.days_high:.1f} days "
        "in most kitchens. A guide to saltiness and timing, never a safety claim.",
        _MODEL,
    )


def _notes(request: WeighRequest, salt: Salt, pickle: Pickle | None) -> Iterator[Notice]:
    if not request.used_water_g and (request.water_g or request.brine_salt_pct is not None):
        text = "This method takes no water of its own; what was given is not used."
        yield notice("note", "unused", text, _PRACTICE)
    if request.method in ("even-brine", "injection") and request.cover:
        yield notice(
            "note",
            "salt-conventions",
            f"{salt.target_pct:g} % of meat and water is {salt.in_meat_pct:.2f} % of the meat as "
            f"it was, and {salt.water_phase_pct:.2f} % of the water in it.",
            Source(FISH_GUIDE, Mark.MEMORY),
        )
    if pickle is not None and pickle.density_g_ml is None:
        yield notice(
            "note",
            "density-unknown",
            "No density: it is known from 0 to 40 °C and up to saturation.",
            SATURATION,
        )
    yield notice(
        "note",
        "authority",
        "The rules of your local food authority come before this page.",
        _AUTHORITY,
    )
