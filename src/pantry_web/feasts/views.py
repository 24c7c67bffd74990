"""Feasts."""

from django.contrib import messages
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render

from pantry_web import clock
from pantry_web.feasts.access import feast_outlook_of
from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.changes import changes
from pantry_web.feasts.forms import FeastForm, JobForm, MishapForm, OwnDayForm, as_it_is
from pantry_web.feasts.models import Feast
from pantry_web.feasts.named import coming_days
from pantry_web.feasts.peaks import peaks
from pantry_web.feasts.planning import FeastOutlook
from pantry_web.feasts.refusal import Refused
from pantry_web.feasts.rows import dish_rows
from pantry_web.feasts.tasks import feast_tasks
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.forms import AbsenceForm

NEXT_TASKS = 5


def feasts(request: HttpRequest) -> HttpResponse:
    """The kitchen's feasts: those to come, the nearest first, and those that were."""
    kitchen = kitchen_of(request)
    now = clock.now(kitchen)
    found = list(kitchen.feasts.prefetch_related("dishes"))
    context = {
        "ahead": [feast for feast in found if feast.serve_at > now],
        "past": [feast for feast in reversed(found) if feast.serve_at <= now],
    }
    return render(request, "feasts/feasts.html", context)


def new_feast(request: HttpRequest) -> HttpResponse:
    """Pick a feast."""
    kitchen = kitchen_of(request)
    form = FeastForm(
        request.POST or None,
        now=clock.now(kitchen),
        initial={
            "time_zone": kitchen.time_zone, "hour": "18:30", "heads": "6",
            "date": request.GET.get("date", ""), "name": request.GET.get("name", ""),
        },
    )  # fmt: skip
    if request.method == "POST" and form.is_valid():
        feast = Feast(kitchen=kitchen)
        form.save(feast)
        return redirect("new-dish", feast.pk)
    status = 422 if form.is_bound else 200
    context = {
        "form": form,
        "days": coming_days(kitchen, clock.now(kitchen)),
        "own_form": OwnDayForm(),
        "own_days": kitchen.own_days.all(),
    }
    return render(request, "feasts/new_feast.html", context, status=status)


def feast(request: HttpRequest, feast_id: int) -> HttpResponse:
    """A feast: its hour, which can be moved, its dishes, and the plan for all of them."""
    whole = feast_outlook_of(request, feast_id)
    form = FeastForm(request.POST or None, now=whole.now, initial=as_it_is(whole.feast))
    if request.method == "POST" and form.is_valid():
        try:
            with transaction.atomic():
                claim(whole.feast, form.cleaned_data["version"])
                form.save(whole.feast)
        except Refused as refused:
            form.add_error(None, str(refused))
            form.look_again(whole.feast.version)
        else:
            messages.success(request, "Kept.")
            return redirect("feast", feast_id)
    return feast_page(request, whole, form=form)


def feast_page(
    request: HttpRequest,
    whole: FeastOutlook,
    *,
    form: FeastForm | None = None,
    job_form: JobForm | None = None,
    mishap_form: MishapForm | None = None,
    absence_form: AbsenceForm | None = None,
) -> HttpResponse:
    """The page of a feast, with a form that was filled in wrongly if there is one."""
    given = (form, job_form, mishap_form, absence_form)
    wrong = any(each is not None and each.is_bound for each in given)
    context = {
        "form": form or FeastForm(now=whole.now, initial=as_it_is(whole.feast)),
        "job_form": job_form or JobForm(),
        "mishap_form": mishap_form or MishapForm(feast=whole.feast, now=whole.now),
        "absence_form": absence_form or AbsenceForm(zone=whole.feast.time_zone),
        "feast": whole.feast,
        "whole": whole,
        "rows": dish_rows(whole),
        "tasks": feast_tasks(whole)[:NEXT_TASKS],
        "changes": changes(whole),
        "peaks": peaks(whole),
    }
    return render(request, "feasts/feast.html", context, status=422 if wrong else 200)
