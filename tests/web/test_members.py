"""Who comes in, as what, for how long; and how often a wrong password may be tried."""

import re
from datetime import timedelta
from io import StringIO

import pytest
from axes.models import AccessAttempt
from django.core.management import call_command
from django.core.management.base import CommandError
from django.db.models import F
from django.test import Client

from pantry_web.kitchens.models import Cook, Membership
from pantry_web.members.models import Invitation

NEW = {"username": "sorrel", "password1": "sour-leaf-soup", "password2": "sour-leaf-soup"}


def link(page):
    """The last link that the page shows."""
    return re.findall(r'value="http://testserver(/join/[^"]+)"', page.content.decode())[-1]


def invited(owner, role="cook"):
    return link(owner.post("/members/invite/", {"role": role}, follow=True))


def passes(model, time, *fields):
    """As if that time had passed since rows were written."""
    model.objects.update(**{name: F(name) - time for name in fields})


def signed_in(name):
    client = Client()
    client.force_login(Cook.objects.get(username=name))
    return client


@pytest.fixture
def sorrel(cook):
    """A second cook of Quince Lane, who came by an invitation."""
    other = Client()
    assert other.post(invited(cook), NEW)["Location"] == "/"
    return other


def test_whoever_is_invited_comes_in_once(cook, quince, sorrel, gammon):
    assert sorrel.get(f"/dishes/{gammon.pk}/steps/").status_code == 200
    used = Invitation.objects.get()
    assert used.used_by.username == "sorrel"
    over = Client().get(f"{invited(cook)[:-2]}x/")
    assert (over.status_code, b"opens nothing" in over.content) == (404, True)
    assert quince.memberships.get(cook=used.used_by).role == "cook"


def test_a_link_ends(cook, quince):
    path = invited(cook)
    assert Client().get(path).status_code == 200
    passes(Invitation, timedelta(days=3, minutes=1), "made_at", "ends_at")
    assert Client().post(path, NEW).status_code == 404
    path = invited(cook)
    cook.post(f"/members/invite/{Invitation.objects.latest('pk').pk}/end/")
    assert Client().get(path).status_code == 404
    assert not Cook.objects.filter(username="sorrel").exists()


def test_who_signs_in_already_has_two_kitchens_and_goes_between(cook, quince, stranger):
    heron = signed_in("heron")
    path = invited(cook, "owner")
    assert b"You keep your own kitchens" in heron.get(path).content
    heron.post(path)
    assert b"Lantern Night" in heron.get("/feasts/").content
    assert b"already" in heron.post(invited(cook), follow=True).content
    home = Membership.objects.get(cook=stranger, kitchen__name="Heron Wharf").kitchen_id
    heron.post(f"/members/at/{home}/")
    assert b"Lantern Night" not in heron.get("/feasts/").content
    assert cook.post(f"/members/at/{home}/").status_code == 404


def test_a_cook_does_not_say_who_cooks(cook, quince, sorrel):
    owner = quince.memberships.get(role="owner")
    path = invited(cook)
    for where in ("invite/", f"{owner.pk}/role/", f"{owner.pk}/remove/",
                  f"invite/{Invitation.objects.get(used_by=None).pk}/end/"):  # fmt: skip
        assert sorrel.post(f"/members/{where}", {"role": "owner"}).status_code == 403
    page = sorrel.get("/members/").content.decode()
    assert path not in page
    assert quince.memberships.filter(role="owner").count() == 1


def test_a_kitchen_keeps_an_owner_and_what_was_written(cook, quince, sorrel, gammon):
    sorrel.post(f"/dishes/{gammon.pk}/steps/note/", {"note": "turned the pot round"})
    mine, theirs = (quince.memberships.get(cook__username=name) for name in ("quince", "sorrel"))
    for path, typed in ((f"{mine.pk}/role/", {"role": "cook"}), (f"{mine.pk}/remove/", {})):
        assert b"has an owner" in cook.post(f"/members/{path}", typed, follow=True).content
    cook.post(f"/members/{theirs.pk}/role/", {"role": "chef"})
    cook.post(f"/members/{theirs.pk}/role/", {"role": "owner"})
    sorrel.post(f"/members/{mine.pk}/role/", {"role": "cook"})
    assert [each.role for each in quince.memberships.order_by("pk")] == ["cook", "owner"]
    cook.post(f"/members/{mine.pk}/remove/")  # leaving
    gone = cook.get("/")
    assert (gone.status_code, b"no kitchen now" in gone.content) == (404, True)
    assert gammon.events.filter(by__username="sorrel").exists()


def test_ten_links_are_enough(cook, quince):
    pages = [cook.post("/members/invite/", {"role": "cook"}, follow=True) for _ in range(11)]
    assert b"end one first" in pages[-1].content
    assert cook.post("/members/invite/", {"role": "chef"}).status_code == 422
    assert Invitation.objects.count() == 10


def test_another_password_and_signing_out_end_the_other_sessions(cook, quince, sorrel):
    phone, tablet = signed_in("sorrel"), signed_in("sorrel")
    typed = {"old_password": NEW["password1"], "new_password1": "chard-in-the-rain",
             "new_password2": "chard-in-the-rain"}  # fmt: skip
    assert sorrel.post("/password/", typed | {"old_password": "x"}).status_code == 200
    assert phone.get("/").status_code == 200
    assert sorrel.post("/password/", typed)["Location"] == "/members/"
    assert (sorrel.get("/").status_code, phone.get("/").status_code) == (200, 302)
    phone = signed_in("sorrel")
    assert phone.post("/sign-out/everywhere/")["Location"] == "/sign-in/"
    for each in (sorrel, phone, tablet):
        assert each.get("/").status_code == 302
    assert cook.get("/").status_code == 200


def console(*args):
    out = StringIO()
    call_command("forgot_password", *args, stdout=out)
    return out.getvalue()


def test_who_forgot_asks_the_console(client, quince):
    assert "quince owns Quince Lane" in console()
    with pytest.raises(CommandError):
        console("medlar")
    path = console("quince").split()[-1]
    page = client.get(path, follow=True)
    typed = {"new_password1": "found-it-again", "new_password2": "found-it-again"}
    assert client.post(page.request["PATH_INFO"], typed)["Location"] == "/sign-in/"
    assert b"opens nothing" in Client().get(path, follow=True).content
    assert client.login(username="quince", password="found-it-again", request=page.wsgi_request)


class TestWrongPasswords:
    """From where a password may be tried how often."""

    @staticmethod
    def tried(client, name="quince", word="wrong", address="203.0.113.7"):
        return client.post(
            "/sign-in/", {"username": name, "password": word}, REMOTE_ADDR=address
        ).status_code

    def test_five_at_a_name_from_an_address(self, client, quince):
        assert [self.tried(client) for _ in range(6)] == [200] * 4 + [429] * 2
        assert self.tried(client, word="lantern-night") == 429
        assert self.tried(client, word="lantern-night", address="203.0.113.8") == 302

    def test_many_names_from_an_address_and_its_network(self, client, quince):
        found = [self.tried(client, f"cook{n}", address=f"2001:db8::{n}") for n in range(26)]
        assert found == [200] * 24 + [429] * 2
        assert self.tried(client, word="lantern-night", address="2001:db8::ffff") == 429
        assert self.tried(client, word="lantern-night", address="2001:db8:0:1::1") == 302

    def test_a_stranger_with_many_addresses_locks_no_cook_out(self, client, quince):
        assert self.tried(client, word="lantern-night") == 302
        client.post("/sign-out/")
        found = [self.tried(Client(), address=f"198.51.100.{n}") for n in range(51)]
        assert found == [200] * 49 + [429] * 2
        assert self.tried(Client(), word="lantern-night", address="192.0.2.1") == 429  # unknown
        assert self.tried(client, word="lantern-night") == 302  # a browser that is known

    def test_a_known_browser_may_err_five_times_too(self, client, quince):
        self.tried(client, word="lantern-night")
        client.post("/sign-out/")
        assert [self.tried(client, address=f"192.0.2.{n}") for n in range(5)] == [200] * 4 + [429]
        client.cookies["known"] = client.cookies["known"].value + "x"  # one that nobody signed
        assert self.tried(client, word="lantern-night", address="192.0.2.99") == 302

    def test_it_ends_after_a_quarter_of_an_hour(self, client, quince):
        for _ in range(5):
            self.tried(client)
        passes(AccessAttempt, timedelta(minutes=16), "attempt_time")
        assert self.tried(client, word="lantern-night") == 302
