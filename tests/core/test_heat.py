"""Heat through a piece: what is refused, what must hold of any piece, rest, danger and probes."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pantry_core.formats.operations import heat_document
from pantry_core.formats.reading import WrongInput
from pantry_core.heat.body import Body
from pantry_core.heat.stages import Stage
from pantry_core.heat.through import followed
from pantry_core.heat.wet import saturation_kpa, wet_film

SLAB = {"kind": "beef", "mass_g": 2000, "thickness_mm": 60, "shape": "slab"}


def heated(*stages, meat=SLAB, **more):
    return heat_document({"meat": meat, "stages": list(stages), **more})


def oven(**more):
    return {"medium": "oven", "temperature_c": 160, **more}


def codes(answer):
    return [each["code"] for each in answer["notices"]]


@pytest.mark.parametrize(
    ("stage", "where", "says"),
    [
        (oven(temperature_c=20, hours=1), "stages.0", "40 to 320"),
        (oven(temperature_c=60, until_c=63), "stages.0.until_c", "never to 63"),
        (oven(), "stages.0", "one or the other"),
        (oven(hours=1, until_c=60), "stages.0", "one or the other"),
        (oven(hours=0), "stages.0.hours", "more than 0"),
        ({"medium": "ice-bath", "temperature_c": 1, "until_c": -1}, "stages.0.until_c", "colder"),
        ({"medium": "lava", "temperature_c": 900, "hours": 1}, "stages.0.medium", "oven"),
        (oven(hours=1, humidity_pct=120), "stages.0.humidity_pct", "100"),
    ],
)
def test_what_cannot_be_is_said_with_what_is_allowed(stage, where, says):
    with pytest.raises(WrongInput) as refused:
        heated(stage)
    problem = refused.value.problems[0]
    assert problem.where == where
    assert says in problem.what


def test_a_piece_or_meat_is_wanted_and_not_both():
    for document in ({}, {"meat": SLAB, "piece": {"cut": "duck", "mass_g": 2000}}):
        with pytest.raises(WrongInput):
            heat_document({**document, "stages": [oven(hours=1)]})


def test_what_is_doubtful_is_said():
    thick = heated(oven(hours=1), meat=SLAB | {"thickness_mm": 400, "mass_g": 60_000})
    assert "very-thick" in codes(thick)
    slices = {"cut": "lamb-leg", "form": "slices", "mass_g": 1200}
    guessed = heat_document({"piece": slices, "stages": [oven(hours=0.2)]})
    assert "thickness-guess" in codes(guessed)
    fat = heated({"medium": "fat", "temperature_c": 195, "until_c": 63})
    assert [each["level"] for each in fat["notices"]] == ["stop"]  # never above 190 (practice)


def test_readings_that_cannot_be_are_left_out_and_said():
    good = [{"at_h": 0.5, "inside_c": 14}, {"at_h": 0.8, "inside_c": 26}]
    bad = [{"at_h": 0.2, "inside_c": 120}, {"at_h": 0.9, "inside_c": 11}]
    goal = oven(until_c=63)
    fitted, mixed = heated(goal, readings=good), heated(goal, readings=good + bad)
    assert codes(fitted) == []
    assert codes(mixed) == ["probe-in-air", "reading-fell"]
    assert mixed["done_h"] == fitted["done_h"]


def test_readings_move_the_hour_the_way_they_point():
    goal = oven(until_c=63)
    plain = heated(goal)["done_h"]
    slow = heated(goal, readings=[{"at_h": 0.8, "inside_c": 14}])["done_h"]
    quick = heated(goal, readings=[{"at_h": 0.8, "inside_c": 40}])["done_h"]
    assert quick["usual"] < plain["usual"] < slow["usual"]
    for done in (quick, plain, slow):
        assert done["low"] < done["usual"] < done["high"]


def test_a_rest_carries_on_and_cooling_counts_its_danger():
    rest = {"medium": "air", "temperature_c": 21, "hours": 0.5, "covered": True}
    ice = {"medium": "ice-bath", "temperature_c": 1, "until_c": 5}
    roasted = heated(oven(until_c=55), rest, ice)
    assert 56 < roasted["peak_c"] < 68  # a roast climbs a few degrees (common practice)
    in_air = heated(oven(until_c=70), {"medium": "air", "temperature_c": 21, "hours": 6})
    in_ice = heated(oven(until_c=70), ice)
    assert in_ice["danger_h"] < in_air["danger_h"]
    assert roasted["hold_min"]["needed"] == 89  # FSIS Appendix A (from memory): 55.0 °C
    assert roasted["hold_min"]["held"] > 0
    assert heated(ice, start_c=80)["hold_min"] is None


def test_given_figures_are_used_as_they_are():
    # a lump of little resistance follows Newton's law of cooling: exp(-h·A·t/(ρcV))
    told = heated(
        oven(hours=0.5), meat=SLAB | {"thickness_mm": 1.0}, h_w_m2_k=2.0, conductivity_w_mk=0.5,
        diffusivity_m2_s=1.4e-7,
    )  # fmt: skip
    left = 2.718281828 ** (-2.0 * 1800 / (0.5 / 1.4e-7 * 0.0005))
    assert told["inside_c"][-1] == pytest.approx(160 - 156 * left, abs=0.3)


@pytest.mark.parametrize(
    ("celsius", "kpa"),
    # steam tables (from memory)
    [(20.0, 2.339), (60.0, 19.95), (80.0, 47.41), (100.0, 101.42), (120.0, 198.7), (150.0, 476.2)],
)  # fmt: skip
def test_steam_as_in_the_tables(celsius, kpa):
    assert saturation_kpa(celsius) == pytest.approx(kpa, rel=0.01)


@pytest.mark.parametrize(
    ("air_c", "humidity_pct", "bulb_c"),
    # psychrometric chart at sea level (from memory)
    [(30.0, 50.0, 22.0), (25.0, 30.0, 14.4), (40.0, 20.0, 22.0), (20.0, 60.0, 15.1)],
)  # fmt: skip
def test_the_wet_bulb_as_on_the_chart(air_c, humidity_pct, bulb_c):
    assert wet_film(air_c, 20.0, humidity_pct, 1.0).outside_c == pytest.approx(bulb_c, abs=0.5)


BODIES = st.builds(
    Body, st.sampled_from(["slab", "cylinder", "ball"]), st.floats(5, 150), st.floats(9e-8, 1.5e-7)
)
MEDIA = st.sampled_from([("oven", 160), ("fan-oven", 180), ("smoker", 120), ("fat", 170),
                         ("coals", 230), ("pan", 210), ("water", 85), ("steam", 100)])  # fmt: skip
LITTLE = 1e-6


def hours_to(body, start_c, medium, celsius, goal_c=60.0):
    journey = followed(body, start_c, [Stage(medium, celsius, until_c=goal_c)])
    return float("inf") if journey is None else journey.ends_h[-1]


@given(BODIES, MEDIA, st.floats(1, 12), st.floats(1.02, 1.6), st.floats(1, 15))
def test_thicker_is_never_sooner_hotter_never_later_colder_never_sooner(
    body, medium, start_c, factor, more_c
):
    name, celsius = medium
    usual = hours_to(body, start_c, name, celsius)
    thicker = Body(body.shape, body.thickness_mm * factor, body.diffusivity_m2_s)
    assert hours_to(thicker, start_c, name, celsius) >= usual - LITTLE
    assert hours_to(body, start_c - 1.0, name, celsius) >= usual - LITTLE
    hotter = min(celsius + more_c, 100 if name in ("water", "steam") else 600)
    assert hours_to(body, start_c, name, hotter) <= usual + LITTLE


@given(BODIES, MEDIA, st.floats(0.05, 4))
def test_no_heat_is_made_or_lost(body, medium, hours):
    journey = followed(body, 4.0, [Stage(*medium, hours=hours), Stage("air", 21.0, hours=0.5)])
    assert journey.balance_error < 1e-9
