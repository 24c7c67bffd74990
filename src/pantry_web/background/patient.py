"""Writing when the database is busy: what may be left undone is not waited for."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager

from django.db import OperationalError, connection

WAIT_MS, USUAL_MS = 200, 10_000


@contextmanager
def _not_waiting() -> Iterator[None]:
    connection.ensure_connection()
    connection.connection.execute(f"PRAGMA busy_timeout = {WAIT_MS}")
    try:
        yield
    finally:
        connection.connection.execute(f"PRAGMA busy_timeout = {USUAL_MS}")


def write_if_free(write: Callable[[], object]) -> bool:
    """Write what can be worked out again, unless the database is busy; whether it was written."""
    try:
        with _not_waiting():
            write()
    except OperationalError:
        return False
    return True
