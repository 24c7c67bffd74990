"""Telling what came of a dish, and what is left of it."""

from datetime import datetime, timedelta
from typing import Any

from django.utils.translation import gettext

from pantry_core.rules.raw_clock import leftovers_keep
from pantry_web.kitchens.models import Cook
from pantry_web.ledger.actions.learn import keep_evidence, learn
from pantry_web.ledger.evidence import seen_of
from pantry_web.ledger.models import Leftover, Review
from pantry_web.planning.outlook import Outlook
from pantry_web.presses.once import once
from pantry_web.refusal import Refused


def tell_review(view: Outlook, by: Cook, told: dict[str, Any]) -> None:
    """Keep what came of a dish, what it tells of the kitchen's figures, and what is left of it.

    Parameters: view; by; told, fields of Review by their names.
    Raises: Refused before it was eaten, and for a taste of what was thrown away.
    """
    dish = view.dish
    served_at = dish.serve_at or dish.feast.serve_at
    if view.now < served_at:
        raise Refused(gettext("It is not eaten yet; tell of it after the meal."))
    if view.is_discarded and any(told.get(name) for name in ("saltiness", "tender", "doneness")):
        raise Refused(gettext("It was to be thrown away; a taste of it cannot be."))
    seen = list(seen_of(view, Review(dish=dish, **told)))
    with once():
        kept = {**told, "is_skipped": False, "is_learnt_from": True, "by": by, "told_at": view.now}
        Review.objects.update_or_create(dish=dish, defaults=kept)
        keep_evidence(dish, seen)
        _keep_left(view, told.get("left_g"), served_at)
        learn(view.kitchen)


def skip_review(view: Outlook, by: Cook) -> None:
    """Tell nothing of a dish; it can be told later."""
    with once():
        Review.objects.get_or_create(
            dish=view.dish, defaults={"is_skipped": True, "by": by, "told_at": view.now}
        )


def _keep_left(view: Outlook, left_g: float | None, since: datetime) -> None:
    """What is left lies in the fridge, until when the rule says."""
    cooked = view.dish.leftovers.filter(what="")
    kept = cooked.filter(fate="")
    if not left_g or cooked.exclude(fate="").exists():
        kept.delete()
        return
    is_raw_fish = view.dish.piece.get("will_be") == "raw"
    until = since + timedelta(days=leftovers_keep(is_raw_fish=is_raw_fish).value)
    if kept.update(mass_g=left_g, until=until) == 0:
        Leftover.objects.create(dish=view.dish, mass_g=left_g, since=since, until=until)
