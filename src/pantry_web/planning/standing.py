"""The plan that a feast goes by: pages look it up, actions ask for it."""

import logging
from collections import OrderedDict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from itertools import chain

from django.db.models import QuerySet
from pydantic import ValidationError

from pantry_core.plan.problem import GRID
from pantry_core.plan.result import Plan
from pantry_web.background import queue
from pantry_web.background.models import Work
from pantry_web.background.patient import write_if_free
from pantry_web.feasts.models import Feast
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning.documents.dish_document import as_it_went
from pantry_web.planning.documents.plan_document import ToPlan, plan_document
from pantry_web.planning.reading import FeastRead
from pantry_web.planning.solving import (
    SOLVED,
    Asked,
    Document,
    Solved,
    Starts,
    plan_roughly,
    solve_whole,
    work_out_plan,
)  # fmt: skip

QUICK_STEPS = 24
"""Plans of so many open steps take under a second."""
ROUGH_STEPS = 120
"""Plans of so many open steps are found roughly in a second or two."""
MOST_REMEMBERED = 200

log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class Standing:
    """The plan that a feast goes by, as far as somebody asked for it.

    `asked` is what is to be asked; None when nothing lies ahead. `solution` is the newest plan that
    there is: the one from before what changed last while there is no new one, which is then on its
    way as `work`, or is yet to be asked for.
    """

    asked: Asked | None = None
    solution: Solved | None = None
    work: Work | None = None
    is_from_before: bool = False

    @property
    def is_to_be_asked_for(self) -> bool:
        """Whether nobody has asked for the plan as things stand now."""
        is_there = self.solution is not None and not self.is_from_before
        return self.asked is not None and self.work is None and not is_there


NOTHING_AHEAD = Standing()
_remembered: OrderedDict[tuple[int, str, datetime], Solved] = OrderedDict()


def standings(kitchen: Kitchen, reads: Sequence[FeastRead]) -> list[Standing]:
    """Look up the plans of feasts of a kitchen, without working anything out.

    Returns: a standing for each feast, in their order.
    """
    questions = {read.feast.pk: question(read) for read in reads if read.planned}
    works = _works_by_key(kitchen, questions.values())
    current = {pk: _current(works.get(asked.key), asked) for pk, asked in questions.items()}
    missing = [asked for pk, asked in questions.items() if not isinstance(current[pk], Solved)]
    before = _plans_before(kitchen, missing)
    plans = []
    for read in reads:
        asked = questions.get(read.feast.pk)
        if asked is None:
            plans.append(NOTHING_AHEAD)
            continue
        there = current[read.feast.pk]
        if isinstance(there, Solved):
            plans.append(Standing(asked, there))
            continue
        earlier = before.get(asked.about)
        solution = None if earlier is None else _so_far(earlier, read)
        plans.append(Standing(asked, solution, there, is_from_before=True))
    return plans


def question(read: FeastRead) -> Asked:
    """What is to be asked of the planner about a feast."""
    dishes = [
        ToPlan(each.dish, each.steps, each.state)
        for each in read.dishes
        if each.key in read.planned
    ]
    is_arranged = any(step.locked_start for each in read.dishes for step in each.steps)
    keep = kept_starts(read.feast) if read.is_begun or is_arranged else {}
    return Asked(*plan_document(read.feast, read.around, dishes), keep, f"plan-{read.feast.pk}")


def ask(kitchen: Kitchen, asked: Asked, *, behind: bool = False) -> None:
    """Ask for the plan of a feast, unless the one that there is holds.

    A small one is worked out at once, a large one roughly where there was none, and then beside the
    pages. So is what breaks least where no plan keeps every rule: that takes seconds.

    Parameters: kitchen; asked; behind, whether nobody waits for it, however small it is.
    """
    kept = _works(kitchen).filter(key=asked.key).first()
    if kept is not None and kept.state == Work.State.DONE:
        if _still_holds(_answer_of(kept), asked.document, _now(asked)):
            return
        queue.set_aside(kept)
    is_small = not behind and _open_steps(asked.document) <= QUICK_STEPS
    if is_small and _solve_at_once(kitchen, asked):
        return
    is_first = kept is None and not behind and _open_steps(asked.document) <= ROUGH_STEPS
    work = _hand_over(kitchen, asked)
    if is_first and work.answer is None and not _plans_before(kitchen, [asked]):
        plan_roughly(asked, work)


def begin_with(kitchen: Kitchen, asked: Asked, plan: Plan) -> None:
    """Go by a plan that was found at once; what is not proven is looked into beside the pages."""
    is_proven = plan.status == "optimal"
    data = SOLVED.written(Solved(plan, is_proven=is_proven))
    if is_proven:
        _keep(kitchen, asked, data)
    else:
        _hand_over(kitchen, asked, data)


def kept_starts(feast: Feast) -> Starts:
    """The starts of the plan that the cook last went by."""
    return {
        (each["dish"], each["step"]): datetime.fromisoformat(each["start"])
        for each in feast.kept_plan or ()
    }


def _solve_at_once(kitchen: Kitchen, asked: Asked) -> bool:
    """Work a plan out that keeps every rule, and keep it; whether there is one."""
    try:
        answer = solve_whole(asked)
    except Exception:
        log.exception("A plan could not be worked out at once: %s", asked.about)
        return False
    if answer is None:
        return False
    _keep(kitchen, asked, SOLVED.written(answer))
    return True


def _keep(kitchen: Kitchen, asked: Asked, data: object) -> None:
    write_if_free(lambda: queue.keep_answer(kitchen, asked.key, asked.stored(), data, asked.about))


def _hand_over(kitchen: Kitchen, asked: Asked, so_far: object = None) -> Work:
    return queue.hand_over(
        kitchen, asked.key, asked.stored(), work_out_plan, so_far=so_far, about=asked.about
    )


def _current(work: Work | None, asked: Asked) -> Solved | Work | None:
    """The plan that was asked for as things stand, or the work on it; None for neither."""
    if work is None:
        return None
    if work.state == Work.State.DONE:
        answer = _answer_of(work)
        return answer if _still_holds(answer, asked.document, _now(asked)) else None
    return work if work.answer is None else _answer_of(work)


def _so_far(before: Plan, read: FeastRead) -> Solved:
    """The plan from before what changed last, with what has happened since."""
    went = [as_it_went(before.steps, each.key, each.steps, each.state) for each in read.dishes]
    return Solved(replace(before, steps=tuple(chain.from_iterable(went))))


def _works(kitchen: Kitchen) -> QuerySet[Work]:
    """The works of a kitchen; what they were asked is read only where it is looked at."""
    return Work.objects.filter(kitchen=kitchen).defer("document")


def _works_by_key(kitchen: Kitchen, questions: Iterable[Asked]) -> Mapping[str, Work]:
    """What was asked for already, by its key, in two queries at most."""
    keys = [asked.key for asked in questions]
    if not keys:
        return {}
    works = _works(kitchen).filter(key__in=keys)
    by_key = {work.key: work for work in works.defer("document", "answer")}
    unread = [work.pk for work in by_key.values() if _name(work) not in _remembered]
    return by_key | {work.key: work for work in works.filter(pk__in=unread)} if unread else by_key


def _plans_before(kitchen: Kitchen, questions: Iterable[Asked]) -> dict[str, Plan]:
    """The last plan of feasts, by what they are asked about, whatever changed since.

    One that was kept in an older shape is none: a new one is on its way.
    """
    abouts = [asked.about for asked in questions]
    works = queue.last_answers(kitchen, abouts) if abouts else ()
    plans = {}
    for work in works:
        try:
            plan = _answer_of(work).plan
        except ValidationError:
            continue
        if plan.steps:
            plans[work.about] = plan
    return plans


def _answer_of(work: Work) -> Solved:
    """The answer to what is done, remembered in this process, or what is known so far."""
    remembered = _remembered.get(_name(work))
    if remembered is not None:
        return remembered
    read = SOLVED.read(work.answer).in_utc()
    if work.state != Work.State.DONE:
        return read
    if len(_remembered) >= MOST_REMEMBERED:
        _remembered.popitem(last=False)
    _remembered[_name(work)] = read
    return read


def _name(work: Work) -> tuple[int, str, datetime]:
    """What an answer is remembered by: whose it is, what was asked, and when."""
    return work.kitchen_id, work.key, work.queued_at


def _now(asked: Asked) -> datetime:
    return datetime.fromisoformat(asked.document["now"])


def _open_steps(document: Document) -> int:
    return sum("ended_at" not in step for dish in document["dishes"] for step in dish["steps"])


def _still_holds(solved: Solved, asked: Document, now: datetime) -> bool:
    """Whether nothing that was planned lies undone in the past by now."""
    plan = solved.plan
    if plan.status == "infeasible":
        return solved.asked_at is not None and timedelta(0) <= now - solved.asked_at < GRID
    facts = [(dish["id"], step) for dish in asked["dishes"] for step in dish["steps"]]
    begun = {(dish, e["id"]) for dish, e in facts if "started_at" in e or "ended_at" in e}
    ended = {(dish, e["id"]) for dish, e in facts if "ended_at" in e}
    done = {
        (dish, each["id"], datetime.fromisoformat(text))
        for dish, each in facts
        for text in each.get("rounds_done", ())
    }
    if (solved.left_out or solved.breaks) and solved.asked_at is not None and now < solved.asked_at:
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
