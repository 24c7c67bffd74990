"""What would help a feast that cannot be: changes of the plan, and of the pieces themselves."""

import hashlib
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from django_tasks import task
from pydantic import TypeAdapter, ValidationError

from pantry_core.errors import OutOfRange
from pantry_core.plan.problem import resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Plan
from pantry_core.routes.ways import WAYS, WayName
from pantry_web.feasts.laying import laid_out
from pantry_web.feasts.mixing import Mix, mix_of, work_out
from pantry_web.feasts.models import Feast, Solve
from pantry_web.feasts.planning import (
    FeastOutlook,
    Outlook,
    feast_outlook,
    plan_request,
    step_request,
)
from pantry_web.feasts.solving import handed_over, hurried, key_of
from pantry_web.feasts.state import StepFacts

SHORTER: tuple[WayName, ...] = ("needle-brine", "needle", "strong-brine", "dry-cure", "dry-brine")
"""Methods that may take less time, those nearest to a brine first."""
THINNER = 0.5
"""A piece that is cut in two through its thickness."""
MOST_OF_PIECES = 3

Document = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Remedy:
    """A change that was solved: the whole document with it, or a dish weighed up otherwise."""

    code: str
    text: str
    plan: Plan
    document: Document | None = None
    dish_id: int | None = None
    mix: Mix | None = None


def asked_document(whole: FeastOutlook) -> Document:
    """The plan that is asked for, as JSON data."""
    request = plan_request(whole, hold=True)
    return request.model_dump(mode="json", by_alias=True, exclude_defaults=True)


def remedies(whole: FeastOutlook) -> list[Remedy] | Solve:
    """What would help, each really solved, and kept while nothing changes.

    Returns: the remedies, or what is worked out beside the pages and not done yet.
    """
    plan = whole.plan
    if plan is None or plan.status != "infeasible":
        return []
    document = asked_document(whole)
    asked = {"feast": whole.feast.pk, "now": whole.now.isoformat(), "plan": document}
    key = key_of("helps", whole.now, (whole.feast.pk, {**document, "now": ""}))
    row = Solve.objects.filter(key=key).first()
    row = (
        handed_over(key, asked, work_out_remedies)
        if row is None
        else hurried(row, work_out_remedies)
    )
    return row if row.answer is None else _REMEDIES.validate_python(row.answer, strict=False)


@task()
def work_out_remedies(key: str) -> None:
    """Work out what would help the feast that a row asks for, as it stood then."""
    row = Solve.objects.get(key=key)
    Solve.objects.filter(key=key).update(state=Solve.State.RUNNING)
    feast = Feast.objects.select_related("kitchen").get(pk=row.document["feast"])
    whole = feast_outlook(feast, feast.kitchen, datetime.fromisoformat(row.document["now"]))
    document = row.document["plan"]
    plan = whole.plan
    found: list[Remedy] = []
    if plan is not None and plan.status == "infeasible":
        found = [*_of_pieces(whole, document, plan), *_of_the_plan(document, plan)]
    Solve.objects.filter(key=key).update(
        answer=_REMEDIES.dump_python(found, mode="json"), state=Solve.State.DONE
    )


def _of_the_plan(document: Document, plan: Plan) -> Iterator[Remedy]:
    from pantry_core.plan import remedies as core  # noqa: PLC0415 - the solver is slow to import

    problem = resolve(PlanRequest.model_validate(document))
    for each in core.remedies(document, problem, plan):
        yield Remedy(_code(each.text), each.text, each.plan, document=each.input)


def _of_pieces(whole: FeastOutlook, document: Document, plan: Plan) -> Iterator[Remedy]:
    """Another method or a thinner piece for the dishes that collide."""
    from pantry_core.plan.solve import is_possible  # noqa: PLC0415 - the solver is slow to import
    from pantry_core.plan.solve import plan as solve  # noqa: PLC0415

    named = {each.dish for each in plan.why}
    offered = 0
    for view in whole.dishes:
        if view.key not in named or view.mixed is None or view.state.begun:
            continue
        for text, mix in _other_mixes(mix_of(view.dish)):
            changed = _with_mix(whole, view, document, mix)
            if changed is None or not is_possible(resolve(changed)):
                continue
            solved = solve(resolve(changed), effort=0.3)
            if not solved.steps:
                continue
            told = f"{text} for {view.dish.name}."
            yield Remedy(_code(told), told, solved, dish_id=view.dish.pk, mix=mix)
            offered += 1
            if offered == MOST_OF_PIECES:
                return


def _other_mixes(mix: Mix) -> Iterator[tuple[str, Mix]]:
    if mix.way.timing in ("school", "model") and mix.method != "dry-brine":
        thinner = replace(mix, thickness_mm=THINNER * mix.thickness_mm, is_thickness_guessed=False)
        yield "A thinner piece, cut in two,", thinner
    for name in SHORTER:
        way = WAYS[name]
        if name == mix.method or way.group == mix.way.group == "Needle":
            continue
        water_g = mix.water_g or mix.mass_g if way.has_water else mix.water_g
        yield way.name, replace(mix, method=name, water_g=water_g)


def _with_mix(
    whole: FeastOutlook, view: Outlook, document: Document, mix: Mix
) -> PlanRequest | None:
    """The document with the steps of one dish taken from another mix; None where it is stopped."""
    try:
        mixed = work_out(mix, whole.house)
    except (ValidationError, OutOfRange):
        return None
    if mixed.stops:
        return None
    changed = {**document, "dishes": [dict(each) for each in document["dishes"]]}
    dish = next(each for each in changed["dishes"] if each["id"] == view.key)
    dish["steps"] = [
        step_request(step, StepFacts()).model_dump(
            mode="json", by_alias=True, exclude_defaults=True
        )
        for step in laid_out(view.dish, mixed)
    ]
    return PlanRequest.model_validate(changed)


_REMEDIES = TypeAdapter(list[Remedy])


def _code(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()[:16]
