"""300 random feasts with hours, trips and waits, and 300 without, against the checks of the tests.

Each before and after something of it happened. Run it with `bin/bench feasts`; it takes half an
hour, with `FEASTS=50` a part of it.
"""

import os
import random
import statistics
import time
from collections import Counter
from typing import Any

from tests.reference.feast_rules import (
    broken_rules_of,
    random_whole_feast,
    with_facts,
    with_hours,
)

from pantry_core.formats.operations import plan_document


def main(feasts: int) -> None:
    """Print what was measured."""
    dice = random.Random(300)
    plain = [random_whole_feast(dice) for _ in range(feasts)]
    _measured("with hours", dice, [with_hours(dice, each) for each in plain])
    _measured("without", dice, plain)


def _measured(name: str, dice: random.Random, documents: list[Any]) -> None:
    found: Counter[str] = Counter()
    times: dict[str, list[float]] = {"with a plan": [], "without": []}
    for document in documents:
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
    print(f"{len(documents)} feasts {name}: {dict(found)}")
    for kind, taken in times.items():
        print(f"  {kind}: median {statistics.median(taken):.2f} s, longest {max(taken):.1f} s")


if __name__ == "__main__":
    main(int(os.environ.get("FEASTS", "300")))
