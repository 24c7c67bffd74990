"""What a mix must say beside its numbers: one small function for each concern."""

from collections.abc import Iterator, Mapping, Sequence

from pantry_core.measures.said import days_between
from pantry_core.meat import Meat
from pantry_core.mixes.curing_cautions import curing_salts, scale
from pantry_core.mixes.heat_cautions import done, eaten_raw, smoked
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.keeping import herbs_in_oil, kept_raw, softening
from pantry_core.mixes.mix import Mix
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Line
from pantry_core.mixes.seasoning import seasoned
from pantry_core.mixes.standing import AUTHORITY, BRINE_COLD, VESSEL
from pantry_core.mixes.strength import dissolves
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius, Grams, Millimetres, Percent
from pantry_core.rules.constants import (
    FISH_GUIDE,
    FREEZING_C,
    FRIDGE_GOAL_C,
    FRIDGE_STOP_C,
    MEAT_DENSITY,
    SALTY_CAUTION_PCT,
    SATURATION,
    THICK_FOR_MASS,
    THIN_EXCESS,
    THIN_FOR_MASS,
)
from pantry_core.rules.profiles import PROFILES
from pantry_core.rules.rule import Mark, Rule, Source
from pantry_core.text import listed, say

_LEAST_VOLUME = {"slab": 1.0, "cylinder": 0.785, "ball": 0.524}
"""Least volume of a piece over the cube of its thickest part, by geometry."""

_PRACTICE = Source("", Mark.PRACTICE)
PASTE_LIQUID = Rule("paste-liquid", 0.1, "g water per g meat", "less covers nothing", Mark.PRACTICE)
_BALANCE = Source("mass balance", Mark.DERIVED)
_MODEL = Source("Fick's second law; Crank, The Mathematics of Diffusion", Mark.MEMORY)


def cautions(judged: Judged, lines: Sequence[Line]) -> tuple[Notice, ...]:
    """All notices for a weigh-out, stops first, then cautions, then notes.

    Parameters: judged, what the mix comes to; lines of the sheet.
    Returns: notices; each names its basis.
    Raises: nothing.
    """
    request = judged.request
    return in_order(
        [
            *_planned_cold(request),
            *_amount_of_salt(request, judged.mix),
            *scale(judged, lines),
            *of_any_mix(judged, {each.name: each.mass_g for each in request.sauces}),
            *_model(judged),
            *_notes(judged),
        ]
    )


def of_any_mix(judged: Judged, masses: Mapping[str, float | None]) -> Iterator[Notice]:
    """What is said of a mix alike, whether it was asked for or found as a recipe.

    Parameters: judged; masses of the sauces, fruits, oils and herbs in it, by name, None where
    nobody knows one [g].
    """
    request = judged.request
    yield from curing_salts(judged)
    yield from _handled(request)
    yield from _needle(judged)
    yield from kept_raw(request, judged.raw, judged.wait)
    yield from seasoned(judged)
    yield from done(judged)
    yield from smoked(judged)
    yield from eaten_raw(request)
    yield from geometry(request.meat)
    yield from softening(request, masses)
    yield from herbs_in_oil(request, masses, judged.mix.water_phase_pct)
    yield AUTHORITY


def in_order(found: Sequence[Notice]) -> tuple[Notice, ...]:
    """Stops first, then cautions, then notes."""
    order = ("stop", "caution", "note")
    return tuple(sorted(found, key=lambda each: order.index(each.level)))


def _planned_cold(request: WeighRequest) -> Iterator[Notice]:
    planned_c = request.temperature_c
    if planned_c > FRIDGE_STOP_C.value:
        yield notice(
            "stop",
            "too-warm",
            say(
                "Planned at {planned_c}. Above {fridge_stop_c} the meat stays out; cure at "
                "{fridge_goal_c} or below.",
                planned_c=Celsius(planned_c),
                fridge_stop_c=Celsius(FRIDGE_STOP_C.value),
                fridge_goal_c=Celsius(FRIDGE_GOAL_C.value),
            ),
            FRIDGE_STOP_C,
        )
    elif planned_c > PROFILES[request.profile].fridge.value:
        yield notice(
            "caution",
            "fridge-warm",
            say(
                "Planned at {planned_c}: turn the fridge down to {fridge_goal_c} or below.",
                planned_c=Celsius(planned_c, 1),
                fridge_goal_c=Celsius(FRIDGE_GOAL_C.value),
            ),
            PROFILES[request.profile].fridge,
        )
    elif planned_c < FREEZING_C.value:
        yield notice(
            "caution",
            "too-cold",
            say(
                "At {planned_c} meat begins to freeze and the salt stands still.",
                planned_c=Celsius(planned_c),
            ),
            FREEZING_C,
        )


def _handled(request: WeighRequest) -> Iterator[Notice]:
    """What is said of cold, vessel, used brine and raw marinade each time."""
    if request.is_wet:
        yield BRINE_COLD
    yield VESSEL
    if request.is_lifted:
        text = (
            "It must come out on time: left in, it goes on getting saltier. Rinse it, then let it "
            "rest until the salt has evened out."
        )
        yield notice("note", "lift-on-time", text, _PRACTICE)
    if request.method == "marinade" and request.meat.kind != "vegetable":
        text = "Boil used marinade before cooking with it."
        yield notice("note", "boil-marinade", text, _PRACTICE)


def _amount_of_salt(request: WeighRequest, mix: Mix) -> Iterator[Notice]:
    if mix.salt_too_much > 0:
        yield _too_much_salt(request, mix)
    if mix.water_short > 0:
        text = say(
            "The needle's pickle would hold {water_short} more than it may weigh, without "
            "any water. Inject more, or ask for less salt.",
            water_short=Grams(mix.water_short, 0),
        )
        yield notice("stop", "undissolved", text, SATURATION)
    else:
        yield from undissolved(request, mix, is_cured=request.cure is not None)
    is_salty = request.target_salt_pct > SALTY_CAUTION_PCT.value
    if is_salty and not request.meat.is_kept_smoked:
        yield notice(
            "caution",
            "very-salty",
            say(
                "{target_salt_pct} is saltier than old-fashioned ham; soak it afterwards.",
                target_salt_pct=Percent(request.target_salt_pct, 1),
            ),
            SALTY_CAUTION_PCT,
        )


def _too_much_salt(request: WeighRequest, mix: Mix) -> Notice:
    """Salt that comes in over what was asked for: who brings it, and whether it matters."""
    salty = [each.name.replace("-", " ") for each in mix.sauces if each.salt_g > 0]
    has_salty_cure = mix.cure is not None and mix.curing_salt * mix.cure.salt_share > 0
    who = [
        *(["the curing salt"] if has_salty_cure else []),
        *salty,
        *(["the meat itself, sold salted"] if request.meat.own_salt_g > 0 else []),
    ]
    text = say(
        "{salt_too_much} more salt than was asked for would come in by {who} alone",
        who=listed(who),
        salt_too_much=Grams(mix.salt_too_much, 1),
    )
    if mix.salt_too_much <= THIN_EXCESS.value * request.meat.salted_g:
        return notice(
            "note", "salt-below-zero", say("{text}: too little to taste.", text=text), THIN_EXCESS
        )
    stop = say("{text}. Ask for more salt, or take less of it.", text=text)
    return notice("stop", "salt-below-zero", stop, _BALANCE)


def undissolved(request: WeighRequest, mix: Mix, *, is_cured: bool) -> Iterator[Notice]:
    """Whether there is a liquid, and more salt than its water dissolves.

    Parameters: request; its mix; is_cured, whether curing salt is in it, which must all dissolve.
    """
    if not request.is_wet or mix.salt == 0 or (_is_paste(request, mix) and not is_cured):
        return
    if mix.liquid_water <= 0 or not dissolves(mix.salt, mix.liquid_water):
        text = "This much salt will not dissolve in this much water. Take more water or less salt."
        yield notice("stop" if is_cured else "caution", "undissolved", text, SATURATION)


def _is_paste(request: WeighRequest, mix: Mix) -> bool:
    """Whether a marinade has too little liquid to lie around the piece: it need not dissolve."""
    least_g = PASTE_LIQUID.value * request.meat.salted_g
    return request.method == "marinade" and mix.liquid_water < least_g


def geometry(meat: Meat) -> Iterator[Notice]:
    """Cautions about a thickness that does not go with the mass."""
    if meat.form == "ground":
        return
    volume = meat.salted_g / meat.count / MEAT_DENSITY.value
    cube = (meat.thickness_mm / 10.0) ** 3
    if volume < THICK_FOR_MASS.value * _LEAST_VOLUME[meat.shape] * cube:
        yield notice(
            "caution",
            "thick-for-mass",
            say(
                "{mass_g} is little for a piece {thickness_mm} thick. Measure again.",
                mass_g=Grams(meat.mass_g / meat.count, 0),
                thickness_mm=Millimetres(meat.thickness_mm, 0),
            ),
            THICK_FOR_MASS,
        )
    if meat.form == "whole" and volume > THIN_FOR_MASS.value * cube:
        yield notice(
            "caution",
            "thin-for-mass",
            say(
                "{mass_g} in one piece {thickness_mm} thick would be a sheet. Measure again.",
                mass_g=Grams(meat.mass_g, 0),
                thickness_mm=Millimetres(meat.thickness_mm, 0),
            ),
            THIN_FOR_MASS,
        )


def _needle(judged: Judged) -> Iterator[Notice]:
    needle_g, pickle_g = judged.needle_g, judged.mix.pickle
    if needle_g is None:
        return
    is_short = needle_g >= pickle_g if judged.request.cover else needle_g > 1.0001 * pickle_g
    if is_short:
        text = say(
            "The needle would take {needle_g}, and there are {pickle_g} in all. Make more "
            "brine, or inject less.",
            needle_g=Grams(needle_g, 0),
            pickle_g=Grams(pickle_g, 0),
        )
        yield notice("stop", "needle-short", text, _BALANCE)


def _model(judged: Judged) -> Iterator[Notice]:
    if judged.request.target_salt_pct == 0 or judged.request.seasons or judged.waits_too_long:
        return
    if judged.request.meat.form == "ground":
        return
    ready = judged.ready
    if ready is None:
        yield notice(
            "caution",
            "no-model",
            say(
                "The model does not say when this is ready: it holds from {0 to 15 °C}, for "
                "brines in proportion, for salt that dissolves, and for a brine strong enough "
                "to get there."
            ),
            _MODEL,
        )
        return
    yield notice(
        "note",
        "model",
        say(
            "A model, not a measurement: ready in {days_between} in most kitchens. A guide to "
            "saltiness and timing, never a safety claim.",
            days_between=days_between(ready.days_low, ready.days_high),
        ),
        _MODEL,
    )


def _notes(judged: Judged) -> Iterator[Notice]:
    request, salt, pickle = judged.request, judged.salt, judged.pickle
    if not request.used_water_g and (request.water_g or request.brine_salt_pct is not None):
        text = "This method takes no water of its own; what was given is not used."
        yield notice("note", "unused", text, _PRACTICE)
    if request.method in ("even-brine", "injection") and request.cover:
        yield notice(
            "note",
            "salt-conventions",
            say(
                "{target_pct} of meat and water is {in_meat_pct} of the meat as it was, and "
                "{water_phase_pct} of the water in it.",
                target_pct=Percent(salt.target_pct),
                in_meat_pct=Percent(salt.in_meat_pct, 1),
                water_phase_pct=Percent(salt.water_phase_pct, 1),
            ),
            Source(FISH_GUIDE, Mark.MEMORY),
        )
    if pickle is not None and pickle.density_g_ml is None:
        yield notice(
            "note",
            "density-unknown",
            say("No density: it is known from {0 to 40 °C} and up to saturation."),
            SATURATION,
        )
