"""Keeping the plan that the cook goes by."""

from pantry_core.plan.result import Plan
from pantry_web.feasts.models import Feast


def keep_plan(feast: Feast, plan: Plan | None) -> None:
    """Keep a plan, so that what changes later is told; an impossible one is not kept."""
    if plan is None or not plan.steps:
        return
    feast.kept_plan = [
        {"dish": each.dish, "step": each.step, "start": each.start.isoformat(),
         "end": each.end.isoformat()}
        for each in plan.steps
    ]  # fmt: skip
    feast.save(update_fields=["kept_plan"])
