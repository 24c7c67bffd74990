"""Feasts."""

from django.contrib import messages
from django.core.paginator import Paginator
from django.http import HttpRequest, HttpResponse, QueryDict
from django.shortcuts import redirect, render
from django.utils.translation import gettext

from pantry_core.plan.peaks import Stay, peaks
from pantry_core.routes.jobs import Made
from pantry_core.text import Sentence
from pantry_web import clock
from pantry_web.feasts.actions import save_feast
from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.actions.remove_feast import removed_feasts
from pantry_web.feasts.forms import (
    FeastForm,
    JobForm,
    MishapForm,
    OwnDayForm,
    Source,
    as_it_is,
)
from pantry_web.feasts.named_days import coming_days
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.forms import AbsenceForm
from pantry_web.planning.changes import changes
from pantry_web.planning.hands import feast_tasks
from pantry_web.planning.helps import is_needed
from pantry_web.planning.looking import feast_outlook_of, feast_outlooks
from pantry_web.planning.outlook import FeastOutlook
from pantry_web.planning.rows import dish_rows
from pantry_web.presses.once import once
from pantry_web.refusal import Refused

NEXT_TASKS = 5
AHEAD_A_PAGE, PAST_A_PAGE = 6, 12


def feasts(request: HttpRequest) -> HttpResponse:
    """The kitchen's feasts: those to come, the nearest first, and those that were."""
    kitchen = kitchen_of(request)
    now = clock.now(kitchen)
    ahead = Paginator(kitchen.feasts.filter(serve_at__gt=now), AHEAD_A_PAGE)
    past = Paginator(
        kitchen.feasts.filter(serve_at__lte=now)
        .order_by("-serve_at", "-pk")
        .prefetch_related("dishes"),
        PAST_A_PAGE,
    )
    page = ahead.get_page(request.GET.get("page"))
    context = {
        "removed": removed_feasts(kitchen, now),
        "page": page,
        "past_page": past.get_page(request.GET.get("past")),
        "ahead": feast_outlooks(list(page), kitchen, now) if page else [],
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
        feast = save_feast.new_feast(kitchen, **form.told)
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
            with once():
                claim(whole.feast, form.cleaned_data["version"])
                save_feast.save_feast(whole.feast, **form.told)
        except Refused as refused:
            form.add_error(None, str(refused))
            form.look_again(whole.feast.version)
        else:
            messages.success(request, gettext("Saved."))
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
    against: tuple[Sentence, ...] = (),
) -> HttpResponse:
    """The page of a feast, with a form that was filled in wrongly if there is one.

    Parameters: request; whole; the forms; against, what stands against a plan with the side job.
    """
    given = (form, job_form, mishap_form, absence_form)
    wrong = any(each is not None and each.is_bound for each in given)
    rooms = {place.name: place.capacity for place in whole.around.places}
    context = {
        "form": form or FeastForm(now=whole.now, initial=as_it_is(whole.feast)),
        "job_form": job_form or job_form_of(whole),
        "mishap_form": mishap_form
        or MishapForm(feast=whole.feast, now=whole.now, units=whole.kitchen.units),
        "absence_form": absence_form or AbsenceForm(zone=whole.feast.time_zone),
        "feast": whole.feast,
        "whole": whole,
        "against": against,
        "rows": dish_rows(whole),
        "tasks": feast_tasks(whole)[:NEXT_TASKS],
        "changes": changes(whole),
        "peaks": peaks(_stays(whole), rooms, whole.now),
        "fridge_unit": whole.around.fridge_unit,
        "is_help_needed": is_needed(whole),
    }
    return render(request, "feasts/feast.html", context, status=422 if wrong else 200)


def job_form_of(whole: FeastOutlook, typed: QueryDict | None = None) -> JobForm:
    """The form of a side job of a feast, whose other dishes it can be made from."""
    sources = [
        Source(
            view.key,
            view.dish.name,
            tuple(Made(step.id, step.kind, step.place) for step in view.steps),
        )
        for view in whole.dishes
        if not view.dish.is_given_up and not view.is_discarded and view.steps
    ]
    return JobForm(
        typed, units=whole.kitchen.units, people=whole.feast.heads, sources=sources,
        kept=whole.kitchen.routes.exclude(job=None),
    )  # fmt: skip


def _stays(whole: FeastOutlook) -> list[Stay]:
    return [
        Stay(view.dish.name, step.place, planned.start, planned.end, step.uses)
        for view in whole.dishes
        for planned in (view.plan.steps if view.plan else ())
        if (step := view.step(planned.step)) is not None and step.place
    ]
