"""Signing out everywhere."""

from django.db.models import F

from pantry_web.kitchens.models import Cook
from pantry_web.presses.once import once


@once()
def sign_out_everywhere(cook: Cook) -> None:
    """End every session of a cook, this one too: their mark is no longer the cook's."""
    Cook.objects.filter(pk=cook.pk).update(sign_outs=F("sign_outs") + 1)
    cook.refresh_from_db(fields=["sign_outs"])
