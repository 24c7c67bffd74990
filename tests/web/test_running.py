"""Keeping a kitchen running: its health, headers, copies of its database, its logs."""

import gzip
import json
import logging
import os
import re
import shutil
import socket
import sqlite3
import subprocess
import sys
import threading
import time
from contextlib import closing
from http.client import HTTPConnection
from urllib.parse import urlencode
from uuid import uuid4

import pytest

from pantry_web import versioned
from pantry_web.feasts.models import Event
from pantry_web.running.copies import BadCopy, put_back, take_copy
from pantry_web.running.invariants import broken_of
from pantry_web.running.logs import AsJson
from pantry_web.versioned import VersionedStaticFilesStorage
from tests.web.test_migrations import run

EVENTS = 300


def test_what_ships_with_the_pages_has_another_address_when_it_changes(cook, monkeypatch, tmp_path):
    styles = re.search(
        r'href="(/static/pantry/pantry\.css\?\w{12})"', cook.get("/").content.decode()
    )
    with closing(cook.get(styles[1])) as served:
        assert served.status_code == 200
    older, newer = tmp_path / "older.css", tmp_path / "newer.css"
    older.write_text("a {}")
    newer.write_text("b {}")
    monkeypatch.setattr(versioned.finders, "find", {"o": older, "n": newer}.get)
    addresses = {VersionedStaticFilesStorage().url(name).split("?")[-1] for name in "on"}
    assert len(addresses) == 2
    assert "?" not in VersionedStaticFilesStorage().url("nowhere.css")


def test_health_is_told_to_anybody_and_nothing_else(client, db):
    answer = client.get("/health/")
    assert answer.json() == {"status": "well"}
    assert "no-store" in answer["Cache-Control"]


def test_no_copy_of_a_signed_in_page_stays(cook):
    page = cook.get("/")
    assert page["Cache-Control"] == "no-store, private"
    assert "camera=()" in page["Permissions-Policy"]


@pytest.fixture(scope="module")
def data(tmp_path_factory, loaded_demo):
    """A database that is migrated, with a kitchen."""
    return shutil.copytree(loaded_demo, tmp_path_factory.mktemp("kept"), dirs_exist_ok=True)


def test_a_copy_under_way_has_every_commit_before_it(data, tmp_path):
    """Somebody writes all the time; whatever was committed when the copy began is in it."""
    database, stop, done = data / "pantry.sqlite3", threading.Event(), []

    def write():
        with closing(sqlite3.connect(database, timeout=10, isolation_level=None)) as here:
            here.execute("CREATE TABLE IF NOT EXISTS kitchens_tried (n INTEGER)")
            while not stop.is_set() and len(done) < EVENTS:
                here.execute("INSERT INTO kitchens_tried VALUES (?)", (len(done),))
                done.append(len(done))

    writer = threading.Thread(target=write)
    writer.start()
    while len(done) < 20:
        pass
    before = len(done)
    counted = take_copy(database, tmp_path / "copy.gz")
    stop.set()
    writer.join()
    assert before <= counted["kitchens_tried"] <= len(done)
    assert (tmp_path / "copy.gz").stat().st_mode & 0o077 == 0


def test_a_copy_is_put_back_and_what_was_there_stays(data, tmp_path):
    told = run(data, "manage.py", "backup", str(tmp_path / "{time}.gz"))
    (copy,) = tmp_path.glob("*.gz")
    assert "events" in told
    with closing(sqlite3.connect(data / "pantry.sqlite3")) as here:
        before = here.execute("SELECT count(*) FROM kitchens_place").fetchone()
        here.execute("DELETE FROM kitchens_place")
        here.commit()
    run(data, "manage.py", "restore", str(copy))
    with closing(sqlite3.connect(data / "pantry.sqlite3")) as here:
        assert here.execute("SELECT count(*) FROM kitchens_place").fetchone() == before
    assert (data / "pantry.sqlite3.before").exists()


@pytest.mark.parametrize("spoil", ["empty", "half", "text", "other"])
def test_what_is_no_sound_copy_changes_nothing(data, tmp_path, spoil):
    database, good, bad = data / "pantry.sqlite3", tmp_path / "good.gz", tmp_path / "bad.gz"
    take_copy(database, good)
    whole = good.read_bytes()
    with closing(sqlite3.connect(tmp_path / "other")) as other:
        other.execute("CREATE TABLE t (n)")
        other.commit()
    bad.write_bytes({
        "empty": b"", "half": whole[: len(whole) // 2], "text": gzip.compress(b"not a database"),
        "other": gzip.compress((tmp_path / "other").read_bytes()),
    }[spoil])  # fmt: skip
    before = database.read_bytes()
    with pytest.raises(BadCopy):
        put_back(bad, database)
    assert database.read_bytes() == before


def test_a_log_is_a_line_of_json_without_what_was_typed():
    try:
        int("a secret")
    except ValueError:
        record = logging.LogRecord("x", logging.ERROR, "y", 1, "It failed: %s", ("/",),
                                   sys.exc_info())  # fmt: skip
    told = json.loads(AsJson().format(record))
    assert told["error"] == "ValueError"
    assert told["what"] == "It failed: /"
    assert "a secret" not in json.dumps(told)


def test_behind_tls_as_it_is_described(data):
    """Over the proxy's word that it was TLS a page is answered, without it sent to TLS, once."""
    script = (
        "import django; django.setup();"
        "from django.test import Client; c = Client(headers={'host': 'pantry.example'});"
        "print(c.get('/health/').status_code, c.get('/sign-in/').status_code,"
        " c.get('/sign-in/', headers={'x-forwarded-proto': 'https'}).status_code)"
    )
    environment = {
        "PYTHONPATH": "src", "PANTRY_DATA": str(data), "PANTRY_HOSTS": "pantry.example",
        "PANTRY_BEHIND_PROXY": "1", "DJANGO_SETTINGS_MODULE": "pantry_web.settings",
    }  # fmt: skip
    told = subprocess.run([sys.executable, "-c", script], env=environment, check=True,
                          capture_output=True, text=True).stdout  # fmt: skip
    assert told.split() == ["200", "301", "200"]


def test_what_always_holds_is_looked_up(data, quince, gammon):
    assert "Quince Lane: all is well" in run(data, "manage.py", "check_kitchens")
    assert list(broken_of(quince)) == []
    first = gammon.events.first()
    for _ in range(2):
        Event.objects.create(dish=gammon, batch=uuid4(), what="withdrawn", at=first.at, by=first.by,
                             withdraws=first.batch)  # fmt: skip
    Event.objects.create(dish=gammon, batch=uuid4(), what="put-in", at=quince.stands_at,
                         by=first.by, step_key="brine", mass_g=1.0)  # fmt: skip
    gammon.document["edits"] = [{"step": "simmer", "after": [{"dish": "0", "step": "cook"}]}]
    gammon.document["piece"]["mass_g"] = -1.0
    gammon.save()
    quince.memberships.update(role="cook")
    told = "\n".join(broken_of(quince))
    for each in ("nobody owns it", "taken back twice", "the sheets are not the same",
                 "a dish that its feast does not have", "piece.mass_g"):  # fmt: skip
        assert each in told, told


def test_the_proxys_word_counts_for_who_asks_and_nobody_elses(data):
    """Served as the README says, on a port of its own; wrong passwords lock one address out."""
    with closing(socket.socket()) as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    environment = os.environ | {
        "PYTHONPATH": "src", "PANTRY_DATA": str(data), "PANTRY_HOSTS": "pantry.example",
        "PANTRY_BEHIND_PROXY": "1", "DJANGO_SETTINGS_MODULE": "pantry_web.settings",
    }  # fmt: skip
    environment.pop("PANTRY_PLAIN_HTTP", None)

    def ask(method, path, address, fields=None, cookie=""):
        with closing(HTTPConnection("127.0.0.1", port, timeout=30)) as there:
            there.request(method, path, urlencode(fields) if fields else None, {
                "Host": "pantry.example", "X-Forwarded-For": address, "X-Forwarded-Proto": "https",
                "Referer": "https://pantry.example/sign-in/", "Cookie": cookie,
                "Content-Type": "application/x-www-form-urlencoded",
            })  # fmt: skip
            answer = there.getresponse()
            return answer.status, answer.headers.get("Set-Cookie", ""), answer.read().decode()

    def sign_in(address, password):
        _, cookie, page = ask("GET", "/sign-in/", address)
        token = re.search(r'csrfmiddlewaretoken" value="([^"]+)', page)[1]
        fields = {"username": "quince", "password": password, "csrfmiddlewaretoken": token}
        return ask("POST", "/sign-in/", address, fields, cookie.partition(";")[0])[0]

    command = [sys.executable, "manage.py", "serve", "--port", str(port), "--processes", "1"]
    with subprocess.Popen(command, env=environment, stdout=subprocess.DEVNULL) as server:
        try:
            for _ in range(600):
                with closing(socket.socket()) as probe:
                    if probe.connect_ex(("127.0.0.1", port)) == 0:
                        break
                time.sleep(0.1)
            assert ask("GET", "/health/", "203.0.113.9")[0] == 200
            assert [sign_in("203.0.113.9", "wrong") for _ in range(5)] == [200] * 4 + [429]
            assert sign_in("203.0.113.9", "lantern-night") == 429
            assert sign_in("198.51.100.4", "lantern-night") == 302
        finally:
            server.terminate()
