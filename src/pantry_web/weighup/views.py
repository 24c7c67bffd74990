"""Weigh-up: what to put on the scale, while one types."""

from django.contrib import messages
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST

from pantry_core.formats.operations import weigh_out_from
from pantry_core.mixes.request import WeighRequest
from pantry_core.routes.customs import CUSTOMS
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.servings import servings
from pantry_core.routes.steps import CURING
from pantry_web import clock
from pantry_web.feasts.access import feast_of, piece_outlook_of, seen_version
from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.actions.save_dish import add_dish, change_dish
from pantry_web.feasts.mixing import House, SpiceLine, house_of, mix_of, work_out
from pantry_web.feasts.models import Feast, WeighSheet
from pantry_web.feasts.planning import Outlook
from pantry_web.feasts.refusal import Refused
from pantry_web.feasts.tasks import next_in_hands
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.quantities import hours_of
from pantry_web.weighup.forms import FIRST, DishForm, as_it_is
from pantry_web.weighup.insight import insight, methods_say
from pantry_web.weighup.sheet import frozen_sheet, live_sheet
from pantry_web.weighup.vessel import in_vessel

SAME_D, MOST_DAYS = 0.05, 10_000.0


def new_dish(request: HttpRequest, feast_id: int) -> HttpResponse:
    """Weigh up another dish of a feast."""
    kitchen = kitchen_of(request)
    feast = feast_of(request, feast_id)
    house = house_of(kitchen)
    form = _form(request, kitchen, house, FIRST)
    if request.method == "POST" and form.is_valid():
        cleaned = form.cleaned_data
        try:
            dish = add_dish(feast, cleaned["name"], form.mix(), house, cleaned["vessel"])
        except Refused as refused:
            form.add_error("name", str(refused))
        else:
            return redirect("weigh-up", dish.pk)
    return _page(request, feast, form, house, None)


def weigh_up(request: HttpRequest, dish_id: int) -> HttpResponse:
    """The dish at the scale: open until the meat is in, then as it was."""
    kitchen = kitchen_of(request)
    view = piece_outlook_of(request, dish_id)
    house = view.whole.house
    put_in = view.state.put_in
    if put_in is not None:
        return _frozen_page(request, view, house, WeighSheet.objects.get(batch=put_in.batch))
    form = _form(request, kitchen, house, as_it_is(view.dish))
    if request.method == "POST" and form.is_valid():
        cleaned = form.cleaned_data
        mix = form.mix(mix_of(view.dish).spices)
        try:
            with transaction.atomic():
                if "version" in request.POST:
                    claim(view.dish.feast, seen_version(request))
                change_dish(view.dish, cleaned["name"], mix, house, cleaned["vessel"])
        except Refused as refused:
            form.add_error("name", str(refused))
        else:
            messages.success(request, "Kept.")
            return redirect("weigh-up", dish_id)
    return _page(request, view.dish.feast, form, house, view)


@require_POST
def answer(request: HttpRequest, feast_id: int) -> HttpResponse:
    """The answer to what has been typed so far; nothing is kept."""
    kitchen = kitchen_of(request)
    feast = feast_of(request, feast_id)
    house = house_of(kitchen)
    form = _form(request, kitchen, house, {})
    typed_for = request.POST.get("dish", "")
    dish = feast.dishes.filter(pk=typed_for).first() if typed_for.isdecimal() else None
    context = _answer(request, feast, form, house, mix_of(dish).spices if dish else ())
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


def _page(
    request: HttpRequest, feast: Feast, form: DishForm, house: House, view: Outlook | None
) -> HttpResponse:
    context = {
        **_answer(request, feast, form, house, mix_of(view.dish).spices if view else ()),
        "dish": view.dish if view else None,
        "outlook": view,
        "following": next_in_hands(view) if view else None,
    }
    status = 422 if form.is_bound and form.errors else 200
    return render(request, "weighup/weigh_up.html", context, status=status)


def _frozen_page(
    request: HttpRequest, view: Outlook, house: House, kept: WeighSheet
) -> HttpResponse:
    asked = WeighRequest.model_validate(kept.request)
    result = weigh_out_from(kept.answer)
    context = {
        "feast": view.dish.feast,
        "dish": view.dish,
        "outlook": view,
        "kept": kept,
        "asked": asked,
        "put_in": view.state.put_in,
        "sheet": frozen_sheet(asked, result, house, mix_of(view.dish).spices),
        "insight": insight(asked, result, _out_after_d(view)),
    }
    return render(request, "weighup/frozen.html", context)


def _out_after_d(view: Outlook) -> float:
    """How long the piece lies in its cure, by the plan or by what happened [d]."""
    curing = next(step for step in view.steps if step.kind in CURING)
    planned = view.planned(curing.key)
    hours = hours_of(planned.end - planned.start) if planned else curing.prefer_h or curing.min_h
    return hours / 24.0


def _answer(
    request: HttpRequest,
    feast: Feast,
    form: DishForm,
    house: House,
    spices: tuple[SpiceLine, ...],
) -> dict[str, object]:
    """What is answered to what the form holds; no sheet while something is missing or wrong."""
    kitchen = kitchen_of(request)
    asked = form
    if not form.is_bound:
        asked = DishForm(
            _as_typed(form), units=kitchen.units, initial=form.initial, house=house,
            vessels=kitchen.vessels.all(), cups=kitchen.cups,
        )  # fmt: skip
    asked.is_valid()
    cut = CUTS.get(asked.cleaned_data.get("cut", ""))
    context: dict[str, object] = {
        "form": form, "feast": feast, "sheet": None, "insight": None, "says": [], "changed": None,
        "ready_days": "", "guess": None, "in_vessel": None,
        "servings": servings(cut, feast.heads) if cut else None,
        "customs": [each for each in CUSTOMS if cut and each.is_about(cut.kind)],
    }  # fmt: skip
    if not asked.is_valid_but_for_its_name():
        return context
    mix, now = asked.mix(spices), clock.now(kitchen)
    mixed = work_out(mix, house)
    curing = next(step for step in mixed.route.steps if step.kind == mix.method)
    ready = mixed.sheet.ready
    spare_h = hours_of(feast.serve_at - now) - (mixed.route.least_h - curing.min_h)
    return context | {
        "sheet": live_sheet(mixed, mix, house, now, feast.serve_at),
        "insight": insight(mixed.request, mixed.sheet, curing.prefer_h / 24.0, spare_h / 24.0),
        "says": methods_say(mix, mixed, house, now, feast.serve_at),
        "changed": _changed(request.POST.get("was_days", ""), ready.days if ready else None),
        "ready_days": f"{ready.days:.3f}" if ready else "",
        "in_vessel": in_vessel(mix, mixed, house, asked.cleaned_data.get("vessel")),
    }


def _changed(was: str, now_days: float | None) -> dict[str, float] | None:
    """What the last change made of the wait, when it made anything of it."""
    try:
        was_days = float(was)
    except ValueError:
        return None
    if now_days is None or not 0 < was_days < MOST_DAYS or abs(was_days - now_days) < SAME_D:
        return None
    return {"was_days": was_days, "now_days": now_days}


def _as_typed(form: DishForm) -> dict[str, object]:
    """What the fields of an unbound form show, as if it had been typed."""
    shown = {
        name: form.fields[name].prepare_value(form.initial.get(name, "")) for name in form.fields
    }
    return {name: "" if value is None else value for name, value in shown.items()}
