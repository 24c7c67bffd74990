"""The list of terms: one word for one thing, and every name in it is one of the core's."""

import importlib
import re
from pathlib import Path

import pytest

ROWS = [
    [cell.strip() for cell in line.strip(" |\n").split(" | ")]
    for line in (Path(__file__).parents[2] / "docs" / "terms.md").read_text().splitlines()
    if line.startswith("| ") and not line.startswith("| term")
]


def named(path):
    """What a dotted name of the core stands for: a module's member, or a field of a class."""
    module, *fields = re.split(r"\.(?=[A-Z]|[a-z_]+$)", path)
    found = importlib.import_module(f"pantry_core.{module}")
    for field in fields:
        known = {*getattr(found, "__annotations__", ()), *getattr(found, "model_fields", ())}
        found = getattr(found, field, None) or (field if field in known else None)
    return found


def test_one_row_for_one_term():
    terms = [term for row in ROWS for term in row[0].split(", ")]
    assert len(terms) > 35
    assert len(terms) == len(set(terms))
    assert all(len(row) == 4 and row[1] for row in ROWS)


@pytest.mark.parametrize("row", ROWS, ids=lambda row: row[0])
def test_every_name_is_one_of_the_cores(row):
    names = re.findall(r"`([^`]+)`", row[2])
    assert names
    for name in names:
        assert named(name) is not None, name
