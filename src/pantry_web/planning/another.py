"""Another dish beside the others of a feast: what it would do to their plan, and their oven."""

from datetime import datetime

from pantry_core.measures.said import span
from pantry_core.plan.problem import WrongPlan, resolve
from pantry_core.plan.request import SHARES_WITHIN_C, PlanRequest
from pantry_core.quantities import Celsius
from pantry_core.text import Sentence, say
from pantry_web.feasts.documents import Document, dish_document
from pantry_web.feasts.models import Dish, Feast
from pantry_web.kitchens.models import Kitchen
from pantry_web.pantry.models import Vessel
from pantry_web.planning.answers import steps_of, work_out
from pantry_web.planning.looking import feast_outlook
from pantry_web.planning.outlook import FeastOutlook
from pantry_web.planning.reading import read_with
from pantry_web.planning.solving import readable
from pantry_web.planning.standing import question


def against_another(
    feast: Feast, kitchen: Kitchen, now: datetime, name: str, document: Document,
    vessel: Vessel | None = None,
) -> tuple[Sentence, ...]:  # fmt: skip
    """What stands against a plan with another dish, in few sentences; nothing is kept.

    Parameters: feast, with its kitchen and the present; name, document and vessel of the dish.
    Returns: nothing where there is a plan with it, as far as a short search tells, or where the
    feast has none without it that keeps every rule.
    """
    from pantry_core.plan.reasons import in_few_words  # noqa: PLC0415 - the solver is slow to import
    from pantry_core.plan.solve import is_possible  # noqa: PLC0415
    from pantry_core.plan.why import collisions  # noqa: PLC0415

    if not _keeps_every_rule(feast_outlook(feast, kitchen, now)):
        return ()
    dish = Dish(feast=feast, name=name, document=document, vessel=vessel)
    with_it = question(read_with(dish, kitchen, now))
    try:
        problems = [
            resolve(PlanRequest.model_validate(readable(each)))
            for each in (with_it.document, with_it.held)
        ]
    except WrongPlan:
        return ()
    if any(is_possible(problem) for problem in problems):
        return ()
    return tuple(in_few_words(problems[-1], collisions(problems[-1])))


def at_the_heat_of_the_oven(whole: FeastOutlook, document: Document) -> tuple[Document, Sentence]:
    """Set a side job to the oven temperature of another dish where the two could not share.

    Parameters: whole; document of a side job as it is decided.
    Returns: the document, and what is said of it; empty where it stays as it is.
    """
    step = next((each for each in steps_of(work_out(_whole(document, whole))) if each.heats), None)
    if not whole.planned_dishes or step is None or step.heat_c is None:
        return document, ""
    hot = [
        (other.prefer_h or other.min_h, other.heat_c, view.dish.name)
        for view in whole.dishes
        if view.key in whole.planned_dishes
        for other in view.steps
        if other.heat_c is not None and other.id not in view.state.begun
    ]
    _, heat_c, name = max(hot, default=(0.0, step.heat_c, ""))
    taken = {"step": step.id, "medium_c": heat_c}
    changed = {**document, "edits": [*document.get("edits", ()), taken]}
    there = next(each for each in steps_of(work_out(_whole(changed, whole))) if each.id == step.id)
    if abs(heat_c - step.heat_c) <= SHARES_WITHIN_C or not there.heats:
        return document, ""
    said = say(
        "{step} at {heat}, as the oven is for {dish}: {hours} instead of {usual}.",
        step=step.title, heat=Celsius(heat_c, 0), dish=name,
        hours=span(there.prefer_h or there.min_h), usual=span(step.prefer_h or step.min_h),
    )  # fmt: skip
    return changed, said


def _whole(document: Document, whole: FeastOutlook) -> Document:
    return dish_document(document, whole.house) | {"people": whole.feast.heads}


def _keeps_every_rule(whole: FeastOutlook) -> bool:
    """Whether the plan of a feast has every dish ready in time."""
    is_planned = whole.plan is not None and bool(whole.plan.steps) and not whole.is_from_before
    return is_planned and not (whole.breaks or whole.left_out)
