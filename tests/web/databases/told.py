"""Fill databases of earlier migrations, migrate them, and print what they say as JSON, by name.

It runs in a process of its own, whose data folder is empty; its arguments are the files with the
rows.
"""

import json
import shutil
import sqlite3
import sys
from dataclasses import asdict
from pathlib import Path
from zlib import crc32

import django

django.setup()

from django.conf import settings  # noqa: E402
from django.core.files.uploadedfile import SimpleUploadedFile  # noqa: E402
from django.core.management import call_command  # noqa: E402
from django.db import connection  # noqa: E402
from django.db.migrations.executor import MigrationExecutor  # noqa: E402
from django.test import Client  # noqa: E402

from pantry_web.feasts.models import Dish, Event, Feast, KeptRoute, WeighSheet  # noqa: E402
from pantry_web.kitchens.models import Kitchen  # noqa: E402
from pantry_web.planning.answers import forget  # noqa: E402
from pantry_web.planning.looking import ask_for_plan, feast_outlook  # noqa: E402
from pantry_web.planning.solving import work_out_plan  # noqa: E402
from pantry_web.running.invariants import broken_of  # noqa: E402
from tests.web.test_words import pages  # noqa: E402

OF_NO_PIECE = 404
FEW_DISHES, PART = 2, 3
"""Of a kitchen with few dishes all pages are looked at, else of its dishes' pages a third."""


def connect(name):
    """Go on with a database of the data folder."""
    connection.close()
    connection.settings_dict["NAME"] = settings.DATA / f"{name}.sqlite3"


def fill(name, earlier):
    """Bring the empty database on to the earlier migrations; insert the rows into a copy of it.

    The databases come in the order of their age: the empty one only goes on.
    """
    connect("empty")
    MigrationExecutor(connection).migrate(list(earlier["migrations"].items()))
    empty = connection.settings_dict["NAME"]
    connect(name)
    shutil.copy(empty, connection.settings_dict["NAME"])
    with sqlite3.connect(connection.settings_dict["NAME"]) as database:  # in whatever order
        for table, content in earlier["tables"].items():
            marks = ",".join("?" * len(content["columns"]))
            names = ",".join(content["columns"])
            database.executemany(f"INSERT INTO {table} ({names}) VALUES ({marks})", content["rows"])  # noqa: S608


def unanswered(kitchen, client):
    """The pages that do not answer, each with its status; a side job has no page of a piece."""
    jobs = [f"/dishes/{each.pk}/" for each in Dish.objects.all() if "job" in each.document]
    looks_at_all = Dish.objects.count() <= FEW_DISHES
    for path in pages(kitchen):
        of_dish = path.startswith("/dishes/")
        if of_dish and not looks_at_all and crc32(path.encode()) % PART:
            continue
        status = client.get(path).status_code
        is_none = status == OF_NO_PIECE and any(path.startswith(each) for each in jobs)
        if status >= 400 and not is_none:
            yield f"{path}: {status}"


def moved(kitchen, client):
    """The kitchen's own file, and the one of the kitchen that is made from it."""
    taken_out = client.get("/house/kitchen.json").content
    upload = SimpleUploadedFile("x.json", taken_out)
    answer = client.post("/house/in/", {"document": upload})
    assert answer.status_code == 302, answer.content.decode()
    Kitchen.objects.filter(pk=kitchen.pk).update(name="the one before")
    new = Kitchen.objects.exclude(pk=kitchen.pk).get()
    client.post(f"/kitchens/{new.pk}/", follow=True)
    return json.loads(taken_out), json.loads(client.get("/house/kitchen.json").content)


def walked():
    """What the pages of the kitchen answer: those that fail, the sheets, the file that moves."""
    kitchen, client = Kitchen.objects.get(), Client()
    client.force_login(kitchen.memberships.get().cook)
    sheets = {
        pk: client.get(f"/dishes/{pk}/mix/").content.decode()
        for pk in WeighSheet.objects.values_list("dish_id", flat=True)
    }
    failed = [*unanswered(kitchen, client), *broken_of(kitchen)]
    taken_out, brought_in = moved(kitchen, client)
    return {"unanswered": failed, "sheets": sheets, "is_moved_whole": taken_out == brought_in}


def main():
    json.dump({path: said_by(Path(path)) for path in sys.argv[1:]}, sys.stdout, default=str)


def said_by(path):
    """What a database says once it is migrated; it stays in the data folder, under its name."""
    forget()
    fill(path.stem, json.loads(path.read_text()))
    call_command("migrate", verbosity=0)
    told = {"dishes": {}, "plans": {}, "routes": list(KeptRoute.objects.values("name", "steps"))}
    for feast in Feast.objects.select_related("kitchen"):
        now = feast.kitchen.stands_at
        ask_for_plan(feast, feast.kitchen, now)
        whole = feast_outlook(feast, feast.kitchen, now)
        if whole.solving is not None:
            work_out_plan.call(whole.solving.pk)
            whole = feast_outlook(feast, feast.kitchen, now)
        for view in whole.dishes:
            told["dishes"][str(view.dish.pk)] = {
                "steps": [asdict(step) for step in view.steps],
                "problems": [each.what for each in view.problems],
                "put_in": view.state.put_in is not None,
            }
        told["plans"][feast.name] = {
            "status": whole.plan.status,
            "steps": [[each.dish, each.step, each.start.isoformat(), each.end.isoformat()]
                      for each in whole.plan.steps],
        }  # fmt: skip
    for name, model in (("feasts_event", Event), ("feasts_weighsheet", WeighSheet)):
        told[name] = model.objects.count()
    return told | walked()


if __name__ == "__main__":
    main()
