"""A whole feast as one document, out and in again."""

from base64 import b64encode
from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any

from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _
from pydantic import ValidationError

from pantry_core.dish.clock import WrongDish
from pantry_core.errors import OutOfRange
from pantry_core.formats.feast import FeastDocument
from pantry_core.formats.feast_1 import OlderFeast, as_it_is_now
from pantry_core.formats.reading import Problem, WrongInput, parse_json, read_document
from pantry_core.rules.profiles import ProfileName
from pantry_web.feasts.brought_in import OF_A_REVIEW, OF_AN_EVENT, wrongs_of
from pantry_web.feasts.documents import with_waits
from pantry_web.feasts.models import Dish, Feast
from pantry_web.ledger.models import Review

Document = dict[str, Any]

OLDER = "pantry-clock/1"
CONTRADICTS = _("what it says of a dish contradicts itself; write it out anew from Pantry Clock")


def feast_document(feast: Feast, *, photos: bool = True) -> Document:
    """A feast with its dishes, logs, sheets and what came of them as one JSON document.

    Parameters: feast; photos, whether they come along: all of them or none.
    """
    told = ["events", "sheets", "leftovers", *(["photos"] if photos else [])]
    dishes = feast.dishes.select_related("review").prefetch_related(*told)
    ids = {str(dish.pk): f"dish-{n}" for n, dish in enumerate(dishes, 1)}
    return {
        "format": "pantry-clock/2",
        "name": feast.name,
        "serve_at": _text(feast.serve_at),
        "tz": feast.time_zone,
        "people": feast.heads,
        "note": feast.note,
        "dishes": [_dish_document(dish, ids, photos=photos) for dish in dishes],
    }


def _dish_document(dish: Dish, ids: Mapping[str, str], *, photos: bool) -> Document:
    events = list(dish.events.all())
    presses = {batch: n for n, batch in enumerate(dict.fromkeys(each.batch for each in events), 1)}
    return {
        "id": ids[str(dish.pk)],
        "name": dish.name,
        **with_waits(dish.document, ids),
        "serve_at": _text(dish.serve_at),
        "early_max_min": dish.early_max_min,
        "given_up": dish.is_given_up,
        "note": dish.note,
        "recipe": dish.document.get("recipe") or dish.recipe,
        "events": [
            {**{name: getattr(each, name) for name in OF_AN_EVENT},
             "press": presses[each.batch], "at": _text(each.at), "step": each.step_key,
             "until": _text(each.until), "heat": each.heat,
             "withdraws": presses.get(each.withdraws) if each.withdraws else None}
            for each in events
        ],
        "sheets": [
            {"press": presses[sheet.batch], "rules_version": sheet.rules_version,
             "weighed": sheet.weighed, "request": sheet.request, "answer": sheet.answer}
            for sheet in dish.sheets.all()
        ],
        **_came_of(dish, photos=photos),
    }  # fmt: skip


def _came_of(dish: Dish, *, photos: bool) -> Document:
    """What came of a dish, where something was told."""
    review: Review | None = getattr(dish, "review", None)
    found: Document = {}
    if review is not None:
        told = {name: getattr(review, name) for name in OF_A_REVIEW}
        found["review"] = {
            **told, "ready_at": _text(review.ready_at), "told_at": _text(review.told_at),
            "skipped": review.is_skipped,
        }  # fmt: skip
    left = [
        {**({"what": each.what} if each.what else {}), "mass_g": each.mass_g,
         "place": each.place, "since": _text(each.since),
         "until": _text(each.until), "fate": each.fate, "ended_at": _text(each.ended_at)}
        for each in dish.leftovers.all()
    ]  # fmt: skip
    shown = [
        {"jpeg": b64encode(bytes(each.jpeg)).decode(), "kept_at": _text(each.kept_at)}
        for each in (dish.photos.all() if photos else ())
    ]
    return {
        **found,
        **({"leftovers": left} if left else {}),
        **({"photos": shown} if shown else {}),
    }


def read_feast(text: bytes, profile: ProfileName, now: datetime) -> FeastDocument:
    """Read the document of a feast, an older one too.

    Parameters: text, the JSON document; profile of the kitchen that reads it; now, from which no
    year in it lies far away.
    Returns: the document of today.
    Raises: WrongInput with all that is wrong.
    """
    raw = parse_json(text)
    if isinstance(raw, dict) and raw.get("format", OLDER) == OLDER:
        document = _from_older(read_document(OlderFeast, raw), profile)
    else:
        document = read_document(FeastDocument, raw)
    wrongs = wrongs_of(document, profile, now)
    if wrongs:
        raise WrongInput(tuple(wrongs))
    return document


def _from_older(older: OlderFeast, profile: ProfileName) -> FeastDocument:
    wrongs = [
        Problem(f"dishes.{i}", gettext("a piece has a cut, a method and a thickness_mm"))
        for i, dish in enumerate(older.dishes)
        if not dish.job and not (dish.cut and dish.method and dish.thickness_mm)
    ]
    if wrongs:
        raise WrongInput(tuple(wrongs))
    try:
        return as_it_is_now(older, profile)
    except (ValidationError, WrongDish, OutOfRange) as error:
        raise WrongInput((Problem("dishes", f"{CONTRADICTS}: {error}"[:300]),)) from None


def _text(moment: datetime | None) -> str | None:
    return moment.astimezone(UTC).isoformat() if moment else None
