"""A dish as its document: what the cook decided, laid into the kitchen's house."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

from pantry_core.dish.house_asked import LearntAsked
from pantry_core.measures.scales import Scale, scale_for
from pantry_core.recipes.lengths import length_said
from pantry_core.routes.customs import CUSTOMS
from pantry_core.rules.cures import CURE_KEYS, CureName
from pantry_core.rules.profiles import ProfileName
from pantry_web.kitchens.models import Kitchen
from pantry_web.pantry.larder import Larder, larder_of
from pantry_web.pantry.models import Vessel
from pantry_web.pantry.vessels import core_vessel

Document = dict[str, Any]

LABELLED: Mapping[CureName, str] = {"nitrite-salt": "nitrite-salt", "celery": "celery-powder"}
"""Curing salts whose strength only a label tells, and what they are in the pantry."""
PLACES_OF_SIDES: Mapping[str, tuple[str, str]] = {
    "vegetables": ("heat", "vegetables"), "storage": ("piece", "storage"),
    "game": ("piece", "wild"), "opened": ("piece", "treatment"),
}  # fmt: skip
"""Where the document has what is no custom of its own."""


@dataclass(frozen=True)
class House:
    """What of a kitchen bears on its dishes, and what its trimming and its cooking leave [-]."""

    profile: ProfileName
    larder: Larder = field(default_factory=Larder)
    learnt: Document = field(default_factory=dict)
    trimmed_left: float = 1.0
    cooked_left: float = 1.0

    def asked(self, vessel: Vessel | None = None) -> Document:
        """The house of a `dish` document, with the vessel of the dish."""
        chosen = core_vessel(vessel) if vessel else None
        return self._of_all | ({"vessel": chosen.model_dump(mode="json")} if chosen else {})

    @cached_property
    def _of_all(self) -> Document:
        """What is the same for all dishes."""
        return {
            "scales": [
                {"name": each.name, "division_g": each.division_g, "capacity_g": each.capacity_g}
                for each in self.larder.scales
            ],
            "packets": [
                {"name": name, "nitrite_pct": packet.nitrite_pct}
                for name, key in CURE_KEYS.items()
                if (packet := self.larder.packets.get(key)) is not None
            ],
            **({"learnt": self.learnt} if self.learnt else {}),
        }

    def with_nothing_learnt(self) -> "House":
        """The same house, by the general figures."""
        return replace(self, learnt={})

    def scale_for(self, grams: float) -> Scale | None:
        """The scale for a line, None when no scale holds it."""
        return scale_for(self.larder.scales, grams)


def house_of(kitchen: Kitchen) -> House:
    """What of a kitchen bears on its dishes."""
    profile: ProfileName = "eu" if kitchen.profile == Kitchen.Profile.EU else "us"
    of_a_dish = {
        name: value for name, value in kitchen.learnt.items() if name in LearntAsked.model_fields
    }
    left = {name: kitchen.learnt.get(name, 1.0) for name in ("trimmed_left", "cooked_left")}
    return House(profile, larder_of(kitchen), of_a_dish, **left)


def dish_document(decided: Document, house: House, vessel: Vessel | None = None) -> Document:
    """The `dish` document of what the cook decided, as JSON data; it may not be a valid one.

    The oven is looked at where the dish stands beside others.
    """
    of_the_house = {"profile": house.profile, "house": house.asked(vessel), "other_heats": False}
    return {**decided, **of_the_house}


def lain_d(cure: Document) -> float | None:
    """How long it lies by the cook's number or words, None where he says neither [d]."""
    lies = cure.get("lies")
    if lies:
        return length_said(lies).usual / 24.0
    days: float | None = cure.get("days")
    return days


def sides_of(document: Document) -> dict[str, str]:
    """How the cook of a stored dish does it, by custom."""
    piece, heat = document.get("piece") or {}, document.get("heat") or {}
    treatment = piece.get("treatment") or ["intact"]
    sides = {
        "vegetables": "late" if heat.get("vegetables") else "none",
        "storage": piece.get("storage", "meal"),
        "game": piece.get("wild") or "farmed",
        "opened": treatment[0],
        **(document.get("customs") or {}),
    }
    usual = {custom.id: custom.choices[0].id for custom in CUSTOMS}
    return usual | sides


def with_waits(document: Document, ids: Mapping[str, str]) -> Document:
    """The document of a dish whose steps wait for the same dishes under other ids.

    Parameters: document; ids, the new one of each dish by the one that it had. A wait for a dish
    that has none is dropped.
    """
    edits = [
        {**edit, "after": [
            {**wait, "dish": ids[wait["dish"]]} for wait in edit["after"] if wait["dish"] in ids
        ]} if edit.get("after") else edit
        for edit in document.get("edits", ())
    ]  # fmt: skip
    return {**document, "edits": edits} if edits else document
