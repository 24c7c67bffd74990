"""Dishes that would wait for each other."""

from collections.abc import Iterable
from itertools import pairwise

from django.utils.translation import gettext

from pantry_core.plan.circles import Key, circle_of, way_back
from pantry_web.feasts.documents import Document
from pantry_web.planning.outlook import Outlook
from pantry_web.refusal import Refused
from pantry_web.sentences import tell


def refuse_circle(view: Outlook, step: str, waits: Iterable[Document]) -> None:
    """Refuse waits by which two dishes would wait for each other.

    Parameters: view of the dish; step that is to wait, or the one that follows a new one, empty for
    none; waits, as the document has them.
    Raises: Refused, naming the dishes of the circle.
    """
    before: dict[Key, list[Key]] = {}
    for other in view.whole.dishes:
        for last, following in pairwise(other.steps):
            before.setdefault((other.key, following.id), []).append((other.key, last.id))
        for each in other.steps:
            if (other.key, each.id) != (view.key, step):
                waited = [(wait.dish, wait.step) for wait in each.after]
                before.setdefault((other.key, each.id), []).extend(waited)
    names = {other.key: other.dish.name for other in view.whole.dishes}
    for wait in waits:
        way = way_back((wait["dish"], wait["step"]), (view.key, step), before)
        if way:
            dishes = [names.get(dish, gettext("the other dish")) for dish, _ in way]
            raise Refused(
                tell(
                    "That goes in a circle: {circle}. One of them has to begin without the "
                    "other: change what its step waits for.",
                    circle=circle_of([view.dish.name, *dishes]),
                )
            )
