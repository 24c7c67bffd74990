"""What `weigh` says beside its numbers, and what it refuses."""

import copy
import json
import subprocess
import sys
from io import BytesIO, TextIOWrapper
from pathlib import Path

import pytest

from pantry_core.__main__ import main as command_line
from pantry_core.errors import OutOfRange
from pantry_core.formats.operations import answer_text, weigh_document
from pantry_core.formats.reading import WrongInput
from pantry_core.formats.schema import schemas
from pantry_core.mixes.nitrite import even_ppm
from pantry_core.mixes.strength import brine_density_g_ml

ROOT = Path(__file__).parents[2]
GAMMON = {
    "profile": "us",
    "meat": {"kind": "pork", "mass_g": 2400, "thickness_mm": 50, "shape": "slab"},
    "method": "even-brine",
    "target_salt_pct": 2.0,
    "water_g": 2400,
    "cure": {"name": "cure-1"},
}


def changed(**changes):
    """The gammon with other values; `meat__x` reaches into the meat, None leaves a field out."""
    document = copy.deepcopy(GAMMON)
    for name, value in changes.items():
        holder, field = (
            (document["meat"], name[6:]) if name.startswith("meat__") else (document, name)
        )
        if value is None:
            holder.pop(field, None)
        else:
            holder[field] = value
    return document


def test_nitrite_just_below_what_is_enough_does_not_read_like_it():
    """Under 120 may be too little (9 CFR 424.22(b), from memory): 119.9 is no 120."""
    answer = weigh_document(changed(cure={"name": "cure-1", "ingoing_ppm": 119.9}))
    (text,) = [each["text"] for each in answer["notices"] if each["code"] == "nitrite-low"]
    assert text.startswith("119.9 ppm of nitrite may be too little")
    assert "120 ppm is enough" in text


OIL = {"method": "marinade", "target_salt_pct": 0, "cure": None,
       "sauces": [{"name": "oil", "mass_g": 50}]}  # fmt: skip


@pytest.mark.parametrize(
    ("mass_g", "division_g", "text"),
    [  # 1 % of 10 g is 0.1 g, of 300 g 3 g; a step of 1 g is 33 % of that
        (10, 1.0, "0.10 g of salt is less than the 1 g that your scale shows. Use a finer one."),
        (300, 1.0, "Your 1 g scale can be 33 % out on 3.0 g of salt. Use a finer one."),
        (300, 0.1, None),
    ],
)
def test_the_doubt_of_a_scale_is_never_more_than_all_of_a_line(mass_g, division_g, text):
    asked = changed(
        method="dry-cure",
        cure=None,
        target_salt_pct=1.0,
        water_g=None,
        meat__mass_g=mass_g,
        meat__thickness_mm=10,
        scale_division_g=division_g,
    )
    notices = weigh_document(asked)["notices"]
    assert [each["text"] for each in notices if each["code"] == "scale-doubt"] == (
        [] if text is None else [text]
    )


@pytest.mark.parametrize(
    ("changes", "level", "code"),
    [
        ({"cure": {"name": "cure-1", "ingoing_ppm": 201}}, "stop", "nitrite-over"),
        ({"cure": {"name": "cure-1", "ingoing_ppm": 90}}, "caution", "nitrite-low"),
        ({"profile": "eu"}, "stop", "nitrite-over"),
        ({"meat__will_be": "bacon"}, "stop", "nitrite-over"),
        ({"meat__kind": "fish"}, "stop", "curing-salt-fish"),
        ({"meat__kind": "vegetable"}, "stop", "curing-salt-vegetable"),
        ({"meat__will_be": "raw"}, "stop", "raw-meat"),
        ({"meat__kind": "fish", "meat__will_be": "raw"}, "stop", "parasites"),
        ({"target_salt_pct": 22}, "stop", "undissolved"),
        ({"target_salt_pct": 4}, "caution", "very-salty"),
        ({"target_salt_pct": 0.1}, "stop", "salt-below-zero"),
        ({"temperature_c": 5.1}, "stop", "too-warm"),
        ({"temperature_c": -1}, "caution", "too-cold"),
        ({"temperature_c": 45}, "note", "density-unknown"),
        ({"scale_division_g": 1}, "caution", "scale-doubt"),
        ({"scale_division_g": 5}, "stop", "scale-doubt-over"),
        ({"meat__thickness_mm": 200}, "caution", "thick-for-mass"),
        ({"meat__thickness_mm": 9}, "caution", "thin-for-mass"),
        ({"cure": None}, "note", "uncured"),
        ({"method": "dry-cure"}, "note", "unused"),
        ({}, "note", "curing-salt-handling"),
        ({}, "note", "brine-cold"),
        ({}, "note", "model"),
        ({"temperature_c": 16}, "caution", "no-model"),
        ({}, "note", "authority"),
        ({"cure": {"name": "nitrite-salt", "nitrite_pct": 60}}, "stop", "strength-too-high"),
        ({"cure": {"name": "nitrite-salt"}}, "stop", "strength-unlabelled"),
        ({"cure": {"name": "nitrite-salt", "nitrite_pct": 2}}, "caution", "strength-unusual"),
        ({"cure": {"name": "cure-2"}}, "caution", "nitrate-in-fridge-cure"),
        ({"cure": {"name": "cure-2"}, "meat__will_be": "bacon"}, "stop", "nitrate-bacon"),
        ({"cure": {"name": "saltpetre"}}, "caution", "saltpetre"),
        ({"cure": {"name": "saltpetre", "ingoing_ppm": 800}}, "stop", "nitrate-over"),
        ({"cure": {"name": "celery"}}, "caution", "celery-unknown"),
        ({"cure": {"name": "celery", "nitrite_pct": 1}}, "note", "celery"),
        ({"method": "dry-cure", "heaped": True}, "stop", "curing-salt-heaped"),
        ({"method": "dry-cure", "heaped": True, "cure": None}, "note", "lift-on-time"),
        ({"method": "strong-brine", "brine_salt_pct": 12}, "note", "lift-on-time"),
        ({"method": "strong-brine", "brine_salt_pct": 1}, "caution", "no-model"),
        ({"method": "injection"}, "note", "not-intact"),
        ({"method": "injection", "water_g": 120}, "stop", "needle-short"),
        (
            {"method": "injection", "water_g": 500, "cure": {"name": "cure-1", "ingoing_ppm": 190}},
            "stop",
            "nitrite-over",
        ),
        ({"method": "injection", "cover": False, "target_salt_pct": 4}, "stop", "undissolved"),
        ({"method": "injection", "cover": False, "target_salt_pct": 12}, "stop", "undissolved"),
        ({"sauces": [{"name": "fish-sauce", "mass_g": 600}]}, "stop", "salt-below-zero"),
        (
            {"method": "marinade", "sauces": [{"name": "kiwi", "mass_g": 50}]},
            "caution",
            "enzyme-fruit",
        ),
        ({**OIL}, "note", "herbs-in-oil"),  # up to five days (common practice)
        ({**OIL, "days": 5}, "note", "herbs-in-oil"),
        ({**OIL, "days": 6}, "caution", "herbs-in-oil"),
        ({**OIL, "days": 7.1}, "stop", "herbs-in-oil"),
        ({"method": "marinade"}, "note", "boil-marinade"),
    ],
)
def test_notices(changes, level, code):
    found = {each["code"]: each for each in weigh_document(changed(**changes))["notices"]}
    assert found[code]["level"] == level
    assert found[code]["basis"]
    if not changes:
        assert "stop" not in {each["level"] for each in found.values()}


def test_limits_are_met_when_equal():
    for ppm, verdict in (
        (200.0, "ok"),
        (200.04, "ok"),
        (200.2, "over"),
        (120, "ok"),
        (119.8, "low"),
    ):
        cure = {"name": "cure-1", "ingoing_ppm": ppm}
        assert weigh_document(changed(cure=cure))["nitrite"]["verdict"] == verdict


def test_no_salt_aimed_at_is_never_ready():
    answer = weigh_document(changed(target_salt_pct=0, cure=None))
    assert answer["ready"] is None
    assert answer["nitrite"]["verdict"] == "none"


@pytest.mark.parametrize(
    ("changes", "where"),
    [
        ({"meat__mass_g": 0}, "meat.mass_g"), ({"meat__mass_g": -5}, "meat.mass_g"),
        ({"meat__mass_g": 900_000}, "meat.mass_g"), ({"meat__mass_g": "3 kg"}, "meat.mass_g"),
        ({"meat__mass_g": float("nan")}, "meat.mass_g"), ({"meat__mass_g": True}, "meat.mass_g"),
        ({"meat__thickness_mm": 0}, "meat.thickness_mm"), ({"meat__kind": "yak"}, "meat.kind"),
        ({"meat__bone_share": 1.0}, "meat.bone_share"), ({"meat__hoof": 4}, "meat.hoof"),
        ({"water_g": None}, "water_g"), ({"water_g": 0}, "water_g"), ({"profile": None}, "profile"),
        ({"method": "smoke"}, "method"), ({"heaped": True}, "heaped"),
        ({"method": "strong-brine"}, "brine_salt_pct"),
        ({"method": "strong-brine", "brine_salt_pct": 95}, "brine_salt_pct"),
        ({"method": "injection", "water_g": None}, "water_g"),
        ({"method": "injection", "injection_share": 0}, "injection_share"),
        ({"method": "injection", "injection_share": 0.4}, "injection_share"),
        ({"cure": {"name": "lamp-oil"}}, "cure.name"),
        ({"cure": {"name": "saltpetre", "nitrate_pct": 5}}, "cure.nitrate_pct"),
        ({"cure": {"name": "celery", "nitrite_pct": 0.4, "nitrate_pct": 99.7}}, "cure.nitrate_pct"),
        ({"cure": {"name": "nitrite-salt", "nitrite_pct": 0.01, "ingoing_ppm": 9000,
                   "nitrate_pct": 9}}, "cure.nitrate_pct"),
        ({"sauces": [{"name": "soy", "mass_g": 9}]}, "sauces.0.salt_pct"),
        ({"cure": {"name": "cure-1", "nitrite_pct": 60}}, "cure.nitrite_pct"),
        ({"target_salt_pct": 90}, "target_salt_pct"), ({"format": "pantry-clock/9"}, "format"),
    ],
)  # fmt: skip
def test_refuses(changes, where):
    with pytest.raises(WrongInput) as refused:
        weigh_document(changed(**changes))
    assert [each.where for each in refused.value.problems] == [where]
    assert all(each.what for each in refused.value.problems)


def test_tells_everything_at_once():
    with pytest.raises(WrongInput) as refused:
        weigh_document(
            changed(meat__mass_g=-1, meat__shape="cube", water_g=None, sugar_pct="x", odd=1)
        )
    wheres = {each.where for each in refused.value.problems}
    assert wheres == {"meat.mass_g", "meat.shape", "water_g", "sugar_pct", "odd"}


@pytest.mark.parametrize(
    "text", ["", "{", "[]", "3", "null", '{"a":1,"a":2}', "[" * 100_000, "{}", b"\xff\xfe", '"x"']
)
def test_nonsense_is_an_error_document(text):
    answer, computed = answer_text("weigh", text)
    assert not computed
    assert json.loads(answer)["errors"]


def test_formulas_refuse_what_is_out_of_range():
    for formula in (
        lambda: even_ppm(-1, 100, 100),
        lambda: even_ppm(1, 0, 0),
        lambda: brine_density_g_ml(0.3, 20),
        lambda: brine_density_g_ml(0.1, 41),
        lambda: brine_density_g_ml(float("nan"), 20),
    ):
        with pytest.raises(OutOfRange, match="use "):
            formula()


def test_command_line(tmp_path, monkeypatch, capsys):
    def pantry(*arguments, text=""):
        monkeypatch.setattr(sys, "stdin", TextIOWrapper(BytesIO(text.encode())))
        try:
            code = command_line(list(arguments))
        except SystemExit as left:
            code = left.code
        return code, *capsys.readouterr()

    good, bad = json.dumps(GAMMON), json.dumps(changed(water_g=0))
    file = tmp_path / "gammon.json"
    file.write_text(good)
    code, answer, _ = pantry("weigh", str(file))
    assert code == 0
    assert json.loads(answer) == weigh_document(GAMMON)
    assert pantry("weigh", "-", text=bad)[0] == 2
    assert pantry("check", "-", text=good)[0] == 2  # it has no lines
    code, lines, _ = pantry("weigh", "--lines", "-", text=f"{good}\n{bad}\nnonsense\n{good}\n")
    answers = [json.loads(line) for line in lines.splitlines()]
    assert [("errors" in answer) for answer in answers] == [False, True, True, False]
    assert code == 2
    for wrong in (pantry("cook", "-"), pantry("weigh", "no-such-file")):
        assert wrong[:2] == (2, "")
        assert "Traceback" not in wrong[2]
    process = subprocess.run(
        [sys.executable, "-m", "pantry_core", "weigh", "-"], input=good, capture_output=True,
        text=True, check=True, cwd=ROOT, env={"PYTHONPATH": "src", "PYTHONUTF8": "1"},
    )  # fmt: skip
    assert process.stdout == answer
    assert not process.stderr


def test_schemas_in_the_docs_are_those_of_the_models():
    for name, schema in schemas().items():
        assert json.loads((ROOT / "docs" / "schema" / f"{name}.json").read_text()) == schema


@pytest.mark.parametrize(
    ("changes", "inside_c"),
    [
        # USDA safe temperatures; FDA Food Code 3-401.11 (from memory)
        ({}, 63), ({"treatment": ["pricked"]}, 68), ({"method": "injection"}, 68),
        ({"meat__sodium_mg": 500, "water_g": 4800}, 68), ({"meat__form": "ground"}, 71),
        ({"meat__kind": "poultry", "method": "injection"}, 74), ({"treatment": ["stuffed"]}, 74),
        ({"meat__kind": "game", "meat__wild": "deer"}, 71),
        ({"meat__kind": "game", "meat__wild": "other"}, 74),
        ({"meat__kind": "game", "meat__species": "rabbit"}, 71), ({"meat__kind": "game"}, 63),
        ({"meat__kind": "fish", "cure": None}, 63), ({"meat__kind": "vegetable"}, None),
        ({"meat__kind": "fish", "meat__will_be": "raw"}, None),
    ],
)  # fmt: skip
def test_inside_temperature(changes, inside_c):
    assert weigh_document(changed(**changes))["inside_c"] == inside_c


def test_ground_meat_counts_all_nitrite_over_the_meat():
    answer = weigh_document(changed(meat__form="ground", cure={"name": "cure-1"}))
    grams = {line["name"]: line["grams"] for line in answer["lines"]}
    # 150 ppm on 2400 g by a salt of 6.25 %, whatever liquid goes in
    assert grams["curing-salt"] == pytest.approx(150e-6 * 2400 / 0.0625)
    assert answer["nitrite"]["dry_ppm"] == pytest.approx(150)
    assert answer["nitrite"]["even_ppm"] is None


def test_a_timed_brine_is_low_by_what_is_taken_up():
    asked = {"method": "strong-brine", "brine_salt_pct": 12, "target_salt_pct": 2.0}
    answer = weigh_document(changed(**asked))
    share = 2.0 / answer["salt"]["in_meat_pct"]  # nitrite moves as the salt does
    assert answer["nitrite"]["taken_up_ppm"] == pytest.approx(150 * share)
    assert answer["nitrite"]["even_ppm"] == pytest.approx(150)
    assert answer["nitrite"]["verdict"] == "low"


def test_celery_powder_is_no_salt_but_for_its_label():
    def salt(**label):
        cure = {"name": "celery", "nitrite_pct": 0.5} | label
        lines = weigh_document(changed(cure=cure))["lines"]
        return {line["name"]: line["grams"] for line in lines}

    plain, labelled = salt(), salt(salt_pct=40)
    assert plain["salt"] == pytest.approx(0.02 * 4800)
    assert labelled["salt"] == pytest.approx(0.02 * 4800 - 0.4 * labelled["curing-salt"])


def test_salt_that_the_meat_was_sold_with_is_taken_off():
    # 400 mg of sodium in 100 g are 1.0168 % salt, by the ratio of masses 0.002542
    lines = weigh_document(changed(meat__sodium_mg=400, cure=None))["lines"]
    grams = {line["name"]: line["grams"] for line in lines}
    assert grams["salt"] == pytest.approx(0.02 * 4800 - 2400 * 400 * 0.002542 / 100)


def test_a_thin_excess_of_salt_is_a_note_that_names_the_sauce():
    def told(soy_g, **changes):
        sauces = [{"name": "soy-sauce", "mass_g": soy_g}]
        asked = changed(method="marinade", water_g=None, cure=None, target_salt_pct=1.0,
                        sauces=sauces, **changes)  # fmt: skip
        return next(e for e in weigh_document(asked)["notices"] if e["code"] == "salt-below-zero")

    # 24 g are asked for; soy sauce is 13.96 % salt (USDA FoodData Central, from memory)
    thin, much = told(24.0 / 0.1396 * 1.05), told(24.0 / 0.1396 * 1.2)
    assert (thin["level"], much["level"]) == ("note", "stop")
    for each in (thin, much):
        assert "soy sauce" in each["text"]
        assert "curing" not in each["text"]


@pytest.mark.parametrize(
    ("storage", "salt_pct", "is_stopped"),
    [
        # FDA fish guide, ch. 13 (from memory): 3.5 % vacuum-packed, 2.5 air-packed, of its water;
        # 0.70 of a fish is water, so 2.54 % and 1.79 % of the meat
        ("vacuum", 2.6, False), ("vacuum", 2.5, True), ("air", 1.85, False), ("air", 1.75, True),
        ("meal", 1.0, False),
    ],
)  # fmt: skip
@pytest.mark.parametrize("beside", [True, False])
def test_smoked_fish_that_is_kept(storage, salt_pct, is_stopped, beside):
    asked = changed(meat__kind="fish", meat__will_be="smoked", method="dry-cure", water_g=None,
                    cure=None, target_salt_pct=salt_pct)  # fmt: skip
    (asked if beside else asked["meat"])["storage"] = storage
    codes = {each["code"] for each in weigh_document(asked)["notices"]}
    assert ("water-phase-low" in codes) == is_stopped
    assert ("smoked-fish-kept" in codes) == (storage != "meal")


def test_pumped_bacon_is_told_of_ascorbate():
    codes = {
        each["code"]
        for each in weigh_document(changed(meat__will_be="bacon", method="injection"))["notices"]
    }
    assert "bacon-ascorbate" in codes


@pytest.mark.parametrize(
    ("days", "said"),
    [(5.0, None), (5.01, "It would be raw for a little over 5 days; the caution is at 5 days."),
     (6.0, "It would be raw for 6 days; the caution is at 5 days.")],
)  # fmt: skip
def test_exactly_at_a_limit_is_within_it(days, said):
    """Red meat without nitrite: a caution beyond 5 days (USDA cold storage, from memory)."""
    notices = weigh_document(changed(cure=None, method="dry-brine", days=days))["notices"]
    texts = [each["text"] for each in notices if each["code"] == "raw-clock"]
    assert [text.startswith(said) for text in texts] == ([] if said is None else [True])
