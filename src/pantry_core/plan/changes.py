"""Changes of what is asked of a plan, each of its own kind, and the one way to make them."""

import copy
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import Field

Document = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Unlock:
    """A step begins when it may."""

    dish: str
    step: str
    kind: Literal["unlock"] = "unlock"


@dataclass(frozen=True, slots=True)
class Lock:
    """A step begins at an hour."""

    dish: str
    step: str
    at: str
    kind: Literal["lock"] = "lock"


@dataclass(frozen=True, slots=True)
class StayHome:
    """Somebody is at home after all, in an absence of the document."""

    begins: str
    ends: str
    kind: Literal["stay-home"] = "stay-home"


@dataclass(frozen=True, slots=True)
class MoreCooks:
    """So many cooks."""

    cooks: int
    kind: Literal["cooks"] = "cooks"


@dataclass(frozen=True, slots=True)
class MoreRoom:
    """So much room in a place [l, pieces]."""

    place: str
    room: float
    kind: Literal["room"] = "room"


@dataclass(frozen=True, slots=True)
class LongerDay:
    """Up and in bed at these hours."""

    wake: str
    sleep: str
    kind: Literal["day"] = "day"


@dataclass(frozen=True, slots=True)
class WorkHours:
    """Work is done on a date between these hours as well."""

    day: str
    begins: str
    ends: str
    kind: Literal["work"] = "work"


@dataclass(frozen=True, slots=True)
class OpenHours:
    """A place is open on a date between these hours; another shop, say."""

    place: str
    day: str
    begins: str
    ends: str
    kind: Literal["open"] = "open"


@dataclass(frozen=True, slots=True)
class KeepLonger:
    """A step that only waits may take so long [h]: what is bought earlier is kept."""

    dish: str
    step: str
    max_h: float
    kind: Literal["keep"] = "keep"


@dataclass(frozen=True, slots=True)
class TakeHeat:
    """A step at another of the temperatures that it can take [°C], with its window there."""

    dish: str
    step: str
    heat_c: float
    kind: Literal["heat"] = "heat"


@dataclass(frozen=True, slots=True)
class WaitForNone:
    """A step begins without waiting for other dishes."""

    dish: str
    step: str
    kind: Literal["wait-for-none"] = "wait-for-none"


@dataclass(frozen=True, slots=True)
class ServeAt:
    """The feast, or a dish alone, at another hour."""

    at: str
    dish: str | None = None
    kind: Literal["serve-at"] = "serve-at"


@dataclass(frozen=True, slots=True)
class LeaveOut:
    """A dish is left out."""

    dish: str
    kind: Literal["leave-out"] = "leave-out"


Change = Annotated[
    Unlock
    | Lock
    | StayHome
    | MoreCooks
    | MoreRoom
    | LongerDay
    | WorkHours
    | OpenHours
    | KeepLonger
    | TakeHeat
    | WaitForNone
    | ServeAt
    | LeaveOut,
    Field(discriminator="kind"),
]


def applied(document: Document, changes: Iterable[Change]) -> Document:
    """A `plan` document with changes made; the document itself stays.

    Parameters: document, as JSON data; changes, of what is in it.
    Returns: the changed document. Raises: StopIteration for a dish or a step that is not there.

    >>> applied({"dishes": [], "cooks": 1}, [MoreCooks(2)])["cooks"]
    2
    """
    changed = copy.deepcopy(document)
    for change in changes:
        _apply(changed, change)
    return changed


def _apply(document: Document, change: Change) -> None:
    """Make one change in place."""
    match change:
        case Unlock(dish, step):
            _step(document, dish, step).pop("locked_start", None)
        case Lock(dish, step, at):
            _step(document, dish, step)["locked_start"] = at
        case KeepLonger(dish, step, max_h):
            _step(document, dish, step)["max_h"] = max_h
        case TakeHeat(dish, step, heat_c):
            _take_heat(_step(document, dish, step), heat_c)
        case WaitForNone(dish, step):
            _step(document, dish, step).pop("after", None)
        case ServeAt(at, dish):
            (document if dish is None else _dish(document, dish))["serve_at"] = at
        case LeaveOut(dish):
            _leave_out(document, dish)
        case _:
            _apply_to_the_house(document, change)


def _apply_to_the_house(
    document: Document,
    change: StayHome | MoreCooks | MoreRoom | LongerDay | WorkHours | OpenHours,
) -> None:
    match change:
        case StayHome(begins, ends):
            away = document["away"]
            document["away"] = [e for e in away if (e["from"], e["to"]) != (begins, ends)]
        case MoreCooks(cooks):
            document["cooks"] = cooks
        case MoreRoom(place, room):
            present = document["places"][place]
            document["places"][place] = (
                {**present, "capacity": room} if isinstance(present, dict) else room
            )
        case LongerDay(wake, sleep):
            document["day"] = {**document.get("day", {}), "wake": wake, "sleep": sleep}
        case WorkHours(day, begins, ends):
            work = document["day"].get("work") or []
            hours = {"dates": [day], "from": begins, "to": ends}
            document["day"]["work"] = [*work, hours]
        case OpenHours(place, day, begins, ends):
            opening = document["open"][place]
            hours = {"dates": [day], "from": begins, "to": ends}
            opening["hours"] = [*(opening.get("hours") or []), hours]
            opening["closed"] = [e for e in opening.get("closed") or [] if e != day]


def _take_heat(step: Document, heat_c: float) -> None:
    """Set the temperature of a step, and its window by it."""
    other = next(each for each in step["heats"] if each["heat_c"] == heat_c)
    step |= {"heat_c": heat_c, "min_h": other["min_h"]}
    step |= {name: other.get(name) for name in ("prefer_h", "max_h")}


def _leave_out(document: Document, dish_id: str) -> None:
    """Drop a dish; whoever waited for it waits no longer."""
    document["dishes"] = [each for each in document["dishes"] if each["id"] != dish_id]
    for dish in document["dishes"]:
        for step in dish["steps"]:
            if step.get("after"):
                step["after"] = [each for each in step["after"] if each["dish"] != dish_id]


def _dish(document: Document, dish_id: str) -> Document:
    found: Document = next(each for each in document["dishes"] if each["id"] == dish_id)
    return found


def _step(document: Document, dish_id: str, step_id: str) -> Document:
    steps = _dish(document, dish_id)["steps"]
    found: Document = next(each for each in steps if each["id"] == step_id)
    return found
