"""Work plans out for as long as whoever started this lives."""

import os
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand

from pantry_web.running.beside import end_with_the_server

INTERVAL_S = 0.2
NICE = 10
"""Whoever asks for a page comes before a plan."""


class Command(BaseCommand):
    """What the server starts beside the pages; by hand, `db_worker` does the same."""

    help = __doc__ or ""

    def handle(self, *args: Any, **options: Any) -> None:
        """Work; a server that was killed has no worker left over."""
        end_with_the_server()
        os.nice(NICE)
        call_command("db_worker", interval=INTERVAL_S)
