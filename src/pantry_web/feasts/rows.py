"""The dishes of a feast as its page lists them."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from pantry_core.rules.rule import Mark, Rule
from pantry_web.feasts.planning import FeastOutlook, Outlook
from pantry_web.feasts.tasks import Task, feast_tasks

LEFTOVERS_D = Rule("leftovers", 4.0, "d", "USDA, leftovers 3 to 4 days", Mark.MEMORY)
RAW_LEFTOVERS_D = Rule("leftovers-raw-cured", 3.0, "d", "unwrapped", Mark.PRACTICE)


@dataclass(frozen=True, slots=True)
class DishRow:
    """A dish in the list: what comes next, when it begins, until when leftovers keep."""

    view: Outlook
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
        keeps = RAW_LEFTOVERS_D if view.dish.customs.get("fish", "cooked") != "cooked" else None
        days = (keeps or LEFTOVERS_D).value
        served = view.dish.serve_at or whole.feast.serve_at
        rows.append(
            DishRow(
                view, coming.get(view.key),
                ahead[0].start if ahead else None, plan.latest_start if plan else None,
                served + timedelta(days=days),
            )
        )  # fmt: skip
    return sorted(rows, key=lambda row: row.view.dish.is_given_up)
