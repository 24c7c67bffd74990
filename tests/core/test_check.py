"""What `check` says of a recipe, and what it refuses."""

import copy

import pytest

from pantry_core.formats.operations import check_document
from pantry_core.formats.reading import WrongInput

RECIPE = {
    "profile": "us",
    "meat": {"kind": "pork", "mass_g": 2400, "thickness_mm": 50, "shape": "slab"},
    "method": "even-brine",
    "lines": [
        {"name": "water", "amount": 2400, "unit": "g"},
        {"name": "salt-table", "amount": 95, "unit": "g"},
    ],
}


def with_lines(*lines, **changes):
    document = copy.deepcopy(RECIPE) | changes
    document["lines"] += [
        dict(zip(("name", "amount", "unit"), each[:3], strict=True)) | (each[3] if each[3:] else {})
        for each in lines
    ]
    return document


@pytest.mark.parametrize(
    ("document", "level", "code"),
    [
        (with_lines(("salt-hollow-flake", 1, "us-cup")), "caution", "salt-by-volume"),
        (with_lines(("curing-salt-1", 1, "tbsp")), "caution", "cure-by-spoon"),
        (with_lines(("curing-salt-1", 40, "g")), "stop", "nitrite-over"),
        (with_lines(("curing-salt-1", 9, "g")), "caution", "nitrite-low"),
        (with_lines(("curing-salt-1", 14, "g")), "note", "two-counts"),
        (with_lines(("celery-powder", 14, "g")), "caution", "celery-unknown"),
        (with_lines(("nitrite-salt", 14, "g")), "stop", "strength-unlabelled"),
        (with_lines(("nitrite-salt", 14, "g", {"nitrite_pct": 60})), "stop", "strength-too-high"),
        (with_lines(("saltpetre", 4, "g")), "caution", "saltpetre"),
        (with_lines(("salt-rock-pink", 4, "g")), "caution", "pink-rock-salt"),
        (with_lines(("salt-rock-pink", 4, "g")), "note", "uncured"),
        (with_lines(("salt-table", 2, "kg")), "caution", "undissolved"),
        (with_lines(("salt-table", 200, "g")), "caution", "very-salty"),
        (with_lines(lines=RECIPE["lines"][:1]), "caution", "no-salt"),
        (with_lines(("ice", 2, "us-cup")), "caution", "ice-by-volume"),
        (with_lines(("curing-salt-1", 12, "g"), days=2), "caution", "too-short"),
        (with_lines(("salt-table", 300, "g"), method="strong-brine", days=9), "note", "after-days"),
        (with_lines(method="strong-brine"), "note", "lift-on-time"),
        (with_lines(method="injection"), "note", "not-intact"),
        (with_lines(method="injection", used_share=0.05), "stop", "needle-short"),
        (with_lines(method="dry-cure", used_share=0.5), "note", "unused"),
        (with_lines(("curing-salt-1", 6, "g"), method="dry-cure", heaped=True),
         "stop", "curing-salt-heaped"),
        (with_lines(("kiwi", 100, "g")), "caution", "enzyme-fruit"),
    ],
)  # fmt: skip
def test_notices(document, level, code):
    found = {each["code"]: each for each in check_document(document)["notices"]}
    assert found[code]["level"] == level
    assert found[code]["basis"]


@pytest.mark.parametrize(
    ("document", "where"),
    [
        (with_lines(("", 1, "g")), "lines.2.name"),
        (with_lines(("water", 1, "hogshead")), "lines.2.unit"),
        (with_lines(("water", -1, "g")), "lines.2.amount"),
        (with_lines(("salt-rock-pink", 1, "g", {"nitrite_pct": 6.25})), "lines.2.nitrite_pct"),
        (with_lines(("curing-salt-1", 1, "g", {"salt_pct": 6.25})), "lines.2.salt_pct"),
        (with_lines(lines=[]), "lines"),
        (with_lines(used_share=0), "used_share"),
        (with_lines(heaped=True), "heaped"),
        (with_lines(("water", 500, "kg")), "lines"),
        (with_lines(days=0), "days"),
    ],
)
def test_refuses(document, where):
    with pytest.raises(WrongInput) as refused:
        check_document(document)
    assert [each.where for each in refused.value.problems] == [where]
    assert refused.value.problems[0].what


def test_the_share_that_was_used_changes_salt_and_nitrite_but_not_strength():
    cured = ("curing-salt-1", 14, "g")
    all_of_it, half = (check_document(with_lines(cured, used_share=u)) for u in (1, 0.5))
    assert half["pickle"]["salt_pct"] == pytest.approx(all_of_it["pickle"]["salt_pct"])
    assert half["nitrite"]["even_ppm"] < all_of_it["nitrite"]["even_ppm"]
    assert half["nitrite"]["pickup_ppm"] == pytest.approx(all_of_it["nitrite"]["pickup_ppm"])
    assert half["salt"]["in_meat_pct"] < all_of_it["salt"]["in_meat_pct"]
    assert half["lines"] == all_of_it["lines"]


def test_a_needle_alone_counts_what_goes_in():
    document = with_lines(("curing-salt-1", 40, "g"), method="injection", cover=False)
    nitrite = check_document(document)["nitrite"]
    # a tenth of the weight goes in: 0.1 · 2.5 g of nitrite · 1e6 / 2535 g of pickle
    assert nitrite["needle_ppm"] == pytest.approx(0.1 * 2.5e6 / 2535, rel=1e-6)
    assert nitrite["even_ppm"] is None


@pytest.mark.parametrize("method", ["dry-cure", "dry-brine", "marinade", "strong-brine"])
def test_every_method_is_put_right(method):
    document = with_lines(("soy-sauce", 300, "ml"), ("curing-salt-1", 14, "g"), method=method)
    instead = check_document(document)["instead"]
    assert "stop" not in {each["level"] for each in instead["answer"]["notices"]}


def cured(name, grams=9, packet=None, **changes):
    label = {"nitrite_pct": 0.5} if name == "nitrite-salt" else {}
    return check_document(with_lines((name, grams, "g", label), packet=packet, **changes))


@pytest.mark.parametrize(
    ("name", "packet", "right"),
    [
        ("curing-salt-1", {"name": "cure-1"}, "cure-1"),
        ("curing-salt-1", {"name": "curing-salt-1"}, "cure-1"),
        ("curing-salt-1", {"name": "nitrite-salt", "nitrite_pct": 0.6}, "nitrite-salt"),
        ("nitrite-salt", {"name": "nitrite-salt", "nitrite_pct": 0.5}, "nitrite-salt"),
        ("curing-salt-1", None, None), ("curing-salt-1", {"name": "nitrite-salt"}, None),
        ("celery-powder", {"name": "cure-1"}, None), ("saltpetre", {"name": "cure-1"}, None),
    ],
)  # fmt: skip
@pytest.mark.parametrize("profile", ["us", "eu"])
def test_one_curing_salt_never_takes_the_place_of_another(name, packet, right, profile):
    out = cured(name, packet=packet, profile=profile)
    cure = out["instead"]["input"]["cure"]
    assert (cure and cure["name"]) == right
    assert "stop" not in {each["level"] for each in out["instead"]["answer"]["notices"]}
    is_offered = name in ("celery-powder", "saltpetre")
    assert bool(out["offer"]) == is_offered
    if is_offered:
        # usual is 150 ppm in the US, 100 in the EU: common practice
        usual = 150 if profile == "us" else 100
        assert out["offer"]["answer"]["nitrite"]["even_ppm"] == pytest.approx(usual)


def test_what_is_not_known_only_adds_to_what_is():
    # a kilo of pork, 30 g of no. 1 at 6.25 %: 1875 ppm over the meat, with or without celery
    meat = RECIPE["meat"] | {"mass_g": 1000}
    lines = [{"name": "curing-salt-1", "amount": 30, "unit": "g"},
             {"name": "celery-powder", "amount": 1, "unit": "g"}]  # fmt: skip
    asked = RECIPE | {"meat": meat, "method": "dry-cure", "lines": lines}
    out = check_document(asked)
    assert out["nitrite"]["verdict"] == "over"
    assert out["nitrite"]["dry_ppm"] == pytest.approx(1875)
    assert "nitrite-over" in {each["code"] for each in out["notices"] if each["level"] == "stop"}
    lines[0]["amount"] = 1
    assert check_document(asked)["nitrite"]["verdict"] == "unknown"


@pytest.mark.parametrize(
    ("kind", "form", "days"),
    [("poultry", "whole", 14), ("fish", "whole", 20)],
)
def test_no_longer_is_asked_for_than_it_may_be_raw(kind, form, days):
    document = with_lines(meat=RECIPE["meat"] | {"kind": kind, "form": form}, days=days)
    out = check_document(document)
    codes = {(each["code"], each["level"]) for each in out["notices"]}
    assert ("raw-clock", "stop") in codes
    assert "too-short" not in {code for code, _ in codes}
    assert out["ready"] is None  # 50 mm take longer than it keeps
    assert ("wait-beyond-raw", "caution") in codes


def test_a_rub_of_oil_herbs_and_salt_is_a_paste():
    rub = [{"name": "oil", "amount": 100, "unit": "ml"},
           {"name": "salt-table", "amount": 48, "unit": "g"},
           {"name": "herbs", "amount": 30, "unit": "g"}]  # fmt: skip
    out = check_document(RECIPE | {"method": "marinade", "lines": rub})
    assert out["pickle"] is None
    assert "undissolved" not in {each["code"] for each in out["notices"]}
    assert out["salt"]["target_pct"] == pytest.approx(2.0)  # 48 g to 2400 g, as a dry cure


@pytest.mark.parametrize(
    ("method", "codes"),
    [("even-brine", {"brine-cold"}), ("marinade", {"brine-cold", "boil-marinade"})],
)
def test_used_brine_and_raw_marinade_are_warned_of(method, codes):
    found = {each["code"]: each for each in check_document(with_lines(method=method))["notices"]}
    assert codes <= found.keys()
    assert "never used for another piece" in found["brine-cold"]["text"]


def test_an_offer_of_a_check_is_worked_out_and_lifts_its_stop():
    """20 g of no. 1 on 2 kg in 2 kg of pickle: 1.25 g of nitrite on 4 kg and more are over 200."""
    document = with_lines(("curing-salt-1", 40, "g"))
    answer = check_document(document)
    (offer,) = (each for each in answer["proposals"] if each["code"] == "less-cure")
    assert "nitrite-over" in offer["lifts"]
    assert offer["after"]["nitrite_ppm"] == pytest.approx(150)
    change = offer["changes"][0]
    document["lines"][change["line"]] |= {"amount": change["amount"], "unit": change["unit"]}
    after = check_document(document)
    assert after["nitrite"]["even_ppm"] == pytest.approx(150)
    assert "stop" not in {each["level"] for each in after["notices"]}
