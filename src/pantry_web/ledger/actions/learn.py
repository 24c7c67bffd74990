"""Keeping what a kitchen has learnt, so that its dishes are reckoned with it."""

from datetime import datetime

from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.evidence import figures_of, learnt_document
from pantry_web.ledger.models import OwnFigure
from pantry_web.presses.once import once


@once()
def learn(kitchen: Kitchen) -> None:
    """Work the figures of a kitchen out anew, from all that was told."""
    kitchen.learnt = learnt_document(figures_of(kitchen))
    kitchen.save(update_fields=["learnt"])


@once()
def put_aside(kitchen: Kitchen, figure: str, *, is_aside: bool) -> None:
    """Use a figure no longer, or again."""
    OwnFigure.objects.update_or_create(
        kitchen=kitchen, figure=figure, defaults={"is_aside": is_aside}
    )
    learn(kitchen)


@once()
def forget(kitchen: Kitchen, figure: str, now: datetime) -> None:
    """Learn a figure anew, from dishes that are eaten from now on."""
    OwnFigure.objects.update_or_create(kitchen=kitchen, figure=figure, defaults={"since": now})
    learn(kitchen)
