"""Taking what would help: the one change that its text says."""

from datetime import date, datetime, time

from django.utils.translation import gettext

from pantry_core.plan.changes import (
    Change,
    KeepLonger,
    LeaveOut,
    LongerDay,
    MoreCooks,
    MoreRoom,
    OpenHours,
    ServeAt,
    StayHome,
    TakeHeat,
    Unlock,
    WaitForNone,
    WorkHours,
)
from pantry_web.background.models import Work
from pantry_web.feasts.actions.change_dish import change_dish
from pantry_web.feasts.actions.claim import CHANGED, claim
from pantry_web.feasts.actions.drop_dish import drop_dish
from pantry_web.feasts.actions.keep_edits import edits_of, keep_edits
from pantry_web.feasts.actions.log.put_off import put_off_no_longer
from pantry_web.feasts.actions.save_feast import move_feast
from pantry_web.feasts.actions.set_hour import set_hour
from pantry_web.feasts.actions.unlock_steps import unlock_steps
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish
from pantry_web.kitchens.actions.absences import remove_absence
from pantry_web.kitchens.actions.set_hours import change_day
from pantry_web.kitchens.actions.set_house import set_house
from pantry_web.kitchens.models import ChangedDay, Cook, Kitchen
from pantry_web.pantry.actions import put_in
from pantry_web.planning.helps import remedies
from pantry_web.planning.outlook import FeastOutlook
from pantry_web.presses.once import once
from pantry_web.refusal import Refused


def take_remedy(whole: FeastOutlook, by: Cook, code: str, seen: int) -> str:
    """Make the change of a remedy that was offered.

    Parameters: whole; by; code of the remedy; seen, the version of the feast that was looked at.
    Returns: the text of the remedy.
    Raises: Refused when the feast has changed, or the remedy is no longer among those that help.
    """
    if whole.feast.version != seen:
        raise Refused(CHANGED)
    offered = remedies(whole)
    if isinstance(offered, Work):
        raise Refused(
            gettext("What would help is still being worked out; a moment, then press again.")
        )
    remedy = next((offer for offer in offered or () if offer.code == code), None)
    if remedy is None:
        raise Refused(gettext("That would no longer help; look again at what would."))
    with once():
        claim(whole.feast, seen)
        if remedy.decided is not None and remedy.dish_id is not None:
            dish = whole.feast.dishes.get(pk=remedy.dish_id)
            change_dish(dish, remedy.decided, vessel=dish.vessel)
        for change in remedy.changes:
            _change_kitchen(whole, change)
            _change_feast(whole, by, change)
    return remedy.text


def _change_kitchen(whole: FeastOutlook, change: Change) -> None:
    """Make a change true that is the kitchen's."""
    match change:
        case StayHome(begins, ends):
            for absence in whole.around.absences:
                if (absence.begins.isoformat(), absence.ends.isoformat()) == (begins, ends):
                    remove_absence(absence)
        case MoreCooks(cooks):
            set_house(whole.kitchen, {"cooks": cooks})
        case MoreRoom(place, room):
            named = next(each for each in whole.around.places if each.name == place)
            put_in.change(named, {"capacity": room})
        case WorkHours(day, begins, ends):
            _change_day(whole.kitchen, day, ChangedDay.Kind.WORK, begins, ends)
        case OpenHours(_, day, begins, ends):
            _change_day(whole.kitchen, day, ChangedDay.Kind.OPEN, begins, ends)
        case LongerDay(wake, sleep):
            hours = {"wake": wake, "sleep": sleep}
            set_house(whole.kitchen, {name: time.fromisoformat(at) for name, at in hours.items()})


def _change_feast(whole: FeastOutlook, by: Cook, change: Change) -> None:
    """Make a change true that is the feast's, or a dish's."""
    match change:
        case Unlock(key, step):
            unlock_steps(_dish(whole, key), [step])
            put_off_no_longer(whole.of(_dish(whole, key)), by, step)
        case ServeAt(at, None):
            move_feast(whole.feast, datetime.fromisoformat(at))
        case ServeAt(at, str(key)):
            dish = _dish(whole, key)
            set_hour(dish, datetime.fromisoformat(at), dish.early_max_min, dish.note)
        case TakeHeat(key, step, heat_c):
            _edit(_dish(whole, key), step, {"medium_c": heat_c})
        case KeepLonger(key, step, max_h):
            _edit(_dish(whole, key), step, {"max_h": max_h})
        case WaitForNone(key, step):
            _edit(_dish(whole, key), step, {"after": []})
        case LeaveOut(key):
            drop_dish(_dish(whole, key))


def _change_day(kitchen: Kitchen, day: str, kind: str, begins: str, ends: str) -> None:
    hours = (time.fromisoformat(each) for each in (begins, ends))
    change_day(kitchen, date.fromisoformat(day), kind, *hours)


def _edit(dish: Dish, step: str, fields: Document) -> None:
    edits = edits_of(dish)
    keep_edits(dish, {**edits, step: {**edits.get(step, {"step": step}), **fields}})


def _dish(whole: FeastOutlook, key: str) -> Dish:
    return next(each.dish for each in whole.dishes if each.key == key)
