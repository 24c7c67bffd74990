"""A side job: a dish without a piece."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Any, Final

from pantry_core.dish.answer import DishOut, DishStep, Needed
from pantry_core.dish.clock import Clock
from pantry_core.dish.edits import edited
from pantry_core.dish.flame import of_an_open_flame
from pantry_core.dish.mix_out import mix_of_job
from pantry_core.dish.other_heats import APART_C
from pantry_core.dish.request import DishRequest, Edit, JobAsked
from pantry_core.dish.room import bowl_litres
from pantry_core.dish.said import Spots, verdict_of, with_steps
from pantry_core.dish.stays.laid import laid_out
from pantry_core.dish.stays.places import HEATED, Places
from pantry_core.dish.written import lines_for
from pantry_core.judging.side_jobs import Stood, keeps_as, side_job
from pantry_core.mixes.recipe import ingredient_named
from pantry_core.notice import Notice
from pantry_core.plan.request import OtherHeat
from pantry_core.routes.cooking import at_heat
from pantry_core.routes.customs import KEPT_WARM_C
from pantry_core.routes.jobs import (
    JOBS,
    ROOTS_BETWEEN_C,
    ROOTS_OVEN_C,
    USUAL_REDUCED_TO,
    job_route,
    roots_last,
)

ROOTS: Final = "roast-roots"
ROASTED: Final = "roast"
"""The side job whose hours follow the oven, and its step there."""


def job_out(asked: DishRequest, job: JobAsked) -> DishOut:
    """Work a side job out.

    Parameters: asked; job, its side job, of a known name or with its own steps.
    Returns: its steps, ready to be planned, and its ingredients for all people; it has no sheet and
    no salt.
    Raises: OutOfRange for more than 40 steps; WrongDish for times that do not exist.
    """
    steps, told = edited(_steps(job), asked.edits)
    if job.name == ROOTS and not job.steps:
        steps = tuple(_roots_at(step, asked.edits) for step in steps)
    last = steps[-1].id if steps else None
    clock = Clock(asked)
    needed = _needed(job, asked.people)
    found = [
        *told,
        *of_an_open_flame(steps, clock),
        *_as_it_stands(asked, job, steps, needed, clock),
    ]
    notices = with_steps(found, Spots(last, last, last), is_in=False)
    return DishOut(
        (), None, steps, None, None, None, None, notices, verdict_of(notices),
        ingredients=needed, mix=mix_of_job(asked, job, steps),
    )  # fmt: skip


def _roots_at(step: DishStep, edits: Sequence[Edit]) -> DishStep:
    """Roots in the oven, as long as its heat asks for, with other heats that they can take.

    Hours that the cook set himself stay.
    """
    own_c = step.medium_c
    if step.id != ROASTED or step.medium != "oven" or own_c is None:
        return step
    if own_c != ROOTS_OVEN_C:
        step = replace(step, text=at_heat(step.text, own_c))
    least, most = ROOTS_BETWEEN_C
    is_timed = any(
        edit.step == step.id and (edit.min_h or edit.prefer_h or edit.max_h) for edit in edits
    )
    if is_timed or not least <= own_c <= most:
        return step
    others = (own_c + apart_c for apart_c in APART_C)
    heats = tuple(
        OtherHeat(heat_c=heat_c, **_hours(step, roots_last(heat_c)))
        for heat_c in others
        if least <= heat_c <= most
    )
    return replace(step, heats=heats, **_hours(step, roots_last(own_c)))


def _hours(step: DishStep, factor: float) -> dict[str, Any]:
    """The window of a step, longer by a factor [h]."""
    usual = {"min_h": step.min_h, "prefer_h": step.prefer_h, "max_h": step.max_h}
    return {name: factor * hours for name, hours in usual.items() if hours is not None}


def _as_it_stands(
    asked: DishRequest,
    job: JobAsked,
    steps: Sequence[DishStep],
    needed: Sequence[Needed],
    clock: Clock,
) -> Iterator[Notice]:
    """What is said of how long it stands, and how warm, on the same clock as a piece."""
    places = Places(asked.house)
    stays: list[Stood] = []
    for each in laid_out(steps, None, clock).laid:
        step = each.step
        is_hot = step is not None and (
            (step.medium_c or 0.0) >= KEPT_WARM_C.value or step.place in HEATED
        )
        around_c = places.around_c(step, is_after_heat=any(one.is_hot for one in stays))
        ends_cold = step is not None and "cold_c" in (step.until or {})
        name = step.id if step is not None else ""
        stays.append(Stood(name, each.hours, around_c, is_hot, ends_cold=ends_cold))
    masses = {each.name: each.grams for each in needed}
    keeps = keeps_as(job.keeps, masses, is_cooked=any(each.is_hot for each in stays))
    yield from side_job(keeps, stays, masses)


def _needed(job: JobAsked, people: int | None) -> tuple[Needed, ...]:
    """What goes into it: what the cook says, or what is usual for so much made."""
    if job.recipe is not None:
        return tuple(
            Needed(ingredient_named(each.asked.name).name, each.grams)
            for each in lines_for(job.recipe, job.made_g, people)
            if each.grams
        )
    if job.ingredients is None:
        known = JOBS.get(job.name, JOBS["other"])
        return tuple(Needed(each.name, each.share * job.made_g) for each in known.parts)
    return tuple(
        Needed(each.name, each.grams * ((people or 1) if each.a_head else 1))
        for each in job.ingredients
    )


def _steps(job: JobAsked) -> list[DishStep]:
    litres = bowl_litres(job.made_g)
    if job.steps:
        return [
            DishStep(
                each.id, each.kind or "make", each.title or each.name or each.id, each.text or "",
                each.place, each.min_h, each.prefer_h, each.max_h, each.hands_min, each.attended,
                litres if each.place == "fridge" and "uses" not in each.model_fields_set
                else each.uses, each.every_h, each.tend or "", each.until, each.locked_start,
                each.trip, each.after, medium=each.medium, medium_c=each.medium_c,
            )
            for each in job.steps
        ]  # fmt: skip
    known = JOBS.get(job.name, JOBS["other"])
    return [
        DishStep(
            each.id, each.kind, each.title, each.begin, each.place, each.min_h, each.prefer_h,
            each.max_h, each.hands_min, each.attended, litres if each.place == "fridge" else 1.0,
            each.every_h, each.tend, each.until, trip=each.trip,
            medium=each.medium, medium_c=each.medium_c,
        )
        for each in job_route(known, job.made_g, job.reduced_to or USUAL_REDUCED_TO)
    ]  # fmt: skip
