"""What the doors keep out: typed by hand or brought in as a file; no page breaks afterwards."""

import json
from datetime import timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from pantry_web.feasts.models import Feast
from tests.web.conftest import steps_of

FAR = "9999-12-31T23:59"
LONG = "9" * 5000
FEAST = {"name": "Plum Sunday", "date": "2027-05-02", "hour": "12:30", "heads": "4",
         "time_zone": "Europe/London"}  # fmt: skip


def pages_of(feast):
    """Pages that show all of a feast, and each dish as it is planned."""
    yield from ("/", "/feasts/", "/shopping/", f"/feasts/{feast.pk}/")
    yield from (f"/dishes/{dish.pk}/steps/" for dish in feast.dishes.all())


def assert_all_is_well(cook, feast):
    for path in pages_of(feast):
        assert cook.get(path).status_code in (200, 302), path


@pytest.mark.parametrize(
    ("path", "typed"),
    [
        ("/feasts/new/", FEAST | {"heads": LONG}),
        ("/feasts/new/", FEAST | {"name": "two\nlines"}),
        ("/feasts/new/", FEAST | {"name": "a \x07 bell"}),
        ("/feasts/new/", FEAST | {"date": "9999-12-31"}),
        ("/feasts/{feast}/away/", {"begins": "2027-03-20T08:00", "ends": FAR}),
        ("/house/away/", {"begins": "2027-03-20T08:00", "ends": FAR}),
        ("/house/away/", {"begins": "0001-01-01T00:00", "ends": "2027-03-20T08:00"}),
        ("/house/away/", {"begins": "2027-03-20T08:00", "ends": "2030-03-20T08:00"}),
        ("/feasts/{feast}/mishap/", {"kind": "power-out", "begins": FAR, "ends": FAR}),
        ("/feasts/{feast}/job/", {"job": "dough", "name": "x", "amount": "0.5 g"}),
        ("/feasts/{feast}/job/", {"job": "dough", "name": "x", "amount": f"{LONG} g"}),
        ("/feasts/{feast}/job/", {"job": "dough", "name": "x",
                                  "ingredients": f"flour {LONG} g"}),
        ("/feasts/{feast}/job/", {"job": "dough", "name": "x", "ingredients": "flour 900 t"}),
        ("/feasts/{feast}/copy/", {"day": "9999-12-31"}),
        ("/house/clock/", {"stands_at": FAR}),
        ("/house/days/", {"day": "9999-12-31", "kind": "off"}),
        ("/dishes/{dish}/steps/hour/", {"hour-serve_at": FAR, "hour-early_max_min": "10"}),
        ("/dishes/{dish}/steps/change/simmer/",
         {"simmer-title": "Simmer", "simmer-min_h": "1", "simmer-locked_start": FAR}),
        ("/dishes/{dish}/steps/change/simmer/",
         {"simmer-title": "Sim\nmer", "simmer-min_h": LONG}),
        ("/dishes/{dish}/steps/keep/", {"keep-name": "a\nb"}),
        ("/dishes/{dish}/steps/note/", {"mass": LONG, "temperature": LONG}),
        ("/pantry/scale/", {"name": "x\ny", "division": LONG, "capacity": "5 kg"}),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_beside_its_field(cook, feast, gammon, path, typed):
    path = path.format(feast=feast.pk, dish=gammon.pk)
    version = {"version": Feast.objects.get(pk=feast.pk).version}
    answer = cook.post(path, typed | version)
    assert answer.status_code == 422, answer.status_code
    assert_all_is_well(cook, feast)


def test_a_day_that_cannot_be_is_refused_in_words(cook, quince):
    typed = {"name": "First\nthaw", "day": "2027-04-09"}
    answer = cook.post("/feasts/own-day/", typed, follow=True)
    assert "Use one line without control characters" in answer.content.decode()
    assert not quince.own_days.exists()


@pytest.mark.parametrize("grams", ["8 kg", "0.0001 g", LONG])
def test_salt_that_was_really_weighed_breaks_no_page(cook, roast, grams):
    feast, dish, _ = roast
    cook.post(f"/dishes/{dish.pk}/weighing/salt/", {"salt-mass": grams, "mass": grams})
    assert_all_is_well(cook, feast)
    assert steps_of(dish)


@pytest.mark.parametrize(
    "spoil",
    [
        lambda d: d | {"name": "\ud800"},
        lambda d: d | {"name": "two\r\nlines: x"},
        lambda d: d | {"serve_at": FAR},
        lambda d: d | {"serve_at": "2327-03-22T18:30:00+00:00"},
        lambda d: d | {"people": int(LONG[:400])},
        lambda d: d | {"note": "\x00"},
        lambda d: d | {"dishes": [d["dishes"][0] | {"job": {"name": "dough", "made_g": 0.5},
                                                    "piece": None}]},
        lambda d: d | {"dishes": [d["dishes"][0] | {"early_max_min": 1e308}]},
        lambda d: d | {"dishes": [d["dishes"][0] | {"events": [
            {"press": 1, "what": "turned", "at": FAR, "step": "brine"}]}]},
        lambda d: d | {"dishes": [d["dishes"][0] | {"edits": [
            {"step": "simmer", "locked_start": FAR}]}]},
        lambda d: d | {"dishes": [d["dishes"][0] | {"events": [
            {"press": 1, "what": "put-in", "at": "2027-03-06T09:40:00+00:00", "step": "brine"}],
            "sheets": []}]},
        lambda d: with_sheet(d, request={"format": "pantry-clock/1"}),
        lambda d: with_sheet(d, answer={}),
        lambda d: with_sheet(d, weighed={"water": 1e15}),
        lambda d: with_sheet(d, weighed={"salt": -1.0}),
        lambda d: with_event(d, at="2027-03-01T09:40:00+00:00"),
        lambda d: with_event(d, taste="heavenly"),
        lambda d: with_event(d, step="brine\n"),
        lambda d: with_event(d, mass_g=1e9),
        lambda d: d | {"dishes": [d["dishes"][0] | {"sheets": 2 * d["dishes"][0]["sheets"]}]},
    ],
)  # fmt: skip
def test_what_a_form_refuses_a_file_may_not_bring_in(cook, feast, spoil):
    whole = json.loads(cook.get(f"/feasts/{feast.pk}/feast.json").content)
    refused(cook, json.dumps(spoil(whole)).encode())
    assert_all_is_well(cook, feast)


def refused(cook, text):
    before = Feast.objects.count()
    answer = cook.post("/feasts/in/", {"document": SimpleUploadedFile("x.json", text)})
    assert answer.status_code == 422, answer.status_code
    assert Feast.objects.count() == before
    return answer.content.decode()


@pytest.mark.parametrize(
    ("text", "told"),
    [
        (b'{"people": ' + LONG.encode() + b"}", "over 30 digits"),
        (b'{"dishes": ' + b"[" * 60 + b"]" * 60 + b"}", "deeper than 20 levels"),
        (b"[" * 100_000, "not a JSON document"),
        (b'{"surprise": "\\ud800"}', "half a character"),
        (b"\xff\xfe{", "not a JSON document"),
        (b" " * 16_000_001, "over 16 megabytes"),
        (b"", "empty"),
    ],
    ids=["digits", "depth", "brackets", "half", "no-text", "size", "nothing"],
)
def test_a_file_of_no_sense_is_refused_in_words(cook, feast, text, told):
    assert told in refused(cook, text)


def test_every_wrong_is_told_with_its_place(cook, feast):
    whole = json.loads(cook.get(f"/feasts/{feast.pk}/feast.json").content)
    dish = whole["dishes"][0]
    dish["events"][0]["taste"] = "heavenly"
    dish["sheets"][0]["request"]["meat"]["mass_g"] = -1
    told = refused(cook, json.dumps(whole).encode())
    assert "dishes.0.events.0.taste: unknown; use flat, right" in told
    assert "dishes.0.sheets.0.meat.mass_g" in told


def with_sheet(document, **values):
    """The gammon with its sheet spoilt."""
    dish = document["dishes"][0]
    return document | {"dishes": [dish | {"sheets": [dish["sheets"][0] | values]}]}


def with_event(document, **values):
    """The gammon with the last thing that happened to it spoilt."""
    dish = document["dishes"][0]
    started = [each for each in dish["events"] if each["what"] == "step-started"][-1]
    events = [each | values if each is started else each for each in dish["events"]]
    return document | {"dishes": [dish | {"events": events}]}


def test_a_feast_is_removed_and_taken_back_within_thirty_days(cook, quince, feast, gammon):
    assert cook.post(f"/feasts/{feast.pk}/remove/").status_code == 302
    assert cook.get(f"/feasts/{feast.pk}/").status_code == 404
    assert cook.get(f"/dishes/{gammon.pk}/steps/").status_code == 404
    assert "Bring back" in cook.get("/feasts/").content.decode()
    assert not cook.get("/shopping/").context["trips"]
    quince.stands_at += timedelta(days=31)
    quince.save()
    assert "Bring back" not in cook.get("/feasts/").content.decode()
    late = cook.post(f"/feasts/{feast.pk}/take-back/", follow=True)
    assert "over 30 days ago" in late.content.decode()
    quince.stands_at -= timedelta(days=2)
    quince.save()
    cook.post(f"/feasts/{feast.pk}/take-back/")
    assert gammon.events.exists()
    assert cook.get(f"/dishes/{gammon.pk}/steps/").status_code == 200
