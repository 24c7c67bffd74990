"""What has changed in the plan since the cook last went by it."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from pantry_core.dish.answer import DishStep
from pantry_core.measures.said import span
from pantry_core.plan.result import Plan
from pantry_core.text import say
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.quantities import hours_of


@dataclass(frozen=True, slots=True)
class Change:
    """One step that moved, came or went; `how` says by how much.

    `of` and `step` are the keys of its dish and its own.
    """

    of: str
    step: str
    dish: str
    title: str
    kind: Literal["moved", "new", "gone"]
    before: datetime | None
    after: datetime | None
    how: str


def changes(whole: FeastOutlook) -> list[Change]:
    """Steps that start elsewhere than in the kept plan, in the order of their time.

    Only what lies ahead is told: the past stays as it was.
    """
    kept = whole.feast.kept_plan
    plan = whole.plan
    if not kept or plan is None or not plan.steps or whole.is_from_before:
        return []
    before = {
        (each["dish"], each["step"]): datetime.fromisoformat(each["start"])
        for each in kept
        if each["start"] != each["end"]
    }
    return changes_between(whole, before, plan)


def changes_between(
    whole: FeastOutlook, before: Mapping[tuple[str, str], datetime], plan: Plan
) -> list[Change]:
    """Steps that lie ahead and start elsewhere in a plan than before, in the order of their time.

    Parameters: whole; before, the starts by dish and step; plan.
    """
    after, found = starts_of(plan), []
    for view in whole.dishes:
        for step in view.steps:
            key = (view.key, step.id)
            was, now = before.get(key), after.get(key)
            latest = max((moment for moment in (was, now) if moment), default=whole.now)
            if was != now and step.id not in view.state.begun and latest >= whole.now:
                found.append(_change(view, step, was, now))
    return sorted(found, key=lambda each: each.after or each.before or whole.now)


def starts_of(plan: Plan) -> dict[tuple[str, str], datetime]:
    """The starts of steps that take any time, by their dish and key."""
    return {(each.dish, each.step): each.start for each in plan.steps if each.start != each.end}


def _change(view: Outlook, step: DishStep, was: datetime | None, now: datetime | None) -> Change:
    if was is None or now is None:
        kind: Literal["moved", "new", "gone"] = "new" if was is None else "gone"
        how = say("new") if was is None else say("falls away")
        return Change(view.key, step.id, view.dish.name, step.title, kind, was, now, how)
    length = span(abs(hours_of(now - was)))
    moved = (
        say("{length} later", length=length)
        if now > was
        else say("{length} earlier", length=length)
    )
    return Change(view.key, step.id, view.dish.name, step.title, "moved", was, now, moved)
