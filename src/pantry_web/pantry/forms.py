"""Forms of the pantry."""

from typing import Any

from django import forms
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_core.measures.units import RECIPE_ML
from pantry_core.quantities import Grams
from pantry_core.rules.cures import LABEL_MOST
from pantry_core.rules.ingredients import INGREDIENTS
from pantry_core.vessels.fit import NEEDED
from pantry_web.fields import NumberField, QuantityField
from pantry_web.forms import KitchenForm
from pantry_web.kitchens.models import Place
from pantry_web.pantry.models import MATERIALS, SHAPES, SPOONS, Ingredient, Scale, Vessel
from pantry_web.quantities import DEFAULT_ROOM_UNIT, room
from pantry_web.sentences import tell

MOST_ROOM = 2000.0
UNIT_BY_SIGN = {"q": "qt", "f": "cu ft", "l": "l"}
"""A unit of room by a sign that only its names have."""
MOST_STOCK_G = 100_000.0
MOST_SPOON_G = 2_000.0
MOST_SODIUM_MG = 39_340.0
"""Sodium in 100 g of pure salt [mg] (derived)."""
LEAST_G_PER_ML, MOST_G_PER_ML = 0.05, 3.0
MEASURES = ("length", "width", "diameter", "top", "bottom", "depth")


class ScaleForm(KitchenForm):
    """A scale: its name, its smallest step, the most that it holds."""

    name = forms.CharField(max_length=40, label=_("Name"))
    division = QuantityField("mass", 1000.0, label=_("Reads to"))
    capacity = QuantityField("mass", 300_000.0, label=_("Holds at most"))

    def clean(self) -> dict[str, Any]:
        """It holds more than its smallest step."""
        division, capacity = (self.cleaned_data.get(name) for name in ("division", "capacity"))
        if division and capacity and capacity <= division:
            self.add_error(
                "capacity", gettext("It holds more than its smallest step, like {5 kg}.")
            )
        return self.cleaned_data

    @property
    def values(self) -> dict[str, object]:
        """The fields of the scale; call it when the form is valid."""
        return {
            "name": self.cleaned_data["name"], "division_g": self.kept("division"),
            "capacity_g": self.kept("capacity"),
        }  # fmt: skip

    @staticmethod
    def as_it_is(thing: Scale) -> dict[str, object]:
        """A scale as the form shows it."""
        return {"name": thing.name, "division": thing.division_g, "capacity": thing.capacity_g}


class IngredientForm(KitchenForm):
    """A packet: what it is, its label, the spoon that was weighed, what is left."""

    name = forms.CharField(max_length=60, label=_("What the packet says"))
    stands_for = forms.ChoiceField(
        choices=[(each.key, each.name) for each in INGREDIENTS.values()], label=_("It is")
    )
    spoon = forms.ChoiceField(choices=SPOONS, label=_("A level"), required=False)
    spoon_mass = QuantityField("mass", MOST_SPOON_G, label=_("weighs"), required=False)
    nitrite = NumberField(
        0, 100 * LABEL_MOST.value, unit="%", label=_("Nitrite, by the label"), required=False
    )
    nitrate = NumberField(0, 100, unit="%", label=_("Nitrate, by the label"), required=False)
    sodium = NumberField(0, MOST_SODIUM_MG, unit="mg", label=_("Sodium in 100 g"), required=False)
    stock = QuantityField("mass", MOST_STOCK_G, label=_("In stock"), required=False)

    def clean(self) -> dict[str, Any]:
        """A label goes with its kind; curing salt is never measured by the spoon."""
        cleaned = self.cleaned_data
        role = INGREDIENTS[cleaned["stands_for"]].role if "stands_for" in cleaned else None
        if role is None:
            return cleaned
        for name in ("nitrite", "nitrate"):
            if cleaned.get(name) is not None and role != "cure":
                self.add_error(
                    name, gettext("Only curing salts have this on their label; leave it empty.")
                )
        if cleaned.get("sodium") is not None and role != "sauce":
            self.add_error("sodium", gettext("This is for sauces; leave it empty."))
        spoon, grams = cleaned.get("spoon"), cleaned.get("spoon_mass")
        if grams is not None and role == "cure":
            self.add_error(
                "spoon_mass",
                gettext("Curing salt goes by the scale, never by the spoon; leave it empty."),
            )
        elif grams is not None and not spoon:
            self.add_error("spoon", gettext("Say which spoon or cup it was."))
        elif grams is None and spoon and "spoon_mass" not in self.errors:
            self.add_error("spoon_mass", gettext("Say what it weighs, like {18 g}."))
        elif grams is not None and spoon:
            each = grams / RECIPE_ML[spoon]
            if not LEAST_G_PER_ML <= each <= MOST_G_PER_ML:
                self.add_error(
                    "spoon_mass",
                    tell(
                        "That is {density} a millilitre; weigh the spoon again.",
                        density=Grams(each, 2),
                    ),
                )
        return cleaned

    @property
    def values(self) -> dict[str, object]:
        """The fields of the packet; call it when the form is valid."""
        return {name: self.cleaned_data[name] for name in ("name", "stands_for", "spoon")} | {
            "spoon_g": self.kept("spoon_mass"), "stock_g": self.kept("stock"),
            "nitrite_pct": self.kept("nitrite"), "nitrate_pct": self.kept("nitrate"),
            "sodium_mg": self.kept("sodium"),
        }  # fmt: skip

    @staticmethod
    def as_it_is(thing: Ingredient) -> dict[str, object]:
        """A packet as the form shows it."""
        return {
            "name": thing.name, "stands_for": thing.stands_for, "spoon": thing.spoon,
            "spoon_mass": thing.spoon_g, "nitrite": thing.nitrite_pct,
            "nitrate": thing.nitrate_pct, "sodium": thing.sodium_mg, "stock": thing.stock_g,
        }  # fmt: skip


class RoomField(QuantityField):
    """The room of a fridge [l], typed in litres, quarts or cubic feet; a bare number in `bare`."""

    bare = "l"

    def __init__(self, **kwargs: Any) -> None:
        super().__init__("water", 1000.0 * MOST_ROOM, **kwargs)

    @property
    def unit(self) -> str:
        """The unit of a bare number."""
        return self.bare

    @property
    def unit_choices(self) -> tuple[str, ...]:
        """The units that a press of its button goes through."""
        return tuple(Place.Unit.values)

    def clean(self, value: Any) -> float | None:
        """The room in litres.

        Raises: ValidationError, with a room that can be.
        """
        millilitres = super().clean(value)
        return None if millilitres is None else millilitres / 1000.0

    def prepare_value(self, value: Any) -> Any:
        """Show litres in the unit of the place, and text as it was typed."""
        return room(value, self.bare) if isinstance(value, int | float) else value


class PlaceForm(KitchenForm):
    """How much fits into a place at once: of the fridge litres, else pieces."""

    capacity = NumberField(0, MOST_ROOM, label=_("Fits at once"))
    room = RoomField(label=_("Fits at once"))

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.is_fridge = "room" in self.initial
        del self.fields["capacity" if self.is_fridge else "room"]
        if self.is_fridge:
            unit = self.initial["unit"] or DEFAULT_ROOM_UNIT[self.kitchen_units]
            self.initial["unit"] = self.fields["room"].bare = unit  # type: ignore[attr-defined]  # it is a RoomField

    @property
    def values(self) -> dict[str, object]:
        """The fields of the place; call it when the form is valid."""
        if not self.is_fridge:
            return {"capacity": self.kept("capacity")}
        typed = self.data.get("room", "").lower()
        units = (unit for sign, unit in UNIT_BY_SIGN.items() if sign in typed)
        return {"capacity": self.kept("room"), "unit": next(units, self.initial["unit"])}

    @staticmethod
    def as_it_is(thing: Place) -> dict[str, object]:
        """A place as the form shows it."""
        if thing.name == Place.FRIDGE:
            return {"room": thing.capacity, "unit": thing.unit}
        return {"capacity": thing.capacity}


class VesselForm(KitchenForm):
    """A vessel: its shape, what it is made of, its inner measures."""

    name = forms.CharField(max_length=40, label=_("Name"))
    shape = forms.ChoiceField(choices=SHAPES, label=_("Shape"))
    material = forms.ChoiceField(choices=MATERIALS, label=_("Made of"))
    length = QuantityField("length", 2000.0, label=_("Length inside"), required=False)
    width = QuantityField("length", 2000.0, label=_("Width inside"), required=False)
    diameter = QuantityField("length", 2000.0, label=_("Diameter"), required=False)
    top = QuantityField("length", 2000.0, label=_("Diameter at the top"), required=False)
    bottom = QuantityField("length", 2000.0, label=_("Diameter at the bottom"), required=False)
    depth = QuantityField("length", 2000.0, label=_("Depth"), required=False)
    litres = NumberField(0.1, 1000, unit="l", label=_("Holds"), required=False)

    def clean(self) -> dict[str, Any]:
        """Every shape has its measures."""
        shape = self.cleaned_data.get("shape")
        for measure in NEEDED.get(shape, ()) if shape else ():
            name = measure.removesuffix("_mm")
            if name not in self.errors and self.cleaned_data.get(name) is None:
                self.add_error(
                    name,
                    tell(
                        "A vessel that is {shape} needs this; measure it inside.", shape=str(shape)
                    ),
                )
        return self.cleaned_data

    @property
    def values(self) -> dict[str, object]:
        """The fields of the vessel, with the measures of its shape only, when the form is valid."""
        needed = NEEDED[self.cleaned_data["shape"]]
        return {
            **{name: self.cleaned_data[name] for name in ("name", "shape", "material")},
            **{
                f"{name}_mm": self.kept(name) if f"{name}_mm" in needed else None
                for name in MEASURES
            },
            "litres": self.kept("litres") if "litres" in needed else None,
        }

    @staticmethod
    def as_it_is(thing: Vessel) -> dict[str, object]:
        """A vessel as the form shows it."""
        measures = {name: getattr(thing, f"{name}_mm") for name in MEASURES}
        return {
            "name": thing.name, "shape": thing.shape, "material": thing.material,
            "litres": thing.litres,
        } | measures  # fmt: skip
