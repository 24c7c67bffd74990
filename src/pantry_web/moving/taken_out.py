"""A kitchen as one document."""

from collections import defaultdict
from collections.abc import Iterable
from datetime import UTC, datetime, time
from typing import Any

from django.db.models import Model, Sum
from django.db.models.functions import Length
from django.utils.translation import gettext

from pantry_core.formats.kitchen import PacketDocument, ScaleDocument, VesselDocument
from pantry_web.feasts.exchange import feast_document
from pantry_web.feasts.models import Feast, Mishap
from pantry_web.kitchens.hours import by_weekday
from pantry_web.kitchens.models import Kitchen, Place
from pantry_web.ledger.models import Photo
from pantry_web.pantry.models import Vessel
from pantry_web.shopping.models import Bought

Document = dict[str, Any]

MOST_NAME = 60
MOST_PHOTO_BYTES = 42_000_000
"""So much of photos comes along; in the file they take a third more."""


def kitchen_document(kitchen: Kitchen) -> Document:
    """A kitchen with its pantry, its hours, its feasts, the removed ones too, and every log."""
    mishaps = list(kitchen.mishaps.all())
    vessels = list(kitchen.vessels.all())
    feasts = list(Feast.with_removed.filter(kitchen=kitchen).order_by("pk"))
    with_photos = _with_photos(kitchen)
    return {
        "format": "pantry-clock/kitchen-1",
        "name": kitchen.name, "tz": kitchen.time_zone, "units": kitchen.units,
        "clock_face": kitchen.clock_face,
        "profile": kitchen.profile, "cups": kitchen.cups, "wake": _hour(kitchen.wake),
        "sleep": _hour(kitchen.sleep), "cooks": kitchen.cooks, "country": kitchen.country,
        "shop": by_weekday(kitchen.shop_hours), "work": by_weekday(kitchen.work_hours),
        "places": {place.name: place.capacity for place in kitchen.places.order_by("pk")},
        "fridge_unit": next((p.unit for p in kitchen.places.all() if p.name == Place.FRIDGE), ""),
        "own_days": [
            {"name": each.name, "day": each.day.isoformat()} for each in kitchen.own_days.all()
        ],
        "changed_days": [
            {"day": each.day.isoformat(), "kind": each.kind, "begins": _hour(each.begins),
             "ends": _hour(each.ends)}
            for each in kitchen.changed_days.all()
        ],
        "absences": [
            {"begins": _text(each.begins), "ends": _text(each.ends)}
            for each in kitchen.absences.all()
        ],
        "mishaps": [_mishap(each) for each in mishaps if each.dish_id is None],
        "scales": [_fields(each, ScaleDocument.model_fields) for each in kitchen.scales.all()],
        "packets": [
            _fields(each, PacketDocument.model_fields) for each in kitchen.ingredients.all()
        ],
        "vessels": [_fields(each, VesselDocument.model_fields) for each in vessels],
        "routes": [
            {"name": each.name, "steps": each.steps, "job": each.job}
            for each in kitchen.routes.all()
        ],
        "feasts": [
            _feast(feast, vessels, mishaps, photos=feast.pk in with_photos) for feast in feasts
        ],
    }  # fmt: skip


def rehearsal_document(feast: Feast) -> Document:
    """A feast with its kitchen around it, as it is rehearsed: without photos."""
    whole = kitchen_document(feast.kitchen)
    vessels, mishaps = list(feast.kitchen.vessels.all()), list(feast.kitchen.mishaps.all())
    name = whole["name"][:MOST_NAME]
    return {
        **whole,
        "name": gettext("%(kitchen)s, rehearsal") % {"kitchen": name},
        "feasts": [_feast(feast, vessels, mishaps, photos=False)],
    }


def _with_photos(kitchen: Kitchen) -> set[int]:
    """The feasts whose photos come along: the latest, as far as the file stays one that opens."""
    sizes = Photo.objects.filter(dish__feast__kitchen=kitchen).values("dish__feast")
    found, left = set(), MOST_PHOTO_BYTES
    for row in sizes.annotate(size=Sum(Length("jpeg"))).order_by("-dish__feast__serve_at"):
        left -= row["size"]
        if left < 0:
            break
        found.add(row["dish__feast"])
    return found


def _feast(
    feast: Feast, vessels: list[Vessel], mishaps: Iterable[Mishap], *, photos: bool
) -> Document:
    told = feast_document(feast, photos=photos)
    dishes = list(feast.dishes.select_related("vessel"))
    ids = {str(dish.pk): each["id"] for dish, each in zip(dishes, told["dishes"], strict=True)}
    bought = defaultdict(list)
    for line in Bought.objects.filter(dish__in=dishes).order_by("pk"):
        bought[line.dish_id].append({"key": line.key, "at": _text(line.at)})
    for dish, each in zip(dishes, told["dishes"], strict=True):
        each["vessel"] = vessels.index(dish.vessel) if dish.vessel else None
        each["bought"] = bought[dish.pk]
        each["mishaps"] = [_mishap(one) for one in mishaps if one.dish_id == dish.pk]
    return {
        **told,
        "removed_at": _text(feast.removed_at),
        "kept_plan": _plan(feast.kept_plan, ids),
        "first_plan": _plan(feast.first_plan, ids),
    }  # fmt: skip


def _plan(kept: list[Document] | None, ids: dict[str, str]) -> list[Document] | None:
    if kept is None:
        return None
    return [{**each, "dish": ids[each["dish"]]} for each in kept if each["dish"] in ids]


def _mishap(mishap: Mishap) -> Document:
    return {
        "kind": mishap.kind, "begins": _text(mishap.begins), "ends": _text(mishap.ends),
        "temperature_c": mishap.temperature_c,
    }  # fmt: skip


def _fields(row: Model, names: Iterable[str]) -> Document:
    return {name: getattr(row, name) for name in names}


def _hour(hour: time | None) -> str | None:
    return f"{hour:%H:%M}" if hour else None


def _text(moment: datetime | None) -> str | None:
    return moment.astimezone(UTC).isoformat() if moment else None
