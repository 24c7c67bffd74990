"""The dishes of a feast as its page lists them."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from pantry_core.rules.raw_clock import leftovers_keep_d
from pantry_web.feasts.choices import method_name
from pantry_web.feasts.documents import sides_of
from pantry_web.planning.hands import Task, feast_tasks
from pantry_web.planning.outlook import FeastOutlook, Outlook


@dataclass(frozen=True, slots=True)
class DishRow:
    """A dish in the list: what comes next, when it begins, until when leftovers keep."""

    view: Outlook
    method: str
    next: Task | None
    begins: datetime | None
    latest: datetime | None
    leftovers_until: datetime


def dish_rows(whole: FeastOutlook) -> list[DishRow]:
    """All dishes, those given up last."""
    coming: dict[str, Task] = {}
    for view, task in feast_tasks(whole):
        coming.setdefault(view.key, task)
    rows = []
    for view in whole.dishes:
        plan = view.plan
        ahead = [each for each in plan.steps if each.start < each.end] if plan else []
        days = leftovers_keep_d(is_raw_fish=sides_of(view.dish.document)["fish"] != "cooked")
        served = view.dish.serve_at or whole.feast.serve_at
        rows.append(
            DishRow(
                view, method_name(view.dish.cure.get("method", "")), coming.get(view.key),
                ahead[0].start if ahead else None, plan.latest_start if plan else None,
                served + timedelta(days=days),
            )
        )  # fmt: skip
    return sorted(rows, key=lambda row: row.view.dish.is_given_up)
