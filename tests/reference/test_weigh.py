"""`weigh` against an independent reckoning and against published figures."""

import random

import pytest

from pantry_core.formats.operations import weigh_document
from pantry_core.mixes.nitrite import dry_ppm, pickup_ppm
from pantry_core.mixes.strength import brine_density_g_ml, dissolves, salometer_degrees
from tests.reference.limits import JUDGED, TooNear, judged, scale_doubts
from tests.reference.reckoning import near_a_limit, random_document, reckon

OUNCE_G, POUND_G, GALLON_ML = 28.349523125, 453.59237, 3785.411784  # by definition
RANDOM_DOCUMENTS = 1200
THIN_EXCESS = 0.001  # of the meat: salt from sauces over the target that is only a note


def close(got, wanted):
    """Within 0.1 g, or within 0.1 %."""
    return got == pytest.approx(wanted, abs=0.1, rel=0.001)


def disagreement(document) -> str | None:
    """What `weigh` and the reckoning disagree about, None where they agree or cannot tell."""
    mix, answer = reckon(document), weigh_document(document)
    codes = {(each["code"], each["level"]) for each in answer["notices"]}
    if mix["salt"] < 0 or mix["water"] < 0:  # what cannot be weighed is never called ok
        thin = -mix["salt"] <= THIN_EXCESS * mix["mass"]
        wanted = {("salt-below-zero", "note" if thin else "stop"), ("undissolved", "stop")}
        return None if wanted & codes else f"{wanted}"
    try:
        wanted = judged(document, mix)
    except TooNear:
        return None
    doubts = scale_doubts(document, mix, wanted)
    told = {each for each in codes if each[0] in JUDGED}
    if told != wanted["codes"] | doubts:
        return f"{told ^ (wanted['codes'] | doubts)}"
    return _other_figures(answer, mix, wanted)


def _other_figures(answer, mix, wanted) -> str | None:
    got = {line["name"]: line["grams"] for line in answer["lines"]}
    for name in ("water", "salt", "curing-salt", "sugar"):
        if not close(got.get(name, 0.0), mix[name]):
            return name
    for count, ppm in wanted["counts"].items():
        if answer["nitrite"][count] != pytest.approx(ppm, abs=0.1):
            return count
    figures = {
        "limit": (answer["nitrite"]["limit_ppm"], wanted["most"]),
        "verdict": (answer["nitrite"]["verdict"], wanted["verdict"]),
        "nitrate": (answer["nitrate"]["ppm"], pytest.approx(wanted["nitrate_ppm"], abs=0.1)),
        "most nitrate": (answer["nitrate"]["limit_ppm"], wanted["most_nitrate"]),
        "nitrate verdict": (answer["nitrate"]["verdict"], wanted["nitrate_verdict"]),
        "in meat": (answer["salt"]["in_meat_pct"], pytest.approx(wanted["in_meat_pct"], rel=1e-3)),
        "water phase": (
            answer["salt"]["water_phase_pct"], pytest.approx(wanted["water_phase_pct"], rel=1e-3)
        ),
        "inside": (answer["inside_c"], wanted["inside_c"]),
        "pickle": (
            answer["pickle"] and answer["pickle"]["mass_g"],
            pytest.approx(mix["pickle"], rel=1e-3) if mix["wet"] else None,
        ),
    }  # fmt: skip
    for name, (ours, theirs) in figures.items():
        if ours != theirs:
            return f"{name}: {ours}, not {theirs}"
    return None


def test_random_documents_agree_with_the_reckoning():
    dice = random.Random(20270322)
    for at in range(RANDOM_DOCUMENTS):
        document = random_document(dice) if at % 4 else near_a_limit(dice)
        found = disagreement(document)
        assert found is None, (found, document)


@pytest.mark.parametrize(
    ("ppm", "published"),
    [
        # FSIS Directive 7620.3, Processing Inspectors' Calculations Handbook (from memory)
        (dry_ppm(1 * OUNCE_G, 100 * POUND_G), 625),
        (dry_ppm(OUNCE_G / 4, 100 * POUND_G), 156),
        (dry_ppm(4 * OUNCE_G * 0.0625, 100 * POUND_G), 156),
        (dry_ppm(0.0025 * 1000 * 0.0625, 1000.0), 156),
        # 2 lb of nitrite in 100 gallons of pickle at 10 lb a gallon, a tenth of the weight taken up
        (pickup_ppm(2 * POUND_G, 100 * 10 * POUND_G), 200),
    ],
)
def test_cross_checks_of_the_regulation(ppm, published):
    assert ppm == pytest.approx(published, abs=0.5)


def test_two_per_cent_by_convention():
    # 2.0 % with as much water as meat is 1.70 % of lean meat (derived: 2·2/(1+0.74)·0.74/2)
    meat = {"kind": "pork", "mass_g": 1000, "thickness_mm": 50, "shape": "slab"}
    answer = weigh_document(
        {
            "profile": "us", "meat": meat, "method": "even-brine",
            "target_salt_pct": 2.0, "water_g": 1000,
        }
    )  # fmt: skip
    assert answer["salt"]["in_meat_pct"] == pytest.approx(1.70, abs=0.005)


@pytest.mark.parametrize(
    ("share", "celsius", "published"),
    [
        # CRC Handbook of Chemistry and Physics, sodium chloride at 20 °C (from memory)
        (0.05, 20, 1.034), (0.10, 20, 1.071), (0.20, 20, 1.148), (0.26, 20, 1.197),
        # pure water at 4 °C, its greatest density
        (0.0, 4, 1.000),
    ],
)  # fmt: skip
def test_density_of_the_handbook(share, celsius, published):
    assert brine_density_g_ml(share, celsius) == pytest.approx(published, abs=0.0008)


@pytest.mark.parametrize("celsius", [2, 4, 10, 20, 38])
def test_density_of_coolprop(celsius):
    from CoolProp.CoolProp import PropsSI

    for percent in (1, 3.8, 5, 10, 15, 20, 23):
        fluid = f"INCOMP::MNA[{percent / 100}]"
        theirs = PropsSI("D", "T", 273.15 + celsius, "P", 101325, fluid) / 1000
        assert brine_density_g_ml(percent / 100, celsius) == pytest.approx(theirs, abs=0.0015)


def test_salometer_and_saturation():
    # 26.4 g in 100 g of brine is 100° (salometer scale, from memory); so 13.2 g is 50°
    assert salometer_degrees(26.4, 73.6) == pytest.approx(100)
    assert salometer_degrees(13.2, 86.8) == pytest.approx(50)
    assert dissolves(26.4, 73.6)
    assert not dissolves(26.5, 73.5)
