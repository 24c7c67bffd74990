"""A side job: a dish without a piece."""

from collections.abc import Sequence

from pantry_core.dish.answer import DishOut, DishStep
from pantry_core.dish.edits import edited
from pantry_core.dish.request import Edit, JobAsked
from pantry_core.dish.room import bowl_litres
from pantry_core.dish.said import Spots, verdict_of, with_steps
from pantry_core.routes.jobs import JOBS, job_route


def job_out(job: JobAsked, edits: Sequence[Edit]) -> DishOut:
    """Work a side job out.

    Parameters: job, of a known name or with its own steps; edits of its steps.
    Returns: its steps, ready to be planned; it has no sheet and no salt.
    Raises: OutOfRange for more than 40 steps.
    """
    steps, told = edited(_steps(job), edits)
    last = steps[-1].id if steps else None
    notices = with_steps(told, Spots(last, last, last), is_in=False)
    return DishOut((), None, steps, None, None, None, None, notices, verdict_of(notices))


def _steps(job: JobAsked) -> list[DishStep]:
    if job.steps:
        return [
            DishStep(
                each.id, each.kind or "make", each.title or each.name or each.id, each.text or "",
                each.place, each.min_h, each.prefer_h, each.max_h, each.hands_min, each.attended,
                each.uses, each.every_h, each.tend or "", each.until, each.locked_start,
            )
            for each in job.steps
        ]  # fmt: skip
    known = JOBS.get(job.name, JOBS["other"])
    litres = bowl_litres(job.made_g)
    return [
        DishStep(
            each.id, each.kind, each.title, each.begin, each.place, each.min_h, each.prefer_h,
            each.max_h, each.hands_min, each.attended, litres if each.place == "fridge" else 1.0,
            each.every_h, each.tend, each.until,
        )
        for each in job_route(known, job.made_g)
    ]  # fmt: skip
