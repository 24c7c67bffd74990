"""The steps of a dish: changed in place, added, removed, kept for another time."""

from collections.abc import Callable

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _
from django.views.decorators.http import require_POST

from pantry_core.dish.answer import DishStep
from pantry_core.dish.recipe_asked import RecipeAsked
from pantry_core.text import joined
from pantry_web.feasts.access import seen_version
from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.actions.set_hour import set_hour
from pantry_web.feasts.documents import Document, dish_document
from pantry_web.kitchens.access import kitchen_of
from pantry_web.planning.answers import Broken, work_out
from pantry_web.planning.hands import lost_waits
from pantry_web.planning.looking import outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.planning.recipes.mix import RecipeLine, lines_of
from pantry_web.presses.once import once
from pantry_web.refusal import Refused
from pantry_web.sentences import tell
from pantry_web.steps.actions.add_step import add_step
from pantry_web.steps.actions.change_step import change_step
from pantry_web.steps.actions.forget_change import forget_change
from pantry_web.steps.actions.keep_route import keep_route
from pantry_web.steps.actions.refuse_circle import refuse_circle
from pantry_web.steps.actions.remove_step import remove_step
from pantry_web.steps.actions.set_parts import set_parts
from pantry_web.steps.actions.take_route import take_route
from pantry_web.steps.forms import (
    DishHourForm,
    JobPartsForm,
    KeepRouteForm,
    OwnStepForm,
    StepForm,
    Waited,
    step_as_it_is,
)
from pantry_web.steps.kept import in_the_freezer

STATE_NAMES = {
    "frozen": _("frozen"), "raw": _("raw"), "curing": _("in its cure"), "hot": _("at the heat"),
    "cooked": _("cooked, cooling"), "cold": _("cooked, cold"),
}  # fmt: skip


def steps(request: HttpRequest, dish_id: int) -> HttpResponse:
    """All steps with their windows and their times by the plan."""
    return _page(request, outlook_of(request, dish_id))


def form(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """The form of one step, as a part of its page."""
    view = outlook_of(request, dish_id)
    step = _step(view, step_key)
    edit = next((e for e in view.dish.document.get("edits", []) if e["step"] == step_key), None)
    row = {
        "step": step, "form": _form(view, step), "edit": edit,
        "is_own": bool(edit and edit.get("own")), "begun": step.id in view.state.begun,
    }  # fmt: skip
    context = {"row": row, "step": step, "dish": view.dish, "feast": view.dish.feast}
    return render(request, "steps/_step_form.html", context)


@require_POST
def change(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """Change a step that has not begun."""
    view = outlook_of(request, dish_id)
    step = _step(view, step_key)
    form = _form(view, step, request)

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
        request.POST, dish=view.dish, others=_others(view), steps=list(view.steps), prefix="own"
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
def parts(request: HttpRequest, job_id: int) -> HttpResponse:
    """Set how much of a side job is made, and of what."""
    view = outlook_of(request, job_id)
    if not view.dish.is_job:
        raise Http404
    form = JobPartsForm(request.POST, dish=view.dish, units=view.kitchen.units, prefix="parts")
    return _done(request, view, form, lambda: set_parts(view.dish, form.parts), bad="parts")


@require_POST
def keep(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Keep the steps under a name."""
    view = outlook_of(request, dish_id)
    form = KeepRouteForm(request.POST, prefix="keep")
    if not form.is_valid():
        return _page(request, view, form, bad="keep")
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

    by_route = _by_route(view)
    rooms = {step.id: step.uses for step in by_route}

    def deed() -> None:
        if view.state.begun:
            raise Refused(
                gettext("It has begun: its steps stay, but each that lies ahead can be changed.")
            )
        steps = [
            DishStep(**each, uses=rooms.get(each["id"], 1.0)) for each in kept.steps
        ]  # fmt: skip
        take_route(view.dish, by_route, steps)

    return _done(request, view, None, deed, bad="")


def _absent(view: Outlook, edits: list[Document]) -> list[Document]:
    """The changes of steps that are not there: removed by the cook, or gone from the route."""
    names = {step.id: step.title for step in _by_route(view)} if edits else {}
    return [
        {
            "step": edit["step"],
            "title": edit.get("title") or names.get(edit["step"], edit["step"]),
            "removed": edit.get("removed", False),
        }
        for edit in edits
    ]


def _by_route(view: Outlook) -> tuple[DishStep, ...]:
    """The steps without the cook's changes."""
    decided = {name: part for name, part in view.dish.document.items() if name != "edits"}
    answer = work_out(dish_document(decided, view.whole.house, view.dish.vessel))
    return () if isinstance(answer, Broken) else answer.steps


def _step(view: Outlook, key: str) -> DishStep:
    step = view.step(key)
    if step is None:
        raise Http404
    return step


def _form(view: Outlook, step: DishStep, request: HttpRequest | None = None) -> StepForm:
    typed = request.POST if request else None
    return StepForm(
        typed, dish=view.dish, others=_others(view), prefix=step.id, initial=step_as_it_is(step)
    )


def _others(view: Outlook) -> list[Waited]:
    """The steps of the other dishes, which one of this dish can wait for."""
    return [
        Waited(other.key, step.id, joined(": ", (other.dish.name, step.title)))
        for other in view.whole.dishes
        if other is not view and not other.dish.is_given_up and not other.is_discarded
        for step in other.steps
    ]


def _history(view: Outlook) -> list[dict[str, object]]:
    """What happens to the piece, each stay with the title of its step."""
    titles = {step.id: step.title for step in view.steps}
    return [
        {"stay": stay, "title": titles.get(stay.step or ""), "state": STATE_NAMES[stay.state]}
        for stay in (view.answer.history if view.answer is not None else ())
        if stay.hours > 0
    ]


def _refuse_begun(view: Outlook, step: DishStep) -> None:
    if step.id in view.state.begun:
        raise Refused(tell("{step} has begun: the past stays as it was.", step=step.title))


def _done(
    request: HttpRequest,
    view: Outlook,
    form: StepForm | DishHourForm | JobPartsForm | None,
    deed: Callable[[], object],
    *,
    bad: str,
) -> HttpResponse:
    """Do it for whoever looked at the feast as it is; what was typed stays when it is refused."""
    if form is not None and not form.is_valid():
        return _page(request, view, form, bad=bad)
    try:
        with once():
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
    form: StepForm | DishHourForm | JobPartsForm | KeepRouteForm | None = None,
    *,
    bad: str = "",
) -> HttpResponse:
    dish, shown = view.dish, request.GET.get("step", "")
    edits = {each["step"]: each for each in dish.document.get("edits", [])}
    rows = [
        {
            "step": step,
            "planned": view.planned(step.id),
            "begun": step.id in view.state.begun,
            "edit": edits.get(step.id),
            "is_own": edits.get(step.id, {}).get("own", False),
            "withheld": view.withheld(step.id),
            "noted": view.noted(step.id),
            "form": form if bad == step.id else _form(view, step) if step.id == shown else None,
        }
        for step in view.steps
    ]
    present = {step.id for step in view.steps}
    hour_now = {name: getattr(dish, name) for name in ("serve_at", "early_max_min", "note")}
    context = {
        "outlook": view, "dish": dish, "feast": dish.feast, "rows": rows, "bad": bad,
        "lost_waits": lost_waits(view),
        "history": _history(view),
        "shown": bad or shown,
        "absent": _absent(view, [edit for step, edit in edits.items() if step not in present]),
        "own_form": form if bad == "own" else OwnStepForm(
            dish=dish, others=_others(view), steps=list(view.steps), prefix="own"
        ),
        "hour_form": form if bad == "hour" else DishHourForm(
            dish=dish, prefix="hour", initial=hour_now
        ),
        "job_lines": _job_lines(view),
        "in_the_freezer": in_the_freezer(view),
        "parts_form": form if bad == "parts" else JobPartsForm(
            dish=dish, units=view.kitchen.units, prefix="parts"
        ) if dish.is_job else None,
        "keep_form": form if bad == "keep" else KeepRouteForm(
            prefix="keep", initial={"name": dish.name}
        ),
        "routes": kitchen_of(request).routes.all(),
    }  # fmt: skip
    return render(request, "steps/steps.html", context, status=422 if bad else 200)


def _job_lines(view: Outlook) -> list[RecipeLine]:
    """What goes into a side job by its recipe; nothing without one."""
    recipe = view.dish.document.get("job", {}).get("recipe")
    if not recipe or view.answer is None:
        return []
    return list(lines_of(RecipeAsked.model_validate(recipe), view.answer))
