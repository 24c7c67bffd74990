"""What the house is like."""

import re

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from pantry_web import clock
from pantry_web.kitchens.access import kitchen_of, membership_of
from pantry_web.kitchens.actions import absences, set_hours
from pantry_web.kitchens.actions.set_clock import set_clock as set_demo_clock
from pantry_web.kitchens.actions.set_house import set_house
from pantry_web.kitchens.actions.understand import understand
from pantry_web.kitchens.forms import (
    AbsenceForm,
    ChangedDayForm,
    ClockForm,
    HoursForm,
    HouseForm,
)
from pantry_web.kitchens.models import Kitchen, Membership

MOST_CODES, MOST_DIGITS = 100, 10
CODE = re.compile(r"[a-z0-9-]{1,40}")


def house(request: HttpRequest) -> HttpResponse:
    """Show and change what the house is like."""
    kitchen = kitchen_of(request)
    form = HouseForm(request.POST or None, units=kitchen.units, initial=_house_as_it_is(kitchen))
    if request.method == "POST" and form.is_valid():
        set_house(kitchen, form.cleaned_data)
        messages.success(request, gettext("Saved."))
        return redirect("house")
    return _house_page(request, kitchen, form=form)


@require_POST
def hours(request: HttpRequest) -> HttpResponse:
    """Set when the shop is open and when people work."""
    kitchen = kitchen_of(request)
    form = HoursForm(request.POST)
    if form.is_valid():
        set_hours.set_hours(kitchen, form.week("shop"), form.week("work"))
        messages.success(request, gettext("Saved."))
        return redirect("house")
    return _house_page(request, kitchen, hours_form=form)


@require_POST
def add_changed_day(request: HttpRequest) -> HttpResponse:
    """Keep a day on which the hours are others."""
    kitchen = kitchen_of(request)
    form = ChangedDayForm(request.POST, today=clock.now(kitchen).date())
    if form.is_valid():
        set_hours.change_day(kitchen, **form.cleaned_data)
        return redirect("house")
    return _house_page(request, kitchen, day_form=form)


@require_POST
def remove_changed_day(request: HttpRequest, changed_id: int) -> HttpResponseRedirect:
    """Keep the usual hours on that day."""
    kitchen = kitchen_of(request)
    set_hours.remove_changed_day(get_object_or_404(kitchen.changed_days, pk=changed_id))
    return redirect("house")


@require_POST
def add_absence(request: HttpRequest) -> HttpResponse:
    """Write down a time in which nobody is at home."""
    kitchen = kitchen_of(request)
    form = AbsenceForm(request.POST, zone=kitchen.time_zone)
    if form.is_valid():
        absences.add_absence(kitchen, form.cleaned_data["begins"], form.cleaned_data["ends"])
        return redirect("house")
    return _house_page(request, kitchen, absence_form=form)


@require_POST
def remove_absence(request: HttpRequest, absence_id: int) -> HttpResponseRedirect:
    """Stay at home after all."""
    kitchen = kitchen_of(request)
    absences.remove_absence(get_object_or_404(kitchen.absences, pk=absence_id))
    return redirect("house")


@require_POST
def understood(request: HttpRequest) -> HttpResponseRedirect:
    """Be reminded no more on every page of what is understood."""
    codes = [code for code in request.POST.getlist("code")[:MOST_CODES] if CODE.fullmatch(code)]
    understand(kitchen_of(request), codes)
    dish = request.POST.get("dish", "")
    is_of_a_dish = dish.isdecimal() and len(dish) < MOST_DIGITS
    return redirect("weigh-up", int(dish)) if is_of_a_dish else redirect("today")


@require_POST
def set_clock(request: HttpRequest) -> HttpResponse:
    """Set the clock of a demo kitchen."""
    kitchen = kitchen_of(request)
    if not kitchen.is_demo:
        raise Http404
    form = ClockForm(request.POST, zone=kitchen.time_zone)
    if form.is_valid():
        set_demo_clock(kitchen, form.cleaned_data["stands_at"], int(form.cleaned_data["runs"]))
        return redirect("house")
    return _house_page(request, kitchen, clock_form=form)


def _house_as_it_is(kitchen: Kitchen) -> dict[str, object]:
    return {
        "name": kitchen.name,
        "time_zone": kitchen.time_zone,
        "units": kitchen.units,
        "profile": kitchen.profile,
        "cups": kitchen.cups,
        "clock_face": kitchen.clock_face,
        "wake": kitchen.wake,
        "sleep": kitchen.sleep,
        "cooks": float(kitchen.cooks),
        "country": kitchen.country,
    }


def _house_page(
    request: HttpRequest,
    kitchen: Kitchen,
    *,
    form: HouseForm | None = None,
    hours_form: HoursForm | None = None,
    day_form: ChangedDayForm | None = None,
    absence_form: AbsenceForm | None = None,
    clock_form: ClockForm | None = None,
) -> HttpResponse:
    zone = kitchen.time_zone
    house_form = form or HouseForm(units=kitchen.units, initial=_house_as_it_is(kitchen))
    given = (form, hours_form, day_form, absence_form, clock_form)
    wrong = [each for each in given if each and each.is_bound]
    today = clock.now(kitchen).date()
    context = {
        "form": house_form,
        "absence_form": absence_form or AbsenceForm(zone=zone),
        "clock_form": clock_form or ClockForm(zone=zone, initial=_clock_of(kitchen)),
        "hours_form": hours_form or HoursForm(initial=HoursForm.of(kitchen)),
        "day_form": day_form or ChangedDayForm(today=today),
        "changed_days": kitchen.changed_days.filter(day__gte=today),
        "absences": kitchen.absences.all(),
        "is_owner": membership_of(request).role == Membership.Role.OWNER,
    }
    return render(request, "kitchens/house.html", context, status=422 if wrong else 200)


def _clock_of(kitchen: Kitchen) -> dict[str, object]:
    """The demo clock as it stands in its form."""
    runs = kitchen.runs_times if kitchen.runs_since else 0
    return {"stands_at": clock.now(kitchen), "runs": runs}
