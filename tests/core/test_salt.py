"""What must hold of the salt's way whatever the piece, and what is refused."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pantry_core.dish.piece import guessed_mm, prepared
from pantry_core.dish.request import Piece
from pantry_core.formats.operations import salt_document
from pantry_core.formats.reading import WrongInput
from pantry_core.history.salt import Reading, hours_at_4_c
from pantry_core.meat import Meat
from pantry_core.mixes import readiness
from pantry_core.mixes.cautions import geometry
from pantry_core.mixes.colour import heart_colour
from pantry_core.mixes.inside import changes, inside
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.weigh import weigh
from pantry_core.routes.cuts import CUTS
from pantry_core.salt.advice import (
    Pickle,
    first_hour,
    lift_then_rest,
    needle_wait_h,
    soak_to,
)
from pantry_core.salt.ready import wait
from pantry_core.salt.request import Brine

MEAT = {"kind": "pork", "mass_g": 2000, "thickness_mm": 50, "shape": "slab"}
PIECE = Meat(**MEAT)
BRINE = {"kind": "brine", "hours": 240, "water_g": 2000, "salt_g": 80}
REST = {"kind": "rest", "hours": 24}

hours = st.floats(0.5, 400)
stages = st.one_of(
    st.builds(lambda h: {"kind": "rest", "hours": h}, hours),
    st.builds(lambda h, c: {"kind": "surface", "hours": h, "water_phase_g_g": c}, hours,
              st.floats(0, 0.35)),
    st.builds(lambda h, w, s: {"kind": "brine", "hours": h, "water_g": w, "salt_g": s}, hours,
              st.floats(50, 20_000), st.floats(0, 500)),
    st.builds(lambda h, s: {"kind": "dry", "hours": h, "salt_g": s}, hours, st.floats(0, 900)),
    st.builds(lambda a, p: {"kind": "needle", "share": a, "salt_pct": p}, st.floats(0.01, 0.3),
              st.floats(0, 26)),
    st.builds(lambda h, w, n: {"kind": "soak", "hours": h, "water_g": w, "changes": n},
              st.floats(0.5, 72), st.floats(100, 20_000), st.integers(0, 6)),
)  # fmt: skip
pieces = st.fixed_dictionaries(
    {
        "kind": st.sampled_from(["pork", "poultry", "fish"]), "mass_g": st.floats(200, 9000),
        "thickness_mm": st.floats(8, 150), "shape": st.sampled_from(["slab", "cylinder", "ball"]),
        "closed_faces": st.sampled_from([0, 1]),
    }
)  # fmt: skip


@given(pieces, st.lists(stages, min_size=1, max_size=8), st.floats(0, 3))
def test_salt_is_neither_made_nor_lost(meat, way, start):
    answer = salt_document({"meat": meat, "stages": way, "start_pct": start})
    assert answer["balance_error"] <= 1e-9
    columns = [answer[f"{name}_pct"] for name in ("mean", "heart", "rim", "least")]
    assert {len(column) for column in columns} == {len(answer["hours"])}
    assert answer["hours"] == sorted(answer["hours"])
    assert answer["hours"][-1] == pytest.approx(sum(stage.get("hours", 0) for stage in way))
    for mean, heart, least in zip(columns[0], columns[1], columns[3], strict=True):
        assert -1e-7 <= least <= min(mean, heart) + 1e-7


def days(meat, supply, ratio, celsius):
    return wait(Meat(**meat), supply, ratio, 0.70, celsius).days


@given(pieces, st.sampled_from([("bath", 0.5), ("bath", 3.0), ("dry", 0.08), ("dry", 0.5)]),
       st.floats(0, 14), st.floats(1.01, 2))  # fmt: skip
def test_thicker_is_never_faster_warmer_never_slower_skin_never_faster(meat, supply, celsius, more):
    usual = days(meat, *supply, celsius)
    assert days(meat | {"thickness_mm": meat["thickness_mm"] * more}, *supply, celsius) > usual
    assert days(meat, *supply, celsius + 1) < usual
    open_faces, skin = (days(meat | {"closed_faces": n}, *supply, celsius) for n in (0, 1))
    assert skin == pytest.approx(4 * open_faces)  # twice the way, four times the wait


@pytest.mark.parametrize("shape", ["slab", "cylinder", "ball"])
def test_more_needle_is_never_later(shape):
    piece = Meat(**MEAT | {"shape": shape})
    pickle = Pickle(2000, 80)
    waits = [needle_wait_h(piece, pickle, share) for share in (0.02, 0.05, 0.1, 0.15)]
    assert waits == sorted(waits, reverse=True)
    assert waits[0] < 24 * wait(piece, "bath", 2000 / 1480, 0.70, 4.0).days


def test_a_needle_alone_spares_the_bath_but_not_the_rim():
    alone = needle_wait_h(PIECE, Pickle(400, 30), 0.1, cover=False)
    way = [{"kind": "needle", "share": 0.1, "salt_pct": 100 * 30 / 430}, REST | {"hours": alone}]
    answer = salt_document({"meat": MEAT, "stages": way})
    assert answer["least_pct"][-1] == pytest.approx(0.7 * answer["mean_pct"][-1], rel=0.01)
    assert needle_wait_h(PIECE, Pickle(100, 5), 0.1) is None


def test_a_heaped_cure_is_lifted_and_then_rests():
    advice = lift_then_rest(PIECE, None, 600, 2.5)
    way = [{"kind": "dry", "hours": advice.lift_h, "salt_g": 600},
           REST | {"hours": advice.ready_h - advice.lift_h}]  # fmt: skip
    answer = salt_document({"meat": MEAT, "stages": way})
    assert answer["mean_pct"][-1] == pytest.approx(2.5, rel=0.01)
    assert answer["least_pct"][-1] == pytest.approx(0.7 * 2.5, rel=0.01)


def test_a_strong_brine_is_lifted_and_then_rests():
    advice = lift_then_rest(PIECE, 2000, 400, 2.0)
    assert advice.lift_h < advice.ready_h
    way = [BRINE | {"hours": advice.lift_h, "salt_g": 400},
           REST | {"hours": advice.ready_h - advice.lift_h}]  # fmt: skip
    answer = salt_document({"meat": MEAT, "stages": way})
    assert answer["mean_pct"][-1] == pytest.approx(2.0, rel=0.01)
    assert answer["least_pct"][-1] == pytest.approx(1.4, rel=0.01)
    assert lift_then_rest(PIECE, 2000, 20, 2.0) is None


def test_a_soak_brings_it_down_and_takes_the_rim_first():
    way = (Brine(**BRINE | {"salt_g": 140}),)
    advice = soak_to(PIECE, way, 1.8, 4000, 2)
    assert advice.mean_pct == pytest.approx(1.8, rel=0.01)
    assert advice.rim_pct < advice.mean_pct < advice.heart_pct
    assert soak_to(PIECE, way, 1.8, 4000, 6).hours < advice.hours
    assert soak_to(PIECE, way, 0.01, 4000, 0) is None
    assert first_hour(lambda h: h - 1e9, 10.0) is None


@pytest.mark.parametrize(
    ("changes", "where"),
    [
        ({"temperature_c": -1}, "temperature_c"), ({"temperature_c": 16}, "temperature_c"),
        ({"stages": []}, "stages"), ({"stages": [REST] * 500}, "stages"),
        ({"stages": [BRINE | {"water_g": 0}]}, "stages.0.brine.water_g"),
        ({"stages": [{"kind": "soak", "hours": 200, "water_g": 500}]}, "stages.0.soak.hours"),
        ({"stages": [{"kind": "boil", "hours": 1}]}, "stages.0"),
        ({"stages": [REST | {"hours": 0}]}, "stages.0.rest.hours"),
        ({"diffusivity_m2_s": 0}, "diffusivity_m2_s"), ({"start_pct": float("nan")}, "start_pct"),
    ],
)  # fmt: skip
def test_refuses(changes, where):
    with pytest.raises(WrongInput) as refused:
        salt_document({"meat": MEAT, "stages": [BRINE]} | changes)
    assert [each.where for each in refused.value.problems] == [where]
    assert "use " in refused.value.problems[0].what


def test_a_thickness_that_the_mass_hardly_allows_is_told():
    notices = salt_document({"meat": MEAT | {"mass_g": 90}, "stages": [BRINE]})["notices"]
    assert [each["code"] for each in notices] == ["thick-for-mass"]


def asked(**changes):
    document = {
        "profile": "us", "method": "even-brine", "target_salt_pct": 2.0, "water_g": 2000,
        "meat": MEAT, "cure": {"name": "cure-1"},
    }  # fmt: skip
    return WeighRequest.model_validate(document | changes)


@pytest.mark.parametrize(
    ("thickness_mm", "days", "colour"),
    [(20, 3, "pink"), (20, 14, "likely"), (50, 14, "likely"), (100, 5, "grey")],
)
def test_the_colour_of_the_heart(thickness_mm, days, colour):
    request = asked(meat=MEAT | {"thickness_mm": thickness_mm})
    heart = heart_colour(request, weigh(request), days)
    assert heart.colour == colour
    # nobody finds more than went in: 150 ppm, less what is used up in the longest half-life, 15 d
    assert 0 <= heart.low_ppm <= heart.high_ppm <= 150 * 0.5 ** (days / 15) + 0.5


def test_no_colour_without_curing_salt():
    request = asked(cure=None)
    assert heart_colour(request, weigh(request), 10) is None


@pytest.mark.parametrize(
    ("method", "faces"), [("even-brine", 0), ("even-brine", 1), ("dry-cure", 1)]
)
def test_what_would_be_quicker_is_quicker(method, faces):
    request = asked(method=method, meat=MEAT | {"closed_faces": faces})
    wait = readiness.wait_of(request)
    found = changes(request, wait)
    waits = [each.days for each in found]
    assert waits == sorted(waits)
    assert waits[-1] < wait.days
    by_name = {each.name.split()[0]: each.days for each in found}
    # half the thickness is a quarter of the wait, and so is a face that is opened
    assert by_name["Opened"] == pytest.approx(wait.days / 4, rel=0.01)
    if faces:
        assert by_name["Skin"] == pytest.approx(wait.days / 4, rel=0.01)


def by_stages(request, ready):
    """The same through the `salt` document, up to `ready.days`."""
    stages = readiness.stages(request, mixed(request), 24 * ready.days, ready.lift_h)
    return salt_document(
        {"meat": request.meat.model_dump(), "stages": [each.model_dump() for each in stages]}
    )


@pytest.mark.parametrize("shape", ["slab", "cylinder", "ball"])
@pytest.mark.parametrize("thickness_mm", [30.0, 75.0])
@pytest.mark.parametrize(
    "way",
    [
        {"method": "strong-brine", "brine_salt_pct": 12, "water_g": 900},
        {"method": "strong-brine", "brine_salt_pct": 7, "water_g": 3000},
        {"method": "dry-cure", "heaped": True, "cure": None},
    ],
)
def test_what_is_lifted_on_time_has_its_target(way, thickness_mm, shape):
    meat = MEAT | {"thickness_mm": thickness_mm, "shape": shape}
    request = asked(meat=meat, **way)
    ready = readiness.wait_of(request)
    answer = by_stages(request, ready)
    assert answer["mean_pct"][-1] == pytest.approx(2.0, rel=0.015)
    assert answer["least_pct"][-1] == pytest.approx(0.7 * answer["mean_pct"][-1], rel=0.02)


@pytest.mark.parametrize("shape", ["slab", "cylinder", "ball"])
@pytest.mark.parametrize("faces", [0, 1])
@pytest.mark.parametrize("way", [{}, {"injection_share": 0.15, "water_g": 600}, {"cover": False}])
def test_a_needle_shortens_the_wait_as_the_way_has_it(way, faces, shape):
    meat = MEAT | {"closed_faces": faces, "shape": shape, "thickness_mm": 25}
    request = asked(method="injection", meat=meat, cure=None, **way)
    ready = readiness.wait_of(request)
    # left until all is even
    even_pct = by_stages(request, replace(ready, days=min(6 * ready.days, 119)))["mean_pct"][-1]
    assert by_stages(request, ready)["least_pct"][-1] == pytest.approx(0.7 * even_pct, rel=0.03)
    assert ready.days < readiness.wait_of(asked(meat=meat, cure=None)).days


def test_inside_by_day_agrees_with_the_way():
    request = asked()
    found = inside(request, 20.0)
    way = BRINE | {"hours": 480, "salt_g": mixed(request).salt}
    answer = salt_document({"meat": MEAT, "stages": [way]})
    assert found.heart[-1] == pytest.approx(answer["heart_pct"][-1], abs=0.001)
    assert found.days[-1] == 20
    assert all(s <= h <= f for s, h, f in zip(found.heart_slow, found.heart, found.heart_fast,
                                              strict=True))  # fmt: skip
    assert {len(row) for row in found.rings} == {14}
    assert found.rings[-1][0] < found.rings[-1][-1]


def test_a_warm_night_brings_it_on_and_ice_holds_it_up():
    steady = hours_at_4_c(100, [])
    warm = hours_at_4_c(100, [Reading(40, 10.0), Reading(50, 4.0)])
    cold = hours_at_4_c(100, [Reading(40, 0.5)])
    assert cold < steady == 100 < warm < 105
    assert hours_at_4_c(100, [Reading(40, 80.0)]) == hours_at_4_c(100, [Reading(40, 15.0)])
    assert hours_at_4_c(100, [Reading(200, 10.0)]) == 100


@pytest.mark.parametrize("cut", CUTS.values(), ids=CUTS)
def test_a_guessed_thickness_goes_with_the_weight(cut):
    for mass_g in (300.0, 2000.0, 8000.0):
        mm = guessed_mm(cut, "whole", mass_g * (1.0 - cut.bone_share))
        meat = Meat(kind=cut.kind, mass_g=mass_g, thickness_mm=mm, shape=cut.shape,
                    bone_share=cut.bone_share)  # fmt: skip
        assert list(geometry(meat)) == []


@pytest.mark.parametrize(
    ("piece", "low_mm", "high_mm"),
    [  # measured in kitchens (common practice)
        ({"cut": "chicken-drumstick", "mass_g": 1200.0}, 35, 45),
        ({"cut": "chicken-drumstick", "mass_g": 1200.0, "count": 11}, 35, 45),
        ({"cut": "brisket", "mass_g": 1500.0, "form": "rolled"}, 80, 100),
        ({"cut": "roots", "mass_g": 900.0}, 20, 40),
        ({"cut": "quail", "mass_g": 2160.0}, 12, 20),
        ({"cut": "quail", "mass_g": 2160.0, "count": 12}, 12, 20),
    ],
)
def test_a_thickness_is_guessed_of_one_piece_in_its_form(piece, low_mm, high_mm):
    guess_mm = prepared(Piece.model_validate(piece)).guess_mm
    assert low_mm <= guess_mm <= high_mm
