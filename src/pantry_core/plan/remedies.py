"""What would help: changes of the asked plan that were really solved."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from typing import Any

from pantry_core.plan.changes import (
    Change,
    LeaveOut,
    LongerDay,
    MoreCooks,
    MoreRoom,
    ServeAt,
    StayHome,
    Unlock,
    applied,
)
from pantry_core.plan.earliest import earliest_serve
from pantry_core.plan.problem import Problem, WrongPlan, resolve
from pantry_core.plan.reasons import span
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Plan, Remedy, Why
from pantry_core.plan.solve import is_possible, plan
from pantry_core.plan.why import collisions

MOST_REMEDIES = 6
MOST_TOGETHER = 4
"""So many changes are tried at once when none helps alone."""
EFFORT = 0.3
"""Share of the usual effort that the plan of a remedy is given."""
DAY_LONGER_H = (1, 2)
LEAST_ROOM = 0.5
"""Room in a place is asked for in such steps."""

Document = dict[str, Any]


@dataclass(frozen=True, slots=True)
class _Change:
    text: str
    changes: tuple[Change, ...]
    input: Document


def _change(document: Document, text: str, *changes: Change) -> _Change:
    return _Change(text, changes, applied(document, changes))


def answer(document: Document) -> Plan:
    """Plan a feast; where that cannot be, with the changes that would help.

    Parameters: document, a sound `plan` document as JSON data.
    Returns: the plan; `remedies` of an infeasible one are whole documents that differ from this one
    only as their text says, each with its plan.
    Raises: pydantic.ValidationError and WrongPlan for a document that is not sound.
    """
    problem = _problem(document)
    found = plan(problem)
    if found.status != "infeasible":
        return found
    return _with(found, tuple(remedies(document, problem, found)))


def remedies(document: Document, problem: Problem, found: Plan) -> Iterator[Remedy]:
    """Changes that make an infeasible feast possible, the smallest first.

    Parameters: document and the problem it asks; found, its infeasible plan with the reasons.
    Returns: at most MOST_REMEDIES; several changes together only where none helps alone.
    """
    offered = 0
    for change in _changes(document, problem, found.why):
        solved = _solved(change)
        if solved is not None:
            yield solved
            offered += 1
            if offered == MOST_REMEDIES:
                return
    for together in () if offered else (_together, _without_some):
        joined = together(document, problem, found.why)
        solved = _solved(joined) if joined else None
        if solved is not None:
            yield solved
            return


def _with(found: Plan, offered: tuple[Remedy, ...]) -> Plan:
    return Plan(
        status=found.status, earliest_serve=found.earliest_serve, why=found.why, remedies=offered
    )


def _problem(document: Document) -> Problem:
    return resolve(PlanRequest.model_validate(document))


def _solved(change: _Change) -> Remedy | None:
    problem = _sound(change)
    if problem is None or not is_possible(problem):
        return None
    found = plan(problem, effort=EFFORT)
    if found.status not in ("optimal", "feasible"):
        return None
    return Remedy(change.text, change.input, found, change.changes)


def _together(document: Document, problem: Problem, why: tuple[Why, ...]) -> _Change | None:
    """Several changes, each putting right what collides after those before it."""
    asked, texts, made = document, list[str](), list[Change]()
    for _ in range(MOST_TOGETHER):
        if not why:
            return None
        named = {each.dish for each in why}
        change = next(
            (
                each
                for each in _changes(document, _only(problem, named), why)
                if (changed := _sound(each)) and is_possible(_only(changed, named))
            ),
            None,
        )
        if change is None:
            return None
        texts.append(change.text)
        made += change.changes
        document = change.input
        problem = _problem(document)
        if is_possible(problem):
            return _change(asked, " ".join(texts), *made)
        why = collisions(problem)
    return None


def _without_some(document: Document, problem: Problem, why: tuple[Why, ...]) -> _Change | None:
    """Dishes left out one after the other until the rest goes together; none without need."""
    left_out: list[str] = []
    kept = {dish.id for dish in problem.dishes}
    while why and len(kept) > 1:
        gone = max(why, key=lambda each: _length_s(problem, each.dish)).dish
        left_out.append(gone)
        kept.discard(gone)
        rest = _only(problem, kept)
        why = () if is_possible(rest) else collisions(rest)
    for dish_id in list(left_out):
        if is_possible(_only(problem, kept | {dish_id})):
            kept.add(dish_id)
            left_out.remove(dish_id)
    text = " ".join(f"Leave out {_name(problem, each)}." for each in left_out)
    return _change(document, text, *(LeaveOut(each) for each in left_out))


def _length_s(problem: Problem, dish_id: str) -> int:
    dish = next(each for each in problem.dishes if each.id == dish_id)
    return sum(step.min_s for step in dish.pending)


def _only(problem: Problem, dishes: set[str]) -> Problem:
    """The problem as if there were no other dishes."""
    return replace(problem, dishes=tuple(each for each in problem.dishes if each.id in dishes))


def _sound(change: _Change) -> Problem | None:
    try:
        return _problem(change.input)
    except WrongPlan:
        return None


def _changes(document: Document, problem: Problem, why: tuple[Why, ...]) -> Iterator[_Change]:
    """What might help, by the reasons that collide; what costs the cook least comes first."""
    reasons, named = {each.reason for each in why}, dict.fromkeys(each.dish for each in why)
    for each in why:
        if each.reason == "locked":
            yield from _unlocked(document, problem, each)
    if "away" in reasons or "too-late" in reasons:
        yield from _stayed_home(document, problem)
    if "hands-full" in reasons:
        yield from _another_cook(document, problem)
    for place in sorted({_place(problem, each) for each in why if each.reason == "place-full"}):
        yield from _made_room(document, problem, place)
    if reasons & {"asleep", "hands-full", "too-late", "away"}:
        yield from _longer_day(document, problem)
    hours = [_another_hour(document, problem)]
    colliding = _only(problem, set(named))
    hours += [_served_alone(document, colliding, dish) for dish in named]
    for changes in hours if len(problem.dishes) == len(document["dishes"]) else reversed(hours):
        yield from changes
    for dish in named:
        yield from _left_out(document, problem, dish)


def _unlocked(document: Document, problem: Problem, why: Why) -> Iterator[_Change]:
    dish = next(each for each in document["dishes"] if each["id"] == why.dish)
    step = next(each for each in dish["steps"] if each["id"] == why.step)
    if step.get("locked_start") is not None:
        what = f"{step.get('name') or why.step} of {_name(problem, why.dish)}"
        yield _change(document, f"Unlock the start of {what}.", Unlock(why.dish, why.step))


def _stayed_home(document: Document, problem: Problem) -> Iterator[_Change]:
    for k, (begin, end) in enumerate(problem.away):
        if end <= problem.now or begin >= problem.horizon:
            continue
        away = document["away"][k]
        since, until = _at(problem, max(begin, problem.now)), _at(problem, end)
        home = StayHome(away["from"], away["to"])
        yield _change(document, f"Be at home from {since} to {until}.", home)


def _another_cook(document: Document, problem: Problem) -> Iterator[_Change]:
    text = f"Have another pair of hands: {problem.cooks + 1} cooks."
    yield _change(document, text, MoreCooks(problem.cooks + 1))


def _made_room(document: Document, problem: Problem, place: str) -> Iterator[_Change]:
    """The least room, in steps, that helps; found by halving."""
    present = problem.places[place]
    uses = [step.uses for dish in problem.dishes for step in dish.pending if step.place == place]
    low, high = 0, round(max(sum(uses) - present, LEAST_ROOM) / LEAST_ROOM + 0.5)

    def with_room(steps: int) -> MoreRoom:
        return MoreRoom(place, present + LEAST_ROOM * steps)

    asked = {dish.id for dish in problem.dishes}

    def helps(steps: int) -> bool:
        return is_possible(_only(_problem(applied(document, [with_room(steps)])), asked))

    if not helps(high):
        return
    while high - low > 1:
        middle = (low + high) // 2
        if helps(middle):
            high = middle
        else:
            low = middle
    more = with_room(high)
    text = f"Make room: {more.room:g} in the {place} instead of {present:g}."
    yield _change(document, text, more)


def _longer_day(document: Document, problem: Problem) -> Iterator[_Change]:
    today = date(2000, 1, 1)
    for hours in DAY_LONGER_H:
        wake = datetime.combine(today, problem.wake) - timedelta(hours=hours)
        if wake.date() == today:
            day = LongerDay(f"{wake:%H:%M}", f"{problem.sleep:%H:%M}")
            yield _change(document, f"Get up at {wake:%H:%M}.", day)
        sleep = datetime.combine(today, problem.sleep) + timedelta(hours=hours)
        if sleep.date() == today:
            day = LongerDay(f"{problem.wake:%H:%M}", f"{sleep:%H:%M}")
            yield _change(document, f"Stay up until {sleep:%H:%M}.", day)


def _another_hour(document: Document, problem: Problem) -> Iterator[_Change]:
    earliest = _hour(problem, None, problem.serve_at)
    if earliest is not None and earliest != problem.serve_at:
        text = f"Eat on {_at(problem, earliest)}, {_moved(earliest, problem.serve_at)}."
        yield _change(document, text, ServeAt(earliest.astimezone(problem.zone).isoformat()))


def _served_alone(document: Document, problem: Problem, dish_id: str) -> Iterator[_Change]:
    index = next(i for i, each in enumerate(problem.dishes) if each.id == dish_id)
    dish = problem.dishes[index]
    if len(document["dishes"]) == 1 and not dish.has_own_hour:
        return
    earliest = _hour(problem, index, dish.serve_at)
    if earliest is not None and earliest != dish.serve_at:
        moved = _moved(earliest, dish.serve_at)
        text = f"Serve {dish.name} on {_at(problem, earliest)}, {moved}."
        yield _change(
            document, text, ServeAt(earliest.astimezone(problem.zone).isoformat(), dish_id)
        )


def _hour(problem: Problem, alone: int | None, asked: datetime) -> datetime | None:
    """The first hour after the asked one that does, else the first at all."""
    after = earliest_serve(problem, alone, asked, effort=EFFORT)
    return after or earliest_serve(problem, alone, effort=EFFORT)


def _left_out(document: Document, problem: Problem, dish_id: str) -> Iterator[_Change]:
    if len(document["dishes"]) > 1:
        yield _change(document, f"Leave out {_name(problem, dish_id)}.", LeaveOut(dish_id))


def _place(problem: Problem, why: Why) -> str:
    dish = next(each for each in problem.dishes if each.id == why.dish)
    return next(step.place or "" for step in dish.pending if step.id == why.step)


def _name(problem: Problem, dish_id: str) -> str:
    return next(each.name for each in problem.dishes if each.id == dish_id)


def _at(problem: Problem, moment: datetime) -> str:
    return f"{moment.astimezone(problem.zone):%a %-d %b at %H:%M}"


def _moved(moment: datetime, asked: datetime) -> str:
    length = abs(moment - asked)
    return f"{span(length)} {'later' if moment > asked else 'earlier'}"
