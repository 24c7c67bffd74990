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

ROOT = Path(__file__).parents[1]
LOAD = """
import django
django.setup()
from django.core.management import call_command
from pantry_web.demo.kitchen import load_whole
call_command("migrate", verbosity=0)
load_whole()
"""

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
    """The folder of a demo that is loaded once, by whichever worker comes first; to be copied."""
    folder = tmp_path_factory.getbasetemp().parent / "loaded-demo"
    done = folder / "is-done"
    try:
        folder.mkdir()
    except FileExistsError:
        for _ in range(3000):
            if done.exists():
                break
            time.sleep(0.1)
    else:
        command = [sys.executable, "-c", LOAD]
        subprocess.run(command, cwd=ROOT, env=environment(folder), check=True)
        done.touch()
    return folder
