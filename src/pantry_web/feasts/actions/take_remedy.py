"""Taking what would help: the one change that its text says."""

from datetime import datetime
from typing import Any

from django.db import transaction

from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.actions.save_dish import change_dish, give_up
from pantry_web.feasts.models import Solve, Step
from pantry_web.feasts.planning import FeastOutlook
from pantry_web.feasts.refusal import Refused
from pantry_web.feasts.remedies import asked_document, remedies

Document = dict[str, Any]


@transaction.atomic
def take_remedy(whole: FeastOutlook, code: str, seen: int) -> str:
    """Make the change of a remedy that was offered.

    Parameters: whole; code of the remedy; seen, the version of the feast that was looked at.
    Returns: the text of the remedy.
    Raises: Refused when the feast has changed, or the remedy is no longer among those that help.
    """
    claim(whole.feast, seen)
    offered = remedies(whole)
    if isinstance(offered, Solve):
        raise Refused("What would help is still being worked out; a moment, then press again.")
    found = next((each for each in offered if each.code == code), None)
    if found is None:
        raise Refused("That would no longer help; look again at what would.")
    if found.mix is not None and found.dish_id is not None:
        dish = whole.feast.dishes.get(pk=found.dish_id)
        change_dish(dish, dish.name, found.mix, whole.house, dish.vessel)
    elif found.document is not None:
        _make_true(whole, asked_document(whole), found.document)
    return found.text


def _make_true(whole: FeastOutlook, asked: Document, wanted: Document) -> None:
    """Change the kitchen and the feast until they ask what the wanted document asks."""
    feast, kitchen = whole.feast, whole.kitchen
    if wanted["serve_at"] != asked["serve_at"]:
        feast.serve_at = datetime.fromisoformat(wanted["serve_at"])
        feast.save(update_fields=["serve_at"])
    kitchen.cooks = wanted.get("cooks", 1)
    for name, hour in wanted.get("day", {}).items():
        setattr(kitchen, name, datetime.strptime(hour, "%H:%M").time())  # noqa: DTZ007 - a time of day
    kitchen.save(update_fields=["cooks", "wake", "sleep"])
    for place in kitchen.places.all():
        if place.name in wanted.get("places", {}):
            place.capacity = wanted["places"][place.name]
            place.save(update_fields=["capacity"])
    home = {(each["from"], each["to"]) for each in wanted.get("away", [])}
    for absence in kitchen.absences.all():
        span = (absence.begins.isoformat(), absence.ends.isoformat())
        if absence.ends > whole.now and span not in home:
            absence.delete()
    _change_dishes(whole, asked, wanted)


def _change_dishes(whole: FeastOutlook, asked: Document, wanted: Document) -> None:
    dishes = {each["id"]: each for each in wanted["dishes"]}
    for before in asked["dishes"]:
        view = next(each for each in whole.dishes if each.key == before["id"])
        after = dishes.get(before["id"])
        if after is None:
            give_up(view.dish)
            continue
        if after.get("serve_at") != before.get("serve_at"):
            view.dish.serve_at = datetime.fromisoformat(after["serve_at"])
            view.dish.save(update_fields=["serve_at"])
        locked = {step["id"] for step in after["steps"] if step.get("locked_start")}
        Step.objects.filter(dish=view.dish).exclude(key__in=locked).update(locked_start=None)
