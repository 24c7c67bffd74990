"""What was noted of a dish the last time, at the steps where it matters."""

from collections.abc import Iterable, Sequence
from typing import Any

from django.db.models import Prefetch

from pantry_core.dish.answer import DishStep
from pantry_core.learning.notes import Kind, sentences, step_of
from pantry_web.feasts.models import Dish, Event
from pantry_web.feasts.state import derive
from pantry_web.ledger.models import Review

Notes = dict[str, tuple[str, ...]]
TOLD = (Event.What.NOTED, Event.What.WITHDRAWN)


def noted_before() -> Prefetch[Any]:
    """The dishes that some were copied from, with what was told of them, in two queries."""
    events = Prefetch("events", Event.objects.filter(what__in=TOLD))
    before = Dish.objects.select_related("review").prefetch_related(events)
    return Prefetch("copied_from", before)


def last_notes(dish: Dish, steps: Sequence[DishStep]) -> Notes:
    """The notes of the dish that this one was copied from, by the steps of this one.

    Parameters: dish; its steps.
    Returns: notes by the step at which hands can heed them: the last with work up to the one that
    they speak of.
    """
    if dish.copied_from is None or not steps:
        return {}
    review: Review | None = getattr(dish.copied_from, "review", None)
    noted = derive(dish.copied_from.events.all()).events
    next_time = review.next_time if review and not review.is_skipped else ""
    return _by_step(steps, (each for each in noted if each.what == Event.What.NOTED), next_time)


def _by_step(steps: Sequence[DishStep], noted: Iterable[Event], next_time: str) -> Notes:
    kinds = [Kind(step.id, step.kind) for step in steps]
    known = {step.id for step in steps}
    told = [
        *((each.step_key if each.step_key in known else None, each.note) for each in noted),
        *((None, each) for each in sentences(next_time)),
    ]
    found: dict[str, list[str]] = {}
    for key, text in told:
        at = _in_hands(steps, key or step_of(text, kinds) or steps[0].id)
        found.setdefault(at, []).append(text)
    return {key: tuple(dict.fromkeys(texts)) for key, texts in found.items()}


def _in_hands(steps: Sequence[DishStep], key: str) -> str:
    """The last step with work up to this one, else the first with work."""
    place = next(i for i, step in enumerate(steps) if step.id == key)
    before = [step.id for step in steps[: place + 1] if step.hands_min]
    after = [step.id for step in steps[place:] if step.hands_min]
    return [*before[-1:], *after, key][0]
