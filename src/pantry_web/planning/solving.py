"""The plan of a feast as it is asked for and solved."""

from collections.abc import Callable, Container, Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from functools import cached_property
from typing import TYPE_CHECKING, Any

from django_tasks import task
from pydantic import TypeAdapter, ValidationError

from pantry_core.formats.reading import problem_of
from pantry_core.plan.changes import LeaveOut, applied
from pantry_core.plan.problem import WrongPlan, resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Break, Plan, PlannedStep, Why
from pantry_core.text import Sentence
from pantry_web.background import queue
from pantry_web.background.answers import Answers
from pantry_web.background.models import Work
from pantry_web.planning.answers import forget_old_answers

if TYPE_CHECKING:
    from pantry_core.plan.least_bad import LeastBad

READY_EARLY = timedelta(hours=24)
"""What is under way is not taken off the plan for being ready so much before its hour."""

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
        return SOLVED.key_of((documents, starts))

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


SOLVED = Answers("plan", TypeAdapter(Solved))
"""How the answers are kept."""


def plan_roughly(asked: Asked, work: Work) -> None:
    """Find a plan at once for a work that waits, where there is one."""
    from pantry_core.plan.solve import plan  # noqa: PLC0415 - the solver takes 0.6 s to import

    document = readable(asked.document)
    if not document["dishes"]:
        return
    problem = resolve(PlanRequest.model_validate(document))
    rough = plan(problem, wants_stop=lambda: True, keep=asked.keep)
    if rough.steps:
        queue.answer_so_far(work, SOLVED.written(Solved(rough, is_proven=False)))


@task()
def work_out_plan(pk: int) -> None:
    """Work a plan out, telling how far it is; asked to stop, go on with the best so far."""

    def deed(report: queue.Report) -> object:
        def tell(deviation_h: float, bound_h: float) -> None:
            report.tell(deviation_h=deviation_h, bound_h=bound_h)

        answer = solve(Asked.of(report.document), tell, report.wants_stop)
        forget_old_answers()
        return SOLVED.written(answer)

    queue.carry_out(pk, deed)


def solve(
    asked: Asked, tell: Tell | None = None, wants_stop: Callable[[], bool] | None = None
) -> Solved:
    """Solve; where it cannot be, with holding; else as the plan that breaks least."""
    left_out = _unreadable(asked.document)
    whole = _whole(asked, left_out, tell, wants_stop)
    if whole.status == "infeasible":
        return _at_its_moment(_broken(asked, left_out, whole), asked)
    return _at_its_moment(Solved(whole, left_out=left_out), asked)


def solve_whole(asked: Asked) -> Solved | None:
    """Solve; None where no plan keeps every rule, which is found out far sooner than why."""
    left_out = _unreadable(asked.document)
    whole = _whole(asked, left_out, says_why=False)
    if whole.status == "infeasible":
        return None
    return _at_its_moment(Solved(whole, left_out=left_out), asked)


def _at_its_moment(found: Solved, asked: Asked) -> Solved:
    return replace(found.in_utc(), asked_at=datetime.fromisoformat(asked.document["now"]))


def _whole(
    asked: Asked, left_out: Container[str], tell: Tell | None = None,
    wants_stop: Callable[[], bool] | None = None, *, says_why: bool = True,
) -> Plan:  # fmt: skip
    """The plan of all dishes but some that keeps every rule, with holding where it needs that."""
    from pantry_core.plan.solve import plan  # noqa: PLC0415 - the solver takes 0.6 s to import

    def found(document: Document) -> Plan:
        problem = resolve(PlanRequest.model_validate(document))
        return plan(problem, tell, wants_stop, keep=asked.keep, says_why=says_why)

    document, held = without(asked.document, left_out), without(asked.held, left_out)
    if not document["dishes"]:
        return Plan(status="infeasible")
    first = found(document)
    if first.status != "infeasible" or held == document:
        return first
    second = found(held)
    return first if second.status == "infeasible" else second


def _broken(asked: Asked, left_out: dict[str, tuple[Sentence, ...]], all_of_them: Plan) -> Solved:
    """The plan that breaks least, where no plan of all dishes keeps every rule."""
    document, held = without(asked.document, left_out), without(asked.held, left_out)
    if not document["dishes"]:
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
