"""Rules that collide, in a cook's words: each of them, or many in few sentences."""

from collections.abc import Callable, Sequence
from datetime import datetime, time, timedelta

from pantry_core.measures import said
from pantry_core.plan.parts import Group, Rule
from pantry_core.plan.problem import Dish, Problem, Step, WeekHours
from pantry_core.plan.request import WEEKDAYS
from pantry_core.plan.result import Reason, Why
from pantry_core.quantities import Celsius, Clock, Minutes, Moment, Number
from pantry_core.text import joined, listed, say

HOUR = timedelta(hours=1)
MOST_DAYS = 3
"""So many days more than one are named as shut."""
FEW = 2
"""So many rules about the same thing are told one by one."""


def reason(problem: Problem, group: Group, earliest: datetime | None) -> Why:
    """A rule that collides, in a cook's words.

    Parameters: problem; group, the rule; earliest, the hour that is possible, where it is known.
    """
    dish_index, index, rule = group
    dish = problem.dishes[dish_index]
    step = dish.pending[index]
    kind: Reason
    match rule:
        case "not-yet":
            kind = "locked"
        case "heat":
            kind = "place-full"
        case _:
            kind = rule
    if rule == "hands-full" and step.trip is not None:
        kind = "trip"
    text = _TEXTS[rule](problem, dish, step, earliest)
    return Why(
        dish.id, step.id, kind, text if dish.name == dish.id else joined(": ", (dish.name, text))
    )


def _too_late(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    least = sum((timedelta(seconds=each.min_s) for each in dish.pending), timedelta())
    begun = dish.begun_at if dish.running else None
    left = dish.serve_at - (begun or problem.now)
    short = None if earliest is None else earliest - problem.serve_at
    if least <= left:
        return _hours_lack(step, short)
    text = say(
        "The steps from {step} on take at least {least}; there are {left} between {begun} and "
        "the hour of serving.",
        least=span(least),
        step=step.name,
        left=span(left),
        begun="its start" if begun else "now",
    )
    if short is None or short <= timedelta(0):
        return text
    if short - (least - left) <= max(HOUR, short / 10):
        return say("{text} The dish is {short} late.", text=text, short=span(short))
    return say(
        "{text} Counting nights, shop hours and work, the dish is {short} late.",
        text=text,
        short=span(short),
    )


def _hours_lack(step: Step, short: timedelta | None) -> str:
    """Days are enough, and the hours in which something can be done are not."""
    if short is None or short <= timedelta(0):
        return say(
            "The days are enough, but between nights, shop hours and work there is no hour for "
            "every step from {step} on.",
            step=step.name,
        )
    return say(
        "The days are enough, but counting nights, shop hours and work the steps from {step} on "
        "end {short} late.",
        step=step.name,
        short=span(short),
    )


def _not_yet(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    return say(
        "From {step} on, everything would be done too long before the hour of serving, even"
        " if each step took as long as it may.",
        step=step.name,
    )


def _place_full(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    holds = problem.places[step.place or ""]
    of = (
        say("{step} of {dish}", step=step.name, dish=dish.name)
        if len(problem.dishes) > 1
        else step.name
    )
    return say(
        "{of} needs {uses} of the {place}, which holds {holds}.",
        of=of,
        uses=problem.room(step.place, step.uses),
        place=step.place or "",
        holds=problem.room(step.place, holds or 0.0),
    )


def _other_heat(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    return say(
        "{step} wants the {place} at {heat}, while something else has it at another temperature.",
        step=step.name,
        place=step.place or "",
        heat=Celsius(step.heat_c or 0.0, 0),
    )


def _locked(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    locked = step.locked_start or problem.now
    return say(
        "{step} is locked to {day} at {hour}.",
        step=step.name,
        day=Moment(locked.astimezone(problem.zone)),
        hour=Clock(locked.astimezone(problem.zone)),
    )


def _asleep(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    return say(
        "{would_begin}; nobody is up between {sleep} and {wake}.",
        would_begin=_would_begin(problem, dish, step),
        sleep=Clock(problem.sleep),
        wake=Clock(problem.wake),
    )


def _away(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    first, last = reach_of(problem, dish, step)
    absences = [
        say(
            "{begins} to {ends}",
            begins=_at(problem, begins),
            ends=_at(problem, ends),
        )
        for begins, ends in problem.away
        if begins <= last and ends >= first
    ]
    if not absences:
        return say("{step} wants hands while nobody is at home.", step=step.name)
    return say(
        "{would_begin}; nobody is at home {absences}.",
        would_begin=_would_begin(problem, dish, step),
        absences=listed(absences),
    )


def _would_begin(problem: Problem, dish: Dish, step: Step) -> str:
    """When a step would have to begin, by the windows of its dish alone."""
    first, last = reach_of(problem, dish, step)
    if first <= problem.now:
        return say("{step} would have to begin by {last}", step=step.name, last=_at(problem, last))
    if first == last:
        return say("{step} would have to begin on {last}", step=step.name, last=_at(problem, last))
    return say(
        "{step} would have to begin between {first} and {last}",
        step=step.name,
        first=_at(problem, first),
        last=_at(problem, last),
    )


def _at(problem: Problem, moment: datetime) -> Moment:
    return Moment(moment.astimezone(problem.zone), "weekday-hour")


def _work(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    takes = (
        "somebody is with it all the time"
        if step.attended
        else say("it takes {hands}", hands=Minutes(step.hands_s / 60, 0))
    )
    hours = said_hours(problem.work or ())
    return say(
        "{would_begin}, and {takes}; the hours of work are {hours}."
        if hours
        else "{would_begin}, and {takes}; there are no hours of work.",
        would_begin=_would_begin(problem, dish, step),
        takes=takes,
        hours=hours,
    )


def _shut(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    place = step.place or ""
    hours = said_hours(problem.open[place].hours)
    if not hours:
        return say("{step}: the {place} never opens.", step=step.name, place=place)
    days = shut_days(problem, dish, step)
    if days:
        return say(
            "{step}: the {place} is shut on {names} (open {hours}).",
            step=step.name,
            place=place,
            names=listed(days),
            hours=hours,
        )
    return say(
        "{would_begin}; the {place} is open {hours}.",
        would_begin=_would_begin(problem, dish, step),
        place=place,
        hours=hours,
    )


def _after(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    waits = [
        say("{step_name} of {other}", step_name=_step_name(other, wait.step), other=other.name)
        for wait in step.after
        for other in problem.dishes
        if other.id == wait.dish
    ]
    return say("{step} waits for {names}.", step=step.name, names=listed(waits))


def _step_name(dish: Dish, step_id: str) -> str:
    return next(step.name for step in (*dish.done, *dish.pending) if step.id == step_id)


def shut_days(problem: Problem, dish: Dish, step: Step) -> Sequence[str]:
    """The days on which a step at a place could be, by the windows of its dish, if all are shut.

    Parameters: problem; dish and its pending step, at a place with hours.
    Returns: names of the days in order, none where there are many or the place opens on one.
    """
    if step.place not in problem.open:
        return []
    first, last = reach_of(problem, dish, step)
    begin, end = (each.astimezone(problem.zone).date() for each in (first, last))
    if (end - begin).days > MOST_DAYS:
        return []
    place = problem.open[step.place]
    days = [begin + timedelta(days=n) for n in range((end - begin).days + 1)]
    if any(
        day not in place.closed and any(each.holds_on(day) for each in place.hours) for day in days
    ):
        return []
    return [say("{day}", day=Moment(day)) for day in days]


def reach_of(problem: Problem, dish: Dish, step: Step) -> tuple[datetime, datetime]:
    """The first and the last moment at which a pending step could begin, by windows alone."""
    at = dish.pending.index(step)
    before, onward = dish.pending[:at], dish.pending[at:]
    begun = dish.begun_at or problem.now
    first = max(begun + _least(before), problem.now)
    last = dish.serve_at + dish.late - _least(onward)
    if all(each.max_s is not None for each in onward):
        most = timedelta(seconds=sum(each.max_s or 0 for each in onward))
        first = max(first, dish.serve_at - dish.early - most)
    return first, max(first, last)


def _least(steps: Sequence[Step]) -> timedelta:
    return timedelta(seconds=sum(max(each.min_s, each.hands_s) for each in steps))


def said_hours(hours: Sequence[WeekHours]) -> str:
    """Hours of a week in words: "Mon to Fri 08:00 to 19:00, Sat 08:00 to 14:00".

    Parameters: hours, of whose single dates nothing is said.
    """
    by_hours: dict[tuple[timedelta, timedelta], set[int]] = {}
    for each in hours:
        by_hours.setdefault((each.begins, each.ends), set()).update(each.days)
    told = []
    for (begins, ends), days in sorted(by_hours.items(), key=lambda each: min(each[1], default=7)):
        if days:
            when = "" if len(days) == len(WEEKDAYS) else _days(sorted(days))
            span_ = say("{begins} to {ends}", begins=_clock(begins), ends=_clock(ends))
            told.append(joined(" ", (when, span_)))
    return joined(", ", told)


def _days(days: list[int]) -> str:
    names = [each.title() for each in WEEKDAYS]
    if len(days) > 2 and days[-1] - days[0] == len(days) - 1:
        return say("{first} to {last}", first=names[days[0]], last=names[days[-1]])
    return listed([names[day] for day in days])


def _clock(hour: timedelta) -> Clock | str:
    if hour >= timedelta(days=1):
        return clock_of(hour)
    minutes = round(hour.total_seconds() / 60)
    return Clock(time(minutes // 60, minutes % 60))


def clock_of(hour: timedelta) -> str:
    """An hour of the day, from the time since midnight."""
    minutes = round(hour.total_seconds() / 60)
    return f"{minutes // 60:02d}:{minutes % 60:02d}"


def _hands_full(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    if step.trip is not None:
        return say(
            "{step} is part of the trip “{trip}”, which takes somebody while all hands are full.",
            step=step.name,
            trip=step.trip,
        )
    if problem.cooks == 1:
        return say("{step} wants hands while the one cook's are full.", step=step.name)
    return say(
        "{step} wants hands while those of all {cooks} cooks are full.",
        step=step.name,
        cooks=Number(problem.cooks),
    )


_TEXTS: dict[Rule, Callable[[Problem, Dish, Step, datetime | None], str]] = {
    "too-late": _too_late,
    "not-yet": _not_yet,
    "place-full": _place_full,
    "heat": _other_heat,
    "locked": _locked,
    "asleep": _asleep,
    "away": _away,
    "hands-full": _hands_full,
    "work": _work,
    "shut": _shut,
    "after": _after,
}


def in_few_words(problem: Problem, why: Sequence[Why]) -> list[str]:
    """The rules that collide, those about the same place or about hands in one sentence.

    Parameters: problem; why, rules of it.
    Returns: sentences, in the order in which what they tell of comes first.
    """
    steps = {(dish.id, step.id): step for dish in problem.dishes for step in dish.pending}
    alike: dict[str, list[Why]] = {}
    for each in why:
        about = f"{each.dish} {each.step} {each.reason}"
        if each.reason in ("hands-full", "trip"):
            about = "hands-full"
        elif each.reason == "place-full":
            about = steps[each.dish, each.step].place or ""
        alike.setdefault(about, []).append(each)
    told: list[str] = []
    for about, rules in alike.items():
        if len(rules) <= FEW:
            told += [each.text for each in rules]
        elif about == "hands-full":
            told.append(
                say(
                    "Too much for one cook at once: {listed}."
                    if problem.cooks == 1
                    else "Too much for {cooks} cooks at once: {listed}.",
                    cooks=Number(problem.cooks),
                    listed=_listed(problem, rules),
                )
            )
        else:
            told.append(
                say(
                    "The {about} holds {room}, too little at once for: {listed}.",
                    about=about,
                    room=problem.room(about, problem.places[about] or 0.0),
                    listed=_listed(problem, rules),
                )
            )
    return told


def _listed(problem: Problem, rules: list[Why]) -> str:
    dishes = []
    for dish in problem.dishes:
        own = [each.step for each in rules if each.dish == dish.id]
        names = joined(", ", (step.name for step in dish.pending if step.id in own))
        if names:
            dishes.append(say("{dish} ({steps})", dish=dish.name, steps=names))
    return joined("; ", dishes)


def span(length: timedelta) -> str:
    """A length of time as people say it, without its sign."""
    return said.span(length / timedelta(hours=1))
