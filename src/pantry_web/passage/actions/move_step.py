"""Moving a step to an hour, and back."""

from datetime import datetime

from pantry_core.plan.result import Plan
from pantry_web.feasts.actions.claim import claim
from pantry_web.feasts.actions.keep_edits import edits_of, keep_edits
from pantry_web.feasts.actions.keep_plan import keep_plan
from pantry_web.feasts.actions.log.put_off import put_off_no_longer
from pantry_web.feasts.actions.unlock_steps import unlock_steps
from pantry_web.kitchens.models import Cook
from pantry_web.planning.outlook import Outlook
from pantry_web.presses.once import once


@once()
def move_step(
    view: Outlook, by: Cook, key: str, start: datetime | None, seen: int, *, before: Plan | None
) -> None:
    """Fix a step to begin at an hour, or let it begin when it may.

    Parameters: view; by; key of the step; start, None to let it go; seen, the version of the feast
    that was looked at; before, the plan that the others stay by as far as they can, None where they
    stay by what was kept already.
    Raises: Refused when somebody has changed the feast since, or of too many changes.
    """
    claim(view.dish.feast, seen)
    if before is not None:
        keep_plan(view.dish.feast, before)
    put_off_no_longer(view, by, key)
    if start is None:
        unlock_steps(view.dish, [key])
        return
    edits = edits_of(view.dish)
    edit = {**edits.get(key, {"step": key}), "locked_start": start.isoformat()}
    keep_edits(view.dish, {**edits, key: edit})
