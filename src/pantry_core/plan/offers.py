"""What might help where a feast cannot be, by what collides, the least costly to the cook first."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from typing import Any

from pantry_core.plan.changes import (
    Change,
    KeepLonger,
    LeaveOut,
    LongerDay,
    MoreCooks,
    MoreRoom,
    OpenHours,
    ServeAt,
    StayHome,
    TakeHeat,
    Unlock,
    WaitForNone,
    WorkHours,
    applied,
)
from pantry_core.plan.earliest import earliest_serve
from pantry_core.plan.problem import Dish, Problem, Step, resolve
from pantry_core.plan.reasons import clock_of, reach_of, span
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Why
from pantry_core.plan.solve import is_possible
from pantry_core.quantities import Celsius, Clock, Days, Hours, Moment, Number
from pantry_core.text import listed, say

EFFORT = 0.3
"""Share of the usual effort that the plan of a remedy is given."""
DAY_LONGER_H = (1, 2)
KEPT_LONGER_H = (24, 48, 72)
"""How much longer what is bought earlier is kept."""
LEAST_ROOM = 0.5
"""Room in a place is asked for in such steps."""
USUAL_OPENING = ("08:00", "19:00")
BUSY = ("hands-full", "trip")
"""Reasons that mean too few hands."""
WEEK = timedelta(days=7)

Document = dict[str, Any]


def resolved(document: Document) -> Problem:
    """The problem of a document. Raises: pydantic.ValidationError, WrongPlan."""
    return resolve(PlanRequest.model_validate(document))


def named_dishes(problem: Problem, why: Sequence[Why]) -> list[str]:
    """The dishes that collide, those that one waits for included."""
    named: dict[str, None] = {}
    for each in why:
        named[each.dish] = None
        if each.reason == "after":
            named |= dict.fromkeys(wait.dish for wait in _asked(problem, each)[1].after)
    return list(named)


def only(problem: Problem, dishes: set[str]) -> Problem:
    """The problem as if there were no other dishes."""
    return replace(problem, dishes=tuple(each for each in problem.dishes if each.id in dishes))


@dataclass(frozen=True, slots=True)
class Offer:
    """A change of the asked document that might help: in words, by its kinds, and made."""

    text: str
    changes: tuple[Change, ...]
    input: Document


def offer(document: Document, text: str, *changes: Change) -> Offer:
    """The offer of some changes of a document."""
    return Offer(text, changes, applied(document, changes))


def offers(document: Document, problem: Problem, why: tuple[Why, ...]) -> Iterator[Offer]:
    """What might help, by the reasons that collide; what costs the cook least comes first.

    Parameters: document, as JSON data; problem, what is asked of it or of some of its dishes; why
    there is no plan. Returns: offers, not yet solved.
    """
    reasons, named = {each.reason for each in why}, named_dishes(problem, why)
    for each in why:
        yield from _BY_STEP.get(each.reason, _none)(document, problem, each)
    if "away" in reasons or "too-late" in reasons:
        yield from _stayed_home(document, problem)
    if reasons & set(BUSY):
        yield from _another_cook(document, problem)
    for place in sorted({_place(problem, each) for each in why if each.reason == "place-full"}):
        yield from _made_room(document, problem, place)
    if reasons & {"work", *BUSY} and problem.work is not None:
        yield from _longer_work(document, problem, why)
    if reasons & {"asleep", "too-late", "away", *BUSY}:
        yield from _longer_day(document, problem)
    for each in why:
        yield from _BY_STEP_LATER.get(each.reason, _none)(document, problem, each)
    hours = [_another_hour(document, problem)]
    colliding = only(problem, set(named))
    hours += [_served_alone(document, colliding, dish) for dish in named]
    for changes in hours if len(problem.dishes) == len(document["dishes"]) else reversed(hours):
        yield from changes
    for dish in named:
        yield from _left_out(document, problem, dish)


def _none(document: Document, problem: Problem, why: Why) -> Iterator[Offer]:
    yield from ()


def _other_heats(document: Document, problem: Problem, why: Why) -> Iterator[Offer]:
    """The step at another temperature that it can take, the nearest first."""
    dish, step = _asked(problem, why)
    own = step.heat_c
    if own is None:
        return
    for other in sorted(step.heats, key=lambda each: abs(each.heat_c - own)):
        text = say(
            "{step} of {dish} at {heat} instead of {own}: {hours}.",
            step=step.name,
            dish=dish.name,
            heat=Celsius(other.heat_c, 0),
            own=Celsius(own, 0),
            hours=span(timedelta(hours=other.prefer_h or other.min_h)),
        )
        yield offer(document, text, TakeHeat(dish.id, step.id, other.heat_c))


def _unlocked(document: Document, problem: Problem, why: Why) -> Iterator[Offer]:
    dish = next(each for each in document["dishes"] if each["id"] == why.dish)
    step = next(each for each in dish["steps"] if each["id"] == why.step)
    if step.get("locked_start") is not None:
        what = say(
            "{step} of {dish}", step=step.get("name") or why.step, dish=_name(problem, why.dish)
        )
        yield offer(
            document, say("Unlock the start of {what}.", what=what), Unlock(why.dish, why.step)
        )


def _bought_earlier(document: Document, problem: Problem, why: Why) -> Iterator[Offer]:
    """Go to the place a day or more earlier, and keep what is got there until it is wanted."""
    dish, step = _asked(problem, why)
    following = dish.pending[dish.pending.index(step) + 1 :][:1]
    for wait in following:
        if wait.prefer_s is not None or wait.hands_s or wait.max_s is None:
            continue
        for hours in KEPT_LONGER_H:
            most = wait.max_s / 3600 + hours
            when = (
                "the day before" if hours == 24 else say("{hours} before", hours=Days(hours // 24))
            )
            text = say(
                "{step} {when}: {wait} for up to {most}. Mind how long it keeps.",
                step=step.name,
                when=when,
                wait=wait.name,
                most=Hours(most),
            )
            yield offer(document, text, KeepLonger(dish.id, wait.id, most))


def _opened(document: Document, problem: Problem, why: Why) -> Iterator[Offer]:
    """Another shop, say, that is open on one of the days on which the step could be."""
    dish, step = _asked(problem, why)
    place = step.place or ""
    first, last = reach_of(problem, dish, step)
    day = last.astimezone(problem.zone).date()
    usual = next(
        ((each["from"], each["to"]) for each in document["open"][place].get("hours") or ()),
        USUAL_OPENING,
    )
    while day >= max(first, last - WEEK).astimezone(problem.zone).date():
        text = say(
            "Find a {place} that is open on {day} from {begins} to {ends}.",
            place=place,
            day=_day(day),
            begins=usual[0],
            ends=usual[1],
        )
        yield offer(document, text, OpenHours(place, day.isoformat(), *usual))
        day -= timedelta(days=1)


def _without_waiting(document: Document, problem: Problem, why: Why) -> Iterator[Offer]:
    dish, step = _asked(problem, why)
    awaited = {each.dish for each in step.after}
    others = listed([other.name for other in problem.dishes if other.id in awaited])
    text = say(
        "Begin {step} of {dish} without waiting for {others}.",
        step=step.name,
        dish=dish.name,
        others=others,
    )
    yield offer(document, text, WaitForNone(dish.id, step.id))


def _longer_work(document: Document, problem: Problem, why: tuple[Why, ...]) -> Iterator[Offer]:
    """Work later, or from earlier on, on one of the days on which the work could be."""
    wake, sleep = f"{problem.wake:%H:%M}", f"{problem.sleep:%H:%M}"
    for day in _days_of_work(problem, why):
        own = [each for each in problem.work or () if each.holds_on(day)]
        on, date_ = _day(day), day.isoformat()
        if not own:
            yield offer(
                document,
                say("Work from {wake} to {sleep} on {on}.", wake=wake, sleep=sleep, on=on),
                WorkHours(date_, wake, sleep),
            )
            continue
        soonest, latest = min(each.begins for each in own), max(each.ends for each in own)
        later = WorkHours(date_, clock_of(soonest), sleep)
        yield offer(document, say("Work until {sleep} on {on}.", sleep=sleep, on=on), later)
        earlier = WorkHours(date_, wake, clock_of(latest))
        yield offer(document, say("Work from {wake} on {on}.", wake=wake, on=on), earlier)


def _days_of_work(problem: Problem, why: tuple[Why, ...]) -> list[date]:
    """The last days, a week of them at most, on which what collides could be done."""
    days: dict[date, None] = {}
    for each in why:
        if each.reason not in ("work", *BUSY):
            continue
        reach = reach_of(problem, *_asked(problem, each))
        first, last = (moment.astimezone(problem.zone).date() for moment in reach)
        for n in range(min((last - first).days + 1, WEEK.days)):
            days.setdefault(last - timedelta(days=n))
    return list(days)[: WEEK.days]


def _stayed_home(document: Document, problem: Problem) -> Iterator[Offer]:
    for k, (begin, end) in enumerate(problem.away):
        if end <= problem.now or begin >= problem.horizon:
            continue
        away = document["away"][k]
        since, until = _at(problem, max(begin, problem.now)), _at(problem, end)
        home = StayHome(away["from"], away["to"])
        yield offer(
            document, say("Be at home from {since} to {until}.", since=since, until=until), home
        )


def _another_cook(document: Document, problem: Problem) -> Iterator[Offer]:
    text = say(
        "Get a second cook." if problem.cooks == 1 else "Get one more cook: {cooks} in all.",
        cooks=Number(problem.cooks + 1),
    )
    yield offer(document, text, MoreCooks(problem.cooks + 1))


def _made_room(document: Document, problem: Problem, place: str) -> Iterator[Offer]:
    """The least room, in steps, that helps; found by halving."""
    present = problem.places[place] or 0.0
    uses = [step.uses for dish in problem.dishes for step in dish.pending if step.place == place]
    low, high = 0, round(max(sum(uses) - present, LEAST_ROOM) / LEAST_ROOM + 0.5)

    def with_room(steps: int) -> MoreRoom:
        return MoreRoom(place, present + LEAST_ROOM * steps)

    asked = {dish.id for dish in problem.dishes}

    def helps(steps: int) -> bool:
        return is_possible(only(resolved(applied(document, [with_room(steps)])), asked))

    if not helps(high):
        return
    while high - low > 1:
        middle = (low + high) // 2
        if helps(middle):
            high = middle
        else:
            low = middle
    more = with_room(high)
    text = say(
        "Make room: {room} in the {place} instead of {present}.",
        room=problem.room(place, more.room),
        place=place,
        present=problem.room(place, present),
    )
    yield offer(document, text, more)


def _longer_day(document: Document, problem: Problem) -> Iterator[Offer]:
    today = date(2000, 1, 1)
    for hours in DAY_LONGER_H:
        wake = datetime.combine(today, problem.wake) - timedelta(hours=hours)
        if wake.date() == today:
            day = LongerDay(f"{wake:%H:%M}", f"{problem.sleep:%H:%M}")
            yield offer(
                document,
                say("Get up at {at}: {less} less sleep.", at=Clock(wake), less=_sleep(hours)),
                day,
            )
        sleep = datetime.combine(today, problem.sleep) + timedelta(hours=hours)
        if sleep.date() == today:
            day = LongerDay(f"{problem.wake:%H:%M}", f"{sleep:%H:%M}")
            yield offer(
                document,
                say(
                    "Stay up until {until}: {less} less sleep.",
                    until=Clock(sleep),
                    less=_sleep(hours),
                ),
                day,
            )


def _sleep(hours: int) -> str:
    return "an hour" if hours == 1 else say("{hours} hours", hours=Number(hours))


def _another_hour(document: Document, problem: Problem) -> Iterator[Offer]:
    earliest = _hour(problem, None, problem.serve_at)
    if earliest is not None and earliest != problem.serve_at:
        text = say(
            "Eat on {at}, {moved}.",
            at=_at(problem, earliest),
            moved=_moved(earliest, problem.serve_at),
        )
        yield offer(document, text, ServeAt(earliest.astimezone(problem.zone).isoformat()))


def _served_alone(document: Document, problem: Problem, dish_id: str) -> Iterator[Offer]:
    index = next(i for i, each in enumerate(problem.dishes) if each.id == dish_id)
    dish = problem.dishes[index]
    if len(document["dishes"]) == 1 and not dish.has_own_hour:
        return
    earliest = _hour(problem, index, dish.serve_at)
    if earliest is not None and earliest != dish.serve_at:
        moved = _moved(earliest, dish.serve_at)
        text = say(
            "Serve {dish} on {at}, {moved}.", dish=dish.name, at=_at(problem, earliest), moved=moved
        )
        yield offer(document, text, ServeAt(earliest.astimezone(problem.zone).isoformat(), dish_id))


def _hour(problem: Problem, alone: int | None, asked: datetime) -> datetime | None:
    """The first hour after the asked one that does, else the first at all."""
    after = earliest_serve(problem, alone, asked, effort=EFFORT)
    return after or earliest_serve(problem, alone, effort=EFFORT)


def _left_out(document: Document, problem: Problem, dish_id: str) -> Iterator[Offer]:
    if len(document["dishes"]) > 1:
        yield offer(
            document, say("Leave out {name}.", name=_name(problem, dish_id)), LeaveOut(dish_id)
        )


def _asked(problem: Problem, why: Why) -> tuple[Dish, Step]:
    """The dish and the pending step that a reason names."""
    dish = next(each for each in problem.dishes if each.id == why.dish)
    return dish, next(step for step in dish.pending if step.id == why.step)


def _place(problem: Problem, why: Why) -> str:
    return _asked(problem, why)[1].place or ""


def _day(day: date) -> str:
    return say("{day}", day=Moment(day))


def _name(problem: Problem, dish_id: str) -> str:
    return next(each.name for each in problem.dishes if each.id == dish_id)


def _at(problem: Problem, moment: datetime) -> str:
    local = moment.astimezone(problem.zone)
    return say("{day} at {hour}", day=Moment(local), hour=Clock(local))


def _moved(moment: datetime, asked: datetime) -> str:
    length = abs(moment - asked)
    if moment > asked:
        return say("{span} later", span=span(length))
    return say("{span} earlier", span=span(length))


_BY_STEP = {"locked": _unlocked, "shut": _bought_earlier, "place-full": _other_heats}
_BY_STEP_LATER = {"shut": _opened, "after": _without_waiting}
"""What helps against a reason, before and after what helps by the house."""
