"""What the form of a dish shows: of a new one, and of one that is stored."""

from pantry_core.routes.customs import CUSTOMS
from pantry_web.feasts.documents import sides_of
from pantry_web.feasts.models import Dish
from pantry_web.weighup.decided import HOURS_PER_DAY, PERCENT
from pantry_web.weighup.forms import USUAL

FIRST: dict[str, object] = {
    "cure": USUAL, "school": "", **{each.id: each.choices[0].id for each in CUSTOMS}
}  # fmt: skip
"""How the form of a new dish begins: no cut, no method."""


def as_it_is(dish: Dish) -> dict[str, object]:
    """A stored dish as the form shows it."""
    piece, cure = dish.piece, dish.cure
    heat = dish.document.get("heat") or {}
    curing_salt = cure.get("curing_salt", USUAL)
    return {
        "name": dish.name,
        "cut": piece["cut"],
        "mass": piece["mass_g"],
        "form": piece.get("form") or "",
        "count": _float(piece.get("count")),
        "thickness": piece.get("thickness_mm"),
        "bone": _times(piece.get("bone_share"), PERCENT),
        "sodium": piece.get("sodium_mg"),
        "purchase": piece.get("purchase", ""),
        "is_frozen": piece.get("frozen", False),
        "is_vacuum": (piece.get("bought") or {}).get("vacuum", False),
        "method": cure.get("method", ""),
        "days": cure.get("lies") or _times(cure.get("days"), HOURS_PER_DAY),
        "strength": cure.get("brine_salt_pct"),
        "salt": cure.get("target_salt_pct"),
        "water": cure.get("water_g"),
        "share": _times(cure.get("injection_share"), PERCENT),
        "sugar": cure.get("sugar_pct"),
        "sauces": "\n".join(_sauce(each) for each in cure.get("sauces", ())),
        "cure": "" if curing_salt is None else curing_salt,
        "nitrite": cure.get("nitrite_pct"),
        "ppm": cure.get("ingoing_ppm"),
        "purpose": cure.get("purpose") or "",
        "vessel": dish.vessel_id,
        "school": cure.get("school") or "",
        "heat": heat.get("way") or "",
        "medium": heat.get("medium_c"),
        "inside": heat.get("inside_c"),
        "take_out": heat.get("take_out_c"),
        **sides_of(dish.document),
    }


def _sauce(sauce: dict[str, object]) -> str:
    return str(
        sauce.get("text") or f"{sauce['mass_g']:.4g} g {str(sauce['name']).replace('-', ' ')}"
    )


def _float(value: float | None) -> float | None:
    return None if value is None else float(value)


def _times(value: float | None, factor: float) -> float | None:
    return None if value is None else factor * value
