"""The power of the reckonings: each limit of the core, a tenth off, is caught."""

import random

import pytest

from pantry_core.heat import cooling, warm
from pantry_core.rules import constants, cures, inside, profiles, raw_clock, smoke
from pantry_core.rules.listing import rules_in
from pantry_core.rules.rule import Rule
from tests.reference import test_check, test_heat_limits, test_weigh
from tests.reference.reckoning import near_a_limit, random_document

MOST_CASES = 2500
NO_LIMITS = {
    # figures by which nothing is judged, or of things that are not weighed out here
    "week-an-inch", "mm-an-inch", "brine-freezing", "old-fashioned-salt", "thick-for-mass",
    "thin-for-mass", "thaw-fridge", "thaw-least", "meat-density", "ordinary-salt", "scale-doubt",
    "water-in-belly", "water-in-duck", "water-in-white-fish", "water-in-salmon",
    "water-in-mackerel", "nitrite-in-a-tablespoon", "no-nitrite", "raw-cured-fish-keeps",
    "smoked-fish-hold", "tender-from", "tender-to", "herbs-in-oil", "cooling-from",
    "cooling-cured-from", "leftovers", "cooling-cured-nitrite", "bacon-ascorbate",
    "nitrite-salt-least", "nitrite-salt-most", "heap", "nitrate-in-saltpetre", "seasoned",
}  # fmt: skip


def limits() -> list[Rule]:
    """Every rule by which a mix is judged."""
    modules = (constants, cures, raw_clock, smoke, inside, cooling, warm)
    of_profiles = [each for each in vars(profiles).values() if isinstance(each, Rule)]
    by_case = [
        rule
        for profile in profiles.PROFILES.values()
        for case in profile.nitrite.values()
        for rule in (case.most, case.enough)
    ]
    nitrates = [rule for each in profiles.PROFILES.values() for rule in each.nitrate.values()]
    found = {each.id: each for each in (*rules_in(*modules), *of_profiles, *by_case, *nitrates)}
    return [each for each in found.values() if each.id not in NO_LIMITS and each.value]


def is_caught() -> bool:
    """Whether the reckonings see that something is wrong."""
    dice, of_choices = random.Random(7), random.Random(7)
    for at in range(MOST_CASES):
        if test_heat_limits.disagreement_on_a_choice(of_choices):
            return True
        document = random_document(dice) if at % 2 else near_a_limit(dice)
        if test_weigh.disagreement(document) or test_heat_limits.disagreement(dice):
            return True
        if at % 4 == 0 and test_check.disagreement(test_check.random_check(dice)):
            return True
    return False


def test_nothing_is_caught_as_it_stands():
    assert not is_caught()


@pytest.mark.parametrize("rule", limits(), ids=lambda rule: rule.id)
@pytest.mark.parametrize("factor", [0.9, 1.1])
def test_a_limit_off_by_a_tenth_is_caught(rule, factor):
    right = rule.value
    object.__setattr__(rule, "value", right * factor)
    try:
        assert is_caught(), f"{rule.id} at {rule.value} goes unseen"
    finally:
        object.__setattr__(rule, "value", right)
