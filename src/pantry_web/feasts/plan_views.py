"""What can be done about the plan of a feast."""

from collections.abc import Callable

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from pantry_web import clock
from pantry_web.background import queue
from pantry_web.background.models import Work
from pantry_web.feasts.access import feast_of, seen_version
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.actions.drop_dish import drop_dish, take_up
from pantry_web.feasts.actions.keep_plan import keep_plan, plan_afresh
from pantry_web.feasts.actions.record_mishap import record_mishap, take_back_mishap
from pantry_web.feasts.actions.take_remedy import take_remedy
from pantry_web.feasts.forms import MishapForm, PieceForm
from pantry_web.feasts.models import Dish, Feast
from pantry_web.feasts.views import feast_page, job_form_of
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.kitchens.actions.absences import add_absence
from pantry_web.kitchens.forms import AbsenceForm
from pantry_web.planning.another import against_another, at_the_heat_of_the_oven
from pantry_web.planning.helps import ask_for_remedies, is_needed, remedies, work_out_remedies
from pantry_web.planning.looking import (
    ask_for_plan,
    ask_for_plans,
    feast_outlook_of,
    feast_outlooks,
)
from pantry_web.planning.method_options import MethodOptions, ask_for_options, method_options
from pantry_web.planning.outlook import FeastOutlook
from pantry_web.planning.solving import work_out_plan
from pantry_web.presses.once import once
from pantry_web.refusal import Refused
from pantry_web.sentences import said, tell

MOST_OF_A_PAGE = 100
"""So many feasts a page asks for at once."""
PLAN_READY = "plan-ready"
"""What the script of a page hears when a plan is there."""


def what_helps(request: HttpRequest, feast_id: int) -> HttpResponse:
    """The remedies, each solved; as a part of the feast's page, or a page of its own.

    A page that has none posts to it, which asks for them.
    """
    whole = feast_outlook_of(request, feast_id)
    if request.method == "POST" and is_needed(whole):
        ask_for_remedies(whole)
        if not request.headers.get("HX-Request"):
            return redirect("what-helps", feast_id)
    found = remedies(whole)
    context = {
        "feast": whole.feast, "whole": whole, "remedies": found,
        "is_there": isinstance(found, list),
        "is_needed": is_needed(whole),
        "has_failed": isinstance(found, Work) and found.state == Work.State.FAILED,
    }  # fmt: skip
    template = "feasts/_remedies.html" if request.headers.get("HX-Request") else "feasts/helps.html"
    response = render(request, template, context)
    response["Vary"] = "HX-Request"
    return response


def solving(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Ask for the plan and show how far it is; once it is ready, the page may be opened again.

    Its script does so, unless somebody is filling in a form on it.
    """
    kitchen = kitchen_of(request)
    if request.method == "POST":
        ask_for_plan(feast_of(request, feast_id), kitchen, clock.now(kitchen))
    whole = feast_outlook_of(request, feast_id)
    if not request.headers.get("HX-Request"):
        return redirect("feast", feast_id)
    return _how_far(request, whole)


@require_POST
def ask_plans(request: HttpRequest) -> HttpResponse:
    """Ask for the plans of the feasts that are shown on one page.

    The answer tells the script of the page when a plan is ready.
    """
    kitchen = kitchen_of(request)
    now = clock.now(kitchen)
    keys = [key for key in request.POST.getlist("feast") if key.isdecimal() and len(key) < 10]
    feasts = list(kitchen.feasts.filter(pk__in=keys[:MOST_OF_A_PAGE]))
    ask_for_plans(feasts, kitchen, now)
    if not request.headers.get("HX-Request"):
        return redirect("today")
    wholes = feast_outlooks(feasts, kitchen, now)
    if len(wholes) == 1:
        return _how_far(request, wholes[0])
    response = render(request, "planning/_asked.html", {"is_ready": any(map(_is_there, wholes))})
    if any(map(_is_there, wholes)):
        response["HX-Trigger"] = PLAN_READY
    return response


def _is_there(whole: FeastOutlook) -> bool:
    return whole.solving is None and not whole.standing.is_to_be_asked_for


def _how_far(request: HttpRequest, whole: FeastOutlook) -> HttpResponse:
    """Show how far the plan of a feast is, in place of the form that asked for it."""
    is_ready = _is_there(whole)
    context = {"feast": whole.feast, "whole": whole, "is_ready": is_ready}
    response = render(request, "feasts/_solving.html", context)
    if is_ready:
        response["HX-Trigger"] = PLAN_READY
    return response


@require_POST
def stop_solving(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Go on with the best plan so far."""
    whole = feast_outlook_of(request, feast_id)
    if whole.solving is not None:
        queue.ask_to_stop(whole.solving)
    return redirect("feast", feast_id)


@require_POST
def try_again(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Work out again what failed: the plan, or what would help."""
    whole = feast_outlook_of(request, feast_id)
    if whole.solving is not None:
        queue.retry(whole.solving, work_out_plan)
    elif is_needed(whole):
        queue.retry(ask_for_remedies(whole), work_out_remedies)
    return redirect("feast", feast_id)


@require_POST
def take(request: HttpRequest, feast_id: int, code: str) -> HttpResponse:
    """Take a remedy."""
    whole = feast_outlook_of(request, feast_id)
    try:
        text = take_remedy(whole, cook_of(request), code, seen_version(request))
    except Refused as refused:
        messages.error(request, str(refused))
    else:
        messages.success(request, tell("Done: {text}", text=text))
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
    plan_afresh(feast_of(request, feast_id))
    return redirect("feast", feast_id)


@require_POST
def new_job(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Add a side job."""
    whole = feast_outlook_of(request, feast_id)
    form = job_form_of(whole, request.POST)
    if form.is_valid():
        if "anyway" not in request.POST:
            against = against_another(
                whole.feast, whole.kitchen, whole.now, form.called, form.document
            )
            if against:
                return feast_page(request, whole, job_form=form, against=against)
        document, line = at_the_heat_of_the_oven(whole, form.document)
        try:
            dish = add_dish(whole.feast, form.called, document)
        except Refused as refused:
            form.add_error("name", str(refused))
        else:
            if line:
                messages.info(request, said(line, whole.kitchen.units))
            return redirect("steps", dish.pk)
    return feast_page(request, whole, job_form=form)


@require_POST
def new_mishap(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Write down that something went wrong."""
    whole = feast_outlook_of(request, feast_id)
    form = MishapForm(request.POST, feast=whole.feast, now=whole.now, units=whole.kitchen.units)
    if not form.is_valid():
        return feast_page(request, whole, mishap_form=form)
    record_mishap(whole.kitchen, cook_of(request), **form.told)
    return redirect("feast", feast_id)


@require_POST
def mishap_back(request: HttpRequest, feast_id: int, mishap_id: int) -> HttpResponse:
    """Take back what was written down by mistake."""
    mishaps = feast_of(request, feast_id).kitchen.mishaps
    take_back_mishap(get_object_or_404(mishaps, pk=mishap_id))
    return redirect("feast", feast_id)


@require_POST
def be_away(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Write down a time in which nobody is at home; the plan makes way."""
    whole = feast_outlook_of(request, feast_id)
    form = AbsenceForm(request.POST, zone=whole.feast.time_zone)
    if not form.is_valid():
        return feast_page(request, whole, absence_form=form)
    add_absence(whole.kitchen, form.cleaned_data["begins"], form.cleaned_data["ends"])
    return redirect("feast", feast_id)


@require_POST
def leave_out(request: HttpRequest, feast_id: int, dish_id: int) -> HttpResponse:
    """Leave a dish out."""
    return _with_dish(request, feast_id, dish_id, drop_dish)


@require_POST
def take_back_in(request: HttpRequest, feast_id: int, dish_id: int) -> HttpResponse:
    """Take a dish up again."""
    return _with_dish(request, feast_id, dish_id, take_up)


def could_be_made(request: HttpRequest, feast_id: int) -> HttpResponse:
    """What could still be made of a piece by the hour of the feast; a post asks for it."""
    if request.method == "POST":
        kitchen = kitchen_of(request)
        ask_for_plan(feast_of(request, feast_id), kitchen, clock.now(kitchen))
    whole = feast_outlook_of(request, feast_id)
    asked = bool(request.GET)
    form = PieceForm(request.GET or None, units=whole.kitchen.units)
    options: MethodOptions | None = None
    if asked and form.is_valid():
        if request.method == "POST":
            ask_for_options(whole, form.piece)
        options = method_options(whole, form.piece)
    context = {"feast": whole.feast, "form": form, "told": options}
    is_part = options is not None and bool(request.headers.get("HX-Request"))
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
        with once():
            claim(feast, seen_version(request))
            deed(dish)
    except Refused as refused:
        messages.error(request, str(refused))
    return redirect("feast", feast_id)
