"""Work beside the pages: workers killed in the middle, ticks beside a long solve, a held database.

Run it with `bin/bench beside` (about ten minutes), or `KILLS=5 bin/bench beside`. It makes a
kitchen of its own in a temporary folder, and a worker in a process of its own.
"""

import os
import signal
import sqlite3
import statistics
import threading
import time
from datetime import timedelta

from django.conf import settings
from django.core.management import call_command
from django.test import Client

from pantry_web.background.models import Work
from pantry_web.demo import kitchen as demo
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.models import Feast
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.running.beside import Beside

KILLS = int(os.environ.get("KILLS", "30"))
TICKS = 60
DOCUMENTS = (demo.DUCK, demo.GOAT, demo.PICKLE, demo.TROUT)


def main() -> None:
    """Measure each and print what came of it."""
    call_command("migrate", verbosity=0)
    demo.load()
    kitchen = Kitchen.objects.get()
    client = Client()
    client.force_login(Cook.objects.get(username=demo.COOK))
    worker = Beside("work")
    worker.start()
    try:
        _kills(kitchen, client, worker)
        _ticks(kitchen, client)
        _held(client)
    finally:
        worker.stop()


def _feast(kitchen, name, dishes, later) -> Feast:
    feast = Feast.objects.create(
        kitchen=kitchen, name=name, serve_at=demo.SERVE_AT + later, time_zone=demo.ZONE, heads=8
    )
    for n in range(dishes):
        add_dish(feast, f"Dish {n}", DOCUMENTS[n % len(DOCUMENTS)], early_max_min=240.0)
    return feast


def _kills(kitchen, client, worker) -> None:
    kitchen.places.update(capacity=8.0)
    kitchen.places.filter(name="fridge").update(capacity=400.0)
    lasted = []
    for n in range(KILLS):
        feast = _feast(kitchen, f"Killed {n}", 8, timedelta(days=5 + n))
        client.get(f"/feasts/{feast.pk}/")
        work = Work.objects.filter(state__in=("waiting", "running")).latest("pk")
        while Work.objects.get(pk=work.pk).state == "waiting":
            time.sleep(0.02)
        time.sleep(0.2 + 0.05 * n)
        was_running = Work.objects.get(pk=work.pk).state == "running"
        os.kill(worker.pid, signal.SIGKILL)
        begin = time.perf_counter()
        while "being worked out" in client.get(f"/feasts/{feast.pk}/").content.decode():
            client.get(f"/feasts/{feast.pk}/solving/")
            time.sleep(1.0)
            if time.perf_counter() - begin > 300:
                break
        found = Work.objects.get(pk=work.pk)
        lasted.append(time.perf_counter() - begin)
        print(f"  {n}: {found.state} after {lasted[-1]:.1f} s, {found.attempts} attempts"
              f"{'' if was_running else ' (it was done already)'}", flush=True)  # fmt: skip
    print(f"{KILLS} workers killed: plans there after {statistics.median(lasted):.1f} s at the "
          f"median, {max(lasted):.1f} s at the latest")  # fmt: skip


def _ticks(kitchen, client) -> None:
    feast = _feast(kitchen, "Forty", 40, timedelta(days=60))
    client.get(f"/feasts/{feast.pk}/")
    times, refused, beside = [], 0, 0
    for n in range(TICKS):
        begin = time.perf_counter()
        answer = client.post("/dishes/1/steps/note/", {"note": f"looked at it, {n}"})
        times.append(time.perf_counter() - begin)
        refused += answer.status_code != 302
        beside += Work.objects.filter(state="running").exists()
        time.sleep(0.1)
    late = sorted(times)[int(0.95 * TICKS)]
    print(f"{TICKS} ticks, {beside} of them beside a solve of forty dishes: median "
          f"{1000 * statistics.median(times):.0f} ms, 95 % {1000 * late:.0f} ms, "
          f"{refused} refused")  # fmt: skip


def _held(client) -> None:
    holder = sqlite3.connect(settings.DATABASES["default"]["NAME"], check_same_thread=False)
    holder.isolation_level = None
    holder.execute("BEGIN IMMEDIATE")
    release = threading.Timer(20.0, lambda: holder.execute("ROLLBACK"))
    release.start()
    for _ in range(4):
        begin = time.perf_counter()
        answer = client.post("/dishes/1/steps/note/", {"note": "held"})
        read = client.get("/dishes/1/steps/").status_code
        print(f"  held: {answer.status_code} after {time.perf_counter() - begin:.1f} s, "
              f"reading {read}", flush=True)  # fmt: skip
        if answer.status_code == 302:
            break
    release.join()


if __name__ == "__main__":
    main()
