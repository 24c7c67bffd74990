"""The history of a piece: where it is, how warm, in what, and what it holds, stay by stay."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from math import ceil

from pantry_core.dish.answer import DishStep
from pantry_core.dish.clock import Clock
from pantry_core.dish.cooking import Cook
from pantry_core.dish.curing import Settled
from pantry_core.dish.request import DishRequest
from pantry_core.dish.stays.laid import Laid, OnTheClock, laid_out
from pantry_core.dish.stays.mishaps import warm_hours
from pantry_core.dish.stays.places import Places, is_heat
from pantry_core.dish.stays.salted import held_at, lies_in_of, soaked
from pantry_core.dish.stays.warmed import Warming, readings_at, stood_warm, warmed
from pantry_core.heat.choice import Doneness
from pantry_core.heat.doneness import BIRD_LEAST_C
from pantry_core.heat.forecast import Reading
from pantry_core.history.log import Log
from pantry_core.history.stays import Band, History, Soaked, State, Stay
from pantry_core.routes.customs import KEPT_WARM_C
from pantry_core.routes.steps import Route
from pantry_core.rules.constants import FRIDGE_STOP_C, THAW_H_PER_KG, THAW_LEAST_H
from pantry_core.rules.inside import NOT_INTACT, OPENED_LEAST
from pantry_core.rules.raw_clock import HISTAMINE_FROM_C

LONGEST_THAW = 1.25
"""A thaw takes so many times as long as is usual at the most (common practice)."""
QUARTER_H = 0.25
FROZEN_C = -5.0
"""Below it the piece is frozen (our choice)."""
BREAK_H = 2.0
"""After so long out of the heat the next heat is another one (the two hours)."""


@dataclass(frozen=True, slots=True)
class _Subject:
    """What the stays are made of."""

    settled: Settled
    cook: Cook
    places: Places
    soak: Soaked | None
    warming: Warming | None
    curing: str | None
    cooks_from: int | None
    cooked_from: int | None
    warm_above_c: float


def history_of(
    asked: DishRequest,
    steps: Sequence[DishStep],
    settled: Settled,
    cook: Cook,
    way: Route,
    clock: Clock,
) -> History:
    """What happens to the piece, done and to come.

    Parameters: asked; steps as they are edited; settled, its cure; cook; way, its route; clock,
    with what is planned and what happened.
    Returns: its history from the purchase to the table. Facts go before what is planned, that
    before what is usual.
    Raises: OutOfRange.
    Source: the models of `salt.travel` and `heat.through`.
    """
    curing = _curing_step(settled, way, steps)
    clocked = laid_out(steps, curing, clock)
    laid = tuple(_from_the_purchase(clocked))
    if not laid:
        return History(())
    zero_h = laid[0].from_h
    laid = tuple(replace(x, from_h=x.from_h - zero_h, to_h=x.to_h - zero_h) for x in laid)
    now_h = None if clocked.now_h is None else clocked.now_h - zero_h
    places = Places(asked.house)
    warming = warmed(laid, cook, way, clock.log, places)
    cooks_from, cooked_from = _cooked(laid, warming, cook.done)
    is_mackerel = settled.piece.meat.species == "mackerel"
    subject = _Subject(
        settled, cook, places, _soaked(settled, laid, curing, warming), warming, curing, cooks_from,
        cooked_from,
        HISTAMINE_FROM_C.value if is_mackerel else FRIDGE_STOP_C.value,
    )  # fmt: skip
    stays = tuple(_stays(laid, subject))
    met = warm_hours(clock, stays, steps, zero_h, clocked.zero, is_mackerel=is_mackerel)
    return History(
        stays, warming.heated if warming else (), warming.trace if warming else None,
        subject.soak, now_h, met.hours, is_hot=met.is_hot, warm_after_h=met.after_h,
        fridge_read_c=met.read_c, went_in_g=_went_in_g(clock.log, steps),
        read_at_heat=_read((each for each in steps if is_heat(each)), clock.log),
        read_after=_read(_after_the_heat(steps), clock.log),
        has_left_the_heat=_has_left(steps, clock.log),
    )  # fmt: skip


def _went_in_g(log: Log | None, steps: Sequence[DishStep]) -> float | None:
    """What the piece weighed when it was put in, by the last weight before it [g]."""
    put_in = None if log is None else log.first("put-in")
    if log is None or put_in is None:
        return None
    if put_in.mass_g is not None:
        return put_in.mass_g
    at_home = {"", *(each.id for each in steps if each.place is not None)}
    before = [
        each for each in log.all_of("weighed")
        if each.at <= put_in.at and each.mass_g and each.step in at_home
    ]  # fmt: skip
    return before[-1].mass_g if before else None


def _after_the_heat(steps: Sequence[DishStep]) -> Sequence[DishStep]:
    """The steps after the last one at the heat."""
    last = max((i for i, each in enumerate(steps) if is_heat(each)), default=len(steps))
    return steps[last + 1 :]


def _read(steps: Iterable[DishStep], log: Log | None) -> tuple[Reading, ...]:
    """What the probe read in some steps, in the order of its hours."""
    read = [one for each in steps for one in readings_at(each.id, log)]
    return tuple(sorted(read, key=lambda one: one.at_h))


def _has_left(steps: Sequence[DishStep], log: Log | None) -> bool:
    """Whether the last heat has begun and something after it as well."""
    heats = [i for i, each in enumerate(steps) if is_heat(each)]
    if log is None or not heats or not log.has_begun(steps[heats[-1]].id):
        return False
    return any(log.has_begun(each.id) for each in steps[heats[-1] + 1 :])


def _curing_step(settled: Settled, way: Route, steps: Sequence[DishStep]) -> str | None:
    """The step of the route in which the piece lies in its cure, whatever it is called now."""
    if settled.way is None:
        return None
    by_route = next((each.id for each in way.steps if each.kind == settled.way.id), None)
    return by_route if any(each.id == by_route for each in steps) else None


def _from_the_purchase(clocked: OnTheClock) -> Iterator[Laid]:
    """All but what comes before the piece is in the house: steps without a place."""
    has_it = False
    for each in clocked.laid:
        has_it = has_it or each.step is None or each.step.place not in (None, "shop")
        if has_it and (each.hours > 0 or each.step is not None):
            yield each


def _cooked(
    laid: Sequence[Laid], warming: Warming | None, done: Doneness
) -> tuple[int | None, int | None]:
    """The step with which the heat that cooks the piece begins, and the one that cooks it."""
    if warming is None:
        return None, None
    safe_c = done.safe_c
    if done.is_bird:
        safe_c = BIRD_LEAST_C  # held there it is as safe
    elif safe_c == NOT_INTACT.value:
        safe_c = OPENED_LEAST.value
    by_step = {each.step: each for each in warming.heated}
    heats = [i for i, each in enumerate(laid) if is_heat(each.step)]
    cooked = next(
        (i for i in heats
         if safe_c is None
         or by_step[laid[i].step.id].hottest.high >= safe_c - 0.05),  # type: ignore[union-attr]
        None,
    )  # fmt: skip
    if cooked is None:
        return None, None
    first = cooked
    for i in reversed(heats):
        if (
            i < first
            and sum(each.hours for each in laid[i + 1 : first]) <= BREAK_H
            and not any(
                each.step is not None and each.step.place in ("fridge", "freezer")
                for each in laid[i + 1 : first]
            )
        ):
            first = i
    return first, cooked


def _soaked(
    settled: Settled, laid: Sequence[Laid], curing: str | None, warming: Warming | None
) -> Soaked | None:
    at = next((i for i, each in enumerate(laid) if each.step and each.step.id == curing), None)
    if at is None:
        return None
    end = warming.first if warming else len(laid)
    return soaked(settled, laid[at], laid[at + 1 : end])


def _stays(laid: Sequence[Laid], subject: _Subject) -> Iterator[Stay]:
    kilos = subject.settled.piece.meat.mass_g / 1000.0
    longest_h = LONGEST_THAW * max(THAW_LEAST_H.value, THAW_H_PER_KG.value * kilos)
    left_h, stuffed = 0.0, False
    for i, each in enumerate(laid):
        stuffed = stuffed or (each.step is not None and each.step.form == "stuffed")
        around_c = subject.places.around_c(each.step, is_after_heat=False)
        if around_c <= FROZEN_C:
            left_h = longest_h
        elif around_c > FRIDGE_STOP_C.value:
            left_h = 0.0
        thaws_h = 0.0 if around_c <= FROZEN_C else min(left_h, each.hours)
        if around_c > FROZEN_C:  # a thaw is one step
            left_h = left_h - thaws_h if each.step is None else 0.0
        thawed_h = each.from_h + thaws_h
        if thaws_h:
            thawing = _stay(i, replace(each, to_h=thawed_h), subject, thaws=True)
            yield replace(thawing, is_stuffed=stuffed)
        if not thaws_h or thawed_h < each.to_h:
            stay = _stay(i, replace(each, from_h=thawed_h), subject, thaws=False)
            yield replace(stay, is_stuffed=stuffed)


def _stay(i: int, laid: Laid, subject: _Subject, *, thaws: bool) -> Stay:
    warming, places = subject.warming, subject.places
    is_after = subject.cooks_from is not None and i >= subject.cooks_from
    around_c = places.around_c(laid.step, is_after_heat=is_after)
    place = places.place_of(laid.step, is_after_heat=is_after)
    is_in = laid.step is not None and laid.step.id == subject.curing
    state = _state(i, laid, subject, around_c, is_in=is_in, thaws=thaws)
    at = None if warming is None or i < warming.first else i - warming.first
    inside_c, warmest_c = _inside(at, laid, subject, around_c)
    salt, nitrite = held_at(subject.soak, laid.to_h)
    return Stay(
        laid.from_h, laid.to_h, laid.step.id if laid.step else None, place,
        lies_in_of(subject.settled) if is_in else "", around_c, inside_c, warmest_c, salt, nitrite,
        state, "read" if laid.is_read else "meant",
        laid.step.medium if laid.step else None,
        0.0 if state == "frozen" else _out_h(laid, around_c, subject),
        until=laid.step.until if laid.step else None,
    )  # fmt: skip


def _inside(at: int | None, laid: Laid, subject: _Subject, around_c: float) -> tuple[Band, float]:
    warming = subject.warming
    if at is None or warming is None:
        is_warm = around_c > FRIDGE_STOP_C.value and laid.hours > 0
        if not is_warm:
            return Band(around_c, around_c), around_c
        inside_c, rim_c = stood_warm(subject.cook, subject.places, around_c, laid.hours)
        return Band(inside_c, inside_c), rim_c
    step = laid.step.id if laid.step else ""
    heated = next((each for each in warming.heated if each.step == step), None)
    if heated is not None:
        return heated.reaches, max(warming.rims_c[at], heated.reaches.high)
    inside_c = warming.ends_c[at]
    return Band(inside_c, inside_c), warming.rims_c[at]


def _state(
    i: int, laid: Laid, subject: _Subject, around_c: float, *, is_in: bool, thaws: bool
) -> State:
    if around_c <= FROZEN_C or thaws:
        return "frozen"
    first, cooked = subject.cooks_from, subject.cooked_from
    if first is None or cooked is None or i < first:
        return "curing" if is_in else "raw"
    if i <= cooked or is_heat(laid.step) or around_c >= KEPT_WARM_C.value:
        return "hot"
    warming = subject.warming
    is_cold = warming is not None and warming.ends_c[i - warming.first] <= FRIDGE_STOP_C.value
    return "cold" if is_cold else "cooked"


def _out_h(laid: Laid, around_c: float, subject: _Subject) -> float:
    """How much of a stay counts as out of the cold [h].

    Work that fills its step on the grid counts by its hands: the piece is put away after them.
    """
    step = laid.step
    if around_c <= subject.warm_above_c or is_heat(step):
        return 0.0
    if step is not None and step.place == "smoker" and step.medium is not None:
        return 0.0
    if step is None or laid.is_read or not step.hands_min:
        return laid.hours
    hands_h = step.hands_min / 60.0
    is_filled = laid.hours <= QUARTER_H * ceil(hands_h / QUARTER_H - 1e-9) + 1e-6
    return min(hands_h, laid.hours) if is_filled else laid.hours
