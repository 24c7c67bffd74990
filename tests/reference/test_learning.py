"""What is learnt of made-up kitchens with true factors, and that no limit moves by it."""

import math
import random
import statistics

import pytest

from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import dish
from pantry_core.learning.figures import (
    CookedIn,
    HeartSeen,
    Lost,
    Tasted,
    appliance,
    lateness,
    liking,
    loss,
    salt_speed,
)
from pantry_core.meat import Meat
from pantry_core.salt.request import Brine
from tests.reference import kitchens
from tests.reference.dishes import random_dish

KITCHENS, DISHES, CASES = 40, 5, 20


def hearts(told):
    for thick_mm, hours, water_g, salt_g, share in told:
        meat = Meat(kind="pork", mass_g=1000.0, thickness_mm=thick_mm, shape="slab")
        stage = Brine(kind="brine", hours=hours, water_g=water_g, salt_g=salt_g)
        yield HeartSeen(meat, (stage,), share)


LEARNT = {
    "oven": (kitchens.cooked, lambda told: appliance([CookedIn(*each) for each in told])),
    "liking": (kitchens.tasted, lambda told: liking([Tasted(*each) for each in told])),
    "speed": (kitchens.heart, lambda told: salt_speed(list(hearts(told)))),
}


def learnt(name, count=KITCHENS):
    """Of so many kitchens: what is true, and what is learnt of it from five dishes."""
    tell, learn = LEARNT[name]
    for number in range(count):
        dice = kitchens.dice_of(number)
        one = kitchens.kitchen(dice)
        yield getattr(one, name), learn([tell(dice, one) for _ in range(DISHES)]), one, dice


@pytest.mark.parametrize("name", LEARNT)
def test_five_dishes_bring_it_nearer_and_the_band_holds_it(name):
    found = list(learnt(name))
    nearer = [abs(math.log(got.value / true)) < abs(math.log(true)) for true, got, _, _ in found]
    held = [got.low <= true <= got.high for true, got, _, _ in found]
    assert statistics.mean(nearer) >= 0.7
    assert statistics.mean(held) >= 0.85


def test_the_sixth_roast_is_foretold_better():
    own, general = [], []
    for _, got, one, dice in learnt("oven", 4 * KITCHENS):
        true = math.log(one.oven) + dice.gauss(0.0, 0.08)
        own.append(abs(true - math.log(got.value)))
        general.append(abs(true))
    assert statistics.mean(own) < 0.75 * statistics.mean(general)


def test_nothing_seen_leaves_the_general_figure():
    for figure in (liking, salt_speed, appliance, loss):
        assert figure([]).value == pytest.approx(1.0)
    assert abs(lateness([]).value) < 1e-9


def test_what_is_lost_and_how_late_they_begin():
    assert 0.897 < loss([Lost(0.22, 0.30)] * 8).value < 0.92  # 0.70 / 0.78 = 0.897
    late = lateness([40.0, 35.0, 45.0, 600.0, 38.0, 42.0])
    assert 30.0 < late.value < 42.0
    assert late.count == 6


def limits(out):
    """All that a rule says of a dish: its stops, its figures and their limits."""
    stops = {(each.code, each.step) for each in out.notices if each.level == "stop"}
    if out.sheet is None:
        return stops, out.inside_c
    sheet = out.sheet
    return stops, out.inside_c, sheet.nitrite, sheet.nitrate, sheet.salt, sheet.lines


@pytest.mark.parametrize("number", range(CASES))
def test_no_limit_and_no_stop_moves(number):
    """The same piece, lying as long, in a kitchen that has learnt the utmost."""
    dice = random.Random(f"limits-{number}")
    document = {"profile": "us", **random_dish(dice)}
    hours = dict.fromkeys(("oven", "smoker", "hob", "fire"), dice.choice((0.5, 2.0)))
    house = {"learnt": {"salt_speed": dice.choice((0.5, 2.0)), "hours": hours}}
    first = dish(DishRequest.model_validate({**document, "house": house}))
    if first.days is None:
        return
    lying = {**document, "cure": {**document["cure"], "days": first.days}}
    own = dish(DishRequest.model_validate({**lying, "house": house}))
    general = dish(DishRequest.model_validate(lying))
    assert limits(own) == limits(general)
