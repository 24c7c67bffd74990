"""`check` against recipes reckoned by hand-typed figures."""

import random

import pytest

from pantry_core.formats.operations import check_document, weigh_document
from pantry_core.mixes.check import check
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.rules.ingredients import INGREDIENTS, SODIUM
from tests.reference.limits import JUDGED, TooNear, judged
from tests.reference.recipes import (
    as_asked,
    random_mixed_recipe,
    random_recipe,
    reckon_mix,
    reckon_recipe,
)
from tests.reference.reckoning import random_days, random_meat, random_treatment

RECIPES = 120
LIMIT = {"us": 200, "eu": 120}  # 9 CFR 424.21(c); Regulation (EU) 2023/2108 (from memory)


def test_recipes_in_cups_agree_with_the_reckoning():
    dice = random.Random(1903)
    for _ in range(RECIPES):
        document = random_recipe(dice)
        answer, wanted = check_document(document), reckon_recipe(document)
        codes = {each["code"] for each in answer["notices"]}
        got = [line["grams"] for line in answer["lines"]]
        assert got == pytest.approx(wanted["grams"], abs=0.1, rel=0.001)
        assert answer["pickle"]["mass_g"] == pytest.approx(wanted["pickle"], rel=0.001)
        assert answer["pickle"]["salt_pct"] == pytest.approx(wanted["pickle_pct"], rel=0.001)
        for name in ("target_pct", "in_meat_pct"):
            assert answer["salt"][name] == pytest.approx(wanted[name], rel=0.001)
        nitrite = answer["nitrite"]
        assert nitrite["even_ppm"] == pytest.approx(wanted["even_ppm"], abs=0.1, rel=0.001)
        assert nitrite["pickup_ppm"] == pytest.approx(wanted["pickup_ppm"], abs=0.1, rel=0.001)
        assert ("undissolved" in codes) == wanted["undissolved"]
        if wanted["even_ppm"] > LIMIT[document["profile"]] + 0.1:
            assert nitrite["verdict"] == "over"
            assert "nitrite-over" in codes


def disagreement(document) -> str | None:
    """What `check` and the reckoning disagree about, None where they agree or cannot tell."""
    mix, answer = reckon_mix(document), check(CheckRequest.model_validate(document))
    try:
        wanted = judged(as_asked(document, mix), mix)
    except TooNear:
        return None
    codes = {(each.code, each.level) for each in answer.notices}
    got = (
        {name: getattr(answer.nitrite, name) for name in wanted["counts"]},
        answer.nitrite.verdict, answer.nitrate.verdict, answer.nitrate.limit_ppm,
        answer.inside_c, {each for each in codes if each[0] in JUDGED},
    )  # fmt: skip
    asked = (
        {name: pytest.approx(ppm, abs=0.05) for name, ppm in wanted["counts"].items()},
        wanted["verdict"], wanted["nitrate_verdict"], wanted["most_nitrate"],
        wanted["inside_c"], wanted["codes"],
    )  # fmt: skip
    return next((f"{ours}, not {theirs}" for ours, theirs in zip(got, asked, strict=True)
                 if ours != theirs), None)  # fmt: skip


def random_check(dice):
    """A sound `check` document of any method, form, treatment and mix of curing salts."""
    document = random_mixed_recipe(dice, random_meat(dice))
    return document | {"days": random_days(dice), "treatment": random_treatment(dice)}


def test_random_recipes_agree_with_the_reckoning():
    dice = random.Random(1905)
    for _ in range(800):
        document = random_check(dice)
        found = disagreement(document)
        assert found is None, (found, document)


def test_what_is_put_right_meets_target_and_limit():
    dice = random.Random(1904)
    for _ in range(40):
        instead = check_document(random_recipe(dice))["instead"]
        assert weigh_document(instead["input"]) == instead["answer"]
        assert "stop" not in {each["level"] for each in instead["answer"]["notices"]}
        # the recipe's own salt, unless it is too much: 3.5 % is old-fashioned (common practice)
        assert 0.5 <= instead["answer"]["salt"]["target_pct"] <= 3.5


def test_sauces_by_their_sodium():
    # USDA National Nutrient Database, release 28, no. 16123 and 06179: 5637 and 7720 mg of sodium
    # in 100 g; sodium chloride is 58.44 / 22.99 of its sodium by molar masses
    for name, milligrams in (("soy-sauce", 5637), ("fish-sauce", 7720)):
        assert SODIUM[name].value == milligrams
        by_molar_mass = milligrams / 1000 * 58.44 / 22.99 / 100
        assert INGREDIENTS[name].salt == pytest.approx(by_molar_mass, rel=0.0005)


def test_a_cup_of_flaky_salt_weighs_half_of_a_cup_of_fine_salt():
    # 135 and 240 g a cup by common practice; strength is salt over salt and water
    recipe = {
        "profile": "us", "method": "even-brine",
        "meat": {"kind": "pork", "mass_g": 2000, "thickness_mm": 50, "shape": "slab"},
        "lines": [{"name": "water", "amount": 2, "unit": "us-quart"},
                  {"name": "salt-compact-coarse", "amount": 1, "unit": "us-cup"}],
    }  # fmt: skip
    by_name = {each["name"]: each["pickle_pct"] for each in check_document(recipe)["salts"]}
    assert by_name["Hollow flaky salt"] == pytest.approx(100 * 135 / (135 + 1892.7), rel=0.001)
    assert by_name["Compact coarse salt"] == pytest.approx(100 * 240 / (240 + 1892.7), rel=0.001)
