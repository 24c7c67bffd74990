"""What follows from what was really weighed; and servings."""

import pytest

from pantry_core.errors import OutOfRange
from pantry_core.measures.scales import Scale, scale_for
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.weigh import weigh
from pantry_core.mixes.weighed import as_it_went_in, go_on
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.servings import servings

GAMMON = {
    "profile": "us", "method": "even-brine", "target_salt_pct": 2.0, "water_g": 2400.0,
    "meat": {"kind": "pork", "mass_g": 2400.0, "thickness_mm": 50.0, "shape": "slab"},
    "cure": {"name": "cure-1"},
}  # fmt: skip


def asked(**changes):
    return WeighRequest.model_validate(GAMMON | changes)


def by_name(out):
    return {line.name: line for line in out.lines}


def test_nothing_weighed_yet_asks_for_the_sheet():
    out = go_on(asked(), {})
    assert out.sheet == weigh(asked())
    assert not out.notices
    assert out.as_weighed is None


def test_as_asked_is_right():
    sheet = weigh(asked())
    out = go_on(asked(), {line.name: 1.01 * line.grams for line in sheet.lines})
    assert not out.notices
    assert out.as_weighed.nitrite.verdict == "ok"


def test_more_water_takes_more_salt():
    out = go_on(asked(), {"water": 3000.0})
    # 2 % of meat and water together (by the convention), all salt counted
    salt = by_name(out)["salt"].wanted_g + 0.9375 * by_name(out)["curing-salt"].wanted_g
    assert salt == pytest.approx(0.02 * (2400 + 3000))
    assert [each.code for each in out.notices] == ["other-water"]


@pytest.mark.parametrize("name", ["salt", "curing-salt"])
def test_too_much_in_a_brine_is_put_right_with_water(name):
    first = weigh(asked())
    weighed = {line.name: line.grams for line in first.lines}
    weighed[name] *= 1.3
    out = go_on(asked(), weighed)
    assert by_name(out)[name].wanted_g == pytest.approx(weighed[name], rel=0.021)
    water = by_name(out)["water"]
    assert water.add_g == pytest.approx(out.request.water_g - 2400)
    assert "add-water" in {each.code for each in out.notices}
    righted = {line.name: line.wanted_g for line in out.lines}
    righted[name] = weighed[name]
    again = go_on(out.request, righted)
    assert again.as_weighed.nitrite.verdict == "ok"
    assert again.as_weighed.salt.target_pct == pytest.approx(2.0, rel=0.03)


def test_too_much_curing_salt_on_meat_is_a_stop():
    out = go_on(asked(method="dry-cure", water_g=None), {"curing-salt": 9.0})
    assert out.is_stopped
    assert [each.code for each in out.notices] == ["too-much-curing-salt"]


def test_too_little_is_added_to():
    out = go_on(asked(method="dry-cure", water_g=None), {"salt": 30.0})
    line = by_name(out)["salt"]
    assert line.add_g == pytest.approx(line.wanted_g - 30.0)
    assert not out.is_stopped


def test_over_the_limit_as_weighed_is_a_stop():
    request = asked(
        cure={"name": "cure-1", "ingoing_ppm": 199}, sauces=[{"name": "wine", "mass_g": 50.0}]
    )
    sheet = weigh(request)
    weighed = {line.name: line.grams for line in sheet.lines}
    weighed["curing-salt"] *= 1.019  # near enough for a scale, and yet over 200 ppm
    out = go_on(request, weighed)
    assert out.as_weighed.nitrite.verdict == "over"
    assert out.is_stopped


def test_the_finest_scale_that_holds_it():
    scales = [Scale("big", 5.0, 10_000), Scale("pocket", 0.01, 100)]
    assert [getattr(scale_for(scales, grams), "name", None) for grams in (50, 5000, 20_000)] == [
        "pocket", "big", None,
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("cut", "raw", "low", "high"),
    [
        # common practice: 230 g boneless, 400 bone in, 500–700 a whole bird, 400–450 of brisket,
        # which loses 35–45 %; of roasts what is neither water nor fat stays (SR 28): a loin has
        # 21.53 % of it raw, 27.42 % roasted, a rib with 16 % bone 18.66 and 23.77; ± 2.5 %
        ("brisket", 4250, 2337.5, 2762.5),
        ("pork-loin", 2300, 2300 * (21.53 / 27.42 - 0.025), 2300 * (21.53 / 27.42 + 0.025)),
        ("beef-rib", 4000, 3360 * (18.66 / 23.77 - 0.025), 3360 * (18.66 / 23.77 + 0.025)),
    ],
)  # fmt: skip
def test_ten_heads(cut, raw, low, high):
    found = servings(CUTS[cut], 10)
    assert found.trimmed_g == pytest.approx(raw)
    assert (found.cooked_low_g, found.cooked_high_g) == pytest.approx((low, high), rel=1e-3)
    assert found.bought_g > found.trimmed_g
    assert 5000 <= servings(CUTS["duck"], 10).trimmed_g <= 7000


@pytest.mark.parametrize("heads", [0, 501])
def test_nobody_or_a_regiment(heads):
    with pytest.raises(OutOfRange, match="use "):
        servings(CUTS["duck"], heads)


def test_the_way_of_the_salt_goes_by_what_went_in():
    sheet = weigh(asked())
    right = {line.name: line.grams for line in sheet.lines}
    assert as_it_went_in(asked(), right) == asked()
    assert as_it_went_in(asked(), {"salt": 200.0}) == asked()  # the water is not known yet
    twice = as_it_went_in(asked(), right | {"salt": 200.0})
    # mass balance: all the salt over meat and water, what the curing salt holds (93.75 %) included
    salt_g = 200.0 + 0.9375 * right["curing-salt"]
    assert twice.target_salt_pct == pytest.approx(100 * salt_g / (2400 + 2400), rel=1e-3)
    assert mixed(twice).salt == pytest.approx(salt_g, rel=1e-3)
    assert as_it_went_in(asked(), right | {"salt": 30_000.0}) is None  # no water holds it
    dry = {"method": "dry-brine", "water_g": None, "cure": None, "target_salt_pct": 1.2}
    salted = as_it_went_in(asked(**dry), {"salt": 60.0})
    assert salted.target_salt_pct == pytest.approx(100 * 60 / 2400)
