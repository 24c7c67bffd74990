"""Taking what would help: the one change that its text says."""

from datetime import datetime
from typing import Any

from django.db import transaction

from pantry_web.background.models import Work
from pantry_web.feasts.actions.change_dish import change_dish
from pantry_web.feasts.actions.claim import CHANGED, claim
from pantry_web.feasts.actions.drop_dish import drop_dish
from pantry_web.feasts.actions.edit_steps import unlock_steps
from pantry_web.feasts.refusal import Refused
from pantry_web.planning.helps import remedies
from pantry_web.planning.outlook import FeastOutlook
from pantry_web.planning.plan_document import plan_document

Document = dict[str, Any]


def take_remedy(whole: FeastOutlook, code: str, seen: int) -> str:
    """Make the change of a remedy that was offered.

    Parameters: whole; code of the remedy; seen, the version of the feast that was looked at.
    Returns: the text of the remedy.
    Raises: Refused when the feast has changed, or the remedy is no longer among those that help.
    """
    if whole.feast.version != seen:
        raise Refused(CHANGED)
    offered = remedies(whole)
    if isinstance(offered, Work):
        raise Refused("What would help is still being worked out; a moment, then press again.")
    found = next((each for each in offered if each.code == code), None)
    if found is None:
        raise Refused("That would no longer help; look again at what would.")
    asked = plan_document(whole, hold=True)
    with transaction.atomic():
        claim(whole.feast, seen)
        if found.decided is not None and found.dish_id is not None:
            dish = whole.feast.dishes.get(pk=found.dish_id)
            change_dish(dish, found.decided, vessel=dish.vessel)
        elif found.document is not None:
            _make_true(whole, asked, found.document)
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
            drop_dish(view.dish)
            continue
        if after.get("serve_at") != before.get("serve_at"):
            view.dish.serve_at = datetime.fromisoformat(after["serve_at"])
            view.dish.save(update_fields=["serve_at"])
        locked = {step["id"] for step in after["steps"] if step.get("locked_start")}
        were = {step["id"] for step in before["steps"] if step.get("locked_start")}
        if were - locked:
            unlock_steps(view.dish, were - locked)
