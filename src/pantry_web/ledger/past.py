"""What was planned of a dish, what happened, what it weighed, and how two of them differ."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta

from django.utils.functional import Promise
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_core.history.weights import Stage
from pantry_core.measures.said import span
from pantry_core.quantities import Ppm
from pantry_web.drawings.ledger import Span
from pantry_web.feasts.choices import method_name
from pantry_web.feasts.line_labels import label_with
from pantry_web.feasts.models import Dish, Event
from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.evidence import stage_weights
from pantry_web.ledger.models import Review
from pantry_web.planning.happenings import Happening, happenings
from pantry_web.planning.outlook import Outlook
from pantry_web.quantities import hours_of, mass, temperature
from pantry_web.sentences import said, tell

STAGE_NAMES: dict[Stage, str | Promise] = {
    "bought": _("as bought"), "trimmed": _("trimmed"), "cured": _("after the cure"),
    "cooked": _("cooked"), "carved": _("carved"),
}  # fmt: skip
LEAST_SPAN = timedelta(minutes=1)


@dataclass(frozen=True, slots=True)
class Weight:
    """A weight on the way to the table [g], what stage it was of, and what it has changed."""

    at: datetime
    stage: str | Promise
    mass_g: float
    since_pct: float | None


@dataclass(frozen=True, slots=True)
class SheetThen:
    """What was weighed out, by the rules of then: each line as reckoned, and as weighed [g]."""

    rules_version: str
    lines: tuple[tuple[str, float, float | None], ...]


def sheets_of(dish: Dish) -> list[SheetThen]:
    """The sheets of a dish as they were when it went in."""
    return [
        SheetThen(
            sheet.rules_version,
            tuple(
                (
                    label_with(line["name"], (sheet.request.get("cure") or {}).get("name")),
                    line["grams"],
                    sheet.weighed.get(line["name"]),
                )
                for line in sheet.answer.get("lines", ())
            ),
        )
        for sheet in dish.sheets.order_by("pk")
    ]


@dataclass(frozen=True, slots=True)
class Past:
    """What is known of a dish that is over; temperatures in the thickest part [°C]."""

    weights: tuple[Weight, ...]
    readings: tuple[tuple[datetime, float], ...]
    log: tuple[Happening, ...]
    facts: dict[str, str]


def past_of(view: Outlook) -> Past:
    """What happened to a dish."""
    return Past(
        tuple(_weights(view)),
        tuple(
            (each.at, each.temperature_c)
            for each in view.state.events
            if each.what == Event.What.TEMPERATURE_READ and each.temperature_c is not None
        ),
        tuple(happenings(view)),
        _facts(view),
    )


def _weights(view: Outlook) -> Iterator[Weight]:
    """Weights that were written down, each with the change since the first."""
    weights = stage_weights(view)
    first = weights[0][1].mass_g if weights else 0.0
    for event, each in weights:
        since = 100.0 * (each.mass_g - first) / first if each.mass_g != first else None
        yield Weight(event.at, STAGE_NAMES[each.stage], each.mass_g, since)


def spans_of(view: Outlook) -> list[Span]:
    """Each step as it was planned at first and as it went, for the picture."""
    found = []
    first = {
        (each["dish"], each["step"]): (
            datetime.fromisoformat(each["start"]), datetime.fromisoformat(each["end"])
        )
        for each in view.dish.feast.first_plan or ()
    }  # fmt: skip
    for step in view.steps:
        fact, key = view.state.facts.get(step.id), (view.key, step.id)
        planned = first.get(key)
        went = None
        if fact is not None and fact.started_at is not None:
            went = (fact.started_at, fact.ended_at or view.now)
        if planned or went:
            found.append(Span(step.title, planned, went))
    return found


def _facts(view: Outlook) -> dict[str, str]:
    """What was decided of a dish, in words, by what it is."""
    units, answer = view.kitchen.units, view.answer
    cure = view.dish.cure
    told = {gettext("Weight"): mass(view.dish.mass_g, units)}
    if cure.get("method"):
        told[gettext("Method")] = said(method_name(cure["method"]), units)
    if answer is not None and answer.sheet is not None:
        told[gettext("Salt")] = f"{answer.sheet.salt.target_pct:.2g} %"
        nitrite = answer.sheet.nitrite.dry_ppm or answer.sheet.nitrite.even_ppm
        if nitrite:
            told[gettext("Nitrite")] = tell("{nitrite}", nitrite=Ppm(nitrite, 0))
    if answer is not None and answer.inside_c is not None:
        told[gettext("Inside")] = temperature(answer.inside_c, units)
    for step in view.steps:
        fact = view.state.facts.get(step.id)
        if fact and fact.started_at and fact.ended_at and not step.hands_min >= 60 * step.min_h:
            lasted = fact.ended_at - fact.started_at
            if lasted > LEAST_SPAN:
                told[said(step.title, units)] = said(span(hours_of(lasted)), units)
    return told


def differences(
    one: Past, other: Past, first: Review | None, second: Review | None, kitchen: Kitchen
) -> list[tuple[str, str, str, bool]]:
    """What is known of two dishes, beside each other, what differs first, and whether it does."""
    both = ((one, first), (other, second))
    left, right = ({**past.facts, **_judged(review, kitchen)} for past, review in both)
    names = list(dict.fromkeys([*left, *right]))
    rows = [
        (name, left.get(name, "–"), right.get(name, "–"), left.get(name) != right.get(name))
        for name in names
    ]
    return sorted(rows, key=lambda row: not row[3])


def _judged(review: Review | None, kitchen: Kitchen) -> dict[str, str]:
    if review is None or review.is_skipped:
        return {}
    told = {
        gettext("How salty"): review.get_saltiness_display(),
        gettext("How tender"): review.get_tender_display(),
        gettext("How done"): review.get_doneness_display(),
        gettext("Skin"): review.get_skin_display(),
        gettext("Left"): mass(review.left_g, kitchen.units) if review.left_g else "",
        gettext("Next time"): review.next_time,
    }
    return {name: str(value) for name, value in told.items() if value}
