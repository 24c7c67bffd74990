"""Every rule there is, for the pages that list them."""

import importlib
import pkgutil
from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from functools import cache
from types import ModuleType

import pantry_core
from pantry_core.rules.rule import Rule

FIRST = "pantry_core.rules."


def rules_in(*modules: ModuleType) -> tuple[Rule, ...]:
    """The rules of some modules, each once, in the order they are written.

    Parameters: modules that hold rules, or tables and records of rules.
    Returns: the rules.
    """
    found = (rule for module in modules for held in vars(module).values() for rule in _held(held))
    return tuple({rule.id: rule for rule in found}.values())


@cache
def all_rules() -> tuple[Rule, ...]:
    """Every rule in the core, collected once from all of its modules, those of `rules` first."""
    walked = pkgutil.walk_packages(pantry_core.__path__, "pantry_core.")
    names = sorted(
        (each.name for each in walked), key=lambda name: (not name.startswith(FIRST), name)
    )
    return rules_in(*(importlib.import_module(name) for name in names))


def table(rules: tuple[Rule, ...]) -> str:
    """The rules as a table in Markdown."""
    lines = [f"| {rule.id} | {rule.value:g} | {rule.unit} | {rule.basis} |" for rule in rules]
    return "\n".join(("| rule | value | unit | basis |", "|---|---|---|---|", *lines, ""))


def _held(held: object) -> Iterator[Rule]:
    """The rules in an object: itself, in a record, in a table, however deep."""
    if isinstance(held, Rule):
        yield held
    elif isinstance(held, type):
        return
    elif is_dataclass(held):
        for field in fields(held):
            yield from _held(getattr(held, field.name))
    elif isinstance(held, dict):
        for each in held.values():
            yield from _held(each)
    elif isinstance(held, list | tuple | frozenset):
        for each in held:
            yield from _held(each)
