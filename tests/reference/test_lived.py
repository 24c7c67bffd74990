"""Histories of random dishes, judged by a second reckoning, and the power of that reckoning.

`bin/bench histories` tries many more.
"""

import random

import pytest

from pantry_core.judging.questions import QUESTIONS
from tests.reference.asking import rules_asked
from tests.reference.at_the_limit import cases, wrong
from tests.reference.histories import disagreement
from tests.reference.lived import TooNear

CASES = 50


def test_random_histories_agree_with_a_second_reckoning():
    near = 0
    for seed in range(CASES):
        try:
            found, document = disagreement(random.Random(seed))
        except TooNear:
            near += 1
            continue
        assert found is None, (seed, found, document)
    assert near < 0.3 * CASES


LIMITS = list({rule.id: rule for each in QUESTIONS for rule in each.limits if rule.value}.values())
AT_THE_LIMIT = list(cases())


@pytest.mark.parametrize("case", AT_THE_LIMIT, ids=lambda case: case[0])
def test_dishes_within_a_limit_and_beyond_it(case):
    assert wrong(case) is None, case[-1]


@pytest.fixture(scope="module")
def readers():
    """The cases that ask for each limit, by its id."""
    return rules_asked(AT_THE_LIMIT, wrong)


@pytest.mark.parametrize("rule", LIMITS, ids=lambda rule: rule.id)
@pytest.mark.parametrize("factor", [0.9, 1.1])
def test_each_limit_of_a_question_a_tenth_off_is_caught(rule, factor, readers):
    assert readers.see(rule, factor, wrong), f"{rule.id} goes unseen"
