"""Reading recipes: lines, headings, imports."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pantry_core.formats.operations import dish_document, read_recipe_document
from pantry_core.formats.reading import WrongInput
from pantry_core.measures.units import RECIPE_GRAMS, RECIPE_ML
from pantry_core.recipes.cut_words import CUT_WORDS
from pantry_core.recipes.found import NotARecipe, factor, from_json_ld, read_lines
from pantry_core.recipes.line import Basis
from pantry_core.recipes.lines import read_line, read_things, written
from pantry_core.recipes.piece import piece_said
from pantry_core.routes.cuts import CUTS
from pantry_core.rules.cures import CURING_SALTS
from pantry_core.rules.ingredients import INGREDIENTS
from tests.core.recipe_lines import ASK, LINES, REMARK
from tests.core.recipes_by_hand import BY_HAND

POUND, GALLON = 453.59237, 3785.411784  # by definition


def understood(line):
    """A thing as the table of lines writes it."""
    if line.is_heading:
        return REMARK
    if line.asks:
        return ASK
    per = (pytest.approx(line.per.grams),) if line.per else ()
    amount = None if line.amount is None else pytest.approx(line.amount)
    return (line.name, amount, line.unit, *per)


@pytest.mark.parametrize("row", LINES, ids=lambda row: row[0])
def test_lines(row):
    text, *wanted = row
    cups = wanted.pop() if wanted[-1] in ("metric", "australian", "imperial") else "us"
    assert [understood(line) for line in read_things(text, cups)] == wanted


def test_there_are_many_lines_in_five_languages():
    assert len(LINES) >= 150
    assert len({row[0] for row in LINES}) >= 150


@pytest.mark.parametrize(
    "text",
    ["1 tsp curing salt", "20 g cure", "1 tsp pink salt", "3 g sodium nitrate", "2 g E250",
     "4 g powder #1", "50 g Pökelsalz", "10 g sel rose", "20 g sal de cura", "1 tbsp quickcure",
     "50 g salt with 0.5 % nitrite"],
)  # fmt: skip
def test_what_may_be_a_curing_salt_offers_every_curing_salt(text):
    line = read_line(text)
    assert line.must_answer
    assert {INGREDIENTS[key].cure for key in line.keys} >= set(CURING_SALTS)


def test_read_as_a_document():
    text = (
        "5 lb pork belly\n2 tbsp pickling spice, half held back for the pot\n"
        "50 g nitrite salt (0.5 % nitrite)\n1 cup salt\n20 g sugar per kg\nLeave 5 to 7 days"
    )
    out = read_recipe_document({"text": text, "meat_g": 1000})
    assert out["days"] == 6
    assert [line["name"] for line in out["lines"]] == ["spice", "nitrite-salt", None, "sugar"]
    spice, nitrite, salt, sugar = out["lines"]
    assert spice["held_back"] == 0.5
    assert nitrite["strength"] == {"nitrite_pct": 0.5}
    assert {each["name"] for each in salt["ask"]["choices"]} > {"salt-table", "salt-hollow-flake"}
    assert sugar["per_mass_g"] == 1000
    assert nitrite["factor"] == pytest.approx(1000 / (5 * POUND))
    with pytest.raises(WrongInput, match="text"):
        read_recipe_document({"text": "1 g salt\n" * 200})


@pytest.mark.parametrize(
    ("text", "days"),
    [
        ("5 days in the ice box", 5), ("leave for 36 hours", 1.5), ("a fortnight", 14),
        ("Brine overnight", 0.625), ("fünf Tage", 5), ("5 jours", 5), ("tres días", 3),
        ("10 bis 14 Tage", 12), ("1 week", 7), ("It keeps 5 days", None), ("40 g salt", None),
    ],
)  # fmt: skip
def test_days_as_people_say_them(text, days):
    assert read_recipe_document({"text": text})["days"] == days


@pytest.mark.parametrize(
    "text",
    ["1/0 cup salt", "2 water", "1 lb pork or beef", "x" * 400, "5 kg", "water"],
)
def test_what_cannot_be_read_says_what_is_allowed(text):
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
    with pytest.raises(NotARecipe, match="use "):
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
    with pytest.raises(NotARecipe, match="use "):
        from_json_ld(content)


UNITS = sorted((set(RECIPE_GRAMS) | set(RECIPE_ML)) - {"l"})


@given(st.floats(0.001, 90_000), st.sampled_from(UNITS), st.sampled_from(sorted(INGREDIENTS)))
def test_what_is_printed_reads_back(amount, unit, key):
    line = read_line(written(amount, unit, key))
    assert line.amount == pytest.approx(amount, rel=1e-6)
    assert (line.unit, line.keys[0], line.problem) == (unit, key, "")


FRAGMENTS = st.sampled_from(
    ["1", "½", "1/2", "2 1/4", "3,5", "(", ")", " per ", "for", "lb", "cup", "salt", "pink",
     "water", "pork", "fish", "-", "to", "0", "of", "tsp.", "\u2044", "🧂", ":", "#1", "each"]
)  # fmt: skip


@given(st.one_of(st.text(max_size=320), st.lists(FRAGMENTS, max_size=14).map(" ".join)))
def test_nothing_typed_makes_a_traceback(text):
    for line in read_lines(text.replace("\n", " ")):
        assert line.text or line.problem or line.key is None
        if line.key is not None and not line.problem and line.amount is not None:
            assert line.amount >= 0


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("3 lb brisket\n1 gallon water", ("brisket", 3 * POUND, False)),
        ("1 chicken, 1.8 kg\n2 l water", ("chicken", 1800, False)),
        ("Sunday bird\n1 chicken, 1.9 kg\n2 l water", ("chicken", 1900, False)),
        ("1 kg minced veal and pork\n2 onions", ("pork-shoulder", 1000, True)),
        ("2.4 kg pork shoulder, with its rind\n60 g salt", ("pork-shoulder", 2400, False)),
        ("four goose legs\n60 g salt", ("goose-leg", None, False)),
        ("2 l water\n500 ml chicken stock", (None, None, False)),
    ],
)
def test_a_recipe_names_its_piece(text, said):
    found = piece_said(text)
    assert (found.cut, found.is_ground) == (said[0], said[2])
    assert found.mass_g == (said[1] and pytest.approx(said[1]))


def test_the_hours_at_the_heat_are_not_those_in_the_cure():
    # the line of the smoke says two hours, that of the cure five days
    text = "1 l water\n50 g table salt\nsmoked at 110 for two hours\nfive days in the fridge"
    assert read_recipe_document({"text": text})["days"] == 5.0
    first = read_recipe_document({"text": "40 g table salt\nroasted for 2 hours"})
    assert first["days"] is None


def test_every_cut_that_words_mean_is_a_cut():
    assert {cut for cut, _ in CUT_WORDS} <= set(CUTS)


def test_per_kilo_with_several_things_keeps_every_amount():
    found = read_lines("for each kilo 80 g coarse salt, 60 g brown sugar, dill, juice of 1 lemon")
    assert [(each.keys[0], each.amount, each.asks) for each in found][:2] == [
        ("salt-compact-coarse", 80.0, ""), ("brown-sugar", 60.0, ""),
    ]  # fmt: skip
    assert all(each.per == Basis("meat", 1000.0) for each in found)


CUPS_OF = {"metric": "metric", "imperial": "imperial", "us": "us"}
RECIPES = [block.strip().splitlines() for block in BY_HAND.strip().split("== ")[1:]]


@pytest.mark.parametrize("recipe", RECIPES, ids=lambda recipe: recipe[0])
def test_a_recipe_comes_back_as_it_was_typed(recipe):
    """From the text to the lines of a dish: the masses by hand, within half a per cent."""
    title, *rows = recipe
    rows = [[part.strip() for part in row.split("|")] for row in rows]
    cups = next((CUPS_OF[name] for name in CUPS_OF if name in title), "metric")
    text = "\n".join(row[0] for row in rows)
    things = [row for row in rows if row[1] != "#"]
    lines = read_recipe_document({"text": text, "cups": cups})["lines"]
    assert [each["text"] for each in lines if each["name"] or each["ask"]] == [
        row[0] for row in things
    ]
    asked = {each["text"] for each in lines if each["ask"]}
    assert asked == {row[0] for row in things if row[2] == "?"}
    kept = [
        {name: each[name] for name in ("text", "name", "amount", "unit", "per_mass_g")}
        | {"strength": each["strength"] or {}}
        for each in lines if not each["ask"]
    ]  # fmt: skip
    answer = dish_document({
        "profile": "us", "piece": {"cut": "brisket", "mass_g": 1000.0},
        "cure": {"method": "herb-marinade"}, "recipe": {"text": text, "cups": cups, "lines": kept},
    })  # fmt: skip
    mix = {each["text"]: each for each in answer["mix"]}
    for text, name, amount in things:
        if amount == "?":
            continue
        assert mix[text]["name"] == name
        per_kilo = 1000.0 / (next(e["per_mass_g"] for e in kept if e["text"] == text) or 1000.0)
        if amount.endswith("x"):
            assert mix[text]["count"] == float(amount[:-1]), text
        elif amount != "-":
            assert mix[text]["grams"] == pytest.approx(float(amount) * per_kilo, rel=0.005), text
