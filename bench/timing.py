"""How long a request takes at the server, and how many queries it asks: a line of a table."""

import statistics
import time

from django.db import connection
from django.test.utils import CaptureQueriesContext

HEAD = f"{'what':24}{'queries':>8}{'median ms':>11}{'90 % ms':>9}{'first ms':>10}"


def measure(name, ask, repeats):
    """Ask so many times, and print a line; queries are those of the first."""
    with CaptureQueriesContext(connection) as queries:
        ask()
    count, lasted = len(queries), []
    for _ in range(repeats):
        begin = time.perf_counter()
        ask()
        lasted.append(1000 * (time.perf_counter() - begin))
    rest = sorted(lasted[1:])
    print(f"{name:24}{count:>8}{statistics.median(rest):>11.1f}"
          f"{rest[int(0.9 * len(rest))]:>9.1f}{lasted[0]:>10.1f}", flush=True)  # fmt: skip
