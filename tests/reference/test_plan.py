"""`plan` against the sentences of its document and against an exact table of all plans."""

import random

from pantry_core.formats.operations import plan_document
from tests.reference.plan_rules import Feast, best_by_table, broken_rules, random_feast

FEASTS = 40


def test_random_feasts_keep_every_rule_and_are_the_best():
    dice = random.Random(20270322)
    found = {"optimal": 0, "infeasible": 0}
    for _ in range(FEASTS):
        document = random_feast(dice)
        answer, best = plan_document(document), best_by_table(document)
        found[answer["status"]] += 1
        if best is None:
            assert answer["status"] == "infeasible", document
            assert answer["why"], document
            continue
        assert answer["status"] == "optimal", document
        assert broken_rules(document, answer) == [], document
        feast = Feast(document)
        lengths = [
            feast.seconds(each["end"]) - feast.seconds(each["start"]) for each in answer["steps"]
        ]
        deviations = map(feast.deviation, feast.dish["steps"], lengths)
        assert (sum(deviations), feast.seconds(answer["steps"][0]["start"])) == best, document
    assert min(found.values()) >= 5, "the feasts are too easy or too hard to tell anything"
