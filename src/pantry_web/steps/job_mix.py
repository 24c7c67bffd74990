"""What goes into a side job: its ingredients or its recipe, how much, what the freezer has."""

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST

from pantry_core.dish.recipe_asked import RecipeAsked
from pantry_web.feasts.access import seen_version
from pantry_web.feasts.actions.claim import claim
from pantry_web.planning.looking import outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.planning.recipes.mix import RecipeLine, lines_of
from pantry_web.presses.once import once
from pantry_web.refusal import Refused
from pantry_web.steps.actions.set_parts import set_parts
from pantry_web.steps.forms import JobPartsForm
from pantry_web.steps.kept import in_the_freezer


def job_mix(request: HttpRequest, job_id: int) -> HttpResponse:
    """What goes into a side job."""
    return _page(request, _job_outlook(request, job_id))


@require_POST
def parts(request: HttpRequest, job_id: int) -> HttpResponse:
    """Set how much of a side job is made, and of what."""
    view = _job_outlook(request, job_id)
    form = JobPartsForm(request.POST, dish=view.dish, units=view.kitchen.units, prefix="parts")
    if form.is_valid():
        try:
            with once():
                claim(view.dish.feast, seen_version(request))
                set_parts(view.dish, form.parts)
        except Refused as refused:
            form.add_error(None, str(refused))
        else:
            return redirect("job-mix", job_id)
    return _page(request, view, form)


def _job_outlook(request: HttpRequest, job_id: int) -> Outlook:
    """A side job of the cook's kitchen.

    Raises: Http404 for a dish that is none.
    """
    view = outlook_of(request, job_id)
    if not view.dish.is_job:
        raise Http404
    return view


def _page(request: HttpRequest, view: Outlook, form: JobPartsForm | None = None) -> HttpResponse:
    dish = view.dish
    context = {
        "outlook": view, "dish": dish, "feast": dish.feast, "lines": _lines(view),
        "in_the_freezer": in_the_freezer(view), "is_refused": form is not None,
        "parts_form": form or JobPartsForm(dish=dish, units=view.kitchen.units, prefix="parts"),
    }  # fmt: skip
    return render(request, "steps/job_mix.html", context, status=422 if form else 200)


def _lines(view: Outlook) -> list[RecipeLine]:
    """What goes into it by its recipe; nothing without one."""
    recipe = view.dish.document.get("job", {}).get("recipe")
    if not recipe or view.answer is None:
        return []
    return list(lines_of(RecipeAsked.model_validate(recipe), view.answer))
