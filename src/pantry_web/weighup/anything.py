"""Weighing something out without a feast and without a date: a jar, a brine for somebody else."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext_lazy as _

from pantry_core.mixes.request import MOST_SALT_PCT, MOST_WATER_G
from pantry_web import clock
from pantry_web.feasts.documents import House, house_of
from pantry_web.feasts.models import Feast
from pantry_web.fields import NumberField, QuantityField
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.weighup.first import PEOPLE, PieceForm, best_method, with_usual
from pantry_web.weighup.forms import DishForm
from pantry_web.weighup.live import live_answer


class WeighForm(PieceForm):
    """What and how heavy; salt and water where somebody says them."""

    salt = NumberField(0, MOST_SALT_PCT, unit="%", label=_("How salty"), required=False)
    water = QuantityField("water", MOST_WATER_G, label=_("Water, with its ice"), required=False)


def weigh_anything(request: HttpRequest) -> HttpResponse:
    """The mix for a piece, by what stands in the address; nothing is kept."""
    kitchen = kitchen_of(request)
    house, now = house_of(kitchen), clock.now(kitchen)
    form = WeighForm(request.GET or None, units=kitchen.units, cups=kitchen.cups,
                     initial={"cut": "", "method": ""})  # fmt: skip
    someday = Feast(kitchen=kitchen, name="", time_zone=kitchen.time_zone, heads=PEOPLE)
    context: dict[str, Any] = {"form": form, "sheet": None, "out": None, "wrong": (),
                               "is_first": True, "feast": someday}  # fmt: skip
    if form.is_valid():
        dish = _dish(form, kitchen, house)
        for name, wrong in dish.errors.items():
            form.add_error(name if name in form.fields else None, wrong)
        context |= live_answer(dish, someday, house, None, now, None)
        context["form"] = form
    if request.headers.get("HX-Request"):
        return render(request, "weighup/_first_answer.html", context)
    status = 422 if form.is_bound and form.errors else 200
    return render(request, "weighup/anything.html", context, status=status)


def _dish(form: WeighForm, kitchen: Kitchen, house: House) -> DishForm:
    """The form of a dish as these fields fill it in."""
    typed = form.cleaned_data
    method = typed["method"] or best_method({"cut": typed["cut"], "mass_g": typed["mass"]}, house)
    data = with_usual(typed["cut"], typed["mass"], method)
    salt, water = typed["salt"], typed["water"]
    data |= {} if salt is None else {"salt": f"{salt:g}"}
    data |= {} if water is None else {"water": f"{water:.3f} g"}
    return DishForm(
        data, units=kitchen.units, house=house, vessels=kitchen.vessels.all(), cups=kitchen.cups
    )
