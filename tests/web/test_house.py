"""The order of the house: who writes, how large a package may be, what reckons where."""

import ast
from pathlib import Path

import pytest

WEB = Path(__file__).parents[2] / "src" / "pantry_web"
WRITES = {"save", "create", "bulk_create", "update", "bulk_update", "delete", "get_or_create",
          "update_or_create"}  # fmt: skip
WRITERS = {"actions", "migrations", "background", "demo"}
ALLOWED = {
    "planning/answers.py",  # answers can be worked out again: a store, nothing that is kept
    "feasts/models.py",  # what may not be written refuses it there
    "kitchens/views.py",  # Django's own form makes the first cook
    "middleware.py",
}
PACKAGES = sorted({path.parent for path in WEB.rglob("*.py") if "migrations" not in path.parts})


def written(tree):
    """Calls that write to the database, as far as their names tell."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
            owner = ast.unparse(node.func.value)
            is_set = node.func.attr == "update" and "objects" not in owner
            if node.func.attr in WRITES and not is_set:
                yield f"{owner}.{node.func.attr}"


@pytest.mark.parametrize(
    "path", sorted(WEB.rglob("*.py")), ids=lambda path: str(path.relative_to(WEB))
)
def test_nothing_writes_but_actions(path):
    within = path.relative_to(WEB)
    if WRITERS & set(within.parts) or str(within) in ALLOWED:
        return
    assert list(written(ast.parse(path.read_text()))) == []


@pytest.mark.parametrize("package", PACKAGES, ids=lambda path: str(path.relative_to(WEB)))
def test_packages_are_small_enough_to_know(package):
    modules = [path for path in package.glob("*.py") if path.name != "__init__.py"]
    assert len(modules) <= 15
