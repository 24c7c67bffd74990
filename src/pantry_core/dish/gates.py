"""Doneness and cold as gates: a step that goes on until something ends by it, not by the clock."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Final, Literal

from pantry_core.dish.ahead import Ahead, ahead_of, believed_of, counted_of
from pantry_core.dish.answer import DishStep, Gate
from pantry_core.dish.clock import Clock
from pantry_core.dish.cooking import Cook
from pantry_core.dish.course import TENDER_FROM_C, Course, course_of
from pantry_core.dish.heat_helps import LATE_FROM_H, heat_helps
from pantry_core.heat.forecast import Reading
from pantry_core.heat.media import MediumName
from pantry_core.history.log import Log, hours_between
from pantry_core.judging.readings import JUST_AS_HOT, coolest_spot, is_held
from pantry_core.quantities import Celsius, Minutes
from pantry_core.routes.steps import CURING, Route
from pantry_core.rules.constants import FRIDGE_STOP_C
from pantry_core.rules.rule import Mark, Source
from pantry_core.text import say

Touch = Literal["tender", "not-yet", "looks-done"]
TENDER, NOT_YET, LOOKS_DONE = "tender", "not-yet", "looks-done"
NEAR_C: Final = 1.0
"""A reading that is nearer to its goal is told to a tenth of a degree [°C]."""
LOOK_EARLY: Final = 0.6
"""The probe is looked at again when so much of the least time has gone by (our choice)."""
SOONEST_LOOK_H: Final = 5.0 / 60.0
PLACE_OF: Final[dict[MediumName, str]] = {
    "oven": "oven", "fan-oven": "oven", "smoker": "smoker", "coals": "fire", "water": "hob",
}  # fmt: skip
WAITED: Final = frozenset(("thaw", "freeze", "chill-brine"))
"""Kinds of step that have waited long enough when their time is over."""
_PRACTICE: Final = Source("", Mark.PRACTICE)
_ASKS: Final[dict[str, Literal["temperature", "touch", "look"]]] = {
    "inside_c": "temperature", "cold_c": "temperature", "tender": "touch", "look": "look",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Known:
    """What is known of a gated step: since when it runs, what was read and felt since.

    `hold_min` is how long it must stay at its temperature, as kept smoked fish must [min];
    `is_bird`: it may be held at less by the table for birds.
    """

    step: DishStep
    since: datetime
    now: datetime
    readings: tuple[Reading, ...]
    touch: str | None
    hold_min: float = 0.0
    is_bird: bool = False

    @property
    def lasted_h(self) -> float:
        """How long it has lasted [h]."""
        return hours_between(self.since, self.now)

    @property
    def read_c(self) -> float | None:
        """What counts of what was read: of what cools the last, else the coolest spot [°C]."""
        if "cold_c" in (self.step.until or {}):
            return self.readings[-1].inside_c if self.readings else None
        return coolest_spot(self.readings)


def gate_of(
    steps: Sequence[DishStep], cook: Cook, way: Route, clock: Clock
) -> tuple[Gate | None, tuple[DishStep, ...]]:
    """The gate that stands now, and the steps as what was read moves them.

    Parameters: steps as they are edited; cook; way, its route; clock with the log.
    Returns: the gate of the step that runs, or of the brine before the meat goes in, None where
    none stands; and the steps: one that is followed by a probe lasts as long as it foretells.
    Raises: OutOfRange.
    Source: the model of `heat.forecast`; common practice.
    """
    log = clock.log
    unchanged = tuple(steps)
    if log is None:
        return None, unchanged
    brine = _brine_before_the_meat(steps, log)
    if brine is not None:
        return brine, unchanged
    running = _running(steps, log)
    known = None if running is None or not running.until else _known(running, log)
    if running is None or known is None:
        return None, unchanged
    known = replace(known, hold_min=cook.cooking.hold_min, is_bird=cook.done.is_bird)
    gate, changed = _gate_and_step(steps, known, cook, way, clock)
    return gate, tuple(changed if each is running else each for each in steps)


def _gate_and_step(
    steps: Sequence[DishStep], known: Known, cook: Cook, way: Route, clock: Clock
) -> tuple[Gate, DishStep]:
    """The gate of the step that runs, and the step as what was read moves it."""
    running, log = known.step, clock.log
    after, least_c = _after(steps, running), _least_c(running, steps, cook)
    course = course_of(running, cook, way, log, known.readings) if log is not None else None
    if log is None or course is None:
        return _gate(known, after, least_c), running
    doubted = ""
    if known.readings:
        mine, doubted = believed_of(course, known.readings)
        known = replace(known, readings=mine)
    gate = _gate(known, after, least_c)
    if doubted:
        gate = replace(gate, is_open=False, may_pass=False, text=doubted)
    wanted_h = _wanted_h(steps, running, clock)
    gate, lasts_h = _foretold(gate, known, course, cook, wanted_h, is_told=not doubted)
    changed = _moved(running, course, log)
    if lasts_h is not None:
        usual_h, most_h = lasts_h
        changed = replace(changed, min_h=usual_h, prefer_h=usual_h, max_h=most_h)
    return gate, changed


def _foretold(
    gate: Gate, known: Known, course: Course, cook: Cook, wanted_h: float | None, *, is_told: bool
) -> tuple[Gate, tuple[float, float] | None]:
    """The gate with what is foretold and counted; and how long its step lasts, if that is told [h].

    `is_told`: the last reading is believed.
    """
    is_there = (known.read_c or 0.0) >= (course.last.until_c or 0.0)
    ahead = None
    if is_told and not is_there:
        ahead = ahead_of(course, known.readings, known.lasted_h)
    gate = replace(
        gate,
        hint_c=course.last.until_c if course.is_hint and not course.after_h[1] else None,
        medium_c=course.wanted_c,
        wanted_h=wanted_h,
        counted=counted_of(course, known.readings, known.lasted_h, cook),
    )
    if ahead is None or gate.is_open:
        return gate, None
    left = ahead.left
    if left is None:
        return _never(gate, known, course, ahead, cook), None
    look_h = max(LOOK_EARLY * left.low, SOONEST_LOOK_H)
    gate = replace(gate, left_h=left, look_again_h=look_h, foretold=ahead.way)
    if wanted_h is not None and left.usual > wanted_h + LATE_FROM_H:
        gate = replace(gate, helps=heat_helps(course, ahead, cook, known.lasted_h, wanted_h))
    usual_h = known.lasted_h + max(left.usual, SOONEST_LOOK_H)
    return gate, (usual_h, known.lasted_h + left.high + 0.25)


def _never(gate: Gate, known: Known, course: Course, ahead: Ahead, cook: Cook) -> Gate:
    """The gate of what does not come to its goal as it goes on now, and what would help."""
    text = say(
        "At {around_c} it never comes to {goal_c}.",
        around_c=Celsius(course.last.temperature_c, 0),
        goal_c=Celsius(course.last.until_c or 0.0),
    )
    wanted_h = 0.0 if gate.wanted_h is None else gate.wanted_h
    helps = heat_helps(course, ahead, cook, known.lasted_h, wanted_h)
    return replace(gate, text=text, helps=helps)


def _wanted_h(steps: Sequence[DishStep], running: DishStep, clock: Clock) -> float | None:
    """How much longer it may take, so that all that follows is in time at its shortest [h]."""
    if clock.log is None or clock.serve_at is None:
        return None
    ids = [each.id for each in steps]
    after_h = sum(each.min_h for each in steps[ids.index(running.id) + 1 :])
    return hours_between(clock.log.now, clock.serve_at) - after_h


def _moved(running: DishStep, course: Course, log: Log) -> DishStep:
    """The step that runs, where it was moved to."""
    place = PLACE_OF.get(course.last.medium)
    is_moved = any(each.medium for each in log.all_of("heat-set", running.id))
    return replace(running, place=place) if is_moved and place is not None else running


def _running(steps: Sequence[DishStep], log: Log) -> DishStep | None:
    begun = [each for each in steps if log.has_begun(each.id)]
    if not begun or log.last("step-ended", begun[-1].id) is not None:
        return None
    return begun[-1]


def _after(steps: Sequence[DishStep], step: DishStep) -> str | None:
    """The next step that begins with work."""
    ids = [each.id for each in steps]
    ahead = steps[ids.index(step.id) + 1 :]
    return next((each.id for each in ahead if each.hands_min), None)


def _known(step: DishStep, log: Log) -> Known | None:
    started = log.first("step-started", step.id)
    if started is None:
        return None
    since = [each for each in log.happened if each.at >= started.at]
    readings = [
        Reading(hours_between(started.at, each.at), each.temperature_c)
        for each in since
        if each.what == "temperature-read" and each.step == step.id
        and each.temperature_c is not None
    ]  # fmt: skip
    touches = [each.touch for each in since if each.what == "touched" and each.step == step.id]
    return Known(step, started.at, log.now, tuple(readings), touches[-1] if touches else None)


def _least_c(step: DishStep, steps: Sequence[DishStep], cook: Cook) -> float | None:
    """What a piece may not be colder than when it leaves the heat, whatever was asked [°C]."""
    gated = [each for each in steps if each.kind == "cook" and each.until]
    measured = [each for each in gated if not (each.until or {}).keys() <= {"look"}]
    if step not in (measured or gated)[-1:]:
        return None
    out_c, safe_c = cook.cooking.take_out_c, cook.done.safe_c
    return safe_c if out_c is None or safe_c is None else min(out_c, safe_c)


def _gate(known: Known, holds: str | None, least_c: float | None) -> Gate:
    (end, goal), *_ = (known.step.until or {}).items()
    goal_c = float(goal) if end.endswith("_c") else None
    is_cold = least_c is not None and known.read_c is not None and known.read_c < least_c
    by_feel = end in ("tender", "look")
    is_cold = is_cold and not is_held(known.readings, least_c, is_bird=known.is_bird)
    is_open = _is_open(known, end, goal_c) and not is_cold
    return Gate(
        step=known.step.id,
        holds=holds,
        asks=_ASKS[end],
        is_open=is_open,
        may_pass=_may_pass(known, least_c, by_feel=by_feel),
        goal_c=goal_c,
        read_c=known.read_c,
        touch=known.touch,
        left_h=None,
        look_again_h=None,
        text=_text(known, end, least_c if is_cold and by_feel else goal_c, is_open=is_open),
    )


def _may_pass(known: Known, least_c: float | None, *, by_feel: bool) -> bool:
    """Whether it may go on before it is as the cook wanted it: hot enough, or not by feel alone.

    The rest of what was taken out early may end without a reading, which is then said.
    """
    if known.step.medium is None and "inside_c" in (known.step.until or {}):
        return known.read_c is None
    if least_c is None:
        return False
    if known.read_c is None:
        return by_feel
    if known.hold_min:
        return False
    return known.read_c >= least_c - JUST_AS_HOT


def _is_open(known: Known, end: str, goal_c: float | None) -> bool:
    waited = known.step.kind in WAITED and known.lasted_h >= _waited_h(known.step)
    if waited or known.step.kind == "freeze":
        return waited
    if end == "inside_c" and goal_c is not None:
        return _is_hot(known, goal_c) or is_held(known.readings, goal_c, is_bird=known.is_bird)
    if end == "cold_c" and goal_c is not None:
        return known.read_c is not None and known.read_c <= goal_c + JUST_AS_HOT
    return known.touch == (TENDER if end == "tender" else LOOKS_DONE)


def _is_hot(known: Known, goal_c: float) -> bool:
    """Whether the last readings have the goal, for as long as it is to be held."""
    since_h = None
    for each in known.readings:
        is_there = each.inside_c >= goal_c - JUST_AS_HOT
        since_h = (each.at_h if since_h is None else since_h) if is_there else None
    if since_h is None or (known.read_c or 0.0) < goal_c - JUST_AS_HOT:
        return False
    return 60.0 * (known.readings[-1].at_h - since_h) >= known.hold_min


def _waited_h(step: DishStep) -> float:
    """How long is long enough: for a brine what is usual, else the least."""
    if step.kind == "chill-brine":
        return step.prefer_h or step.min_h
    return step.min_h


def _is_there(end: str, read_c: float, goal_c: float) -> bool:
    """Whether a reading has what is to be held."""
    return end == "inside_c" and read_c >= goal_c - JUST_AS_HOT


def _text(known: Known, end: str, goal_c: float | None, *, is_open: bool) -> str:
    read, title = known.read_c, known.step.title.lower()
    if goal_c is not None and read is not None and not is_open and not _is_there(end, read, goal_c):
        shown = Celsius(read, 1 if abs(goal_c - read) < NEAR_C else None)
        return say("{read} of {goal_c}: not yet.", read=shown, goal_c=Celsius(goal_c))
    if end == "tender":
        return _of_feel(read, is_open=is_open)
    if end == "look":
        return (
            "It looks done."
            if is_open
            else say("{step}: does it look done?", step=known.step.title)
        )
    assert goal_c is not None  # noqa: S101 - what is neither felt nor seen has its figure
    if read is None:
        return say(
            "Read it first: {title} goes on until {goal_c}.",
            title=title,
            goal_c=Celsius(goal_c),
        )
    if not is_open:
        return say(
            "{read}: hold it there for {hold_min}, and read it again.",
            read=Celsius(read),
            hold_min=Minutes(known.hold_min, 0),
        )
    return say("{read}: done.", read=Celsius(read))


def _of_feel(read_c: float | None, *, is_open: bool) -> str:
    if is_open:
        return "Tender: it is done."
    if read_c is not None and read_c >= TENDER_FROM_C.value:
        return say(
            "{read}: feel it with the probe. Does it slide in and out without a catch?",
            read=Celsius(read_c),
        )
    return "Does a fork turn in it?"


def _brine_before_the_meat(steps: Sequence[DishStep], log: Log) -> Gate | None:
    """The brine that must be cold before the meat goes in: read, or waited for."""
    chill = next((each for each in steps if each.kind == "chill-brine"), None)
    put_in = next((each for each in steps if each.kind in CURING), None)
    made = log.last("step-ended", "make-brine") or log.first("step-started", "chill-brine")
    if chill is None or put_in is None or made is None or log.put_in is not None:
        return None
    if log.has_begun(put_in.id):
        return None
    read = log.last("temperature-read")
    read_c = read.temperature_c if read is not None and read.at >= made.at else None
    waited = hours_between(made.at, log.now) >= _waited_h(chill)
    is_open = read_c <= FRIDGE_STOP_C.value if read_c is not None else waited
    text = "Read how cold the brine is before it goes in."
    if read_c is not None:
        text = say("{read_c}: the meat stays out until it is colder.", read_c=Celsius(read_c))
    elif is_open:
        text = "It has stood long enough to be cold."
    return Gate(
        step=chill.id, holds=put_in.id, asks="temperature", is_open=is_open, may_pass=False,
        goal_c=float((chill.until or {}).get("cold_c", 4.0)), read_c=read_c, touch=None,
        left_h=None, look_again_h=None, text=text,
    )  # fmt: skip
