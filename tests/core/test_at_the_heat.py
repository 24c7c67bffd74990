"""At the heat: what is late is helped, what was set and read around it is followed, and counted."""

import pytest

from pantry_core.heat.fuel import fuel_for
from tests.core.test_gates import answered, at, read

LOIN = {"cut": "pork-loin", "mass": 2000, "method": "none", "heat": {"way": "smoke"},
        "piece": {"thickness_mm": 80}}  # fmt: skip
STEP = "smoke-hot"


def smoking(*facts, serve_at="2027-03-20T14:00", dish=LOIN, now="11:30"):
    """A dish in the smoker since ten; the hour that it is served is told."""
    begun = at("10:00", "step-started", STEP)
    return answered(begun, *facts, now=now, serve_at=serve_at, **dish)


def slow(*facts, **more):
    readings = [read(f"{10 + n // 2}:{30 * (n % 2):02d}", c, STEP)
                for n, c in ((1, 12.0), (2, 21.0), (3, 30.0))]  # fmt: skip
    return smoking(*readings, *facts, **more)["gate"]


def set_to(celsius, time="11:30", **how):
    return at(time, "heat-set", STEP, temperature_c=celsius, **how)


def test_what_is_in_time_is_offered_nothing():
    gate = slow(serve_at="2027-03-20T20:00")
    assert gate["helps"] == []
    assert gate["wanted_h"] > gate["left_h"]["usual"]


def test_each_help_says_what_it_gives_up_and_comes_true_when_it_is_taken():
    gate = slow(serve_at="2027-03-20T12:45")
    assert gate["left_h"]["usual"] > gate["wanted_h"]
    assert {each["code"] for each in gate["helps"]} >= {"hotter", "wrap", "oven", "cut"}
    in_time = [each["in_time"] for each in gate["helps"]]
    assert in_time == sorted(in_time, reverse=True), "what is in time comes first"
    for each in gate["helps"]:
        assert each["gives_up"]
        assert each["in_time"] == (each["left_h"] <= gate["wanted_h"])
        how = {name: each[name] for name in ("medium", "covered", "halved")}
        after = slow(set_to(each["temperature_c"], **how), serve_at="2027-03-20T12:45")
        near = 0.3 if each["halved"] else 0.1  # of a half nothing is read as yet
        assert after["left_h"]["usual"] == pytest.approx(each["left_h"], rel=near), each["code"]


def test_of_its_kind_the_smallest_change_that_is_in_time_is_told():
    gate = slow(serve_at="2027-03-20T12:45")
    late = next(each for each in gate["helps"] if each["code"] == "hotter")
    gate = slow(serve_at="2027-03-20T15:00")
    easy = next(each for each in gate["helps"] if each["code"] == "hotter")
    assert easy["in_time"]
    assert easy["temperature_c"] < late["temperature_c"]


def test_it_is_followed_by_what_is_read_around_it_and_wanted_as_before():
    cool = [at(time, "heat-read", STEP, temperature_c=95.0) for time in ("10:45", "11:30")]
    plain, cooler = slow(), slow(*cool)
    assert cooler["left_h"]["usual"] > plain["left_h"]["usual"]
    assert cooler["medium_c"] == plain["medium_c"] == 120.0
    assert slow(set_to(140.0))["medium_c"] == 140.0


def test_what_was_moved_stands_where_it_is():
    readings = [read("11:00", 20.0, STEP)]
    moved = smoking(*readings, set_to(160.0, medium="oven"))
    step = next(each for each in moved["steps"] if each["id"] == STEP)
    assert step["place"] == "oven"


def test_what_grows_tender_is_foretold_and_ends_by_its_feel():
    brisket = {"cut": "brisket", "mass": 4000, "method": "none", "heat": {"way": "smoke"}}
    facts = [read(f"{10 + h}:00", c, STEP) for h, c in ((1, 25.0), (2, 45.0), (4, 63.0))]
    gate = smoking(*facts, now="14:00", serve_at="2027-03-21T12:00", dish=brisket)["gate"]
    assert (gate["asks"], gate["goal_c"], gate["hint_c"]) == ("touch", None, 92.0)
    assert gate["left_h"]["low"] < gate["left_h"]["usual"] < gate["left_h"]["high"]
    hot = smoking(*facts, read("18:00", 90.0, STEP), now="18:00", dish=brisket)["gate"]
    assert not hot["is_open"]
    assert "feel it with the probe" in hot["text"]
    felt = at("18:05", "touched", STEP, touch="tender")
    done = smoking(*facts, read("18:00", 90.0, STEP), felt, now="18:10", dish=brisket)
    assert done["gate"]["is_open"]


def test_the_hours_between_cold_and_hot_are_counted_as_they_run():
    # by hand: 12 °C at half past ten, straight up 18 °C an hour, to 30 °C at half past eleven
    counted = slow(now="11:30")["counted"]
    assert counted["warm_h"] == pytest.approx(1.05, abs=0.1)
    assert counted["warm_most_h"] == 6.0
    needled = {**LOIN, "piece": {**LOIN["piece"], "treatment": ["bladed"]}}
    # four hours for what is neither cured nor intact: common practice
    assert slow(dish=needled)["counted"]["warm_most_h"] == 4.0


def test_a_chosen_low_temperature_is_held_as_long_as_it_needs():
    duck = {"cut": "duck-breast", "mass": 400, "method": "none",
            "heat": {"way": "roast", "inside_c": 58.4}}  # fmt: skip
    facts = [at("10:00", "step-started", "roast"),
             *(read(f"10:{m}", c) for m, c in ((20, 40.0), (40, 58.4), (52, 58.4)))]  # fmt: skip
    counted = answered(*facts, now="10:52", **duck)["gate"]["counted"]
    # FSIS Appendix A (from memory): 23 minutes at 58.4 °C
    assert counted["needed_min"] == pytest.approx(23.0, abs=0.1)
    assert counted["held_min"] == pytest.approx(12.0, abs=0.2)


@pytest.mark.parametrize(("place", "hours", "grams"), [
    ("smoker", 5.0, (3000.0, 1000.0)), ("fire", 5.0, (10_000.0, 2500.0)),
    ("oven", 5.0, None), ("fire", 0.2, None),
])  # fmt: skip
def test_charcoal_by_the_hour_and_a_quarter_in_reserve(place, hours, grams):
    # common practice: 0.6 kg an hour in a small smoker, 2 under a spit
    fuel = fuel_for(place, hours)
    assert (fuel and (fuel.needed_g, fuel.reserve_g)) == grams


def test_what_never_comes_there_says_so_and_is_helped():
    cool = [at(time, "heat-read", STEP, temperature_c=55.0) for time in ("10:45", "11:30")]
    gate = slow(*cool)
    assert gate["left_h"] is None
    assert gate["text"] == "At 55 °C it never comes to 63 °C."
    assert "hotter" in {each["code"] for each in gate["helps"]}
    assert gate["counted"]["warm_h"] > 0.5


def test_a_wrap_changes_neither_what_is_wanted_nor_what_is_read_around_it():
    cool = [at(time, "heat-read", STEP, temperature_c=104.0) for time in ("10:45", "11:25")]
    wrapped = at("11:30", "heat-set", STEP, covered=True)
    gate = slow(*cool, serve_at="2027-03-20T12:45")
    told = next(each for each in gate["helps"] if each["code"] == "wrap")
    assert told["temperature_c"] is None
    after = slow(*cool, wrapped, serve_at="2027-03-20T12:45")
    assert after["medium_c"] == 120.0
    assert after["left_h"]["usual"] == pytest.approx(told["left_h"], rel=0.1)
