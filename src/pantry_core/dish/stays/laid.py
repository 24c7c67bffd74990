"""The steps on the clock: by what happened, by what is planned, else one after another."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Final

from pantry_core.dish.answer import DishStep
from pantry_core.dish.clock import Clock
from pantry_core.history.log import hours_between

A_MOMENT_H: Final = 1e-3
"""Less is no time between two steps [h]."""


@dataclass(frozen=True, slots=True)
class Laid:
    """A step between two hours, counted from an arbitrary moment [h]; `is_read`: it has begun.

    `step` is None between two steps: nobody says where the piece was meanwhile.
    """

    step: DishStep | None
    from_h: float
    to_h: float
    is_read: bool

    @property
    def hours(self) -> float:
        """How long it lasts [h]."""
        return self.to_h - self.from_h


@dataclass(frozen=True, slots=True)
class Noted:
    """What is known of a step: when it began and ended, and when it is planned to [h]."""

    step: DishStep
    began_h: float | None
    ended_h: float | None
    planned_h: tuple[float, float] | None

    @property
    def usual_h(self) -> float:
        """How long it takes where nobody says: as it is wished, else at its shortest [h]."""
        return self.step.min_h if self.step.prefer_h is None else self.step.prefer_h

    @property
    def has_begun(self) -> bool:
        """Whether it has begun."""
        return self.began_h is not None or self.ended_h is not None


@dataclass(frozen=True, slots=True)
class OnTheClock:
    """The steps as they lie, the moment from which their hours count, and the present [h]."""

    laid: tuple[Laid, ...]
    zero: datetime | None
    now_h: float | None


def laid_out(steps: Sequence[DishStep], curing: str | None, clock: Clock) -> OnTheClock:
    """Lay the steps on the clock.

    Parameters: steps in order; curing, the id of the step in the cure, None without; clock, with
    what is planned and what happened.
    Returns: each step between its hours: what has happened as it happened, what is planned as it is
    planned but not before the present, all else as long as is usual. What was passed over fills the
    time between its neighbours.
    Raises: nothing.
    """
    log = clock.log
    moments = [moment for pair in clock.planned.values() for moment in pair if moment is not None]
    if log is not None:
        moments.extend(each.at for each in log.happened)
    if not moments:
        return OnTheClock(tuple(_in_a_row(steps)), None, None)
    zero = min(moments)
    noted = [_noted(step, curing, clock, zero) for step in steps]
    now_h = None if log is None else hours_between(zero, log.now)
    return OnTheClock(tuple(_on_the_clock(noted, now_h)), zero, now_h)


def _in_a_row(steps: Sequence[DishStep]) -> Iterator[Laid]:
    at_h = 0.0
    for step in steps:
        hours = step.min_h if step.prefer_h is None else step.prefer_h
        yield Laid(step, at_h, at_h + hours, is_read=False)
        at_h += hours


def _noted(step: DishStep, curing: str | None, clock: Clock, zero: datetime) -> Noted:
    log, is_curing = clock.log, step.id == curing

    def hour(moment: datetime | None) -> float | None:
        return None if moment is None else hours_between(zero, moment)

    began = ended = None
    if log is not None:
        first, last = log.first("step-started", step.id), log.last("step-ended", step.id)
        began = first.at if first else None
        ended = last.at if last else None
        if is_curing and began is None:
            began = log.put_in
        if is_curing and ended is None:
            lifted = log.last("lifted")
            ended = lifted.at if lifted else None
    start, end = (hour(moment) for moment in clock.planned.get(step.id, (None, None)))
    planned = None if start is None or end is None else (start, end)
    return Noted(step, hour(began), hour(ended), planned)


def _on_the_clock(noted: Sequence[Noted], now_h: float | None) -> Iterator[Laid]:
    first = next((i for i, each in enumerate(noted) if each.has_begun or each.planned_h), 0)
    last_begun = max((i for i, each in enumerate(noted) if each.has_begun), default=-1)
    at_h = _start_h(noted[first]) if noted else 0.0
    yield from _led_up_to(noted[:first], at_h)
    i = first
    while i <= last_begun:
        one = noted[i]
        if not one.has_begun:
            passed = [one]
            while not noted[i + len(passed)].has_begun:
                passed.append(noted[i + len(passed)])
            next_h = max(_start_h(noted[i + len(passed)]), at_h)
            yield from _passed_over([each.step for each in passed], at_h, next_h)
            at_h, i = next_h, i + len(passed)
            continue
        begins_h = at_h if one.began_h is None else max(one.began_h, at_h)
        if begins_h > at_h + A_MOMENT_H:
            yield Laid(None, at_h, begins_h, is_read=True)
        at_h = _end_h(noted, i, last_begun, begins_h, now_h)
        yield Laid(one.step, begins_h, at_h, is_read=True)
        i += 1
    if now_h is not None and 0 < i < len(noted) and at_h < now_h and _passes_on(noted, i - 1):
        held = noted[i]
        planned_h = held.planned_h[1] if held.planned_h else at_h + held.usual_h
        yield Laid(held.step, at_h, max(planned_h, now_h), is_read=False)
        at_h, i = max(planned_h, now_h), i + 1
    yield from _ahead(noted[i:], at_h, now_h)


def _start_h(each: Noted) -> float:
    """When a step begins, by what happened before what is planned [h]."""
    if each.began_h is not None:
        return each.began_h
    if each.ended_h is not None:
        return each.ended_h - each.usual_h
    return each.planned_h[0] if each.planned_h else 0.0


def _end_h(
    noted: Sequence[Noted], i: int, last_begun: int, begins_h: float, now_h: float | None
) -> float:
    """When a step that has begun ends: as was noted; with the next; or not before now [h].

    Where the beginning of the next step ended it, the work was over before: it is put away. What
    passes on to a step that needs no hands does so when it has lasted as long as it may.
    """
    running = noted[i]
    usual_h = begins_h + running.usual_h
    if running.ended_h is not None:
        following = next((one for one in noted[i + 1 :] if one.has_begun), None)
        with_next = following is not None and following.began_h == running.ended_h
        longest_h = begins_h + max(running.usual_h, running.step.max_h or running.usual_h)
        is_put_away = with_next and running.step.place == "counter"
        ended_h = min(running.ended_h, longest_h) if is_put_away else running.ended_h
        return max(ended_h, begins_h)
    if i == last_begun:
        end_h = running.planned_h[1] if running.planned_h else usual_h
        if _passes_on(noted, i) and now_h is not None:
            longest_h = begins_h + max(running.usual_h, running.step.max_h or running.usual_h)
            now_h = min(now_h, longest_h)
            end_h = min(end_h, longest_h)
        return max(end_h, begins_h, now_h or begins_h)
    next_h = _start_h(noted[i + 1])
    if noted[i + 1].has_begun:
        return max(next_h, begins_h)
    following = next(one for one in noted[i + 1 :] if one.has_begun)
    return max(begins_h, min(usual_h, _start_h(following)))


def _passes_on(noted: Sequence[Noted], i: int) -> bool:
    """Whether a step gives way to the next by itself: nothing is waited for, and no hands.

    A roast that has rested is kept warm, and nobody writes that down.
    """
    following = noted[i + 1].step if i + 1 < len(noted) else None
    return following is not None and not following.hands_min and not noted[i].step.until


def _led_up_to(noted: Sequence[Noted], end_h: float) -> Iterator[Laid]:
    """The steps before the first that is known, as long as is usual."""
    at_h = end_h - sum(each.usual_h for each in noted)
    for each in noted:
        yield Laid(each.step, at_h, at_h + each.usual_h, is_read=False)
        at_h += each.usual_h


def _passed_over(steps: Sequence[DishStep], from_h: float, to_h: float) -> Iterator[Laid]:
    """Steps that nobody noted, between two that were: those in the cold fill the time.

    Where none is in the cold, the longest that needs no hands fills it: what is kept warm.
    """
    left_h = to_h - from_h
    taken = []
    for step in steps:
        usual_h = step.min_h if step.prefer_h is None else step.prefer_h
        is_cold = step.place in ("fridge", "freezer")
        taken.append(0.0 if is_cold else min(usual_h, left_h))
        left_h -= taken[-1]
    colds = [i for i, step in enumerate(steps) if step.place in ("fridge", "freezer")]
    fills = colds or [i for i, step in enumerate(steps) if not step.hands_min]
    if fills:
        longest = max(fills, key=lambda i: steps[i].max_h or float("inf"))
        taken[longest] += left_h
        left_h = 0.0
    at_h = from_h
    for step, hours in zip(steps, taken, strict=True):
        yield Laid(step, at_h, at_h + hours, is_read=False)
        at_h += hours
    if left_h > A_MOMENT_H:
        yield Laid(None, at_h, to_h, is_read=False)


def _ahead(noted: Sequence[Noted], at_h: float, now_h: float | None) -> Iterator[Laid]:
    """The steps that have not begun: as planned, but not before now."""
    for each in noted:
        least_h = at_h if now_h is None else max(at_h, now_h)
        if each.planned_h is None:
            begins_h, ends_h = least_h, least_h + each.usual_h
        else:
            begins_h = max(each.planned_h[0], least_h)
            ends_h = begins_h + each.planned_h[1] - each.planned_h[0]
        if begins_h > at_h + A_MOMENT_H:
            yield Laid(None, at_h, begins_h, is_read=False)
        yield Laid(each.step, begins_h, ends_h, is_read=False)
        at_h = ends_h
