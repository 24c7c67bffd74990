"""In which slots a step may begin, and inside which it lies, by the hours that people keep."""

from dataclasses import dataclass
from functools import cached_property

from pantry_core.plan.grid import SLOT_S, Grid, up, whole_slots
from pantry_core.plan.hours import Hours
from pantry_core.plan.parts import LONGEST, DishModel, Rule, Stay

RUSH = 3 * 3600 // SLOT_S
"""Slots before a dish's hour from which on work keeps no hours."""


@dataclass(frozen=True)
class HoursInSlots:
    """Hours as closed intervals of whole slots, counted once for all steps of a problem."""

    grid: Grid
    hours: Hours

    @cached_property
    def awake(self) -> Stay:
        """When the cooks are awake."""
        return whole_slots(self.grid, self.hours.awake)

    @cached_property
    def home(self) -> Stay:
        """When somebody is at home."""
        return whole_slots(self.grid, self.hours.home)

    @cached_property
    def work(self) -> Stay | None:
        """When the cooks work, None: in all waking hours."""
        return None if self.hours.work is None else whole_slots(self.grid, self.hours.work)

    @cached_property
    def open(self) -> dict[str, Stay]:
        """When a place is open; one that is not named is always open."""
        return {place: whole_slots(self.grid, spans) for place, spans in self.hours.open.items()}


@dataclass(frozen=True, slots=True)
class Allowed:
    """What the hours leave to one pending step; to one that has begun they leave all.

    `is_movable`: the dish's hour is looked for, so that the hours of work are left to others.
    """

    hours: HoursInSlots
    each: DishModel
    i: int
    is_movable: bool = False

    def starts(self) -> dict[Rule, list[list[int]]]:
        """For each rule the closed intervals of slots in which the step may begin."""
        if self.i not in self.each.planned():
            return {}
        step, found = self.each.dish.pending[self.i], dict[Rule, list[list[int]]]()
        if step.hands_s:
            found["asleep"] = self._hands(self.hours.awake)
            found["away"] = self._hands(self.hours.home)
            if step.is_work and not step.attended and self._keeps_hours:
                found["work"] = [*self.at_work(), [self.each.hour - RUSH, LONGEST]]
        if step.locked_start is not None:
            locked = self.hours.grid.at_or_before(step.locked_start)
            found["locked"] = [[locked, locked]]
        return found

    def stays(self) -> dict[Rule, Stay]:
        """For each rule the closed intervals of slots in one of which the step lies."""
        if self.i not in self.each.planned():
            return {}
        step, found = self.each.dish.pending[self.i], dict[Rule, Stay]()
        if step.attended:
            found["asleep"] = self.hours.awake
            found["away"] = self.hours.home
            if self._keeps_hours:
                found["work"] = [*(self.hours.work or ()), (self.each.hour - RUSH, LONGEST)]
        if step.place in self.hours.open:
            found["shut"] = self.hours.open[step.place]
        return found

    def stay(self) -> Stay | None:
        """The intervals that all rules leave together, None: anywhere."""
        together: Stay | None = None
        for stay in self.stays().values():
            if together is None:
                together = stay
                continue
            cut = {(max(a, c), min(b, d)) for a, b in together for c, d in stay}
            together = sorted((a, b) for a, b in cut if a <= b)
        return together

    def at_work(self) -> list[list[int]]:
        """Closed intervals of slots in which the hands of the step begin in the hours of work."""
        return self._hands(self.hours.work or [])

    @property
    def _keeps_hours(self) -> bool:
        return self.hours.work is not None and not self.is_movable

    def _hands(self, spans: Stay) -> list[list[int]]:
        hands = up(self.each.dish.pending[self.i].hands_s) // SLOT_S
        return [[a, b - hands] for a, b in spans if a <= b - hands]
