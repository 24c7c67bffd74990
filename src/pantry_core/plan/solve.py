"""The best plan, in the order of weight: wishes first, then start late, then few visits."""

from collections import defaultdict
from dataclasses import dataclass
from datetime import datetime, timedelta

from ortools.sat.python import cp_model

from pantry_core.plan.grid import Grid, Span, awake_spans, home_spans, overlap
from pantry_core.plan.model import Model, build, solve
from pantry_core.plan.problem import Problem, Step
from pantry_core.plan.result import Job, Plan, PlannedStep, PlanNotice, Round
from pantry_core.plan.rounds import MOST, visits
from pantry_core.plan.visits import count_visits
from pantry_core.plan.why import explain
from pantry_core.rules import Mark


@dataclass
class _Search:
    """The model as it is narrowed, the best solution so far, and whether all of it is proven."""

    model: Model
    best: cp_model.CpSolver
    proven: bool

    def improve(self) -> None:
        """Solve for the present objective; the old solution stays when none is found."""
        status, found = solve(self.model, hint=self.best)
        self.proven = self.proven and status == cp_model.OPTIMAL
        if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            self.best = found


def plan(problem: Problem) -> Plan:
    """Plan one dish backwards from its hour.

    Parameters: problem, times in UTC, windows [s].
    Returns: the plan, its instants in the problem's zone; `slack_h` [h]; when there is none, why,
    and the earliest hour it could be served with the present start. The same problem gives the same
    plan.
    Raises: nothing.
    Source: the rules of the `plan` document; constraint solving by OR-Tools CP-SAT.
    """
    if not problem.dish.pending:
        return _assembled(problem, _past(problem), [], 0.0)
    horizon = problem.dish.serve_at
    awake = awake_spans(problem, problem.now, horizon)
    home = home_spans(problem, problem.now, horizon)
    present = overlap(awake, home)
    model = _kept(build(problem, awake, home, horizon))
    wish = _wish(model)
    model.cp.minimize(wish)
    status, solver = solve(model)
    if status == cp_model.INFEASIBLE:
        return explain(problem)
    if status == cp_model.UNKNOWN:
        return Plan(status="unsettled")
    hours, bound = solver.objective_value / 3600, solver.best_objective_bound / 3600
    search = _Search(model, solver, status == cp_model.OPTIMAL)
    model.cp.add(wish <= round(solver.objective_value))
    if model.begun_s is None:
        model.cp.maximize(model.bounds[0])
        search.improve()
        model.cp.add(model.bounds[0] >= search.best.value(model.bounds[0]))
    if count_visits(model, problem, present):
        search.improve()
    latest = _latest_starts(_kept(build(problem, awake, home, horizon)))
    steps = _past(problem) + _pending(problem, search, latest)
    gap = 0.0 if search.proven else (hours - bound) / max(1.0, hours)
    first_latest = latest.get(0)
    return _assembled(
        problem,
        steps,
        present,
        gap,
        status="optimal" if search.proven else "feasible",
        latest_start=None if first_latest is None else model.grid.moment(first_latest),
        overrun=problem.dish.pending[0].id if model.overrun else None,
    )


def _kept(model: Model) -> Model:
    """The model with all of its named constraints in force."""
    model.cp.add_bool_and(list(model.groups.values()))
    return model


def _wish(model: Model) -> cp_model.LinearExprT:
    """Total deviation from the wished lengths [s]; a step past its time wishes to end."""
    deviations = []
    for i, step in enumerate(model.steps):
        wished = step.max_s if i == 0 and model.overrun else step.prefer_s
        if wished is None:
            continue
        deviation = model.cp.new_int_var(0, 2**40, f"deviation-{i}")
        model.cp.add_abs_equality(deviation, model.length_s(i) - wished)
        deviations.append(deviation)
    return cp_model.LinearExpr.sum(deviations)


def _latest_starts(model: Model) -> dict[int, int]:
    """Latest slot at which each step with an open start could begin, the others moving."""
    latest = {}
    for i in model.planned():
        model.cp.maximize(model.bounds[i])
        _, solver = solve(model)
        latest[i] = solver.value(model.bounds[i])
    return latest


def _past(problem: Problem) -> list[PlannedStep]:
    dish = problem.dish
    return [
        PlannedStep(dish.id, step.id, step.started_at, step.ended_at, 0.0)
        for step in dish.done
        if step.started_at is not None and step.ended_at is not None
    ]


def _pending(problem: Problem, search: _Search, latest: dict[int, int]) -> list[PlannedStep]:
    dish, model = problem.dish, search.model
    slots = [search.best.value(bound) for bound in model.bounds]
    moments = [model.grid.moment(slot) for slot in slots]
    if dish.begun_at is not None:
        moments[0] = dish.begun_at
    return [
        PlannedStep(
            dish.id, step.id, moments[i], moments[i + 1], (latest.get(i, slots[i]) - slots[i]) / 4
        )
        for i, step in enumerate(dish.pending)
    ]


def _assembled(
    problem: Problem,
    steps: list[PlannedStep],
    present: list[Span],
    gap: float,
    *,
    status: str = "optimal",
    latest_start: datetime | None = None,
    overrun: str | None = None,
) -> Plan:
    dish, zone = problem.dish, problem.zone
    by_id = {step.id: step for step in (*dish.done, *dish.pending)}
    jobs: dict[datetime, list[Job]] = defaultdict(list)
    notices = []
    pending = {step.id for step in dish.pending}
    for planned in steps:
        step = by_id[planned.step]
        for done in step.rounds_done:
            jobs[done].append(Job(dish.id, step.id))
        if step.every_s is None or step.id not in pending:
            continue
        last = max((planned.start, *step.rounds_done))
        found = visits(
            last,
            planned.end,
            step.every_s,
            present,
            Grid(dish.serve_at),
        )
        for moment in found.at:
            jobs[moment].append(Job(dish.id, step.id))
        overdue = last + timedelta(seconds=MOST * step.every_s) < problem.now
        for i, moment in enumerate(found.late):
            is_overdue = overdue and i == 0
            notices.append(_late_round(step, moment.astimezone(zone), is_overdue=is_overdue))
    if overrun is not None:
        notices.append(_overrun(overrun))
    return Plan(
        status="optimal" if status == "optimal" else "feasible",
        gap=gap,
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
        rounds=tuple(Round(at.astimezone(zone), tuple(jobs[at])) for at in sorted(jobs)),
        latest_start=(latest_start or steps[0].start).astimezone(zone) if steps else None,
        notices=tuple(notices),
    )


def _late_round(step: Step, at: datetime, *, is_overdue: bool) -> PlanNotice:
    if is_overdue:
        code, cause = "round-overdue", f"A round on {step.id} is overdue"
    else:
        code = "round-late"
        cause = f"Nobody is awake and at home in time for a round on {step.id}"
    text = f"{cause}; it comes on {at:%A} at {at:%H:%M}."
    return PlanNotice("caution", code, text, str(Mark.PRACTICE))


def _overrun(step_id: str) -> PlanNotice:
    return PlanNotice(
        "caution",
        "past-its-time",
        f"{step_id} is past its longest time and goes on to the next possible moment.",
        str(Mark.PRACTICE),
    )
