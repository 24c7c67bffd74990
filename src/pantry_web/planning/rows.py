"""The dishes of a feast as its page lists them."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from pantry_core.plan.costs import costs
from pantry_core.rules.raw_clock import leftovers_keep
from pantry_web.feasts.choices import method_name
from pantry_web.feasts.documents import sides_of
from pantry_web.planning.hands import Task, lost_waits, tasks
from pantry_web.planning.outlook import FeastOutlook, Outlook

MOST_COSTS = 2


@dataclass(frozen=True, slots=True)
class DishRow:
    """A dish in the list: what comes next, when it begins, until when leftovers keep.

    `costs` are the steps that are not as long as they should be: which, by how much [h], and
    whether it is longer.
    """

    view: Outlook
    method: str
    next: Task | None
    begins: datetime | None
    latest: datetime | None
    leftovers_until: datetime
    costs: tuple[tuple[str, float, bool], ...] = ()
    lost_waits: tuple[str, ...] = ()


def dish_rows(whole: FeastOutlook) -> list[DishRow]:
    """All dishes, those given up last."""
    rows = []
    for view in whole.dishes:
        plan, left = view.plan, tasks(view)
        ahead = [each for each in plan.steps if each.start < each.end] if plan else []
        days = leftovers_keep(is_raw_fish=sides_of(view.dish.document)["fish"] != "cooked").value
        served = view.dish.serve_at or whole.feast.serve_at
        rows.append(
            DishRow(
                view, method_name(view.dish.cure.get("method", "")),
                left[0] if left and not view.dish.is_given_up else None,
                ahead[0].start if ahead else None, plan.latest_start if plan else None,
                served + timedelta(days=days), _costs(view), lost_waits(view),
            )
        )  # fmt: skip
    return sorted(rows, key=lambda row: row.view.dish.is_given_up)


def _costs(view: Outlook) -> tuple[tuple[str, float, bool], ...]:
    if view.plan is None:
        return ()
    steps = {step.id: step for step in view.steps}
    wished = {key: step.prefer_h for key, step in steps.items()}
    return tuple(
        (steps[each.step].title, abs(each.by_h), each.by_h > 0)
        for each in costs(view.plan.steps, wished, view.now)[:MOST_COSTS]
        if each.step in steps
    )
