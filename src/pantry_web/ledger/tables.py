"""The ledger as tables: dishes and events as CSV, all of it as JSON."""

import csv
import json
from collections.abc import Iterable, Sequence
from datetime import UTC, datetime
from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse

from pantry_web.cells import harmless
from pantry_web.feasts.models import Dish, Event
from pantry_web.kitchens.access import kitchen_of
from pantry_web.kitchens.models import Kitchen

DISH_COLUMNS = (
    "feast", "serve_at", "dish", "cut", "mass_g", "method", "way", "target_salt_pct", "saltiness",
    "tender", "doneness", "skin", "bland_share", "ready_at", "left_g", "next_time",
)  # fmt: skip
EVENT_COLUMNS = (
    "feast", "dish", "at", "what", "step", "mass_g", "temperature_c", "taste", "touch", "note",
    "line", "until", "by", "press", "withdraws", "heat",
)  # fmt: skip


def dishes_csv(request: HttpRequest) -> HttpResponse:
    """Every dish of the kitchen with what came of it, a line each."""
    return _csv("ledger.csv", DISH_COLUMNS, _dishes(kitchen_of(request)))


def events_csv(request: HttpRequest) -> HttpResponse:
    """Everything that was written down, a line each, what was taken back included."""
    return _csv("events.csv", EVENT_COLUMNS, _events(kitchen_of(request)))


def dishes_json(request: HttpRequest) -> HttpResponse:
    """The dishes and their events as JSON."""
    kitchen = kitchen_of(request)
    answer = JsonResponse(
        {
            "format": "pantry-clock/2",
            "dishes": [dict(zip(DISH_COLUMNS, each, strict=True)) for each in _dishes(kitchen)],
            "events": [dict(zip(EVENT_COLUMNS, each, strict=True)) for each in _events(kitchen)],
        }
    )
    answer["Content-Disposition"] = 'attachment; filename="ledger.json"'
    return answer


def _dishes(kitchen: Kitchen) -> Iterable[Sequence[Any]]:
    dishes = Dish.objects.filter(feast__kitchen=kitchen, feast__removed_at=None)
    for dish in dishes.select_related("feast", "review").order_by("feast__serve_at", "pk"):
        review = getattr(dish, "review", None)
        told = [getattr(review, name) if review else None for name in DISH_COLUMNS[8:]]
        yield [
            dish.feast.name, _text(dish.serve_at or dish.feast.serve_at), dish.name,
            dish.piece.get("cut"), dish.mass_g, dish.cure.get("method"),
            (dish.document.get("heat") or {}).get("way"), dish.cure.get("target_salt_pct"),
            *[_text(each) if isinstance(each, datetime) else each for each in told],
        ]  # fmt: skip


def _events(kitchen: Kitchen) -> Iterable[Sequence[Any]]:
    events = Event.objects.filter(dish__feast__kitchen=kitchen, dish__feast__removed_at=None)
    for event in events.select_related("dish__feast", "by").order_by("pk"):
        yield [
            event.dish.feast.name, event.dish.name, _text(event.at), event.what, event.step_key,
            event.mass_g, event.temperature_c, event.taste, event.touch, event.note, event.line,
            _text(event.until), event.by.username, str(event.batch),
            str(event.withdraws) if event.withdraws else None,
            json.dumps(event.heat) if event.heat else None,
        ]  # fmt: skip


def _csv(name: str, columns: Sequence[str], rows: Iterable[Sequence[Any]]) -> HttpResponse:
    answer = HttpResponse(content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{name}"'
    writer = csv.writer(answer)
    writer.writerow(columns)
    writer.writerows([harmless(each) for each in row] for row in rows)
    return answer


def _text(moment: datetime | None) -> str | None:
    return moment.astimezone(UTC).isoformat() if moment else None
