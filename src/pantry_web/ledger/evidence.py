"""What a dish that is over tells of the figures of its kitchen, and what they come to."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from datetime import timedelta
from typing import Any

from django.utils.functional import Promise
from django.utils.translation import gettext_lazy as _
from pydantic import TypeAdapter

from pantry_core.dish.answer import DishOut
from pantry_core.history.log import hours_between
from pantry_core.learning.figures import (
    LEAST_H,
    LEAST_SALT_PCT,
    MOST_H,
    MOST_SALT_PCT,
    CookedIn,
    HeartSeen,
    Learnt,
    Tasted,
    appliance,
    liking,
    salt_speed,
)
from pantry_web.feasts.documents import dish_document
from pantry_web.feasts.models import Event
from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.models import Evidence, OwnFigure, Review
from pantry_web.planning.answers import work_out
from pantry_web.planning.outlook import Outlook
from pantry_web.rounds.salt_now import past_of_dish

LIKING, SPEED, HOURS = "salt-liking", "salt-speed", "hours-"
PLACES = ("oven", "smoker", "hob", "fire")
KNOWN_SALT = ("even-brine", "dry-cure", "dry-brine", "needle-brine", "needle")
"""Methods after which it is known how much salt is in the meat."""
TIMED = ("strong-brine", "dry-cure", "even-brine")
MOST_DISHES = 60
"""The latest of a figure are looked at; a kitchen changes its ovens."""
NEAR_THE_END = timedelta(minutes=30)
"""A reading that passed the mark so long before the end was of a rising probe."""

Seen = tuple[str, Any]


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure of a kitchen: what it is of, what is learnt, and whether it is put aside."""

    key: str
    name: str | Promise
    learnt: Learnt
    is_aside: bool

    @property
    def percent(self) -> float:
        """The figure in parts of the general one [%]."""
        return 100.0 * self.learnt.value

    @property
    def low_percent(self) -> float:
        """The low end of its band [%]."""
        return 100.0 * self.learnt.low

    @property
    def high_percent(self) -> float:
        """The high end of its band [%]."""
        return 100.0 * self.learnt.high


NAMES: dict[str, str | Promise] = {
    LIKING: _("How salty it is liked"), SPEED: _("How fast salt goes in"),
    "hours-oven": _("How long the oven takes"), "hours-smoker": _("How long the smoker takes"),
    "hours-hob": _("How long pots take"), "hours-fire": _("How long the fire takes"),
}  # fmt: skip
_LEARN: dict[str, tuple[TypeAdapter[Any], Callable[[Sequence[Any]], Learnt]]] = {
    LIKING: (TypeAdapter(Tasted), liking), SPEED: (TypeAdapter(HeartSeen), salt_speed),
    **{HOURS + place: (TypeAdapter(CookedIn), appliance) for place in PLACES},
}  # fmt: skip


def seen_of(view: Outlook, review: Review) -> Iterator[Seen]:
    """What a dish tells of each figure, as the core reads it; nothing of one that is discarded."""
    plain = work_out(_without_learnt(view))
    if view.is_discarded or view.dish.is_job or not isinstance(plain, DishOut):
        return
    yield from _of_liking(view, review, plain)
    yield from _of_speed(view, review)
    yield from _of_hours(view, plain)


def _without_learnt(view: Outlook) -> dict[str, Any]:
    """The dish as the general figures have it, its target the usual one."""
    cure = {name: part for name, part in view.dish.cure.items() if name != "target_salt_pct"}
    decided = {**view.dish.document, **({"cure": cure} if cure else {})}
    return dish_document(decided, view.whole.house.with_nothing_learnt(), view.dish.vessel)


def _of_liking(view: Outlook, review: Review, plain: DishOut) -> Iterator[Seen]:
    answer = view.answer
    if not review.saltiness or answer is None or answer.sheet is None or plain.sheet is None:
        return
    salt, usual = answer.sheet.salt.target_pct, plain.sheet.salt.target_pct
    is_known = all(LEAST_SALT_PCT <= pct <= MOST_SALT_PCT for pct in (salt, usual))
    if view.dish.cure.get("method") in KNOWN_SALT and is_known:
        yield LIKING, {"salt_pct": salt, "usual_pct": usual, "taste": review.saltiness}


def _of_speed(view: Outlook, review: Review) -> Iterator[Seen]:
    past = past_of_dish(view) if review.bland_share is not None else None
    if past is None or view.dish.cure.get("method") not in TIMED:
        return
    meat = past.request.meat.model_copy(update={"salt_speed": 1.0})
    heart = HeartSeen(meat, past.stages, review.bland_share or 0.0, past.request.temperature_c)
    yield SPEED, TypeAdapter(HeartSeen).dump_python(heart, mode="json")


def _of_hours(view: Outlook, plain: DishOut) -> Iterator[Seen]:
    """Hours of a dish that was cooked in one place, till a rising probe passed its mark."""
    cooked = [step for step in view.steps if step.kind == "cook" and step.place in PLACES]
    facts = [view.state.facts.get(step.id) for step in cooked]
    times = [(fact.started_at, fact.ended_at) for fact in facts if fact is not None]
    if plain.cook_h is None or len({step.place for step in cooked}) != 1:
        return
    if len(times) != len(cooked) or any(began is None or ended is None for began, ended in times):
        return
    took = sum(hours_between(began, ended) for began, ended in times if began and ended)
    ended_at = times[-1][1]
    is_read = ended_at is not None and any(
        event.what == Event.What.TEMPERATURE_READ
        and event.temperature_c is not None
        and event.temperature_c >= (plain.inside_c or 0.0)
        and ended_at - event.at <= NEAR_THE_END
        for event in view.state.events
    )
    if all(LEAST_H <= hours <= MOST_H for hours in (took, plain.cook_h.usual)):
        yield f"{HOURS}{cooked[0].place}", {
            "foretold_h": plain.cook_h.usual, "took_h": took, "is_read": is_read,
        }  # fmt: skip


def figures_of(kitchen: Kitchen) -> list[Figure]:
    """What a kitchen has learnt, from the latest dishes of each figure, in two queries."""
    own = {each.figure: each for each in OwnFigure.objects.filter(kitchen=kitchen)}
    rows: dict[str, list[Any]] = {key: [] for key in _LEARN}
    told = Evidence.objects.filter(dish__feast__kitchen=kitchen, dish__feast__removed_at=None)
    for row in told.select_related("dish__feast").order_by("-dish__feast__serve_at", "-pk"):
        mine = own.get(row.figure)
        is_forgotten = mine and mine.since and row.dish.feast.serve_at <= mine.since
        if row.figure in rows and not is_forgotten and len(rows[row.figure]) < MOST_DISHES:
            rows[row.figure].append(row.seen)
    return [
        Figure(key, NAMES[key], _learnt(key, seen), key in own and own[key].is_aside)
        for key, seen in rows.items()
        if seen
    ]


def _learnt(key: str, seen: Sequence[Any]) -> Learnt:
    adapter, learn = _LEARN[key]
    return learn([adapter.validate_json(_json(each)) for each in seen])


def _json(seen: Any) -> bytes:
    return TypeAdapter(Any).dump_json(seen)


def learnt_document(figures: Sequence[Figure]) -> dict[str, Any]:
    """The `learnt` part of a `dish` document's house: what is used of the figures."""
    used = {each.key: each.learnt.value for each in figures if not each.is_aside}
    hours = {key.removeprefix(HOURS): value for key, value in used.items() if key[:6] == HOURS}
    return {
        **({"salt_liking": used[LIKING]} if LIKING in used else {}),
        **({"salt_speed": used[SPEED]} if SPEED in used else {}),
        **({"hours": hours} if hours else {}),
    }
