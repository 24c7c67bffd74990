"""Cooling, warmth and smoke against a judge made of the published figures as literals."""

import random

import pytest

from pantry_core.heat.chill import brine_warm
from pantry_core.heat.choice import doneness
from pantry_core.heat.cooling import cooling
from pantry_core.heat.inside import inside_rule
from pantry_core.heat.thermometer import boiling_c, checked
from pantry_core.heat.warm import HOT_C, hours_too_warm, judge_fridge, judge_hours_too_warm
from pantry_core.meat import Meat
from pantry_core.mixes.keeping import judge_raw
from pantry_core.rules import raw_clock
from pantry_web.sentences import said

CASES = 3000


def cooled(since_h, now_c, *, cured, again):
    """FDA Food Code 3-501.14; FSIS Appendix B for whole cured pieces (from memory)."""
    warm, cold, first, whole = (27, 7, 5, 15) if cured else (21, 5, 2, 6)
    if since_h > whole:
        return "discard"
    if now_c <= cold:
        return "cold"
    if now_c <= warm or since_h <= first:
        return "on-time"
    return "discard" if cured or again else "reheat"


def warmed(kind, hours, read_c, *, mackerel):
    """USDA: a closed fridge keeps 4 h, then 2 h, 1 above 32 °C; FDA fish guide (from memory)."""
    counted = max(hours - 4, 0) if kind == "power-out" and read_c is None else hours
    if read_c is not None and read_c <= (4.4 if mackerel else 5):
        counted = 0
    counted *= 2 if mackerel else 1
    most = 1 if (read_c or 0) > 32 else 2
    return "stop" if counted > most else "caution" if counted else None


LEAST = {  # by the cook's choice (common practice); 63 for 3 min what is opened (Food Code)
    "beef": 52, "lamb": 52, "game": 52, "pork": 58, "breast": 57, "opened": 63, "fish": 48,
}  # fmt: skip
RULE = {"breast": 74, "opened": 68}


def chosen(case, celsius):
    """Whether a temperature may be chosen, and whether something is said of it."""
    if celsius < LEAST[case]:
        return ["stop"]
    return ["caution"] if celsius < RULE.get(case, 63) else []


def choice_told(case, celsius):
    """What the core says of a temperature that a cook chose."""
    kind = {"breast": "poultry", "opened": "beef"}.get(case, case)
    meat = Meat(kind=kind, mass_g=900.0, thickness_mm=40.0, shape="slab")
    opened = ("bladed",) if case == "opened" else ()
    rule = inside_rule(meat, opened)
    found = doneness(meat, opened, rule, celsius, may_be_pink=case == "breast")
    return [each.level for each in found.notices]


def disagreement_on_a_choice(dice) -> str | None:
    """What one random temperature of a cook's choice is judged otherwise by the core."""
    case, celsius = dice.choice(list(LEAST)), dice.uniform(42, 76)
    same = choice_told(case, celsius) == chosen(case, celsius)
    return None if same else f"choice {case} {celsius}"


def disagreement(dice) -> str | None:
    """What one random case is judged otherwise by the core than by the figures above."""
    since_h = dice.choice(
        [dice.uniform(0, 20), dice.choice([2, 5, 6, 15]) * dice.uniform(0.9, 1.1)]
    )
    now_c = dice.choice([5, 7, 21, 27]) * dice.uniform(0.88, 1.12)
    cured, again = dice.random() < 0.5, dice.random() < 0.3
    judged = cooling(since_h, now_c, is_cured=cured, is_reheated=again)
    if judged.verdict != cooled(since_h, now_c, cured=cured, again=again):
        return f"cooling {since_h} {now_c} {cured}"
    kind = dice.choice(["power-out", "fridge-warm", "left-out"])
    hours = dice.choice([dice.uniform(0, 9), dice.uniform(0.9, 1.1), dice.uniform(1.85, 2.15),
                         4 + dice.uniform(1.5, 2.5)])  # fmt: skip
    read_c = dice.choice([None, dice.uniform(4, 5.6), dice.uniform(28, 36)])
    mackerel = dice.random() < 0.3
    counted = hours_too_warm(kind, hours, read_c, is_mackerel=mackerel)
    told = judge_hours_too_warm(counted, is_hot=(read_c or 0) > HOT_C.value)
    if (told and told.level) != warmed(kind, hours, read_c, mackerel=mackerel):
        return f"warmth {kind} {hours} {read_c} {mackerel}"
    celsius = dice.uniform(3.4, 5.6)
    level = [] if celsius <= 4.4 else ["caution"] if celsius <= 5 else ["stop"]
    if [each.level for each in brine_warm(celsius)] != level:
        return f"brine {celsius}"
    fridge = judge_fridge(celsius)
    code = None if celsius <= 4.4 else "fridge-warm" if celsius <= 5 else "fridge-too-warm"
    return None if (fridge and fridge.code) == code else f"fridge {celsius}"


def test_random_cases_agree_with_the_figures():
    dice = random.Random(424)
    for _ in range(CASES):
        assert disagreement(dice) is None
        assert disagreement_on_a_choice(dice) is None


def test_the_raw_clock_passes_at_its_limit():
    limits = raw_clock.HISTAMINE_FISH
    levels = [judge_raw(limits, 24 * days) for days in (1, 1.01, 2, 2.01)]
    assert [each and each.level for each in levels] == [None, "caution", "caution", "stop"]


@pytest.mark.parametrize(("feet", "fahrenheit"), [
    # USDA, cooking at high altitude (from memory): where water boils
    (0, 212.0), (2000, 208.4), (5000, 203.0), (7500, 198.4), (10_000, 194.0),
])  # fmt: skip
def test_water_boils_where_the_tables_say(feet, fahrenheit):
    assert boiling_c(0.3048 * feet) == pytest.approx((fahrenheit - 32.0) / 1.8, abs=0.6)


@pytest.mark.parametrize(("ice", "boiling", "verdict", "read", "true"), [
    (0.5, 99.5, "right", 60.0, 60.0), (2.0, 102.0, "off", 62.0, 60.0),
    (0.0, 96.0, "off", 48.0, 50.0), (-7.0, 100.0, "broken", 60.0, 60.0),
])  # fmt: skip
def test_a_thermometer_is_right_within_a_degree_and_put_right_straight_between(
    ice, boiling, verdict, read, true
):
    # USDA, kitchen thermometers (from memory): 0 °C in ice; put right by hand, by the rule of three
    found = checked(ice, boiling, 0.0)
    assert found.verdict == verdict
    assert found.put_right(read) == pytest.approx(true, abs=0.05)


def test_a_degree_off_is_two_in_fahrenheit():
    # a difference is 1.8 times as many degrees, by definition
    assert said(checked(0.5, 99.5, 0.0).said, "imperial") == "It is right within 2 °F."
