"""Calendars by a secret address: kept up to date, renewed, ended, and read by a second reader."""

import re
from datetime import timedelta

import pytest
from django.core.cache import cache
from django.test import Client
from icalendar import Calendar

from pantry_web.feeds.models import Feed
from pantry_web.kitchens.models import Cook

CONTENT = re.compile(r"^([A-Z-]+)((?:;[A-Z-]+=(?:\"[^\"]*\"|[^\";:,]*))*):(.*)$", re.DOTALL)
UTC_TIME = re.compile(r"^\d{8}T\d{6}Z$")


def read(body):
    """Entries of a calendar, read anew by RFC 5545: 3.1 lines and folding, 3.6 what each needs."""
    assert body.endswith(b"\r\n")
    lines = body[:-2].split(b"\r\n")
    assert all(len(line) <= 75 and b"\n" not in line for line in lines), "3.1: 75 octets"
    unfolded: list[str] = []
    for line in (each.decode() for each in lines):
        if line.startswith((" ", "\t")):
            unfolded[-1] += line[1:]
        else:
            unfolded.append(line)
    open_in, found = [], []
    for line in unfolded:
        name, _, value = CONTENT.fullmatch(line).groups()
        if name == "BEGIN":
            open_in.append((value, {}))
        elif name == "END":
            kind, held = open_in.pop()
            assert kind == value
            found.append((kind, held))
            if open_in:
                open_in[-1][1].setdefault(kind, []).append(held)
        else:
            open_in[-1][1].setdefault(name, []).append(value)
    assert open_in == []
    assert found[-1][0] == "VCALENDAR"
    assert found[-1][1]["VERSION"] == ["2.0"]
    assert len(found[-1][1]["PRODID"]) == 1
    entries = [held for kind, held in found if kind == "VEVENT"]
    for each in entries:
        assert all(len(each[name]) == 1 for name in ("UID", "DTSTAMP", "DTSTART", "DTEND"))
        assert all(UTC_TIME.match(each[name][0]) for name in ("DTSTAMP", "DTSTART", "DTEND"))
        assert each["DTSTART"][0] <= each["DTEND"][0]
        for alarm in each.get("VALARM", []):
            assert {"ACTION", "TRIGGER", "DESCRIPTION"} <= alarm.keys(), "3.6.6: shown"
    return {each["UID"][0]: each["DTSTART"][0] for each in entries}


@pytest.fixture
def made(cook, gammon):
    """The address of the feast's calendar."""

    def address(feast=""):
        page = cook.post("/calendars/renew/", {"feast": feast}).content.decode()
        return re.search(r"http://testserver(/calendars/\w+\.ics)", page)[1]

    return address


def asked(address):
    cache.clear()
    return Client().get(address)


def test_a_calendar_is_read_by_its_address_alone_and_by_a_second_reader(made, gammon):
    answer = asked(made())
    assert answer.status_code == 200
    assert answer["Content-Type"].startswith("text/calendar")
    entries = read(answer.content)
    known = {str(each["uid"]) for each in Calendar.from_ical(answer.content).walk("VEVENT")}
    assert known == entries.keys()
    assert len(entries) > 5
    of_one = read(asked(made(gammon.feast_id)).content)
    assert of_one.keys() <= entries.keys()


def test_entries_keep_their_identity_when_the_plan_moves(cook, made, gammon, quince):
    address = made()
    before = read(asked(address).content)
    quince.stands_at += timedelta(hours=30)
    quince.save()
    cook.get("/")
    after = read(asked(address).content)
    assert after.keys() <= before.keys()
    assert any("round" in each for each in after)


def test_a_renewed_address_ends_the_old_one_and_an_ended_one_tells_nothing(cook, made, gammon):
    old, new = made(), made()
    assert [asked(each).status_code for each in (old, new)] == [404, 200]
    other = made(gammon.feast_id)
    cook.post("/calendars/end/", {"feast": ""})
    assert [asked(each).status_code for each in (new, other)] == [404, 200]
    assert Feed.objects.filter(ended_at=None).count() == 1
    token = new.split("/")[-1].removesuffix(".ics")
    assert token not in "".join(Feed.objects.values_list("token_digest", flat=True))


def test_who_has_left_the_kitchen_reads_nothing_more(made, quince):
    address = made()
    quince.memberships.filter(cook=Cook.objects.get(username="quince")).delete()
    assert asked(address).status_code == 404


def test_whoever_asks_too_often_waits(made):
    address = made()
    cache.clear()
    found = [Client().get(address).status_code for _ in range(60)]
    assert set(found) == {200, 429}
    assert found.index(429) >= 20


def test_a_strangers_feast_has_no_address(cook, made, stranger):
    assert cook.post("/calendars/renew/", {"feast": "9999"}).status_code == 404
    assert cook.post("/calendars/renew/", {"feast": "soon"}).status_code == 404
