"""A change that a proposal made to a dish, kept so that one press undoes it."""

from collections.abc import Iterable, MutableMapping
from dataclasses import dataclass
from typing import Any

from pantry_web.feasts.models import Dish

Parts = dict[str, Any]
"""Parts of a dish's document by their names; None is one that it has not."""
_LAST = "last_change"


@dataclass(frozen=True, slots=True)
class Change:
    """What a proposal changed of the document, as it was and as it is."""

    before: Parts
    after: Parts

    def is_the_last_of(self, dish: Dish) -> bool:
        """Whether nothing of what it changed was changed since."""
        return parts_of(dish, self.after) == self.after


def parts_of(dish: Dish, names: Iterable[str]) -> Parts:
    """The parts of a dish's document that have these names."""
    return {name: dish.document.get(name) for name in names}


def keep_change(session: MutableMapping[str, Any], dish_id: int, change: Change) -> None:
    """Keep a change, in place of the one before it."""
    session[_LAST] = [dish_id, change.before, change.after]


def last_change(session: MutableMapping[str, Any], dish: Dish) -> Change | None:
    """The last change of this dish that can still be undone, None where there is none."""
    of_dish, before, after = session.get(_LAST, (None, {}, {}))
    change = Change(before, after)
    return change if of_dish == dish.pk and change.is_the_last_of(dish) else None
