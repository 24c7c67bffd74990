"""What would help a feast that cannot be: changes of the plan, and of the pieces themselves."""

import hashlib
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from itertools import chain, islice
from typing import Any

from django_tasks import task
from pydantic import TypeAdapter

from pantry_core.dish.answer import DishOut
from pantry_core.measures.said import HOURS_PER_DAY, span
from pantry_core.plan.changes import Change
from pantry_core.plan.problem import GRID, resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Plan
from pantry_core.quantities import Hours
from pantry_core.routes.ways import WAYS, WayName
from pantry_core.text import Sentence, say
from pantry_web.background import queue
from pantry_web.background.answers import Answers
from pantry_web.background.models import Work
from pantry_web.feasts.documents import dish_document, lain_d
from pantry_web.feasts.models import Feast
from pantry_web.planning.answers import work_out
from pantry_web.planning.documents.dish_document import with_plan
from pantry_web.planning.documents.plan_document import steps_document
from pantry_web.planning.looking import feast_outlook
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.planning.solving import Solved, readable

SHORTER: tuple[WayName, ...] = ("needle-brine", "needle", "strong-brine", "dry-cure", "dry-brine")
"""Methods that may take less time, those nearest to a brine first."""
THINNER = 0.5
"""A piece that is cut in two through its thickness."""
MOST_OF_PIECES = 3
LIES_OTHERWISE_H = (6.0, -6.0, 12.0, -12.0, 24.0, -24.0)
"""So much longer or shorter than the cook said a piece may lie, the nearest first (our own choice),
though not more than a share of it."""
MOST_OTHERWISE = 0.5
HALF_DAY_H = 12.0

Document = dict[str, Any]
Decided = tuple[str, Document]
"""A dish decided otherwise, and how that is said."""


@dataclass(frozen=True, slots=True)
class Remedy:
    """What helps and was solved: changes of what is asked, or a dish decided otherwise."""

    code: str
    text: Sentence
    plan: Plan
    changes: tuple[Change, ...] = ()
    dish_id: int | None = None
    decided: Document | None = None


_REMEDIES = Answers("helps", TypeAdapter(list[Remedy]))


def is_needed(whole: FeastOutlook) -> bool:
    """Whether something cannot be done as it is asked."""
    found = whole.solution
    if not isinstance(found, Solved):
        return False
    return found.plan.status == "infeasible" or bool(found.left_out or found.breaks)


def remedies(whole: FeastOutlook) -> list[Remedy] | Work | None:
    """What would help, each really solved, and kept while nothing changes.

    Returns: the remedies, or what is worked out beside the pages and not done yet; None where
    nobody has asked for it.
    """
    if not is_needed(whole):
        return []
    work = queue.asked_for(whole.kitchen, _key(whole))
    if work is None or work.state != Work.State.DONE:
        return work
    return _REMEDIES.read(work.answer or [])


def ask_for_remedies(whole: FeastOutlook) -> Work:
    """Ask for what would help, once within a quarter of an hour."""
    plain, held = whole.plan_documents
    asked = {"feast": whole.feast.pk, "now": whole.now.isoformat(), "plan": plain, "held": held}
    return queue.hand_over(whole.kitchen, _key(whole), asked, work_out_remedies)


def _key(whole: FeastOutlook) -> str:
    quarter = whole.now.timestamp() // GRID.total_seconds()
    held = whole.plan_documents[1]
    return _REMEDIES.key_of((quarter, whole.feast.pk, {**held, "now": ""}))


@task()
def work_out_remedies(pk: int) -> None:
    """Work out what would help a feast as it stood when that was asked.

    Holding a piece before the heat is thought of only where nothing helps without it.
    """

    def deed(report: queue.Report) -> object:
        asked = report.document
        feast = Feast.objects.select_related("kitchen").get(pk=asked["feast"])
        now = datetime.fromisoformat(asked["now"])
        whole = feast_outlook(feast, feast.kitchen, now)
        documents = [readable(asked["plan"])]
        if asked["held"] != asked["plan"]:
            documents.append(readable(asked["held"]))
        found: list[Remedy] = []
        for document in documents:
            if document["dishes"] and not found:
                found = [*_of_pieces(whole, document), *_of_the_plan(whole, document)]
        return _REMEDIES.written(found)

    queue.carry_out(pk, deed)


def _of_the_plan(whole: FeastOutlook, document: Document) -> Iterator[Remedy]:
    """Changes of what is asked; none by whose hours a dish would meet a stop."""
    from pantry_core.plan import remedies as core  # noqa: PLC0415 - the solver is slow to import
    from pantry_core.plan.why import explain  # noqa: PLC0415

    problem = resolve(PlanRequest.model_validate(document))
    for each in core.remedies(document, problem, explain(problem)):
        if not any(_is_stopped_by(view, each.plan) for view in whole.dishes):
            yield Remedy(_code(each.text), each.text, each.plan, each.changes)


def _is_stopped_by(view: Outlook, plan: Plan) -> bool:
    """Whether a plan brings a dish a stop that it has not yet."""
    planned = [step for step in plan.steps if step.dish == view.key]
    if not planned:
        return False
    before = view.read.answer
    after = work_out(with_plan(view.read.document, planned))
    if not isinstance(after, DishOut) or not isinstance(before, DishOut):
        return not isinstance(after, DishOut)
    return bool({each.code for each in after.stops} - {each.code for each in before.stops})


def _of_pieces(whole: FeastOutlook, document: Document) -> Iterator[Remedy]:
    """Another length, method or thickness for what collides; nothing that a stop forbids."""
    from pantry_core.plan.why import explain  # noqa: PLC0415 - the solver is slow to import

    named = {each.dish for each in explain(resolve(PlanRequest.model_validate(document))).why}
    views = (
        view for view in whole.dishes
        if view.key in named and view.answer is not None
        and not view.dish.is_job and not view.state.begun
    )  # fmt: skip
    yield from islice(chain.from_iterable(_of_piece(view, document) for view in views),
                      MOST_OF_PIECES)  # fmt: skip


def _of_piece(view: Outlook, document: Document) -> Iterator[Remedy]:
    """What helps of the nearest lengths, then of other methods and a thinner piece."""
    yield from islice(_those_that_help(view, document, _lying_otherwise(view)), 1)
    yield from _those_that_help(view, document, _otherwise(view))


def _those_that_help(
    view: Outlook, document: Document, ways: Iterator[Decided]
) -> Iterator[Remedy]:
    from pantry_core.plan.solve import is_possible  # noqa: PLC0415 - the solver is slow to import
    from pantry_core.plan.solve import plan as solve  # noqa: PLC0415

    for text, decided in ways:
        plain = dish_document(decided, view.whole.house, view.dish.vessel)
        changed = _with_steps_of(plain, view, document)
        if changed is None or not is_possible(resolve(changed)):
            continue
        solved = solve(resolve(changed), effort=0.3)
        if not solved.steps:
            continue
        planned = [step for step in solved.steps if step.dish == view.key]
        if _answer_without_stop(with_plan(plain, planned)) is None:
            continue
        told = say("{change} for {dish}.", change=text, dish=view.dish.name)
        yield Remedy(_code(told), told, solved, dish_id=view.dish.pk, decided=decided)


def _lying_otherwise(view: Outlook) -> Iterator[Decided]:
    """Somewhat longer or shorter than the cook said, the nearest first; no new caution for it."""
    days, method = lain_d(view.dish.cure), WAYS.get(view.dish.cure.get("method", ""))
    if days is None or method is None or view.answer is None:
        return
    asked_h, told = HOURS_PER_DAY * days, {each.code for each in view.answer.notices}
    for more_h in LIES_OTHERWISE_H:
        if abs(more_h) > MOST_OTHERWISE * asked_h:
            continue
        said = {name: value for name, value in view.dish.cure.items() if name != "lies"}
        cure = {**said, "days": (asked_h + more_h) / HOURS_PER_DAY}
        decided = {**view.dish.document, "cure": cure}
        answer = _answer_without_stop(dish_document(decided, view.whole.house, view.dish.vessel))
        warned = {each.code for each in answer.notices if each.level == "caution"} if answer else ()
        if answer is not None and told.issuperset(warned):
            text = say(
                "{length} of {method:lower} instead of {asked}",
                length=_length(asked_h + more_h, more_h), method=method.name,
                asked=_length(asked_h, more_h),
            )  # fmt: skip
            yield text, decided


def _length(hours: float, apart_h: float) -> str:
    """A length as it is told beside another: both in hours where they are not half days apart."""
    in_days = hours >= HOURS_PER_DAY and apart_h % HALF_DAY_H == 0
    return span(hours) if in_days else say("{length}", length=Hours(round(hours, 1)))


def _otherwise(view: Outlook) -> Iterator[Decided]:
    """The dish decided otherwise: a thinner piece, or another method that fits."""
    document, answer = view.dish.document, view.answer
    way = WAYS.get(view.dish.cure.get("method", ""))
    if answer is None or answer.asked is None or way is None:
        return
    if way.timing in ("school", "model"):
        halved = {**view.dish.piece, "thickness_mm": THINNER * answer.asked.meat.thickness_mm}
        yield say("A thinner piece, cut in two,"), {**document, "piece": halved}
    fitting = {option.method for option in answer.options}
    for name in SHORTER:
        other = WAYS[name]
        if name == way.id or name not in fitting or other.group == way.group == "Needle":
            continue
        kept = ("curing_salt", "sugar_pct", "spices", "target_salt_pct")
        cure = {field: view.dish.cure[field] for field in kept if field in view.dish.cure}
        if other.heaped or other.id == "dry-brine":
            cure["curing_salt"] = None
        water = (
            {"water_g": answer.asked.water_g} if answer.asked.water_g and other.has_water else {}
        )
        yield other.name, {**document, "cure": {**cure, **water, "method": name}}


def _with_steps_of(plain: Document, view: Outlook, document: Document) -> PlanRequest | None:
    """The document with the steps of a dish decided otherwise; None where a stop forbids it."""
    answer = _answer_without_stop(plain)
    if answer is None:
        return None
    steps = steps_document(answer.steps)
    dishes = [
        {**each, "steps": steps} if each["id"] == view.key else each for each in document["dishes"]
    ]
    return PlanRequest.model_validate({**document, "dishes": dishes})


def _answer_without_stop(document: Document) -> DishOut | None:
    answer = work_out(document)
    return answer if isinstance(answer, DishOut) and not answer.stops else None


def _code(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()[:16]
