"""Put a copy back in the place of the database; the old one stays beside it."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connections

from pantry_web.running.copies import BadCopy, put_back


class Command(BaseCommand):
    """Put FILE back, and bring it up to this version."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the file."""
        parser.add_argument("file", help="a copy that backup wrote; stop the server first")

    def handle(self, *args: Any, **options: Any) -> None:
        """Put it back."""
        database = Path(str(settings.DATABASES["default"]["NAME"]))
        connections.close_all()
        try:
            counted = put_back(Path(options["file"]), database)
        except (BadCopy, OSError) as error:
            raise CommandError(f"Nothing was changed: {error}") from None
        call_command("migrate", verbosity=0)
        told = f"{counted['feasts_event']} events, {counted['feasts_dish']} dishes"
        self.stdout.write(f"Back: {told}. What was there is beside it: {database.name}.before.")
