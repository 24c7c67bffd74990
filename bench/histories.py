"""Random dishes, edited, planned and under way, judged twice: `bin/bench histories [COUNT] [SEED]`.

Prints how many agree, how many lie so near to a limit that the models' own error decides, and every
one on which the core and the second reckoning differ, with its seed.
"""

import random
import sys
import time
from concurrent.futures import ProcessPoolExecutor

from tests.reference.histories import disagreement
from tests.reference.lived import TooNear

COUNT, SEED, AT_ONCE = 20_000, 100_000, 50


def told(seed: int) -> tuple[int, str | None]:
    """What one case comes to: None where it agrees, "near" at a limit, else the difference."""
    try:
        found, _ = disagreement(random.Random(seed))
    except TooNear:
        return seed, "near"
    return seed, found


def main() -> None:
    """Try them on all processors."""
    count = int(sys.argv[2]) if len(sys.argv) > 2 else COUNT
    first = int(sys.argv[3]) if len(sys.argv) > 3 else SEED
    begun, near, differ = time.perf_counter(), 0, 0
    with ProcessPoolExecutor() as pool:
        for seed, found in pool.map(told, range(first, first + count), chunksize=AT_ONCE):
            near += found == "near"
            if found not in (None, "near"):
                differ += 1
                print(seed, found, flush=True)
    seconds = time.perf_counter() - begun
    agree = count - near - differ
    print(f"{count} cases: {agree} agree, {near} near a limit, {differ} differ; {seconds:.0f} s")


if __name__ == "__main__":
    main()
