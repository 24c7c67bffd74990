"""Mutations of the web's actions and views, chosen at random by a seed, and whether tests fail.

Usage: bin/bench mutants [SEED [COUNT]]. Each mutation is made in a copy of the checkout, in which
the tests of the web run until the first of them fails.
"""

import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parents[1]
LEFT_OUT = shutil.ignore_patterns(".git", ".venv", "var", ".mypy_cache", ".ruff_cache", "docs")
OTHER = {
    ast.Eq: ast.NotEq, ast.NotEq: ast.Eq, ast.Lt: ast.GtE, ast.GtE: ast.Lt, ast.Gt: ast.LtE,
    ast.LtE: ast.Gt, ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In,
    ast.And: ast.Or, ast.Or: ast.And, ast.Add: ast.Sub, ast.Sub: ast.Add,
}  # fmt: skip


def sources() -> list[Path]:
    """The modules that are mutated."""
    web = ROOT / "src" / "pantry_web"
    return sorted(
        path for path in (*web.glob("*/actions/*.py"), *web.glob("*/*views.py")) if path.read_text()
    )


def mutations(tree: ast.Module) -> Iterator[tuple[ast.AST, str, object]]:
    """Every place that can be changed: the node, its field, and the other value."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Compare) and type(node.ops[0]) in OTHER:
            yield node, "ops", [OTHER[type(node.ops[0])](), *node.ops[1:]]
        elif isinstance(node, (ast.BoolOp, ast.BinOp)) and type(node.op) in OTHER:
            yield node, "op", OTHER[type(node.op)]()
        elif isinstance(node, ast.If):
            yield node, "test", ast.UnaryOp(ast.Not(), node.test)
        elif isinstance(node, ast.Constant) and type(node.value) in (bool, int):
            yield node, "value", not node.value if isinstance(node.value, bool) else node.value + 1
        elif isinstance(node, (ast.Return, ast.Expr)) and isinstance(node.value, ast.Call):
            yield node, "value", ast.Constant(None)


def mutated(path: Path, at: int) -> tuple[str, str]:
    """The text of a module with its mutation of that number, and the line that it changes."""
    text = path.read_text()
    tree = ast.parse(text)
    node, field, value = list(mutations(tree))[at]
    setattr(node, field, value)
    line = getattr(node, "lineno", 0)
    return ast.unparse(ast.fix_missing_locations(tree)), (
        f"{path.relative_to(ROOT)}:{line}: {field} of {text.splitlines()[line - 1].strip()}"
    )


def is_caught(copy: Path) -> bool:
    """Whether a test of the web fails in the copy."""
    with tempfile.TemporaryDirectory() as data:
        environment = os.environ | {"PYTHONPATH": f"{copy}/src:{copy}", "PANTRY_DATA": data}
        command = [sys.executable, "-m", "pytest", "tests/web", "-x", "-n", "2"]
        done = subprocess.run(
            command, cwd=copy, env=environment, capture_output=True, text=True, check=False
        )
    return done.returncode != 0


def main() -> None:
    """Print each mutation with its end, then how many were caught."""
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    count = int(sys.argv[3]) if len(sys.argv) > 3 else 20
    places = [(path, at) for path in sources() for at in range(len(list(mutations(_tree(path)))))]
    chosen = random.Random(seed).sample(places, count)
    caught = 0
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder) / "checkout"
        shutil.copytree(ROOT, copy, ignore=LEFT_OUT, symlinks=True)
        shutil.copytree(ROOT / "docs", copy / "docs", ignore=shutil.ignore_patterns("*.png"))
        for path, at in chosen:
            text, what = mutated(path, at)
            there = copy / path.relative_to(ROOT)
            there.write_text(text)
            is_seen = is_caught(copy)
            there.write_text(path.read_text())
            caught += is_seen
            print("caught  " if is_seen else "survived", what, flush=True)
    print(f"seed {seed}: {caught} of {count} caught")


def _tree(path: Path) -> ast.Module:
    return ast.parse(path.read_text())


if __name__ == "__main__":
    main()
