"""A kitchen taken out whole is the same kitchen where it is brought in; a spoilt one is refused."""

import json
from datetime import timedelta

import pytest
from django.apps import apps
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import IntegrityError, transaction
from django.test import Client
from django.urls import reverse

from pantry_core.measures.quantity import parse_quantity
from pantry_web.feasts.models import Event, Mishap, WeighSheet
from pantry_web.kitchens.models import Absence, ChangedDay, Cook, Kitchen
from pantry_web.moving.actions.bring_in_kitchen import MOST_KITCHENS
from tests.web.conftest import steps_of

FULL = {"feasts", "scales", "packets", "vessels", "routes", "own_days", "changed_days", "absences",
        "mishaps", "places", "shop", "work"}  # fmt: skip


@pytest.fixture
def whole(cook, quince, gammon, roast):
    """Quince Lane with something of everything, as it is taken out."""
    by, now = gammon.events.first().by, quince.stands_at
    quince.own_days.create(name="First thaw", day="2027-02-09")
    quince.scales.create(
        name="balance", division_g=1.0, capacity_g=parse_quantity("5 lb 3 oz", "mass", "g")
    )
    quince.changed_days.create(day="2027-03-20", kind=ChangedDay.Kind.WORK, begins="09:00",
                               ends="12:30")  # fmt: skip
    for dish, kind in ((gammon, "left-out"), (None, "power-out")):
        Mishap.objects.create(kitchen=quince, dish=dish, kind=kind, by=by,
                              begins=now - timedelta(hours=2), ends=now - timedelta(hours=1),
                              temperature_c=12.5)  # fmt: skip
    cook.post(f"/dishes/{gammon.pk}/steps/keep/", {"keep-name": "Gammon as ever"})
    job = {"job": "dough", "name": "Bread", "amount": "900 g", "ingredients": "flour 80 g a head"}
    cook.post(f"/feasts/{gammon.feast_id}/job/", job)
    dough = gammon.feast.dishes.get(name="Bread")
    cook.post(f"/dishes/{dough.pk}/steps/keep/", {"keep-name": "Bread as ever"})
    gammon.vessel = quince.vessels.last()
    gammon.save()
    dough.bought.create(key="of-flour", at=now, by=by)
    cook.post(f"/feasts/{gammon.feast_id}/keep/")
    cook.post(f"/feasts/{roast[0].pk}/remove/")
    return taken_out(cook)


def taken_out(client):
    return json.loads(client.get("/house/kitchen.json").content)


def brought_in(client, document):
    upload = SimpleUploadedFile("x.json", json.dumps(document).encode())
    return client.post("/house/in/", {"document": upload})


def test_it_comes_in_as_it_was(cook, quince, whole, stranger):
    assert all(whole[part] for part in FULL), [part for part in FULL if not whole[part]]
    assert whole["feasts"][0]["kept_plan"]
    heron = Client()
    heron.force_login(stranger)
    assert brought_in(heron, whole)["Location"] == "/feasts/"
    assert taken_out(heron) == whole
    new = Kitchen.objects.get(memberships__cook=stranger, name=quince.name)
    for model, path in ((Event, "dish__feast__kitchen"), (WeighSheet, "dish__feast__kitchen"),
                        (Absence, "kitchen")):  # fmt: skip
        of = [model.objects.filter(**{path: each}).count() for each in (quince, new)]
        assert of[0] == of[1] > 0
    for dish in new.feasts.get().dishes.all():
        assert steps_of(dish)
        assert heron.get(f"/dishes/{dish.pk}/steps/").status_code == 200
    for path in ("/", "/feasts/", "/shopping/", "/pantry/", "/house/"):
        assert heron.get(path).status_code == 200
    assert cook.get("/").context["kitchen"] == quince


@pytest.mark.parametrize(
    ("where", "value", "told"),
    [
        ("name", "a\nb", "name: use one line"),
        ("tz", "Europe/Nowhere", "tz: Select a valid choice"),
        ("sleep", "06:00", "sleep: This must be later"),
        ("cups", "buckets", "cups: Select a valid choice"),
        ("cooks", 0, "cooks: 0 is too small"),
        ("shop", {"mon": ["18:00", "08:00"]}, "shop_mon_to: This is later"),
        ("work", {"funday": ["08:00", "18:00"]}, "work.funday"),
        ("places.oven", 9999.0, "places.oven: 9999 is out of range"),
        ("own_days.0.day", "yesterday", "own_days.0.day: Enter a valid date"),
        ("changed_days.0.ends", None, "changed_days.0.ends: Say until when"),
        ("absences.0.ends", "2036-01-01T00:00+00:00", "absences.0.ends: This is over a year"),
        ("absences.0.ends", "9999-12-31T23:59", "absences.0.ends: This is far away"),
        ("mishaps.0.kind", "left-out", "mishaps.0.kind: use power-out or fridge-warm"),
        ("mishaps.0.ends", "2027-03-01T00:00+00:00", "mishaps.0.ends: it ended after"),
        ("mishaps.0.temperature_c", 900.0, "mishaps.0.temperature_c: use -40 to 60"),
        ("scales.0.division_g", 1e9, "scales.0.division_g: That is too much"),
        ("packets.0.spoon_g", 9e5, "packets.0.spoon_g: That is too much"),
        ("packets.0.stands_for", "gold", "packets.0.stands_for: Select a valid"),
        ("vessels.0.shape", "a swan", "vessels.0.shape: Select a valid"),
        ("routes.0.steps.0.min_h", -5.0, "routes.0.min_h"),
        ("routes.0.job", {"name": "dough"}, "routes.0.job.a_head_g: use 0 to"),
        ("feasts.0.removed_at", "2800-01-01T00:00", "feasts.0.removed_at: use a year from"),
        ("feasts.0.kept_plan.0.dish", "dish-99", "feasts.0.kept_plan.0.dish: no dish"),
        ("feasts.0.dishes.0.vessel", 99, "feasts.0.dishes.0.vessel: there is no such"),
        ("feasts.0.dishes.0.piece.mass_g", 9e9, "feasts.0.dishes.0.piece.mass_g"),
        ("feasts.0.dishes.0.events.0.at", "soon", "feasts.0.dishes.0.events.0.at"),
        ("surprise", 1, "surprise: this field is not known"),
    ],
)
def test_a_spoilt_one_is_refused_with_its_place(cook, whole, where, value, told):
    *path, last = [int(part) if part.isdigit() else part for part in where.split(".")]
    inner = whole
    for part in path:
        inner = inner[part]
    inner[last] = value
    answer = brought_in(cook, whole)
    assert answer.status_code == 422
    assert told in answer.content.decode().replace("&#x27;", "'")
    assert Kitchen.objects.count() == 1


def test_ten_kitchens_are_enough(cook, quince, whole):
    slim = whole | {"feasts": [], "mishaps": []}
    for n in range(1, MOST_KITCHENS):
        assert brought_in(cook, slim | {"name": f"Kitchen {n}"}).status_code == 302
    assert "leave one" in brought_in(cook, slim).content.decode()
    assert Cook.objects.get(username="quince").kitchens.count() == MOST_KITCHENS


def counts():
    """How many rows every table has, but for those that keep no cook's word."""
    return {
        model._meta.label: model._base_manager.count()
        for model in apps.get_models()
        if model._meta.app_label not in ("sessions", "background", "presses", "planning")
    }


def test_a_rehearsal_runs_by_a_clock_of_its_own_and_leaves_no_trace(cook, quince, gammon):
    feast = gammon.feast
    before = counts()
    assert cook.post(reverse("rehearse", args=[feast.pk])).status_code == 302
    kitchen = Kitchen.objects.get(rehearses=quince)
    assert kitchen.runs_times == 60
    copy = kitchen.feasts.get()
    assert (copy.name, copy.dishes.count()) == (feast.name, feast.dishes.count())
    assert copy.dishes.first().events.count() == feast.dishes.order_by("pk").first().events.count()
    assert "rehearsal</a>" in cook.get(reverse("feast", args=[copy.pk])).content.decode()
    assert cook.post(reverse("rehearse", args=[copy.pk])).status_code == 404
    noted = {"note": "Only a rehearsal."}
    assert cook.post(reverse("note", args=[copy.dishes.get().pk]), noted).status_code == 302
    assert Event.objects.filter(note="Only a rehearsal.").exists()
    cook.post("/rehearsal/end/")
    assert counts() == before
    assert cook.post("/rehearsal/end/").status_code == 302, "at home nothing is ended"
    assert counts() == before
    with pytest.raises(IntegrityError, match="append-only"), transaction.atomic():
        Event.objects.all()._raw_delete("default")
