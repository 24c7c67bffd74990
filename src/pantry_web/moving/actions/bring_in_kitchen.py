"""Bringing in a kitchen from its document."""

from collections.abc import Mapping
from datetime import datetime
from zoneinfo import ZoneInfo

from pantry_core.formats.kitchen import KitchenDish, KitchenFeast, MishapDocument
from pantry_core.plan.instants import read_instant, read_zone
from pantry_core.quantities import Number
from pantry_web.feasts.actions.bring_in_feast import bring_in_feast
from pantry_web.feasts.actions.record_mishap import record_mishap
from pantry_web.feasts.models import Dish, Feast, KeptRoute
from pantry_web.kitchens.actions.absences import add_absence
from pantry_web.kitchens.actions.found_kitchen import found_kitchen
from pantry_web.kitchens.actions.own_days import add_own_day
from pantry_web.kitchens.actions.set_hours import change_day, set_hours
from pantry_web.kitchens.actions.set_house import set_house
from pantry_web.kitchens.models import Cook, Kitchen, Place
from pantry_web.moving.read_in import UTC_ZONE, KitchenReadIn
from pantry_web.pantry.actions.put_in import put_in
from pantry_web.pantry.models import Vessel
from pantry_web.presses.once import once
from pantry_web.refusal import Refused
from pantry_web.sentences import tell
from pantry_web.shopping.actions.tick_line import tick_lines

MOST_KITCHENS = 10


@once()
def bring_in_kitchen(read: KitchenReadIn, by: Cook) -> Kitchen:
    """Make a kitchen from its document, owned by whoever brings it in.

    Raises: Refused when the cook has ten kitchens; WrongInput when a feast contradicts itself;
    nothing is kept then.
    """
    if by.memberships.count() >= MOST_KITCHENS:
        raise Refused(
            tell(
                "{most_kitchens} kitchens are the most that one cook can have; leave one.",
                most_kitchens=Number(MOST_KITCHENS),
            )
        )
    document = read.document
    kitchen = found_kitchen(by, document.name, document.tz)
    set_house(kitchen, read.house)
    set_hours(kitchen, read.hours.week("shop"), read.hours.week("work"))
    for name, capacity in read.places.items():
        kitchen.places.update_or_create(name=name, defaults={"capacity": capacity})
    kitchen.places.filter(name=Place.FRIDGE).update(unit=document.fridge_unit)
    for day in read.changed_days:
        change_day(kitchen, **day)
    for absence in read.absences:
        add_absence(kitchen, absence["begins"], absence["ends"])
    for day in read.own_days:
        add_own_day(kitchen, day["name"], day["day"])
    vessels: list[Vessel] = []
    for kind, things in read.things:
        made = [put_in(kind, kitchen, values) for values in things]
        vessels = made if kind is Vessel else vessels
    KeptRoute.objects.bulk_create(
        KeptRoute(kitchen=kitchen, name=each.name, steps=list(each.steps), job=each.job)
        for each in document.routes
    )
    for mishap in document.mishaps:
        _befall(kitchen, by, mishap)
    for feast in document.feasts:
        _bring_in(feast, kitchen, by, vessels)
    return kitchen


def _bring_in(told: KitchenFeast, kitchen: Kitchen, by: Cook, vessels: list[Vessel]) -> None:
    feast = bring_in_feast(told, kitchen, by)
    dishes = list(feast.dishes.order_by("pk"))
    zone = read_zone(told.tz)
    for dish, each in zip(dishes, told.dishes, strict=True):
        _lay_around(dish, each, kitchen, by, zone, vessels)
    ids = {each.id: str(dish.pk) for dish, each in zip(dishes, told.dishes, strict=True)}
    _keep(feast, told, ids, zone)


def _lay_around(
    dish: Dish, told: KitchenDish, kitchen: Kitchen, by: Cook, zone: ZoneInfo,
    vessels: list[Vessel],
) -> None:  # fmt: skip
    if told.vessel is not None:
        dish.vessel = vessels[told.vessel]
        dish.save(update_fields=["vessel"])
    for line in told.bought:
        tick_lines([(dish, line.key)], read_instant(line.at, zone), by)
    for mishap in told.mishaps:
        _befall(kitchen, by, mishap, dish)


def _befall(kitchen: Kitchen, by: Cook, told: MishapDocument, dish: Dish | None = None) -> None:
    begins, ends = (read_instant(text, UTC_ZONE) for text in (told.begins, told.ends))
    record_mishap(kitchen, by, told.kind, begins, ends, dish=dish, temperature_c=told.temperature_c)


def _keep(feast: Feast, told: KitchenFeast, ids: Mapping[str | None, str], zone: ZoneInfo) -> None:
    """Keep when it was removed, and the plan that the cook goes by."""
    feast.removed_at = read_instant(told.removed_at, zone) if told.removed_at else None
    feast.kept_plan, feast.first_plan = (
        None if plan is None else [
            {"dish": ids[each.dish], "step": each.step, "start": _text(each.start, zone),
             "end": _text(each.end, zone)}
            for each in plan
        ]
        for plan in (told.kept_plan, told.first_plan)
    )  # fmt: skip
    feast.save(update_fields=["removed_at", "kept_plan", "first_plan"])


def _text(moment: str, zone: ZoneInfo) -> str:
    read: datetime = read_instant(moment, zone)
    return read.isoformat()
