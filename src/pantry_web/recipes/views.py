"""Checking a recipe for a dish."""

from collections.abc import Callable
from typing import Any

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from pantry_core.recipes.found import NotARecipe
from pantry_web.feasts.actions.change_dish import change_dish
from pantry_web.kitchens.access import kitchen_of
from pantry_web.planning.looking import outlook_alone_of, outlook_of, piece_outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.planning.recipes.change import keep_change, last_change
from pantry_web.planning.recipes.mix import PARTS
from pantry_web.recipes.changes import change_by_proposal, put_line_back, undo_change
from pantry_web.recipes.forms import ImportForm, RecipeForm
from pantry_web.recipes.reading import Asked, ReadRecipe, read_recipe, recipe_of
from pantry_web.refusal import Refused
from pantry_web.sentences import sentence_of, tell, translated


def recipe_check(request: HttpRequest, dish_id: int) -> HttpResponse:
    """The recipe of a dish, and what it comes to; one press makes it the mix of the dish."""
    view = outlook_of(request, dish_id)
    form = _form(request, view, request.POST or None)
    read = _read(request, view, form)
    if request.method == "POST" and form.is_valid() and read is not None:
        if read.document is None or read.is_open:
            form.add_error("text", gettext("Answer what is asked beside the lines first."))
        elif read.came is None:
            form.add_error("text", ". ".join(sentence_of(each) for each in read.wrong))
        else:
            return _take(request, view, form, read)
    return _page(request, view, form, read)


@require_POST
def recipe_answer(request: HttpRequest, dish_id: int) -> HttpResponse:
    """What a recipe comes to, as it is typed; nothing is kept."""
    view = outlook_alone_of(request, dish_id)
    form = _form(request, view, request.POST)
    return render(request, "recipes/_answer.html", _context(view, form, _read(request, view, form)))


@require_POST
def recipe_import(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Take the lines out of a file; what was typed stays when that fails."""
    view = outlook_of(request, dish_id)
    importing = ImportForm(request.POST, request.FILES)
    if not importing.is_valid():
        form = _form(request, view, request.POST)
        return _page(request, view, form, _read(request, view, form), importing)
    found = importing.cleaned_data["file"]
    typed = request.POST.copy()
    typed["text"] = "\n".join(found.lines)
    form = _form(request, view, typed)
    if found.name:
        messages.success(request, tell("Read: {found}.", found=found.name))
    return _page(request, view, form, _read(request, view, form))


def _form(request: HttpRequest, view: Outlook, typed: Any) -> RecipeForm:
    kitchen = kitchen_of(request)
    initial = _initial(view, kitchen.cups)
    return RecipeForm(typed, units=kitchen.units, initial=initial, is_job=view.dish.is_job)


def _initial(view: Outlook, cups: str) -> dict[str, object]:
    dish = view.dish
    kept, cure = recipe_of(dish), dish.cure
    share = cure.get("injection_share")
    return {
        "text": kept.get("text", dish.recipe), "method": cure.get("method", ""),
        "cups": kept.get("cups", cups), "held_back": 0.0,
        "days": cure.get("lies") or _hours(cure.get("days")),
        "used": 100.0 * kept.get("used_share", 1.0), "written_for": kept.get("for_g"),
        "share": _percent(share),
        "people": kept.get("for_people"), "to_pot": _percent(kept.get("liquid_to_pot")),
    }  # fmt: skip


def _percent(share: float | None) -> float | None:
    return None if share is None else 100.0 * share


def _hours(days: float | None) -> float | None:
    return None if days is None else 24.0 * days


def _read(request: HttpRequest, view: Outlook, form: RecipeForm) -> ReadRecipe | None:
    """The recipe that the form holds; None while something is missing or wrong."""
    asked = form
    if not form.is_bound:
        initial = form.initial
        asked = RecipeForm(
            {
                name: form.fields[name].prepare_value(value)
                for name, value in initial.items()
                if name in form.fields
            },
            units=kitchen_of(request).units,
            is_job=view.dish.is_job,
        )
    if not asked.is_valid():
        return None
    typed = asked.cleaned_data
    days, share = typed.get("days"), typed.get("share")
    try:
        wanted = Asked(
            typed["text"], typed["cups"], asked.way,
            days=None if days is None else days / 24.0,
            lies=asked.words_of("days") if "days" in asked.fields else None,
            for_g=asked.kept("written_for") if typed["written_for"] is not None else None,
            used_share=(typed.get("used") or 100.0) / 100.0,
            injection_share=None if share is None else share / 100.0,
            held_back=(typed.get("held_back") or 0.0) / 100.0,
            for_people=typed["people"],
            liquid_to_pot=None if typed.get("to_pot") is None else typed["to_pot"] / 100.0,
        )  # fmt: skip
        return read_recipe(wanted, view.dish, view.whole.house, request.POST)
    except NotARecipe as error:
        asked.add_error("text", translated(str(error)))
        return None


def _take(request: HttpRequest, view: Outlook, form: RecipeForm, read: ReadRecipe) -> HttpResponse:
    dish = view.dish
    try:
        if read.document is not None:
            text = form.cleaned_data["text"]
            change_dish(dish, read.document, recipe=text, vessel=dish.vessel)
    except Refused as refused:
        form.add_error("text", str(refused))
        return _page(request, view, form, read)
    messages.success(request, gettext("Your recipe is the mix of this dish now, as it is written."))
    return redirect("job-mix" if dish.is_job else "weigh-up", dish.pk)


@require_POST
def take_proposal(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Change the one thing of the recipe that a proposal changes."""
    code = request.POST.get("code", "")

    def change(view: Outlook) -> None:
        keep_change(request.session, dish_id, change_by_proposal(view, code))

    done = gettext("Changed. Your recipe's own amount stands beside it.")
    return _changed(request, dish_id, change, done)


@require_POST
def undo_proposal(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Undo the last change by a proposal."""

    def undo(view: Outlook) -> None:
        change = last_change(request.session, view.dish)
        if change is None:
            raise Refused(gettext("The dish was changed since: change it back by hand."))
        undo_change(view, change)

    return _changed(request, dish_id, undo, gettext("Undone: it is as it was before."))


@require_POST
def as_written(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Put a line of the recipe back to what is written."""
    line = request.POST.get("line", "")
    done = gettext("Put back to what is written.")
    return _changed(request, dish_id, lambda view: put_line_back(view, line), done)


def _changed(
    request: HttpRequest, dish_id: int, change: Callable[[Outlook], None], done: str
) -> HttpResponse:
    """Change the recipe of a dish, and say that it is done or why not."""
    try:
        change(piece_outlook_of(request, dish_id))
    except Refused as refused:
        messages.error(request, str(refused))
    else:
        messages.success(request, done)
    return redirect("weigh-up", dish_id)


def _context(
    view: Outlook, form: RecipeForm, read: ReadRecipe | None, importing: ImportForm | None = None
) -> dict[str, object]:
    return {
        "dish": view.dish,
        "feast": view.dish.feast,
        "form": form,
        "read": read,
        "out": read.out if read else None,
        "mix": read.mix if read else None,
        "came": read.came if read else None,
        "parts": PARTS,
        "import_form": importing or ImportForm(),
        "is_in": view.state.put_in is not None,
    }


def _page(
    request: HttpRequest,
    view: Outlook,
    form: RecipeForm,
    read: ReadRecipe | None,
    importing: ImportForm | None = None,
) -> HttpResponse:
    wrong = (form.is_bound and form.errors) or importing is not None
    context = _context(view, form, read, importing)
    return render(request, "recipes/check.html", context, status=422 if wrong else 200)
