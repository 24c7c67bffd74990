"""The word with which the first cook proves to be whoever started the program."""

import hmac
import secrets

from django.conf import settings

NAME = "start-word"


def start_word() -> str:
    """The word, kept beside the data until there is a cook; whoever starts the program sees it."""
    kept = settings.DATA / NAME
    if not kept.exists():
        settings.DATA.mkdir(parents=True, exist_ok=True)
        kept.touch(mode=0o600)
        kept.write_text(secrets.token_urlsafe(9))
    return kept.read_text()


def is_start_word(typed: str) -> bool:
    """Whether that is the word."""
    return hmac.compare_digest(typed.strip().encode(), start_word().encode())


def forget_start_word() -> None:
    """There is a cook: the word opens nothing any more."""
    (settings.DATA / NAME).unlink(missing_ok=True)
