"""What must be said of a dish, each notice with the step that it holds back, and the verdict."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from pantry_core.dish.answer import DishNotice, DishStep, Verdict
from pantry_core.dish.curing import Settled
from pantry_core.dish.lifting import lift_of
from pantry_core.dish.request import DishRequest
from pantry_core.dish.room import fitted
from pantry_core.heat.chill import brine_warm
from pantry_core.history.log import Log, hours_between
from pantry_core.mixes.cautions import in_order
from pantry_core.mixes.curing_cautions import scale
from pantry_core.mixes.result import Line
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Hours
from pantry_core.rules.rule import Mark, Source
from pantry_core.text import say

DISCARD = "discard"
AT_THE_TABLE = frozenset((
    "parasites", "raw-meat", "not-cooked", "fish-not-cooked", "not-done", "cools-slowly", DISCARD,
))  # fmt: skip
AT_THE_HEAT = frozenset((
    "water-phase-low", "warms-slowly", "inside-low", "fat-too-hot", "cold-smoke", "stuffed-early",
    "kept-warm",
))  # fmt: skip
FROM_THE_STEPS = frozenset((
    "raw-clock", "seasons", "salty-edge", "parasites", "water-phase-low", "enzyme-fruit",
    "herbs-in-oil",
))  # fmt: skip
"""What is judged by the history of the piece, not by the sheet."""
_PRACTICE = Source("", Mark.PRACTICE)


@dataclass(frozen=True, slots=True)
class Spots:
    """The steps that can be held back: where it goes in, where the heat begins, the last one."""

    put_in: str | None
    heat: str | None
    last: str | None


def spots_of(settled: Settled, steps: Sequence[DishStep]) -> Spots:
    """Where a notice can hold a dish back."""
    curing = None
    if settled.way is not None:
        way_id = settled.way.id
        curing = next((each.id for each in steps if each.kind == way_id), None)
    heat = next((each.id for each in steps if each.kind == "cook"), None)
    last = steps[-1].id if steps else None
    return Spots(curing or heat or last, heat or last, last)


def with_steps(found: Iterable[Notice], spots: Spots, *, is_in: bool) -> tuple[DishNotice, ...]:
    """Notices with the steps that they hold back, stops first, each said once.

    Of what is to be thrown away only that is said.

    Parameters: found; spots; is_in, whether the piece has gone in: then the raw clock holds back
    the heat.
    """
    told: dict[tuple[str, str], DishNotice] = {}
    for each in in_order(tuple(found)):
        step = None
        if each.level == "stop":
            step = spots.put_in
            if each.code in AT_THE_TABLE:
                step = spots.last
            elif each.code in AT_THE_HEAT or (each.code == "raw-clock" and is_in):
                step = spots.heat
        lift = lift_of(each.code, is_in=is_in) if each.level == "stop" else None
        made = DishNotice(each.level, each.code, each.text, each.basis, step, lift)
        told.setdefault((each.code, each.text), made)
    gone = tuple(each for each in told.values() if each.code == DISCARD)
    return gone or tuple(told.values())


def verdict_of(notices: Iterable[DishNotice]) -> Verdict:
    """Stop where one stops; caution where one asks for a change; else go."""
    levels = {each.level for each in notices if not each.is_reminder}
    if any(each.level == "stop" for each in notices):
        return "stop"
    return "caution" if "caution" in levels else "go"


def of_the_vessel(asked: DishRequest, settled: Settled) -> Iterable[Notice]:
    """What must be said of the vessel that was chosen."""
    vessel = asked.house.vessel
    if vessel is None or settled.way is None:
        return
    yield from fitted(settled.judged, vessel).notices


def of_its_scale(settled: Settled) -> Iterable[Notice]:
    """What the scale leaves in doubt of the curing salt of a recipe."""
    if settled.written is None:
        return
    grams = sum(grams for _, grams in settled.judged.cures)
    if grams > 0.0:
        yield from scale(settled.judged, (Line("curing-salt", grams),))


def of_the_time(settled: Settled, log: Log | None, steps: Sequence[DishStep]) -> Iterable[Notice]:
    """What is said of a rest that is passed over, and of what lies longer than it may."""
    way = settled.way
    if way is None:
        return
    if settled.purpose == "through" and settled.lying.rest_h[0] > 0:
        yield from _rest(steps, log)
    curing = next((each for each in steps if each.kind == way.id), None)
    if log is None or curing is None or log.put_in is None or curing.max_h is None:
        return
    lain_h = hours_between(log.put_in, log.taken_out(curing.id) or log.now)
    if way.timing == "lift" and lain_h > curing.max_h:
        text = say(
            "It has lain {lain_h}; {max_h} were the most. Taste a slice: too salty asks "
            "for a soak in fresh water.",
            lain_h=Hours(lain_h, 0),
            max_h=Hours(curing.max_h, 0),
        )
        yield notice("caution", "overstayed", text, _PRACTICE)


def of_its_brine(
    asked: DishRequest, log: Log | None, steps: Sequence[DishStep]
) -> Iterable[Notice]:
    """What a reading of the brine means before the meat is in."""
    if log is None or log.put_in is not None:
        return
    read = log.last("temperature-read")
    of_the_brine = {each.id for each in steps if not each.with_piece}
    if read is not None and read.temperature_c is not None and read.step in of_the_brine:
        yield from brine_warm(read.temperature_c, asked.profile)


def _rest(steps: Sequence[DishStep], log: Log | None) -> Iterable[Notice]:
    """A rest that was taken out of the steps, or passed over."""
    has_rest = any(each.kind == "rest" for each in steps)
    cook = next((each.id for each in steps if each.kind == "cook"), None)
    rest = next((each.id for each in steps if each.kind == "rest"), None)
    was_passed = (
        log is not None
        and cook is not None
        and log.has_begun(cook)
        and not (rest is not None and log.has_begun(rest))
    )
    if has_rest and not was_passed:
        return
    text = (
        "Without a rest the outside stays salty and the inside flat: half a day in the fridge, "
        "uncovered, evens it out."
    )
    yield notice("caution", "rest-skipped", text, _PRACTICE)
