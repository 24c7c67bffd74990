"""What is there to be translated: the texts of the templates, of the web and of the core."""

import ast
import re
from collections.abc import Container, Iterator
from functools import cache
from pathlib import Path

from django.template.base import Lexer, TokenType

SOURCE = Path(__file__).resolve().parents[2]
"""Where both packages lie."""

Message = str | tuple[str, str]
"""A text, or one for one thing and one for several."""
PLURAL = "\0"

MARKS = frozenset(("_", "gettext", "gettext_lazy", "say", "tell"))
"""Functions whose first text is a message."""
UNSAID = frozenset((
    "compile", "Source", "wrong_name", "Literal", "sub", "match", "fullmatch", "search", "within",
))  # fmt: skip
"""Calls of the core whose texts no page shows: patterns, sources, names of fields."""

_IN_TAG = re.compile(r"""_\(("[^"]*"|'[^']*')\)""")
_TRANSLATE = re.compile(r"""trans(?:late)?\s+("[^"]*"|'[^']*')""")
_SENTENCE = re.compile(r"[A-Za-z].* .*[A-Za-z]|[A-Za-z]{2,}.* |^[A-Z][a-z-]+$")
_READS = re.compile(r"\(\?|\\|\|")
"""What a pattern has and no sentence, where the core reads what cooks write."""


@cache
def messages() -> dict[Message, list[tuple[str, int]]]:
    """Every text that can be translated, with the places where it stands (file, line)."""
    found: dict[Message, list[tuple[str, int]]] = {}
    for path in sorted(SOURCE.rglob("*")):
        where = path.relative_to(SOURCE).as_posix()
        for line, text in _of(path, where):
            found.setdefault(text, []).append((where, line))
    return found


def _of(path: Path, where: str) -> Iterator[tuple[int, Message]]:
    if path.suffix == ".html":
        yield from _of_template(path.read_text())
    elif path.suffix == ".py" and "/migrations/" not in where:
        is_core = where.startswith("pantry_core/")
        yield from _of_module(ast.parse(path.read_text()), is_core=is_core)


def _of_template(source: str) -> Iterator[tuple[int, Message]]:
    block: list[str] | None = None
    for token in Lexer(source).tokenize():
        if token.token_type == TokenType.BLOCK and token.contents.startswith("blocktrans"):
            block = []
        elif token.token_type == TokenType.BLOCK and token.contents.startswith("endblocktrans"):
            singular, _, plural = "".join(block or ()).partition(PLURAL)
            yield token.lineno or 0, (singular, plural) if plural else singular
            block = None
        elif block is not None and token.contents == "plural":
            block.append(PLURAL)
        elif block is not None:
            is_hole = token.token_type == TokenType.VAR
            text = token.contents.replace("%", "%%")
            block.append(f"%({token.contents})s" if is_hole else text)
        elif token.token_type in (TokenType.BLOCK, TokenType.VAR):
            for each in (_TRANSLATE, _IN_TAG):
                for quoted in each.findall(token.contents):
                    yield token.lineno or 0, ast.literal_eval(quoted).replace("%", "%%")


def _of_module(tree: ast.Module, *, is_core: bool) -> Iterator[tuple[int, str]]:
    calls = [node for node in ast.walk(tree) if isinstance(node, ast.Call)]
    marked = [node.args[0] for node in calls if _called(node) in MARKS and node.args]
    for node in marked:
        yield from _texts_in(node)
    if is_core:
        unsaid = {each for node in calls if _called(node) in UNSAID for each in ast.walk(node)}
        unsaid |= _docstrings(tree).union(*(ast.walk(node) for node in marked))
        said = (
            each
            for each in _texts_in(tree, unsaid)
            if _SENTENCE.search(each[1]) and not _READS.search(each[1])
        )
        named = (
            node.args[1] for node in calls if _called(node)[:1].isupper() and len(node.args) > 1
        )
        yield from said
        yield from (each for node in named if isinstance(node, ast.Constant)
                    for each in _texts_in(node) if each[1])  # fmt: skip


def _texts_in(tree: ast.AST, unsaid: Container[ast.AST] = ()) -> Iterator[tuple[int, str]]:
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and node not in unsaid:
            yield node.lineno, node.value


def _docstrings(tree: ast.Module) -> set[ast.AST]:
    """What stands alone: it is said to who reads the code."""
    return {node.value for node in ast.walk(tree) if isinstance(node, ast.Expr)}


def _called(node: ast.AST) -> str:
    if not isinstance(node, ast.Call):
        return ""
    named = node.func
    return getattr(named, "id", "") or getattr(named, "attr", "")
