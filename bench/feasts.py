"""300 random feasts of many dishes against the checks of the tests, before and after facts.

Run it with `bin/bench feasts`; it takes a quarter of an hour.
"""

import random
import statistics
import sys
import time
from collections import Counter

from tests.reference.feast_rules import broken_rules_of, random_whole_feast, with_facts

from pantry_core.formats.operations import plan_document


def main(feasts: int) -> None:
    """Print what was measured."""
    dice = random.Random(300)
    found: Counter[str] = Counter()
    times: dict[str, list[float]] = {"with a plan": [], "without": []}
    for _ in range(feasts):
        document = random_whole_feast(dice)
        begin = time.perf_counter()
        answer = plan_document(document)
        took = time.perf_counter() - begin
        found[answer["status"]] += 1
        if answer["status"] == "infeasible":
            times["without"].append(took)
            found["with a remedy"] += bool(answer["remedies"])
            found["broken remedies"] += sum(
                bool(broken_rules_of(each["input"], each["plan"])) for each in answer["remedies"]
            )
            continue
        times["with a plan"].append(took)
        found["broken"] += bool(broken_rules_of(document, answer))
        later = with_facts(document, answer, dice)
        again = plan_document(later)
        found["broken later"] += again["status"] == "infeasible" or bool(
            broken_rules_of(later, again)
        )
    print(dict(found))
    for name, taken in times.items():
        print(f"{name}: median {statistics.median(taken):.2f} s, longest {max(taken):.1f} s")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 and sys.argv[1].isdigit() else 300)
