"""Rounds: what to do next, with one thumb."""

from collections.abc import Callable

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST

from pantry_core.heat.warm import judge_fridge
from pantry_core.history.salt_now import salt_now
from pantry_web.feasts.access import dish_of
from pantry_web.feasts.actions.keep_plan import keep_plan
from pantry_web.feasts.actions.log.begin_step import begin_step
from pantry_web.feasts.actions.log.turn import turn
from pantry_web.feasts.actions.log.undo import undo
from pantry_web.feasts.actions.log.write_down import write_down
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.planning.changes import changes
from pantry_web.planning.deeds import done
from pantry_web.planning.hands import gate_now, left_min, look_again_at, tasks
from pantry_web.planning.happenings import happenings
from pantry_web.planning.looking import outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.rounds.forms import NoteForm
from pantry_web.rounds.salt_now import past_of_dish, taste_answer, weigh_in
from pantry_web.sentences import translated

BACK = {"today": "today", "fire": "fire-day"}
"""Where a press may lead back to, by what its form says."""


def rounds(request: HttpRequest, dish_id: int) -> HttpResponse:
    """What is next, what comes after, what was done."""
    return _page(request, outlook_of(request, dish_id), None)


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
        return _page(request, outlook_of(request, dish_id), form)
    write_note(request, dish_id, form)
    return redirect("rounds", dish_id)


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
    return redirect(back) if back else redirect("rounds", dish_id)


def _lies_cold(view: Outlook) -> bool:
    running = view.step(view.state.running or "")
    return running is not None and running.place == "fridge"


def gate_context(view: Outlook) -> dict[str, object]:
    """What the piece of a page needs that asks whether a dish is done, or cold."""
    return {
        "gate": gate_now(view),
        "look_again": look_again_at(view),
        "left": left_min(view),
        "feast": view.dish.feast,
    }


def _page(request: HttpRequest, view: Outlook, form: NoteForm | None) -> HttpResponse:
    kitchen = kitchen_of(request)
    left = tasks(view)
    first = left[0] if left else None
    past = past_of_dish(view)
    context = {
        "outlook": view,
        "dish": view.dish,
        "first": first,
        **gate_context(view),
        "later": left[1:],
        "running": view.step(view.state.running or ""),
        "log": list(happenings(view)),
        "changes": changes(view.whole),
        "salt": salt_now(past, view.now) if past else None,
        "taste": taste_answer(view, past),
        "weighed": weigh_in(view),
        "note_form": form or NoteForm(units=kitchen.units),
    }
    return render(request, "rounds/rounds.html", context, status=422 if form else 200)
