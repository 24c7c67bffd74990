"""Documents of `weigh` and of `dish`, and 300 random feasts against the checks of the tests.

Run it with `bin/bench core`.
"""

import json
import random
import statistics
import time

from tests.core.dishes import DISHES
from tests.reference.plan_rules import best_by_table, broken_rules, random_feast
from tests.reference.reckoning import random_document

from pantry_core.formats.operations import answer_text, dish_document, plan_document

DOCUMENTS, FEASTS, ROUNDS = 5000, 300, 20


def main() -> None:
    """Print what was measured."""
    dice = random.Random(1)
    lines = [json.dumps(random_document(dice)) for _ in range(DOCUMENTS)]
    begin = time.perf_counter()
    for line in lines:
        answer_text("weigh", line)
    print(f"weigh: {DOCUMENTS / (time.perf_counter() - begin):.0f} documents a second")
    _dishes(dice)
    plan_document(random_feast(random.Random(2)))  # the solver is imported here
    times, broken, infeasible = [], 0, 0
    for _ in range(FEASTS):
        document = random_feast(dice)
        begin = time.perf_counter()
        answer = plan_document(document)
        times.append(time.perf_counter() - begin)
        infeasible += answer["status"] == "infeasible"
        possible = best_by_table(document) is not None
        if possible != (answer["status"] == "optimal") or (
            possible and broken_rules(document, answer)
        ):
            broken += 1
    print(
        f"plan: {FEASTS} feasts, {infeasible} of them impossible, {broken} wrong; "
        f"median {statistics.median(times):.3f} s, longest {max(times):.3f} s"
    )


def _dishes(dice: random.Random) -> None:
    """The dishes of the tests, each a little heavier or lighter every time."""
    times = []
    for at in range(ROUNDS + 1):
        for _, document, *_ in DISHES:
            asked = dict(document)
            if "piece" in asked:
                mass_g = asked["piece"]["mass_g"] * dice.uniform(0.98, 1.02)
                asked["piece"] = asked["piece"] | {"mass_g": mass_g}
            begin = time.perf_counter()
            dish_document(asked)
            if at:  # tables are made in the first round
                times.append(1000 * (time.perf_counter() - begin))
    late = sorted(times)[int(0.95 * len(times))]
    usual = statistics.median(times)
    print(f"dish: {len(times)} documents, median {usual:.1f} ms, 95 % {late:.1f} ms")


if __name__ == "__main__":
    main()
