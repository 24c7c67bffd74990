"""The plan of a feast: asked for once, solved at once or beside the pages, kept while it holds."""

from collections import OrderedDict
from collections.abc import Callable, Container, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from functools import cached_property
from typing import TYPE_CHECKING, Any

from django.db.models import QuerySet
from django_tasks import task
from pydantic import TypeAdapter, ValidationError

from pantry_core.formats.reading import problem_of
from pantry_core.plan.changes import LeaveOut, applied
from pantry_core.plan.problem import GRID, WrongPlan, resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Break, Plan, PlannedStep, Why
from pantry_core.text import Sentence
from pantry_web.background import queue
from pantry_web.background.answers import Answers
from pantry_web.background.models import Work
from pantry_web.background.patient import write_if_free
from pantry_web.feasts.models import Feast
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning.answers import forget_old_answers

if TYPE_CHECKING:
    from pantry_core.plan.least_bad import LeastBad

QUICK_STEPS = 24
"""Plans of so many open steps take under a second."""
READY_EARLY = timedelta(hours=24)
"""What is under way is not taken off the plan for being ready so much before its hour."""
MOST_REMEMBERED = 200

Starts = Mapping[tuple[str, str], datetime]
"""Starts of the plan that the cook last went by, by dish and step."""
Document = dict[str, Any]
Tell = Callable[[float, float], None]


@dataclass(frozen=True)
class Asked:
    """What is asked for: the plan, the same with holding allowed, and the starts to be kept.

    `about` names the feast in the queue.
    """

    document: Document
    held: Document
    keep: Starts = field(default_factory=dict)
    about: str = ""

    @cached_property
    def key(self) -> str:
        """The same for the same house, steps and facts, whatever the hour."""
        starts = sorted((*pair, start.isoformat()) for pair, start in self.keep.items())
        is_one = self.held is self.document
        documents = [{**each, "now": ""} for each in (self.document, self.held)[is_one:]]
        return _SOLVED.key_of((documents, starts))

    def stored(self) -> Document:
        """As JSON data."""
        starts = [(*pair, start.isoformat()) for pair, start in self.keep.items()]
        return {"document": self.document, "held": self.held, "keep": starts}

    @classmethod
    def of(cls, stored: Document) -> "Asked":
        """From its JSON data."""
        keep = {(dish, step): datetime.fromisoformat(start) for dish, step, start in stored["keep"]}
        return cls(stored["document"], stored["held"], keep)


@dataclass(frozen=True, slots=True)
class Solved:
    """A plan, what stands against it, and the dishes that cannot be done: they are left out of it.

    `left_out` says of each, by its id, what stands against it alone. `apart` is how what cannot be
    would be, each dish by itself, and `against` what stands against its steps. A plan that is not
    `proven` yet was found at once, and is still looked into beside the pages. `asked_at` is the
    moment that it starts from. Where no plan keeps every rule, it is the one that breaks least, and
    `breaks` says what.
    """

    plan: Plan
    why: tuple[Sentence, ...] = ()
    left_out: dict[str, tuple[Sentence, ...]] = field(default_factory=dict)
    apart: tuple[PlannedStep, ...] = ()
    against: tuple[Why, ...] = ()
    is_proven: bool = True
    asked_at: datetime | None = None
    breaks: tuple[Break, ...] = ()

    def in_utc(self) -> "Solved":
        """The same with its instants in UTC, which are compared far quicker than others."""
        apart = tuple(each.in_utc() for each in self.apart)
        return replace(self, plan=self.plan.in_utc(), apart=apart)


Found = dict[str, Work]
_remembered: OrderedDict[tuple[int, str, datetime], Solved] = OrderedDict()
_SOLVED = Answers("plan", TypeAdapter(Solved))


def solved(
    kitchen: Kitchen, asked: Asked, *, behind: bool = False, found: Found | None = None
) -> Solved | Work:
    """The plan, kept while it still holds, or what is worked out beside the pages.

    Parameters: kitchen; asked; behind, whether nobody waits for it, however quick it would be;
    found, what was asked for already, by its key, where it has been read.
    """
    now = datetime.fromisoformat(asked.document["now"])
    kept = _kept(kitchen, asked) if found is None else found.get(asked.key)
    if kept is not None and kept.state == Work.State.DONE:
        answer = _answer_of(kept)
        if _still_holds(answer, asked.document, now):
            return answer
        queue.set_aside(kept)
    if not behind and _open_steps(asked.document) <= QUICK_STEPS:
        answer = solve(asked)
        data = _SOLVED.written(answer)
        _keep(kitchen, asked, data)
        return answer
    if kept is not None and found is not None and kept.state == Work.State.FAILED:
        return kept
    work = _hand_over(kitchen, asked)
    return _answer_of(work) if work.answer is not None else work


def begin_with(kitchen: Kitchen, asked: Asked, plan: Plan) -> None:
    """Go by a plan that was found at once; what is not proven is looked into beside the pages."""
    is_proven = plan.status == "optimal"
    data = _SOLVED.written(Solved(plan, is_proven=is_proven))
    if is_proven:
        _keep(kitchen, asked, data)
    else:
        _hand_over(kitchen, asked, data)


def _keep(kitchen: Kitchen, asked: Asked, data: object) -> None:
    write_if_free(lambda: queue.keep_answer(kitchen, asked.key, asked.stored(), data, asked.about))


def _hand_over(kitchen: Kitchen, asked: Asked, so_far: object = None) -> Work:
    return queue.hand_over(
        kitchen, asked.key, asked.stored(), work_out_plan, so_far=so_far, about=asked.about
    )


def plan_roughly(asked: Asked, work: Work) -> None:
    """Find a plan at once for a work that waits, where there is one."""
    from pantry_core.plan.solve import plan  # noqa: PLC0415 - the solver takes 0.6 s to import

    document = readable(asked.document)
    if not document["dishes"]:
        return
    problem = resolve(PlanRequest.model_validate(document))
    rough = plan(problem, wants_stop=lambda: True, keep=asked.keep)
    if rough.steps:
        queue.answer_so_far(work, _SOLVED.written(Solved(rough, is_proven=False)))


def plan_before(kitchen: Kitchen, about: str) -> Plan | None:
    """The last plan of a feast, whatever changed since; None where there was none.

    One that was kept in an older shape is none: a new one is on its way.
    """
    work = queue.last_answer(kitchen, about)
    try:
        plan = None if work is None else _answer_of(work).plan
    except ValidationError:
        return None
    return plan if plan is not None and plan.steps else None


def known(kitchen: Kitchen, asked: Asked) -> Solved | None:
    """The plan if it has been worked out and still holds; nothing is asked for."""
    kept = _kept(kitchen, asked)
    if kept is None or kept.answer is None:
        return None
    answer = _answer_of(kept)
    now = datetime.fromisoformat(asked.document["now"])
    is_good = _still_holds(answer, asked.document, now)
    return answer if is_good else None


@task()
def work_out_plan(pk: int) -> None:
    """Work a plan out, telling how far it is; asked to stop, go on with the best so far."""

    def deed(report: queue.Report) -> object:
        def tell(deviation_h: float, bound_h: float) -> None:
            report.tell(deviation_h=deviation_h, bound_h=bound_h)

        answer = solve(Asked.of(report.document), tell, report.wants_stop)
        forget_old_answers()
        return _SOLVED.written(answer)

    queue.carry_out(pk, deed)


def solve(
    asked: Asked, tell: Tell | None = None, wants_stop: Callable[[], bool] | None = None
) -> Solved:
    """Solve; where it cannot be, with holding; else as the plan that breaks least."""
    found = _solved(asked, tell, wants_stop)
    return replace(found.in_utc(), asked_at=datetime.fromisoformat(asked.document["now"]))


def _solved(asked: Asked, tell: Tell | None, wants_stop: Callable[[], bool] | None) -> Solved:
    from pantry_core.plan.solve import plan  # noqa: PLC0415 - the solver takes 0.6 s to import

    def found(document: Document) -> Plan:
        problem = resolve(PlanRequest.model_validate(document))
        return plan(problem, tell, wants_stop, keep=asked.keep)

    def best(document: Document, held: Document) -> Plan:
        first = found(document)
        if first.status != "infeasible" or held == document:
            return first
        second = found(held)
        return first if second.status == "infeasible" else second

    left_out = _unreadable(asked.document)
    document, held = without(asked.document, left_out), without(asked.held, left_out)
    if not document["dishes"]:
        return Solved(Plan(status="infeasible"), left_out=left_out)
    all_of_them = best(document, held)
    if all_of_them.status != "infeasible":
        return Solved(all_of_them, left_out=left_out)
    reasons, breaking = _why(document, all_of_them), _least_bad(document, held)
    if breaking is None:
        return Solved(all_of_them, reasons, left_out, _apart(document), all_of_them.why)
    gone = _left_out(breaking)
    against = _impossible(held)
    left_out |= {
        each.dish: _in_few_words(held, against[each.dish]) if each.dish in against else (each.text,)
        for each in gone
    }
    rest = [each["id"] for each in document["dishes"] if each["id"] not in left_out]
    alone = tuple(each for dish in left_out for each in against.get(dish, ()))
    others = tuple(each for each in breaking.breaks if each not in gone)
    return Solved(
        breaking.plan, reasons if others else (), left_out, _apart(without(held, rest)), alone,
        breaks=others,
    )  # fmt: skip


def _least_bad(document: Document, held: Document) -> "LeastBad | None":
    """The plan that breaks least, with holding where it puts more on the table."""
    from pantry_core.plan.least_bad import least_bad  # noqa: PLC0415 - as the solver

    begun = {
        dish["id"]: READY_EARLY
        for dish in document["dishes"]
        if any("started_at" in step for step in dish["steps"])
    }
    plain = least_bad(resolve(PlanRequest.model_validate(document)), begun)
    if held == document or (plain is not None and not _left_out(plain)):
        return plain
    with_holding = least_bad(resolve(PlanRequest.model_validate(held)), begun)
    if with_holding is None or plain is None:
        return with_holding or plain
    return min(plain, with_holding, key=lambda each: len(_left_out(each)))


def _left_out(breaking: "LeastBad") -> tuple[Break, ...]:
    return tuple(each for each in breaking.breaks if each.rule == "left-out")


def _apart(document: Document) -> tuple[PlannedStep, ...]:
    from pantry_core.plan.apart import apart  # noqa: PLC0415 - the solver takes 0.6 s to import

    if not document["dishes"]:
        return ()
    return apart(resolve(PlanRequest.model_validate(document)))


def readable(document: Document) -> Document:
    """The document without the dishes whose steps contradict themselves."""
    return without(document, _unreadable(document))


def without(document: Document, left_out: Container[str]) -> Document:
    """The document without some dishes; nobody waits for them."""
    ids = [each["id"] for each in document["dishes"] if each["id"] in left_out]
    return applied(document, [LeaveOut(each) for each in ids])


def _alone(document: Document, dish: str) -> Document:
    return without(document, [each["id"] for each in document["dishes"] if each["id"] != dish])


def _unreadable(document: Document) -> dict[str, tuple[str, ...]]:
    """The dishes whose steps contradict themselves, each with how."""
    told = {}
    for dish in document["dishes"]:
        try:
            resolve(PlanRequest.model_validate(_alone(document, dish["id"])))
        except ValidationError as error:
            told[dish["id"]] = tuple(problem_of(each).what for each in error.errors())
        except WrongPlan as error:
            told[dish["id"]] = (str(error),)
    return told


def _impossible(document: Document) -> dict[str, tuple[Why, ...]]:
    """The dishes that could not be done even alone, each with what stands against it."""
    from pantry_core.plan.solve import is_possible  # noqa: PLC0415
    from pantry_core.plan.why import explain  # noqa: PLC0415

    told = {}
    for dish in document["dishes"] if len(document["dishes"]) > 1 else ():
        alone = _alone(document, dish["id"])
        del alone["dishes"][0]["name"]  # what is said of it stands under its name
        problem = resolve(PlanRequest.model_validate(alone))
        if not is_possible(problem):
            told[dish["id"]] = explain(problem).why
    return told


def _why(document: Document, plan: Plan) -> tuple[str, ...]:
    return () if plan.status != "infeasible" else _in_few_words(document, plan.why)


def _in_few_words(document: Document, why: tuple[Why, ...]) -> tuple[str, ...]:
    from pantry_core.plan.reasons import in_few_words  # noqa: PLC0415

    return tuple(in_few_words(resolve(PlanRequest.model_validate(document)), why))


def found_already(kitchen: Kitchen, asked: Sequence[Asked]) -> Found:
    """What was asked for already of several feasts, by its key."""
    keys = [each.key for each in asked]
    works = _works(kitchen).filter(key__in=keys)
    found = {each.key: each for each in works.defer("document", "answer")}
    unread = [each.pk for each in found.values() if _name(each) not in _remembered]
    return found | {each.key: each for each in works.filter(pk__in=unread)} if unread else found


def _kept(kitchen: Kitchen, asked: Asked) -> Work | None:
    return _works(kitchen).filter(key=asked.key).first()


def _works(kitchen: Kitchen) -> QuerySet[Work]:
    """The works of a kitchen; what they were asked is read only where it is looked at."""
    return Work.objects.filter(kitchen=kitchen).defer("document")


def _answer_of(work: Work) -> Solved:
    """The answer to what is done, remembered in this process, or what is known so far."""
    known = _remembered.get(_name(work))
    if known is not None:
        return known
    read = _SOLVED.read(work.answer).in_utc()
    if work.state != Work.State.DONE:
        return read
    if len(_remembered) >= MOST_REMEMBERED:
        _remembered.popitem(last=False)
    _remembered[_name(work)] = read
    return read


def _name(work: Work) -> tuple[int, str, datetime]:
    """What an answer is remembered by: whose it is, what was asked, and when."""
    return work.kitchen_id, work.key, work.queued_at


def _open_steps(document: Document) -> int:
    return sum("ended_at" not in step for dish in document["dishes"] for step in dish["steps"])


def _still_holds(found: Solved, asked: Document, now: datetime) -> bool:
    """Whether nothing that was planned lies undone in the past by now."""
    plan = found.plan
    if plan.status == "infeasible":
        return found.asked_at is not None and timedelta(0) <= now - found.asked_at < GRID
    facts = [(dish["id"], step) for dish in asked["dishes"] for step in dish["steps"]]
    begun = {(dish, e["id"]) for dish, e in facts if "started_at" in e or "ended_at" in e}
    ended = {(dish, e["id"]) for dish, e in facts if "ended_at" in e}
    done = {
        (dish, each["id"], datetime.fromisoformat(text))
        for dish, each in facts
        for text in each.get("rounds_done", ())
    }
    if (found.left_out or found.breaks) and found.asked_at is not None and now < found.asked_at:
        return False  # the demo's clock was set back: more may be possible
    steps_ahead = all(
        (each.start >= now or (each.dish, each.step) in begun)
        and (each.end >= now or (each.dish, each.step) in ended)
        for each in plan.steps
    )
    return steps_ahead and all(
        each.at >= now or (job.dish, job.step, each.at) in done
        for each in plan.rounds
        for job in each.jobs
    )


def kept_starts(feast: Feast) -> Starts:
    """The starts of the plan that the cook last went by."""
    return {
        (each["dish"], each["step"]): datetime.fromisoformat(each["start"])
        for each in feast.kept_plan or ()
    }
