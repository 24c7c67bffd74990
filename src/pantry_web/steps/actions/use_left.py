"""Putting what lies in the freezer into a side job."""

from datetime import datetime

from django.utils.translation import gettext

from pantry_core.routes.jobs import JOBS
from pantry_web.feasts.models import Dish
from pantry_web.ledger.models import Leftover
from pantry_web.presses.once import once
from pantry_web.refusal import Refused


@once()
def use_left(job: Dish, left: Leftover, now: datetime) -> None:
    """Put what was kept into a side job, in place of what it has of the same.

    Parameters: job, a side job without a recipe; left; now.
    Raises: Refused for a side job whose recipe says what goes in.
    """
    within = job.document["job"]
    if within.get("recipe"):
        raise Refused(gettext("Its recipe says what goes into it: change the recipe."))
    usual = JOBS.get(within["name"], JOBS["other"]).parts
    parts = within.get("ingredients") or [
        {"name": each.name, "grams": each.share * within["made_g"]} for each in usual
    ]
    rest = [each for each in parts if left.what not in each["name"].lower()]
    parts = [{"name": left.name[:80], "grams": left.mass_g}, *rest]
    job.document = {**job.document, "job": {**within, "ingredients": parts}}
    job.save(update_fields=["document"])
    left.fate, left.ended_at = Leftover.Fate.USED, now
    left.save(update_fields=["fate", "ended_at"])
