"""The same kitchen in pounds and in metric units: every page says the same quantities."""

import os
import random
import re

import pytest

from pantry_web.feasts.actions.add_dish import add_dish
from tests.reference.dishes import random_dish
from tests.web.test_quantities import FRACTIONS, OF
from tests.web.texts import Texts

KITCHENS = int(os.environ.get("KITCHENS", "3"))
PAGES = ("mix", "steps", "notes", "weighing", "label", "cold")
WHOLE = r"[−-]?\d{1,3}(?: \d{3})+|[−-]?\d[\d.]*"
FIGURE = re.compile(
    rf"(?<![\w.,])(?=[\d¼½¾⅛⅜⅝⅞−-])(?P<amount>(?:{WHOLE})?[¼½¾⅛⅜⅝⅞]?)"
    rf"(?: to (?P<to>(?:{WHOLE})?[¼½¾⅛⅜⅝⅞]?))? "
    r"(?P<unit>°[CF]|lb|oz|kg|g|mm|cm|in|ml|l|qt|cups?|cu ft)(?![\w/])"
)
BESIDE = re.compile(r"(?<= g) \(?[\d.]+ oz\)?|(?<= oz) (?:\d{1,3}(?: \d{3})+|[\d.]+) g\b(?! to)")
"""The same mass in other units, beside it."""
KINDS = {
    "°C": "degrees", "°F": "degrees", "mm": "length", "cm": "length", "in": "length",
    "ml": "volume", "l": "volume", "qt": "volume", "cup": "volume", "cups": "volume",
    "cu ft": "volume", "lb": "mass", "oz": "mass", "kg": "mass", "g": "mass",
}  # fmt: skip
NEAR = {
    "degrees": lambda _: 7.3, "length": lambda true: 0.04 * true + 2.5,
    "volume": lambda true: 0.13 * true + 60.0, "mass": lambda true: 0.03 * true + 60.0,
}  # fmt: skip
"""How far both may be apart by their roundings: an oven's marks, an eighth of an inch, a quarter
of a quart and of a pound."""


def value_of(text):
    """The number that stands for itself or with a fraction."""
    part = FRACTIONS.get(text[-1:], 0.0)
    whole = text[:-1] if part else text
    return float(whole.replace("−", "-").replace(" ", "") or 0.0) + part


def figures_of(page):
    """The quantities that a page says, by their kinds, in order [°C, mm, ml, g]."""
    text = BESIDE.sub("", " ".join(Texts(page).but("option", "cite")))
    said, pounds = {"degrees": [], "length": [], "volume": [], "mass": []}, None
    for found in FIGURE.finditer(text):
        unit = found["unit"]
        for amount in filter(None, (found["amount"], found["to"])):
            value = value_of(amount)
            if unit == "°F":
                value = (value - 32.0) / 1.8
            else:
                value *= {"cu ft": 28316.8, "°C": 1.0}.get(unit) or OF[unit]
            follows = unit == "oz" and pounds is not None and found.start() - pounds <= 1
            if follows:
                said["mass"][-1] += value
            else:
                said[KINDS[unit]].append(value)
        pounds = found.end() if unit == "lb" else None
    return said


@pytest.mark.parametrize("seed", range(KITCHENS))
def test_every_page_says_the_same_quantities_in_pounds(cook, quince, feast, seed):
    dice = random.Random(seed)
    dish = add_dish(feast, "Made up", random_dish(dice))
    seen = 0
    paths = [f"/dishes/{dish.pk}/{name}/" for name in PAGES]
    for path in (*paths, "/", "/shopping/", "/fire/", f"/feasts/{feast.pk}/"):
        said = {}
        for units in ("metric", "imperial"):
            type(quince).objects.filter(pk=quince.pk).update(units=units)
            answer = cook.get(path)
            said[units] = figures_of(answer.content.decode()) if answer.status_code == 200 else {}
        assert said["metric"].keys() == said["imperial"].keys()
        for kind, true in said["metric"].items():
            shown = said["imperial"][kind]
            assert len(shown) == len(true), (path, kind, true, shown)
            for one, other in zip(true, shown, strict=True):
                assert abs(one - other) <= NEAR[kind](abs(one)), (path, kind, one, other)
            seen += len(true)
    assert seen > 10
