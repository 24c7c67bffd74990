"""The label for the vessel."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

import segno
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse

from pantry_core.quantities import Clock, Moment, MomentForm
from pantry_core.routes.steps import CURING
from pantry_core.rules.cures import CURE_KEYS
from pantry_web.feasts.choices import method_name
from pantry_web.planning.looking import piece_outlook_of
from pantry_web.sentences import tell

QR_SCALE = 4


def label(request: HttpRequest, dish_id: int) -> HttpResponse:
    """What is in the vessel, in, out, when to turn, and the dish's address as a QR code."""
    view = piece_outlook_of(request, dish_id)
    curing = next((step for step in view.steps if step.kind in CURING), None)
    fact = view.state.facts.get(curing.id) if curing else None
    planned = view.planned(curing.id) if curing else None
    begins = (fact.started_at if fact else None) or (planned.start if planned else None)
    ends = (fact.ended_at if fact else None) or (planned.end if planned else None)
    rounds = [each.at for each in view.plan.rounds] if view.plan else []
    zone = ZoneInfo(view.dish.feast.time_zone)
    sheet = view.answer.weighed_out if view.answer else None
    cures = ("curing-salt", *CURE_KEYS.values())
    address = request.build_absolute_uri(reverse("steps", args=[dish_id]))
    lies = [at for at in rounds if begins and ends and max(begins, view.now) <= at < ends]
    context = {
        "dish": view.dish, "feast": view.dish.feast, "curing": curing, "begins": begins,
        "ends": ends, "turns": runs(lies, zone),
        "asked": view.answer.asked if view.answer else None,
        "curing_salt_g": sum(sheet.grams(name) for name in cures) if sheet else 0.0,
        "outlook": view, "address": address,
        "method": method_name(view.dish.cure.get("method", "")),
        "qr": segno.make(address, error="m").svg_inline(scale=QR_SCALE, border=2, omitsize=True),
    }  # fmt: skip
    return render(request, "weighup/label.html", context)


def runs(moments: Sequence[datetime], zone: ZoneInfo) -> list[str]:
    """Moments in words, days on end at the same hour as one: Sat 13 to Sun 21 Mar, 08:45."""
    local = sorted(each.astimezone(zone) for each in moments)
    groups: list[list[datetime]] = []
    for each in local:
        last = groups[-1][-1] if groups else None
        goes_on = (
            last is not None
            and last.time() == each.time()
            and each.date() - last.date() == timedelta(days=1)
        )
        if goes_on:
            groups[-1].append(each)
        else:
            groups.append([each])
    told = []
    for group in groups:
        first, last = group[0], group[-1]
        if len(group) == 1:
            told.append(tell("{moment}", moment=Moment(first, "day-hour")))
            continue
        form: MomentForm = "weekday-day" if first.month == last.month else "short-day"
        told.append(
            tell(
                "{first} to {last}, {hour}",
                first=Moment(first, form),
                last=Moment(last, "short-day"),
                hour=Clock(first),
            )
        )
    return told
