"""Whether the heat is enough, and whether it comes quickly enough."""

from collections.abc import Iterator, Sequence
from math import ceil

import numpy as np

from pantry_core.conduction.shells import Vector
from pantry_core.heat.doneness import BIRD_HOLDS, WARM_FROM_C, WARM_TO_C
from pantry_core.heat.forecast import Reading
from pantry_core.history.stays import Trace
from pantry_core.judging.case import Case
from pantry_core.judging.readings import (
    JUST_AS_HOT,
    coolest_spot,
    held_as_safe_min,
    is_held,
)
from pantry_core.measures.said import span
from pantry_core.meat import Meat
from pantry_core.notice import Level, Notice, notice
from pantry_core.quantities import Celsius, Hours, Minutes
from pantry_core.rules.inside import NOT_INTACT
from pantry_core.rules.rule import Mark, Source
from pantry_core.rules.smoke import UNCURED_WARMING_H, WARMING_H, WARMING_STOP_H
from pantry_core.text import say

_PRACTICE = Source("", Mark.PRACTICE)


def heated_enough(case: Case) -> Iterator[Notice]:
    """Whether its slowest point gets as hot as it must, or has been read so."""
    safe_c = case.done.safe_c
    if safe_c is None or case.is_eaten_raw:
        return
    if case.history.has_left_the_heat:
        yield from _as_it_was_read(case, safe_c)
    elif not case.history.heated:
        yield from _not_cooked(case)
    else:
        yield from _as_it_is_meant(case, safe_c)


def _not_cooked(case: Case) -> Iterator[Notice]:
    rule = case.done.rule
    if rule is None:
        return
    text = say(
        "It is not cooked: {rule} in the thickest part is what it needs.", rule=Celsius(rule.value)
    )
    if case.meat.kind == "fish":
        yield notice("stop", "fish-not-cooked", text, rule)
    else:
        yield notice("stop", "not-cooked", text, rule)


def _as_it_was_read(case: Case, safe_c: float) -> Iterator[Notice]:
    read = case.history.read_at_heat
    if not read:
        if case.needs_figure:
            text = say(
                "Nobody has read how hot it was inside: {safe_c} is what it needs.",
                safe_c=Celsius(safe_c),
            )
            yield notice("caution", "not-read", text, _PRACTICE)
        return
    read_c = coolest_spot(read) or 0.0
    is_bird = case.done.is_bird
    rested = (Reading(read[-1].at_h, read_c), *case.history.read_after)
    if read_c >= safe_c - JUST_AS_HOT or is_held(read, safe_c, is_bird=is_bird):
        return
    if is_held(rested, safe_c, is_bird=is_bird, cools=True):
        return
    climbs_to_c = read_c + max((each.climbs_c for each in case.history.heated), default=0.0)
    rested_c = _hottest_read(case.history.read_after)
    if rested_c is None and climbs_to_c >= safe_c - JUST_AS_HOT:
        text = say(
            "Taken out at {read_c}, it climbs to {climbs_to} or more while it rests. Read it again "
            "before you carve: {safe_c} is what it needs.",
            read_c=Celsius(read_c),
            climbs_to=Celsius(climbs_to_c, 0),
            safe_c=Celsius(safe_c),
        )
        yield notice("caution", "read-again", text, _PRACTICE)
    elif rested_c is None or rested_c < safe_c - JUST_AS_HOT:
        read_c = max(read_c, rested_c or 0.0)
        text = say(
            "{read_c} of {safe_c} when it was taken from the heat: back to the heat "
            "until the probe says so.",
            read_c=Celsius(read_c),
            safe_c=Celsius(safe_c),
        )
        yield notice("stop", "not-done", text, _PRACTICE)


def _hottest_read(readings: Sequence[Reading]) -> float | None:
    """The hottest that its coolest spot was read in its rest [°C]."""
    spots = [coolest_spot(readings[: i + 1]) or 0.0 for i in range(len(readings))]
    return max(spots, default=None)


def _as_it_is_meant(case: Case, safe_c: float) -> Iterator[Notice]:
    hottest = max(case.history.heated, key=lambda each: (each.reaches.low, each.reaches.high))
    quickest = max(each.reaches.high for each in case.history.heated)
    if hottest.reaches.low >= safe_c - JUST_AS_HOT:
        return
    if _is_held(case, safe_c):
        yield from _as_it_is_held(case, hottest.reaches.low, safe_c)
        return
    if hottest.is_certain and hottest.climbs_c:
        yield from _as_it_climbs(hottest.reaches.low, hottest.hottest.low, safe_c)
        return
    if is_held(case.history.read_at_heat, safe_c, is_bird=case.done.is_bird):
        return
    if quickest >= safe_c and not hottest.is_certain:
        text = say(
            "By the model it comes to {between} inside; {safe_c} is what it needs. Let the "
            "step go on until the probe says so.",
            between=say(
                "{low} to {high}", low=Celsius(hottest.reaches.low, 0), high=Celsius(quickest, 0)
            ),
            safe_c=Celsius(safe_c),
        )
        yield notice("caution", "perhaps-not-done", text, _PRACTICE)
        return
    text = say(
        "It comes to {reaches} inside; {safe_c} is what it needs. Give it longer or hotter, and "
        "let it go on until the probe says so.",
        reaches=Celsius(quickest, 0),
        safe_c=Celsius(safe_c),
    )
    yield notice("stop", "not-done", text, _PRACTICE)


def _as_it_climbs(out_c: float, climbs_to_c: float, safe_c: float) -> Iterator[Notice]:
    """Of what is taken out early: whether its rest brings it to what it needs."""
    said = {
        "out": Celsius(out_c),
        "climbs_to": Celsius(climbs_to_c, 0),
        "safe_c": Celsius(safe_c),
    }
    if climbs_to_c >= safe_c - JUST_AS_HOT:
        text = say(
            "Taken out at {out}, it climbs to {climbs_to} or more while it rests. Read it again "
            "before you carve: {safe_c} is what it needs.",
            **said,
        )
        yield notice("note", "climbs", text, _PRACTICE)
        return
    enough_c = ceil(out_c + safe_c - climbs_to_c - JUST_AS_HOT)
    text = say(
        "Taken out at {out}, count on no more than {climbs_to} after its rest; {safe_c} is what it "
        "needs. Take it out at {enough}.",
        enough=Celsius(min(float(enough_c), safe_c)),
        **said,
    )
    yield notice("stop", "not-done", text, _PRACTICE)


def _as_it_is_held(case: Case, out_c: float, safe_c: float) -> Iterator[Notice]:
    """Of a bird that is taken out early: how long makes that as safe."""
    needed = held_as_safe_min(out_c, is_bird=True) if case.done.is_bird else None
    if needed is None:
        return
    text = say(
        "Taken out at {out}, {minutes} there or above are as safe as {safe_c} at once, and its "
        "rest is longer. Read it again before you carve.",
        out=Celsius(out_c),
        minutes=Minutes(max(needed, 1.0), 0),
        safe_c=Celsius(safe_c),
    )
    yield notice("note", "held-as-safe", text, BIRD_HOLDS[0])


def _is_held(case: Case, safe_c: float) -> bool:
    """Whether it goes on until less, and then rests as long as makes that as safe."""
    is_bird = case.done.is_bird
    if not is_bird and safe_c != NOT_INTACT.value:
        return False
    stays = case.history.stays
    for each in case.history.heated:
        at = next((i for i, stay in enumerate(stays) if stay.step == each.step), len(stays))
        needed = held_as_safe_min(each.reaches.low, is_bird=is_bird)
        rests_h = sum(stay.hours for stay in stays[at + 1 : at + 2] if stay.state == "cooked")
        if each.is_certain and needed and 60.0 * rests_h >= needed:
            return True
    return False


def warming_h(trace: Trace | None) -> float:
    """How long the slowest point is between 10 and 54 °C before it is hot the first time [h].

    Parameters: trace, the slowest point over the hours, None without heat.
    Returns: hours, in smoke, oven, water or any other heat; until the end of what is known where
    it never gets hot.
    Raises: nothing.
    Source: FSIS Appendix A (from memory).
    """
    if trace is None:
        return 0.0
    hours, slowest_c = trace.hours, trace.slowest_c
    hot = np.flatnonzero(slowest_c >= WARM_TO_C.value)
    end = int(hot[0]) + 1 if len(hot) else len(hours)
    hours, slowest_c = hours[:end], slowest_c[:end]
    if len(hours) < 2 or slowest_c[0] >= WARM_TO_C.value:
        return 0.0
    return float(_between(hours, slowest_c, WARM_FROM_C.value, WARM_TO_C.value))


def _between(hours: Vector, values: Vector, low: float, high: float) -> float:
    """How long values are between two limits, straight between the samples [h]."""
    first, last = values[:-1], values[1:]
    rise = np.where(last == first, 1.0, last - first)
    begins, ends = (np.clip((limit - first) / rise, 0.0, 1.0) for limit in (low, high))
    part = np.abs(ends - begins)
    flat = (last == first) & (first >= low) & (first < high)
    return float(np.sum(np.diff(hours) * np.where(flat, 1.0, np.where(last == first, 0.0, part))))


def warms_slowly(case: Case) -> Iterator[Notice]:
    """The hours of the slowest point between 10 and 54 °C, whatever heats it."""
    if case.is_animal and case.history.heated:
        is_cured = case.has_mix and case.judged.nitrite.verdict == "ok"
        hours = warming_h(case.history.trace)
        yield from judge_warming(hours, case.meat, is_intact=case.is_intact, is_cured=is_cured)


def judge_warming(hours: float, meat: Meat, *, is_intact: bool, is_cured: bool) -> Iterator[Notice]:
    """Judge the hours of the slowest point between 10 and 54 °C; at a limit it still passes.

    Parameters: hours [h]; meat; is_intact, whether nothing has taken its outside to its inside;
    is_cured, whether it has enough nitrite.
    Returns: a caution beyond six hours and, of red meat, a stop beyond nine; of birds and what is
    not intact, uncured, a caution beyond four and a stop beyond six.
    Raises: nothing.
    Source: FSIS Appendix A (from memory); four and nine hours by common practice.
    """
    opened = meat.kind == "poultry" or not is_intact or meat.form == "ground"
    is_risky = opened and not is_cured
    is_red = meat.kind in ("pork", "beef", "lamb", "game")
    stop = WARMING_H if is_risky else WARMING_STOP_H if is_red else None
    limit = UNCURED_WARMING_H if is_risky else WARMING_H
    level: Level | None = "caution" if hours > limit.value else None
    if stop is not None and hours > stop.value:
        level, limit = "stop", stop
    if level is not None:
        text = say(
            "About {hours} between 10 and {54 °C} inside; {limit} are the most. A smaller or "
            "flatter piece, or more heat, is through sooner.",
            hours=span(hours),
            limit=Hours(limit.value),
        )
        yield notice(level, "warms-slowly", text, limit)
