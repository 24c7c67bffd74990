"""What can be done about the plan of a feast."""

from collections.abc import Callable

from django.contrib import messages
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from pantry_core.routes.cuts import CUTS
from pantry_core.routes.jobs import JOBS
from pantry_core.routes.thickness import guessed_thickness
from pantry_web.feasts.access import feast_of, feast_outlook_of, seen_version
from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.actions.keep_plan import keep_plan
from pantry_web.feasts.actions.save_dish import add_job, give_up, take_up
from pantry_web.feasts.actions.take_remedy import take_remedy
from pantry_web.feasts.forms import JobForm, MishapForm, StillForm
from pantry_web.feasts.models import Dish, Feast, Solve
from pantry_web.feasts.refusal import Refused
from pantry_web.feasts.remedies import remedies
from pantry_web.feasts.still import Told, what_still
from pantry_web.feasts.views import feast_page
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.kitchens.forms import AbsenceForm


def what_helps(request: HttpRequest, feast_id: int) -> HttpResponse:
    """The remedies, each solved; as a part of the feast's page, or a page of its own."""
    whole = feast_outlook_of(request, feast_id)
    found = remedies(whole)
    is_there = not isinstance(found, Solve)
    context = {"feast": whole.feast, "whole": whole, "remedies": found, "is_there": is_there}
    template = "feasts/_remedies.html" if request.headers.get("HX-Request") else "feasts/helps.html"
    response = render(request, template, context)
    response["Vary"] = "HX-Request"
    return response


def solving(request: HttpRequest, feast_id: int) -> HttpResponse:
    """How far the plan is; once it is there, the page that asks is told to look again."""
    whole = feast_outlook_of(request, feast_id)
    context = {"feast": whole.feast, "whole": whole}
    if whole.solving is None and not request.headers.get("HX-Request"):
        return redirect("feast", feast_id)
    response = render(request, "feasts/_solving.html", context)
    if whole.solving is None:
        response["HX-Refresh"] = "true"
    return response


@require_POST
def stop_solving(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Go on with the best plan so far."""
    whole = feast_outlook_of(request, feast_id)
    if whole.solving is not None:
        Solve.objects.filter(pk=whole.solving.pk).update(wants_stop=True)
    return redirect("feast", feast_id)


@require_POST
def take(request: HttpRequest, feast_id: int, code: str) -> HttpResponse:
    """Take a remedy."""
    whole = feast_outlook_of(request, feast_id)
    try:
        text = take_remedy(whole, code, seen_version(request))
    except Refused as refused:
        messages.error(request, str(refused))
    else:
        messages.success(request, f"Done: {text}")
    return redirect("feast", feast_id)


@require_POST
def keep(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Go by the plan as it is now."""
    whole = feast_outlook_of(request, feast_id)
    keep_plan(whole.feast, whole.plan)
    return redirect("feast", feast_id)


@require_POST
def afresh(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Plan as if there had been no plan before; what has happened stays."""
    feast = feast_of(request, feast_id)
    feast.kept_plan = None
    feast.save(update_fields=["kept_plan"])
    return redirect("feast", feast_id)


@require_POST
def new_job(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Add a side job."""
    whole = feast_outlook_of(request, feast_id)
    form = JobForm(request.POST, units=kitchen_of(request).units)
    if form.is_valid():
        asked = form.cleaned_data
        try:
            dish = add_job(whole.feast, asked["name"], JOBS[asked["job"]], asked["amount"])
        except Refused as refused:
            form.add_error("name", str(refused))
        else:
            return redirect("steps", dish.pk)
    return feast_page(request, whole, job_form=form)


@require_POST
def new_mishap(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Write down that something went wrong."""
    whole = feast_outlook_of(request, feast_id)
    form = MishapForm(request.POST, feast=whole.feast, now=whole.now)
    if not form.is_valid():
        return feast_page(request, whole, mishap_form=form)
    form.save(whole.kitchen, cook_of(request))
    return redirect("feast", feast_id)


@require_POST
def take_back_mishap(request: HttpRequest, feast_id: int, mishap_id: int) -> HttpResponse:
    """Take back what was written down by mistake."""
    get_object_or_404(feast_of(request, feast_id).kitchen.mishaps, pk=mishap_id).delete()
    return redirect("feast", feast_id)


@require_POST
def be_away(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Write down a time in which nobody is at home; the plan makes way."""
    whole = feast_outlook_of(request, feast_id)
    form = AbsenceForm(request.POST, zone=whole.feast.time_zone)
    if not form.is_valid():
        return feast_page(request, whole, absence_form=form)
    form.save(whole.kitchen)
    return redirect("feast", feast_id)


@require_POST
def leave_out(request: HttpRequest, feast_id: int, dish_id: int) -> HttpResponse:
    """Leave a dish out."""
    return _with_dish(request, feast_id, dish_id, give_up)


@require_POST
def take_back_in(request: HttpRequest, feast_id: int, dish_id: int) -> HttpResponse:
    """Take a dish up again."""
    return _with_dish(request, feast_id, dish_id, take_up)


def still(request: HttpRequest, feast_id: int) -> HttpResponse:
    """What could still be made of a piece by the hour of the feast."""
    whole = feast_outlook_of(request, feast_id)
    asked = bool(request.GET)
    form = StillForm(request.GET or None, units=whole.kitchen.units)
    told: Told | None = None
    if asked and form.is_valid():
        cut = form.cleaned_data["cut"]
        mass_g = form.cleaned_data["mass"]
        measured = form.cleaned_data["thickness"]
        told = what_still(
            whole,
            cut,
            {
                "mass_g": mass_g,
                "thickness_mm": measured or guessed_thickness(CUTS[cut], mass_g).mm,
                "is_thickness_guessed": measured is None,
                "is_frozen": form.cleaned_data["is_frozen"],
            },
        )
    context = {"feast": whole.feast, "form": form, "told": told}
    is_part = told is not None and bool(request.headers.get("HX-Request"))
    template = "feasts/_still_answers.html" if is_part else "feasts/still.html"
    response = render(request, template, context, status=422 if asked and form.errors else 200)
    response["Vary"] = "HX-Request"
    return response


def _with_dish(
    request: HttpRequest, feast_id: int, dish_id: int, deed: Callable[[Dish], None]
) -> HttpResponse:
    feast: Feast = feast_of(request, feast_id)
    dish = get_object_or_404(feast.dishes, pk=dish_id)
    try:
        with transaction.atomic():
            claim(feast, seen_version(request))
            deed(dish)
    except Refused as refused:
        messages.error(request, str(refused))
    return redirect("feast", feast_id)
