"""Attacked: killed, copied, pressed by twenty at once, fed with nonsense, restored under load.

Run it with `bin/bench attack` (about an hour), or one part of it: `bin/bench attack kills`. Parts:
kills, copies, crowd, forms, imports, drill, heavy, sync. How often each is done is set by KILLS,
COPIES, PRESSES, FORMS, IMPORTS and RESTORES, how many feasts and dishes are looked at by LOOKED_AT,
how many dishes the attacked feast has by DISHES, how many write at once by WRITERS. Each part
prints a line of JSON, and whatever was lost, doubled or broken ends it with an error. The tests run
it shortened.
"""

import json
import os
import random
import re
import signal
import socket
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from collections import Counter
from contextlib import closing
from datetime import timedelta
from html import unescape
from http.client import HTTPConnection, HTTPException
from io import StringIO
from pathlib import Path
from urllib.parse import urlencode
from uuid import uuid4

from django.conf import settings
from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.db import connection
from django.test import Client
from django.urls import URLPattern, URLResolver, get_resolver, reverse

from pantry_web.demo import kitchen as demo
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.models import Event, Feast
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.running.invariants import broken_of, broken_of_the_database

DICE = random.Random(int(os.environ.get("DICE", "0")) or None)
ENDS_WITHIN_S = 20.0
"""A worker that is still starting when its server is killed ends once it has started [s]."""
TOKEN = "a" * 32
DOCUMENTS = (demo.DUCK, demo.GOAT, demo.PICKLE, demo.TROUT)
SIZE = {name: int(os.environ.get(name, usual)) for name, usual in (
    ("KILLS", 300), ("COPIES", 100), ("PRESSES", 300), ("FORMS", 10_000), ("IMPORTS", 500),
    ("RESTORES", 5), ("LOOKED_AT", 5), ("DISHES", 40), ("WRITERS", 10),
)}  # fmt: skip


def tell(part, **figures):
    """Print what came of a part."""
    print(json.dumps({"part": part, **figures}), flush=True)


def a_session():
    """The cookie of the demo's cook, as if signed in."""
    cook = Cook.objects.get(username=demo.COOK)
    session = SessionStore()
    session[SESSION_KEY] = str(cook.pk)
    session[BACKEND_SESSION_KEY] = "django.contrib.auth.backends.ModelBackend"
    session[HASH_SESSION_KEY] = cook.get_session_auth_hash()
    session.save()
    return session.session_key


class Server:
    """The server in a process group of its own, its worker beside it."""

    def __init__(self):
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.process = None

    def start(self):
        """Start it, and wait until it is well."""
        environment = os.environ | {"PANTRY_HOSTS": "127.0.0.1", "PANTRY_PLAIN_HTTP": "1"}
        self.process = subprocess.Popen(
            [sys.executable, "manage.py", "serve", "--port", str(self.port)],
            env=environment, start_new_session=True, stdout=subprocess.DEVNULL,
        )  # fmt: skip
        while True:
            try:
                if self.ask("GET", "/health/", timeout=5.0)[0] == 200:
                    return
            except OSError:
                time.sleep(0.05)

    def ask(self, method, path, fields=None, cookie="", timeout=30.0):
        """One request: its status, its headers, and what was answered."""
        there = HTTPConnection("127.0.0.1", self.port, timeout=timeout)
        with closing(there):
            headers = {"Cookie": f"sessionid={cookie}; csrftoken={TOKEN}",
                       "Content-Type": "application/x-www-form-urlencoded"}  # fmt: skip
            body = urlencode((fields or {}) | {"csrfmiddlewaretoken": TOKEN}) if fields else None
            there.request(method, path, body, headers)
            answer = there.getresponse()
            return answer.status, answer.headers, answer.read()

    def kill(self, *, whole):
        """End it at once: with its worker, or by itself, whose worker must then end."""
        (os.killpg if whole else os.kill)(self.process.pid, signal.SIGKILL)
        self.process.wait()

    def left_over(self):
        """Processes of its group that still run."""
        found = []
        for path in Path("/proc").glob("[0-9]*/stat"):
            try:
                state, _, group = path.read_text().rpartition(")")[2].split()[:3]
            except OSError:
                continue
            if group == str(self.process.pid) and state != "Z":
                found.append(path.parent.name)
        return found


class Writer(threading.Thread):
    """Presses the same form until it is answered, then the next: each note has its own words."""

    def __init__(self, server, cookie, name, dishes, pause_s=0.0):
        super().__init__(daemon=True)
        self.server, self.cookie, self.called, self.dishes = server, cookie, name, dishes
        self.acknowledged, self.tried, self.answers = [], [], Counter()
        self.is_over, self.pause_s = threading.Event(), pause_s

    def run(self):
        """Press until it is over."""
        while not self.is_over.is_set():
            note = f"{self.called}, note {len(self.tried)}"
            self.tried.append(note)
            dish = self.dishes[len(self.tried) % len(self.dishes)]
            fields = {"note": note, "once": str(uuid4())}
            while not self._press(f"/dishes/{dish}/steps/note/", fields):
                if self.is_over.wait(0.05):
                    return
            self.acknowledged.append(note)
            time.sleep(self.pause_s)

    def _press(self, path, fields):
        try:
            status, _, _ = self.server.ask("POST", path, fields, self.cookie)
        except (OSError, HTTPException):
            return False
        self.answers[status] += 1
        return status == 302


def writers(part, server, count, dishes, pause_s=0.0):
    """So many writers, at work."""
    cookie = a_session()
    found = [Writer(server, cookie, f"writer {n} of {part}", dishes, pause_s) for n in range(count)]
    for each in found:
        each.start()
    return found


def over(found):
    """Wait for writers to come to an end."""
    for each in found:
        each.is_over.set()
    for each in found:
        each.join()


def notes_in(database):
    """How often each note is in a database."""
    with closing(sqlite3.connect(database)) as read:
        return Counter(note for (note,) in read.execute(
            "SELECT note FROM feasts_event WHERE note LIKE 'writer %'"
        ))  # fmt: skip


def lost_and_doubled(found, database):
    """Notes that were acknowledged and are not there, and notes that are there twice."""
    there = notes_in(database)
    lost = [note for each in found for note in each.acknowledged if not there[note]]
    return lost, [note for note, times in there.items() if times > 1]


def database():
    """The file of the database."""
    return Path(str(settings.DATABASES["default"]["NAME"]))


def all_holds():
    """Refuse a database that does not hold together, and kitchens that do not."""
    connection.close()
    broken = [*broken_of_the_database()]
    for kitchen in Kitchen.objects.all():
        broken += broken_of(kitchen)
    assert not broken, broken[:5]


def kills():
    """Server and worker killed again and again under writers."""
    server, times = Server(), SIZE["KILLS"]
    feast = a_feast("Killed", SIZE["DISHES"], timedelta(days=30))
    server.start()
    dishes = list(feast.dishes.values_list("pk", flat=True))
    found = writers("kills", server, SIZE["WRITERS"], dishes)
    left = 0
    for n in range(times):
        time.sleep(DICE.uniform(0.05, 1.0))
        whole = n % 2 == 0
        server.kill(whole=whole)
        until = time.monotonic() + ENDS_WITHIN_S
        while server.left_over() and time.monotonic() < until:
            time.sleep(0.02)
        left += len(server.left_over())
        server.start()
    over(found)
    server.kill(whole=True)
    lost, doubled = lost_and_doubled(found, database())
    answers = sum((each.answers for each in found), Counter())
    tell("kills", kills=times, acknowledged=sum(len(each.acknowledged) for each in found),
         lost=len(lost), doubled=len(doubled), left_running=left,
         answers={str(status): count for status, count in answers.items()})  # fmt: skip
    assert (lost, doubled, left) == ([], [], 0)
    assert set(answers) <= {302, 503}, answers
    all_holds()


def copies():
    """The files as they are at an instant: everything is stopped, copied, and goes on."""
    server, lost, checked = Server(), 0, 0
    server.start()
    found = writers("copies", server, SIZE["WRITERS"], [1])
    while not any(each.acknowledged for each in found):
        time.sleep(0.02)
    for _ in range(SIZE["COPIES"]):
        time.sleep(DICE.uniform(0.02, 0.5))
        os.killpg(server.process.pid, signal.SIGSTOP)
        before = [note for each in found for note in each.acknowledged]
        with tempfile.TemporaryDirectory() as folder:
            files = [path for end in ("", "-wal") if (path := Path(f"{database()}{end}")).exists()]
            # Not in this process: closing the file would drop the locks of its own connection.
            subprocess.run(["cp", *files, folder], check=True)
            os.killpg(server.process.pid, signal.SIGCONT)
            copy = Path(folder) / database().name
            with closing(sqlite3.connect(copy)) as opened:
                assert opened.execute("PRAGMA integrity_check").fetchone() == ("ok",)
            there = notes_in(copy)
        lost += sum(not there[note] for note in before)
        checked += len(before)
    over(found)
    server.kill(whole=True)
    tell("copies", copies=SIZE["COPIES"], acknowledged_before=checked, lost=lost)
    assert not lost


def a_feast(name, dishes, later):
    """A feast of so many dishes."""
    kitchen = Kitchen.objects.get(name="Quince Lane")
    feast = Feast.objects.create(
        kitchen=kitchen, name=name, serve_at=demo.SERVE_AT + later, time_zone=demo.ZONE, heads=8
    )
    for n in range(dishes):
        add_dish(feast, f"{name} {n}", DOCUMENTS[n % len(DOCUMENTS)], early_max_min=240.0)
    return feast


def crowd():
    """Half as many people as dishes tick on one feast while its plan is worked out."""
    people = SIZE["DISHES"] // 2
    feast = a_feast("Crowded", SIZE["DISHES"], timedelta(days=60))
    server, cookie = Server(), a_session()
    server.start()
    server.ask("GET", f"/feasts/{feast.pk}/", cookie=cookie)
    lasted, answers, lock = [], Counter(), threading.Lock()
    dishes = list(feast.dishes.values_list("pk", flat=True))
    each_presses = max(SIZE["PRESSES"] // people, 1)

    def press(number):
        dice = random.Random(number)
        for n in range(each_presses):
            time.sleep(dice.uniform(0.5, 1.5))  # a thumb, not a machine
            fields = {"note": f"writer {number} of crowd, note {n}", "once": str(uuid4())}
            path = f"/dishes/{dishes[(2 * number + n % 2) % len(dishes)]}/steps/note/"
            if n == 0:
                path, fields = path.replace("note/", "begin/buy/"), {"once": str(uuid4())}
            begin = time.perf_counter()
            status, *_ = server.ask("POST", path, fields, cookie)
            with lock:
                lasted.append(time.perf_counter() - begin)
                answers[status] += 1
            if n % 3 == 0:  # two phones, or a thumb that slips
                server.ask("POST", path, fields, cookie)

    threads = [threading.Thread(target=press, args=(n,)) for n in range(people)]
    for each in threads:
        each.start()
    for each in threads:
        each.join()
    server.kill(whole=True)
    doubled = [note for note, times in notes_in(database()).items() if times > 1]
    bought = Event.objects.filter(dish__in=dishes, what="step-ended", step_key="buy")
    late = sorted(lasted)[int(0.95 * len(lasted))]
    tell("crowd", presses=len(lasted), median_ms=round(1000 * statistics.median(lasted)),
         p95_ms=round(1000 * late), doubled=len(doubled), bought=bought.count(),
         answers={str(status): count for status, count in answers.items()})  # fmt: skip
    assert (doubled, set(answers)) == ([], {302})
    assert bought.count() == bought.values("dish").distinct().count() == people
    all_holds()


EVIL = (
    "", " ", "0", "-1", "1e999", "nan", "inf", "9" * 5000, "½", "7 lb 2 oz", "3.2kg", "1 2/0",
    "\x00", "two\nlines", "\ud800", "\u202e", "<script>", "{{ 7|add:1 }}", "' OR 1=1 --",
    "9999-12-31", "9999-12-31T23:59", "0001-01-01T00:00", "2027-03-28T01:30", "25:61", "on",
    "a" * 9000, "🦆" * 50, "1 t", "0.0001 g", "100 years", "-5 h", "195 F", "none", "None", "[]",
    "{}", "../../etc/passwd",
)  # fmt: skip
FORM = re.compile(r"<form([^>]*)>(.*?)</form>", re.DOTALL)
FIELD = re.compile(r"<(input|select|textarea)([^>]*)>(?:(.*?)</(?:select|textarea)>)?", re.DOTALL)
ATTRIBUTE = re.compile(r'([\w-]+)="([^"]*)"')
LEAVES = ("/sign-out/", "/sign-out/everywhere/", "/password/")
"""Forms that sign out whoever sends them; they have tests of their own."""


def forms_of(page, path):
    """The forms of a page that are posted: their address, and their fields as they stand."""
    for head, inner in FORM.findall(page):
        told = dict(ATTRIBUTE.findall(head))
        if told.get("method") != "post":
            continue
        fields = {}
        for kind, attributes, content in FIELD.findall(inner):
            known = dict(ATTRIBUTE.findall(attributes))
            if "name" not in known:
                continue
            value = known.get("value", "")
            if kind == "select":
                options = re.findall(r'<option value="([^"]*)"', content)
                value = DICE.choice(options) if options else ""
            elif kind == "textarea":
                value = content
            fields[known["name"]] = unescape(value)
        fields.pop("csrfmiddlewaretoken", None)
        yield unescape(told.get("action", "")) or path, fields


def the_kitchen():
    """Where the demo's cook cooks now: what was brought in last."""
    return Kitchen.objects.filter(memberships__cook__username=demo.COOK).latest("pk")


def pages():
    """The address of every page of the kitchen, from the table of all addresses."""
    kitchen = the_kitchen()
    things = [
        {"thing": thing, "thing_id": each.pk}
        for thing, things in (("scale", kitchen.scales), ("ingredient", kitchen.ingredients),
                              ("vessel", kitchen.vessels), ("place", kitchen.places))
        for each in things.all()[:1]
    ]  # fmt: skip
    most = SIZE["LOOKED_AT"]
    feasts = list(kitchen.feasts.order_by("-pk")[:most])
    dishes = [dish for feast in feasts for dish in feast.dishes.order_by("-pk")[:most]]
    of = {
        frozenset(): [{}],
        frozenset(("feast_id",)): [{"feast_id": each.pk} for each in feasts],
        frozenset(("dish_id",)): [{"dish_id": each.pk} for each in dishes],
        frozenset(("thing", "thing_id")): things,
        frozenset(("dish_id", "step_key")): [
            {"dish_id": each.pk, "step_key": "carve"} for each in dishes
        ],
    }
    for route in routes():
        for known in of.get(frozenset(route.pattern.converters), ()):
            path = reverse(route.name, kwargs=known)
            if path not in LEAVES:
                yield path


def routes(resolver=None):
    """Every route."""
    for each in (resolver or get_resolver()).url_patterns:
        if isinstance(each, URLResolver):
            yield from routes(each)
        elif isinstance(each, URLPattern):
            yield each


def opened(client):
    """Open every page; what each answers."""
    answers = Counter()
    for path in pages():
        status = client.get(path).status_code
        answers[status] += 1
        assert status in (200, 204, 302, 404, 405), (status, path)
    return answers


def a_client():
    """The demo's cook, whose errors are answers."""
    client = Client(raise_request_exception=False)
    client.force_login(Cook.objects.get(username=demo.COOK))
    return client


def seeded():
    """There is always something left to attack."""
    kitchen = the_kitchen()
    if kitchen.feasts.count() < 2:
        a_feast(f"Supper {uuid4().hex[:6]}", 3, timedelta(days=DICE.randint(3, 40)))
    for feast in kitchen.feasts.order_by("pk")[: max(kitchen.feasts.count() - 6, 0)]:
        feast.removed_at = demo.STANDS_AT
        feast.save(update_fields=["removed_at"])
    if kitchen.stands_at != demo.STANDS_AT and DICE.random() < 0.3:
        Kitchen.objects.filter(pk=kitchen.pk).update(stands_at=demo.STANDS_AT)


def forms():
    """Forms of all pages, some of their fields spoilt or mixed up."""
    client, answers, sent = a_client(), Counter(), 0
    routes = Counter()
    while sent < SIZE["FORMS"]:
        seeded()
        for path in DICE.sample(list(pages()), 6):
            page = client.get(path).content.decode(errors="replace")
            for action, fields in list(forms_of(page, path)):
                if action in LEAVES or sent >= SIZE["FORMS"]:
                    continue
                spoilt = spoil_fields(fields)
                status = client.post(action, spoilt).status_code
                assert status < 500, (status, action, spoilt)
                answers[status] += 1
                routes[re.sub(r"\d+", "n", action)] += 1
                sent += 1
                if sent % 100 == 0:
                    opened(client)
    tell("forms", forms=sent, addresses=len(routes),
         answers={str(status): count for status, count in answers.items()})  # fmt: skip


def spoil_fields(fields):
    """The fields with some of them left out, evil, or another's value."""
    spoilt = dict(fields)
    for name in DICE.sample(list(spoilt), min(len(spoilt), DICE.choice((0, 1, 1, 2, 4)))):
        deed = DICE.random()
        if deed < 0.15:
            del spoilt[name]
        elif deed < 0.3:
            spoilt[name] = DICE.choice(list(fields.values()))
        else:
            spoilt[name] = DICE.choice(EVIL).encode("utf-8", "replace").decode()
    if DICE.random() < 0.5:
        spoilt.pop("once", None)
    return spoilt


ODD = (None, "", "x", "\ud800", "9999-12-31T23:59", -1, 0, 1e308, 10**29, True, [], {}, [[[]]],
       {"a": {"b": []}}, "2027-03-01T09:40:00+00:00", "a\nb", ["x"] * 50)  # fmt: skip


def spoil_document(document):
    """A document with one to three of its values spoilt, moved or left out."""
    whole = json.loads(json.dumps(document))
    for _ in range(DICE.choice((1, 1, 2, 3))):
        inner = whole
        while True:
            keys = list(inner) if isinstance(inner, dict) else list(range(len(inner)))
            if not keys:
                break
            key = DICE.choice(keys)
            if isinstance(inner[key], dict | list) and inner[key] and DICE.random() < 0.85:
                inner = inner[key]
                continue
            deed = DICE.random()
            if deed < 0.2:
                del inner[key]
            elif deed < 0.3 and isinstance(inner, list):
                inner.append(inner[key])
            elif deed < 0.5 and isinstance(inner[key], float | int):
                inner[key] = inner[key] * DICE.choice((-1, 0, 0.5, 2, 1000))
            else:
                inner[key] = DICE.choice(ODD)
            break
    return whole


def imports():
    """Documents of feasts and kitchens, spoilt; whatever comes in breaks no page."""
    client, answers = a_client(), Counter()
    kitchen = the_kitchen()
    sources = [
        client.get(f"/feasts/{feast.pk}/feast.json").json() for feast in kitchen.feasts.all()
    ]
    whole = client.get("/house/kitchen.json").json()
    for n in range(SIZE["IMPORTS"]):
        is_kitchen = n % 10 == 0
        spoilt = spoil_document(whole if is_kitchen else DICE.choice(sources))
        text = json.dumps(spoilt).encode("utf-8", "replace")
        upload = SimpleUploadedFile("x.json", text)
        answer = client.post("/house/in/" if is_kitchen else "/feasts/in/", {"document": upload})
        assert answer.status_code in (302, 422), (answer.status_code, spoilt)
        answers[answer.status_code] += 1
        if answer.status_code == 302:
            opened(client)
            clear(kitchen)
        elif n % 100 == 0:
            opened(client)
    tell("imports", documents=SIZE["IMPORTS"],
         answers={str(status): count for status, count in answers.items()})  # fmt: skip


def clear(kitchen):
    """Back to the kitchen as it was, but for what is removed."""
    cook = Cook.objects.get(username=demo.COOK)
    cook.memberships.exclude(kitchen=kitchen).delete()
    for feast in kitchen.feasts.order_by("pk")[3:]:
        feast.removed_at = demo.STANDS_AT
        feast.save(update_fields=["removed_at"])


def drill():
    """Copies taken under load, put back elsewhere, and compared row by row."""
    server = Server()
    server.start()
    found = writers("drill", server, SIZE["WRITERS"], [1])
    compared, lasted = 0, []
    with tempfile.TemporaryDirectory() as folder:
        for n in range(SIZE["RESTORES"]):
            time.sleep(1.0)
            copy, elsewhere = Path(folder) / f"{n}.gz", Path(folder) / f"elsewhere-{n}"
            elsewhere.mkdir()
            before = [note for each in found for note in each.acknowledged]
            begin = time.perf_counter()
            call_command("backup", str(copy), verbosity=0, stdout=StringIO())
            lasted.append(time.perf_counter() - begin)
            subprocess.run([sys.executable, "manage.py", "restore", str(copy)], check=True,
                           env=os.environ | {"PANTRY_DATA": str(elsewhere)},
                           stdout=subprocess.DEVNULL)  # fmt: skip
            there = notes_in(elsewhere / database().name)
            assert all(there[note] == 1 for note in before), "a note is not in the copy"
            compared += same_rows(elsewhere / database().name)
    over(found)
    server.kill(whole=True)
    tell("drill", copies=SIZE["RESTORES"], rows_compared=compared,
         longest_s=round(max(lasted), 2))  # fmt: skip


def same_rows(copy):
    """Compare every event and sheet of a copy with those of the database; how many there are."""
    count = 0
    with (
        closing(sqlite3.connect(copy)) as old,
        closing(sqlite3.connect(database())) as now,
    ):
        for table in ("feasts_event", "feasts_weighsheet", "feasts_dish"):
            rows = old.execute(f"SELECT * FROM {table} ORDER BY id").fetchall()
            (last,) = old.execute(f"SELECT max(id) FROM {table}").fetchone()
            assert (
                rows
                == now.execute(
                    f"SELECT * FROM {table} WHERE id <= ? ORDER BY id", (last,)
                ).fetchall()
            )
            count += len(rows)
    return count


def heavy():
    """How one person's heaviest work slows another's pages."""
    feast = a_feast("Heavy", 40, timedelta(days=90))
    server, cookie = Server(), a_session()
    server.start()
    page = f"/dishes/{Feast.objects.get(name='Lantern Night').dishes.first().pk}/steps/"
    p95_of(server, page, cookie)  # until it is warm
    alone = p95_of(server, page, cookie)
    slowed = {}
    for name, path in (
        ("feast of forty", f"/feasts/{feast.pk}/"),
        ("shopping", "/shopping/"),
        ("feast file", f"/feasts/{feast.pk}/feast.json"),
        ("kitchen file", "/house/kitchen.json"),
        ("what could be made", f"/feasts/{feast.pk}/still/?cut=gammon&mass=2+kg"),
    ):
        is_over = threading.Event()

        def ask(path=path, is_over=is_over):
            while not is_over.is_set():
                server.ask("GET", path, cookie=cookie, timeout=120.0)

        asking = threading.Thread(target=ask)
        asking.start()
        slowed[name] = round(p95_of(server, page, cookie) / alone, 2)
        is_over.set()
        asking.join()
    server.kill(whole=True)
    tell("heavy", alone_p95_ms=round(1000 * alone), times_as_long=slowed)


def p95_of(server, path, cookie):
    """How long a page takes, one after the other, but for one in twenty [s]."""
    lasted = []
    for _ in range(60):
        begin = time.perf_counter()
        assert server.ask("GET", path, cookie=cookie)[0] == 200
        lasted.append(time.perf_counter() - begin)
        time.sleep(0.02)
    return sorted(lasted)[56]


def sync():
    """What it costs that every commit is on the disk before it is acknowledged."""
    lasted = {"FULL": [], "NORMAL": []}
    with tempfile.TemporaryDirectory(dir=settings.DATA) as folder:
        for n in range(400):
            level = ("FULL", "NORMAL")[n % 2]
            with closing(sqlite3.connect(Path(folder) / level, isolation_level=None)) as here:
                here.execute("PRAGMA journal_mode=WAL")
                here.execute(f"PRAGMA synchronous={level}")
                here.execute("CREATE TABLE IF NOT EXISTS t (note TEXT)")
                begin = time.perf_counter()
                here.execute("INSERT INTO t VALUES (?)", ("x" * 200,))
                lasted[level].append(time.perf_counter() - begin)
    tell("sync", **{f"{level.lower()}_median_ms": round(1000 * statistics.median(each), 2)
                    for level, each in lasted.items()})  # fmt: skip


PARTS = {each.__name__: each for each in
         (kills, copies, crowd, forms, imports, drill, heavy, sync)}  # fmt: skip


def main():
    """Attack."""
    call_command("migrate", verbosity=0)
    demo.load_whole()
    for name in sys.argv[2:] or PARTS:
        PARTS[name]()


if __name__ == "__main__":
    main()
