"""Whoever works plans out beside the pages."""

import subprocess
import sys
import threading

from django.conf import settings

PAUSE_S = 0.5
"""Between a worker that ended and the next [s]."""


class Worker:
    """Whoever works beside the pages; one that ends is followed by another."""

    def __init__(self) -> None:
        self._is_over = threading.Event()
        self._process: subprocess.Popen[bytes] | None = None

    def keep(self) -> None:
        """Start a worker, and another whenever one ends, until all is over."""
        while not self._is_over.is_set():
            self._process = subprocess.Popen(  # noqa: S603 - this same program
                [sys.executable, str(settings.ROOT / "manage.py"), "work"], stdin=subprocess.PIPE
            )
            self._process.wait()
            self._is_over.wait(PAUSE_S)

    @property
    def pid(self) -> int:
        """The process that works now; 0 for none."""
        return self._process.pid if self._process is not None else 0

    def stop(self) -> None:
        """Let the worker go home."""
        self._is_over.set()
        if self._process is not None:
            self._process.terminate()


def warm_up() -> None:
    """Import the solver and work out the tables of the model before somebody waits for them."""
    import pantry_core.plan.solve  # noqa: F401, PLC0415
    from pantry_core.salt.ready import work_out_tables  # noqa: PLC0415

    work_out_tables()
