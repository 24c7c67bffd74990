"""Ticking what is done, undoing it, and writing down what was read, weighed and tasted."""

from collections.abc import Callable

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from pantry_core.heat.warm import judge_fridge
from pantry_web.feasts.access import dish_of
from pantry_web.feasts.actions.keep_plan import keep_plan
from pantry_web.feasts.actions.log.begin_step import begin_step
from pantry_web.feasts.actions.log.turn import turn
from pantry_web.feasts.actions.log.undo import undo
from pantry_web.feasts.actions.log.write_down import write_down
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.planning.deeds import done
from pantry_web.planning.looking import outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.sentences import translated
from pantry_web.steps.note_form import NoteForm
from pantry_web.steps.page import steps_page

BACK = {"today": "today", "fire": "fire-day"}
"""Where a press may lead back to, by what its form says."""


@require_POST
def tick(request: HttpRequest, dish_id: int, step_key: str) -> HttpResponse:
    """Tick the beginning of a step."""
    by, is_sure = cook_of(request), "sure" in request.POST

    def begin(view: Outlook) -> None:
        """Whoever begins a step goes by the plan as it was shown."""
        plan = view.whole.plan
        begin_step(view, step_key, by, is_sure=is_sure)
        keep_plan(view.dish.feast, plan)

    return _done(request, dish_id, begin, alone=False)


@require_POST
def tick_round(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Tick a round."""
    by = cook_of(request)
    return _done(request, dish_id, lambda view: turn(view, by))


@require_POST
def take_back(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Undo what was done last."""
    by, seen = cook_of(request), request.POST.get("batch", "")
    return _done(request, dish_id, lambda view: undo(view, by, seen))


@require_POST
def note(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Write something down."""
    form = NoteForm(request.POST, units=kitchen_of(request).units)
    if not form.is_valid():
        return steps_page(request, outlook_of(request, dish_id), note=form)
    write_note(request, dish_id, form)
    return redirect("steps", dish_id)


def write_note(request: HttpRequest, dish_id: int, form: NoteForm) -> None:
    """Write down what a form that is valid says; a fridge that is too warm is said at once."""
    by, written = cook_of(request), form.cleaned_data

    def write(view: Outlook) -> None:
        temperature_c: float | None = written["temperature"]
        write_down(
            view, by, mass_g=written["mass"], temperature_c=temperature_c, taste=written["taste"],
            touch=written["touch"], note=written["note"],
        )  # fmt: skip
        if temperature_c is not None and _lies_cold(view):
            judged = judge_fridge(temperature_c)
            if judged is not None:
                messages.warning(request, translated(judged.text))

    done(request, dish_id, write)


def _done(
    request: HttpRequest, dish_id: int, deed: Callable[[Outlook], None], *, alone: bool = True
) -> HttpResponse:
    """Do it on the dish as it stands; what is refused is said."""
    done(request, dish_id, deed, alone=alone)
    if request.POST.get("back") == "passage":
        return redirect("feast-passage", dish_of(request, dish_id).feast_id)
    back = BACK.get(request.POST.get("back", ""))
    return redirect(back) if back else redirect("steps", dish_id)


def _lies_cold(view: Outlook) -> bool:
    running = view.step(view.state.running or "")
    return running is not None and running.place == "fridge"
