"""The order of the house: who writes, how large a package may be, what reckons where."""

import ast
import re
from pathlib import Path

WEB = Path(__file__).parents[2] / "src" / "pantry_web"
WRITES = {"save", "create", "bulk_create", "update", "bulk_update", "delete", "get_or_create",
          "update_or_create"}  # fmt: skip
WRITERS = {"actions", "migrations", "background", "demo", "presses"}
ALLOWED = {
    "planning/answers.py",  # answers can be worked out again: a store, nothing that is kept
    "feasts/models.py",  # what may not be written refuses it there
    "ledger/pictures.py",  # a photo is written into memory
    "members/throttle.py",  # wrong passwords are counted, which nobody keeps
    "members/views.py",  # Django's own form makes the first cook
    "middleware.py",
}
PARTS_OF_A_DEED = {"record"}  # of a press that writes more than one thing down


def written(tree):
    """Calls that write to the database, as far as their names tell."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
            owner = ast.unparse(node.func.value)
            is_set = node.func.attr == "update" and "objects" not in owner
            if node.func.attr in WRITES and not is_set:
                yield f"{owner}.{node.func.attr}"


def test_nothing_writes_but_actions():
    for path in WEB.rglob("*.py"):
        within = path.relative_to(WEB)
        if not WRITERS & set(within.parts) and str(within) not in ALLOWED:
            assert list(written(ast.parse(path.read_text()))) == [], within


def test_packages_are_small_enough_to_know():
    for package in {path.parent for path in WEB.rglob("*.py") if "migrations" not in path.parts}:
        modules = [path for path in package.glob("*.py") if path.name != "__init__.py"]
        assert len(modules) <= 15, package


def test_whatever_writes_writes_once():
    """Every deed that another module can call keeps the key of its form in one transaction."""
    for path in WEB.glob("*/actions/**/*.py"):
        for deed in ast.parse(path.read_text()).body:
            is_deed = isinstance(deed, ast.FunctionDef) and deed.name[0] != "_"
            if is_deed and list(written(deed)) and deed.name not in PARTS_OF_A_DEED:
                text = ast.unparse(deed)
                keeps = ("@once()", "with once()", "with as_seen(")
                assert any(words in text for words in keeps), (path, deed.name)


def test_every_form_that_is_posted_carries_a_key():
    for page in WEB.rglob("*.html"):
        for form in re.findall(r"<form[^>]*method=.post.*?</form>", page.read_text(), re.DOTALL):
            assert (
                form.count("{% once %}") == 1
                or "_step_fields.html" in form
                or "_feast_form.html" in form
                or "data-asks" in form  # what asks for a plan may be sent again
            ), page.name
