"""Chilling a brine, and laying a piece into a vessel."""

import pytest

from pantry_core.formats.operations import chill_document, fit_document
from pantry_core.formats.reading import WrongInput

HOT = {"mass_g": 2840, "temperature_c": 100}
BOX = {"shape": "box", "length_mm": 300, "width_mm": 200, "depth_mm": 150, "material": "glass"}
WARM_ICE, WOODEN = {"mass_g": 9, "temperature_c": 5}, BOX | {"material": "wood"}
PIECE = {"mass_g": 2120, "height_mm": 60}  # two litres


def test_the_worked_example_of_the_rules():
    # 2.84 kg at 100 °C with 1.81 kg of ice at −18 °C comes to 26.5 °C; 2.94 kg in all for 4 °C
    ice = {"mass_g": 1810, "temperature_c": -18}
    answer = chill_document({"hot": HOT, "ice": ice, "goal_c": 4})
    assert answer["temperature_c"] == pytest.approx(26.5, abs=0.05)
    assert answer["ice_needed_g"] == pytest.approx(2940, abs=5)
    assert [each["code"] for each in answer["notices"]] == ["brine-warm"]
    enough = chill_document(
        {"hot": HOT, "ice": ice | {"mass_g": answer["ice_needed_g"]}, "goal_c": 4}
    )
    assert enough["temperature_c"] == pytest.approx(4)
    assert enough["notices"] == []


def test_water_and_ice_lie_at_zero_and_less_heat_freezes_it():
    half = chill_document(
        {"hot": {"mass_g": 1000, "temperature_c": 10}, "ice": {"mass_g": 1000}, "goal_c": 0}
    )
    assert half["temperature_c"] == 0
    deep = {"mass_g": 50_000, "temperature_c": -30}
    frozen = chill_document({"hot": {"mass_g": 100, "temperature_c": 1}, "ice": deep, "goal_c": 4})
    assert -30 < frozen["temperature_c"] < 0
    cold = {"mass_g": 2000, "temperature_c": 2}
    mixed = chill_document(
        {"hot": {"mass_g": 1000, "temperature_c": 20}, "cold": cold, "goal_c": 9}
    )
    assert mixed["temperature_c"] == pytest.approx(8)  # (20 + 2·2)/3, by arithmetic
    assert mixed["ice_needed_g"] == 0


@pytest.mark.parametrize(
    ("vessel", "liquid_ml", "level_mm", "spare_ml"),
    [
        # by arithmetic: (2000 + liquid) ml over 600 cm²; a 200 mm cylinder has 314.16 cm²
        (BOX, 2800, 80, 4200), (BOX, 1000, 50, 6000),
        ({"shape": "round", "diameter_mm": 200, "depth_mm": 200, "material": "stoneware"}, 1141.59,
         100, 3141.59),
        # a frustum with equal ends is a cylinder
        ({"shape": "tapered", "top_mm": 200, "bottom_mm": 200, "depth_mm": 200,
          "material": "stoneware"}, 1141.59, 100, 3141.59),
    ],
)  # fmt: skip
def test_level_and_room(vessel, liquid_ml, level_mm, spare_ml):
    answer = fit_document({"meat": PIECE, "vessel": vessel, "liquid_ml": liquid_ml})
    assert answer["level_mm"] == pytest.approx(level_mm, abs=0.01)
    assert answer["spare_ml"] == pytest.approx(spare_ml, abs=0.1)
    assert answer["cover_mm"] == pytest.approx(level_mm - 60, abs=0.01)
    assert answer["covered"] == (level_mm >= 80)  # its height and 20 mm: common practice
    assert answer["fits"]


def test_a_cone_holds_a_third():
    cone = {"shape": "tapered", "top_mm": 300, "bottom_mm": 0.001, "depth_mm": 300,
            "material": "stainless"}  # fmt: skip
    answer = fit_document(
        {"meat": {"mass_g": 106, "height_mm": 20}, "vessel": cone, "liquid_ml": 0}
    )
    # 100 ml in a cone as wide as deep: h = (12·V/π)^(1/3), by geometry
    assert answer["level_mm"] == pytest.approx((12 * 100_000 / 3.14159265) ** (1 / 3), rel=1e-4)


def test_what_would_cover_it_covers_it():
    answer = fit_document({"meat": PIECE, "vessel": BOX, "liquid_ml": 500})
    assert "not-covered" in {each["code"] for each in answer["notices"]}
    again = fit_document({"meat": PIECE, "vessel": BOX, "liquid_ml": answer["liquid_to_cover_ml"]})
    assert again["covered"]
    assert again["cover_mm"] == pytest.approx(20)


@pytest.mark.parametrize(
    ("changes", "code"),
    [
        ({"material": "aluminium"}, "reactive-metal"),
        ({"material": "unknown"}, "unknown-material"),
        ({"depth_mm": 50}, "too-small"), ({"length_mm": 100}, "too-small"),
        ({"shape": "bag", "litres": 6}, "too-small"),
    ],
)  # fmt: skip
def test_vessels_that_do_not_do(changes, code):
    answer = fit_document({"meat": PIECE, "vessel": BOX | changes, "liquid_ml": 2800})
    assert code in {each["code"] for each in answer["notices"]}


@pytest.mark.parametrize(
    ("changes", "level"),
    [  # by practice: bare metal bears salt and acid for two hours, a dry brine on a rack for days
        ({}, "stop"), ({"hours": 2.1}, "stop"), ({"hours": 2.0}, None),
        ({"liquid_ml": 0}, "note"), ({"liquid_ml": 0, "has_cure": True}, "stop"),
        ({"liquid_ml": 0, "has_cure": True, "hours": 1}, None),
    ],
)  # fmt: skip
def test_bare_metal_is_judged_by_what_touches_it_and_how_long(changes, level):
    bare = {"meat": PIECE, "vessel": BOX | {"material": "copper"}, "liquid_ml": 2800}
    levels = {each["code"]: each["level"] for each in fit_document(bare | changes)["notices"]}
    assert levels.get("reactive-metal") == level


def test_a_bag_wants_twice_the_meat_and_the_liquid():
    bag = {"shape": "bag", "litres": 7, "material": "food-plastic"}
    answer = fit_document({"meat": PIECE, "vessel": bag, "liquid_ml": 2800})
    assert (answer["fits"], answer["level_mm"]) == (True, None)
    assert answer["spare_ml"] == pytest.approx(200)  # 7000 − 2·2000 − 2800


@pytest.mark.parametrize(
    ("ask", "where"),
    [
        (lambda: chill_document({"hot": HOT, "ice": WARM_ICE, "goal_c": 4}),
         "ice.temperature_c"),
        (lambda: chill_document({"hot": HOT | {"mass_g": 0}, "goal_c": 4}), "hot.mass_g"),
        (lambda: chill_document({"hot": HOT}), "goal_c"),
        (lambda: fit_document({"meat": PIECE, "vessel": BOX | {"depth_mm": None}, "liquid_ml": 1}),
         "vessel.shape"),
        (lambda: fit_document({"meat": PIECE, "vessel": WOODEN, "liquid_ml": 1}),
         "vessel.material"),
        (lambda: fit_document({"meat": PIECE, "vessel": BOX, "liquid_ml": -1}), "liquid_ml"),
    ],
)  # fmt: skip
def test_refuses(ask, where):
    with pytest.raises(WrongInput) as refused:
        ask()
    assert [each.where for each in refused.value.problems] == [where]
