"""Copy the database while it is used: verified, compressed, once or at intervals."""

import time
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from pantry_web.running.copies import BadCopy, take_copy

MARK = "{time}"


class Command(BaseCommand):
    """Write a copy to FILE; with --every, one after the other."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the file and the interval."""
        parser.add_argument("file", help=f"where to; {MARK} in its name becomes the moment")
        parser.add_argument("--every", type=float, help="hours between two copies")

    def handle(self, *args: Any, **options: Any) -> None:
        """Copy."""
        database = Path(str(settings.DATABASES["default"]["NAME"]))
        if options["every"] is not None and options["every"] <= 0:
            raise CommandError("--every takes hours, more than none")
        while True:
            moment = f"{datetime.now(UTC):%Y-%m-%dT%H%M%SZ}"
            target = Path(options["file"].replace(MARK, moment))
            try:
                counted = take_copy(database, target)
            except (BadCopy, OSError) as error:
                raise CommandError(f"No copy was made: {error}") from None
            self.stdout.write(f"{target}: {counted['feasts_event']} events, "
                              f"{counted['feasts_dish']} dishes, verified.")  # fmt: skip
            self.stdout.flush()
            if options["every"] is None:
                return
            time.sleep(options["every"] * 3600)
