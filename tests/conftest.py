"""The demo as it is loaded once; random searches are the same each time.

`bin/bench search` looks at random.
"""

import os
import subprocess
import sys
import time
from pathlib import Path

import pytest
from hypothesis import settings
from xdist.scheduler import LoadScopeScheduling

ROOT = Path(__file__).parents[1]
LOAD = """
import django
django.setup()
from django.core.management import call_command
from django.db import connection
from django.test import Client
from pantry_web.demo.kitchen import COOK, load_whole
from pantry_web.kitchens.models import Cook
call_command("migrate", verbosity=0)
folder = connection.settings_dict["NAME"].parent
connection.cursor().execute("VACUUM INTO %s", [f"{folder}/migrated"])
load_whole()
client = Client()
client.force_login(Cook.objects.get(username=COOK))
print(client.cookies["sessionid"].value)
"""

LONGEST = (
    "browser/test_journey.py", "browser/test_fire.py", "reference/test_hours_counted.py",
    "web/test_attack.py", "web/test_words.py", "web/test_migrations.py", "web/test_running.py",
    "browser/test_passage.py", "browser/test_away.py", "browser/test_today.py",
    "reference/test_mutations.py", "web/test_passage.py", "web/test_feast.py", "web/test_access.py",
    "web/test_ledger.py", "web/test_fire.py", "reference/test_heat.py", "web/test_whole.py",
    "web/test_one_verdict.py", "core/test_ways_of_cooking.py", "web/test_doors.py",
    "core/test_dish.py", "reference/test_feast.py", "web/test_background.py", "web/test_dish.py",
    "web/test_moving.py",
)  # fmt: skip
"""The files that take longest, longest first (by `--durations`): whoever is free takes the next."""
DIVIDED = (
    "web/test_words.py", "web/test_passage.py", "web/test_feast.py", "web/test_ledger.py",
    "web/test_whole.py", "web/test_dish.py",
)  # fmt: skip
"""Of these every test is handed out by itself: they share nothing that takes time to make."""


class ByTime(LoadScopeScheduling):
    """Hands out a file at a time, of the files that are divided a test."""

    def _split_scope(self, nodeid):
        file = nodeid.split("::")[0]
        return nodeid if file.removeprefix("tests/") in DIVIDED else file


@pytest.hookimpl(optionalhook=True)
def pytest_xdist_make_scheduler(config, log):
    """Share the tests out so that all processes end together."""
    return ByTime(config, log)


@pytest.hookimpl(tryfirst=True)
def pytest_collection_modifyitems(items):
    """Put the files that take longest first."""
    rank = {f"tests/{name}": n for n, name in enumerate(LONGEST)}
    items.sort(key=lambda item: rank.get(item.nodeid.split("::")[0], len(rank)))


settings.register_profile("same", derandomize=True, deadline=None)
settings.register_profile("search", deadline=None)
settings.load_profile(os.environ.get("PANTRY_SEARCH", "same"))


def environment(data):
    """Of a process that serves or keeps the kitchens of a folder."""
    return os.environ | {
        "PANTRY_DATA": str(data), "PANTRY_PLAIN_HTTP": "1", "PYTHONPATH": f"{ROOT}/src:{ROOT}",
        "DJANGO_SETTINGS_MODULE": "pantry_web.settings",
    }  # fmt: skip


@pytest.fixture(scope="session")
def loaded_demo(tmp_path_factory):
    """The folder of a demo that is loaded once, by whichever worker comes first; to be copied.

    Its file `signed-in` holds the key of a session of the demo's cook, `migrated` is the database
    before anything was loaded.
    """
    base = tmp_path_factory.getbasetemp()
    is_one_of_several = "PYTEST_XDIST_WORKER" in os.environ
    folder = (base.parent if is_one_of_several else base) / "loaded-demo"
    done = folder / "signed-in"
    try:
        folder.mkdir()
    except FileExistsError:
        for _ in range(3000):
            if done.exists() and done.read_text():
                break
            time.sleep(0.1)
    else:
        session = subprocess.run(
            [sys.executable, "-c", LOAD], cwd=ROOT, env=environment(folder), check=True,
            stdout=subprocess.PIPE, text=True,
        ).stdout.split()[-1]  # fmt: skip
        done.write_text(session)
    return folder
