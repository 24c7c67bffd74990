"""The cook's recipe as a part of a dish: kept as it is, judged in his own time, changed by offers.

What lines weigh follows from the units by definition; table salt is 6.0 g a teaspoon (rules sheet,
from memory), nitrite 6.25 % of no. 1; limits of 9 CFR 424.21(c) (from memory).
"""

import re

import pytest

from pantry_core.formats.operations import dish_document
from pantry_core.formats.reading import WrongInput


def line(name, amount=None, unit=None, **more):
    return {"text": f"{amount} {unit} {name}", "name": name, "amount": amount, "unit": unit, **more}


def asked(*lines, cut="brisket", mass_g=2000, method="dry-cure", recipe=None, **cure):
    return {
        "profile": "us", "piece": {"cut": cut, "mass_g": mass_g, "bone_share": 0.0},
        "cure": {"method": method, **cure}, "heat": {"way": "simmer"},
        "recipe": {"text": "as typed", "lines": list(lines), **(recipe or {})},
    }  # fmt: skip


def mix_by_name(answer):
    return {(each["name"], each["goes"]): each for each in answer["mix"]}


def test_what_cures_grows_with_the_piece_and_the_rest_with_the_people():
    document = asked(
        line("salt-table", 4, "tbsp"), line("sugar", 50, "g"),
        line("egg", 3, "piece", goes="coat"), line("water", 2, "l", goes="pot"),
        line("wonder sauce", 100, "ml", goes="table"), line("salt-table", None, "to-taste"),
        recipe={"for_g": 1500, "for_people": 4},
    ) | {"people": 6}  # fmt: skip
    found = mix_by_name(dish_document(document))
    salts = [each for each in dish_document(document)["mix"] if each["name"] == "salt-table"]
    assert salts[0]["grams"] == pytest.approx(4 * 18.0 * 2000 / 1500)
    assert salts[0]["as_written_g"] == pytest.approx(72.0)
    assert salts[1]["grams"] is None
    assert found["sugar", "cure"]["grams"] == pytest.approx(50 * 2000 / 1500)
    assert found["egg", "coat"]["count"] == 4  # whole ones
    assert found["water", "pot"]["grams"] == pytest.approx(2000 * 6 / 4)
    assert found["wonder sauce", "table"]["grams"] == pytest.approx(150)
    assert all(each["step"] for each in found.values())


def test_water_and_fat_of_the_pot_without_an_amount_cover_the_piece():
    pot = [line("goose-fat", goes="pot"), line("water", goes="pot"), line("salt-table", 20, "g")]
    found = mix_by_name(dish_document(asked(*pot)))
    # as much as meat, where nobody names a vessel; fat is 0.91 g/ml (common practice)
    assert found["goose-fat", "pot"]["grams"] == pytest.approx(0.91 * 2000)
    assert found["water", "pot"]["grams"] == pytest.approx(2000)
    box = {"shape": "box", "length_mm": 300, "width_mm": 200, "depth_mm": 200, "material": "glass"}
    in_box = asked(*pot) | {"house": {"vessel": box}}
    in_box["piece"]["thickness_mm"] = 60
    found = mix_by_name(dish_document(in_box))
    # the box to 60 mm and 20 over it, less 2 kg of meat at 1.06 g/ml (common practice)
    covers = 300 * 200 * 80 / 1000 - 2000 / 1.06
    assert found["water", "pot"]["grams"] == pytest.approx(covers, rel=0.01)


def test_what_is_held_back_goes_into_the_pot():
    document = asked(line("salt-table", 60, "g"), line("bay leaves", 8, "piece", held_back=0.33))
    found = mix_by_name(dish_document(document))
    assert found["bay leaves", "cure"]["count"] == 5
    assert found["bay leaves", "pot"]["count"] == 3
    assert found["bay leaves", "pot"]["step"] == "simmer"
    simmer = next(each for each in dish_document(document)["steps"] if each["id"] == "simmer")
    assert "Into the pot: 3 × bay leaves" in simmer["text"]


def test_ground_meat_has_its_salt_mixed_in():
    loaf = {
        "profile": "us", "piece": {"cut": "chuck", "mass_g": 1000, "form": "ground"},
        "cure": {"method": "mixed-in"}, "heat": {"way": "bake"},
        "recipe": {"text": "", "lines": [line("salt-table", 2, "tsp"), line("onion", 2, "piece"),
                                         line("milk", None, None)]},
    }  # fmt: skip
    answer = dish_document(loaf)
    assert answer["verdict"] == "go"
    assert answer["salt"]["mean_pct"] == pytest.approx(1.2, rel=0.01)  # 12 g on a kilo
    assert [each["place"] for each in answer["steps"] if each["kind"] == "mixed-in"] == ["fridge"]
    assert not {each["kind"] for each in answer["steps"]} & {"make-brine", "rest", "lift"}


def test_too_much_curing_salt_stops_and_the_offer_that_lifts_it_is_worked_out():
    # 8 g of no. 1 on 2 kg bring 8 · 0.0625 / 2000 = 250 ppm; 200 are the most, 150 usual: 4.8 g
    document = asked(line("salt-table", 40, "g"), line("curing-salt-1", 8, "g"), days=7)
    answer = dish_document(document)
    assert answer["verdict"] == "stop"
    (offer,) = (each for each in answer["proposals"] if each["code"] == "less-cure")
    assert offer["before"]["nitrite_ppm"] == pytest.approx(250)
    assert offer["after"]["nitrite_ppm"] == pytest.approx(150)
    assert offer["changes"] == [{"line": 1, "grams": pytest.approx(4.8)}]
    assert "nitrite-over" in offer["lifts"]
    document["recipe"]["lines"][1] |= {"grams": 4.8}
    assert dish_document(document)["verdict"] != "stop"


def test_an_hour_in_a_strong_brine_is_not_a_week_in_it():
    lines = (line("water", 2, "l"), line("salt-table", 200, "g"))
    hour = dish_document(asked(*lines, cut="beef-steak", mass_g=800, method="strong-brine",
                               lies="1 hour"))  # fmt: skip
    codes = {each["code"] for each in hour["notices"] if each["level"] != "note"}
    assert not codes & {"very-salty", "salty-edge"}
    assert hour["window_h"] == pytest.approx({"least": 0.9, "usual": 1.0, "most": 1.1})
    week = dish_document(asked(*lines, cut="beef-steak", mass_g=800, method="strong-brine",
                               lies="a week"))  # fmt: skip
    assert week["salt"]["mean_pct"] > 4 * hour["salt"]["mean_pct"]
    assert {each["code"] for each in week["proposals"]} & {"shorter", "less-salt"}


@pytest.mark.parametrize(
    ("said", "window"),
    [  # common practice
        ("overnight", (10, 13, 16)), ("a day", (20, 24, 28)), ("five days", (108, 120, 132)),
        ("a week", (144, 168, 192)), ("12 to 16 h", (12, 14, 16)), ("fünf Tage", (108, 120, 132)),
    ],
)  # fmt: skip
def test_a_length_of_time_is_a_window(said, window):
    cured = (line("salt-table", 45, "g"), line("curing-salt-1", 5, "g"))
    found = dish_document(asked(*cured, lies=said))["window_h"]
    assert found == pytest.approx(dict(zip(("least", "usual", "most"), window, strict=True)))


def test_the_raw_clock_cuts_the_window():
    answer = dish_document(asked(line("salt-table", 18, "g"), cut="chicken", mass_g=1500,
                                 method="dry-brine", lies="40 to 100 h"))  # fmt: skip
    assert answer["window_h"]["usual"] == 70
    assert answer["window_h"]["most"] < 75  # 3 days for what is salted dry, less what lies around


@pytest.mark.parametrize(
    ("change", "where"),
    [
        ({"cure": {"method": "dry-cure", "target_salt_pct": 2.0}}, "cure.target_salt_pct"),
        ({"cure": {"method": "dry-cure", "water_g": 900.0}}, "cure.water_g"),
        ({"cure": {"method": "dry-cure", "ingoing_ppm": 150.0}}, "cure.ingoing_ppm"),
        ({"cure": {"method": "dry-cure", "days": 3, "lies": "3 days"}}, "cure.lies"),
        ({"cure": {"method": "dry-cure", "lies": "soon"}}, "cure.lies"),
        ({"recipe": {"lines": []}}, "recipe.lines"),
        ({"recipe": {"lines": [line("salt-table", 1e9, "g")]}}, "recipe.lines.0.amount"),
        ({"recipe": {"lines": [line("salt-table", 900, "kg")]}}, "recipe.lines"),
        ({"recipe": {"for_g": 0, "lines": [line("salt-table", 1, "g")]}}, "recipe.for_g"),
    ],
)
def test_what_contradicts_the_recipe_is_refused(change, where):
    with pytest.raises(WrongInput) as refused:
        dish_document(asked(line("salt-table", 40, "g")) | change)
    assert where in [each.where for each in refused.value.problems]


def test_a_line_that_nobody_knows_is_kept_and_a_salt_misspelt_is_asked_about():
    answer = dish_document(asked(line("pixie dust", 3, "handful"), line("salt-tabel", 40, "g")))
    assert [each["name"] for each in answer["mix"]] == ["pixie dust", "salt-tabel"]
    assert "not-known" in {each["code"] for each in answer["notices"]}


def test_curing_salt_by_the_pinch_promises_nothing():
    answer = dish_document(asked(line("salt-table", 40, "g"), line("curing-salt-1", 2, "pinch")))
    assert answer["sheet"]["nitrite"]["verdict"] == "unknown"


def test_without_a_method_the_recipe_proposes_one_and_its_time():
    document = asked(line("water", 3, "l"), line("salt-table", 200, "g"))
    document["recipe"]["text"] = "3 l water\n200 g salt\nleave it five days"
    document["cure"] = {}
    found = {each["code"]: each["changes"][0] for each in dish_document(document)["proposals"]}
    assert found["method"]["field"] == "cure.method"
    assert found["days"] == {"field": "cure.days", "value": 5.0}


@pytest.mark.parametrize(
    ("words", "out_c"),
    [("taken out at 71, rested", 71.0), ("pull it at 160 F", 71.0), ("out at 160", 71.0),
     ("smoked at 110 for two hours", None), ("taken out at 20", None)],
)  # fmt: skip
def test_a_recipe_that_says_when_it_is_taken_out_proposes_that(words, out_c):
    """160 °F are 71.1 °C (by definition), to the half degree as all that is read in °F."""
    document = asked(line("salt-table", 40, "g"), cut="chicken")
    document |= {"heat": {"way": "roast"}}
    document["recipe"]["text"] += f"\n{words}"
    offers = {each["code"]: each for each in dish_document(document)["proposals"]}
    assert (offers["take-out"]["changes"][0]["value"] if out_c else None) == out_c
    assert ("take-out" in offers) is (out_c is not None)
    document["heat"]["take_out_c"] = 70.0
    assert "take-out" not in {each["code"] for each in dish_document(document)["proposals"]}


@pytest.mark.parametrize(
    ("words", "cut", "way"),
    [  # by common practice, as cooks say it
        ("fried to 74", "chicken-thigh", "fry"), ("oil for frying", "chicken-thigh", "fry"),
        ("smoked, then into the pot", "pork-loin", "smoke-simmer"),
        ("smoked at 110 for two hours, simmered till a fork turns, glazed at 200", "brisket",
         "smoke-simmer"),
        ("roasted hot, low, hot", "pork-shoulder", "roast-staged"),
        ("roasted", "chicken", None), ("smoked paprika", "chicken", None),
        ("2 tbsp fried onions", "chicken-thigh", None),
        ("boil the brine and cool it", "brisket", None),
        ("fried to 74", "quail", "fry"), ("boiled in its skin", "roots", "simmer"),
        ("smoked over hay", "roots", None),
    ],
)  # fmt: skip
def test_a_recipe_that_says_how_it_is_cooked_proposes_that(words, cut, way):
    """Where it is another way than is usual, and suits the cut; what is set stays."""
    document = asked(line("salt-table", 12, "g"), cut=cut, method="dry-brine") | {"heat": {}}
    document["recipe"]["text"] += f"\n{words}"
    offers = {each["code"]: each for each in dish_document(document)["proposals"]}
    assert (offers["heat"]["changes"][0]["value"] if "heat" in offers else None) == way
    document["heat"] = {"way": "roast"}
    assert "heat" not in {each["code"] for each in dish_document(document)["proposals"]}


@pytest.mark.parametrize(
    ("lines", "cut", "method"),
    [  # by common practice: what it lies in decides, not a dash of something sour
        ([line("oil", 300, "ml"), line("salt-table", 60, "g"), line("vinegar", 40, "ml")],
         "lamb-shoulder", "herb-marinade"),
        ([line("wine", 750, "ml"), line("oil", 50, "ml"), line("salt-table", 20, "g")],
         "venison", "acid-marinade"),
        ([line("salt-compact-coarse", 96, "g"), line("citrus-juice", 45, "ml")],
         "salmon-piece", "dry-cure"),
    ],
)  # fmt: skip
def test_a_recipe_looks_like_what_it_lies_in(lines, cut, method):
    document = asked(*lines, cut=cut)
    document["cure"] = {}
    offers = dish_document(document)["proposals"]
    assert [e["changes"][0]["value"] for e in offers if e["code"] == "method"] == [method]


def test_without_a_recipe_the_mix_is_that_of_the_aim():
    document = asked()
    del document["recipe"]
    document["cure"] |= {"target_salt_pct": 2.0, "curing_salt": None}
    (salt,) = dish_document(document)["mix"]
    assert (salt["name"], salt["grams"], salt["line"]) == ("salt", pytest.approx(40.0), None)


def test_a_side_job_takes_a_recipe_too():
    lines = [line("flour", 500, "g"), line("water", 300, "ml"), line("salt-table", 2, "tsp"),
             line("egg", 1, "piece")]  # fmt: skip
    job = {"name": "dough", "made_g": 1600, "recipe": {"for_g": 800, "lines": lines}}
    answer = dish_document({"profile": "us", "job": job, "people": 6})
    found = mix_by_name(answer)
    assert found["flour", "cure"]["grams"] == pytest.approx(1000)
    assert found["salt-table", "cure"]["grams"] == pytest.approx(24)
    assert found["egg", "cure"]["count"] == 2
    assert {each["grams"] for each in answer["ingredients"]} >= {1000.0, 600.0}
    twice = job | {"ingredients": [{"name": "flour", "grams": 1.0}]}
    with pytest.raises(WrongInput):
        dish_document({"profile": "us", "job": twice})


def test_a_coarse_scale_stops_the_curing_salt_of_a_recipe_too():
    """2.6 g of no. 1 on 1 kg are 162 ppm; a gram more would be 225, over 200 (9 CFR 424.21)."""
    lines = (line("salt-table", 20, "g"), line("curing-salt-1", 2.6, "g"))
    document = asked(*lines, mass_g=1000, days=5)
    assert dish_document(document)["verdict"] != "stop"
    document["house"] = {"scales": [{"division_g": 1.0, "capacity_g": 5000.0}]}
    answer = dish_document(document)
    assert "scale-doubt-over" in {each["code"] for each in answer["notices"]}


@pytest.mark.parametrize("method", ["needle", "needle-brine", "strong-brine", "even-brine"])
def test_a_brine_of_which_nobody_wrote_the_water_is_worked_out_all_the_same(method):
    answer = dish_document(asked(line("salt-table", 40, "g"), method=method))
    assert answer["mix"][0]["grams"] == 40
    assert answer["verdict"] in ("caution", "stop")


def test_what_stops_is_offered_its_way_out():
    """No curing salt for fish (21 CFR 172.175); birds raw 5 days salted dry at most (practice)."""
    trout = asked(line("salt-table", 40, "g"), line("curing-salt-1", 3, "g"), cut="trout")
    lifted = {each["code"]: each["lifts"] for each in dish_document(trout)["proposals"]}
    assert "curing-salt-fish" in lifted["no-cure"]
    bird = asked(line("salt-table", 20, "g"), cut="chicken", method="dry-brine", days=7)
    answer = dish_document(bird)
    assert answer["verdict"] == "stop"
    (offer,) = (each for each in answer["proposals"] if each["code"] == "shorter")
    assert "raw-clock" in offer["lifts"]
    bird["cure"]["days"] = offer["changes"][0]["value"]
    after = {each["code"]: each["level"] for each in dish_document(bird)["notices"]}
    assert after.get("raw-clock") != "stop"


@pytest.mark.parametrize(
    ("share", "level", "low", "high"),
    [  # by hand: half of 3.2 kg of brine at 6.25 % brings 100 g of salt into 3 kg of water, 3.2 %;
        # with the water of 3 kg of meat, 2.2 kg, even with it, 1.9 %
        (0.5, "caution", 1.9, 3.2), (0.0, None, 0, 0), (0.1, "note", 0.4, 0.7),
    ],
)  # fmt: skip
def test_brine_in_the_pot_makes_a_salty_broth(share, level, low, high):
    """As much water as meat covers it; 1.5 % are the most in what is eaten (common practice)."""
    document = asked(
        line("water", 3, "l"), line("salt-table", 200, "g"), mass_g=3000, method="strong-brine",
        days=1 / 12, recipe={"liquid_to_pot": share},
    )  # fmt: skip
    said = [each for each in dish_document(document)["notices"] if "broth" in each["code"]]
    assert [each["level"] for each in said] == ([level] if level else [])
    if said:
        found = float(re.search(r"comes to about (\d\.\d) %", said[0]["text"])[1])
        assert low <= found <= high
