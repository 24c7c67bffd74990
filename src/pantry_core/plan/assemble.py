"""From boundaries to the plan that is told: instants in the feast's zone, rounds, notices."""

from collections import defaultdict
from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Literal

from pantry_core.plan.grid import Grid, Span
from pantry_core.plan.problem import Problem, Step
from pantry_core.plan.reasons import span
from pantry_core.plan.result import Job, Plan, PlannedStep, PlanNotice, Round
from pantry_core.plan.rounds import Tended, gathered
from pantry_core.quantities import Clock, Moment
from pantry_core.rules import Mark
from pantry_core.text import say

PROVEN = 1e-9
LITTLE = 1.125
"""Up to so many intervals after the one before a round is hardly late (practice)."""
ON_TIME = timedelta(minutes=15)
"""So much after its hour a dish is on time (practice)."""


def assembled(
    problem: Problem,
    steps: Sequence[PlannedStep],
    present: list[Span],
    gap: float,
    *,
    latest_start: datetime | None = None,
    overrun: Sequence[Step] = (),
) -> Plan:
    """A plan to be told.

    Parameters: problem; steps in UTC; present, spans in which somebody is awake and at home; gap;
    latest_start of the feast, the first start where None; overrun, steps past their longest time.
    """
    zone = problem.zone
    notices = [_overrun(step) for step in overrun]
    rounds, late = _rounds(problem, steps, present)
    notices = [*late, *notices, *_lateness(problem, steps)]
    first = min((each.start for each in steps), default=None)
    told = latest_start or first
    return Plan(
        status="optimal" if gap <= PROVEN else "feasible",
        gap=gap if gap > PROVEN else 0.0,
        steps=tuple(
            PlannedStep(
                each.dish,
                each.step,
                each.start.astimezone(zone),
                each.end.astimezone(zone),
                each.slack_h,
            )
            for each in steps
        ),
        rounds=rounds,
        latest_start=told.astimezone(zone) if told else None,
        notices=tuple(notices),
    )


def _rounds(
    problem: Problem, steps: Sequence[PlannedStep], present: list[Span]
) -> tuple[tuple[Round, ...], list[PlanNotice]]:
    """All rounds, done and to come, and what must be said of those that come late."""
    by_key = {
        (dish.id, step.id): step for dish in problem.dishes for step in (*dish.done, *dish.pending)
    }
    pending = {(dish.id, step.id) for dish in problem.dishes for step in dish.pending}
    jobs: dict[datetime, list[Job]] = defaultdict(list)
    tended: list[Tended] = []
    for planned in steps:
        key = (planned.dish, planned.step)
        step = by_key[key]
        for done in step.rounds_done:
            jobs[done].append(Job(*key))
        if step.every_s is not None and key in pending:
            last = max((planned.start, *step.rounds_done))
            tended.append(Tended(key, last, planned.end, step.every_s))
    overdue = {
        each.key for each in tended if each.last + timedelta(seconds=each.every_s) < problem.now
    }
    gathered(tended, present, Grid(problem.serve_at))
    notices = []
    for each in tended:
        for at in each.jobs:
            jobs[at].append(Job(*each.key))
        for i, at in enumerate(each.late):
            is_overdue = each.key in overdue and i == 0
            local, step = at.astimezone(problem.zone), by_key[each.key]
            before = max((done for done in each.jobs if done < at), default=each.first)
            is_little = at - before <= timedelta(seconds=LITTLE * each.every_s)
            notices.append(_late_round(step, local, is_overdue=is_overdue, is_little=is_little))
    rounds = tuple(Round(at.astimezone(problem.zone), tuple(jobs[at])) for at in sorted(jobs))
    return rounds, notices


def _late_round(step: Step, at: datetime, *, is_overdue: bool, is_little: bool) -> PlanNotice:
    if is_overdue:
        code, cause = "round-overdue", say("A round on {step} is overdue", step=step.name)
    else:
        code = "round-late"
        cause = say("Nobody is awake and at home in time for a round on {step}", step=step.name)
    text = say(
        "{cause}; it comes on {day} at {hour}.",
        cause=cause,
        day=Moment(at, "weekday"),
        hour=Clock(at),
    )
    level: Literal["caution", "note"] = "note" if is_little and not is_overdue else "caution"
    return PlanNotice(level, code, text, str(Mark.PRACTICE))


def _lateness(problem: Problem, steps: Sequence[PlannedStep]) -> list[PlanNotice]:
    """Dishes that are ready more than a quarter hour late; less is on time."""
    ends = {each.dish: each.end for each in sorted(steps, key=lambda each: each.end)}
    notices = []
    for dish in problem.dishes:
        late = ends[dish.id] - dish.serve_at if dish.pending else timedelta(0)
        if late > ON_TIME:
            text = say("{dish} is ready {late} after its hour.", dish=dish.name, late=span(late))
            notices.append(PlanNotice("caution", "late", text, str(Mark.PRACTICE)))
    return notices


def _overrun(step: Step) -> PlanNotice:
    return PlanNotice(
        "caution",
        "past-its-time",
        say(
            "{step} is past its longest time and goes on to the next possible moment.",
            step=step.name,
        ),
        str(Mark.PRACTICE),
    )
