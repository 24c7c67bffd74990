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
from hypothesis.internal.conjecture import providers
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
    "browser/test_journey.py", "browser/test_passage.py", "reference/test_hours_counted.py",
    "reference/test_mutations.py", "web/test_words.py", "web/test_attack.py",
    "web/test_migrations.py", "browser/alone/test_fire.py", "web/test_running.py",
    "browser/alone/test_away.py", "browser/alone/test_today.py",
    "browser/alone/test_first_dinner.py",
    "web/test_passage.py", "web/test_feast.py", "web/test_access.py",
    "web/test_ledger.py", "web/test_fire.py", "reference/test_heat.py", "web/test_whole.py",
    "web/test_one_verdict.py", "core/test_ways_of_cooking.py", "web/test_doors.py",
    "core/test_dish.py", "reference/test_feast.py", "web/test_background.py", "web/test_dish.py",
    "web/test_moving.py",
)  # fmt: skip
"""The files that take longest, longest first (by `--durations`): whoever is free takes the next.

While the first process loads the demo, the second takes what needs none.
"""
TOGETHER = ("browser/test_journey.py", "browser/test_passage.py")
"""One process takes all of these: they share a server."""
DIVIDED = (
    "web/test_words.py", "web/test_passage.py", "web/test_feast.py", "web/test_ledger.py",
    "web/test_whole.py", "web/test_dish.py",
)  # fmt: skip
"""Of these every test is handed out by itself: they share nothing that takes time to make."""


class ByTime(LoadScopeScheduling):
    """Hands out a file at a time, of the files that are divided a test."""

    def _split_scope(self, nodeid):
        file = nodeid.split("::")[0].removeprefix("tests/")
        if file in TOGETHER:
            return TOGETHER[0]
        return nodeid if file in DIVIDED else file


@pytest.hookimpl(optionalhook=True)
def pytest_xdist_make_scheduler(config, log):
    """Share the tests out so that all processes end together."""
    return ByTime(config, log)


@pytest.hookimpl(trylast=True)
def pytest_collection_modifyitems(items):
    """Put the files that take longest first."""
    rank = {f"tests/{name}": n for n, name in enumerate(LONGEST)}
    items.sort(key=lambda item: rank.get(item.nodeid.split("::")[0], len(rank)))


settings.register_profile("same", derandomize=True, deadline=None, max_examples=40)
settings.register_profile("search", deadline=None, max_examples=400)
settings.load_profile(os.environ.get("PANTRY_SEARCH", "same"))
if "PANTRY_SEARCH" not in os.environ:
    # Hypothesis also tries numbers that it reads from the sources of whatever modules are loaded,
    # so the cases would depend on which tests ran before in the same process.
    providers._get_local_constants = lambda: providers._local_constants


def environment(data):
    """Of a process that serves or keeps the kitchens of a folder."""
    return os.environ | {
        "PANTRY_DATA": str(data), "PANTRY_PLAIN_HTTP": "1", "PYTHONPATH": f"{ROOT}/src:{ROOT}",
        "DJANGO_SETTINGS_MODULE": "pantry_web.settings",
    }  # fmt: skip


def made_once(tmp_path_factory, name, make):
    """A folder that one of the processes fills, whichever comes first, for all of them."""
    base = tmp_path_factory.getbasetemp()
    folder = (base.parent if "PYTEST_XDIST_WORKER" in os.environ else base) / name
    done = folder / "made"
    try:
        folder.mkdir()
    except FileExistsError:
        for _ in range(3000):
            if done.exists():
                return folder
            time.sleep(0.1)
        pytest.fail(f"nobody made {name}")
    make(folder)
    done.touch()
    return folder


@pytest.fixture(scope="session")
def loaded_demo(tmp_path_factory):
    """The folder of a demo that is loaded once; to be copied.

    Its file `signed-in` holds the key of a session of the demo's cook, `migrated` is the database
    before anything was loaded.
    """

    def load(folder):
        session = subprocess.run(
            [sys.executable, "-c", LOAD], cwd=ROOT, env=environment(folder), check=True,
            stdout=subprocess.PIPE, text=True,
        ).stdout.split()[-1]  # fmt: skip
        (folder / "signed-in").write_text(session)

    return made_once(tmp_path_factory, "loaded-demo", load)
