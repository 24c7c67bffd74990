"""A form sent twice is done once; what somebody else has done meanwhile is not undone."""

import re
from uuid import uuid4

import pytest
from django.contrib.messages import get_messages
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from pantry_web.feasts.models import Dish, Event, Feast
from pantry_web.kitchens.models import Cook
from pantry_web.presses import middleware
from pantry_web.presses.models import Press
from pantry_web.shopping.models import Bought
from tests.web.conftest import undo_last

DOUGH = {"job": "dough", "name": "Flat bread", "amount": "900 g"}


def told(answer):
    return [str(each) for each in get_messages(answer.wsgi_request)]


def test_the_same_key_twice_is_done_once_and_answered_the_same(cook, feast):
    typed = DOUGH | {"once": str(uuid4())}
    first, again = (cook.post(f"/feasts/{feast.pk}/job/", typed) for _ in range(2))
    assert feast.dishes.filter(name="Flat bread").count() == 1
    assert (first.status_code, first["Location"]) == (again.status_code, again["Location"])
    cook.post(f"/feasts/{feast.pk}/job/", typed | {"name": "Another bread"})
    assert feast.dishes.filter(name="Another bread").count() == 1  # other words: another press


def test_what_was_said_is_said_again(cook, feast):
    text = cook.get(f"/feasts/{feast.pk}/feast.json").content
    sent = [
        cook.post("/feasts/in/", {"once": "k", "document": SimpleUploadedFile("a.json", text)})
        for _ in range(2)
    ]
    assert [told(each) for each in sent] == [[f"{feast.name} is in."]] * 2
    assert Feast.objects.filter(name=feast.name).count() == 2  # that which was there, and one more


def test_a_refused_form_may_be_sent_again(cook, feast):
    typed = DOUGH | {"once": "k", "amount": "much"}
    assert cook.post(f"/feasts/{feast.pk}/job/", typed).status_code == 422
    assert not Press.objects.exists()
    assert cook.post(f"/feasts/{feast.pk}/job/", typed | {"amount": "1 kg"}).status_code == 302


def test_another_cooks_key_is_another_key(cook, feast, stranger):
    cook.post(f"/feasts/{feast.pk}/job/", DOUGH | {"once": "k"})
    other = Client()
    other.force_login(stranger)
    assert other.post(f"/feasts/{feast.pk}/job/", DOUGH | {"once": "k"}).status_code == 404


def test_the_slower_of_two_presses_is_answered_like_the_faster(cook, feast, monkeypatch):
    """As if both had been looked up before either was done."""
    typed = DOUGH | {"once": "k"}
    first = cook.post(f"/feasts/{feast.pk}/job/", typed)
    looked = []

    def unseen(self, request, *_):
        looked.append(request)
        middleware.PRESSING.set(middleware.Pressing(middleware._digest(request)))

    monkeypatch.setattr(middleware.OnceMiddleware, "process_view", unseen)
    monkeypatch.setattr(middleware, "WAITS_S", 0.1)
    slower = Client()  # its middleware is made with the first request
    slower.force_login(Cook.objects.get(username="quince"))
    again = slower.post(f"/feasts/{feast.pk}/job/", typed)
    assert looked
    assert again["Location"] == first["Location"]
    assert feast.dishes.filter(name="Flat bread").count() == 1
    Press.objects.update(location=None)  # done, and cut off before it was answered
    for came_from, goes_to in (("http://testserver/house/", "/house/"), ("http://else/where", "/")):
        cut = slower.post(f"/feasts/{feast.pk}/job/", typed, headers={"referer": came_from})
        assert cut["Location"] == goes_to


def test_a_press_is_forgotten_with_what_it_could_not_do(cook, feast, monkeypatch):
    monkeypatch.setattr(Dish.objects, "create", lambda **_: 1 / 0)
    cook.raise_request_exception = False
    assert cook.post(f"/feasts/{feast.pk}/job/", DOUGH | {"once": "k"}).status_code == 500
    assert not Press.objects.exists()


def test_undo_takes_back_what_the_page_showed(cook, gammon):
    page = f"/dishes/{gammon.pk}/steps/"
    shown = re.search(r'name="batch" value="([^"]+)"', cook.get(page).content.decode())[1]
    cook.post(f"{page}note/", {"note": "smells of bay"})
    assert "since" in told(cook.post(f"{page}undo/", {"batch": shown}))[-1]
    undo_last(cook, gammon)
    undo_last(cook, gammon)
    assert Event.objects.filter(what="withdrawn", withdraws=shown).count() == 1
    assert "already" in told(cook.post(f"{page}undo/", {"batch": shown}))[-1]
    for nonsense in ("", "x", str(uuid4())):
        assert cook.post(f"{page}undo/", {"batch": nonsense}).status_code == 302
    assert Event.objects.filter(dish=gammon, what="withdrawn").count() == 2


@pytest.mark.parametrize("bought", ["yes", "no"])
def test_a_line_of_the_list_becomes_what_the_page_asked_for(cook, feast, bought):
    cook.post(f"/feasts/{feast.pk}/job/", {"job": "cabbage", "name": "Cabbage", "amount": "1 kg",
                                           "ingredients": "red cabbage 80 g a head"})  # fmt: skip
    trips = cook.get("/shopping/").context["trips"]
    trip, key = next((t, line.key) for t in trips for line in t.lines if "cabbage" in line.key)
    for _ in range(2):  # two phones, the same box
        cook.post(f"/shopping/{trip.code}/tick/", {"line": key, "bought": bought})
    assert Bought.objects.count() == (bought == "yes")
