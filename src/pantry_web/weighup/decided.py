"""From the form of a dish to the parts of its document that the cook decides."""

from typing import Any

from pantry_core.dish.written import BY_THE_RECIPE
from pantry_core.routes.customs import CUSTOMS
from pantry_core.routes.cuts import CUTS, Cut
from pantry_core.routes.ways import WAYS
from pantry_web.feasts.documents import LABELLED, PLACES_OF_SIDES, Document
from pantry_web.weighup.forms import USUAL, DishForm

HOURS_PER_DAY, PERCENT = 24.0, 100.0
OF_THE_HEAT = {"medium": "medium_c", "inside": "inside_c", "take_out": "take_out_c"}
"""Temperatures of the form by their fields of the document."""
OF_AN_AIM = (*BY_THE_RECIPE, "curing_salt", "nitrite_pct")
"""What of the cure a recipe says itself."""


def piece_of(form: DishForm) -> Document | None:
    """The piece of the document, once cut and weight are known; None before.

    Parameters: form, validated; wrong fields count as empty.
    """
    typed = form.cleaned_data
    cut = CUTS.get(typed.get("cut", ""))
    if cut is None or typed.get("mass") is None:
        return None
    bone_pct = _number(form, "bone")
    given = {
        "form": typed.get("form"),
        "count": typed.get("count"),
        "sodium_mg": typed.get("sodium"),
        "thickness_mm": _number(form, "thickness"),
        "frozen": typed.get("is_frozen"),
        "purchase": typed.get("purchase"),
        "bought": {"vacuum": True} if typed.get("is_vacuum") else None,
        **_sides(typed, cut),
    }
    piece = {"cut": cut.id, "mass_g": form.kept("mass")}
    if bone_pct is not None:
        piece["bone_share"] = bone_pct / PERCENT
    return piece | {name: value for name, value in given.items() if value}


def _sides(typed: dict[str, Any], cut: Cut) -> Document:
    """What of the customs belongs to the piece."""
    opened, fish = typed.get("opened"), typed.get("fish")
    is_fish, will_be = cut.kind == "fish", None
    if is_fish and fish not in ("", "cooked", None):
        will_be = "raw"
    elif typed.get("heat") == "smoke" and cut.will_be is None:
        will_be = "smoked"
    return {
        "wild": typed.get("game") if cut.kind == "game" and typed.get("game") != "farmed" else None,
        "storage": typed.get("storage") if is_fish else None,
        "treatment": None if opened in ("", "intact", None) else [opened],
        "will_be": will_be,
    }


def decided(form: DishForm, stored: Document) -> Document:
    """What was decided, as parts of the `dish` document.

    Parameters: form, valid but for a name; stored, the document so far, whose recipe and spices
    stay.
    """
    typed = form.cleaned_data
    heat: Document = {"way": typed["heat"]} if typed["heat"] else {}
    for name, key in OF_THE_HEAT.items():
        if typed.get(name) is not None:
            heat[key] = typed[name]
    if typed.get("vegetables") == "late":
        heat["vegetables"] = True
    customs = {
        custom.id: typed[custom.id]
        for custom in CUSTOMS
        if custom.id not in PLACES_OF_SIDES and typed.get(custom.id)
    }
    recipe, spices = stored.get("recipe"), stored.get("cure", {}).get("spices", [])
    cure = _cure(form, spices)
    if recipe:
        cure = {name: value for name, value in cure.items() if name not in OF_AN_AIM}
    found = {"piece": piece_of(form), "cure": cure, "heat": heat, "customs": customs}
    return found | ({"recipe": recipe} if recipe else {})


def _cure(form: DishForm, spices: list[Document]) -> Document:
    typed = form.cleaned_data
    way = WAYS.get(typed["method"])
    lies = form.words_of("days") if typed.get("days") is not None else None
    hours = _number(form, "days") if lies is None else None
    share_pct = _number(form, "share")
    given = {
        "target_salt_pct": _number(form, "salt"),
        "days": None if hours is None else hours / HOURS_PER_DAY,
        "lies": lies,
        "purpose": typed["purpose"] or None,
        "school": typed["school"] or None,
        "ingoing_ppm": _number(form, "ppm"),
        "nitrite_pct": _number(form, "nitrite") if typed["cure"] in LABELLED else None,
        "sauces": typed["sauces"] or None,
        "spices": spices or None,
    }
    if way is not None:
        given |= {
            "water_g": _number(form, "water") if way.has_water else None,
            "brine_salt_pct": _number(form, "strength") if "strength" in way.takes else None,
        }
        if "needle" in way.takes and share_pct is not None:
            given["injection_share"] = share_pct / PERCENT
    cure: Document = {"method": typed["method"], "sugar_pct": _number(form, "sugar") or 0.0}
    if typed["cure"] != USUAL:
        cure["curing_salt"] = typed["cure"] or None
    return cure | {name: value for name, value in given.items() if value is not None}


def _number(form: DishForm, name: str) -> float | None:
    """What was typed, or the exact value where it was left as shown; None for nothing or wrong."""
    if form.cleaned_data.get(name) is None:
        return None
    number: float = form.kept(name)
    return number
