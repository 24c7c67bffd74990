"""20,000 random documents of `weigh` and `check` against the reckoning of the tests."""

import random
import time

from tests.reference import test_check, test_weigh
from tests.reference.reckoning import near_a_limit, random_document

DOCUMENTS = 20_000


def main() -> None:
    """Print how many were off, and the first of them."""
    seed = int(time.time())
    dice = random.Random(seed)
    off = []
    for at in range(DOCUMENTS):
        if at % 3 == 0:
            document = test_check.random_check(dice)
            found = test_check.disagreement(document)
        else:
            document = random_document(dice) if at % 3 == 1 else near_a_limit(dice)
            found = test_weigh.disagreement(document)
        if found is not None:
            off.append((found, document))
    print(f"seed {seed}: {DOCUMENTS} documents, {len(off)} off")
    for found, document in off[:5]:
        print(found, document)


if __name__ == "__main__":
    main()
