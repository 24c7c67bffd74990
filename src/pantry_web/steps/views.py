"""The steps of a dish: changed in place, added, removed, kept for another time."""

from collections.abc import Callable

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from pantry_core.dish.answer import DishStep
from pantry_web.feasts.access import seen_version
from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.actions.set_hour import set_hour
from pantry_web.kitchens.access import kitchen_of
from pantry_web.planning.looking import outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.presses.once import once
from pantry_web.refusal import Refused
from pantry_web.sentences import tell
from pantry_web.steps.actions.add_step import add_step
from pantry_web.steps.actions.change_step import change_step
from pantry_web.steps.actions.forget_change import forget_change
from pantry_web.steps.actions.keep_route import keep_route
from pantry_web.steps.actions.refuse_circle import refuse_circle
from pantry_web.steps.actions.remove_step import remove_step
from pantry_web.steps.actions.take_route import take_route
from pantry_web.steps.forms import (
    DishHourForm,
    KeepRouteForm,
    OwnStepForm,
    StepForm,
)
from pantry_web.steps.page import StepRow, by_route, others, step_form, steps_page


def steps(request: HttpRequest, dish_id: int) -> HttpResponse:
    """All steps with their windows and their times by the plan."""
    return steps_page(request, outlook_of(request, dish_id))


def form(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """The form of one step, as a part of its page."""
    view = outlook_of(request, dish_id)
    step = _step(view, step_key)
    edit = next((e for e in view.dish.document.get("edits", []) if e["step"] == step_key), None)
    row = StepRow(
        "done" if step.id in view.state.begun else "to-come", step, None, edit=edit,
        form=step_form(view, step),
    )  # fmt: skip
    context = {"row": row, "step": step, "dish": view.dish, "feast": view.dish.feast}
    return render(request, "steps/_step_form.html", context)


@require_POST
def change(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """Change a step that has not begun."""
    view = outlook_of(request, dish_id)
    step = _step(view, step_key)
    form = step_form(view, step, request)

    def deed() -> None:
        _refuse_begun(view, step)
        changed = form.changed
        if changed:
            refuse_circle(view, step.id, changed.get("after", ()))
            change_step(view.dish, step.id, changed)

    return _done(request, view, form, deed, bad=step.id)


@require_POST
def forget(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """Take back what was changed of a step, or a change that no longer applies."""
    view = outlook_of(request, dish_id)
    step = view.step(step_key)

    def deed() -> None:
        if step is not None:
            _refuse_begun(view, step)
        forget_change(view.dish, step_key)

    return _done(request, view, None, deed, bad="")


@require_POST
def add(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Add a step of one's own."""
    view = outlook_of(request, dish_id)
    form = OwnStepForm(
        request.POST, dish=view.dish, others=others(view), steps=list(view.steps), prefix="own"
    )

    def deed() -> None:
        after = form.cleaned_data["after"]
        following = view.steps[view.place_of(after) + 1 :]
        if any(step.id in view.state.begun for step in following):
            raise Refused(gettext("What follows has begun already; put it after a later step."))
        fields = form.fields_of_step
        refuse_circle(view, following[0].id if following else "", fields["after"])
        add_step(view.dish, view.steps, after, fields)

    return _done(request, view, form, deed, bad="own")


@require_POST
def remove(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """Remove a step that has not begun."""
    view = outlook_of(request, dish_id)
    step = _step(view, step_key)

    def deed() -> None:
        _refuse_begun(view, step)
        remove_step(view.dish, view.steps, step.id)

    return _done(request, view, None, deed, bad="")


@require_POST
def hour(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Its own hour to be served, how early it may be done, its notes."""
    view = outlook_of(request, dish_id)
    form = DishHourForm(request.POST, dish=view.dish, prefix="hour")

    def deed() -> None:
        typed = form.cleaned_data
        set_hour(view.dish, typed["serve_at"], typed["early_max_min"], typed["note"])

    return _done(request, view, form, deed, bad="hour")


@require_POST
def keep(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Keep the steps under a name."""
    view = outlook_of(request, dish_id)
    form = KeepRouteForm(request.POST, prefix="keep")
    if not form.is_valid():
        return steps_page(request, view, form, bad="keep")
    kept = keep_route(view.kitchen, form.cleaned_data["name"], view.steps, view.dish)
    messages.success(request, tell("Saved as {kept}.", kept=kept.name))
    return redirect("steps", dish_id)


@require_POST
def take(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Take kept steps in place of those that are there."""
    view = outlook_of(request, dish_id)
    wanted = request.POST.get("route", "")
    routes = kitchen_of(request).routes
    kept = get_object_or_404(routes, pk=wanted if wanted.isdecimal() else 0)

    route = by_route(view)
    rooms = {step.id: step.uses for step in route}

    def deed() -> None:
        if view.state.begun:
            raise Refused(
                gettext("It has begun: its steps stay, but each that lies ahead can be changed.")
            )
        steps = [
            DishStep(**each, uses=rooms.get(each["id"], 1.0)) for each in kept.steps
        ]  # fmt: skip
        take_route(view.dish, route, steps)

    return _done(request, view, None, deed, bad="")


def _step(view: Outlook, key: str) -> DishStep:
    step = view.step(key)
    if step is None:
        raise Http404
    return step


def _refuse_begun(view: Outlook, step: DishStep) -> None:
    if step.id in view.state.begun:
        raise Refused(tell("{step} has begun: the past stays as it was.", step=step.title))


def _done(
    request: HttpRequest,
    view: Outlook,
    form: StepForm | DishHourForm | None,
    deed: Callable[[], object],
    *,
    bad: str,
) -> HttpResponse:
    """Do it for whoever looked at the feast as it is; what was typed stays when it is refused."""
    if form is not None and not form.is_valid():
        return steps_page(request, view, form, bad=bad)
    try:
        with once():
            claim(view.dish.feast, seen_version(request))
            deed()
    except Refused as refused:
        if form is None:
            messages.error(request, str(refused))
            return redirect("steps", view.dish.pk)
        form.add_error(None, str(refused))
        return steps_page(request, view, form, bad=bad)
    return redirect("steps", view.dish.pk)
