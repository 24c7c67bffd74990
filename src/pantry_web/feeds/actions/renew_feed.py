"""Making, renewing and ending the secret address of a calendar."""

import hashlib
import secrets
from datetime import datetime

from pantry_web.feasts.models import Feast
from pantry_web.feeds.models import Feed
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.presses.once import once

TOKEN_BYTES = 20


def digest_of(token: str) -> str:
    """What is kept of an address."""
    return hashlib.sha256(token.encode()).hexdigest()


@once()
def renew_feed(kitchen: Kitchen, cook: Cook, feast: Feast | None, now: datetime) -> str:
    """Make an address for a cook's calendar, of one feast or of all; the one before it ends.

    Returns: the secret part of it, which is told this once.
    """
    end_feed(kitchen, cook, feast, now)
    token = secrets.token_hex(TOKEN_BYTES)
    Feed.objects.create(
        kitchen=kitchen, cook=cook, feast=feast, token_digest=digest_of(token), made_at=now
    )
    return token


@once()
def end_feed(kitchen: Kitchen, cook: Cook, feast: Feast | None, now: datetime) -> None:
    """End an address: nobody is told anything by it any more."""
    Feed.objects.filter(kitchen=kitchen, cook=cook, feast=feast, ended_at=None).update(ended_at=now)
