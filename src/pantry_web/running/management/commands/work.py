"""Work plans out for as long as whoever started this lives: it holds the other end of our input."""

import os
import sys
import threading
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand

INTERVAL_S = 0.2


class Command(BaseCommand):
    """What the server starts beside the pages; by hand, `db_worker` does the same."""

    help = __doc__ or ""

    def handle(self, *args: Any, **options: Any) -> None:
        """Work; a server that was killed has no worker left over."""
        threading.Thread(target=_end_with_the_server, daemon=True).start()
        call_command("db_worker", interval=INTERVAL_S)


def _end_with_the_server() -> None:
    while os.read(sys.stdin.fileno(), 1):
        pass
    os._exit(0)
