"""Adding a device, and ending what it may do."""

import hashlib
import secrets
from datetime import datetime

from pantry_web.devices.models import MOST_CHANNELS, Channel, Device
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.presses.once import once

TOKEN_BYTES = 20


def digest_of(token: str) -> str:
    """What is kept of a token."""
    return hashlib.sha256(token.encode()).hexdigest()


@once()
def add_device(kitchen: Kitchen, by: Cook, name: str, now: datetime) -> tuple[Device, str]:
    """Add a device with its channels.

    Returns: it, and its token, which is told this once.
    """
    token = secrets.token_hex(TOKEN_BYTES)
    device = Device.objects.create(
        kitchen=kitchen, name=name, token_digest=digest_of(token), added_by=by, added_at=now
    )
    Channel.objects.bulk_create(Channel(device=device, number=n + 1) for n in range(MOST_CHANNELS))
    return device, token


@once()
def revoke_device(device: Device, now: datetime) -> None:
    """Take nothing from a device any more; what it told stays."""
    device.revoked_at = now
    device.save(update_fields=["revoked_at"])
