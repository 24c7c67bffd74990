"""Doneness by the cook's choice: how low it may go, and what is said of it."""

from collections.abc import Collection, Iterator
from dataclasses import dataclass

from pantry_core.heat.doneness import hold_needed_min
from pantry_core.heat.inside import is_intact
from pantry_core.meat import Meat, Treatment
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius, Minutes, Seconds
from pantry_core.rules.inside import (
    INTACT,
    NOT_INTACT,
    OPENED_LEAST,
    PINK_BREAST,
    PINK_PORK,
    POULTRY,
    RARE,
    RAW_FOR_PARASITES,
)
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

CHOSEN_BASIS = "by the cook's choice"


@dataclass(frozen=True, slots=True)
class Doneness:
    """How hot the thickest part is to be, by rule or choice; how long held [min]; notices.

    `safe_c` is what it may not be below, well done as the cook may want it [°C]; `is_bird`: less is
    as safe when it is held as long as the table for birds says.
    """

    rule: Rule | None
    hold_min: float
    notices: tuple[Notice, ...]
    safe_c: float | None = None
    is_bird: bool = False


def doneness(
    meat: Meat,
    treatment: Collection[Treatment],
    rule: Rule | None,
    chosen_c: float | None,
    *,
    may_be_pink: bool,
) -> Doneness:
    """The inside temperature that the cook chose, where it may be chosen.

    Parameters: meat; treatment, what was done to it; rule by which it is safe at once, None where
    it is not cooked; chosen_c [°C], None: by the rule; may_be_pink, whether it is a breast of duck
    or goose.
    Returns: what the dish goes by. Below what may be chosen it is the rule, with a stop that says
    so; between the two the choice, with a caution and the hold that makes it as safe.
    Raises: OutOfRange for temperatures outside 30 to 110 °C.
    Source: FSIS Appendix A; FDA Food Code 3-401.11 (from memory); the least by common practice.

    >>> beef = Meat(kind="beef", mass_g=900.0, thickness_mm=40.0, shape="slab")
    >>> doneness(beef, (), INTACT, 55.0, may_be_pink=False).rule.value
    55.0
    """
    is_bird = rule is POULTRY and meat.form != "ground" and "stuffed" not in treatment
    if rule is None or chosen_c is None or chosen_c == rule.value:
        return Doneness(rule, 0.0, (), None if rule is None else rule.value, is_bird)
    if chosen_c > rule.value:
        return Doneness(_chosen(chosen_c), 0.0, (), rule.value, is_bird)
    least = _least(meat, treatment, rule, may_be_pink=may_be_pink)
    if chosen_c < least.value:
        text = say(
            "{chosen_c} in the thickest part is less than may be chosen for this: {least} "
            "at the least, {rule} by the rule.",
            chosen_c=Celsius(chosen_c),
            least=Celsius(least.value),
            rule=Celsius(rule.value),
        )
        low = notice("stop", "inside-low", text, least)
        return Doneness(rule, 0.0, (low,), rule.value, is_bird)
    needed = hold_needed_min(chosen_c) if meat.kind != "fish" else None
    held = needed if rule is NOT_INTACT and needed else 0.0
    said = tuple(_said(meat, rule, chosen_c, needed))
    return Doneness(_chosen(chosen_c), held, said, chosen_c)


def _chosen(chosen_c: float) -> Rule:
    return Rule("inside-chosen", chosen_c, "°C", CHOSEN_BASIS, Mark.PRACTICE)


def _least(meat: Meat, treatment: Collection[Treatment], rule: Rule, *, may_be_pink: bool) -> Rule:
    """How low it may go: where nothing else is said not below the rule."""
    if meat.kind == "fish" and meat.form != "ground" and not meat.is_kept_smoked:
        return RAW_FOR_PARASITES
    if rule is NOT_INTACT:
        return OPENED_LEAST
    if not is_intact(treatment) or "stuffed" in treatment:
        return rule
    if may_be_pink:
        return PINK_BREAST
    if rule is INTACT:
        return PINK_PORK if meat.kind == "pork" else RARE
    return rule


def _said(meat: Meat, rule: Rule, chosen_c: float, needed: float | None) -> Iterator[Notice]:
    if meat.kind == "fish":
        text = say(
            "{chosen_c} is by your choice; {rule} is the rule. Below it fish counts as raw "
            "for parasites.",
            chosen_c=Celsius(chosen_c),
            rule=Celsius(rule.value),
        )
    elif needed is None:
        text = say(
            "{chosen_c} is by your choice; {rule} with 3 min of rest is the rule. No hold "
            "makes this as safe: not for the pregnant, over 65, under 5 or of weak "
            "immunity.",
            chosen_c=Celsius(chosen_c),
            rule=Celsius(rule.value),
        )
    else:
        minutes = (
            say("{needed}", needed=Minutes(needed, 0))
            if needed >= 1.0
            else say("{needed}", needed=Seconds(60.0 * needed, 0))
        )
        text = say(
            "{chosen_c} is by your choice; {rule} is the rule. Held there for {minutes} it "
            "is as safe.",
            chosen_c=Celsius(chosen_c),
            rule=Celsius(rule.value),
            minutes=minutes,
        )
    yield notice("caution", "inside-chosen", text, rule)
