"""Quantities as people write them."""

import contextlib

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pantry_core.measures.quantity import NotAQuantity, parse_number, parse_quantity
from pantry_core.measures.units import GRAMS, MILLILITRES, MILLIMETRES

UNITS = pint.UnitRegistry()
NAMES_OF_PINT = {
    "us cup": "cup", "us pint": "pint", "us quart": "quart", "us gallon": "gallon",
    "imp cup": "imperial_cup", "imp pint": "imperial_pint", "imp gallon": "imperial_gallon",
    "in": "inch", "cu ft": "cubic_foot",
}  # fmt: skip


@pytest.mark.parametrize(
    ("text", "dimension", "wanted"),
    [
        ("7 lb 2 oz", "mass", "7 pound + 2 ounce"), ("7lb2oz", "mass", "7 pound + 2 ounce"),
        ("3.2kg", "mass", "3.2 kg"), ("3,2 kg", "mass", "3.2 kg"), ("3 180 g", "mass", "3180 g"),
        ("3180", "mass", "3180 g"), ("1½ lb", "mass", "1.5 pound"), ("½ kg", "mass", "0.5 kg"),
        ("0,500 kg", "mass", "0.5 kg"), (" 5 Pounds ", "mass", "5 pound"),
        ("2 1/4 in", "length", "2.25 inch"), ("2¼\"", "length", "2.25 inch"),
        ("5 cm", "length", "50 mm"), ("50", "length", "50 mm"),
    ],
)  # fmt: skip
def test_reads_as_pint_reckons(text, dimension, wanted):
    unit, base = ("g", "gram") if dimension == "mass" else ("mm", "millimetre")
    total = sum(UNITS(part).to(base).magnitude for part in wanted.split(" + "))
    assert parse_quantity(text, dimension, unit) == pytest.approx(total, rel=1e-9)


def test_units_are_those_of_pint():
    for table, base in ((GRAMS, "gram"), (MILLIMETRES, "millimetre"), (MILLILITRES, "millilitre")):
        for name, factor in table.items():
            if name != "metric cup":  # 250 ml, which Pint does not list
                theirs = UNITS(NAMES_OF_PINT.get(name, name)).to(base).magnitude
                assert factor == pytest.approx(theirs, rel=1e-7), name


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "empty"), ("a lot", "cannot be read"), ("nan", "cannot be read"),
        ("-3 kg", "below zero"),
        ("1,500 g", "1500 or 1.500"), ("3 kg 2", "lacks a unit"), ("2 oz 1 lb", "out of order"),
        ("3 mm", "no unit of weight"), ("1/0 kg", "divides by zero"), ("3 kg kg", "cannot be read"),
        ("9" * 80, "too long"), ("1e9", "no unit"), ("inf", "cannot be read"),
        ("²", "cannot be read"),
    ],
)  # fmt: skip
def test_says_what_is_allowed(text, says):
    with pytest.raises(NotAQuantity, match=says):
        parse_quantity(text, "mass", "g")


@given(st.floats(0.001, 100_000.0))
def test_every_mass_that_was_reckoned_is_read_again(grams):
    """“5 lb 3 oz” is 2353.0104193750003 g to a computer; a file of a kitchen holds all of it."""
    assert parse_quantity(f"{grams!r} g", "mass", "g") == grams


def test_water_by_mass_or_volume():
    assert parse_quantity("1½ l", "water", "g") == 1500
    assert parse_quantity("2 quarts", "water", "g") == pytest.approx(1892.705892)
    with pytest.raises(NotAQuantity, match="us pint or imp pint"):
        parse_quantity("1 pint", "water", "g")


@given(st.text(max_size=70))
def test_never_anything_but_a_number_or_a_message(text):
    for read in (parse_number, lambda t: parse_quantity(t, "mass", "g")):
        with contextlib.suppress(NotAQuantity):
            assert read(text) >= 0


@given(st.integers(0, 10**6), st.integers(0, 99), st.sampled_from(["g", "kg", "lb", "oz"]))
def test_reads_back_what_is_printed(whole, hundredths, unit):
    number = f"{whole}.{hundredths:02d}"
    read = parse_quantity(f"{number} {unit}", "mass", "g")
    assert read == pytest.approx(float(number) * GRAMS[unit])
