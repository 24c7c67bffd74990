"""Parts of the constraint model: dishes with their boundaries, rules with their literals."""

import math
from dataclasses import dataclass, field
from typing import Literal

from ortools.sat.python import cp_model

from pantry_core.plan.grid import SLOT_S, Grid
from pantry_core.plan.problem import Dish

Rule = Literal[
    "too-late", "not-yet", "place-full", "heat", "asleep", "away", "work", "shut", "hands-full",
    "locked", "after",
]  # fmt: skip
"""Kinds of constraint that can be named.

"not-yet": what has begun would be done too soon; "heat": a place has another temperature.
"""

Group = tuple[int, int, Rule]
"""A named constraint: index of the dish, of its pending step, and its kind."""

Stay = list[tuple[int, int]]

LATENESS = 2
"""An hour too late weighs as so many of deviation."""

LONGEST = 400 * 24 * 4
"""Slots of a step without a longest time."""


@dataclass
class DishModel:
    """Boundary i is the start of pending step i and the end of the step before, in slots.

    `windows` are the shortest and longest lengths of the pending steps, in slots; `stays` for each
    the closed intervals of slots in one of which it lies from start to end, None: anywhere.
    `hour` is the slot of its hour. `begun_s` is the bound start of the first pending step, in
    seconds from the anchor, when it has one; boundary 0 is then where the grid goes on from now.
    """

    index: int
    dish: Dish
    begun_s: int | None
    hour: int = 0
    windows: list[tuple[int, int]] = field(default_factory=list)
    stays: list[Stay | None] = field(default_factory=list)
    bounds: list[cp_model.IntVar] = field(default_factory=list)
    sizes: list[cp_model.IntVar] = field(default_factory=list)
    overrun: bool = False

    def length_s(self, i: int) -> cp_model.LinearExpr:
        """Length of a pending step [s]."""
        if i == 0 and self.begun_s is not None:
            return self.bounds[1] * SLOT_S - self.begun_s
        return self.sizes[i] * SLOT_S

    def wished_s(self, i: int) -> int | None:
        """Length that a pending step should have [s]; one past its time should end."""
        step = self.dish.pending[i]
        return step.max_s if i == 0 and self.overrun else step.prefer_s

    def planned(self) -> range:
        """Pending steps whose start is still open."""
        return range(0 if self.begun_s is None else 1, len(self.dish.pending))


@dataclass
class Model:
    """All dishes, and a literal for each group of constraints.

    `joining` are, for each step of a trip, whether it goes along with another one. `presence` is
    whether a dish is there at all, by its index, where it may be left out; `help` are the pairs of
    hands that are lacking, by slot, where they may lack.
    """

    grid: Grid
    cp: cp_model.CpModel
    dishes: list[DishModel]
    groups: dict[Group, cp_model.IntVar] = field(default_factory=dict)
    joining: list[cp_model.IntVar] = field(default_factory=list)
    presence: dict[int, cp_model.IntVar] = field(default_factory=dict)
    help: dict[int, list[cp_model.IntVar]] = field(default_factory=dict)

    def group(self, dish: int, step: int, rule: Rule) -> cp_model.IntVar:
        """The literal of a named group, made on first use."""
        key = (dish, step, rule)
        if key not in self.groups:
            self.groups[key] = self.cp.new_bool_var(f"{rule}-{dish}-{step}")
        return self.groups[key]

    def bounds(self) -> list[cp_model.IntVar]:
        """Every boundary of every dish."""
        return [bound for each in self.dishes for bound in each.bounds]


def early_slots(dish: Dish) -> int:
    """How much before its hour a dish may end, in slots."""
    return math.floor(dish.early.total_seconds() / SLOT_S)


def late_slots(dish: Dish) -> int:
    """How much after its hour a dish may end, in slots."""
    return math.floor(dish.late.total_seconds() / SLOT_S)


def edges(variable: cp_model.IntVar) -> tuple[int, int]:
    """First and last value of a variable's domain; the field counts from the front only."""
    domain = list(variable.proto.domain)
    return int(domain[0]), int(domain[len(domain) - 1])


def pairs(variable: cp_model.IntVar) -> list[tuple[int, int]]:
    """The closed intervals of a variable's domain."""
    domain = [int(each) for each in variable.proto.domain]
    return list(zip(domain[::2], domain[1::2], strict=True))
