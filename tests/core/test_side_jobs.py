"""Side jobs, and what smoke, press, pot and raw fish add to a route."""

import pytest

from pantry_core.errors import OutOfRange
from pantry_core.formats.operations import dish_document
from pantry_core.routes.customs import CUSTOMS, Customs
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.jobs import JOBS, job_route
from pantry_core.routes.steps import PLACES
from tests.core.routing import way


def steps(cut, method="dry-cure", *, smoked=False, **customs):
    found = way(cut, method, ppm=0, wait_days=4.0, lift_h=12.0, customs=Customs(**customs),
                smoked=smoked)  # fmt: skip
    return {step.id: step for step in found.steps}


@pytest.mark.parametrize("job", JOBS.values(), ids=JOBS)
@pytest.mark.parametrize("mass_g", [1.0, 1500.0, 50_000.0])
def test_every_job_can_be_walked(job, mass_g):
    found = job_route(job, mass_g)
    assert len({step.id for step in found}) == len(found)
    assert job.gives_up
    for step in found:
        assert 0 <= step.min_h <= step.prefer_h <= step.max_h
        assert step.hands_min <= 60 * step.min_h
        assert step.place in PLACES


@pytest.mark.parametrize("mass_g", [0.0, -5.0, 50_001.0, float("nan")])
def test_no_absurd_amount(mass_g):
    with pytest.raises(OutOfRange):
        job_route(JOBS["dough"], mass_g)


def test_jobs_take_what_is_common_practice():
    dough = {step.id: step for step in job_route(JOBS["dough"], 1000.0)}
    assert (dough["dough-rest"].prefer_h, dough["dough-rest"].max_h) == (24, 48)  # a day or two
    stock = {step.id: step for step in job_route(JOBS["stock"], 4000.0)}
    assert stock["simmer-stock"].min_h >= 8  # overnight
    assert not stock["simmer-stock"].attended
    # FDA Food Code 3-501.14 (from memory): to 5 °C within 6 h in all, so it stands at most 2 h
    assert stock["cool-stock"].max_h <= 2
    # USDA (from memory): 3 to 4 days in the fridge
    assert stock["set-stock"].max_h == 72


def test_smoke_dries_the_surface_and_takes_the_smoker():
    smoked = steps("trout-fillet", "strong-brine", smoked=True)
    assert smoked["dry"].place == "fridge"
    assert [step.place for step in smoked.values() if step.kind == "cook"] == ["smoker", "smoker"]
    # FSIS Appendix A (from memory): through 10 to 54 °C within 6 h
    assert sum(step.max_h for step in smoked.values() if step.kind == "cook") <= 6
    assert "bake" not in smoked
    assert "roast" not in smoked


def test_press_score_and_vegetables():
    plain, changed = steps("belly-skin"), steps("belly-skin", pressing="overnight")
    assert changed.keys() - plain.keys() == {"press"}
    assert changed["press"].prefer_h == 12  # overnight
    assert "score" in plain
    assert "score" not in steps("belly-skin", scoring="early")
    assert "score" not in steps("pork-loin")  # without skin there is nothing to score
    pot = steps("brisket", vegetables="late")
    assert list(pot).index("vegetables") == list(pot).index("simmer") + 1
    assert "vegetables" not in steps("beef-steak", vegetables="late")  # no pot


def test_fish_eaten_raw_is_frozen_first_and_not_cooked():
    # FDA Food Code 3-402.11 (from memory): −20 °C for 7 days
    raw = steps("salmon-side", fish="raw-freeze")
    assert raw["parasites"].min_h == 7 * 24
    assert raw["parasites"].place == "freezer"
    assert list(raw).index("thaw") == list(raw).index("parasites") + 1
    safe = steps("salmon-side", fish="raw-safe")
    for found in (raw, safe):
        assert not [step for step in found.values() if step.kind == "cook"]
    assert "parasites" not in safe
    assert "parasites" not in steps("pork-loin", fish="raw-freeze")


@pytest.mark.parametrize(
    "cut", [cut for cut in CUTS.values() if cut.heat != "none"], ids=lambda cut: cut.id
)
def test_cooking_is_planned_past_its_usual_hour_with_a_hold(cut):
    found = steps(cut.id)
    last = [step for step in found.values() if step.until and step.until != {"look": True}][-1]
    assert last.min_h == last.prefer_h <= last.max_h
    assert (found["keep-warm"].min_h, found["keep-warm"].max_h in (0.25, 1, 4)) == (0, True)
    if "stand" in found:
        assert "60 °C or above" in last.begin  # FDA Food Code (from memory): hold hot
        assert found["stand"].min_h < found["stand"].max_h < 1.01  # long enough, and not too long


def test_every_side_of_every_disagreement_says_what_it_gives_up():
    for custom in CUSTOMS:
        assert len(custom.choices) >= 2
        assert len({choice.id for choice in custom.choices}) == len(custom.choices)
        assert all(choice.gives_up for choice in custom.choices)
        assert Customs().side(custom) == custom.choices[0]


def test_roots_take_the_heat_of_the_oven_and_its_hours():
    """An hour at 200 °C, an hour and a half at 165 (common practice)."""

    def roast(*edits):
        job = {"name": "roast-roots", "made_g": 1500.0}
        steps = dish_document({"profile": "us", "job": job, "edits": list(edits)})["steps"]
        return next(each for each in steps if each["id"] == "roast")

    usual, cooler = roast(), roast({"step": "roast", "medium_c": 165.0})
    assert (usual["heat_c"], usual["prefer_h"]) == (200.0, 1.0)
    assert cooler["prefer_h"] == 1.5
    assert "165 °C" in cooler["text"]
    assert "200 °C" not in cooler["text"]
    assert {each["heat_c"]: each["prefer_h"] for each in usual["heats"]}[175.0] > 1.0
    own = roast({"step": "roast", "medium_c": 165.0, "prefer_h": 1.25})
    assert own["prefer_h"] == 1.25
    assert own["heats"] == []
