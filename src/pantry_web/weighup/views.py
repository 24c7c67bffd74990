"""Weigh-up: what to put on the scale, while one types."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from pantry_core.formats.operations import weigh_out_from
from pantry_core.mixes.request import WeighRequest
from pantry_core.routes.steps import CURING
from pantry_core.text import Sentence
from pantry_web import clock
from pantry_web.feasts.access import feast_of, seen_version
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.actions.change_dish import change_dish
from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.choices import method_name
from pantry_web.feasts.documents import Document, House, dish_document, house_of
from pantry_web.feasts.models import Feast, WeighSheet
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning.another import against_another
from pantry_web.planning.answers import Broken, work_out
from pantry_web.planning.looking import outlook_alone, piece_outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.planning.recipes.change import last_change
from pantry_web.presses.once import once
from pantry_web.quantities import hours_of
from pantry_web.refusal import Refused
from pantry_web.sentences import sentence_of
from pantry_web.weighup.decided import decided
from pantry_web.weighup.forms import DishForm
from pantry_web.weighup.live import live_answer
from pantry_web.weighup.salt_by_day import salt_by_day
from pantry_web.weighup.sheet import frozen_sheet
from pantry_web.weighup.shown import FIRST, as_it_is


def new_dish(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Weigh up another dish of a feast."""
    kitchen = kitchen_of(request)
    feast = feast_of(request, feast_id)
    house = house_of(kitchen)
    form = _form(request, kitchen, house, FIRST)
    if request.method == "POST" and form.is_valid() and _can_be(form, house, {}):
        name, document, vessel = form.dish_name, decided(form, {}), form.cleaned_data["vessel"]
        if "anyway" not in request.POST:
            now = clock.now(kitchen)
            against = against_another(feast, kitchen, now, name, document, vessel)
            if against:
                return _page(request, feast, form, house, None, against)
        try:
            dish = add_dish(feast, name, document, vessel)
        except Refused as refused:
            form.add_error("name", str(refused))
        else:
            return redirect("weigh-up", dish.pk)
    return _page(request, feast, form, house, None)


def weigh_up(request: HttpRequest, dish_id: int) -> HttpResponse:
    """The dish at the scale: open until the meat is in, then as it was."""
    kitchen = kitchen_of(request)
    view = piece_outlook_of(request, dish_id)
    put_in = view.state.put_in
    if put_in is not None:
        return _frozen_page(request, view, WeighSheet.objects.get(batch=put_in.batch))
    form = _form(request, kitchen, view.whole.house, as_it_is(view.dish))
    house = view.whole.house
    if request.method == "POST" and form.is_valid() and _can_be(form, house, view.dish.document):
        try:
            with once():
                if "version" in request.POST:
                    claim(view.dish.feast, seen_version(request))
                change_dish(
                    view.dish, decided(form, view.dish.document), name=form.dish_name,
                    vessel=form.cleaned_data["vessel"],
                )  # fmt: skip
        except Refused as refused:
            form.add_error("name", str(refused))
        else:
            messages.success(request, gettext("Saved."))
            return redirect("weigh-up", dish_id)
    return _page(request, view.dish.feast, form, view.whole.house, view)


@require_POST
def answer(request: HttpRequest, feast_id: int) -> HttpResponse:
    """The answer to what has been typed so far; nothing is kept."""
    kitchen = kitchen_of(request)
    feast = feast_of(request, feast_id)
    house = house_of(kitchen)
    form = _form(request, kitchen, house, {})
    typed_for = request.POST.get("dish", "")
    dish = feast.dishes.filter(pk=typed_for).first() if typed_for.isdecimal() else None
    view = outlook_alone(dish, kitchen, clock.now(kitchen)) if dish and not dish.is_job else None
    context = _answer(request, feast, form, house, view)
    for name in [name for name in form.errors if not request.POST.get(name, "").strip()]:
        del form.errors[name]
    return render(request, "weighup/_answer.html", context)


def _form(
    request: HttpRequest, kitchen: Kitchen, house: House, initial: dict[str, object]
) -> DishForm:
    return DishForm(
        request.POST or None, units=kitchen.units, initial=initial, house=house,
        vessels=kitchen.vessels.all(), cups=kitchen.cups,
    )  # fmt: skip


FIELDS = {"heat.medium_c": "medium", "heat.inside_c": "inside", "heat.take_out_c": "take_out",
          "heat.way": "heat"}  # fmt: skip
"""Where the form has what the document names; the rest is said beside the name."""


def _can_be(form: DishForm, house: House, stored: Document) -> bool:
    """Whether the core can work out what is typed; what it refuses is said beside its field."""
    document = dish_document(decided(form, stored), house, form.cleaned_data.get("vessel"))
    found = work_out(document)
    for problem in found.problems if isinstance(found, Broken) else ():
        form.add_error(FIELDS.get(problem.where, "name"), sentence_of(problem.what))
    return not form.errors


def _page(
    request: HttpRequest, feast: Feast, form: DishForm, house: House, view: Outlook | None,
    against: tuple[Sentence, ...] = (),
) -> HttpResponse:  # fmt: skip
    context = {
        **_answer(request, feast, form, house, view),
        "dish": view.dish if view else None,
        "against": against,
        "outlook": view,
        "following": view.next_in_hands if view else None,
        "is_undoable": view is not None and last_change(request.session, view.dish) is not None,
        "has_recipe": bool(view and view.dish.document.get("recipe")),
    }
    status = 422 if form.is_bound and (form.errors or against) else 200
    return render(request, "weighup/weigh_up.html", context, status=status)


def _frozen_page(request: HttpRequest, view: Outlook, kept: WeighSheet) -> HttpResponse:
    asked = WeighRequest.model_validate(kept.request)
    result = weigh_out_from(kept.answer)
    context = {
        "feast": view.dish.feast,
        "dish": view.dish,
        "outlook": view,
        "kept": kept,
        "asked": asked,
        "put_in": view.state.put_in,
        "method": method_name(view.dish.cure.get("method", "")),
        "sheet": frozen_sheet(asked, result, view.whole.house, _spices(view)),
        "insight": salt_by_day(asked, result, _out_after_d(view)),
    }
    return render(request, "weighup/frozen.html", context)


def _spices(view: Outlook) -> list[Document]:
    """The spices of its recipe."""
    spices: list[Document] = view.dish.cure.get("spices", [])
    return spices


def _out_after_d(view: Outlook) -> float:
    """How long the piece lies in its cure, by the plan or by what happened [d]."""
    curing = next((step for step in view.steps if step.kind in CURING), None)
    if curing is None:
        return 0.0
    planned = view.planned(curing.id)
    hours = hours_of(planned.end - planned.start) if planned else curing.prefer_h or curing.min_h
    return hours / 24.0


def _answer(
    request: HttpRequest, feast: Feast, form: DishForm, house: House, view: Outlook | None
) -> dict[str, object]:
    """What is answered to what the form holds."""
    kitchen = kitchen_of(request)
    asked = form
    if not form.is_bound:
        asked = DishForm(
            _as_typed(form), units=kitchen.units, initial=form.initial, house=house,
            vessels=kitchen.vessels.all(), cups=kitchen.cups,
        )  # fmt: skip
    asked.is_valid()
    context = live_answer(asked, feast, house, view, clock.now(kitchen),
                          request.POST if form.is_bound else None)  # fmt: skip
    return {"form": form, "feast": feast, "dish": view.dish if view else None, **context}


def _as_typed(form: DishForm) -> dict[str, object]:
    """What the fields of an unbound form show, as if it had been typed."""
    shown = {
        name: form.fields[name].prepare_value(form.initial.get(name, "")) for name in form.fields
    }
    return {name: "" if value is None else value for name, value in shown.items()}
