"""Chilling the brine: how much to hold back as cold water and ice, and two-stage cooling."""

from typing import Any

from django import forms
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext_lazy as _

from pantry_core.heat.chill import ChillRequest, Ice, Liquid, chill
from pantry_core.heat.cooling import Cooling, cooling
from pantry_core.heat.holding_back import BOILING_C, FREEZER_C, TAP_C, held_back
from pantry_core.rules.constants import FRIDGE_GOAL_C
from pantry_web.fields import NumberField, QuantityField, TemperatureField
from pantry_web.forms import KitchenForm
from pantry_web.kitchens.access import kitchen_of
from pantry_web.planning.looking import piece_outlook_of

MOST_G = 1_000_000.0
USUAL_WATER_G = 3000.0


class ColdForm(KitchenForm):
    """What is mixed, at what temperatures, and how cold it is to be."""

    hot = QuantityField("water", MOST_G, label=_("Hot"))
    hot_c = TemperatureField(0, 110, label=_("at"))
    cold = QuantityField("water", MOST_G, label=_("Cold water"), required=False)
    cold_c = TemperatureField(0, 60, label=_("at"))
    ice = QuantityField("water", MOST_G, label=_("Ice"), required=False)
    ice_c = TemperatureField(-80, 0, label=_("at"))
    goal = TemperatureField(0, 60, label=_("To be at"))

    def request(self) -> ChillRequest:
        """What was typed as the core's document."""
        typed = self.cleaned_data
        cold, ice = self.kept("cold"), self.kept("ice")
        return ChillRequest(
            hot=Liquid(mass_g=self.kept("hot"), temperature_c=typed["hot_c"]),
            cold=Liquid(mass_g=cold, temperature_c=typed["cold_c"]) if cold else None,
            ice=Ice(mass_g=ice, temperature_c=typed["ice_c"]) if ice else None,
            goal_c=typed["goal"],
        )


class CoolingForm(KitchenForm):
    """A pot that is cooling: since when, and what it has now."""

    since = NumberField(0, 100, unit="h", label=_("Since it was hot"))
    now_c = TemperatureField(-5, 110, label=_("Now it has"))
    is_cured = forms.BooleanField(
        label=_("A whole piece, cured with 100 ppm or more"), required=False
    )
    is_reheated = forms.BooleanField(label=_("Brought back to {74 °C} once before"), required=False)

    def judged(self) -> Cooling:
        """Where it stands; call it when the form is valid."""
        typed = self.cleaned_data
        return cooling(
            typed["since"], typed["now_c"],
            is_cured=typed["is_cured"], is_reheated=typed["is_reheated"],
        )  # fmt: skip


def cold(request: HttpRequest, dish_id: int) -> HttpResponse:
    """How cold a mix will be, and how much ice it takes."""
    kitchen = kitchen_of(request)
    view = piece_outlook_of(request, dish_id)
    asked = view.answer.asked if view.answer else None
    split = held_back((asked.water_g if asked else None) or USUAL_WATER_G)
    first: dict[str, Any] = {
        "hot": float(round(split.hot_g)), "cold": float(round(split.cold_g)),
        "ice": float(round(split.ice_g)), "hot_c": BOILING_C, "cold_c": TAP_C, "ice_c": FREEZER_C,
        "goal": FRIDGE_GOAL_C.value,
    }  # fmt: skip
    is_cooling = request.POST.get("what") == "cooling"
    form = ColdForm(
        request.POST if request.method == "POST" and not is_cooling else None,
        units=kitchen.units, cups=kitchen.cups, initial=first,
    )  # fmt: skip
    cooling_form = CoolingForm(
        request.POST if is_cooling else None, units=kitchen.units, auto_id="id_pot_%s"
    )
    mixed = form
    if not form.is_bound:
        shown = {name: form.fields[name].prepare_value(value) for name, value in first.items()}
        mixed = ColdForm(shown, units=kitchen.units, cups=kitchen.cups, initial=first)
    judged = None
    if is_cooling and cooling_form.is_valid():
        judged = cooling_form.judged()
    is_wrong = (form.is_bound and not form.is_valid()) or (is_cooling and judged is None)
    answer = chill(mixed.request()) if mixed.is_valid() else None
    context = {
        "dish": view.dish, "feast": view.dish.feast, "form": form, "cooling_form": cooling_form,
        "answer": answer, "judged": judged,
        "goal_c": mixed.cleaned_data.get("goal") or FRIDGE_GOAL_C.value,
        "made_g": sum(float(mixed.kept(each) or 0) for each in ("hot", "cold", "ice"))
        if answer else 0.0,
    }  # fmt: skip
    page = "weighup/_cold_answer.html" if request.htmx else "weighup/cold.html"  # type: ignore[attr-defined]
    return render(
        request, page, context, status=422 if is_wrong and page.endswith("/cold.html") else 200
    )
