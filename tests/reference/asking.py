"""Which rules are asked for their value while something is worked out, and one rule a tenth off."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from typing import Any

import pytest

from pantry_core.rules.rule import Rule


def rules_asked(cases: Iterable[Any], work_out: Callable[[Any], object]) -> dict[str, list[Any]]:
    """The cases in which each rule is asked for its value, by its id."""
    found: dict[str, list[Any]] = defaultdict(list)
    with pytest.MonkeyPatch.context() as patch:
        for case in cases:
            asked: set[str] = set()

            def told(rule, name, asked=asked):
                if name == "value":
                    asked.add(object.__getattribute__(rule, "id"))
                return object.__getattribute__(rule, name)

            patch.setattr(Rule, "__getattribute__", told)
            work_out(case)
            for each in asked:
                found[each].append(case)
    return found


@contextmanager
def off_by(rule: Rule, factor: float) -> Iterator[None]:
    """A rule whose value is so many times what it is."""
    right = rule.value
    object.__setattr__(rule, "value", right * factor)
    try:
        yield
    finally:
        object.__setattr__(rule, "value", right)
