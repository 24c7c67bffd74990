"""All questions that are put to the history of a piece."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from pantry_core.heat import cooling, doneness, warm
from pantry_core.history.stays import Stay
from pantry_core.judging.case import Case
from pantry_core.judging.fish import cold_smoked, parasites, salted_enough, smoke_not_cold
from pantry_core.judging.heat import heated_enough, warms_slowly
from pantry_core.judging.raw import bone_taint, kept_raw
from pantry_core.judging.stuffing import stuffed_just_before
from pantry_core.judging.warm import cooled, kept_warm, out_of_the_cold
from pantry_core.judging.weighed_in import OTHER_PIECE, weighed_in
from pantry_core.mixes.keeping import herbs_in_oil, softening
from pantry_core.mixes.request import WeighRequest
from pantry_core.notice import Notice
from pantry_core.rules import constants, inside, raw_clock, smoke
from pantry_core.rules import heat as heat_rules
from pantry_core.rules import parasites as parasite_rules
from pantry_core.rules.rule import Rule

Asks = Callable[[Case], Iterator[Notice]]


@dataclass(frozen=True, slots=True)
class Question:
    """One rule as a question: its name, its limits with their sources, and what asks it."""

    name: str
    limits: tuple[Rule, ...]
    asks: Asks


def enzymes(case: Case) -> Iterator[Notice]:
    """Raw enzyme fruit, by the hours that the piece lies in it."""
    request = case.request
    masses = {each.name: each.mass_g for each in request.sauces}
    yield from softening(_lain(case), masses)


def oil_and_herbs(case: Case) -> Iterator[Notice]:
    """Raw garlic or herbs under oil, by the hours that the piece lies in them."""
    masses = {each.name: each.mass_g for each in case.request.sauces}
    yield from herbs_in_oil(_lain(case), masses, case.judged.mix.water_phase_pct)


def _lain(case: Case) -> WeighRequest:
    """The request with the days that the piece really lies in its mix."""
    hours = sum(each.hours for each in lies_in(case))
    days = hours / 24.0
    return case.request.model_copy(update={"days": days or None})


def lies_in(case: Case) -> list[Stay]:
    """The stays in which something of the mix lies around it."""
    return [each for each in case.history.stays if each.lies_in]


def _raw_limits() -> tuple[Rule, ...]:
    limits: list[Rule] = []
    for each in vars(raw_clock).values():
        if isinstance(each, raw_clock.RawLimits):
            limits.extend((each.caution, each.stop))
    return tuple(limits)


QUESTIONS: tuple[Question, ...] = (
    Question("hours raw", (
        *_raw_limits(), raw_clock.CURED_PPM, constants.LONG_CURE_SALT_PCT,
        raw_clock.WHOLLY_SALT_PCT, raw_clock.WHOLLY_SHARE, raw_clock.WHOLLY_PPM,
        raw_clock.PARTLY_SALT_PCT, raw_clock.PARTLY_PPM, raw_clock.OUT_AS_LONG_H,
        raw_clock.SURFACE_SALT_PCT, raw_clock.HISTAMINE_FROM_C,
    ), kept_raw),
    Question("what went in", (OTHER_PIECE,), weighed_in),
    Question("deep bone", (raw_clock.TAINT_D, raw_clock.TAINT_MM), bone_taint),
    Question("out of the cold before the heat", (
        warm.TWO_HOURS, warm.ONE_HOUR_HOT, warm.HOT_C, constants.FRIDGE_STOP_C, raw_clock.ASKS_H,
    ), out_of_the_cold),
    Question("below 60 after the heat", (warm.TWO_HOURS,), kept_warm),
    Question("cooling", (
        cooling.WARM_C, cooling.COLD_C, cooling.FIRST_H, cooling.ALL_H, cooling.CURED_WARM_C,
        cooling.CURED_COLD_C, cooling.CURED_FIRST_H, cooling.CURED_ALL_H, cooling.CURED_PPM,
    ), cooled),
    Question("hot enough", (
        inside.INTACT, inside.NOT_INTACT, inside.GROUND, inside.POULTRY, inside.STUFFED,
        inside.FISH, inside.WILD_DEER, inside.OTHER_GAME, inside.RABBIT,
        heat_rules.CLIMB_LARGE_C, heat_rules.CLIMB_SMALL_C,
    ), heated_enough),
    Question("from 10 to 54 in time", (
        smoke.WARMING_H, smoke.UNCURED_WARMING_H, smoke.WARMING_STOP_H, doneness.WARM_FROM_C,
        doneness.WARM_TO_C,
    ), warms_slowly),
    Question("parasites", (
        *(rule for each in (*parasite_rules.FROZEN.values(), parasite_rules.FROZEN_DEEP)
          for rule in (each.celsius, each.hours)), inside.KILLS_PARASITES_C,
    ), parasites),
    Question("salt of smoked fish", (
        smoke.AIR_SALT_PCT, smoke.VACUUM_SALT_PCT,
    ), salted_enough),
    Question("cold smoke", (raw_clock.PARTLY_PPM,), cold_smoked),
    Question("smoke that is not cold", (heat_rules.COLD_SMOKE_MOST_C,), smoke_not_cold),
    Question("stuffing", (warm.TWO_HOURS,), stuffed_just_before),
    Question("enzyme fruit", (
        constants.ENZYME_THIN_H, constants.ENZYME_THICK_H, constants.ENZYME_SLOW_H,
    ), enzymes),
    Question("herbs in oil", (
        constants.HERBS_ON_MEAT_D, constants.HERBS_ON_MEAT_STOP_D, constants.PASTE_SALT_PCT,
        constants.PASTE_ACID_SHARE,
    ), oil_and_herbs),
)  # fmt: skip


def judged_by_history(case: Case) -> Iterator[Notice]:
    """All that the history of a piece asks to be said.

    Parameters: case.
    Returns: stops, cautions and notes; none of them asks for the name of a method, a way or a step.
    Raises: OutOfRange.
    Source: as of each question's limits.
    """
    for each in QUESTIONS:
        yield from each.asks(case)
