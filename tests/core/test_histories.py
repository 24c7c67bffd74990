"""What happens to a piece decides: an edit, a plan, an own step, a name lift no stop."""

from itertools import pairwise

import pytest

from pantry_core.formats.operations import dish_document, heat_document
from pantry_core.formats.reading import WrongInput
from pantry_core.judging.side_jobs import keeps_as
from tests.core.dishes import dish

CURED = {"water_g": 2400, "curing_salt": "cure-1", "ingoing_ppm": 150, "target_salt_pct": 2.2}


def own(hours, before, place, **more):
    return {"step": "own", "own": True, "before": before, "place": place, "min_h": hours,
            "prefer_h": hours, "max_h": hours} | more  # fmt: skip


def edited(document, *edits):
    return document | {"edits": list(edits)}


def lasting(step, hours, **more):
    return {"step": step, "min_h": hours, "prefer_h": hours, "max_h": hours} | more


BIRD, BRISKET = dish("chicken", 1800, "strong-brine"), dish("brisket", 2400, "even-brine", **CURED)
STUFFED = dish("turkey", 5000, "none", piece={"form": "stuffed"})
LOIN = dish("pork-loin", 1500, "dry-brine", heat={"way": "roast"})
TROUT = dish("trout-fillet", 900, "dry-brine")
STORIES = [
    # what happens, the document, a code that must stop it, the reason with its source
    ("the roast is taken out", edited(BIRD, {"step": "roast", "removed": True}), "not-cooked",
     "74 °C: USDA (from memory)"),
    ("brined on the counter for a day", edited(BIRD, lasting("brine", 24, place="counter")),
     "out-of-the-cold", "two hours: USDA (from memory)"),
    ("stuffed a night ahead", edited(STUFFED, lasting("stuff", 10, place="fridge")),
     "stuffed-early", "never the day before: USDA (from memory)"),
    ("stuffed from the shop on", edited(STUFFED, {"step": "stuff", "removed": True},
                                        own(20, "roast", "fridge")),
     "stuffed-early", "never the day before: USDA (from memory)"),
    ("put to 60 °C", edited(BIRD, {"step": "roast", "until": {"inside_c": 60}}), "not-done",
     "74 °C: USDA (from memory)"),
    ("six hours on the counter after the heat", edited(BIRD, own(6, "carve", "counter")),
     "kept-warm", "two hours below 60 °C: USDA (from memory)"),
    ("two hours in its brine and nineteen days beside it",
     edited(BRISKET, lasting("brine", 2), own(19 * 24, "hold", "fridge")), "raw-clock",
     "ten days without nitrite in it (common practice)"),
    ("an own step called a brine protects nothing",
     edited(dish("brisket", 2400, "none"), own(15 * 24, "trim", "fridge", kind="even-brine")),
     "raw-clock", "ten days (common practice)"),
    ("an own step called a roast heats nothing",
     edited(BIRD, {"step": "roast", "removed": True}, own(2, "stand", "oven", kind="cook")),
     "not-cooked", "74 °C: USDA (from memory)"),
    ("a low oven for a quarter of an hour", edited(
        BIRD, {"step": "roast", "removed": True},
        own(0.25, "stand", "oven", medium="oven", medium_c=120)), "not-done",
     "74 °C: USDA (from memory)"),
    ("a bird thawed on the counter", edited(
        dish("chicken", 1800, "none", piece={"frozen": True}),
        lasting("thaw", 12, place="counter")),
     "out-of-the-cold", "two hours: USDA (from memory)"),
    ("raw fish frozen for a day", edited(
        dish("char-side", 1200, "dry-cure", piece={"will_be": "raw"}, days=1,
             customs={"fish": "raw-freeze"}), lasting("parasites", 24)), "parasites",
     "seven days: FDA Food Code 3-402.11 (from memory)"),
    ("raw fish whose frost is taken out", edited(
        dish("char-side", 1200, "dry-cure", piece={"will_be": "raw"}, days=1,
             customs={"fish": "raw-freeze"}), {"step": "parasites", "removed": True}), "parasites",
     "seven days: FDA Food Code 3-402.11 (from memory)"),
    ("roasted and then cooled whole overnight", edited(
        dish("pork-shoulder", 4000, "none", piece={"thickness_mm": 130}, heat={"way": "roast"}),
        own(14, "carve", "fridge")), "cools-slowly",
     "57 to 21 °C in 2 h: FDA Food Code 3-501.14 (from memory)"),
    ("cold smoke on meat without nitrite", dish("duck-breast", 800, "dry-brine",
                                                heat={"way": "cold-smoke"}), "cold-smoke",
     "nitrite through its heart (common practice)"),
    ("ground into patties from a joint", edited(
        LOIN, own(0.25, "roast", "counter", form="ground"),
        {"step": "roast", "until": {"inside_c": 63}}), "not-done", "71 °C: USDA (from memory)"),
    ("five days in the fridge, then a drumstick", edited(
        dish("chicken-drumstick", 900, "none"), own(5 * 24, "trim", "fridge")), "raw-clock",
     "five days (common practice on USDA's two)"),
]  # fmt: skip
SAFE = [
    ("a bird brined overnight", BIRD, "USDA: 74 °C, two days raw (from memory)"),
    ("a brisket cured and simmered", BRISKET, "FSIS Directive 7620.3 (from memory)"),
    ("a gammon", dish("gammon-flat", 2400, "even-brine", **CURED), "a fortnight (practice)"),
    ("a belly", dish("belly-skinless", 1500, "dry-cure", days=7), "a week (practice)"),
    ("a brisket low in the smoke", dish("brisket", 4000, "dry-brine", heat={"way": "smoke"}),
     "FSIS Appendix A: within 6 h (from memory)"),
    ("a shoulder low in the smoke", dish("pork-shoulder", 3000, "dry-brine", heat={"way": "smoke"}),
     "FSIS Appendix A: within 6 h (from memory)"),
    ("a stuffed turkey", STUFFED, "USDA: stuffed just before (from memory)"),
    ("roasted as an own step", edited(
        BIRD, {"step": "roast", "removed": True},
        own(1.5, "stand", "oven", medium="oven", medium_c=190, until={"inside_c": 74})),
     "USDA: 74 °C, whatever it is called (from memory)"),
    ("an hour on the counter before the oven", dish(
        "lamb-leg", 2500, "none", customs={"tempering": "hour"}),
     "USDA: two hours (from memory)"),
    ("kept warm for three hours at 65 °C", edited(
        LOIN, own(3, "carve", "oven", medium="oven", medium_c=65)), "USDA: 60 °C (from memory)"),
    ("a fillet for the pan", TROUT, "FDA Food Code 3-401.11 (from memory)"),
    ("frozen for a month in between", edited(
        dish("chicken", 1800, "none"), own(720, "keep", "freezer"), lasting("keep", 24)),
     "USDA: frost stops the clock (from memory)"),
    ("cooled in ice", edited(
        dish("pork-loin", 1500, "none", piece={"thickness_mm": 60}, heat={"way": "roast"}),
        own(3, "carve", "sink", medium="ice-bath", medium_c=1)),
     "57 to 21 °C in 2 h: FDA Food Code 3-501.14 (from memory)"),
]  # fmt: skip


def stops(document):
    return {each["code"] for each in dish_document(document)["notices"] if each["level"] == "stop"}


@pytest.mark.parametrize(("document", "code"), [row[1:3] for row in STORIES],
                         ids=[row[0] for row in STORIES])  # fmt: skip
def test_what_can_hurt_is_stopped(document, code):
    assert code in stops(document)


@pytest.mark.parametrize("document", [row[1] for row in SAFE], ids=[row[0] for row in SAFE])
def test_ordinary_work_is_not(document):
    assert stops(document) == set()


@pytest.mark.parametrize(("before", "after"), [
    (lasting("brine", 24, place="counter"), lasting("brine", 24)),
    ({"step": "roast", "until": {"inside_c": 60}}, {"step": "roast", "until": {"inside_c": 75}}),
    (own(6, "carve", "counter"), own(6, "carve", "counter", medium="air", medium_c=60)),
    (own(6, "carve", "counter"), own(1, "carve", "counter")),
])  # fmt: skip
def test_what_is_put_right_lifts_its_stop(before, after):
    assert stops(edited(BIRD, before))
    assert not stops(edited(BIRD, after))


def test_each_step_at_the_heat_has_its_own_temperature_and_names_it():
    smoked = dish("belly-skinless", 1500, "dry-cure", days=7, heat={"way": "smoke"})
    steps = {each["id"]: each for each in dish_document(smoked)["steps"]}
    assert (steps["smoke-low"]["medium_c"], steps["smoke-hot"]["medium_c"]) == (60, 110)
    hotter = edited(smoked, {"step": "smoke-low", "medium_c": 75})
    changed = {each["id"]: each for each in dish_document(hotter)["steps"]}
    assert (changed["smoke-low"]["medium_c"], changed["smoke-hot"]["medium_c"]) == (75, 110)
    assert "75" in str(changed["smoke-low"]["text"])
    assert "60" not in str(changed["smoke-low"]["text"])
    with pytest.raises(WrongInput, match="medium_c"):
        dish_document(edited(smoked, {"step": "x", "medium": "oven", "medium_c": 900}))


def test_the_history_runs_from_the_shop_to_the_table():
    stays = dish_document(BRISKET)["history"]
    assert stays[0]["from_h"] == 0
    assert all(a["to_h"] == b["from_h"] for a, b in pairwise(stays))
    states = [each["state"] for each in stays]
    assert states.index("curing") < states.index("hot") < states.index("cooked")
    (cure,) = [each for each in stays if each["state"] == "curing"]
    assert (cure["lies_in"], cure["place"], cure["around_c"]) == ("brine", "fridge", 4)
    # 150 ppm even count, and what the salt has of its way
    assert 0 < cure["nitrite_ppm"]["least"] < cure["nitrite_ppm"]["mean"] <= 150


def test_a_long_history_of_many_own_steps_is_worked_out():
    many = [own(2, "trim", "fridge") | {"step": f"own-{i}"} for i in range(200)]
    assert "raw-clock" in stops(edited(BIRD, *many))
    days = [own(200 * 24, "keep", "freezer") | {"step": f"own-{i}"} for i in range(2)]
    assert stops(edited(dish("chicken", 1800, "none"), *days)) == set()


@pytest.mark.parametrize(("facts", "where"), [
    ([{"what": "put-in", "step": "brine", "at": "2027-03-20T18:00"},
      {"what": "lifted", "step": "lift", "at": "2027-03-20T08:00"}], "facts.1.at"),
    ([{"what": "step-ended", "step": "carve", "at": "2027-03-20T18:00"},
      {"what": "weighed", "step": "trim", "at": "2027-03-20T19:00", "mass_g": 1700}], "facts.1.at"),
    ([{"what": "step-started", "step": "brine", "at": "2027-03-20T18:00"},
      {"what": "step-ended", "step": "brine", "at": "2027-03-20T12:00"}], "facts.1.at"),
])  # fmt: skip
def test_facts_that_contradict_each_other_are_refused_where_they_stand(facts, where):
    with pytest.raises(WrongInput) as refused:
        dish_document(BIRD | {"tz": "UTC", "facts": facts, "now": "2027-03-21T08:00"})
    assert [each.where for each in refused.value.problems] == [where]


def test_a_reading_on_the_way_does_not_silence_what_is_meant():
    low = edited(BIRD, {"step": "roast", "until": {"inside_c": 60}})
    facts = [{"what": "step-started", "step": "roast", "at": "2027-03-20T10:00"},
             {"what": "temperature-read", "step": "roast", "at": "2027-03-20T10:30",
              "temperature_c": 25}]  # fmt: skip
    under_way = {"tz": "UTC", "facts": facts, "now": "2027-03-20T10:40"}
    assert "not-done" in stops(low | under_way)  # 74 °C: USDA (from memory)
    assert "not-done" not in stops(BIRD | under_way)


def test_a_thermometer_that_reads_300_tells_nothing_of_the_meat():
    facts = [{"what": "step-started", "step": each, "at": f"2027-03-20T{hour}:00"}
             for each, hour in (("roast", 10), ("stand", 12))]  # fmt: skip
    read = {"what": "temperature-read", "step": "roast", "at": "2027-03-20T11:30",
            "temperature_c": 300}  # fmt: skip
    document = BIRD | {"tz": "UTC", "facts": [*facts, read], "now": "2027-03-20T12:10"}
    assert "not-read" in {each["code"] for each in dish_document(document)["notices"]}


@pytest.mark.parametrize(("name", "ingredients", "keeps", "steps", "code"), [
    # rice: an hour below 60, a day; garlic in oil: four days, FDA and CDC (from memory)
    ("rice", None, None, [("boil", "hob", 0.5), ("wait", "counter", 1.5)], "stands-warm"),
    ("rice", None, "acid", [("boil", "hob", 0.5), ("wait", "counter", 1.5)], "stands-warm"),
    ("rice", None, None, [("boil", "hob", 0.5), ("wait", "fridge", 30)], "kept-long"),
    ("dip", [("oil", 100), ("garlic", 20)], None, [("stir", "counter", 0.5),
                                                   ("draw", "fridge", 100)], "oil-kept"),
    ("dip", [("oil", 100), ("garlic", 20)], None, [("stir", "counter", 3)], "oil-kept"),
    ("stock", [("bones", 1500)], None, [("boil", "hob", 8), ("cool", "counter", 6)], "stands-warm"),
    ("pickle", [("vinegar", 200), ("cucumber", 300)], None, [("pour", "counter", 30)],
     "pickle-warm"),
    ("pickle", [("vinegar", 100), ("water", 300)], None, [("pickle", "fridge", 24 * 9)],
     "pickle-old"),
    ("loaf", [("flour", 500), ("water", 300)], None, [("bake", "oven", 1), ("cool", "counter", 20)],
     None),
    ("kraut", [("cabbage", 1000), ("salt", 25)], None, [("stand", "counter", 24 * 20)], None),
])  # fmt: skip
def test_side_jobs_have_clocks_by_what_is_in_them(name, ingredients, keeps, steps, code):
    job = {"name": name, "made_g": 1000, "keeps": keeps, "steps": [
        {"id": step, "place": place, "min_h": h, "prefer_h": h, "max_h": h}
        for step, place, h in steps]}  # fmt: skip
    if ingredients is not None:
        job["ingredients"] = [{"name": one, "grams": grams} for one, grams in ingredients]
    house = {"fridge_c": 4.0, "places": {"counter": 18}} if name == "kraut" else {"fridge_c": 4.0}
    found = stops({"profile": "us", "job": job, "house": house})
    assert found == ({code} if code else set())


def test_a_milder_word_lifts_nothing():
    assert keeps_as("acid", {"rice": 100.0}, is_cooked=True) == "rice"
    assert keeps_as("rice", {"flour": 100.0}, is_cooked=True) == "rice"


def test_the_fridge_is_given_once():
    twice = BIRD | {"house": {"fridge_c": 4.0, "places": {"fridge": 5.0}}}
    with pytest.raises(WrongInput, match="one of the two"):
        dish_document(twice)


@pytest.mark.parametrize(("mm", "treatment", "level"), [
    # FSIS Appendix A (from memory): 6 h; 4, 6 and 9 by common practice
    (60, [], None), (250, [], "caution"), (320, [], "stop"), (210, ["pricked"], "caution"),
    (250, ["pricked"], "stop"),
])  # fmt: skip
def test_heat_is_judged_as_in_a_dish(mm, treatment, level):
    piece = {"cut": "pork-loin", "mass_g": 20_000, "thickness_mm": mm, "treatment": treatment}
    oven = {"medium": "oven", "temperature_c": 110, "until_c": 63}
    answer = heat_document({"piece": piece, "stages": [oven]})
    hours, inside = answer["hours"], answer["inside_c"]
    between = [h for h, c in zip(hours, inside, strict=True) if 10 <= c < 54]
    lasts, most = between[-1] - between[0], 4 if treatment else 6
    assert (lasts > most) == (level is not None)
    levels = [each["level"] for each in answer["notices"] if each["code"] == "warms-slowly"]
    assert levels == ([level] if level else [])


def test_what_is_ground_waits_for_no_salt():
    sausage = dish("pork-shoulder", 2000, "dry-cure", piece={"form": "ground"},
                   curing_salt="cure-1", target_salt_pct=2.0)  # fmt: skip
    answer = dish_document(sausage)
    steps = [each["id"] for each in answer["steps"]]
    assert "lift" not in steps
    assert answer["days"] < 0.25
    assert answer["verdict"] == "go"
    (mixed,) = [each for each in answer["history"] if each["lies_in"]]
    # all of it is in the meat at once: 2 %, and 140 ppm (what is usual, below the 156 of 9 CFR)
    assert mixed["salt"]["least"] == pytest.approx(2.0)
    assert mixed["nitrite_ppm"]["least"] == pytest.approx(140.0)
