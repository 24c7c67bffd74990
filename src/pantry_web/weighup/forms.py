"""The form of a dish: what a cook decides at the scale."""

from typing import Any

from django import forms

from pantry_core.meat import MOST_BONE_SHARE, MOST_MEAT_G, MOST_THICKNESS_MM
from pantry_core.mixes.request import MOST_SALT_PCT, MOST_SUGAR_PCT, MOST_WATER_G
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.thickness import guessed_thickness
from pantry_web.feasts.mixing import Mix
from pantry_web.feasts.models import Dish
from pantry_web.fields import NumberField, QuantityField
from pantry_web.forms import KitchenForm

KIND_NAMES = {
    "pork": "Pork",
    "beef": "Beef",
    "lamb": "Lamb and goat",
    "game": "Game",
    "poultry": "Poultry",
    "fish": "Fish",
    "vegetable": "Vegetable",
}

METHOD_SAYINGS = {
    "even-brine": "salt sized to meat and water; it cannot oversalt, but takes long",
    "dry-cure": "rubbed on, bagged, turned daily; no water",
    "dry-brine": "salted ahead, uncovered; 12 to 72 h, for birds and roasts with skin",
}


def _cut_choices() -> list[tuple[str, list[tuple[str, str]]]]:
    return [
        (name, [(cut.id, cut.name) for cut in CUTS.values() if cut.kind == kind])
        for kind, name in KIND_NAMES.items()
    ]


class DishForm(KitchenForm):
    """Name, cut, weight, thickest part, method, how salty, pink or not, and what goes with it."""

    name = forms.CharField(max_length=80, label="Name of the dish")
    cut = forms.ChoiceField(choices=_cut_choices, label="Kind and cut")
    mass = QuantityField("mass", MOST_MEAT_G, label="Weight, trimmed")
    thickness = QuantityField("length", MOST_THICKNESS_MM, label="Thickest part", required=False)
    method = forms.ChoiceField(choices=Dish.Method.choices, label="How", widget=forms.RadioSelect)
    water = QuantityField("water", MOST_WATER_G, label="Water, with its ice", required=False)
    salt = NumberField(0, MOST_SALT_PCT, unit="%", label="How salty")
    sugar = NumberField(0, MOST_SUGAR_PCT, unit="%", label="Sugar or treacle", required=False)
    bone = NumberField(0, 100 * MOST_BONE_SHARE, unit="%", label="Bone", required=False)
    school = forms.ChoiceField(choices=Dish.School.choices, label="Whose time to go by")
    is_pink = forms.BooleanField(label="Pink, with curing salt no. 1", required=False)
    is_frozen = forms.BooleanField(label="Bought frozen", required=False)

    def clean(self) -> dict[str, Any]:
        """An even brine needs its water."""
        is_brine = self.cleaned_data.get("method") == "even-brine"
        if is_brine and "water" not in self.errors and self.cleaned_data.get("water") is None:
            self.add_error("water", "An even brine needs its water; write it like 3 l.")
        return self.cleaned_data

    def is_valid_but_for_its_name(self) -> bool:
        """Whether enough is known to weigh out."""
        return self.is_bound and not set(self.errors) - {"name"}

    def mix(self) -> Mix:
        """What was decided; call it when the form is valid, but for its name."""
        cleaned = self.cleaned_data
        cut = CUTS[cleaned["cut"]]
        bone_pct: float | None = self.kept("bone")
        mass_g: float = self.kept("mass")
        measured_mm: float | None = self.kept("thickness")
        return Mix(
            cut=cut.id,
            mass_g=mass_g,
            thickness_mm=measured_mm or guessed_thickness(cut, mass_g).mm,
            is_thickness_guessed=measured_mm is None,
            bone_share=cut.bone_share if bone_pct is None else bone_pct / 100.0,
            is_frozen=cleaned["is_frozen"],
            method=cleaned["method"],
            target_salt_pct=self.kept("salt"),
            sugar_pct=self.kept("sugar") or 0.0,
            water_g=self.kept("water") if cleaned["method"] == "even-brine" else None,
            is_pink=cleaned["is_pink"],
            school=cleaned["school"],
        )


def as_it_is(dish: Dish) -> dict[str, object]:
    """A stored dish as the form shows it."""
    return {
        "name": dish.name,
        "cut": dish.cut,
        "mass": dish.mass_g,
        "thickness": None if dish.is_thickness_guessed else dish.thickness_mm,
        "method": dish.method,
        "water": dish.water_g,
        "salt": dish.target_salt_pct,
        "sugar": dish.sugar_pct,
        "bone": 100.0 * dish.bone_share,
        "is_pink": dish.is_pink,
        "school": dish.school,
        "is_frozen": dish.is_frozen,
    }


FIRST = {
    "method": "even-brine",
    "salt": 2.0,
    "cut": "gammon-flat",
    "is_pink": True,
    "school": "model",
}
"""How the form of a new dish begins."""
