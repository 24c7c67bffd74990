"""Every figure of a sentence comes back to what it was, within its rounding, in both units."""

import random
import re
from dataclasses import fields, is_dataclass
from datetime import date, datetime

import pytest
from django.urls import reverse
from django.utils.translation import override

from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import dish
from pantry_core.plan.remedies import answer
from pantry_core.quantities import (
    Between,
    Celsius,
    Centimetres,
    CuringSalt,
    Division,
    Grams,
    Kilograms,
    Millilitres,
    Millimetres,
    Moment,
    Quantity,
    Rise,
    Setting,
    literal,
)
from pantry_core.text import Text, packed, say, unpacked
from pantry_web import clock_face
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.quantities import mass, measured
from pantry_web.sentences import said
from tests.core.dishes import dish as roasting_bird
from tests.core.test_gates import at, read
from tests.core.test_many_dishes import BRINE, feast
from tests.reference.dishes import random_dish

FRACTIONS = {"¼": 0.25, "½": 0.5, "¾": 0.75, "⅛": 0.125, "⅜": 0.375, "⅝": 0.625, "⅞": 0.875}
OF = {  # by definition: in the unit of the kind
    "g": 1.0, "kg": 1000.0, "oz": 28.349523125, "lb": 453.59237, "mm": 1.0, "cm": 10.0,
    "in": 25.4, "ml": 1.0, "l": 1000.0, "cup": 236.5882365, "cups": 236.5882365, "qt": 946.352946,
}  # fmt: skip
WITHIN = {  # how far the words of a kitchen in pounds may be from the figure
    Setting: 13 / 1.8, Celsius: 0.5 / 1.8, Rise: 0.5 / 1.8, Millimetres: 25.4 / 16,
    Centimetres: 25.4 / 16, Grams: 28.35 / 7.99, Kilograms: 453.6 / 8, CuringSalt: 0.05,
    Division: 1e-9,
}  # fmt: skip
TOLD = re.compile(r"(?P<whole>[-−\d.\u202f]*)(?P<part>[¼½¾⅛⅜⅝⅞]?) (?P<unit>[a-z]+|°[CF])")


def back(text):
    """The figure that words with a unit stand for, and whether they are degrees."""
    total = 0.0
    for found in TOLD.finditer(text):
        whole = float(found["whole"].replace("−", "-").replace("\u202f", "") or 0.0)
        value = whole + FRACTIONS.get(found["part"], 0.0)
        if found["unit"].startswith("°"):
            return value, found["unit"]
        total += value * OF[found["unit"]]
    return total, ""


def quantities_in(value):
    """Every quantity of a sentence, an answer, or whatever holds them."""
    if isinstance(value, Text):
        for hole in re.findall(r"\{([^{}:]+)[^{}]*\}", value.pattern):
            named = hole in value.figures
            yield from quantities_in(value.figures[hole] if named else literal(hole))
    elif isinstance(value, Between):
        yield from (value.low, value.high)
    elif isinstance(value, Quantity):
        yield value
    elif isinstance(value, (tuple, list)):
        for each in value:
            yield from quantities_in(each)
    elif is_dataclass(value):
        for field in fields(value):
            yield from quantities_in(getattr(value, field.name))


def is_told_rightly(quantity):
    """Whether the words in pounds come back to the figure."""
    value, unit = back(measured(quantity, "imperial"))
    scale = {Kilograms: 1000.0, Centimetres: 10.0}.get(type(quantity), 1.0)
    true = quantity.value * scale
    if unit == "°F":
        true = 1.8 * true if isinstance(quantity, Rise) else 32 + 1.8 * true
        return abs(value - true) <= 1.8 * WITHIN[type(quantity)] + 1e-6
    near = WITHIN.get(type(quantity), 0.13 * abs(true) + 1.0)  # cups and quarts by their quarters
    return abs(value - true) <= near


MEASURED = (
    Celsius, Rise, Grams, CuringSalt, Division, Kilograms, Millimetres, Centimetres, Millilitres,
)  # fmt: skip


def test_every_figure_of_random_dishes_comes_back():
    dice, seen = random.Random(35), set()
    for _ in range(60):
        answer = dish(DishRequest.model_validate({"profile": "us", **random_dish(dice)}))
        for quantity in quantities_in(answer):
            if isinstance(quantity, MEASURED):
                assert is_told_rightly(quantity), quantity
                seen.add(type(quantity))
    assert {Celsius, Setting, Grams, Millimetres} <= seen


def test_a_sentence_is_read_back_as_it_was_kept():
    inside = say("{cut:lower} at {inside}, {reach}, in {5 cm}", cut=say("Loin"),
                 inside=Celsius(53.0), reach=Between(Celsius(10), Celsius(54)))  # fmt: skip
    again = unpacked(packed(inside))
    assert (again, again.pattern, again.figures) == (inside, inside.pattern, inside.figures)
    assert said(again, "imperial") == "loin at 127 °F, 50 to 129 °F, in 2 in"
    older = unpacked({"$text": "{c:g} °C for {h:.1f} h", "$with": {"c": 63.0, "h": 2.25}})
    assert said(older) == "63 °C for 2.2 h"
    assert unpacked({"$text": "no {cut!r}", "$with": {"cut": "yak"}}) == "no 'yak'"


@pytest.mark.parametrize(
    ("unit", "needed", "room", "more"),
    [  # 5, 12 and 15 l are 5.28, 12.68 and 15.85 US quarts, 0.18, 0.42 and 0.53 ft³, by definition
        ("l", "5 l", "12 l", "15 l"), ("qt", "5½ qt", "13 qt", "16 qt"),
        ("cu ft", "0.2 cu ft", "0.4 cu ft", "0.5 cu ft"),
    ],
)  # fmt: skip
def test_a_full_fridge_is_told_in_the_unit_of_its_owner(unit, needed, room, more):
    places = {"fridge": {"capacity": 12, "unit": unit}, "oven": 1}
    three = feast([BRINE], [BRINE], [BRINE], cooks=3, places=places)
    full = answer(three)
    assert full.why[0].text == "Hen: brine of Hen needs 5 l of the fridge, which holds 12 l."
    told = {said(each.text, "imperial") for each in (*full.why, *full.remedies)}
    assert f"Hen: brine of Hen needs {needed} of the fridge, which holds {room}." in told
    assert f"Make room: {more} in the fridge instead of {room}." in told


def test_a_moment_is_said_in_the_language_of_the_page():
    """The German names of days and months are those of Django's own catalogue."""
    supper = Moment(datetime(2027, 3, 18, 18, 30), "long-day-hour")
    served = say("served {at}", at=supper)
    assert str(served) == "served Thursday 18 March, 18:30"
    assert unpacked(packed(served)).figures == served.figures
    day = say("{day}", day=Moment(date(2027, 3, 18)))
    assert unpacked(packed(day)).figures == day.figures
    with override("de"):
        assert said(served) == "served Donnerstag 18 März, 18:30"
        assert said(day) == "Donnerstag 18 März"
    with clock_face.shown(lambda: "12"):
        assert said(served) == "served Thursday 18 March, 6:30 pm"


@pytest.mark.parametrize(
    ("grams", "metric", "imperial"),
    [(0.004, "0.004 g", "0.004 g"), (0.05, "0.05 g", "0.05 g"), (0.3, "0.30 g", "0.01 oz")],
)  # fmt: skip
def test_the_least_amount_is_never_nothing(grams, metric, imperial):
    assert (mass(grams, "metric"), mass(grams, "imperial")) == (metric, imperial)


def test_less_than_a_fifth_of_a_spoon_is_a_pinch_without_a_spoon(cook, feast):
    """1 % of 200 g is 2 g of salt; a tablespoon of table salt has some 18 g (common practice)."""
    breast = {"piece": {"cut": "chicken-breast", "mass_g": 200.0},
              "cure": {"method": "dry-brine", "target_salt_pct": 1.0}}  # fmt: skip
    page = cook.get(reverse("weigh-up", args=[add_dish(feast, "Breast", breast).pk]))
    page = page.content.decode()
    assert "about a pinch of grey sea salt" in page
    assert "pinch tbsp" not in page


@pytest.mark.parametrize("typed", ["{180 °C", "a {bag} of 5", "{}", "{{x}}", "50% {off}"])
def test_what_somebody_typed_stays(typed):
    assert said(typed, "imperial") == typed


@pytest.mark.parametrize(
    ("read_c", "shown"), [(73.8, "164.8 °F of 165 °F"), (53.0, "127 °F of 165 °F")]
)
def test_a_reading_just_below_its_goal_does_not_read_like_it(read_c, shown):
    """73.8 and 74 °C would both be 165 °F; 73.8 · 1.8 + 32 is 164.84."""
    facts = (at("10:00", "step-started", "roast"), read("10:50", read_c))
    when = {"tz": "UTC", "now": "2027-03-20T11:00", "facts": list(facts)}
    asked = {**roasting_bird("chicken", 1800, "dry-brine"), **when}
    gate = dish(DishRequest.model_validate(asked)).gate
    assert said(gate.text, "imperial") == f"{shown}: not yet."


@pytest.mark.parametrize(
    ("typed", "litres", "shown"),
    [  # 1 ft³ is 28.3168 l and 1 US quart 0.946353 l, by definition
        ("2.2 cu ft", 62.297, "2.2 cu ft"), ("50 qt", 47.318, "50 qt"), ("60 l", 60.0, "60 l"),
        ("3 cubic feet", 84.951, "3 cu ft"), ("70", 66.245, "70 qt"),
    ],
)  # fmt: skip
def test_a_fridge_is_shown_in_what_its_owner_told(cook, quince, typed, litres, shown):
    type(quince).objects.update(units="imperial")
    fridge = quince.places.get(name="fridge")
    address = f"/pantry/place/{fridge.pk}/"
    assert cook.post(address, {"room": typed}).status_code == 302
    fridge.refresh_from_db()
    assert fridge.capacity == pytest.approx(litres, abs=0.001)
    assert shown in cook.get("/pantry/tools/").content.decode()
    assert f'value="{shown}"' in cook.get(address).content.decode()
    cook.post(address, {"room": shown})
    assert quince.places.get(name="fridge").capacity == fridge.capacity
