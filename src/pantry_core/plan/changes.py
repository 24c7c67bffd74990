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
    Unlock | StayHome | MoreCooks | MoreRoom | LongerDay | ServeAt | LeaveOut,
    Field(discriminator="kind"),
]


def applied(document: Document, changes: Iterable[Change]) -> Document:
    """A `plan` document with changes made; the document itself stays.

    Parameters: document, as JSON data; changes, of what is in it.
    Returns: the changed document. Raises: StopIteration for a dish that is not there.

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
            for each in _dish(document, dish)["steps"]:
                if each["id"] == step:
                    each.pop("locked_start", None)
        case StayHome(begins, ends):
            away = document["away"]
            document["away"] = [e for e in away if (e["from"], e["to"]) != (begins, ends)]
        case MoreCooks(cooks):
            document["cooks"] = cooks
        case MoreRoom(place, room):
            document["places"][place] = room
        case LongerDay(wake, sleep):
            document["day"] = {"wake": wake, "sleep": sleep}
        case ServeAt(at, dish):
            (document if dish is None else _dish(document, dish))["serve_at"] = at
        case LeaveOut(dish):
            document["dishes"] = [each for each in document["dishes"] if each["id"] != dish]


def _dish(document: Document, dish_id: str) -> Document:
    found: Document = next(each for each in document["dishes"] if each["id"] == dish_id)
    return found
