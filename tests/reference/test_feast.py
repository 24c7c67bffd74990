"""`plan` of whole feasts against every sentence of its document, and after some of it happened."""

import random
import subprocess
import sys
from collections import Counter
from pathlib import Path

from pantry_core.formats.operations import plan_document
from tests.reference.feast_rules import (
    broken_rules_of,
    random_whole_feast,
    with_facts,
    with_hours,
)

FEASTS, FEASTS_WITH_HOURS = 14, 9
ROOT = Path(__file__).parents[2]


def test_random_whole_feasts_keep_every_rule_before_and_after_something_happened():
    dice = random.Random(5)
    _keep_every_rule(dice, [random_whole_feast(dice) for _ in range(FEASTS)])


def test_random_feasts_with_hours_trips_and_waits_keep_every_rule():
    dice = random.Random(14)
    feasts = [with_hours(dice, random_whole_feast(dice)) for _ in range(FEASTS_WITH_HOURS)]
    _keep_every_rule(dice, feasts)


def _keep_every_rule(dice, documents):
    found = Counter()
    for document in documents:
        answer = plan_document(document)
        found[answer["status"]] += 1
        if answer["status"] == "infeasible":
            assert answer["why"], document
            found["helped"] += bool(answer["remedies"])
            for remedy in answer["remedies"]:
                assert broken_rules_of(remedy["input"], remedy["plan"]) == [], remedy["text"]
                _changes_what_it_says(document, remedy)
            continue
        assert broken_rules_of(document, answer) == [], document
        later = with_facts(document, answer, dice)
        again = plan_document(later)
        assert again["status"] != "infeasible", later
        assert broken_rules_of(later, again) == [], later
    assert found["unsettled"] == 0
    assert found["helped"] >= 0.9 * found["infeasible"]
    enough = len(documents) // 5
    assert min(found["optimal"], found["infeasible"]) >= enough, "too easy or too hard"


WORDS = {
    "serve_at": ("Eat on",), "cooks": ("pair of hands",), "places": ("Make room",),
    "day": ("Get up at", "Stay up until", "Work from", "Work until"), "away": ("Be at home",),
    "dishes": ("Serve ", "Leave out", "Unlock", "Mind how long it keeps", "without waiting"),
    "open": ("Find a shop",),
}  # fmt: skip


def _changes_what_it_says(document, remedy):
    """Each kind of change has its words in the text, and nothing else differs."""
    changed = remedy["input"]
    for name in changed.keys() | document.keys():
        is_said = any(words in remedy["text"] for words in WORDS.get(name, ()))
        assert (changed.get(name) != document.get(name)) == is_said, (name, remedy["text"])


def test_the_same_feast_gives_the_same_plan_in_three_processes():
    script = (
        "import json, random, sys; sys.path.insert(0, '.')\n"
        "from tests.reference.feast_rules import random_whole_feast, with_hours\n"
        "from pantry_core.formats.operations import plan_document\n"
        "dice = random.Random(8)\n"
        "plain = [random_whole_feast(dice) for _ in range(2)]\n"
        "for each in (*plain, *(with_hours(dice, each) for each in plain)):\n"
        "    print(json.dumps(plan_document(each)))\n"
    )
    told = {
        subprocess.run(
            [sys.executable, "-c", script], cwd=ROOT, check=True, capture_output=True, text=True
        ).stdout
        for _ in range(3)
    }
    assert len(told) == 1
    assert '"status"' in told.pop()
