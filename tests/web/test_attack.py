"""The attack of `bench/attack.py`, shortened: what it refuses to see fails here."""

import json
import shutil

import pytest

from tests.web.test_migrations import run

START = (
    "import django, runpy; django.setup(); runpy.run_path('bench/attack.py', run_name='__main__')"
)
SHORT = {
    "imports": {"IMPORTS": 2},
    "kills": {"KILLS": 1, "DISHES": 16}, "copies": {"COPIES": 2, "WRITERS": 4},
    "crowd": {"PRESSES": 16},
    "drill": {"RESTORES": 1}, "forms": {"FORMS": 20, "LOOKED_AT": 1},
}  # fmt: skip
"""What is brought in is looked at first, while every plan is as it was."""


@pytest.fixture(scope="module")
def data(tmp_path_factory, loaded_demo):
    """A folder of the kitchen that is attacked."""
    return shutil.copytree(loaded_demo, tmp_path_factory.mktemp("attacked"), dirs_exist_ok=True)


@pytest.mark.parametrize("parts", [("imports", "forms"), ("kills", "copies", "crowd", "drill")])
def test_nothing_is_lost_doubled_or_broken(data, parts):
    """By forms and files, and by a server that is killed, copied and crowded."""
    size = {name: str(value) for part in parts for name, value in SHORT[part].items()}
    printed = run(
        data, "-c", START, "bench/attack.py", *parts, PANTRY_HOSTS="testserver", DICE="7", **size
    )
    figures = [json.loads(line) for line in printed.splitlines() if line.startswith("{")]
    assert tuple(each["part"] for each in figures) == parts
    for each in figures:
        for bad in ("lost", "doubled", "left_running"):
            assert not each.get(bad), each
