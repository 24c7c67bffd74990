"""Show the word with which the first cook begins."""

from django.core.management.base import BaseCommand

from pantry_web.kitchens.models import Cook
from pantry_web.members.first_start import start_word


class Command(BaseCommand):
    """Show the word, while nobody cooks here."""

    help = __doc__ or ""

    def handle(self, *args: object, **options: object) -> None:
        """Show it."""
        if Cook.objects.exists():
            self.stdout.write("Somebody cooks here already. A forgotten password: changepassword.")
        else:
            self.stdout.write(start_word())
