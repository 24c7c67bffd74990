"""Look up whether everything that always holds does: of the database, and of every kitchen."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError

from pantry_web.kitchens.models import Kitchen
from pantry_web.running.invariants import broken_of, broken_of_the_database


class Command(BaseCommand):
    """Say what is broken; with something broken it ends with an error."""

    help = __doc__ or ""

    def handle(self, *args: Any, **options: Any) -> None:
        """Look."""
        found = 0
        checks = [("database", broken_of_the_database())]
        checks += [(str(each), broken_of(each)) for each in Kitchen.objects.order_by("pk")]
        for name, broken in checks:
            told = list(broken)
            found += len(told)
            for each in told or ["all is well"]:
                self.stdout.write(f"{name}: {each}")
        if found:
            raise CommandError(f"{found} broken. Nothing was changed.")
