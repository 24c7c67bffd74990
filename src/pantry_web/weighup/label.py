"""The label for the vessel."""

import segno
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse

from pantry_core.routes.steps import CURING
from pantry_web.feasts.access import outlook_of
from pantry_web.feasts.mixing import house_of, mix_of, work_out
from pantry_web.kitchens.access import kitchen_of

QR_SCALE = 4


def label(request: HttpRequest, dish_id: int) -> HttpResponse:
    """What is in the vessel, in, out, when to turn, and the dish's address as a QR code."""
    kitchen = kitchen_of(request)
    view = outlook_of(request, dish_id)
    curing = next((step for step in view.steps if step.kind in CURING), None)
    fact = view.state.facts.get(curing.key) if curing else None
    planned = view.planned(curing.key) if curing else None
    begins = (fact.started_at if fact else None) or (planned.start if planned else None)
    ends = (fact.ended_at if fact else None) or (planned.end if planned else None)
    rounds = [each.at for each in view.plan.rounds] if view.plan else []
    mix = mix_of(view.dish)
    address = request.build_absolute_uri(reverse("rounds", args=[dish_id]))
    context = {
        "dish": view.dish, "feast": view.dish.feast, "curing": curing, "begins": begins,
        "ends": ends, "rounds": [at for at in rounds if begins and ends and begins < at < ends],
        "mix": mix, "sheet": work_out(mix, house_of(kitchen)).sheet, "address": address,
        "qr": segno.make(address, error="m").svg_inline(scale=QR_SCALE, border=2, omitsize=True),
    }  # fmt: skip
    return render(request, "weighup/label.html", context)
