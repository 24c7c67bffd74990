"""Rules that collide, in a cook's words: each of them, or many in few sentences."""

from collections.abc import Callable, Sequence
from datetime import datetime, timedelta

from pantry_core.plan.parts import Group, Rule
from pantry_core.plan.problem import Dish, Problem, Step
from pantry_core.plan.result import Reason, Why

FEW = 2
"""So many rules about the same thing are told one by one."""


def reason(problem: Problem, group: Group, earliest: datetime | None) -> Why:
    """A rule that collides, in a cook's words.

    Parameters: problem; group, the rule; earliest, the hour that would do, where it is known.
    """
    dish_index, index, rule = group
    dish = problem.dishes[dish_index]
    step = dish.pending[index]
    kind: Reason = "locked" if rule == "not-yet" else rule
    text = _TEXTS[rule](problem, dish, step, earliest)
    return Why(dish.id, step.id, kind, text if dish.name == dish.id else f"{dish.name}: {text}")


def _too_late(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    least = sum((timedelta(seconds=each.min_s) for each in dish.pending), timedelta())
    begun = dish.begun_at if dish.running else None
    left = dish.serve_at - (begun or problem.now)
    text = (
        f"From {step.name} on, {span(least)} are needed at least; "
        f"{span(left)} lie between {'its start' if begun else 'now'} and the hour of serving."
    )
    if earliest is None:
        return text
    short = earliest - problem.serve_at
    return f"{text} It is short by {span(short)}." if short > timedelta(0) else text


def _not_yet(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    return (
        f"From {step.name} on, everything would be done too long before the hour of serving, even "
        "if each step took as long as it may."
    )


def _place_full(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    holds = problem.places[step.place or ""]
    of = f"{step.name} of {dish.name}" if len(problem.dishes) > 1 else step.id
    return f"{of} needs {step.uses:g} of {step.place}, which holds {holds:g}."


def _locked(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    locked = step.locked_start or problem.now
    return f"{step.name} is locked to {locked.astimezone(problem.zone):%a %d %b %H:%M}."


def _asleep(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    night = f"{problem.sleep:%H:%M} and {problem.wake:%H:%M}"
    return f"{step.name} wants hands at an hour between {night}."


def _away(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    return f"{step.name} wants hands while nobody is at home."


def _hands_full(problem: Problem, dish: Dish, step: Step, earliest: datetime | None) -> str:
    is_are = "is" if problem.cooks == 1 else "are"
    return f"{step.name} wants hands while all hands are full; there {is_are} {_cooks(problem)}."


def _cooks(problem: Problem) -> str:
    return "one cook" if problem.cooks == 1 else f"{problem.cooks} cooks"


_TEXTS: dict[Rule, Callable[[Problem, Dish, Step, datetime | None], str]] = {
    "too-late": _too_late,
    "not-yet": _not_yet,
    "place-full": _place_full,
    "locked": _locked,
    "asleep": _asleep,
    "away": _away,
    "hands-full": _hands_full,
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
        if each.reason == "hands-full":
            about = each.reason
        elif each.reason == "place-full":
            about = steps[each.dish, each.step].place or ""
        alike.setdefault(about, []).append(each)
    told: list[str] = []
    for about, rules in alike.items():
        if len(rules) <= FEW:
            told += [each.text for each in rules]
        elif about == "hands-full":
            told.append(
                f"For {_cooks(problem)}, too much wants hands at once: {_listed(problem, rules)}."
            )
        else:
            told.append(
                f"The {about} holds {problem.places[about]:g}, too little at once for: "
                f"{_listed(problem, rules)}."
            )
    return told


def _listed(problem: Problem, rules: list[Why]) -> str:
    dishes = []
    for dish in problem.dishes:
        own = [each.step for each in rules if each.dish == dish.id]
        names = ", ".join(step.name for step in dish.pending if step.id in own)
        if names:
            dishes.append(f"{dish.name} ({names})")
    return "; ".join(dishes)


def span(length: timedelta) -> str:
    """A length of time in days, hours and minutes, the way a cook says it."""
    minutes = round(abs(length).total_seconds() / 60)
    days, hours = divmod(minutes // 60, 24)
    parts = [f"{days} d" if days else "", f"{hours} h" if hours else ""]
    parts.append(f"{minutes % 60} min" if minutes % 60 else "")
    return " ".join(part for part in parts if part) or "0 min"
