"""Keeping what a kitchen has learnt, so that its dishes are reckoned with it."""

from collections.abc import Iterable
from datetime import datetime, timedelta

from pantry_web.feasts.models import Dish
from pantry_web.kitchens.models import Kitchen
from pantry_web.ledger.evidence import Seen, figures_worked_out, learnt_document, seen_of
from pantry_web.ledger.models import Evidence, OwnFigure, Review
from pantry_web.planning.looking import outlook_alone
from pantry_web.presses.once import once

MOST_AT_ONCE = 20
AFTER = timedelta(hours=12)


@once()
def keep_evidence(dish: Dish, seen: Iterable[Seen]) -> None:
    """Keep what a dish tells of the figures, and nothing that it told before."""
    Evidence.objects.filter(dish=dish).delete()
    Evidence.objects.bulk_create(
        Evidence(dish=dish, figure=figure, seen=each) for figure, each in seen
    )


def learn_of_the_brought_in(kitchen: Kitchen) -> None:
    """Look at dishes that were brought in with what came of them, some at a time."""
    new = Review.objects.filter(
        dish__feast__kitchen=kitchen, is_skipped=False, is_learnt_from=False
    )
    found = []
    for review in new.select_related("dish__feast")[:MOST_AT_ONCE]:
        over = (review.dish.serve_at or review.dish.feast.serve_at) + AFTER
        found.append((review, list(seen_of(outlook_alone(review.dish, kitchen, over), review))))
    if found:
        with once():
            for review, seen in found:
                keep_evidence(review.dish, seen)
                Review.objects.filter(pk=review.pk).update(is_learnt_from=True)
            learn(kitchen)


@once()
def learn(kitchen: Kitchen) -> None:
    """Work the figures of a kitchen out anew, from all that was told."""
    kitchen.learnt = learnt_document(figures_worked_out(kitchen))
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
