"""Databases of every earlier migration, made-up kitchens all, brought up to what is today."""

import json
import re
import sqlite3
import subprocess
import sys
from pathlib import Path

import pytest

from pantry_core.dish.answer import DishStep
from tests.conftest import environment

HERE, ROOT = Path(__file__).parent / "databases", Path(__file__).parents[2]
KEPT = ("title", "min_h", "prefer_h", "max_h", "hands_min", "every_h", "tend", "uses", "kind")
"""What of a step that has begun stays as it was."""
CHANGED = ("title", "min_h", "prefer_h", "max_h", "hands_min", "every_h")
"""What the cook could change of a step."""
SINCE = {"hold"}
"""What is lifted from a marinade may be held cold since."""
NO_MORE = {"stand"}
"""Steps that the rules have dropped since, of dishes that have not begun: a fish is not rested."""
DATABASES = ("first", "every-method", "many-dishes", "before-documents", "sentences-at-first")
NEVER_REWRITTEN = ("feasts_event", "feasts_weighsheet", "feasts_mishap")


def run(data, *command, **more):
    done = subprocess.run(
        [sys.executable, *command], cwd=ROOT, env=environment(data) | more, check=True,
        capture_output=True, text=True,
    )  # fmt: skip
    return done.stdout


def rows_of(file, table):
    with sqlite3.connect(file) as database:
        database.row_factory = sqlite3.Row
        return [dict(row) for row in database.execute(f"SELECT * FROM {table} ORDER BY id")]  # noqa: S608


@pytest.fixture(scope="module")
def told(tmp_path_factory):
    """What every database says when it is migrated, and the folder that they are in."""
    data = tmp_path_factory.mktemp("migrated")
    files = [str(HERE / f"{name}.json") for name in DATABASES]
    printed = run(data, "-m", "tests.web.databases.told", *files, PANTRY_HOSTS="testserver")
    return json.loads(printed), data


@pytest.fixture(params=DATABASES)
def migrated(request, told):
    """What a database was, what it says when it is migrated, and its file."""
    earlier = HERE / f"{request.param}.json"
    by_file, data = told
    was = json.loads(earlier.read_text())
    return was, by_file[str(earlier)], data / f"{request.param}.sqlite3"


def table(was, name):
    found = was["tables"].get(name, {"columns": [], "rows": []})
    return [dict(zip(found["columns"], row, strict=True)) for row in found["rows"]]


def test_log_and_sheets_are_as_they_were(migrated):
    was, _, file = migrated
    for name in NEVER_REWRITTEN:
        before = table(was, name)
        after = rows_of(file, name)[: len(before)]  # what was brought in since comes behind
        assert [{key: row[key] for key in old} for old, row in zip(before, after, strict=True)] == (
            before
        )


def test_steps_are_as_they_were_but_for_what_the_rules_changed(migrated):
    was, now, _ = migrated
    begun = {event["dish_id"] for event in table(was, "feasts_event")}
    assert all(dish["problems"] == [] for dish in now["dishes"].values())
    if "feasts_step" not in was["tables"]:
        return  # every dish is a document already
    for dish_id, found in now["dishes"].items():
        steps = {step["id"]: step for step in found["steps"]}
        stored = [row for row in table(was, "feasts_step") if row["dish_id"] == int(dish_id)]
        before = sorted(stored, key=lambda row: row["position"])
        has_begun = int(dish_id) in begun
        gone = set() if has_begun else NO_MORE
        before = [row for row in before if row["key"] not in gone or row["key"] in steps]
        keys = [row["key"] for row in before]
        assert [key for key in steps if key in keys or key not in SINCE] == keys
        for row in before:
            if has_begun or row.get("is_changed"):
                names = KEPT if has_begun else CHANGED
                row["every_h"] = {16.0: 24.0, 8.0: 12.0}.get(row["every_h"], row["every_h"])
                assert {n: steps[row["key"]][n] for n in names} == {n: row[n] for n in names}
                assert (steps[row["key"]]["place"] or "") == row["place"]
        assert found["put_in"] == has_begun


def _begun(was, plan):
    """What of a plan has happened already."""
    begun = {(str(e["dish_id"]), e["step_key"]) for e in table(was, "feasts_event")}
    return [each for each in plan["steps"] if (each[0], each[1]) in begun]


def test_what_has_begun_is_planned_as_it_was(migrated):
    was, now, _ = migrated
    if "plans" in was:
        for feast, plan in now["plans"].items():
            # the times at the heat are those of the model now: what has begun is as it was
            assert plan["status"] == was["plans"][feast]["status"]
            assert _begun(was, plan) == _begun(was, was["plans"][feast])
        assert [route["name"] for route in now["routes"]] == ["Duck, our way"]
        steps = [DishStep(**step) for step in now["routes"][0]["steps"]]
        assert {step.id for step in steps} > {"baste", "roast"}
        assert {step.uses for step in steps} == {1.0}  # the room is that of the dish that takes it


def test_every_page_answers_with_the_masses_of_then_and_the_kitchen_moves(migrated):
    was, now, _ = migrated
    assert now["unanswered"] == []
    assert now["is_moved_whole"]
    for sheet in table(was, "feasts_weighsheet"):
        page = re.sub(r"(?<=\d)\s(?=\d)", "", now["sheets"][str(sheet["dish_id"])])
        for line in json.loads(sheet["answer"])["lines"]:
            assert any(f"{line['grams']:.{digits}f}" in page for digits in (0, 1, 2)), line
