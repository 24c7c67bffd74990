"""Fill a database of an earlier migration, migrate it, and print what it says as JSON.

It runs in a process of its own, whose data folder is empty; its argument is the file with the rows.
"""

import json
import sqlite3
import sys
from dataclasses import asdict
from pathlib import Path

import django

django.setup()

from django.core.management import call_command  # noqa: E402
from django.db import connection  # noqa: E402
from django.db.migrations.executor import MigrationExecutor  # noqa: E402

from pantry_web.feasts.models import Event, Feast, KeptRoute, WeighSheet  # noqa: E402
from pantry_web.planning.outlook import feast_outlook  # noqa: E402
from pantry_web.planning.solving import work_out_plan  # noqa: E402


def fill(earlier):
    """Bring the empty database to the earlier migrations, and insert the rows."""
    MigrationExecutor(connection).migrate(list(earlier["migrations"].items()))
    connection.close()
    with sqlite3.connect(connection.settings_dict["NAME"]) as database:  # in whatever order
        for table, content in earlier["tables"].items():
            marks = ",".join("?" * len(content["columns"]))
            names = ",".join(content["columns"])
            database.executemany(f"INSERT INTO {table} ({names}) VALUES ({marks})", content["rows"])  # noqa: S608


def main():
    fill(json.loads(Path(sys.argv[1]).read_text()))
    call_command("migrate", verbosity=0)
    told = {"dishes": {}, "plans": {}, "routes": list(KeptRoute.objects.values("name", "steps"))}
    for feast in Feast.objects.select_related("kitchen"):
        now = feast.kitchen.stands_at
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
    json.dump(told, sys.stdout, default=str)


if __name__ == "__main__":
    main()
