"""The steps of a dish: change any, add own ones, keep them for another time."""

from collections.abc import Callable

from django.contrib import messages
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from pantry_web.feasts.access import outlook_of, seen_version
from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.actions.save_dish import lay
from pantry_web.feasts.laying import as_route
from pantry_web.feasts.models import Step
from pantry_web.feasts.planning import Outlook
from pantry_web.feasts.refusal import Refused
from pantry_web.kitchens.access import kitchen_of
from pantry_web.steps.forms import DishHourForm, KeepRouteForm, OwnStepForm, StepForm

SHOWN = (
    "title", "place", "min_h", "prefer_h", "max_h", "hands_min", "every_h", "attended",
    "locked_start",
)  # fmt: skip


def steps(request: HttpRequest, dish_id: int) -> HttpResponse:
    """All steps with their windows and their times by the plan."""
    return _page(request, outlook_of(request, dish_id))


@require_POST
def change(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """Change a step that has not begun."""
    view = outlook_of(request, dish_id)
    step = get_object_or_404(Step, dish=view.dish, key=step_key)
    form = StepForm(request.POST, dish=view.dish, prefix=step.key)
    return _done(request, view, form, lambda: _save(view, step, form), bad=step.key)


@require_POST
def add(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Add a step of one's own."""
    view = outlook_of(request, dish_id)
    form = OwnStepForm(request.POST, dish=view.dish, steps=list(view.steps), prefix="own")
    return _done(request, view, form, lambda: _add(view, form), bad="own")


@require_POST
def remove(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """Take a step out that has not begun."""
    view = outlook_of(request, dish_id)
    step = get_object_or_404(Step, dish=view.dish, key=step_key)
    return _done(request, view, None, lambda: _remove(view, step), bad="")


@require_POST
def hour(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Its own hour to be served, how early it may be done, its notes."""
    view = outlook_of(request, dish_id)
    form = DishHourForm(request.POST, dish=view.dish, prefix="hour")
    return _done(request, view, form, form.save, bad="hour")


@require_POST
def keep(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Keep the steps under a name."""
    view = outlook_of(request, dish_id)
    form = KeepRouteForm(request.POST, prefix="keep")
    if not form.is_valid():
        return _page(request, view, form, bad="keep")
    kept = form.save(view.dish, as_route(view.steps))
    messages.success(request, f"Kept as {kept.name}.")
    return redirect("steps", dish_id)


@require_POST
def take(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Take kept steps in place of those that are there."""
    view = outlook_of(request, dish_id)
    wanted = request.POST.get("route", "")
    routes = kitchen_of(request).routes
    kept = get_object_or_404(routes, pk=wanted if wanted.isdecimal() else 0)

    def replace() -> None:
        if view.state.begun:
            raise Refused("It has begun: its steps stay, but each that lies ahead can be changed.")
        view.dish.steps.all().delete()
        lay(
            Step(dish=view.dish, position=position, is_changed=True, **step)
            for position, step in enumerate(kept.steps)
        )

    return _done(request, view, None, replace, bad="")


def _save(view: Outlook, step: Step, form: StepForm) -> None:
    _refuse_begun(view, step)
    form.save(step)


def _add(view: Outlook, form: OwnStepForm) -> None:
    after = next((step for step in view.steps if step.key == form.cleaned_data["after"]), None)
    later = [step for step in view.steps if after is None or step.position > after.position]
    if any(step.key in view.state.begun for step in later):
        raise Refused("What follows has begun already; put it after a later step.")
    form.add()


def _remove(view: Outlook, step: Step) -> None:
    _refuse_begun(view, step)
    step.delete()


def _refuse_begun(view: Outlook, step: Step) -> None:
    if step.key in view.state.begun:
        raise Refused(f"{step.title} has begun: the past stays as it was.")


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
        return _page(request, view, form, bad=bad)
    try:
        with transaction.atomic():
            claim(view.dish.feast, seen_version(request))
            deed()
    except Refused as refused:
        if form is None:
            messages.error(request, str(refused))
            return redirect("steps", view.dish.pk)
        form.add_error(None, str(refused))
        return _page(request, view, form, bad=bad)
    return redirect("steps", view.dish.pk)


def _page(
    request: HttpRequest,
    view: Outlook,
    form: StepForm | DishHourForm | KeepRouteForm | None = None,
    *,
    bad: str = "",
) -> HttpResponse:
    dish = view.dish
    rows = [
        {
            "step": step,
            "planned": view.planned(step.key),
            "begun": step.key in view.state.begun,
            "form": form if bad == step.key else StepForm(
                dish=dish, prefix=step.key, initial={name: getattr(step, name) for name in SHOWN}
            ),
        }
        for step in view.steps
    ]  # fmt: skip
    hour_now = {name: getattr(dish, name) for name in ("serve_at", "early_max_min", "note")}
    context = {
        "outlook": view, "dish": dish, "feast": dish.feast, "rows": rows, "bad": bad,
        "own_form": form if bad == "own" else OwnStepForm(
            dish=dish, steps=list(view.steps), prefix="own"
        ),
        "hour_form": form if bad == "hour" else DishHourForm(
            dish=dish, prefix="hour", initial=hour_now
        ),
        "keep_form": form if bad == "keep" else KeepRouteForm(
            prefix="keep", initial={"name": dish.name}
        ),
        "routes": kitchen_of(request).routes.all(),
    }  # fmt: skip
    return render(request, "steps/steps.html", context, status=422 if bad else 200)
