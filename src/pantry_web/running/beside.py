"""Processes that work beside the server and end with it."""

import os
import subprocess
import sys
import threading
from collections.abc import Sequence

from django.conf import settings

PAUSE_S = 0.5
"""Between a process that ended and the next [s]."""


class Beside:
    """A command of this program that runs beside the server; one that ends is followed by another.

    Parameters: command, its name and what it takes; files, open ones that it inherits.
    """

    def __init__(self, *command: str, files: Sequence[int] = ()) -> None:
        self._command, self._files = command, files
        self._is_over = threading.Event()
        self._process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Keep it from now on."""
        threading.Thread(target=self._keep, daemon=True).start()

    def _keep(self) -> None:
        """Start it, and again whenever it ends, until all is over."""
        while not self._is_over.is_set():
            self._process = subprocess.Popen(  # noqa: S603 - this same program
                [sys.executable, str(settings.ROOT / "manage.py"), *self._command],
                stdin=subprocess.PIPE,
                pass_fds=self._files,
            )
            self._process.wait()
            self._is_over.wait(PAUSE_S)

    @property
    def pid(self) -> int:
        """The process that works now; 0 for none."""
        return self._process.pid if self._process is not None else 0

    def stop(self) -> None:
        """Let it go home."""
        self._is_over.set()
        if self._process is not None:
            self._process.terminate()


def end_with_the_server() -> None:
    """End this process when the server that started it does, which holds the end of its input."""
    threading.Thread(target=_wait_for_the_end, daemon=True).start()


def _wait_for_the_end() -> None:
    while os.read(sys.stdin.fileno(), 1):
        pass
    os._exit(0)
