"""Hours too warm that nobody planned: mishaps, and a fridge that was read warm."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime

from pantry_core.dish.answer import DishStep
from pantry_core.dish.clock import Clock
from pantry_core.heat.warm import HOT_C, hours_too_warm
from pantry_core.history.log import Happened, hours_between
from pantry_core.history.stays import Stay
from pantry_core.rules.constants import FRIDGE_STOP_C
from pantry_core.rules.raw_clock import ASKS_H


@dataclass(frozen=True, slots=True)
class Met:
    """Hours too warm before the heat and after it [h]; whether some of them were hot.

    `read_c` is what was read last in the cold [°C].
    """

    hours: float
    after_h: float
    is_hot: bool
    read_c: float | None


def warm_hours(
    clock: Clock,
    stays: Sequence[Stay],
    steps: Sequence[DishStep],
    zero_h: float,
    zero: datetime | None,
    *,
    is_mackerel: bool = False,
) -> Met:
    """What mishaps and warm readings of the fridge come to.

    Parameters: clock, with the log; stays; steps; zero_h, where the stays' hours begin [h] from
    zero; is_mackerel, whether it is a fish that forms histamine.
    Returns: the hours. A warm reading counts from the last cold one to the next, but not where the
    food was read at 5 °C or below within a quarter of an hour.
    Raises: OutOfRange.
    Source: FDA Food Code 3-501.16; USDA (from memory).
    """
    log = clock.log
    if log is None or zero is None:
        return Met(0.0, 0.0, is_hot=False, read_c=None)
    cooked_h = next((each.from_h for each in stays if each.state == "hot"), float("inf"))

    def hour(moment: datetime) -> float:
        return hours_between(zero, moment) - zero_h

    before = after = 0.0
    is_hot = False
    for each in log.all_of("mishap"):
        if each.hours is None:
            continue
        counted = hours_too_warm(
            each.kind or "left-out", each.hours, each.temperature_c, is_mackerel=is_mackerel
        )
        is_hot |= counted > 0 and (each.temperature_c or 0.0) > HOT_C.value
        if hour(each.at) <= cooked_h:
            before += counted
        else:
            after += counted
    read = [
        (hour(each.at), each.temperature_c)
        for each in _of_the_fridge(log.all_of("temperature-read"), stays, steps, hour, cooked_h)
        if each.temperature_c is not None
    ]
    now_h = hour(log.now)
    counted = _read_warm(read, stays, min(now_h, cooked_h))
    last_c = read[-1][1] if read and now_h <= cooked_h else None
    return Met(before + counted, after, is_hot, last_c)


def _of_the_fridge(
    read: Sequence[Happened],
    stays: Sequence[Stay],
    steps: Sequence[DishStep],
    hour: Callable[[datetime], float],
    cooked_h: float,
) -> list[Happened]:
    """Readings of what lies in the cold: not of its brine before it, nor at the heat."""
    cold = {each.id for each in steps if each.with_piece and each.medium is None}
    in_cold = [(s.from_h, s.to_h) for s in stays if s.place == "fridge" and s.is_raw]
    return [
        each
        for each in read
        if each.step in cold
        and hour(each.at) <= cooked_h
        and any(begins <= hour(each.at) <= ends for begins, ends in in_cold)
    ]


def _read_warm(read: Sequence[tuple[float, float]], stays: Sequence[Stay], until_h: float) -> float:
    """Hours about which the readings say that they were warm."""
    total, cold_h = 0.0, None
    for i, (at_h, c) in enumerate(read):
        if c <= FRIDGE_STOP_C.value:
            cold_h = at_h
            continue
        begins = next((s.from_h for s in stays if s.from_h <= at_h <= s.to_h), at_h)
        following = read[i + 1] if i + 1 < len(read) else None
        if following is not None and following[1] <= FRIDGE_STOP_C.value:
            if following[0] - at_h <= ASKS_H.value:
                continue
            end_h = following[0]
        elif following is None:
            if until_h - at_h <= ASKS_H.value:
                break
            end_h = until_h
        else:
            end_h = following[0]
        since_h = max(begins, cold_h or begins)
        total += max(end_h - since_h, 0.0)
        cold_h = end_h
    return total
