"""What the kitchen's rules refuse."""

from django.utils.translation import gettext


class Refused(Exception):
    """An action that cannot be done now; the message says why and what is allowed."""


class Stale(Refused):
    """An action on something that has changed since it was read: reading it again may do."""

    def __init__(self) -> None:
        super().__init__(
            gettext("Somebody else has just written something down here; look, then press.")
        )
