"""What a weigh-out must say beside its numbers: one small function for each concern."""

from collections.abc import Iterator, Sequence

from pantry_core.meat import Meat
from pantry_core.mixes.nitrite import nitrite_case
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Line, Nitrite, Pickle, Ready, Salt
from pantry_core.mixes.strength import dissolves
from pantry_core.notice import Notice, notice
from pantry_core.rules.constants import (
    FISH_GUIDE,
    FREEZING_C,
    FRIDGE_GOAL_C,
    FRIDGE_STOP_C,
    MEAT_DENSITY,
    SALTY_CAUTION_PCT,
    SATURATION,
    SCALE_DOUBT,
    THICK_FOR_MASS,
    THIN_FOR_MASS,
)
from pantry_core.rules.profiles import PROFILES, NitriteLimits
from pantry_core.rules.rule import Mark, Source

_LEAST_VOLUME = {"slab": 1.0, "cylinder": 0.785, "ball": 0.524}
"""Least volume of a piece over the cube of its thickest part, by geometry."""

_HANDLING = Source("poison-control advice on nitrite", Mark.MEMORY)
_FISH_CURE = Source("21 CFR 172.175 allows it for few kinds", Mark.MEMORY)
_PRACTICE = Source("", Mark.PRACTICE)
_BALANCE = Source("mass balance", Mark.DERIVED)
_PARASITES = Source("FDA Food Code 3-402.11", Mark.MEMORY)
_MODEL = Source("Fick's second law; Crank, The Mathematics of Diffusion", Mark.MEMORY)
_AUTHORITY = Source("no limit here replaces it", Mark.PRACTICE)


def cautions(
    request: WeighRequest,
    salt_g: float,
    salt_too_much_g: float,
    lines: Sequence[Line],
    salt: Salt,
    nitrite: Nitrite,
    pickle: Pickle | None,
    ready: Ready | None,
) -> tuple[Notice, ...]:
    """All notices for a weigh-out, stops first, then cautions, then notes.

    Parameters: request; salt_g, all sodium chloride [g]; salt_too_much_g, salt over the target that
    the curing salt alone brings [g]; lines, salt, nitrite, pickle and ready of the sheet.
    Returns: notices; each names its basis.
    Raises: nothing.
    """
    found = [
        *_cold(request),
        *_amount_of_salt(request, salt_g, salt_too_much_g),
        *_curing_salt(request, nitrite),
        *_scale(request, lines, nitrite),
        *_eaten_raw(request.meat),
        *geometry(request.meat),
        *_model(request, ready),
        *_notes(request, salt, pickle),
    ]
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


def _amount_of_salt(request: WeighRequest, salt_g: float, too_much_g: float) -> Iterator[Notice]:
    if too_much_g > 0:
        yield notice(
            "stop",
            "salt-below-zero",
            f"The curing salt alone brings {too_much_g:.1f} g more salt than the "
            f"{request.target_salt_pct:g} % asked for. Ask for more salt or for less nitrite.",
            _BALANCE,
        )
    if request.is_brine and request.water_g and not dissolves(salt_g, request.water_g):
        yield notice(
            "stop",
            "undissolved",
            "This much salt will not dissolve in this much water. Take more water or less salt.",
            SATURATION,
        )
    if request.target_salt_pct > SALTY_CAUTION_PCT.value:
        yield notice(
            "caution",
            "very-salty",
            f"{request.target_salt_pct:g} % is saltier than old-fashioned ham; soak it afterwards.",
            SALTY_CAUTION_PCT,
        )


def _curing_salt(request: WeighRequest, nitrite: Nitrite) -> Iterator[Notice]:
    if request.cure is None:
        yield notice(
            "note",
            "uncured",
            "Without curing salt the meat turns grey, and nothing but cold protects it: for a "
            "fridge cure that is then boiled or roasted, not for long cool smoking.",
            _PRACTICE,
        )
        return
    if request.meat.kind == "fish":
        yield notice("stop", "curing-salt-fish", "No curing salt for fish.", _FISH_CURE)
    if request.meat.kind == "vegetable":
        yield notice("stop", "curing-salt-vegetable", "No curing salt for vegetables.", _PRACTICE)
    limits = _limits(request)
    if nitrite.verdict == "over":
        yield notice(
            "stop",
            "nitrite-over",
            f"{nitrite.governing_ppm:.1f} ppm of nitrite would go in; {nitrite.limit_ppm:g} is the "
            "most. Ask for less.",
            limits.most,
        )
    if nitrite.verdict in ("low", "none"):
        yield notice(
            "caution",
            "nitrite-low",
            f"{nitrite.governing_ppm:.0f} ppm may be too little to cure or protect; "
            f"{limits.enough.value:g} is enough.",
            limits.enough,
        )
    yield notice(
        "caution",
        "curing-salt-handling",
        "Curing salt is not table salt and not pink rock salt. Keep it in its labelled packet, "
        "locked away from other salt; never taste it, never measure it by the spoon. A tablespoon "
        "of it can kill: blue lips, call for help.",
        _HANDLING,
    )


def _scale(request: WeighRequest, lines: Sequence[Line], nitrite: Nitrite) -> Iterator[Notice]:
    division = request.scale_division_g
    if division is None:
        return
    for line in lines:
        if line.name == "water" or line.grams == 0:
            continue
        doubt = division / line.grams
        if line.name == "curing-salt":
            yield from _cure_scale(request, nitrite, doubt)
        elif doubt > SCALE_DOUBT.value:
            yield notice(
                "caution",
                "scale-doubt",
                f"A scale that reads to {division:.3g} g doubts {line.grams:.1f} g of {line.name} "
                f"by {100 * doubt:.0f} %. Use a finer scale.",
                SCALE_DOUBT,
            )


def _cure_scale(request: WeighRequest, nitrite: Nitrite, doubt: float) -> Iterator[Notice]:
    with_doubt = nitrite.governing_ppm * (1.0 + doubt)
    if nitrite.verdict != "over" and round(with_doubt, 1) > nitrite.limit_ppm:
        yield notice(
            "stop",
            "scale-doubt-over",
            f"With the doubt of this scale it could be {with_doubt:.0f} ppm of nitrite; "
            f"{nitrite.limit_ppm:g} is the most. Use a finer scale or ask for less.",
            _limits(request).most,
        )
    if doubt > SCALE_DOUBT.value:
        solution = (
            " Or dissolve 10 g of curing salt in 90 g of the water, the same day, and weigh ten "
            "times as much of that; its water comes off the water."
            if request.is_brine
            else ""
        )
        yield notice(
            "caution",
            "scale-doubt",
            f"This scale doubts the curing salt by {100 * doubt:.0f} %. Use a finer one.{solution}",
            SCALE_DOUBT,
        )


def _eaten_raw(meat: Meat) -> Iterator[Notice]:
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


def _model(request: WeighRequest, ready: Ready | None) -> Iterator[Notice]:
    if request.target_salt_pct == 0:
        return
    if ready is None:
        yield notice(
            "caution",
            "no-model",
            "The model does not say when this is ready: it holds from 0 to 15 °C, for brines in "
            "proportion, and for salt that the juice can dissolve.",
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
    if not request.is_brine and (request.water_g is not None or request.brine_salt_pct is not None):
        yield notice(
            "note", "unused", "A dry cure takes no water; what was given is not used.", _PRACTICE
        )
    if request.is_brine:
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


def _limits(request: WeighRequest) -> NitriteLimits:
    case = nitrite_case(request.meat, is_brine=request.is_brine)
    return PROFILES[request.profile].nitrite[case]
