"""The list of what stands from memory: complete, and the same by arithmetic where that can be."""

import runpy
from pathlib import Path

import pytest

from pantry_core.rules.listing import all_rules
from pantry_core.rules.rule import LOOKED_UP_ON, Mark
from pantry_core.rules.verify import TO_VERIFY, left_out, resting_on

DOCS = Path(__file__).parents[2] / "docs"
RULES = {rule.id: rule for rule in all_rules()}
LB_G, OZ_G = 453.59237, 28.349523125


def test_whatever_stands_from_memory_is_on_the_list_of_about_forty():
    rules = tuple(RULES.values())
    assert list(left_out(rules)) == []
    assert 35 <= len(TO_VERIFY) <= 45
    assert all(resting_on(entry, rules) for entry in TO_VERIFY)
    written = runpy.run_path(str(DOCS / "make_verify.py"))["page"]()
    assert written == (DOCS / "verify.md").read_text(), "run docs/make_verify.py"


@pytest.mark.parametrize(
    ("rule", "ppm"),
    [  # a gallon of pickle taken as 10 lb (common practice of the regulation's own tables)
        ("us-brine", 2 * LB_G / (1000 * LB_G) * 0.10 * 1e6),
        ("us-ground", 0.25 * OZ_G / (100 * LB_G) * 1e6),
        ("us-brine-nitrate", 7 * LB_G / (1000 * LB_G) * 0.10 * 1e6),
        ("us-dry-nitrate", 3.5 * OZ_G / (100 * LB_G) * 1e6),
        ("us-ground-nitrate", 2.75 * OZ_G / (100 * LB_G) * 1e6),
        ("us-bacon-brine-skin", 120 * 0.9),
        ("eu-brine", 80 * (22.990 + 14.007 + 2 * 15.999) / (14.007 + 2 * 15.999)),  # atomic masses
        ("us-ground", 4 * OZ_G * 0.0625 / (100 * LB_G) * 1e6),  # by 4 oz of no. 1 in 100 lb
    ],
)
def test_limits_of_nitrite_come_to_the_same_by_ounces_and_gallons(rule, ppm):
    assert RULES[rule].value == pytest.approx(ppm, rel=0.005)


@pytest.mark.parametrize(
    ("rule", "fahrenheit"),
    [("inside-whole", 145), ("inside-ground", 160), ("inside-poultry", 165), ("inside-fish", 145),
     ("cooling-from", 135), ("cooling-first-stage", 70), ("cooling-second-stage", 41),
     ("cooling-cured-from", 130), ("cooling-cured-first-stage", 80), ("fridge-stop", 41),
     ("cooling-cured-second-stage", 45), ("warming-from", 50), ("warming-to", 130),
     ("histamine-from", 40), ("fridge-goal", 40), ("warm-box", 140), ("hot-kitchen", 90),
     ("kept-warm", 140), ("parasites-us-cold", -4), ("parasites-deep-cold", -31),
     ("fridge-quiet", 40)],
)  # fmt: skip
def test_degrees_are_those_of_the_documents_in_fahrenheit(rule, fahrenheit):
    assert abs(RULES[rule].value - (fahrenheit - 32) / 1.8) <= 0.5


def test_a_mark_says_when_it_was_looked_up_and_nothing_is_unchecked():
    looked_up = [rule for rule in RULES.values() if rule.mark is Mark.SOURCE]
    assert len(looked_up) > 90
    assert all(LOOKED_UP_ON in str(rule.basis) for rule in looked_up)
    assert {str(rule.mark) for rule in RULES.values()} == {
        "looked up", "from memory, not looked up", "common practice", "derived", "by definition",
    }  # fmt: skip
