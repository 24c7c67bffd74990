"""Weighing out: ticks, the amount really weighed, and what follows from it."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from django import forms
from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.text import slugify
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _
from django.views.decorators.http import require_POST

from pantry_core.dish.answer import DishOut
from pantry_core.dish.recipe_asked import RecipeAsked
from pantry_core.dish.weighed_out import counted, gone_on
from pantry_core.mixes.request import MOST_WATER_G
from pantry_core.mixes.weighed import WeighedLine, WeighedOut
from pantry_web.feasts.actions.change_dish import change_dish
from pantry_web.feasts.actions.log.undo import undo
from pantry_web.feasts.actions.log.weigh_line import weigh_line
from pantry_web.feasts.choices import method_name
from pantry_web.feasts.documents import dish_document
from pantry_web.feasts.line_labels import label_of
from pantry_web.fields import MeatField, QuantityField
from pantry_web.forms import KitchenForm
from pantry_web.kitchens.access import cook_of, kitchen_of
from pantry_web.planning.answers import work_out
from pantry_web.planning.deeds import done
from pantry_web.planning.looking import piece_outlook_of
from pantry_web.planning.outlook import Outlook
from pantry_web.planning.recipes.mix import RecipeLine, lines_of
from pantry_web.quantities import mass
from pantry_web.refusal import Refused
from pantry_web.sentences import tell
from pantry_web.weighup.at_the_scale.instead import instead_of, use_instead
from pantry_web.weighup.at_the_scale.left import LeftForm


class AmountForm(KitchenForm):
    """What was really weighed of a line: on the scale, or out of the tub; or something else."""

    amount = QuantityField("mass", MOST_WATER_G, label=_("Really weighed"), required=False)
    before = QuantityField("mass", MOST_WATER_G, label=_("The tub before"), required=False)
    after = QuantityField("mass", MOST_WATER_G, label=_("The tub after"), required=False)
    instead = forms.ChoiceField(label=_("Used instead"), required=False)

    def __init__(self, *args: Any, others: Sequence[tuple[str, str]] = (), **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        if others:
            field = self.fields["instead"]
            assert isinstance(field, forms.ChoiceField)  # noqa: S101 - as it is declared
            field.choices = [("", gettext("as the recipe has it")), *others]
        else:
            del self.fields["instead"]

    def clean(self) -> dict[str, Any]:
        """What was weighed; of a tub the difference, once both of its weights are typed."""
        typed: dict[str, Any] = super().clean() or {}
        before, after = typed.get("before"), typed.get("after")
        if typed.get("amount") is None and before is not None and after is not None:
            if before <= after:
                self.add_error("after", gettext("Less than before: something was taken out."))
            typed["amount"] = before - after
        elif typed.get("amount") is None and not self.errors:
            self.add_error("amount", gettext("Type what was weighed, or the tub before and after."))
        return typed


class TrimmedForm(KitchenForm):
    """The weight after trimming."""

    trimmed = MeatField(label=_("Weight after trimming"))


@dataclass(frozen=True, slots=True)
class Row:
    """A line to be ticked, with its scale and the form for another amount."""

    line: WeighedLine
    label: str
    scale: str
    form: AmountForm


def weighing(request: HttpRequest, dish_id: int) -> HttpResponse:
    """The sheet to weigh out by."""
    return _page(request, piece_outlook_of(request, dish_id))


@require_POST
def tick_line(request: HttpRequest, dish_id: int, line: str) -> HttpResponse:
    """Tick a line as it is asked for, or write down what was really weighed."""
    kitchen, by = kitchen_of(request), cook_of(request)
    view = piece_outlook_of(request, dish_id)
    lines = _weighed_out(view).lines
    wanted = next((each for each in lines if each.name == line), None)
    if wanted is None:
        messages.error(request, gettext("That line is not on the sheet any more; look again."))
        return redirect("weighing", dish_id)
    if "as_asked" in request.POST:
        return _done(request, dish_id, lambda now: weigh_line(now, by, line, wanted.wanted_g))
    form = AmountForm(
        request.POST, units=kitchen.units, cups=kitchen.cups, auto_id=f"id_{slugify(line)}_%s",
        others=_others_than(view, line),
    )  # fmt: skip
    if not form.is_valid():
        return _page(request, view, bad=(line, form))
    amount, other = form.cleaned_data["amount"], form.cleaned_data.get("instead")
    if other:
        try:
            use_instead(view, line, other, amount)
        except Refused as refused:
            messages.error(request, str(refused))
            return redirect("weighing", dish_id)
    return _done(request, dish_id, lambda now: weigh_line(now, by, other or line, amount))


def _others_than(view: Outlook, line: str) -> list[tuple[str, str]]:
    """What may be used instead of a line, where it is the recipe's."""
    return instead_of(line) if view.dish.document.get("recipe") else []


@require_POST
def take_back_line(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Take the last tick back."""
    by, seen = cook_of(request), request.POST.get("batch", "")
    return _done(request, dish_id, lambda now: undo(now, by, seen))


@require_POST
def trim(request: HttpRequest, dish_id: int) -> HttpResponse:
    """A weight after trimming works the sheet out anew, and says what changed."""
    kitchen = kitchen_of(request)
    view = piece_outlook_of(request, dish_id)
    form = TrimmedForm(request.POST, units=kitchen.units)
    if not form.is_valid():
        return _page(request, view, trimmed=form)
    before = view.answer
    document = {name: part for name, part in view.dish.document.items() if name != "edits"}
    document["piece"] = {**view.dish.piece, "mass_g": form.cleaned_data["trimmed"]}
    try:
        change_dish(view.dish, document, vessel=view.dish.vessel)
    except Refused as refused:
        messages.error(request, str(refused))
        return redirect("weighing", dish_id)
    after = work_out(dish_document(document, view.whole.house, view.dish.vessel))
    if before is not None and isinstance(after, DishOut):
        messages.success(request, _what_changed(before, after, kitchen.units))
    return redirect("weighing", dish_id)


def _what_changed(before: DishOut, after: DishOut, units: str) -> str:
    told, was, now = [], before.weighed_out, after.weighed_out
    if before.asked is None or after.asked is None or was is None or now is None:
        return gettext("Saved.")
    for line in now.lines:
        if abs(line.grams - was.grams(line.name)) > 1e-6 * line.grams:
            label = label_of(line.name, after.asked).lower()
            told.append(f"{label} {mass(was.grams(line.name), units)} → {mass(line.grams, units)}")
    trimmed = f"{mass(before.asked.meat.mass_g, units)} → {mass(after.asked.meat.mass_g, units)}"
    return tell(
        "Trimmed {trimmed}: {figure}.",
        trimmed=trimmed,
        figure=", ".join(told) or "nothing else changes",
    )


def _weighed_out(view: Outlook) -> WeighedOut:
    """The sheet as it goes on from what was weighed.

    Raises: Http404 for a dish of which nothing is weighed out.
    """
    out = None if view.answer is None else gone_on(view.answer, view.state.weighed_lines)
    if out is None:
        raise Http404
    return out


def _done(request: HttpRequest, dish_id: int, deed: Callable[[Outlook], None]) -> HttpResponse:
    done(request, dish_id, deed)
    return redirect("weighing", dish_id)


def _page(
    request: HttpRequest,
    view: Outlook,
    *,
    bad: tuple[str, AmountForm] | None = None,
    trimmed: TrimmedForm | None = None,
) -> HttpResponse:
    kitchen = kitchen_of(request)
    out = _weighed_out(view)
    rows = []
    by_count = counted(view.answer) if view.answer is not None else frozenset()
    for line in out.lines:
        if line.name in by_count:
            continue
        scale = view.whole.house.scale_for(line.wanted_g)
        form = AmountForm(
            units=kitchen.units, auto_id=f"id_{slugify(line.name)}_%s",
            others=_others_than(view, line.name),
        )  # fmt: skip
        if bad is not None and bad[0] == line.name:
            form = bad[1]
        rows.append(
            Row(line, label_of(line.name, out.request),
                scale.name if scale else gettext("in parts: no scale holds it"), form)
        )  # fmt: skip
    context = {
        "dish": view.dish, "feast": view.dish.feast, "rows": rows, "out": out,
        "spices": view.dish.cure.get("spices", []), "outlook": view, "others": _others(view),
        "method": method_name(view.dish.cure.get("method", "")),
        "is_in": view.state.put_in is not None, "last_weighed": view.state.last_weighed,
        "trimmed_form": trimmed or TrimmedForm(units=kitchen.units), "asked": out.request,
        "left_form": LeftForm(units=kitchen.units),
    }  # fmt: skip
    return render(request, "weighup/weighing.html", context, status=422 if bad or trimmed else 200)


def _others(view: Outlook) -> list[RecipeLine]:
    """What of the recipe is counted, or goes elsewhere than into the cure."""
    recipe = view.dish.document.get("recipe")
    if not recipe or view.answer is None:
        return []
    lines = lines_of(RecipeAsked.model_validate(recipe), view.answer)
    return [each for each in lines if each.goes != "cure" or each.grams is None]
