"""Who may see what, walked from the table of all addresses; and what a page lets in."""

import re
from contextlib import contextmanager
from datetime import timedelta
from http.cookies import SimpleCookie
from pathlib import Path

import pytest
from django.core.cache import cache
from django.db import connection, transaction
from django.test import Client
from django.urls import reverse

from pantry_web.devices.actions.add_device import add_device
from pantry_web.feasts.models import Feast, Mishap
from pantry_web.kitchens.models import Absence, Cook, Kitchen
from pantry_web.members.actions.invite import invite
from pantry_web.members.first_start import start_word
from pantry_web.members.links import token_of
from tests.web.conftest import is_page, routes

WEB = Path(__file__).parents[2] / "src" / "pantry_web"
OPEN = {
    "device-readings",
    "feed",
    "sign-in",
    "first-start",
    "health",
    "worker",
    "come-in",
    "new-password",
}
OWNERS = {"revoke-device", "invite", "end-invitation", "change-role", "take-out-kitchen"}
"""What a cook of the kitchen is refused."""
ANSWERED = (200, 204, 302, 422)


ROUTES = {each.name: each for each in routes()}
assert len(ROUTES) == len(list(routes())), "two addresses have one name, and one is not tested"


OF_AN_OBJECT = [
    name
    for name, route in ROUTES.items()
    if any("_id" in each for each in route.pattern.converters)
]


def address(name, ids):
    return reverse(name, kwargs={key: ids[key] for key in ROUTES[name].pattern.converters})


@pytest.fixture
def ids(gammon, quince):
    absence = Absence.objects.filter(kitchen=quince).first()
    scale = quince.scales.first()
    begins = quince.stands_at - timedelta(hours=1)
    mishap = Mishap.objects.create(
        kitchen=quince, kind="power-out", begins=begins, ends=quince.stands_at,
        by=gammon.events.first().by,
    )  # fmt: skip
    changed = quince.changed_days.create(day="2020-04-09", kind="off")
    job = gammon.feast.dishes.create(
        name="Stock", document={"job": {"name": "stock", "made_g": 900.0}}
    )
    removed = Feast.objects.create(
        kitchen=quince, name="Old supper", serve_at=begins, time_zone="UTC", heads=2,
        removed_at=begins,
    )  # fmt: skip
    day = quince.own_days.create(name="First thaw", day="2020-04-09")
    invitation = invite(quince, "cook", gammon.events.first().by)
    left = gammon.leftovers.create(mass_g=300.0, since=begins, what="bones", place="freezer")
    photo = gammon.photos.create(
        jpeg=b"", width=1, height=1, by=gammon.events.first().by, kept_at=begins
    )
    device, _ = add_device(quince, gammon.events.first().by, "Probe", begins)
    return {
        "device_id": device.pk, "channel_id": device.channels.first().pk,
        "photo_id": photo.pk, "leftover_id": left.pk, "fate": "eaten",
        "figure": "salt-liking", "deed": "aside",
        "feast_id": gammon.feast_id, "dish_id": gammon.pk, "absence_id": absence.pk,
        "step_key": "lift", "kind": "begin", "thing": "scale", "thing_id": scale.pk, "line": "salt",
        "code": "none", "changed_id": changed.pk, "job_id": job.pk, "removed_id": removed.pk,
        "mishap_id": mishap.pk, "day_id": day.pk,
        "kitchen_id": quince.pk, "member_id": quince.memberships.get().pk,
        "invitation_id": invitation.pk, "token": token_of(invitation), "uidb64": "MQ",
        "route": quince.routes.create(name="Our way", steps=[]).pk,
    }  # fmt: skip


@contextmanager
def taken_back(client):
    """What is done within is undone, and who is signed in stays signed in."""
    cookies = SimpleCookie(client.cookies.output(header=""))
    with transaction.atomic():
        yield
        transaction.set_rollback(True)
    client.cookies = cookies
    cache.clear()


class NothingIsWritten:
    """A wrapper of the database that refuses to write."""

    WRITES = ("INSERT", "UPDATE", "DELETE", "REPLACE")

    def __call__(self, execute, sql, params, many, context):
        assert not sql.lstrip().upper().startswith(self.WRITES), sql
        return execute(sql, params, many, context)


def test_looking_at_a_page_writes_nothing(cook, quince, ids):
    """Neither where the plan holds, nor where it has to be asked for again."""
    for hours in (0, 30):
        quince.stands_at += timedelta(hours=hours)
        quince.save()
        for name, route in ROUTES.items():
            if is_page(route) and name not in {*OPEN, "sign-out"}:
                with connection.execute_wrapper(NothingIsWritten()):
                    assert Client.get(cook, address(name, ids)).status_code in ANSWERED, name


def test_nobody_gets_in_without_signing_in(client, ids):
    for name in ROUTES:
        with taken_back(client):
            for answer in (client.get(address(name, ids)), client.post(address(name, ids))):
                if name == "device-readings":
                    assert answer.status_code in (401, 405), "a token alone opens it"
                elif name in OPEN:
                    assert answer.status_code in (200, 404), name
                elif name == "sign-out":
                    assert answer.status_code in (302, 405)
                else:
                    assert answer.status_code == 302, name
                    assert answer["Location"].startswith("/sign-in/"), name


def statuses(client, ids):
    """What each guarded route answers: to looking, or where nothing is shown to pressing."""
    for name in ROUTES:
        if name not in OPEN:
            with taken_back(client):
                status = client.get(address(name, ids)).status_code
                if status == 405:
                    typed = {"route": ids["route"]}
                    status = client.post(address(name, ids), typed).status_code
                yield name, status


def test_the_owner_gets_in(cook, ids):
    """So that the tests below can fail: what they refuse is there for whoever it belongs to."""
    assert {name for name, status in statuses(cook, ids) if status not in ANSWERED} == set()


def test_a_cook_of_the_kitchen_gets_in_but_for_what_is_the_owners(client, ids, quince):
    member = Cook.objects.create_user("sorrel", password="x")
    quince.memberships.create(cook=member)
    client.force_login(member)
    for name, status in statuses(client, ids):
        is_refused = name in OWNERS or name == "remove-member"  # of somebody else
        assert status == 403 if is_refused else status in ANSWERED, name


def test_a_stranger_finds_nothing(client, ids, stranger):
    client.force_login(stranger)
    for name in OF_AN_OBJECT:
        with taken_back(client):
            looked = client.get(address(name, ids)).status_code
            pressed = client.post(address(name, ids)).status_code
            assert {looked, pressed} <= {404, 405}, name
            assert 404 in (looked, pressed), name


def test_every_address_without_an_object_shows_ones_own_kitchen(client, ids, stranger):
    client.force_login(stranger)
    for name, route in ROUTES.items():
        if not route.pattern.converters and name not in (*OPEN, "sign-out"):
            answer = client.get(address(name, ids))
            assert answer.status_code in (200, 204, 405)
            assert b"Quince" not in answer.content
            assert b"Lantern" not in answer.content


def test_a_cook_without_a_kitchen_finds_nothing(client, db):
    client.force_login(Cook.objects.create_user("nobody", password="x"))
    assert client.get("/").status_code == 404


def test_only_a_demo_clock_can_be_set(client, stranger):
    client.force_login(stranger)
    assert client.post("/house/clock/", {"stands_at": "2027-03-18T19:12"}).status_code == 404
    assert b"Demo clock" not in client.get("/house/").content


def test_the_first_start_makes_the_owner_and_only_the_first(client, db, monkeypatch):
    others = Cook.objects.exclude(username="quince")  # whose log keeps the demo's cook in place
    monkeypatch.setattr(Cook.objects, "exists", lambda: others.all().exists())
    assert client.get("/sign-in/")["Location"] == "/start/"
    typed = {
        "kitchen_name": "Medlar Row", "time_zone": "Europe/London", "username": "medlar",
        "password1": "bletted-in-straw", "password2": "bletted-in-straw", "word": start_word(),
        "units": "imperial", "clock_face": "12", "oven_shelves": "3",
    }  # fmt: skip
    assert client.post("/start/", typed | {"word": "sesame"}).status_code == 422
    assert client.post("/start/", typed | {"password2": "other"}).status_code == 422
    assert client.post("/start/", typed)["Location"] == "/"
    made = Kitchen.objects.get(name="Medlar Row")
    assert (made.units, made.clock_face) == ("imperial", "12")
    assert made.places.get(name="oven").capacity == 3.0
    assert b"Begin with one dish" in client.get("/feasts/").content
    assert client.get("/start/").status_code == 404
    assert b"<strong>medlar</strong><small>owner, you" in client.get("/members/").content


def test_five_wrong_passwords_lock_the_door(client, quince):
    typed = {"username": "quince", "password": "wrong"}
    for _ in range(4):
        assert client.post("/sign-in/", typed).status_code == 200
    assert client.post("/sign-in/", typed).status_code == 429
    right = client.post("/sign-in/", {"username": "quince", "password": "lantern-night"})
    assert right.status_code == 429


def test_the_policy_starts_from_nothing(cook, gammon):
    for path in ("/", f"/dishes/{gammon.pk}/passage/", "/no-such-page/"):
        policy = cook.get(path)["Content-Security-Policy"]
        assert "default-src 'none'" in policy
        assert "unsafe" not in policy
        assert "http:" not in policy.replace("https:", "")


def test_no_page_carries_code_or_style():
    for page in WEB.rglob("*.html"):
        text = page.read_text()
        assert not re.search(r"\sstyle=|<style|\son[a-z]+=|hx-on|javascript:|hx-vals=.js:", text), (
            page
        )
        assert all("src=" in tag for tag in re.findall(r"<script[^>]*>", text)), page
        assert not re.search(r"(src|href)=\"https?:", text), page


def test_a_post_without_its_token_is_refused(quince):
    client = Client(enforce_csrf_checks=True)
    client.force_login(Cook.objects.get(username="quince"))
    answer = client.post("/feasts/new/", {"name": "x"})
    assert answer.status_code == 403
    assert b"send that again" in answer.content


def test_an_expired_session_sends_the_whole_page_to_sign_in(client, feast):
    answer = client.post(f"/feasts/{feast.pk}/answer/", headers={"HX-Request": "true"})
    assert answer["HX-Redirect"].startswith("/sign-in/")
