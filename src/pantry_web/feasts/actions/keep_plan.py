"""Keeping the plan that the cook goes by, and planning afresh."""

from pantry_core.plan.result import Plan
from pantry_web.feasts.models import Feast
from pantry_web.presses.once import once


@once()
def keep_plan(feast: Feast, plan: Plan | None) -> None:
    """Keep a plan, so that what changes later is told; an impossible one is not kept."""
    if plan is None or not plan.steps:
        return
    feast.kept_plan = [
        {"dish": each.dish, "step": each.step, "start": each.start.isoformat(),
         "end": each.end.isoformat()}
        for each in plan.steps
    ]  # fmt: skip
    known = {(each["dish"], each["step"]) for each in feast.first_plan or ()}
    feast.first_plan = [
        *(feast.first_plan or ()),
        *(each for each in feast.kept_plan if (each["dish"], each["step"]) not in known),
    ]
    feast.save(update_fields=["kept_plan", "first_plan"])


@once()
def plan_afresh(feast: Feast) -> None:
    """Plan as if there had been no plan before; what has happened stays."""
    feast.kept_plan = None
    feast.save(update_fields=["kept_plan"])
