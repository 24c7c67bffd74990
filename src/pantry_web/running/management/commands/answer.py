"""Answer requests at a socket that another server listens at, for as long as that server lives."""

import socket
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from pantry_web.running.beside import end_with_the_server
from pantry_web.running.serving import answer


class Command(BaseCommand):
    """What the server starts beside itself, so that one long answer keeps nobody waiting."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """Take the socket, by its number among the open files."""
        parser.add_argument("socket", type=int)
        parser.add_argument("--proxy")

    def handle(self, *args: Any, **options: Any) -> None:
        """Answer."""
        end_with_the_server()
        answer(socket.socket(fileno=options["socket"]), options["proxy"])
