"""What could still be made of a piece by the hour of a feast, beside what is planned already."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django_tasks import task
from pydantic import TypeAdapter, ValidationError

from pantry_core.errors import OutOfRange
from pantry_core.plan.problem import Problem, resolve
from pantry_core.plan.request import DishRequest, PlanRequest
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.ways import WAYS, Way, WayName
from pantry_web.feasts.actions.save_dish import USUAL_EARLY_MIN
from pantry_web.feasts.laying import laid_out
from pantry_web.feasts.mixing import Mix, work_out
from pantry_web.feasts.models import Dish, Feast, Solve
from pantry_web.feasts.planning import FeastOutlook, feast_outlook, plan_request, step_request
from pantry_web.feasts.solving import handed_over, hurried, key_of
from pantry_web.feasts.state import StepFacts

NEW = "new"

Document = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Still:
    """A method, whether it would be done in time, why not, and when it would have to begin."""

    method: WayName
    can: bool
    why: str
    begin_by: datetime | None = None

    @property
    def way(self) -> Way:
        """The method itself."""
        return WAYS[self.method]


@dataclass(frozen=True, slots=True)
class Told:
    """The answers so far, those that can be done first, and how many methods there are to try."""

    answers: list[Still]
    tried: int
    is_done: bool

    @property
    def possible(self) -> int:
        """How many of the methods would be done in time, as far as is known."""
        return sum(each.can for each in self.answers)


def what_still(whole: FeastOutlook, cut_id: str, piece: Document) -> Told:
    """Every method that goes with a cut, yes or no, with the reason; worked out beside the pages.

    Dishes that cannot be done together as it is are left aside.

    Parameters: whole; cut_id; piece, mass_g [g], thickness_mm [mm] and is_frozen of the piece.
    """
    if whole.solving is not None:
        return Told([], len(_ways(cut_id)), is_done=False)
    plan = plan_request(whole, hold=False).model_dump(mode="json", exclude={"now"})
    asked = {"feast": whole.feast.pk, "now": whole.now.isoformat(), "cut": cut_id, "piece": piece}
    key = key_of("still", whole.now, ({**asked, "now": ""}, plan))
    row = Solve.objects.filter(key=key).first()
    row = handed_over(key, asked, work_out_still) if row is None else hurried(row, work_out_still)
    answers = _ANSWERS.validate_python(row.answer or [], strict=False)
    return Told(
        sorted(answers, key=lambda each: not each.can),
        len(_ways(cut_id)),
        row.state == Solve.State.DONE,
    )


@task()
def work_out_still(key: str) -> None:
    """Work out method by method what could still be made, telling each as soon as it is known."""
    row = Solve.objects.get(key=key)
    rows = Solve.objects.filter(key=key)
    rows.update(state=Solve.State.RUNNING)
    feast = Feast.objects.select_related("kitchen").get(pk=row.document["feast"])
    whole = feast_outlook(feast, feast.kitchen, datetime.fromisoformat(row.document["now"]))
    answers: list[Still] = []
    for way in _ways(row.document["cut"]):
        answers.append(_told(whole, row.document["cut"], row.document["piece"], way))
        rows.update(answer=_ANSWERS.dump_python(answers, mode="json"))
    rows.update(state=Solve.State.DONE)


_ANSWERS = TypeAdapter(list[Still])


def _ways(cut_id: str) -> list[Way]:
    is_vegetable = CUTS[cut_id].kind == "vegetable"
    return [way for way in WAYS.values() if is_vegetable == (way.group == "Side")]


def _told(whole: FeastOutlook, cut_id: str, piece: Document, way: Way) -> Still:
    from pantry_core.plan.reasons import in_few_words  # noqa: PLC0415
    from pantry_core.plan.solve import latest_begin  # noqa: PLC0415 - the solver is slow to import
    from pantry_core.plan.why import explain  # noqa: PLC0415

    found = _asked(whole, cut_id, piece, way)
    if isinstance(found, str):
        return Still(way.id, can=False, why=found)
    begin_by = latest_begin(found, NEW)
    if begin_by is not None:
        return Still(way.id, can=True, why=way.gives_up, begin_by=begin_by)
    why = " ".join(in_few_words(found, explain(found).why))
    return Still(way.id, can=False, why=why or UNSETTLED)


UNSETTLED = "The search found neither a plan nor a reason why there is none."


def _asked(whole: FeastOutlook, cut_id: str, piece: Document, way: Way) -> Problem | str:
    """The feast with the piece made this way, or what stops it."""
    mix = Mix(
        cut=cut_id, bone_share=CUTS[cut_id].bone_share, method=way.id,
        target_salt_pct=way.usual_salt_pct, water_g=piece["mass_g"] if way.has_water else None,
        **piece,
    )  # fmt: skip
    try:
        mixed = work_out(mix, whole.house)
    except (ValidationError, OutOfRange):
        return "The numbers lie outside what the rules know."
    if mixed.stops:
        return mixed.stops[0].text
    dish = Dish(name="This piece", **piece)
    steps = tuple(step_request(step, StepFacts()) for step in _without_hold(laid_out(dish, mixed)))
    request = plan_request(whole, hold=False)
    others = request.dishes if whole.plan and whole.plan.steps else ()
    new = DishRequest(id=NEW, name="This piece", early_max_min=USUAL_EARLY_MIN, steps=steps)
    asked: PlanRequest = request.model_copy(update={"dishes": (*others, new)})
    return resolve(asked)


def _without_hold(steps: list[Any]) -> Iterator[Any]:
    return (step for step in steps if step.kind != "hold")
