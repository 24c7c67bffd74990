"""Which rules are asked for their value while something is worked out, and one rule a tenth off."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

import pytest

from pantry_core.rules.rule import Rule


@dataclass
class Readers:
    """The cases in which each rule is asked for its value, by their numbers and its id."""

    cases: list[Any]
    by_rule: dict[str, list[int]]
    caught_last: int = 0

    def see(self, rule: Rule, factor: float, catches: Callable[[Any], object]) -> bool:
        """Whether a case catches a rule that is so many times what it is.

        Neighbours catch the same: the one that caught the rule before is tried first.
        """
        with off_by(rule, factor):
            for n in sorted(self.by_rule[rule.id], key=lambda n: (n < self.caught_last, n)):
                if catches(self.cases[n]):
                    self.caught_last = n
                    return True
        return False


def rules_asked(cases: Iterable[Any], work_out: Callable[[Any], object]) -> Readers:
    """The cases in which each rule is asked for its value while they are worked out."""
    found: dict[str, list[int]] = defaultdict(list)
    listed = list(cases)
    with pytest.MonkeyPatch.context() as patch:
        for n, case in enumerate(listed):
            asked: set[str] = set()

            def told(rule, name, asked=asked):
                if name == "value":
                    asked.add(object.__getattribute__(rule, "id"))
                return object.__getattribute__(rule, name)

            patch.setattr(Rule, "__getattribute__", told)
            work_out(case)
            for each in asked:
                found[each].append(n)
    return Readers(listed, found)


@contextmanager
def off_by(rule: Rule, factor: float) -> Iterator[None]:
    """A rule whose value is so many times what it is."""
    right = rule.value
    object.__setattr__(rule, "value", right * factor)
    try:
        yield
    finally:
        object.__setattr__(rule, "value", right)
