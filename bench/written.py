"""Random recipes in dishes against the reckoning by hand of the tests: masses, nitrite, proposals.

Usage: bin/bench written [COUNT [SEED]]. Prints every case in which they differ.
"""

import random
import sys

from tests.reference.written import disagreement


def main() -> None:
    """Try so many random recipes, and print what differs."""
    count = int(sys.argv[2]) if len(sys.argv) > 2 else 2000
    first = int(sys.argv[3]) if len(sys.argv) > 3 else random.randrange(10**9)
    differ = 0
    for seed in range(first, first + count):
        found, document = disagreement(random.Random(seed))
        if found is not None:
            differ += 1
            print(f"seed {seed}: {found}\n  {document}", flush=True)
    print(f"{count} recipes from seed {first}: {count - differ} agree, {differ} differ")


if __name__ == "__main__":
    main()
