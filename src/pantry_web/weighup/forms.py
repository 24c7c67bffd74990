"""The form of a dish, in the order in which a cook thinks: what, how heavy, how, how salty."""

from typing import Any

from django import forms
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_core.meat import MOST_BONE_SHARE, MOST_PIECES, MOST_SODIUM_MG
from pantry_core.mixes.request import (
    MOST_INJECTION_SHARE,
    MOST_SALT_PCT,
    MOST_SUGAR_PCT,
    MOST_WATER_G,
)
from pantry_core.routes.customs import CUSTOMS, Custom
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.heats import HEATS
from pantry_core.routes.ways import WAYS
from pantry_core.rules.cures import CURING_SALTS, LABEL_MOST
from pantry_web.feasts.choices import FORMS, SCHOOLS, cut_choices, method_choices
from pantry_web.feasts.documents import House
from pantry_web.feasts.sauces import SaucesField
from pantry_web.fields import (
    DurationField,
    MeatField,
    NumberField,
    QuantityField,
    TemperatureField,
)
from pantry_web.forms import KitchenForm
from pantry_web.pantry.models import Vessel

USUAL = "usual"
CURES = [(USUAL, _("By piece and method")), ("", _("None: grey, and kept by cold alone")),
         *((name, salt.name) for name, salt in CURING_SALTS.items())]  # fmt: skip
PURPOSES = [
    ("", _("By the piece")),
    ("season", _("It seasons")),
    ("through", _("It salts through")),
]
MOST_PPM, MOST_H, MOST_THICKNESS_MM = 1000.0, 24.0 * 365, 400.0


class CustomField(forms.ChoiceField):
    """One side of what cooks disagree about; what each side costs stands with it."""

    def __init__(self, custom: Custom) -> None:
        self.sides = custom.choices
        choices = [(side.id, side.name) for side in custom.choices]
        super().__init__(choices=choices, label=custom.name, required=False)


class DishForm(KitchenForm):
    """Cut, weight, method; days or strength; how salty, the cure, and what goes with it."""

    name = forms.CharField(max_length=80, label=_("Name of the dish"), required=False)
    cut = forms.ChoiceField(choices=cut_choices, label=_("What is it?"))
    mass = MeatField(label=_("How heavy, trimmed"))
    form = forms.ChoiceField(choices=FORMS, label=_("How it is cut"), required=False)
    count = NumberField(1, MOST_PIECES, label=_("How many pieces"), required=False)
    thickness = QuantityField("length", MOST_THICKNESS_MM, label=_("Thickest part"), required=False)
    bone = NumberField(0, 100 * MOST_BONE_SHARE, unit="%", label=_("Bone"), required=False)
    sodium = NumberField(0, MOST_SODIUM_MG, unit="mg", label=_("Sodium in 100 g"), required=False)
    is_frozen = forms.BooleanField(label=_("Bought frozen"), required=False)
    is_vacuum = forms.BooleanField(label=_("Bought vacuum-packed"), required=False)
    purchase = forms.CharField(max_length=80, label=_("Part of one purchase"), required=False)
    method = forms.ChoiceField(choices=method_choices, label=_("How"), widget=forms.RadioSelect)
    days = DurationField(MOST_H, label=_("How long, by the recipe"), bare="d", required=False)
    strength = NumberField(1, 26, unit="%", label=_("Strength of the brine"), required=False)
    salt = NumberField(0, MOST_SALT_PCT, unit="%", label=_("How salty"), required=False)
    water = QuantityField("water", MOST_WATER_G, label=_("Water, with its ice"), required=False)
    share = NumberField(
        1, 100 * MOST_INJECTION_SHARE, unit="%", label=_("By needle"), required=False
    )
    sugar = NumberField(0, MOST_SUGAR_PCT, unit="%", label=_("Sugar or treacle"), required=False)
    sauces = SaucesField(label=_("Sauces, wine, oil, fruit, dairy"), required=False)
    cure = forms.ChoiceField(choices=CURES, label=_("Curing salt"), required=False)
    nitrite = NumberField(
        0.05, 100 * LABEL_MOST.value, unit="%", label=_("Nitrite, by its label"), required=False
    )
    ppm = NumberField(0, MOST_PPM, unit=_("ppm"), label=_("Nitrite to go in"), required=False)
    purpose = forms.ChoiceField(choices=PURPOSES, label=_("The salt"), required=False)
    vessel = forms.ModelChoiceField(
        Vessel.objects.none(), label=_("Vessel"), required=False, empty_label=_("not chosen yet")
    )
    school = forms.ChoiceField(choices=SCHOOLS, label=_("Timing rule"), required=False)
    heat = forms.ChoiceField(
        choices=[("", _("as its cut is cooked")), *((h.id, h.name) for h in HEATS.values())],
        label=_("Cooked how?"), required=False,
    )  # fmt: skip
    medium = TemperatureField(0, 600, label=_("Oven, pot or fire at"), required=False)
    inside = TemperatureField(40, 100, label=_("Done, inside, at"), required=False)
    take_out = TemperatureField(40, 100, label=_("Taken out at"), required=False)

    def __init__(self, *args: Any, house: House, vessels: Any, cups: str, **kwargs: Any) -> None:
        super().__init__(*args, cups=cups, **kwargs)
        self.house = house
        sauces = self.fields["sauces"]
        if isinstance(sauces, SaucesField):
            sauces.larder, sauces.cups = house.larder, cups
        vessel = self.fields["vessel"]
        if isinstance(vessel, forms.ModelChoiceField):
            vessel.queryset = vessels
        for custom in CUSTOMS:
            self.fields[custom.id] = CustomField(custom)

    @property
    def switches(self) -> list[Any]:
        """The fields of what cooks disagree about."""
        return [self[custom.id] for custom in CUSTOMS]

    def clean_count(self) -> int | None:
        """A whole number of pieces."""
        count: float | None = self.cleaned_data["count"]
        if count is not None and count != int(count):
            raise forms.ValidationError(gettext("Pieces come whole; use a whole number."))
        return None if count is None else int(count)

    def clean(self) -> dict[str, Any]:
        """What a method and a way of cooking need, and what they do not go with."""
        cleaned = self.cleaned_data
        way, cut = WAYS.get(cleaned.get("method", "")), CUTS.get(cleaned.get("cut", ""))
        if way is not None and cut is not None:
            self._fit(way.group, is_vegetable=cut.kind == "vegetable")
        if cleaned.get("cure") == "nitrite-salt" and "nitrite" not in self.errors:
            known = self.house.larder.packets.get("nitrite-salt")
            if cleaned.get("nitrite") is None and (known is None or known.nitrite_pct is None):
                self.add_error(
                    "nitrite",
                    gettext("A nitrite salt needs the strength on its label; use 0.4 to 0.9."),
                )
        return cleaned

    def _fit(self, group: str, *, is_vegetable: bool) -> None:
        if group == "Side" and not is_vegetable:
            self.add_error("method", gettext("A quick pickle is for vegetables; use any other."))
        elif group == "Needle" and is_vegetable:
            self.add_error("method", gettext("A needle is for meat; use a quick pickle."))

    def is_valid_but_for_its_name(self) -> bool:
        """Whether enough is known to weigh out."""
        return self.is_bound and not set(self.errors) - {"name"}

    @property
    def dish_name(self) -> str:
        """Its name; that of its cut where none was typed. Call it when the form is valid."""
        name: str = self.cleaned_data["name"]
        return name or CUTS[self.cleaned_data["cut"]].name
