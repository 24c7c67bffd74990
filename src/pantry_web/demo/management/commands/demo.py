"""Serve the demo kitchen on this machine."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser

from pantry_web.demo.kitchen import COOK, PASSWORD, load_whole
from pantry_web.running.serving import (
    port_of,
    processes_of,
    refuse_busy,
    serve_until_stopped,
)

HOST = "127.0.0.1"


class Command(BaseCommand):
    """Migrate, load the demo kitchen unless it is there, serve it, and work plans out beside it."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the port, and how many processes answer."""
        parser.add_argument("--port", default="8000")
        parser.add_argument("--processes", type=processes_of)

    def handle(self, *args: object, **options: Any) -> None:
        """Serve until interrupted."""
        port = port_of(str(options["port"]))
        refuse_busy(HOST, port)
        call_command("migrate", verbosity=0)
        load_whole()
        self.stdout.write(f"Pantry Clock is at http://{HOST}:{port}/")
        self.stdout.write(f"Sign in as {COOK} with the password {PASSWORD}. Stop it with Ctrl-C.")
        self.stdout.flush()
        serve_until_stopped(HOST, port, processes=options["processes"])
