"""What could still be made of a piece by the hour of a feast, beside what is planned already."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django_tasks import task
from pydantic import TypeAdapter

from pantry_core.plan.problem import GRID, Problem, resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.routes.cooking import usual_early_min
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.ways import WAYS, Way, WayName
from pantry_core.text import Sentence, joined, say
from pantry_web.background import queue
from pantry_web.background.answers import Answers
from pantry_web.background.models import Work
from pantry_web.feasts.documents import dish_document
from pantry_web.feasts.models import Feast
from pantry_web.planning.answers import Broken, work_out
from pantry_web.planning.documents.plan_document import steps_document
from pantry_web.planning.looking import feast_outlook
from pantry_web.planning.outlook import FeastOutlook
from pantry_web.planning.solving import without

NEW = "new"
UNSETTLED = say("The search found neither a plan nor a reason why there is none.")

Document = dict[str, Any]


@dataclass(frozen=True, slots=True)
class MethodOption:
    """A method, whether it would be done in time, why not, and when it would have to begin."""

    method: WayName
    can: bool
    why: Sentence
    begin_by: datetime | None = None

    @property
    def way(self) -> Way:
        """The method itself."""
        return WAYS[self.method]


_OPTIONS = Answers("options", TypeAdapter(list[MethodOption]))


@dataclass(frozen=True, slots=True)
class MethodOptions:
    """The answers so far, those that can be done first, and how many methods there are to try."""

    answers: list[MethodOption]
    tried: int
    is_done: bool
    has_failed: bool = False

    @property
    def possible(self) -> int:
        """How many of the methods would be done in time, as far as is known."""
        return sum(each.can for each in self.answers)


def method_options(whole: FeastOutlook, piece: Document) -> MethodOptions:
    """Every method that goes with a cut, yes or no, with the reason, as far as it was asked for.

    Dishes that cannot be done together as it is are left aside.

    Parameters: whole; piece, of the `dish` document.
    """
    ways = _ways(piece["cut"])
    work = queue.asked_for(whole.kitchen, _key(whole, piece))
    if work is None:
        return MethodOptions([], len(ways), is_done=False)
    answers = _OPTIONS.read(work.answer or [])
    return MethodOptions(
        sorted(answers, key=lambda each: not each.can),
        len(ways),
        is_done=work.state == Work.State.DONE,
        has_failed=work.state == Work.State.FAILED,
    )


def ask_for_options(whole: FeastOutlook, piece: Document) -> None:
    """Ask which methods go with a piece, once the plan is there and once a quarter of an hour."""
    if whole.solving is None and not whole.standing.is_to_be_asked_for:
        request = {"feast": whole.feast.pk, "now": whole.now.isoformat(), "piece": piece}
        queue.hand_over(whole.kitchen, _key(whole, piece), request, work_out_options)


def _key(whole: FeastOutlook, piece: Document) -> str:
    plan = {**whole.plan_documents[0], "now": ""}
    quarter = whole.now.timestamp() // GRID.total_seconds()
    return _OPTIONS.key_of((quarter, plan, piece))


@task()
def work_out_options(pk: int) -> None:
    """Work out method by method what could still be made, telling each as soon as it is known."""

    def deed(report: queue.Report) -> object:
        asked = report.document
        feast = Feast.objects.select_related("kitchen").get(pk=asked["feast"])
        now = datetime.fromisoformat(asked["now"])
        whole = feast_outlook(feast, feast.kitchen, now)
        answers: list[MethodOption] = []
        for way in _ways(asked["piece"]["cut"]):
            answers.append(_option(whole, asked["piece"], way))
            report.answer(_OPTIONS.written(answers))
        return _OPTIONS.written(answers)

    queue.carry_out(pk, deed)


def _ways(cut_id: str) -> list[Way]:
    is_vegetable = CUTS[cut_id].kind == "vegetable"
    fitting = (way for way in WAYS.values() if is_vegetable == (way.group == "Side"))
    return [way for way in fitting if way.method != "mixed-in"]


def _option(whole: FeastOutlook, piece: Document, way: Way) -> MethodOption:
    from pantry_core.plan.reasons import in_few_words  # noqa: PLC0415
    from pantry_core.plan.solve import latest_begin  # noqa: PLC0415 - the solver is slow to import
    from pantry_core.plan.why import explain  # noqa: PLC0415

    found = _asked(whole, piece, way)
    if isinstance(found, str):
        return MethodOption(way.id, can=False, why=found)
    begin_by = latest_begin(found, NEW)
    if begin_by is not None:
        return MethodOption(way.id, can=True, why=way.gives_up, begin_by=begin_by)
    why = joined(" ", in_few_words(found, explain(found).why))
    return MethodOption(way.id, can=False, why=why or UNSETTLED)


def _asked(whole: FeastOutlook, piece: Document, way: Way) -> Problem | str:
    """The feast with the piece made this way, or what stops it."""
    decided = {"piece": piece, "cure": {"method": way.id}}
    answer = work_out(dish_document(decided, whole.house))
    if isinstance(answer, Broken):
        return joined("; ", (each.what for each in answer.problems))
    if answer.stops:
        return answer.stops[0].text
    planned = bool(whole.plan and whole.plan.steps)
    left_out = {each.key for each in whole.dishes if not planned or each.why_left_out}
    document = without(whole.plan_documents[0], left_out)
    new = {
        "id": NEW, "name": say("This piece"), "early_max_min": usual_early_min([None], 1),
        "steps": steps_document(answer.steps),
    }  # fmt: skip
    return resolve(PlanRequest.model_validate({**document, "dishes": [*document["dishes"], new]}))
