"""What comes next in the hands, and what stands in its way: a gate, or a slip of the thumb."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from math import ceil, floor
from typing import Literal

from pantry_core.dish.answer import DishStep, Gate
from pantry_core.history.log import hours_between
from pantry_core.measures.said import span
from pantry_core.plan.result import PlannedStep
from pantry_core.quantities import Minutes
from pantry_core.routes.ways import WAYS
from pantry_core.text import say
from pantry_web import quantities
from pantry_web.planning.outlook import FeastOutlook, Outlook

GRID_MIN = 15
SLIP = timedelta(minutes=5)
EARLY = timedelta(hours=6)
"""What is planned for so much later is asked about before it is ticked (our own choice)."""
KEEPS_HOT, KEEPS_COLD = timedelta(hours=1), timedelta(hours=24)
"""So long what is ready waits for its hour."""
UNDER_LIQUID = say("It should still be under the liquid all over.")
IN_LIQUID = frozenset(way.id for way in WAYS.values() if way.has_water)
LONG_H = 1.0
"""What takes an hour or more is asked about when it is over within five minutes."""
FINEST = timedelta(minutes=5)
"""Hours of a forecast are told to five minutes."""


@dataclass(frozen=True, slots=True)
class Task:
    """A step to begin, or a round; `at` is None where no plan says when.

    `withheld` is why a stop or a gate holds it back, `question` what is asked before it is ticked.
    `together` names the dishes that go on the same trip at the same time. What is next may be put
    off; how long it can wait is known where it is planned. `noted` is what was said of it the last
    time.
    """

    kind: Literal["begin", "tend"]
    key: str
    title: str
    how: str
    at: datetime | None
    minutes: float
    can_tick: bool
    withheld: str = ""
    question: str = ""
    trip: str | None = None
    together: tuple[str, ...] = ()
    is_next: bool = False
    can_wait_until: datetime | None = None
    noted: tuple[str, ...] = ()


def is_all_work(step: DishStep) -> bool:
    """Whether the hands fill the step on the quarter-hour grid, so that it ends when they do.

    What goes on until something is read or felt ends by that, and what may go on when the hands
    have done with it, a rest or a hot blast, when the next step begins.
    """
    if step.until or step.max_h is None:
        return False
    return step.max_h * 60 - step.hands_min < GRID_MIN


def tasks(view: Outlook) -> list[Task]:
    """All that is left to do with the hands, in the order of its time.

    The next step and the next round can be ticked; what lies behind them cannot yet.
    """
    found = [*_beginnings(view), *_rounds(view)]
    far = view.dish.feast.serve_at
    return sorted(found, key=lambda task: (task.at or far, task.kind))


def feast_tasks(whole: FeastOutlook) -> list[tuple[Outlook, Task]]:
    """All that is left to do with the hands over all dishes, in the order of its time."""
    found = [
        (view, task) for view in whole.dishes if not view.dish.is_given_up for task in tasks(view)
    ]
    far = whole.feast.serve_at
    return _by_trip(sorted(found, key=lambda each: (each[1].at or far, each[1].kind)))


def _by_trip(found: list[tuple[Outlook, Task]]) -> list[tuple[Outlook, Task]]:
    """What goes on one trip at one time as one thing, in the place of the first of it."""
    names: dict[tuple[str, datetime], list[str]] = {}
    for view, task in found:
        if task.trip and task.at:
            names.setdefault((task.trip, task.at), []).append(view.dish.name)
    told: list[tuple[Outlook, Task]] = []
    for view, task in found:
        own = names.pop((task.trip, task.at), None) if task.trip and task.at else [view.dish.name]
        if own is not None:
            told.append((view, replace(task, together=tuple(own)) if len(own) > 1 else task))
    return told


def _beginnings(view: Outlook) -> Iterator[Task]:
    following = view.next_in_hands
    if following is None:
        return
    gate = gate_now(view)
    for step in view.steps[view.place_of(following.id) :]:
        if step.hands_min:
            planned = view.planned(step.id)
            stops = view.withheld(step.id)
            held = stops[0].text if stops else _held_back(gate, step.id) or ""
            yield Task(
                "begin",
                step.id,
                step.title if is_all_work(step) else say("{step}: begin", step=step.title),
                step.text,
                planned.start if planned else None,
                step.hands_min,
                can_tick=step is following and not held,
                withheld=held,
                question=_question(view, planned, step.title) if step is following else "",
                trip=step.trip,
                is_next=step is following,
                can_wait_until=planned.latest_start if planned else None,
                noted=view.noted(step.id),
            )


def _question(view: Outlook, planned: PlannedStep | None, title: str) -> str:
    """What is asked before the next step is ticked; one that is planned for much later as well."""
    asked = asked_of(view)
    if not asked and view.has_no_room:
        return say("No plan has room for {dish}. Is it begun already?", dish=view.dish.name)
    if asked or planned is None:
        return asked or ""
    return ready_too_early(view, planned) or asked_before(view, title, planned.start)


def ready_too_early(view: Outlook, planned: PlannedStep) -> str:
    """What is asked of a step after which the dish would wait longer than it may.

    Every step from it on lasts its longest at most, and what is ready keeps for a day, or an hour
    where it is hot. Nothing is asked where some step may last as long as it has to.
    """
    steps = view.steps[view.place_of(planned.step) :]
    longest = [step.max_h for step in steps]
    if planned.start - view.now <= SLIP or any(most is None for most in longest):
        return ""
    ready = view.now + timedelta(hours=sum(most for most in longest if most is not None))
    ends_hot = any(step.kind == "cook" for step in steps)
    early = (view.dish.serve_at or view.dish.feast.serve_at) - ready
    if early <= (KEEPS_HOT if ends_hot else KEEPS_COLD):
        return ""
    return say(
        "Begun now, it is ready {early} before its hour: its steps may take no longer. Begin at "
        "{at}. Have you begun already?",
        early=span(early / timedelta(hours=1)),
        at=quantities.at(planned.start, view.dish.feast.time_zone),
    )


def asked_before(view: Outlook, title: str, start: datetime) -> str:
    """What is asked of a step that is planned for much later; nothing of one that is near."""
    if start - view.now <= EARLY:
        return ""
    at = quantities.at(start, view.dish.feast.time_zone)
    return say("{step} is planned for {at}. Is it done already?", step=title, at=at)


def _rounds(view: Outlook) -> Iterator[Task]:
    if view.plan is None or view.is_discarded:
        return
    done = {key: set(fact.rounds_done) for key, fact in view.state.facts.items()}
    can_tick = True
    for each in view.plan.rounds:
        for job in each.jobs:
            step = view.step(job.step)
            if step is None or each.at in done.get(job.step, ()):
                continue
            is_next = can_tick and view.state.running == job.step
            put_off = view.state.facts[job.step].put_off_until if is_next else None
            at = max(each.at, put_off) if put_off is not None else each.at
            how = UNDER_LIQUID if step.kind in IN_LIQUID else step.title
            yield Task("tend", job.step, step.tend, how, at, 5, is_next, is_next=is_next)
            can_tick = False


def gate_now(view: Outlook) -> Gate | None:
    """The gate before the next step; None where none stands, or the dish is done with."""
    gate, following = view.answer.gate if view.answer else None, view.next_in_hands
    if gate is None or (gate.holds is not None and following is None):
        return None
    return gate if following is None or gate.holds == following.id else None


def reckoned_at(view: Outlook) -> datetime:
    """The moment from which its answer counts hours that are left."""
    told = view.whole.documents[view.key].get("now")
    return datetime.fromisoformat(told).astimezone(view.now.tzinfo) if told else view.now


def look_again_at(view: Outlook) -> datetime | None:
    """When to look again by what was read, to five minutes; None where nothing was."""
    gate = gate_now(view)
    if gate is None or gate.look_again_h is None:
        return None
    at = reckoned_at(view) + timedelta(hours=gate.look_again_h)
    midnight = at.replace(hour=0, minute=0, second=0, microsecond=0)
    return midnight + round((at - midnight) / FINEST) * FINEST


def left_min(view: Outlook) -> tuple[int, int] | None:
    """How much longer by what was read, least and most, outwards to five minutes [min]."""
    gate = gate_now(view)
    if gate is None or gate.left_h is None:
        return None
    five = FINEST.total_seconds() / 3600.0
    return 5 * floor(gate.left_h.low / five), 5 * ceil(gate.left_h.high / five)


def waits_for(view: Outlook, key: str) -> str | None:
    """Why a step may not begin before something was read or felt; None where it may."""
    return _held_back(gate_now(view), key)


def _held_back(gate: Gate | None, key: str) -> str | None:
    if gate is None or gate.is_open or gate.may_pass or gate.holds != key:
        return None
    return gate.text


def lost_waits(view: Outlook) -> tuple[str, ...]:
    """What the dish waits for in vain: it is planned without waiting."""
    others = {other.key: other for other in view.whole.dishes}
    told = []
    for step in view.steps:
        for wait in step.after if step.id not in view.state.begun else ():
            other = others.get(wait.dish)
            if other is None:
                told.append(
                    say("{step} waits for a dish that is not in this feast.", step=step.title)
                )
            elif other.dish.is_given_up or other.is_discarded:
                told.append(
                    say(
                        "{step} waits for {dish}, which is dropped.",
                        step=step.title,
                        dish=other.dish.name,
                    )
                )
            elif other.step(wait.step) is None:
                told.append(
                    say(
                        "{step} waits for a step that {dish} has no more.",
                        step=step.title,
                        dish=other.dish.name,
                    )
                )
    return tuple(told)


def waits_for_others(view: Outlook) -> str | None:
    """What the next step waits for of other dishes and is not over, as a question."""
    following = view.next_in_hands
    others = {other.key: other for other in view.whole.dishes}
    for wait in following.after if following else ():
        other = others.get(wait.dish)
        step = other.step(wait.step) if other else None
        if other is None or step is None or other.dish.is_given_up:
            continue
        fact = other.state.facts.get(wait.step)
        later = other.steps[other.place_of(wait.step) + 1 :]
        has_passed = any(each.id in other.state.begun for each in later)
        if not has_passed and (fact is None or fact.ended_at is None):
            return say(
                "It waits for {step} of {dish}. Begin all the same?",
                step=step.title,
                dish=other.dish.name,
            )
    return None


def asked_of(view: Outlook) -> str | None:
    """What is asked when what runs is not as it was wanted, or has only just begun."""
    gate = gate_now(view)
    if gate is not None and gate.may_pass and not gate.is_open:
        return say("{gate} Go on all the same?", gate=gate.text)
    early = waits_for_others(view)
    if early is not None:
        return early
    running = view.step(view.state.running or "")
    since = view.state.running_since
    if running is None or since is None or running.min_h < LONG_H or view.now - since > SLIP:
        return None
    minutes = round(60 * hours_between(since, view.now))
    return say(
        "{running} began {minutes} ago. Is it really over?",
        running=running.title,
        minutes=Minutes(minutes),
    )
