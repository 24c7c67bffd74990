"""Fire day: what devices post, what is seen of it, and what it tells the log."""

import json
import re
from datetime import timedelta
from uuid import uuid4

import pytest
from django.core.cache import cache
from django.test import Client
from django.urls import reverse

from pantry_web import clock
from pantry_web.demo import kitchen as demo
from pantry_web.devices.actions.add_device import add_device, digest_of
from pantry_web.devices.models import Device, Reading
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.models import Dish, Feast, Mishap
from pantry_web.kitchens.models import Cook
from tests.web.conftest import outlook

BAND = {"low": "100", "high": "115"}


@pytest.fixture
def trout(quince):
    """Trout in the smoker since an hour, for tonight."""
    feast = Feast.objects.create(
        kitchen=quince, name="Heron Supper", serve_at=demo.TONIGHT_AT, time_zone=demo.ZONE, heads=3
    )
    dish = add_dish(feast, "Smoked trout", demo.TONIGHT)
    demo._Hands(Cook.objects.get(username=demo.COOK), quince, dish).smoke()
    return Dish.objects.get(pk=dish.pk)


@pytest.fixture
def probe(quince, trout, cook):
    """A probe of two wires: one in the trout, one at the grate; its token."""
    by = Cook.objects.get(username=demo.COOK)
    device, token = add_device(quince, by, "Probe", quince.stands_at)
    for channel, what, more in zip(
        device.channels.all(), ("meat", "fire"), ({}, BAND), strict=False
    ):
        typed = {"what": what, "dish": trout.pk, **more}
        assert cook.post(reverse("set-channel", args=[channel.pk]), typed).status_code == 302
    return token


def post(token, *readings, **more):
    cache.clear()
    body = json.dumps({"readings": readings})
    return Client().post(
        "/devices/readings/", body, content_type="application/json",
        headers={"Authorization": f"Bearer {token}", **more},
    )  # fmt: skip


def read(channel, celsius, age_s=0.0):
    return {"channel": channel, "celsius": celsius, "age_s": age_s}


def test_from_a_reading_to_the_page(cook, trout, probe):
    cook.get("/fire/")  # the plan is asked for
    page = cook.get("/fire/").content.decode()
    seen = page.split('data-seen="')[1].split('"')[0]
    assert cook.get("/fire/rows/", {"seen": seen}).status_code == 204
    answer = post(probe, read(1, 54.0), read(2, 108.0))
    assert answer.json()["left_out"] == []
    rows = cook.get("/fire/rows/", {"seen": seen})
    assert rows.status_code == 200
    shown = rows.content.decode()
    for said in ("54 °C", "of 63 °C", "fire 108 °C", "wanted 100 °C to 115 °C", "done about"):
        assert said in shown
    assert "<polyline" in shown


def test_the_log_is_told_every_five_minutes_and_at_once_when_the_goal_is_reached(
    quince, trout, probe
):
    before = trout.events.filter(what="temperature-read").count()
    for minute in range(12):
        quince.stands_at += timedelta(minutes=1)
        quince.save()
        post(probe, read(1, 56.0 + 0.5 * minute))
    told = trout.events.filter(what="temperature-read")
    assert told.count() == before + 3
    quince.stands_at += timedelta(seconds=30)
    quince.save()
    post(probe, read(1, 63.2))
    assert told.count() == before + 4
    assert told.last().temperature_c == 63.2
    view = outlook(trout, quince, quince.stands_at)
    assert view.answer.gate.read_c == 63.2


def test_what_cannot_be_is_left_out_and_nothing_is_kept_twice(probe):
    post(probe, read(1, 54.0, 60.0))
    answer = post(
        probe, read(1, 129.2), read(1, 54.2, 30.0), read(1, 54.2, 30.0),
        {"channel": 1, "fahrenheit": 129.4}, read(3, 20.0),
    ).json()  # fmt: skip
    assert {each["code"] for each in answer["left_out"]} == {"fahrenheit", "twice"}
    assert [round(each.celsius, 1) for each in Reading.objects.all()] == [54.0, 54.2, 54.1]
    assert Device.objects.get().channels.first().left_out == {"fahrenheit": 1, "twice": 1}


@pytest.mark.parametrize(("raw", "said"), [
    ("{", "no JSON"), ("[]", "object"),
    ('{"readings": [{"channel": 9, "celsius": 5}]}', "too large"),
    ('{"readings": [{"channel": 1}]}', "celsius or fahrenheit"),
    ('{"readings": [{"channel": 1, "celsius": 5, "at": "soon"}]}', "a moment like"),
    ('{"readings": [{"channel": 1, "celsius": 5, "at": "2027-03-18T19:00"}]}', "offset"),
])  # fmt: skip
def test_what_is_posted_wrongly_is_said_and_nothing_is_kept(probe, raw, said):
    cache.clear()
    answer = Client().post(
        "/devices/readings/", raw, content_type="application/json",
        headers={"Authorization": f"Bearer {probe}"},
    )  # fmt: skip
    assert answer.status_code == 422
    assert said in answer.content.decode()
    assert not Reading.objects.exists()


def test_a_token_opens_nothing_once_it_is_revoked_and_is_kept_nowhere(cook, probe):
    device = Device.objects.get()
    assert device.token_digest == digest_of(probe)
    assert probe not in cook.get("/house/devices/").content.decode()
    assert post("guess", read(1, 54.0)).status_code == 401
    cook.post(reverse("revoke-device", args=[device.pk]))
    assert post(probe, read(1, 54.0)).status_code == 401
    assert not Reading.objects.exists()


def test_whoever_posts_too_often_waits(probe):
    post(probe, read(1, 54.0))
    body = json.dumps({"readings": []})
    headers = {"Authorization": f"Bearer {probe}"}
    found = {
        Client().post("/devices/readings/", body, content_type="application/json",
                      headers=headers).status_code
        for _ in range(60)
    }  # fmt: skip
    assert found == {200, 429}


def test_a_warm_fridge_is_a_mishap_as_long_as_it_lasts(cook, quince):
    by = Cook.objects.get(username=demo.COOK)
    device, token = add_device(quince, by, "Fridge", quince.stands_at)
    channel = device.channels.first()
    cook.post(reverse("set-channel", args=[channel.pk]), {"what": "fridge"})
    for minute in range(30):
        quince.stands_at += timedelta(minutes=1)
        quince.save()
        post(
            token, *(read(1, 4.0 if minute < 5 or minute > 24 else 8.0, s) for s in (45, 30, 15, 0))
        )
    mishap = Mishap.objects.get(kind="fridge-warm", by=by)
    assert timedelta(minutes=15) <= mishap.ends - mishap.begins <= timedelta(minutes=21)
    assert mishap.temperature_c == 8.0


def test_a_scale_is_taken_once_it_rests(cook, quince):
    by = Cook.objects.get(username=demo.COOK)
    device, token = add_device(quince, by, "Scale", quince.stands_at)
    channel = device.channels.first()
    assert cook.get("/devices/scale/").status_code == 204
    cook.post(reverse("set-channel", args=[channel.pk]), {"what": "scale"})
    found = []
    for grams in (40.0, 71.2, 71.4):
        assert post(token, {"channel": 1, "grams": grams}).status_code == 200
        found.append(cook.get("/devices/scale/").json())
    assert [each["is_steady"] for each in found] == [False, False, True]
    assert found[-1]["said"] == "71.4 g"
    quince.stands_at += timedelta(minutes=2)
    quince.save()
    assert cook.get("/devices/scale/").status_code == 204


def test_a_probe_in_the_air_is_asked_about(cook, quince, trout, probe):
    for n in range(4):
        post(probe, *(read(c, 108.0, 60.0 - 15.0 * n) for c in (1, 2)))
    assert "is it in the meat?" in cook.get("/fire/").content.decode()


def test_old_readings_are_thinned_and_the_curve_stays(quince, trout, probe):
    for _ in range(90):
        quince.stands_at += timedelta(minutes=1)
        quince.save()
        post(probe, *(read(2, 108.0, s) for s in (48, 36, 24, 12, 0)))
    kept = Reading.objects.filter(channel__what="fire")
    recent = kept.filter(at__gte=quince.stands_at - timedelta(minutes=20)).count()
    assert recent >= 40
    assert kept.count() - recent <= 60, "90 minutes of five a minute"


def test_without_a_device_it_is_typed_and_an_empty_day_says_so(cook, quince, trout):
    page = cook.get("/fire/").content.decode()
    assert "Smoked trout" in page
    assert "Read now" in page
    quince.stands_at += timedelta(days=2)
    quince.save()
    assert "Nothing is at the heat today" in cook.get("/fire/").content.decode()


def test_the_demo_clock_runs(cook, quince, monkeypatch):
    cook.post("/house/clock/", {"stands_at": "2027-03-18T19:12", "runs": "60"})
    quince.refresh_from_db()
    monkeypatch.setattr(clock, "real", lambda: quince.runs_since + timedelta(seconds=30))
    assert clock.now(quince) == quince.stands_at + timedelta(minutes=30)


@pytest.fixture
def late(quince, probe):
    """Trout that hardly rises any more while the hour of the supper comes near."""
    for n in range(9):
        quince.stands_at += timedelta(minutes=5)
        quince.save()
        post(probe, read(1, 54.0 + 0.1 * n), read(2, 96.0))


def helps(page):
    return re.findall(r'name="code" value="([a-z-]+)"', page)


def test_what_would_help_a_late_dish_is_solved_and_taken_in_one_press(cook, quince, trout, late):
    page = cook.get("/fire/").content.decode()
    assert "late</strong>" in page
    assert helps(page)[-1] == "later"
    before = outlook(trout, quince, quince.stands_at).answer.gate
    taken = next(each for each in before.helps if each.code == "hotter")
    address = reverse("fire-help", args=[trout.pk])
    assert cook.post(address, {"code": "hotter"}).status_code == 302
    told = trout.events.get(what="heat-set")
    assert told.temperature_c == taken.temperature_c
    trout = Dish.objects.get(pk=trout.pk)
    gate = outlook(trout, quince, quince.stands_at).answer.gate
    assert gate.left_h.usual == pytest.approx(taken.left_h, rel=0.1)
    assert gate.left_h.usual < before.left_h.usual - 0.1
    assert "Written down" in cook.get("/fire/").content.decode()


def test_what_no_longer_helps_is_refused_and_nothing_is_written(cook, trout, late):
    address = reverse("fire-help", args=[trout.pk])
    cook.get("/fire/")  # asks for the plan
    page = cook.post(address, {"code": "nonsense"}, follow=True).content.decode()
    assert "That would no longer help" in page
    assert not trout.events.filter(what="heat-set").exists()


def test_it_is_dished_up_later_in_one_press(cook, trout, late):
    cook.post(reverse("fire-help", args=[trout.pk]), {"code": "later"})
    trout.refresh_from_db()
    assert timedelta(0) < trout.serve_at - demo.TONIGHT_AT < timedelta(hours=6)
    assert "late</strong>" not in cook.get("/fire/").content.decode()


def test_how_hot_it_was_around_it_is_told_every_quarter_of_an_hour(trout, late):
    told = trout.events.filter(what="heat-read")
    assert 2 <= told.count() <= 3
    assert all(each.temperature_c == pytest.approx(96.0) for each in told)


def test_a_reading_is_put_right_by_the_last_check_of_its_thermometer(cook, quince, probe):
    wire = Device.objects.get().channels.first()
    typed = {"wire": wire.pk, "name": "", "ice": "1", "boiling": "97", "height": "0"}
    page = cook.post("/house/devices/check/", typed, follow=True).content.decode()
    assert "It is off, and put right from now on." in page
    post(probe, read(1, 49.0))
    # 1 °C in ice and 97 where it should be 100: 49 is half way up its scale
    assert Reading.objects.get().celsius == pytest.approx(50.0)
    typed["boiling"] = "80"
    answer = cook.post("/house/devices/check/", typed)
    assert answer.status_code == 422
    assert "Water does not boil near that" in answer.content.decode()
    typed |= {"wire": "", "boiling": "100"}
    assert "What do you call it?" in cook.post("/house/devices/check/", typed).content.decode()


def test_what_is_left_is_watched_until_it_is_cold(cook, quince, trout, probe):
    view = outlook(trout, quince, quince.stands_at)
    running = view.state.running
    ahead = view.steps[view.place_of(running) + 1 :]
    by = Cook.objects.get(username=demo.COOK)
    told = [("step-ended", running)]
    told += [(what, each.id) for each in ahead for what in ("step-started", "step-ended")]
    for n, (what, key) in enumerate(told):
        at = quince.stands_at + timedelta(seconds=n)
        trout.events.create(what=what, step_key=key, at=at, by=by, batch=uuid4())
    quince.stands_at += timedelta(minutes=30)
    quince.save()
    page = cook.get("/fire/").content.decode()
    assert "What is left, since 19:12" in page
    assert "down to 21 °C within two hours" in page
    for hours, celsius, says in ((1.0, 30.0, "left down to 21 °C"), (1.5, 25.0, "Too slow")):
        quince.stands_at += timedelta(hours=hours)
        quince.save()
        # FDA Food Code 3-501.14 (from memory): 21 °C within two hours
        post(probe, *(read(1, celsius, s) for s in (20, 10, 0)))
        assert says in cook.get("/fire/").content.decode()
    quince.stands_at += timedelta(hours=6)
    quince.save()
    assert "What is left" not in cook.get("/fire/").content.decode()
