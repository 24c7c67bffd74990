"""The table of foods against the database that it was taken from, and the names of foods."""

import random
import runpy
import sqlite3
from pathlib import Path

import pytest

from pantry_core.foods.ingredient import ingredient
from pantry_core.foods.table import TABLE_FILES, food, named, rows
from pantry_core.foods.words import food_of, foods_named
from pantry_core.mixes.check import check
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.recipes.lines import read_line
from pantry_core.recipes.weights import line_grams
from pantry_core.routes.cut_figures import CUT_FIGURES
from pantry_core.routes.cuts import CUTS
from pantry_core.rules.ingredients import INGREDIENTS
from pantry_core.rules.rule import Mark

MADE = runpy.run_path(str(Path(__file__).parents[2] / "docs" / "make_foods.py"))
DATABASE = MADE["database"]()
CHLORIDE_PER_SODIUM = 35.453 / 22.98977
"""Atomic masses, by IUPAC."""


@pytest.fixture(scope="module")
def database():
    if DATABASE is None:
        pytest.skip("the database's package is not installed")
    with sqlite3.connect(f"file:{DATABASE}?mode=ro", uri=True) as connection:
        yield connection


def test_the_table_is_what_the_database_says(database):
    assert MADE["page"]() == TABLE_FILES.joinpath("table.tsv").read_text()


def test_salt_water_and_a_cup_of_two_hundred_foods_agree(database):
    """USDA National Nutrient Database, release 28: read again, by another way."""
    cups = 0
    for number in random.Random(36).sample(sorted(rows()), 200):
        water, sodium, grams, measure = database.execute(
            "SELECT Data_Water, Data_Major_Minerals_Sodium, "
            "Data_Household_Weights_1st_Household_Weight, "
            "Data_Household_Weights_1st_Household_Weight_Description FROM food_data "
            "WHERE CAST(Nutrient_Data_Bank_Number AS INTEGER) = ?", (int(number),),
        ).fetchone()  # fmt: skip
        of_table = food(number)
        salt = float(sodium) / 1000 * (1 + CHLORIDE_PER_SODIUM) / 100
        assert of_table.salt == pytest.approx(salt, rel=2e-3, abs=1e-7)
        assert of_table.water == pytest.approx(float(water) / 100, abs=1e-4)
        if measure.startswith("1 cup"):
            assert of_table.g_per_ml == pytest.approx(float(grams) / 236.5882365, rel=1e-3)
            cups += 1
    assert cups > 60


def test_no_name_of_a_food_means_two_and_all_are_in_the_table():
    assert len(named()) >= 295
    assert TABLE_FILES.joinpath("table.tsv").stat().st_size < 200_000
    for key, names in named().items():
        assert names.number in rows(), key
        assert all(names.names), key
        for language in names.names:
            for name in language:
                meant = food_of(name)
                assert meant is not None, name
                assert food(meant).number == names.number, (name, key, meant)


@pytest.mark.parametrize(
    ("text", "grams", "salt_g"),
    [  # mg of sodium a 100 g: capers 2964, miso 3728, bacon 833, feta 1116, cubes 24000 (SR 28)
        ("1/2 cup capers", 8 * 8.6, 8 * 8.6 * 0.02964 * 2.542),
        ("1 tbsp miso", 275 / 16, 275 / 16 * 0.03728 * 2.542),
        ("3 slices bacon", 84.0, 84 * 0.00833 * 2.542),
        ("100 g feta", 100.0, 1.116 * 2.542),
        ("2 chicken stock cubes", 9.6, 9.6 * 0.24 * 2.542),
        ("2 onions", 286.0, 0.0),
        ("1 Asian pear", 122.0, 0.0),
        ("a stick of butter", 113.5, 0.0),
    ],
)
def test_what_is_bought_by_the_piece_has_grams_and_salt(text, grams, salt_g):
    line = read_line(text)
    assert line_grams(line, line.key) == pytest.approx(grams, rel=2e-3)
    found = ingredient(line.key)
    counted = found.salt * grams if found.role == "sauce" else 0.0
    assert counted == pytest.approx(salt_g, rel=0.02)
    request = CheckRequest.model_validate({
        "profile": "us", "method": "even-brine",
        "meat": {"kind": "pork", "mass_g": 2000, "thickness_mm": 50, "shape": "slab"},
        "lines": [{"name": "water", "amount": 2, "unit": "l"},
                  {"name": line.key, "amount": line.amount, "unit": line.unit}],
    })  # fmt: skip
    assert request.mix(1.0).salt == pytest.approx(salt_g, rel=0.02, abs=1e-9)
    assert [each.grams for each in check(request).lines] == [2000.0, pytest.approx(grams, rel=2e-3)]


@pytest.mark.parametrize(
    ("key", "number"),
    [("soy-sauce", "16123"), ("fish-sauce", "06179"), ("vinegar", "02048"), ("oil", "04053"),
     ("citrus-juice", "09152"), ("buttermilk", "01088"), ("yoghurt", "01116"), ("wine", "14096"),
     ("beer", "14003"), ("honey", "19296"), ("brown-sugar", "19334"), ("treacle", "19304"),
     ("salt-table", "02047")],
)  # fmt: skip
def test_ingredients_of_the_rules_have_the_figures_of_the_table(key, number):
    ours, of_table = INGREDIENTS[key], food(number)
    assert number in ours.g_per_ml.source
    if of_table.g_per_ml is not None:
        assert ours.g_per_ml.value == pytest.approx(of_table.g_per_ml, rel=0.015)
    if ours.role == "sauce":
        assert ours.water == pytest.approx(of_table.water, abs=1e-4)
        assert ours.salt == pytest.approx(of_table.salt, abs=3e-3)  # of dairy it is not counted


def test_the_figures_of_cuts_are_those_of_the_table():
    """Water and refuse as looked up; what is neither water nor fat stays when it is cooked."""
    for cut, figures in CUT_FIGURES.items():
        raw = rows()[figures.raw]
        assert figures.water == pytest.approx(raw.water_pct / 100, abs=1e-4), cut
        assert figures.bone in (None, pytest.approx(raw.refuse_pct / 100, abs=1e-4)), cut
        if figures.loss is not None:
            cooked = rows()[figures.cooked]
            left = (100 - raw.water_pct - raw.fat_pct) / (100 - cooked.water_pct - cooked.fat_pct)
            assert figures.loss == pytest.approx(1 - left, abs=1e-3), cut
    assert len(CUT_FIGURES) >= len(CUTS) - 4


def test_a_second_national_table_has_about_the_same_water():
    """Indian Food Composition Tables 2017: other fields and seasons, up to 3.6 % apart."""
    twice = [food(key) for key in named() if food(key).also]
    assert len(twice) >= 35
    for each in twice:
        number, water = each.also.split(", ")
        assert abs(100 * each.water - float(water.rstrip(" %"))) <= 3.6, each.key
        assert number in each.source.source


def test_a_figure_says_where_it_is_from():
    assert food("miso").source.mark is Mark.SOURCE
    assert "16112" in food("miso").source.source
    assert foods_named("smoked haddock") == ("15035",)
    assert foods_named("") == ()
    with pytest.raises(KeyError):
        food("unicorn")
