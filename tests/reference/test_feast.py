"""`plan` of whole feasts against every sentence of its document, and after some of it happened."""

import json
import os
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

FEASTS, FEASTS_WITH_HOURS = 6, 4
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
    "serve_at": ("Eat on",), "cooks": ("Get a second cook", "Get one more cook"),
    "places": ("Make room",),
    "day": ("Get up at", "Stay up until", "Work from", "Work until"), "away": ("Be at home",),
    "dishes": ("Serve ", "Leave out", "Unlock", "Mind how long it keeps", "without waiting",
               "°C instead of"),
    "open": ("Find a shop",),
}  # fmt: skip


def _changes_what_it_says(document, remedy):
    """Each kind of change has its words in the text, and nothing else differs."""
    changed = remedy["input"]
    for name in changed.keys() | document.keys():
        is_said = any(words in remedy["text"] for words in WORDS.get(name, ()))
        assert (changed.get(name) != document.get(name)) == is_said, (name, remedy["text"])


def test_the_same_feast_gives_the_same_plan_in_three_processes(tmp_path):
    """In this one, and in two whose sets and dictionaries are in another order."""
    dice = random.Random(8)
    plain = [random_whole_feast(dice) for _ in range(2)]
    feasts = [*plain, *(with_hours(dice, each) for each in plain)]
    file = tmp_path / "feasts.jsonl"
    file.write_text("\n".join(map(json.dumps, feasts)))
    command = [sys.executable, "-m", "pantry_core", "plan", "--lines", str(file)]
    processes = [
        subprocess.Popen(command, cwd=ROOT, stdout=subprocess.PIPE, text=True, env=os.environ | {
            "PYTHONPATH": "src", "PYTHONHASHSEED": seed,
        }) for seed in ("1", "2")
    ]  # fmt: skip
    ours = [plan_document(each) for each in feasts]
    for process in processes:
        answers, _ = process.communicate()
        assert [json.loads(line) for line in answers.splitlines()] == ours
