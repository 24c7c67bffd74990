"""Feasts out and in as documents, and copied to another day."""

import json

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.text import slugify
from django.views.decorators.http import require_POST

from pantry_core.formats.reading import WrongInput
from pantry_core.plan.instants import NotAnInstant
from pantry_core.quantities import Moment
from pantry_web import clock
from pantry_web.feasts.access import feast_of
from pantry_web.feasts.actions.bring_in_feast import bring_in_feast
from pantry_web.feasts.actions.copy_feast import copy_feast
from pantry_web.feasts.actions.remove_feast import remove_feast, take_back_feast
from pantry_web.feasts.documents import house_of
from pantry_web.feasts.exchange import feast_document, read_feast
from pantry_web.feasts.forms import CopyForm, ImportForm, OwnDayForm
from pantry_web.feasts.models import Feast
from pantry_web.feasts.named_days import coming_days
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.kitchens.actions.own_days import add_own_day as keep_own_day
from pantry_web.kitchens.actions.own_days import remove_own_day as forget_own_day
from pantry_web.refusal import Refused
from pantry_web.sentences import refusal, tell

MOST_TOLD = 8


def take_out(request: HttpRequest, feast_id: int) -> HttpResponse:
    """The whole feast as a JSON document."""
    feast = feast_of(request, feast_id)
    text = json.dumps(feast_document(feast), ensure_ascii=False, indent=1)
    response = HttpResponse(f"{text}\n", content_type="application/json")
    name = slugify(feast.name) or "feast"
    response["Content-Disposition"] = f'attachment; filename="{name}.json"'
    return response


def bring_in(request: HttpRequest) -> HttpResponse:
    """A feast from its document."""
    form = ImportForm(request.POST or None, request.FILES or None)
    if request.method == "POST" and form.is_valid():
        try:
            kitchen = kitchen_of(request)
            document = read_feast(
                form.cleaned_data["document"], house_of(kitchen).profile, clock.now(kitchen)
            )
            feast = bring_in_feast(document, kitchen, cook_of(request))
        except WrongInput as wrong:
            for each in wrong.problems[:MOST_TOLD]:
                form.add_error("document", f"{each.where or 'the file'}: {each.what}.")
        else:
            messages.success(request, tell("{feast} is in.", feast=feast.name))
            return redirect("feast", feast.pk)
    status = 422 if form.is_bound else 200
    return render(request, "feasts/bring_in.html", {"form": form}, status=status)


def copy(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Copy a feast to another day."""
    feast = feast_of(request, feast_id)
    kitchen = kitchen_of(request)
    now = clock.now(kitchen)
    form = CopyForm(request.POST or None, now=now, zone=feast.time_zone)
    if request.method == "POST" and form.is_valid():
        try:
            new = copy_feast(feast, form.cleaned_data["day"])
        except NotAnInstant as error:
            form.add_error("day", refusal(error))
        else:
            messages.success(
                request,
                tell("Copied to {day}; the log stays here.", day=Moment(new.serve_at, "date")),
            )
            was_told = new.dishes.filter(copied_from__review__is_skipped=False).exists()
            return redirect("last-time" if was_told else "feast", new.pk)
    context = {"form": form, "feast": feast, "days": coming_days(kitchen, now)}
    return render(request, "feasts/copy.html", context, status=422 if form.is_bound else 200)


@require_POST
def add_own_day(request: HttpRequest) -> HttpResponse:
    """Keep a day of the year under a name; an unusable one is refused in words."""
    kitchen = kitchen_of(request)
    form = OwnDayForm(request.POST)
    if form.is_valid():
        keep_own_day(kitchen, form.cleaned_data["name"], form.cleaned_data["day"])
        return redirect("new-feast")
    for errors in form.errors.values():
        messages.error(request, " ".join(map(str, errors)))
    return redirect("new-feast")


@require_POST
def remove_own_day(request: HttpRequest, day_id: int) -> HttpResponse:
    """Keep a day no more."""
    forget_own_day(get_object_or_404(kitchen_of(request).own_days, pk=day_id))
    return redirect("new-feast")


@require_POST
def remove(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Remove a feast; it can be taken back for thirty days."""
    feast = feast_of(request, feast_id)
    remove_feast(feast, clock.now(feast.kitchen))
    messages.success(
        request,
        tell("{feast} is removed. You can bring it back below for 30 days.", feast=feast.name),
    )
    return redirect("feasts")


@require_POST
def take_back(request: HttpRequest, removed_id: int) -> HttpResponse:
    """Take a removed feast back."""
    kitchen = kitchen_of(request)
    feast = get_object_or_404(Feast.with_removed, kitchen=kitchen, pk=removed_id)
    try:
        take_back_feast(feast, clock.now(kitchen))
    except Refused as refused:
        messages.error(request, str(refused))
        return redirect("feasts")
    return redirect("feast", feast.pk)
