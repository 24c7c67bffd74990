"""What another dish would do to the plan of a feast, seen before it is added."""

from datetime import datetime

from pantry_core.plan.problem import WrongPlan, resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.text import Sentence
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish, Feast
from pantry_web.kitchens.models import Kitchen
from pantry_web.pantry.models import Vessel
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
    asked = question(read_with(dish, kitchen, now))
    try:
        problems = [
            resolve(PlanRequest.model_validate(readable(each)))
            for each in (asked.document, asked.held)
        ]
    except WrongPlan:
        return ()
    if any(is_possible(problem) for problem in problems):
        return ()
    return tuple(in_few_words(problems[-1], collisions(problems[-1])))


def _keeps_every_rule(whole: FeastOutlook) -> bool:
    """Whether a feast has a plan by which every dish of it is ready in time."""
    is_planned = whole.plan is not None and bool(whole.plan.steps) and not whole.is_from_before
    return is_planned and not (whole.breaks or whole.left_out)
