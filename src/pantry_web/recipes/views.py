"""Checking a recipe for a dish."""

from typing import Any

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from pantry_core.recipes.found import NotARecipe
from pantry_web.feasts.actions.change_dish import change_dish
from pantry_web.kitchens.access import kitchen_of
from pantry_web.planning.looking import piece_outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.recipes.forms import ImportForm, RecipeForm
from pantry_web.recipes.reading import ReadRecipe, read_recipe
from pantry_web.refusal import Refused
from pantry_web.sentences import tell, translated


def recipe_check(request: HttpRequest, dish_id: int) -> HttpResponse:
    """The recipe of a dish as it was found, and what it comes to; one press takes it put right."""
    view = piece_outlook_of(request, dish_id)
    form = _form(request, view, request.POST or None)
    read = _read(request, view, form)
    if request.method == "POST" and form.is_valid() and read is not None:
        if read.right is None or read.is_open:
            form.add_error("text", gettext("Answer what is asked beside the lines first."))
        else:
            return _take(request, view, form, read)
    return _page(request, view, form, read)


@require_POST
def recipe_answer(request: HttpRequest, dish_id: int) -> HttpResponse:
    """What a recipe comes to, as it is typed; nothing is kept."""
    view = piece_outlook_of(request, dish_id)
    form = _form(request, view, request.POST)
    return render(request, "recipes/_answer.html", _context(view, form, _read(request, view, form)))


@require_POST
def recipe_import(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Take the lines out of a file; what was typed stays when that fails."""
    view = piece_outlook_of(request, dish_id)
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
    return RecipeForm(typed, units=kitchen.units, initial=_initial(view, kitchen.cups))


def _initial(view: Outlook, cups: str) -> dict[str, object]:
    dish = view.dish
    return {
        "text": dish.recipe, "method": dish.cure.get("method", ""), "cups": cups, "used": 100.0,
        "held_back": 0.0, "is_scaled": True,
    }  # fmt: skip


def _read(request: HttpRequest, view: Outlook, form: RecipeForm) -> ReadRecipe | None:
    """The recipe that the form holds; None while something is missing or wrong."""
    asked = form
    if not form.is_bound:
        initial = form.initial
        asked = RecipeForm(
            {name: form.fields[name].prepare_value(value) for name, value in initial.items()},
            units=kitchen_of(request).units,
        )
    if not asked.is_valid():
        return None
    typed = asked.cleaned_data
    share = typed["share"]
    try:
        return read_recipe(
            typed["text"], view.dish, view.whole.house, asked.way,
            cups=typed["cups"], days=typed["days"], used_share=(typed["used"] or 100.0) / 100.0,
            injection_share=None if share is None else share / 100.0,
            held_back=(typed["held_back"] or 0.0) / 100.0, is_scaled=typed["is_scaled"],
            answers=request.POST,
        )  # fmt: skip
    except NotARecipe as error:
        asked.add_error("text", translated(str(error)))
        return None


def _take(request: HttpRequest, view: Outlook, form: RecipeForm, read: ReadRecipe) -> HttpResponse:
    dish = view.dish
    try:
        if read.right is not None:
            text = form.cleaned_data["text"]
            change_dish(dish, read.right, recipe=text, vessel=dish.vessel)
    except Refused as refused:
        form.add_error("text", str(refused))
        return _page(request, view, form, read)
    messages.success(request, gettext("The recipe, put right, is the mix of this dish now."))
    return redirect("weigh-up", dish.pk)


def _context(
    view: Outlook, form: RecipeForm, read: ReadRecipe | None, importing: ImportForm | None = None
) -> dict[str, object]:
    return {
        "dish": view.dish,
        "feast": view.dish.feast,
        "form": form,
        "read": read,
        "out": read.out if read else None,
        "right": read.answer if read else None,
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
