"""The form of a dish: what a cook decides at the scale."""

from dataclasses import asdict, replace
from typing import Any

from django import forms

from pantry_core.meat import MOST_BONE_SHARE, MOST_MEAT_G, MOST_THICKNESS_MM
from pantry_core.mixes.request import (
    MOST_INJECTION_SHARE,
    MOST_SALT_PCT,
    MOST_SUGAR_PCT,
    MOST_WATER_G,
)
from pantry_core.routes.customs import CUSTOMS, Customs
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.thickness import guessed_thickness
from pantry_core.routes.ways import WAYS
from pantry_core.rules.cures import CURING_SALTS, LABEL_MOST
from pantry_web.feasts.mixing import LABELLED, House, Mix, SpiceLine, usual_cure
from pantry_web.feasts.models import Dish
from pantry_web.feasts.sauces import SaucesField
from pantry_web.feasts.ways import GROUPS, cut_choices, way_choices
from pantry_web.fields import NumberField, QuantityField
from pantry_web.forms import KitchenForm
from pantry_web.pantry.models import Vessel

USUAL_CURE = "usual"
CURES = [(USUAL_CURE, "By piece and method"), ("", "None: grey, and kept by cold alone"),
         *((name, salt.name) for name, salt in CURING_SALTS.items())]  # fmt: skip
MOST_PPM = 1000.0


class DishForm(KitchenForm):
    """Cut, weight, thickest part, method, how salty, the cure, and what goes with it."""

    name = forms.CharField(max_length=80, label="Name of the dish")
    cut = forms.ChoiceField(choices=cut_choices, label="Kind and cut")
    mass = QuantityField("mass", MOST_MEAT_G, label="Weight, trimmed")
    thickness = QuantityField("length", MOST_THICKNESS_MM, label="Thickest part", required=False)
    method = forms.ChoiceField(choices=way_choices, label="How", widget=forms.RadioSelect)
    water = QuantityField("water", MOST_WATER_G, label="Water, with its ice", required=False)
    salt = NumberField(0, MOST_SALT_PCT, unit="%", label="How salty")
    strength = NumberField(4, 26, unit="%", label="Strength of the brine", required=False)
    share = NumberField(1, 100 * MOST_INJECTION_SHARE, unit="%", label="By needle", required=False)
    sugar = NumberField(0, MOST_SUGAR_PCT, unit="%", label="Sugar or treacle", required=False)
    sauces = SaucesField(label="Sauces, wine, oil, fruit, dairy", required=False)
    cure = forms.ChoiceField(choices=CURES, label="Curing salt", required=False)
    nitrite = NumberField(
        0.05, 100 * LABEL_MOST.value, unit="%", label="Nitrite, by its label", required=False
    )
    ppm = NumberField(0, MOST_PPM, unit="ppm", label="Nitrite to go in", required=False)
    bone = NumberField(0, 100 * MOST_BONE_SHARE, unit="%", label="Bone", required=False)
    vessel = forms.ModelChoiceField(
        Vessel.objects.none(), label="Vessel", required=False, empty_label="not chosen yet"
    )
    school = forms.ChoiceField(choices=Dish.School.choices, label="Whose time to go by")
    is_frozen = forms.BooleanField(label="Bought frozen", required=False)

    def __init__(self, *args: Any, house: House, vessels: Any, cups: str, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.house = house
        sauces = self.fields["sauces"]
        if isinstance(sauces, SaucesField):
            sauces.larder, sauces.cups = house.larder, cups
        vessel = self.fields["vessel"]
        if isinstance(vessel, forms.ModelChoiceField):
            vessel.queryset = vessels
        for custom in CUSTOMS:
            self.fields[custom.id] = forms.ChoiceField(
                choices=[(side.id, side.name) for side in custom.choices],
                label=custom.name,
                required=False,
            )

    @property
    def grouped_methods(self) -> list[tuple[str, list[tuple[Any, Any]]]]:
        """The radio buttons with their ways, by group."""
        radios = [(each, WAYS[each.data["value"]]) for each in self["method"]]
        return [(group, [pair for pair in radios if pair[1].group == group]) for group in GROUPS]

    @property
    def switches(self) -> list[Any]:
        """The fields of what cooks disagree about."""
        return [self[custom.id] for custom in CUSTOMS]

    def clean(self) -> dict[str, Any]:
        """What a method needs, and what it does not go with."""
        cleaned = self.cleaned_data
        way = WAYS.get(cleaned.get("method", ""))
        cut = CUTS.get(cleaned.get("cut", ""))
        if way is None:
            return cleaned
        if way.needs_water and "water" not in self.errors and cleaned.get("water") is None:
            self.add_error("water", "A brine needs its water; write it like 3 l.")
        if cut is not None and (way.group == "Side") != (cut.kind == "vegetable"):
            if way.group == "Side":
                self.add_error("method", "A quick pickle is for vegetables; any other would do.")
            elif way.group == "Needle":
                self.add_error("method", "A needle is for meat; a quick pickle would do.")
        if cleaned.get("cure") == "nitrite-salt" and "nitrite" not in self.errors:
            known = self.house.larder.packets.get("nitrite-salt")
            if cleaned.get("nitrite") is None and (known is None or known.nitrite_pct is None):
                self.add_error(
                    "nitrite",
                    "A nitrite salt needs the strength on its label; 0.4 to 0.9 would do.",
                )
        return cleaned

    def is_valid_but_for_its_name(self) -> bool:
        """Whether enough is known to weigh out."""
        return self.is_bound and not set(self.errors) - {"name"}

    def mix(self, spices: tuple[SpiceLine, ...] = ()) -> Mix:
        """What was decided; call it when the form is valid, but for its name."""
        cleaned = self.cleaned_data
        cut, way = CUTS[cleaned["cut"]], WAYS[cleaned["method"]]
        bone_pct: float | None = self.kept("bone")
        mass_g: float = self.kept("mass")
        measured_mm: float | None = self.kept("thickness")
        share_pct: float | None = self.kept("share")
        is_usual = cleaned["cure"] == USUAL_CURE
        cure = None if is_usual else cleaned["cure"] or None
        sides = {each.id: cleaned[each.id] for each in CUSTOMS if cleaned.get(each.id)}
        mix = Mix(
            cut=cut.id,
            mass_g=mass_g,
            thickness_mm=measured_mm or guessed_thickness(cut, mass_g).mm,
            is_thickness_guessed=measured_mm is None,
            bone_share=cut.bone_share if bone_pct is None else bone_pct / 100.0,
            is_frozen=cleaned["is_frozen"],
            method=way.id,
            target_salt_pct=self.kept("salt"),
            sugar_pct=self.kept("sugar") or 0.0,
            water_g=self.kept("water") if way.has_water else None,
            cure=cure,
            nitrite_pct=self.kept("nitrite") if cure in LABELLED else None,
            ingoing_ppm=self.kept("ppm") if cleaned["cure"] else None,
            brine_salt_pct=self.kept("strength") if way.method == "strong-brine" else None,
            injection_share=share_pct / 100.0
            if share_pct is not None and way.method == "injection"
            else None,
            sauces=cleaned["sauces"] or (),
            spices=spices,
            school=cleaned["school"],
            customs=Customs(**sides),
        )
        return replace(mix, cure=usual_cure(mix, self.house)) if is_usual else mix


def as_it_is(dish: Dish) -> dict[str, object]:
    """A stored dish as the form shows it."""
    share = dish.injection_share
    return {
        "name": dish.name,
        "cut": dish.cut,
        "mass": dish.mass_g,
        "thickness": None if dish.is_thickness_guessed else dish.thickness_mm,
        "method": dish.method,
        "water": dish.water_g,
        "salt": dish.target_salt_pct,
        "strength": dish.brine_salt_pct,
        "share": None if share is None else 100.0 * share,
        "sugar": dish.sugar_pct,
        "sauces": "\n".join(each["text"] for each in dish.sauces),
        "bone": 100.0 * dish.bone_share,
        "cure": dish.cure,
        "nitrite": dish.nitrite_pct,
        "ppm": dish.ingoing_ppm,
        "vessel": dish.vessel_id,
        "school": dish.school,
        "is_frozen": dish.is_frozen,
        **asdict(Customs()),
        **dish.customs,
    }


FIRST = {
    "method": "even-brine",
    "salt": 2.0,
    "cut": "gammon-flat",
    "cure": USUAL_CURE,
    "school": "model",
    **asdict(Customs()),
}
"""How the form of a new dish begins."""
