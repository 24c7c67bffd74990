"""What a dish that is over tells of the figures of its kitchen, and what they come to."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import asdict, dataclass
from datetime import datetime, timedelta
from typing import Any

from django.db.models import F, QuerySet, Window
from django.db.models.functions import RowNumber
from django.utils.functional import Promise
from django.utils.translation import gettext_lazy as _
from pydantic import TypeAdapter

from pantry_core.dish.answer import DishOut
from pantry_core.history.log import hours_between
from pantry_core.history.weights import StageWeight, lost, stage_of
from pantry_core.learning.figures import (
    LEAST_H,
    LEAST_SALT_PCT,
    MOST_H,
    MOST_SALT_PCT,
    CookedIn,
    HeartSeen,
    Learnt,
    Lost,
    Tasted,
    appliance,
    lateness,
    liking,
    loss,
    salt_speed,
)
from pantry_core.quantities import Minutes
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.servings import usual_loss
from pantry_web.feasts.documents import dish_document
from pantry_web.feasts.models import Event
from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.models import Evidence, OwnFigure, Review
from pantry_web.planning.answers import work_out
from pantry_web.planning.outlook import Outlook
from pantry_web.sentences import tell
from pantry_web.steps.salt_now import past_of_dish

LIKING, SPEED, HOURS = "salt-liking", "salt-speed", "hours-"
TRIMMED, COOKED, LATE = "trimmed-left", "cooked-left", "late"
PLACES = ("oven", "smoker", "hob", "fire")
KNOWN_SALT = ("even-brine", "dry-cure", "dry-brine", "needle-brine", "needle")
"""Methods after which it is known how much salt is in the meat."""
TIMED = ("strong-brine", "dry-cure", "even-brine")
MOST_DISHES = 60
"""The latest of a figure are looked at; a kitchen changes its ovens."""
NEAR_THE_END = timedelta(minutes=30)
"""A reading that passed the mark so long before the end was of a rising probe."""
MOVED_MIN = 720.0
"""What was begun so much sooner or later had been moved on purpose."""

FIGURES = "figures"
"""Where a kitchen keeps the figures with their bands."""
OF_THE_HOUSE = {TRIMMED: "trimmed_left", COOKED: "cooked_left", LATE: "late_min"}
"""Figures that bear on what is bought and when people are reminded, not on a dish."""

Seen = tuple[str, Any]


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure of a kitchen: what it is of, what is learnt, and whether it is put aside."""

    key: str
    name: str | Promise
    learnt: Learnt
    is_aside: bool

    @property
    def is_of_the_usual(self) -> bool:
        """Whether it is a factor on the general figure; else it is minutes."""
        return self.key != LATE

    @property
    def value(self) -> str:
        """The figure, as it is said."""
        return self._said(self.learnt.value)

    @property
    def used_in(self) -> str | Promise:
        """Where it is used."""
        return USED_IN.get(self.key, _("used in the next mix and plan"))

    @property
    def band(self) -> str:
        """Between what it lies, nine times in ten."""
        low, high = (self._said(each) for each in (self.learnt.low, self.learnt.high))
        return tell("{low} to {high}", low=low, high=high)

    def _said(self, value: float) -> str:
        if self.is_of_the_usual:
            return f"{100.0 * value:.0f} %"
        return tell("{length}", length=Minutes(5.0 * round(value / 5.0), 0))


NAMES: dict[str, str | Promise] = {
    LIKING: _("How salty you like it"), SPEED: _("How fast salt goes in"),
    "hours-oven": _("How long the oven takes"), "hours-smoker": _("How long the smoker takes"),
    "hours-hob": _("How long pots take"), "hours-fire": _("How long the fire takes"),
    TRIMMED: _("What trimming leaves"), COOKED: _("What cooking leaves"),
    LATE: _("How late work begins"),
}  # fmt: skip
USED_IN: dict[str, str | Promise] = {
    TRIMMED: _("used in what to buy"), COOKED: _("used in what is left for the plates"),
    LATE: _("the calendar reminds so much sooner"),
}  # fmt: skip
_LEARN: dict[str, tuple[TypeAdapter[Any], Callable[[Sequence[Any]], Learnt]]] = {
    LIKING: (TypeAdapter(Tasted), liking), SPEED: (TypeAdapter(HeartSeen), salt_speed),
    **{HOURS + place: (TypeAdapter(CookedIn), appliance) for place in PLACES},
    TRIMMED: (TypeAdapter(Lost), loss), COOKED: (TypeAdapter(Lost), loss),
    LATE: (TypeAdapter(float), lateness),
}  # fmt: skip


def seen_of(view: Outlook, review: Review) -> Iterator[Seen]:
    """What a dish tells of each figure, as the core reads it; nothing of one that is discarded."""
    plain = work_out(_without_learnt(view))
    if view.is_discarded or view.dish.is_job or not isinstance(plain, DishOut):
        return
    yield from _of_liking(view, review, plain)
    yield from _of_speed(view, review)
    yield from _of_hours(view, plain)
    yield from _of_losses(view)
    yield from _of_beginning(view)


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


def _of_losses(view: Outlook) -> Iterator[Seen]:
    """What trimming and cooking took, where the weights before and after were written down."""
    cut = CUTS.get(view.dish.piece.get("cut", ""))
    if cut is None:
        return
    weights, usual = [each for _, each in stage_weights(view)], usual_loss(cut)
    trimmed = lost(weights, ["bought"], ["trimmed"])
    if trimmed is not None:
        yield TRIMMED, {"usual": usual.trimmed, "seen": trimmed}
    cooked = lost(weights, ["cured", "trimmed"], ["cooked"])
    if cooked is not None:
        yield COOKED, {"usual": usual.cooked, "seen": cooked}


def stage_weights(view: Outlook) -> list[tuple[Event, StageWeight]]:
    """The weights of a piece that were written down, each with the stage it is of."""
    found = []
    for event in view.state.events:
        if event.mass_g and event.what in (Event.What.WEIGHED, Event.What.PUT_IN):
            begun = {
                step.kind
                for step in view.steps
                if (fact := view.state.facts.get(step.id))
                and fact.started_at is not None
                and fact.started_at <= event.at
            }
            stage = "trimmed" if event.what == Event.What.PUT_IN else stage_of(begun)
            found.append((event, StageWeight(stage, event.mass_g)))
    return found


def _of_beginning(view: Outlook) -> Iterator[Seen]:
    """How late the first thing of a dish was begun, against the plan that was gone by at first."""
    first = next((step for step in view.steps if step.id in view.state.begun), None)
    began = view.state.facts[first.id].started_at if first is not None else None
    planned = next(
        (
            datetime.fromisoformat(each["start"])
            for each in view.dish.feast.first_plan or ()
            if first is not None and (each["dish"], each["step"]) == (view.key, first.id)
        ),
        None,
    )
    if began is None or planned is None:
        return
    minutes = 60.0 * hours_between(planned, began)
    if abs(minutes) <= MOVED_MIN:
        yield LATE, minutes


def figures_of(kitchen: Kitchen) -> list[Figure]:
    """What a kitchen has learnt, as it was worked out when the last of it was told."""
    if kitchen.learnt and FIGURES not in kitchen.learnt:
        return figures_worked_out(kitchen)  # kept before the bands were
    known: dict[str, Any] = kitchen.learnt.get(FIGURES, {})
    aside = set(kitchen.own_figures.filter(is_aside=True).values_list("figure", flat=True))
    return [
        Figure(key, NAMES[key], Learnt(**known[key]), key in aside) for key in NAMES if key in known
    ]


def figures_worked_out(kitchen: Kitchen) -> list[Figure]:
    """What the latest dishes tell of each figure, in two queries."""
    own = {each.figure: each for each in OwnFigure.objects.filter(kitchen=kitchen)}
    rows: dict[str, list[Any]] = {key: [] for key in _LEARN}
    for row in _latest(kitchen, own.values()):
        if row.figure in rows:
            rows[row.figure].append(row.seen)
    return [
        Figure(key, NAMES[key], _learnt(key, seen), key in own and own[key].is_aside)
        for key, seen in rows.items()
        if seen
    ]


def _latest(kitchen: Kitchen, own: Iterable[OwnFigure]) -> QuerySet[Evidence]:
    """What the latest dishes tell of each figure, the latest first, and nothing forgotten."""
    told = Evidence.objects.filter(dish__feast__kitchen=kitchen, dish__feast__removed_at=None)
    for each in own:
        if each.since is not None:
            told = told.exclude(figure=each.figure, dish__feast__serve_at__lte=each.since)
    latest = (F("dish__feast__serve_at").desc(), F("pk").desc())
    place = Window(RowNumber(), partition_by="figure", order_by=latest)
    return told.annotate(place=place).filter(place__lte=MOST_DISHES).order_by("place")


def _learnt(key: str, seen: Sequence[Any]) -> Learnt:
    adapter, learn = _LEARN[key]
    return learn([adapter.validate_json(_json(each)) for each in seen])


def _json(seen: Any) -> bytes:
    return TypeAdapter(Any).dump_json(seen)


def learnt_document(figures: Sequence[Figure]) -> dict[str, Any]:
    """What is used of the figures, as a kitchen keeps it."""
    used = {each.key: each.learnt.value for each in figures if not each.is_aside}
    kept = {each.key: asdict(each.learnt) for each in figures}
    hours = {key.removeprefix(HOURS): value for key, value in used.items() if key[:6] == HOURS}
    return {
        **({"salt_liking": used[LIKING]} if LIKING in used else {}),
        **({"salt_speed": used[SPEED]} if SPEED in used else {}),
        **({"hours": hours} if hours else {}),
        **{name: used[key] for key, name in OF_THE_HOUSE.items() if key in used},
        **({FIGURES: kept} if kept else {}),
    }
