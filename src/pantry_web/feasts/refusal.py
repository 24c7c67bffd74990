"""What the kitchen's rules refuse."""


class Refused(Exception):
    """An action that cannot be done now; the message says why and what would do."""
