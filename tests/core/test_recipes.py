"""Reading recipes: lines, headings, imports."""

import json

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from pantry_core.measures.units import RECIPE_GRAMS, RECIPE_ML
from pantry_core.recipes.found import NotARecipe, factor, from_json_ld, read_lines
from pantry_core.recipes.lines import Basis, read_line, written
from pantry_core.rules.ingredients import INGREDIENTS

POUND, GALLON = 453.59237, 3785.411784  # by definition


@pytest.mark.parametrize(
    ("text", "amount", "unit", "key"),
    [
        ("2 qt water", 2, "us-quart", "water"),
        ("1 cup coarse salt", 1, "us-cup", "salt-compact-coarse"),
        ("1½ tbsp pink curing salt", 1.5, "tbsp", "curing-salt-1"),
        ("2 1/4 tsp pink rock salt", 2.25, "tsp", "salt-rock-pink"),
        ("½ cup flaky sea salt", 0.5, "us-cup", "salt-hollow-flake"),
        ("3/4 cup (150 g) brown sugar, packed", 150, "g", "brown-sugar"),
        ("2 lb 4 oz table salt", 2.25, "lb", "salt-table"),
        ("500ml soy sauce", 500, "ml", "soy-sauce"),
        ("1 dl vinegar", 10 * 10, "ml", "vinegar"),
        ("2–3 tbsp honey", 2.5, "tbsp", "honey"),
        ("a pinch of ground cloves", 0.3, "ml", "spice"),
        ("12 juniper berries", 12, "piece", "spice"),
        ("juice of 2 lemons", 90, "ml", "citrus-juice"),
        ("- 20 g curing salt no. 2", 20, "g", "curing-salt-2"),
        ("1 imperial pint ale", 1, "imp-pint", "beer"),
        ("8 fl oz buttermilk", 1, "us-cup", "buttermilk"),
        ("1 tbsp celery seed", 1, "tbsp", "spice"),
        ("10 g celery juice powder", 10, "g", "celery-powder"),
        ("1 tsp ground ginger", 1, "tsp", "spice"),
        ("50 g ginger, grated", 50, "g", "ginger"),
    ],
)
def test_lines(text, amount, unit, key):
    line = read_line(text)
    assert (line.amount, line.unit, line.key, line.problem) == (
        pytest.approx(amount),
        unit,
        key,
        "",
    )


@pytest.mark.parametrize(
    ("text", "asks"),
    [
        ("1 tsp pink salt", True), ("3 widgets", True), ("1 cup salt", False),
        ("1 cup kosher salt", False), ("1 tbsp curing salt", False),
    ],
)  # fmt: skip
def test_what_could_be_two_things_is_asked_about(text, asks):
    line = read_line(text)
    assert line.question
    assert line.must_answer is asks
    assert (line.key is None) is asks
    assert not read_line("20 g salt").question  # by weight all salt is alike


@pytest.mark.parametrize(
    "text",
    [
        "salt to taste", "1,500 g water", "1/0 cup salt", "2 water", "3 g sodium nitrite",
        "1 lb pork and 1 lb beef", "x" * 400, "5 kg", "water",
    ],
)  # fmt: skip
def test_what_cannot_be_read_says_what_would_do(text):
    assert read_line(text).problem


@pytest.mark.parametrize(
    ("cups", "unit"), [("us", "us-cup"), ("metric", "metric-cup"), ("imperial", "imp-pint")]
)
def test_whose_cups(cups, unit):
    assert read_line("1 cup table salt", cups).unit == unit
    assert read_line("1 us cup table salt", cups).unit == "us-cup"


def test_amounts_for_a_pound_or_a_gallon():
    text = "Per pound:\n1 tsp table salt\nfor 1 gallon of water\n1 cup table salt\n2 g mace per kg"
    per = [line.per for line in read_lines(text)]
    assert per == [
        Basis("meat", POUND), Basis("meat", POUND), Basis("water", GALLON),
        Basis("water", GALLON), Basis("meat", 1000),
    ]  # fmt: skip
    assert factor(per[1], 4 * POUND, None) == pytest.approx(4)
    assert factor(per[3], 2000, GALLON / 2) == pytest.approx(0.5)
    whole = read_lines("5 lb pork belly\n50 g table salt")
    assert whole[0].is_meat
    assert factor(whole[1].per, 10 * POUND, None) == pytest.approx(2)
    with pytest.raises(NotARecipe, match="would do"):
        read_lines("1 g salt\n" * 200)


RECIPE = {"@context": "https://schema.org", "@type": "Recipe", "name": "Gammon",
          "recipeIngredient": ["2 qt water", "1 cup coarse salt"]}  # fmt: skip


@pytest.mark.parametrize(
    "content",
    [
        json.dumps(RECIPE), json.dumps([{"@type": "WebPage"}, RECIPE]),
        json.dumps({"@graph": [RECIPE | {"@type": ["Recipe", "NewsArticle"]}]}),
        f'<html><script type="application/ld+json">{json.dumps(RECIPE)}</script></html>',
    ],
)  # fmt: skip
def test_a_recipe_of_schema_org(content):
    found = from_json_ld(content.encode())
    assert found.name == "Gammon"
    assert found.lines == ("2 qt water", "1 cup coarse salt")


@pytest.mark.parametrize(
    "content",
    [
        b"", b"{", b"[" * 100_000, b"\xff\xfe", b'{"@type": "Recipe"}', b"[]", b"<html></html>",
        b'{"@type": "Person", "recipeIngredient": ["x"]}', b" " * 5_000_000,
        b'{"@type": "Recipe", "recipeIngredient": [1, null]}',
    ],
)  # fmt: skip
def test_nonsense_is_no_recipe(content):
    with pytest.raises(NotARecipe, match="would do"):
        from_json_ld(content)


UNITS = sorted((set(RECIPE_GRAMS) | set(RECIPE_ML)) - {"l"})


@settings(max_examples=5000, deadline=None)
@given(st.floats(0.001, 90_000), st.sampled_from(UNITS), st.sampled_from(sorted(INGREDIENTS)))
def test_what_is_printed_reads_back(amount, unit, key):
    line = read_line(written(amount, unit, key))
    assert line.amount == pytest.approx(amount, rel=1e-6)
    assert (line.unit, line.key, line.problem) == (unit, key, "")


FRAGMENTS = st.sampled_from(
    ["1", "½", "1/2", "2 1/4", "3,5", "(", ")", " per ", "for", "lb", "cup", "salt", "pink",
     "water", "pork", "fish", "-", "to", "0", "of", "tsp.", "\u2044", "🧂", ":", "#1", "each"]
)  # fmt: skip


@settings(max_examples=5000, deadline=None)
@given(st.one_of(st.text(max_size=320), st.lists(FRAGMENTS, max_size=14).map(" ".join)))
def test_nothing_typed_makes_a_traceback(text):
    for line in read_lines(text.replace("\n", " ")):
        assert line.text or line.problem or line.key is None
        if line.key is not None and not line.problem:
            assert line.amount is not None
            assert line.amount >= 0
