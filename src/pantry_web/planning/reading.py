"""Reading feasts and their dishes with what happened to them: the first step of every page."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from django.db.models import prefetch_related_objects

from pantry_core.dish.answer import DishStep
from pantry_core.dish.said import DISCARD
from pantry_web.feasts.documents import House, dish_document
from pantry_web.feasts.models import Dish, Event, Feast
from pantry_web.feasts.state import DishState, derive
from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.noted import noted_before
from pantry_web.planning.answers import Answer, Broken, answered, answered_anew, steps_of
from pantry_web.planning.documents.dish_document import Document, facts_of, with_facts
from pantry_web.planning.documents.surroundings import Surroundings, surroundings_of


@dataclass(frozen=True, eq=False, slots=True)
class DishRead:
    """A dish, what has happened to it, and what the core says of it, as yet without its times.

    `log` is all that was written down of it, later than this moment and withdrawn too. `document`
    and `answer` are those of `dish`.
    """

    dish: Dish
    state: DishState
    log: Sequence[Event]
    document: Document
    answer: Answer

    @property
    def key(self) -> str:
        """The id of the dish in plan documents."""
        return str(self.dish.pk)

    @property
    def steps(self) -> tuple[DishStep, ...]:
        """Its steps in order; none where it cannot be worked out."""
        return steps_of(self.answer)

    @property
    def is_discarded(self) -> bool:
        """Whether it is to be thrown away."""
        stops = () if isinstance(self.answer, Broken) else self.answer.stops
        return any(stop.code == DISCARD for stop in stops)


@dataclass(frozen=True, eq=False, slots=True)
class FeastRead:
    """A feast at a moment with its dishes; `planned` are the ids of those that are planned."""

    feast: Feast
    around: Surroundings
    dishes: tuple[DishRead, ...]
    planned: frozenset[str]

    @property
    def is_begun(self) -> bool:
        """Whether something has been done for any dish."""
        return any(read.state.begun for read in self.dishes)

    @property
    def house(self) -> House:
        """What of the kitchen bears on its dishes."""
        return self.around.house

    @property
    def now(self) -> datetime:
        """The moment."""
        return self.around.now


def read_with(dish: Dish, kitchen: Kitchen, now: datetime) -> FeastRead:
    """Read a feast with a dish of it that is not stored yet."""
    return read_feasts([dish.feast], kitchen, now, more=[dish])[0]


def read_feasts(
    feasts: Sequence[Feast], kitchen: Kitchen, now: datetime, *, more: Sequence[Dish] = ()
) -> list[FeastRead]:
    """Read feasts of a kitchen together: their dishes in one query, the logs in another.

    Parameters: feasts; kitchen; now; more, dishes of them that are not stored yet.
    """
    around = surroundings_of(kitchen, now)
    logs: dict[int, list[Event]] = {}
    for event in Event.objects.filter(dish__feast__in=feasts).select_related("by"):
        logs.setdefault(event.dish_id, []).append(event)
    dishes = list(Dish.objects.filter(feast__in=feasts).select_related("vessel"))
    prefetch_related_objects([dish for dish in dishes if dish.copied_from_id], noted_before())
    by_id = {feast.pk: feast for feast in feasts}
    for dish in dishes:
        dish.feast = by_id[dish.feast_id]
    return _with_answers(feasts, around, [*dishes, *more], logs)


def read_alone(dish: Dish, kitchen: Kitchen, now: datetime) -> FeastRead:
    """Read a dish as if its feast had no other."""
    log = {dish.pk: list(dish.events.all())}
    return _with_answers([dish.feast], surroundings_of(kitchen, now), [dish], log)[0]


def _with_answers(
    feasts: Sequence[Feast], around: Surroundings, dishes: Sequence[Dish],
    logs: dict[int, list[Event]],
) -> list[FeastRead]:  # fmt: skip
    """The feasts with their dishes; the core answers all dishes in one call."""
    beside = Counter(dish.feast_id for dish in dishes)
    plain = {
        str(dish.pk): dish_document(dish.document, around.house, dish.vessel)
        | {"people": dish.feast.heads, "other_heats": beside[dish.feast_id] > 1}
        for dish in dishes
    }
    plain_answers = answered(plain)
    states = {dish.pk: derive(logs.get(dish.pk, []), around.now) for dish in dishes}
    documents = {
        str(dish.pk): _as_it_went(
            dish, plain[str(dish.pk)], plain_answers[str(dish.pk)], states[dish.pk], around
        )
        for dish in dishes
    }
    answers = answered_anew(documents, plain, plain_answers)
    read: dict[int, list[DishRead]] = {feast.pk: [] for feast in feasts}
    for dish in dishes:
        key, log = str(dish.pk), logs.get(dish.pk, [])
        read[dish.feast_id].append(
            DishRead(dish, states[dish.pk], log, documents[key], answers[key])
        )
    return [
        FeastRead(
            feast,
            around,
            tuple(read[feast.pk]),
            frozenset(dish.key for dish in read[feast.pk] if _is_planned(dish, feast, around.now)),
        )
        for feast in feasts
    ]


def _as_it_went(
    dish: Dish, document: Document, answer: Answer, state: DishState, around: Surroundings
) -> Document:
    """The document of a dish with what happened."""
    facts = facts_of(dish, steps_of(answer), state, around.mishaps, around.now)
    feast = dish.feast
    return with_facts(document, facts, around.now, feast.time_zone, dish.serve_at or feast.serve_at)


def _is_planned(read: DishRead, feast: Feast, now: datetime) -> bool:
    """Whether a dish is planned: it is wanted and has steps, and its hour lies ahead."""
    is_ahead = (read.dish.serve_at or feast.serve_at) > now
    return is_ahead and not read.dish.is_given_up and not read.is_discarded and bool(read.steps)
