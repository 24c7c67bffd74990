"""The power of the reckonings: each limit of the core, a tenth off, is caught."""

import random

import pytest

from pantry_core.heat import cooling, warm
from pantry_core.rules import constants, cures, inside, profiles, raw_clock, smoke
from pantry_core.rules.listing import rules_in
from pantry_core.rules.rule import Rule
from tests.reference import test_check, test_heat_limits, test_weigh
from tests.reference.asking import rules_asked
from tests.reference.reckoning import near_a_limit, random_document

SIZES = {"choice": 400, "mix": 1600, "near": 1600, "heat": 500, "recipe": 600}
"""The reckonings, and how many cases of each are tried."""
NO_LIMITS = {
    # figures by which nothing is judged, or of things that are not weighed out here
    "week-an-inch", "mm-an-inch", "brine-freezing", "old-fashioned-salt", "thick-for-mass",
    "thin-for-mass", "thaw-fridge", "thaw-least", "meat-density", "ordinary-salt", "scale-doubt",
    "water-in-belly", "water-in-duck", "water-in-white-fish", "water-in-salmon",
    "water-in-mackerel", "nitrite-in-a-tablespoon", "no-nitrite", "raw-cured-fish-keeps",
    "smoked-fish-hold", "tender-from", "tender-to", "herbs-in-oil", "cooling-from", "frozen-raw",
    "cooling-cured-from", "leftovers", "cooling-cured-nitrite", "bacon-ascorbate",
    "nitrite-salt-least", "nitrite-salt-most", "heap", "nitrate-in-saltpetre", "seasoned",
    "fridge-goal",
}  # fmt: skip
OF_HISTORIES = {
    # asked of a history, and tried there
    "herbs-in-oil-on-meat", "herbs-in-oil-on-meat-stop", "herbs-in-oil-acid", "herbs-in-oil-salt",
    "wholly-cured-salt", "wholly-cured-share", "wholly-cured-nitrite", "partly-cured-salt",
    "partly-cured-nitrite", "protected-out-of-the-cure", "dry-salted", "warm-air-asks",
    "bone-taint", "bone-taint-depth", "smoke-warming", "smoke-warming-uncured", "warming-stop",
    "parasites-killed",
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
    left_out = NO_LIMITS | OF_HISTORIES
    return [
        each for each in found.values()
        if each.value and each.id not in left_out and not each.id.endswith("-usual")
    ]  # fmt: skip


def is_caught(case: tuple[str, int]) -> bool:
    """Whether a reckoning sees that something is wrong, in one of its cases."""
    reckoning, at = case
    dice = random.Random(at)
    return bool({
        "choice": lambda: test_heat_limits.disagreement_on_a_choice(dice),
        "mix": lambda: test_weigh.disagreement(random_document(dice)),
        "near": lambda: test_weigh.disagreement(near_a_limit(dice)),
        "heat": lambda: test_heat_limits.disagreement(dice),
        "recipe": lambda: test_check.disagreement(test_check.random_check(dice)),
    }[reckoning]())  # fmt: skip


def stands(case: tuple[str, int]) -> None:
    """Nothing is wrong in a case as the limits are."""
    assert not is_caught(case), case


@pytest.fixture(scope="module")
def readers():
    """The cases in which each limit is asked for, by its id; none is caught as it stands."""
    cases = [(name, at) for at in range(max(SIZES.values())) for name in SIZES if at < SIZES[name]]
    return rules_asked(cases, stands)


@pytest.mark.parametrize("rule", limits(), ids=lambda rule: rule.id)
@pytest.mark.parametrize("factor", [0.9, 1.1])
def test_a_limit_off_by_a_tenth_is_caught(rule, factor, readers):
    assert readers.see(rule, factor, is_caught), f"{rule.id} goes unseen"
