"""Serve the kitchens of this machine, behind a proxy that speaks TLS."""

import os
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser

from pantry_web.kitchens.models import Cook
from pantry_web.members.first_start import start_word
from pantry_web.running.serving import (
    port_of,
    processes_of,
    refuse_busy,
    serve_until_stopped,
)


class Command(BaseCommand):
    """Migrate, serve, and work plans out beside the pages."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """Take where to listen, and how many processes answer (one for each core)."""
        parser.add_argument("--host", default=os.environ.get("HOST", "127.0.0.1"))
        parser.add_argument("--port", default=os.environ.get("PORT", "8000"))
        parser.add_argument("--processes", type=processes_of)

    def handle(self, *args: object, **options: Any) -> None:
        """Serve until interrupted."""
        host, port = str(options["host"]), port_of(str(options["port"]))
        refuse_busy(host, port)
        call_command("migrate", verbosity=0)
        self.stdout.write(f"Pantry Clock listens at http://{host}:{port}/ for its proxy.")
        if not Cook.objects.exists():
            self.stdout.write(f"Nobody cooks here yet. The word to begin with: {start_word()}")
        self.stdout.flush()
        proxy = os.environ.get("PANTRY_PROXY", "127.0.0.1")
        serve_until_stopped(host, port, proxy, options["processes"])
