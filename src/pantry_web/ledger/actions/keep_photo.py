"""Keeping photos of a dish, and removing them."""

from django.utils.translation import gettext

from pantry_web.kitchens.models import Cook
from pantry_web.ledger.models import Photo
from pantry_web.ledger.pictures import kept
from pantry_web.planning.outlook import Outlook
from pantry_web.presses.once import once
from pantry_web.refusal import Refused

MOST_PHOTOS = 3


def keep_photo(view: Outlook, by: Cook, data: bytes) -> Photo:
    """Keep a photo of a dish.

    Parameters: view; by; data, the file as it came.
    Raises: Refused for what is no photo, and for a fourth.
    """
    photo = kept(data)
    with once():
        if view.dish.photos.count() >= MOST_PHOTOS:
            raise Refused(gettext("Three photos of a dish are the most; remove one first."))
        return Photo.objects.create(
            dish=view.dish, jpeg=photo.jpeg, width=photo.width, height=photo.height, by=by,
            kept_at=view.now,
        )  # fmt: skip


@once()
def remove_photo(photo: Photo) -> None:
    """Remove a photo."""
    photo.delete()
