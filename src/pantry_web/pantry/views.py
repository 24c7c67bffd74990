"""The pantry page, and what is put into it, changed and taken out."""

from typing import Any

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.models import Kitchen, Place
from pantry_web.pantry.actions.put_in import change, put_in
from pantry_web.pantry.actions.take_out import take_out
from pantry_web.pantry.forms import IngredientForm, PlaceForm, ScaleForm, VesselForm
from pantry_web.pantry.models import Ingredient, Scale, Vessel

KINDS: dict[str, tuple[type[Any], type[Any]]] = {
    "scale": (Scale, ScaleForm),
    "ingredient": (Ingredient, IngredientForm),
    "vessel": (Vessel, VesselForm),
    "place": (Place, PlaceForm),
}
GIVEN = ("place",)
"""What every kitchen has: it can be changed, not added to or taken out."""
MOST_THINGS = 500


def pantry(request: HttpRequest) -> HttpResponse:
    """Salts, sauces and packets."""
    return _page(request, kitchen_of(request), "stock")


def tools(request: HttpRequest) -> HttpResponse:
    """Scales, vessels and places."""
    return _page(request, kitchen_of(request), "tools")


@require_POST
def add_thing(request: HttpRequest, thing: str) -> HttpResponse:
    """Put something into the pantry."""
    kitchen = kitchen_of(request)
    model, form_class = _kind(thing, can_be_given=False)
    form = form_class(request.POST, units=kitchen.units, auto_id=f"id_{thing}_%s")
    if form.is_valid() and model.objects.filter(kitchen=kitchen).count() >= MOST_THINGS:
        form.add_error("name", gettext("The pantry is full; remove something first."))
    if form.is_valid():
        put_in(model, kitchen, form.values)
        messages.success(request, gettext("Saved."))
        return redirect(_page_of(thing))
    page = "stock" if thing == "ingredient" else "tools"
    return _page(request, kitchen, page, bad=(thing, form))


def change_thing(request: HttpRequest, thing: str, thing_id: int) -> HttpResponse:
    """Change something in the pantry."""
    kitchen = kitchen_of(request)
    model, form_class = _kind(thing)
    found = get_object_or_404(model, kitchen=kitchen, pk=thing_id)
    form = form_class(request.POST or None, units=kitchen.units, initial=form_class.as_it_is(found))
    if request.method == "POST" and form.is_valid():
        change(found, form.values)
        messages.success(request, gettext("Saved."))
        return redirect(_page_of(thing))
    context = {"form": form, "thing": thing, "found": found}
    status = 422 if form.is_bound else 200
    return render(request, "pantry/change.html", context, status=status)


@require_POST
def remove_thing(request: HttpRequest, thing: str, thing_id: int) -> HttpResponse:
    """Take something out of the pantry."""
    model, _ = _kind(thing, can_be_given=False)
    take_out(get_object_or_404(model, kitchen=kitchen_of(request), pk=thing_id))
    messages.success(request, gettext("Removed."))
    return redirect(_page_of(thing))


def _page_of(thing: str) -> str:
    """The address of the page that shows such a thing."""
    return "pantry" if thing == "ingredient" else "tools"


def _kind(thing: str, *, can_be_given: bool = True) -> tuple[type[Any], type[Any]]:
    if thing not in KINDS or (thing in GIVEN and not can_be_given):
        raise Http404
    return KINDS[thing]


def _page(
    request: HttpRequest, kitchen: Kitchen, page: str, bad: tuple[str, Any] | None = None
) -> HttpResponse:
    forms = {
        f"{thing}_form": form_class(units=kitchen.units, auto_id=f"id_{thing}_%s")
        for thing, (_, form_class) in KINDS.items()
        if thing not in GIVEN
    }
    if bad is not None:
        forms[f"{bad[0]}_form"] = bad[1]
    context = {
        "scales": kitchen.scales.all(),
        "ingredients": kitchen.ingredients.all(),
        "vessels": kitchen.vessels.all(),
        "places": kitchen.places.order_by("pk"),
        "bad": bad[0] if bad else "",
        **forms,
    }
    return render(request, f"pantry/{page}.html", context, status=422 if bad else 200)
