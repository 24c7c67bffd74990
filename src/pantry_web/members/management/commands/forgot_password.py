"""Show a link with which somebody who forgot their password sets a new one within an hour."""

from typing import Any

from axes.utils import reset
from django.core.management.base import BaseCommand, CommandError, CommandParser

from pantry_web.kitchens.models import Cook, Membership
from pantry_web.members.forgotten import new_password_path


class Command(BaseCommand):
    """Without a name, say who owns which kitchen."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the name."""
        parser.add_argument("name", nargs="?", help="as whom they sign in")

    def handle(self, *args: Any, **options: Any) -> None:
        """Show it."""
        if options["name"] is None:
            owners = Membership.objects.filter(role=Membership.Role.OWNER)
            for each in owners.select_related("cook", "kitchen").order_by("kitchen", "pk"):
                self.stdout.write(f"{each.cook.username} owns {each.kitchen.name}")
            return
        cook = Cook.objects.filter(username=options["name"]).first()
        if cook is None:
            raise CommandError(f"Nobody signs in as {options['name']}. Without a name, the owners "
                               "are listed.")  # fmt: skip
        reset(username=cook.username)
        self.stdout.write(f"Open this at the address of your kitchen within an hour:\n"
                          f"{new_password_path(cook)}")  # fmt: skip
