"""Serve the demo kitchen on this machine."""

import signal
import socket
import subprocess
import sys
import threading

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from pantry_web.demo.kitchen import COOK, PASSWORD, load_whole

HOST = "127.0.0.1"
PAUSE_S = 0.5
"""Between a worker that ended and the next [s]."""


class Command(BaseCommand):
    """Migrate, load the demo kitchen unless it is there, serve it, and work plans out beside it."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the port."""
        parser.add_argument("--port", default="8000")

    def handle(self, *args: object, **options: object) -> None:
        """Serve until interrupted; what is slow at first is done meanwhile."""
        from waitress import serve  # noqa: PLC0415 - needed by this command only

        from pantry_web.wsgi import application  # noqa: PLC0415 - it starts the application

        port = _port(str(options["port"]))
        _refuse_busy(port)
        call_command("migrate", verbosity=0)
        load_whole()
        self.stdout.write(f"Pantry Clock is at http://{HOST}:{port}/")
        self.stdout.write(f"Sign in as {COOK} with the password {PASSWORD}. Stop it with Ctrl-C.")
        self.stdout.flush()
        threading.Thread(target=_warm_up, daemon=True).start()
        signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
        worker = Worker()
        threading.Thread(target=worker.keep, daemon=True).start()
        try:
            serve(application, host=HOST, port=port, threads=4, ident=None)
        finally:
            worker.stop()


class Worker:
    """Whoever works beside the pages; one that ends is followed by another."""

    def __init__(self) -> None:
        self._is_over = threading.Event()
        self._process: subprocess.Popen[bytes] | None = None

    def keep(self) -> None:
        """Start a worker, and another whenever one ends, until all is over."""
        while not self._is_over.is_set():
            self._process = subprocess.Popen(  # noqa: S603 - this same program
                [sys.executable, str(settings.ROOT / "manage.py"), "db_worker", "--interval", "0.2"]
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


def _port(text: str) -> int:
    if not text.isdigit() or not 1 <= int(text) <= 65535:
        raise CommandError(f"PORT is {text!r}; a number from 1 to 65535 would do.")
    return int(text)


def _refuse_busy(port: int) -> None:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((HOST, port))
        except OSError as error:
            raise CommandError(
                f"Port {port} cannot be used ({error.strerror}). Try another: PORT=8001 bin/demo"
            ) from None


def _warm_up() -> None:
    """Import the solver and work out the tables of the model before somebody waits for them."""
    import pantry_core.plan.solve  # noqa: F401, PLC0415
    from pantry_core.salt.ready import work_out_tables  # noqa: PLC0415

    work_out_tables()
