"""What would have to move if a step began at another hour."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime

from pantry_core.plan.changes import Lock, Unlock, applied
from pantry_core.plan.problem import GRID, Problem, resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Plan
from pantry_core.quantities import Moment
from pantry_core.text import Sentence, say
from pantry_web.planning.changes import Change, changes_between, starts_of
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.planning.solving import Document, without

EFFORT = 0.3
"""A share of the usual limits: whoever moves a step waits for it."""


@dataclass(frozen=True, slots=True)
class Move:
    """A step at another hour: the plan there is then and what moves with it, or why there is none.

    `title` and `dish` name it.
    """

    dish: str
    step: str
    title: Sentence
    start: datetime
    plan: Plan | None = None
    why: tuple[Sentence, ...] = ()
    changes: tuple[Change, ...] = ()

    @property
    def others(self) -> tuple[Change, ...]:
        """What would have to move besides the step itself."""
        return tuple(
            each for each in self.changes if each.step != self.step or each.of != self.dish
        )


def quarter(whole: FeastOutlook, moment: datetime) -> datetime:
    """The quarter hour, counted from the feast, that is nearest to a moment."""
    serve_at = whole.feast.serve_at
    return serve_at + round((moment - serve_at) / GRID) * GRID


def tried(view: Outlook, key: str, start: datetime) -> Move:
    """Try a step at another hour, the others staying as far as they can; nothing is kept.

    Parameters: view; key of one of its steps; start.
    """
    whole, step = view.whole, view.step(key)
    title = step.title if step else ""
    start = quarter(whole, start)
    refused = _refused(view, key, start)
    if refused:
        return Move(view.key, key, title, start, why=(refused,))
    return _solved(whole, Move(view.key, key, title, start))


def _refused(view: Outlook, key: str, start: datetime) -> str:
    """Why a step cannot begin then whatever the others do; empty where nothing is known."""
    step = view.step(key)
    if step is None:
        return say("It is not in the plan; look again.")
    if key in view.state.begun:
        return say("{step} has begun: the past stays as it was.", step=step.title)
    if start < view.now:
        return say("That hour has passed; name one that is to come.")
    if start >= (view.dish.serve_at or view.dish.feast.serve_at):
        return say("It is eaten by then; name an hour before the meal.")
    return ""


def _solved(whole: FeastOutlook, move: Move) -> Move:
    """The move with the plan there is then; with holding only where there is none without it."""
    from pantry_core.plan.solve import plan  # noqa: PLC0415 - the solver takes 0.6 s to import

    before = starts_of(whole.plan) if whole.plan else {}
    left_out = {each.key for each in whole.left_out} - {move.dish}
    lock = Lock(move.dish, move.step, move.start.isoformat())
    why: tuple[Sentence, ...] = (say("It is not in the plan; look again."),)
    for document in whole.plan_documents:
        if not _has(document, move):
            continue
        free = without(document, left_out)
        problem = resolve(PlanRequest.model_validate(applied(free, [lock])))
        found = plan(problem, effort=EFFORT, keep=before)
        if found.steps:
            return replace(move, plan=found, changes=tuple(changes_between(whole, before, found)))
        why = tuple(_why(free, problem, found, move))
    return replace(move, why=why)


def _why(document: Document, locked: Problem, found: Plan, move: Move) -> Iterator[Sentence]:
    """Between which hours it could begin, and what else stands against the one that was named."""
    from pantry_core.plan.reasons import in_few_words  # noqa: PLC0415
    from pantry_core.plan.solve import begins_between  # noqa: PLC0415

    unlocked = resolve(
        PlanRequest.model_validate(applied(document, [Unlock(move.dish, move.step)]))
    )
    others = [each for each in found.why if each.reason != "locked"]
    yield from in_few_words(locked, others)
    between = begins_between(unlocked, move.dish, move.step)
    if between is not None:
        earliest, latest = between
        yield (
            say("Whatever else moves, it begins {at}.", at=Moment(earliest, "weekday-hour"))
            if earliest == latest
            else say(
                "Whatever else moves, it begins between {earliest} and {latest}.",
                earliest=Moment(earliest, "weekday-hour"),
                latest=Moment(latest, "weekday-hour"),
            )
        )
    elif not others:
        yield say("No plan was found for it in time; try another hour.")


def _has(document: Document, move: Move) -> bool:
    return any(
        dish["id"] == move.dish and step["id"] == move.step
        for dish in document["dishes"]
        for step in dish["steps"]
    )
