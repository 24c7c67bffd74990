"""Ways of cooking: every cut with every way, its figure and its words, each shape planned."""

import pytest

from pantry_core.dish.piece import prepared, treatment_of
from pantry_core.dish.request import Piece
from pantry_core.formats.operations import dish_document, plan_document
from pantry_core.heat.inside import inside_rule
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.heats import HEATS
from pantry_core.routes.suits import ways_that_suit
from tests.core.dishes import DISHES, dish

FORMS = ("whole", "flat", "halves", "cubes", "strips", "slices", "ground", "rolled", "stuffed")
PLACES = {"freezer": 4, "fridge": 200, "counter": 4, "hob": 4, "smoker": 2, "oven": 2, "fire": 1}
GRAMS = {"quail": 180, "trout": 350, "mackerel": 300, "beef-steak": 250, "pork-chop": 250,
         "lamb-chop": 150, "chicken-wing": 100, "chicken-thigh": 150, "trout-fillet": 150,
         "white-fillet": 180, "young-pig": 9000, "young-goat": 9000, "turkey": 6000}  # fmt: skip
WORDS = {  # what a step of it must speak of, and what it must not
    "stir-fry": ("batch", "oven"), "fry": ("Fat at", "oven"), "grill": ("coals", "oven"),
    "spit": ("coals", "oven"), "poach": ("stock", "oven"), "steam": ("boiling water", "oven"),
    "simmer": ("water", "oven"), "roast": ("ven at", "coals"), "pressure": ("pressure", "oven"),
    "smoke": ("rack", "oven"), "in-fat": ("fat", "coals"), "sear": ("pan", "oven"),
}  # fmt: skip


NO_LEGS = ("turkey-crown", "chicken-breast", "duck-breast", "goose-breast", "turkey-boned")


def heat_steps(answer):
    return [each for each in answer["steps"] if each["kind"] in ("cook", "coat", "light")]


def made(cut, way, form=None, **more):
    piece = {"form": form} if form else {}
    heat = {"way": way, **more}
    return dish(cut, GRAMS.get(cut, 1500), "dry-brine", piece=piece, heat=heat)


@pytest.mark.parametrize("cut", CUTS)
def test_each_way_that_suits_a_cut_goes_by_its_rule_and_its_own_words(cut):
    small = CUTS[cut].build == "small"
    for way in ways_that_suit(CUTS[cut], "pieces" if small else "whole"):
        answer = dish_document(made(cut, way))
        piece = prepared(Piece(cut=cut, mass_g=GRAMS.get(cut, 1500)))
        rule = inside_rule(piece.meat, treatment_of(piece))
        assert answer["inside_c"] == (rule.value if rule and way != "none" else answer["inside_c"])
        assert "heat-misfit" not in {each["code"] for each in answer["notices"]}
        steps = heat_steps(answer)
        said = " ".join(each["text"] for each in steps)
        wanted, barred = WORDS.get(way, ("", "\0"))
        assert wanted in said
        assert barred not in said
        assert cut not in NO_LEGS or "moves in its joint" not in said
        for step in steps:
            assert 0 < step["min_h"] <= step["prefer_h"] <= step["max_h"] < 24
            goal = (step["until"] or {}).get("inside_c")
            assert goal in (None, answer["inside_c"])
            assert goal is None or f"{goal:g} °C in the thickest part" in step["text"]


@pytest.mark.parametrize(("at", "form"), list(enumerate(FORMS)))
def test_every_way_can_be_taken_with_every_form(at, form):
    """Of four cuts one for each pair; every way, every form and every cut meet each other."""
    cuts = ("pork-shoulder", "chicken", "salmon-piece", "beef-steak")
    for number, way in enumerate(HEATS):
        cut = cuts[(at + number) % len(cuts)]
        answer = dish_document(made(cut, way, form))
        codes = {notice["code"] for notice in answer["notices"]}
        suits = way in ways_that_suit(CUTS[cut], form)
        assert ("heat-misfit" in codes) is not suits, (cut, way)


def planned(answer):
    steps = [
        {name: step[name] for name in ("id", "kind", "place", "min_h", "prefer_h", "max_h",
                                       "hands_min", "attended", "uses", "every_h")}
        for step in answer["steps"] if step["kind"] != "hold"
    ]  # fmt: skip
    document = {
        "now": "2027-03-01T08:00", "tz": "Europe/London", "serve_at": "2027-04-20T18:30",
        "day": {"wake": "06:30", "sleep": "22:30"}, "cooks": 1, "places": PLACES,
        "dishes": [{"id": "dish", "early_max_min": 60, "steps": steps}],
    }  # fmt: skip
    return plan_document(document)


@pytest.mark.parametrize("way", HEATS)
def test_one_of_each_shape_of_route_is_planned(way):
    cut = {"none": "salmon-side", "cold-smoke": "salmon-side", "fry": "chicken-thigh"}.get(
        way, "pork-shoulder"
    )
    plan = planned(dish_document(made(cut, way)))
    assert plan["status"] in ("optimal", "feasible")


@pytest.mark.parametrize(
    ("name", "document"),
    [(name, document) for name, document, verdict, *_ in DISHES if verdict != "stop"],
)
def test_the_dishes_come_to_the_table(name, document):
    answer = dish_document(document)
    assert planned(answer)["status"] in ("optimal", "feasible"), name
    last = answer["steps"][-1]
    assert last["id"] == "carve"


@pytest.mark.parametrize(
    ("cut", "way", "more", "code", "level"),
    [
        # common practice: fat, cold smoke; USDA, FDA (from memory): the rest
        ("chicken-thigh", "fry", {"medium_c": 200}, "fat-too-hot", "stop"),
        ("chicken-thigh", "fry", {}, "hot-fat", "caution"),
        ("duck-leg", "in-fat", {"medium_c": 96}, "fat-not-slow", "caution"),
        ("pork-loin", "cold-smoke", {}, "cold-smoke", "stop"),
        ("salmon-side", "cold-smoke", {}, "parasites", "stop"),
        ("pork-loin", "none", {}, "not-cooked", "stop"),
        ("trout", "none", {}, "fish-not-cooked", "stop"),
        ("pork-shoulder", "pressure", {}, "pressure-fill", "note"),
        ("beef-steak", "sear", {"inside_c": 55}, "inside-chosen", "caution"),
        ("beef-steak", "sear", {"inside_c": 50}, "inside-low", "stop"),
        ("chicken-breast", "bake", {"inside_c": 65}, "inside-low", "stop"),
        ("salmon-piece", "bake", {"inside_c": 50}, "parasites", "stop"),
    ],
)
def test_what_is_said_of_a_way(cut, way, more, code, level):
    answer = dish_document(made(cut, way, **more))
    assert (code, level) in {(each["code"], each["level"]) for each in answer["notices"]}


@pytest.mark.parametrize(("cut", "way", "chosen_c", "usual_c"), [
    # common practice: the temperatures of the ways
    ("pork-loin", "roast", 176.5, 180), ("chicken", "roast", 170.0, 190),
    ("trout", "smoke", 121.0, 85), ("chicken-thigh", "fry", 165.0, 170),
])  # fmt: skip
def test_the_words_of_a_step_name_the_heat_that_was_chosen_and_no_other(
    cut, way, chosen_c, usual_c
):
    steps = heat_steps(dish_document(made(cut, way, medium_c=chosen_c)))
    (text,) = [step["text"] for step in steps if f"{chosen_c:g} °C" in step["text"]]
    assert f"{usual_c} °C" not in text


def test_a_chosen_temperature_is_the_figure_everywhere():
    answer = dish_document(made("beef-steak", "sear", inside_c=55))
    assert answer["inside_c"] == answer["sheet"]["inside_c"] == 55
    assert heat_steps(answer)[-1]["until"] == {"inside_c": 55}
    legs = dish_document(made("duck-leg", "roast", inside_c=84))
    assert legs["inside_c"] == 84
    assert legs["verdict"] == "go"


def test_a_step_in_the_oven_has_its_hours_at_other_temperatures():
    """They are those that the dish has where the cook sets that temperature himself."""
    document = made("chicken", "roast", medium_c=190) | {"other_heats": True}
    (roast,) = heat_steps(dish_document(document))
    heats = {each["heat_c"]: each for each in roast["heats"]}
    assert list(heats) == [140.0, 165.0, 215.0]  # 240 is more than a roast is set to
    for heat_c, other in heats.items():
        there = document | {"edits": [{"step": "roast", "medium_c": heat_c}]}
        (step,) = heat_steps(dish_document(there))
        assert {name: step[name] for name in ("min_h", "prefer_h", "max_h")} == {
            name: other[name] for name in ("min_h", "prefer_h", "max_h")
        }
    longest = [each["prefer_h"] for each in (*roast["heats"][:2], roast, roast["heats"][2])]
    assert longest == sorted(longest, reverse=True)


def test_hours_that_the_cook_set_hold_at_one_temperature():
    edited = made("chicken", "roast") | {
        "edits": [{"step": "roast", "prefer_h": 2.0}],
        "other_heats": True,
    }
    (roast,) = heat_steps(dish_document(edited))
    assert roast["heats"] == []
