"""What came of a dish the last time, and the changes that it asks for, one press each."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from django.utils.translation import gettext

from pantry_core.measures.said import span
from pantry_core.quantities import Percent
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.heats import HEATS, HeatName
from pantry_core.routes.suits import ways_that_suit
from pantry_web.feasts.models import Dish
from pantry_web.ledger.models import Review
from pantry_web.planning.outlook import Outlook
from pantry_web.quantities import hours_of
from pantry_web.sentences import tell

LESS = {"salty": 0.85, "too-salty": 0.75, "flat": 1.2}
"""What is salted for words of taste: by how much the next time (our own choice)."""
LATE = timedelta(minutes=15)
LONGER = 1.25
"""What was tough cooks so many times as long (our own choice)."""
SHORT_REST_H = 0.25
SLOW: tuple[HeatName, ...] = ("braise", "slow-oven", "in-fat")
CRISP: tuple[HeatName, ...] = ("roast-staged",)

Document = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Proposal:
    """A change that the last time asks for: why, what, and the document or hour that makes it."""

    code: str
    why: str
    text: str
    decided: Document | None = None
    serve_at: datetime | None = None


def last_time_of(dish: Dish) -> Review | None:
    """What was told of the dish that this one was copied from."""
    if dish.copied_from_id is None:
        return None
    return Review.objects.filter(dish=dish.copied_from_id, is_skipped=False).first()


def proposals(view: Outlook, review: Review) -> list[Proposal]:
    """The changes that the last time asks for and that have not been made.

    Parameters: view of the new dish; review of the dish that it was copied from.
    """
    makers: tuple[Callable[[Outlook, Review], Iterator[Proposal]], ...] = (
        _less_salt, _earlier, _longer, _shorter_rest, _another_way,
    )  # fmt: skip
    return [each for make in makers for each in make(view, review)]


def _less_salt(view: Outlook, review: Review) -> Iterator[Proposal]:
    factor, cure = LESS.get(review.saltiness), view.dish.cure
    before = (review.dish.cure or {}).get("target_salt_pct")
    if factor is None or before is None or cure.get("target_salt_pct") != before:
        return
    target = round(factor * before, 1)
    yield Proposal(
        "salt",
        tell("It was {taste}.", taste=review.get_saltiness_display()),
        tell("Salt it to {new} instead of {old}", new=Percent(target), old=Percent(before)),
        {**view.dish.document, "cure": {**cure, "target_salt_pct": target}},
    )


def _earlier(view: Outlook, review: Review) -> Iterator[Proposal]:
    before = review.dish.serve_at or review.dish.feast.serve_at
    hour = view.dish.feast.serve_at
    if review.ready_at is None or view.dish.serve_at is not None or review.ready_at - before < LATE:
        return
    late = review.ready_at - before
    yield Proposal(
        "earlier",
        tell("It was ready {late} late.", late=span(hours_of(late))),
        tell("Plan it to be ready {late} before the meal", late=span(hours_of(late))),
        serve_at=hour - late,
    )


def _longer(view: Outlook, review: Review) -> Iterator[Proposal]:
    cooked = [step for step in view.steps if step.kind == "cook"]
    if review.tender != Review.Tender.TOUGH or not cooked:
        return
    step = max(cooked, key=lambda each: each.min_h)
    if _edit_of(view, step.id).get("prefer_h") is None:
        longer = {
            "min_h": round(LONGER * step.min_h, 2),
            "prefer_h": round(LONGER * (step.prefer_h or step.min_h), 2),
            "max_h": round(LONGER * (step.max_h or step.prefer_h or step.min_h), 2),
        }
        yield Proposal(
            "longer", gettext("It was tough."),
            tell("Give {step} a quarter more time", step=step.title),
            _edited(view, step.id, longer),
        )  # fmt: skip


def _shorter_rest(view: Outlook, review: Review) -> Iterator[Proposal]:
    rest = next((step for step in view.steps if step.id == "stand"), None)
    soft = (Review.Skin.SOFT, Review.Skin.CHEWY)
    if review.skin not in soft or rest is None or (rest.max_h or rest.min_h) <= SHORT_REST_H:
        return
    short = {"min_h": min(rest.min_h, SHORT_REST_H), "prefer_h": min(rest.min_h, SHORT_REST_H),
             "max_h": SHORT_REST_H}  # fmt: skip
    yield Proposal(
        "rest", tell("The skin was {skin}.", skin=review.get_skin_display()),
        gettext("Rest it a quarter of an hour at the most"), _edited(view, rest.id, short),
    )  # fmt: skip


def _another_way(view: Outlook, review: Review) -> Iterator[Proposal]:
    """What was tough cooks in liquid, and what has skin hotter at its ends, where that suits it."""
    piece, heat = view.dish.piece, view.dish.document.get("heat") or {}
    cut = CUTS.get(piece.get("cut", ""))
    if cut is None or heat.get("way") != (review.dish.document.get("heat") or {}).get("way"):
        return
    suits = ways_that_suit(cut, piece.get("form", "whole"))
    now = heat.get("way") or suits[0]
    asked: list[tuple[str, tuple[HeatName, ...]]] = []
    if review.tender == Review.Tender.TOUGH and now not in SLOW:
        asked.append((gettext("It was tough."), SLOW))
    if review.skin in (Review.Skin.SOFT, Review.Skin.CHEWY) and now != CRISP[0]:
        asked.append((tell("The skin was {skin}.", skin=review.get_skin_display()), CRISP))
    for why, ways in asked:
        other = next((each for each in ways if each in suits), None)
        if other is not None:
            yield Proposal(
                "another-way", why, tell("Another way: {way:lower}", way=HEATS[other].name),
                {**view.dish.document, "heat": {**heat, "way": other}},
            )  # fmt: skip
            return


def _edit_of(view: Outlook, step: str) -> Document:
    edits: list[Document] = view.dish.document.get("edits", [])
    return next((each for each in edits if each["step"] == step), {})


def _edited(view: Outlook, step: str, fields: Document) -> Document:
    kept = [each for each in view.dish.document.get("edits", []) if each["step"] != step]
    edit = {**_edit_of(view, step), "step": step, **fields}
    return {**view.dish.document, "edits": [*kept, edit]}
