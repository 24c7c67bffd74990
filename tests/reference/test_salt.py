"""The salt's way against Crank's series, a general stiff solver and the rules' check values."""

import pytest

from pantry_core.formats.operations import salt_document, weigh_document
from pantry_core.meat import Meat
from pantry_core.salt.properties import water_viscosity_mpa_s
from pantry_core.salt.ready import wait
from tests.reference.crank import constant_surface, limited_volume
from tests.reference.stiff import through

SHAPES = ("slab", "cylinder", "ball")
D, WAY_M, WATER = 2.5e-10, 0.020, 0.74
ONE_IN_A_THOUSAND = 0.001
SIX_STAGES = [
    {"kind": "brine", "hours": 96, "water_g": 1200, "salt_g": 80},
    {"kind": "rest", "hours": 24},
    {"kind": "needle", "share": 0.1, "salt_pct": 6.0},
    {"kind": "soak", "hours": 10, "water_g": 2500, "changes": 1},
    {"kind": "surface", "hours": 48, "water_phase_g_g": 0.04},
    {"kind": "rest", "hours": 72},
]


def followed(stages, shape="slab", thickness_mm=2000 * WAY_M, **meat):
    piece = {"kind": "pork", "mass_g": 1000, "thickness_mm": thickness_mm, "shape": shape}
    return salt_document({"meat": piece | meat, "diffusivity_m2_s": D, "stages": stages})


def hours(scaled):
    return scaled * WAY_M**2 / D / 3600


@pytest.mark.parametrize("shape", SHAPES)
@pytest.mark.parametrize("time", [0.01, 0.02, 0.05, 0.1, 0.15, 0.2, 0.3, 0.4, 0.6, 0.8, 1.2, 2.0])
def test_constant_surface(shape, time):
    stage = {"kind": "surface", "hours": hours(time), "water_phase_g_g": 0.03}
    answer, even = followed([stage], shape), 3 * WATER
    mean, heart = constant_surface(shape, time)
    assert answer["mean_pct"][-1] / even == pytest.approx(mean, abs=ONE_IN_A_THOUSAND)
    assert answer["heart_pct"][-1] / even == pytest.approx(heart, abs=ONE_IN_A_THOUSAND)


@pytest.mark.parametrize("shape", SHAPES)
@pytest.mark.parametrize("alpha", [0.3, 1.0, 1.35, 4.0])
@pytest.mark.parametrize("time", [0.03, 0.1, 0.4])
def test_limited_volume(shape, alpha, time):
    bath_g = alpha * 1000 * WATER
    stage = {"kind": "brine", "hours": hours(time), "water_g": bath_g, "salt_g": 40}
    answer, even = followed([stage], shape), 100 * 40 / (bath_g + 1000 * WATER) * WATER
    mean, heart = limited_volume(shape, alpha, time)
    assert answer["mean_pct"][-1] / even == pytest.approx(mean, abs=ONE_IN_A_THOUSAND)
    assert answer["heart_pct"][-1] / even == pytest.approx(heart, abs=ONE_IN_A_THOUSAND)


def test_six_stages_through_a_stiff_solver():
    answer = followed(SIX_STAGES)
    mean, heart = through(
        SIX_STAGES, mass_g=1000, water_share=WATER, thickness_mm=2000 * WAY_M, diffusivity=D
    )
    assert answer["mean_pct"][-1] == pytest.approx(mean, rel=ONE_IN_A_THOUSAND)
    assert answer["heart_pct"][-1] == pytest.approx(heart, rel=ONE_IN_A_THOUSAND)


@pytest.mark.parametrize(
    ("thickness_mm", "days", "mean", "heart"),
    [
        # the rules' check values, constant surface, both faces, parts of the even value (derived)
        (25.4, 7, 0.920, 0.874), (40, 5, 0.583, 0.347), (40, 7, 0.681, 0.499),
        (40, 14, 0.874, 0.803), (30, 2, 0.494, 0.213), (50, 1, 0.210, 0.000),
    ],
)  # fmt: skip
def test_check_values(thickness_mm, days, mean, heart):
    stage = {"kind": "surface", "hours": 24 * days, "water_phase_g_g": 0.03}
    answer = followed([stage], thickness_mm=thickness_mm)
    assert answer["mean_pct"][-1] / (3 * WATER) == pytest.approx(mean, abs=0.0006)
    assert answer["heart_pct"][-1] / (3 * WATER) == pytest.approx(heart, abs=0.0006)


@pytest.mark.parametrize(
    ("thickness_mm", "held", "brined", "bagged"),
    [(25.4, 6.5, 4.5, 2.0), (50, 25, 17, 7.7), (76, 58, 40, 18)],
)
def test_days_to_a_heart_of_85_per_cent(thickness_mm, held, brined, bagged):
    # the rules' check values (derived): constant surface, even brine with as much water, 2 % dry
    piece = Meat(kind="pork", mass_g=1000, thickness_mm=thickness_mm, shape="slab")
    dry = 0.02 / WATER / (0.264 / 0.736)
    for supply, ratio, days in (
        ("bath", 9999.0, held), ("bath", 1 / WATER, brined), ("dry", dry, bagged),
    ):  # fmt: skip
        assert wait(piece, supply, ratio, 0.85, 4.0).days == pytest.approx(days, rel=0.035)


@pytest.mark.parametrize(("method", "shape"), [("even-brine", "slab"), ("dry-cure", "cylinder"),
                                               ("dry-brine", "ball")])  # fmt: skip
def test_the_table_says_what_the_way_says(method, shape):
    meat = {"kind": "pork", "mass_g": 1800, "thickness_mm": 40, "shape": shape}
    asked = {"profile": "us", "meat": meat, "method": method, "target_salt_pct": 2.5}
    sheet = weigh_document(asked | ({"water_g": 1500} if method == "even-brine" else {}))
    salt = sum(line["grams"] for line in sheet["lines"] if line["name"] == "salt")
    stage = {"kind": "dry", "salt_g": salt}
    if method == "even-brine":
        stage = {"kind": "brine", "salt_g": salt, "water_g": 1500}
    ready = sheet["ready"]
    for days, share in ((ready["days"], 0.70), (ready["even_days"], 0.85)):
        answer = salt_document({"meat": meat, "stages": [stage | {"hours": 24 * days}]})
        least = answer["least_pct"][-1]
        assert least == pytest.approx(share * sheet["salt"]["in_meat_pct"], rel=0.01)


@pytest.mark.parametrize("celsius", [0.5, 4, 10, 15, 20])
def test_viscosity_of_coolprop(celsius):
    from CoolProp.CoolProp import PropsSI

    theirs = 1000 * PropsSI("V", "T", 273.15 + celsius, "P", 101325, "Water")
    assert water_viscosity_mpa_s(celsius) == pytest.approx(theirs, rel=0.01)


def test_a_pot_moves_salt_as_fast_as_its_heat():
    """Stokes-Einstein by hand: water has 1.567 mPa·s at 4 °C, 0.333 at 85 °C (from memory).

    So the salt moves 358.15/277.15 · 1.567/0.333 = 6.08 times as fast as in the fridge.
    """
    meat = {"kind": "pork", "mass_g": 2000, "thickness_mm": 60, "shape": "slab"}
    bath = {"hours": 3, "water_g": 3000, "salt_g": 90}
    pot = {"kind": "pot", "temperature_c": 85, **bath}
    in_pot = salt_document({"meat": meat, "start_pct": 2.0, "stages": [pot]})
    by_hand = salt_document(
        {"meat": meat, "start_pct": 2.0, "diffusivity_m2_s": 6.08 * 2.5e-10,
         "stages": [{"kind": "brine", **bath}]}
    )  # fmt: skip
    gained = in_pot["mean_pct"][-1] - 2.0
    assert gained == pytest.approx(by_hand["mean_pct"][-1] - 2.0, rel=0.02)
    # what the meat gains the broth loses
    assert in_pot["outside_g_g"] * 3000 == pytest.approx(90 - gained / 100 * 2000)


def test_the_pot_does_not_change_how_fast_salt_moves_after_it():
    meat = {"kind": "pork", "mass_g": 2000, "thickness_mm": 60, "shape": "slab"}
    pot = {"kind": "pot", "hours": 1, "water_g": 3000, "salt_g": 0, "temperature_c": 85}
    brine = {"kind": "brine", "hours": 24, "water_g": 2000, "salt_g": 100}
    after = salt_document({"meat": meat, "stages": [pot, brine]})
    alone = salt_document({"meat": meat, "stages": [brine]})
    assert after["mean_pct"][-1] == pytest.approx(alone["mean_pct"][-1])
