"""What is left of a piece before it is cooked: into the freezer by one press, with a label."""

from typing import Any

from django import forms
from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext_lazy as _
from django.views.decorators.http import require_POST

from pantry_core.meat import MOST_MEAT_G
from pantry_web import clock
from pantry_web.feasts.access import dish_of
from pantry_web.fields import QuantityField
from pantry_web.forms import KitchenForm
from pantry_web.kitchens.access import kitchen_of
from pantry_web.ledger.models import Leftover
from pantry_web.weighup.actions.keep_left import keep_left


class LeftForm(KitchenForm):
    """What is left, and how much."""

    what = forms.ChoiceField(choices=Leftover.What.choices, label=_("What is left of it"))
    left = QuantityField("mass", MOST_MEAT_G, least=1.0, label=_("How much"))


@require_POST
def keep_for_the_freezer(request: HttpRequest, dish_id: int) -> HttpResponse:
    """Keep bones, trimmings or another piece, and show the label for it."""
    kitchen, dish = kitchen_of(request), dish_of(request, dish_id)
    form = LeftForm(request.POST, units=kitchen.units)
    if not form.is_valid():
        wrongs: list[Any] = [wrong for each in form.errors.values() for wrong in each]
        messages.error(request, " ".join(str(each) for each in wrongs))
        return redirect("weighing", dish_id)
    typed = form.cleaned_data
    left = keep_left(dish, typed["what"], typed["left"], clock.now(kitchen))
    return redirect("left-label", left.pk)


def left_label(request: HttpRequest, leftover_id: int) -> HttpResponse:
    """The label for what lies in the freezer."""
    kitchen = kitchen_of(request)
    left = get_object_or_404(
        Leftover.objects.select_related("dish__feast"),
        pk=leftover_id, dish__feast__kitchen=kitchen,
    )  # fmt: skip
    return render(request, "weighup/left_label.html", {"left": left, "feast": left.dish.feast})
