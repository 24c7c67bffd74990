"""Texts that people write: plain, so that no header, file or page breaks by them."""

import unicodedata

SPACES = "\t\n\r"
_BAD = frozenset(("Cc", "Cs"))
"""Control characters, and halves of characters."""


class NotPlain(ValueError):
    """The text has what no line or text has; the message says what is allowed."""


def plain_line(text: str) -> str:
    """The text itself, where it is one line.

    Raises: NotPlain for line breaks and control characters.

    >>> plain_line("Plum Sunday")
    'Plum Sunday'
    """
    if any(unicodedata.category(sign) in _BAD for sign in text):
        raise NotPlain("Use one line without control characters")
    return text


def plain_text(text: str) -> str:
    """The text itself, where it has no control characters but tabs and ends of lines.

    Raises: NotPlain for others.
    """
    if any(unicodedata.category(sign) in _BAD and sign not in SPACES for sign in text):
        raise NotPlain("Use a text without control characters")
    return text
