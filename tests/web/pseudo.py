"""A language that nobody speaks: English whose every translated letter has an accent."""

import re

from babel.messages.catalog import Catalog
from babel.messages.mofile import write_mo

from pantry_core.days.named import countries
from pantry_web.members.models import Membership
from pantry_web.running.messages import messages

LANGUAGE = "en-xa"

_PLAIN = "abcdefghijklmnopqrstuvwxyz"
_ACCENTED = str.maketrans(
    _PLAIN + _PLAIN.upper(), "àƀçđéƒğĥîĵķļɱñôþɋŕšţûṽŵẋýžÀɃÇĐÉƑĞĤÎĴĶĻṀÑÔÞɊŔŠŢÛṼŴẊÝŽ"
)
_PLAINLY = {accent: plain for plain, accent in _ACCENTED.items()}
_UNTOUCHED = re.compile(
    r"(\{[^}]*\}|%\([^)]*\)s|<[^>]*>|&[a-z#0-9]+;"
    r"|(?<=[\d}])[ \u00a0\u202f](?:mm|cm|ml|l|kg|g)\b|°C)"
)
"""Holes, tags, and units of measure."""


def accented(text):
    """A text as this language has it; its holes and tags stay."""
    parts = _UNTOUCHED.split(text)
    parts[::2] = [part.translate(_ACCENTED) for part in parts[::2]]
    return "".join(parts)


def plainly(text):
    """A text of this language in English again."""
    return text.translate(_PLAINLY)


def write_catalogue(folder):
    """The catalogue of the language, from what is marked in the sources and nothing else."""
    catalogue = Catalog(locale="en", domain="django")
    for text in messages():
        is_plural = isinstance(text, tuple)
        catalogue.add(text, tuple(map(accented, text)) if is_plural else accented(text))
    path = folder / "en_XA" / "LC_MESSAGES" / "django.mo"
    path.parent.mkdir(parents=True)
    with path.open("wb") as file:
        write_mo(file, catalogue)


_DJANGO = re.compile(
    r"\b(?:Mon|Tues?|Wed(?:nes)?|Thu(?:rs)?|Fri|Sat(?:ur)?|Sun)(?:day)?\b"
    r"|\b(?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)\b|\b(?:March|April)\b"
    r"|(?:New|Old) password(?: confirmation)?|Enter a valid (?:date|time)|This field is required"
    r"|Select a valid choice\.[^.]*|https?://\S+"
)
_ZONE = re.compile(r"[A-Z]\w+(?:/[\w+-]+)+")
_WORD = re.compile(r"[A-Za-z]{3,}")


def unmarked(texts, typed):
    """English on a page that nobody has marked to be translated, nor the cook has typed.

    Sources keep their own language, and days and Django's words are Django's to translate.
    """
    plain = [text for text in texts.but("cite") if _WORD.search(_ZONE.sub("", text))]
    return [
        text for text in plain if _WORD.search(_DJANGO.sub("", typed.sub("", _ZONE.sub("", text))))
    ]


def typed_in(kitchen):
    """What the cook has typed, however it begins."""
    feasts = kitchen.feasts.prefetch_related("dishes")
    dishes = [dish for feast in feasts for dish in feast.dishes.all()]
    things = (
        kitchen, *feasts, *dishes, *kitchen.vessels.all(), *kitchen.scales.all(),
        *kitchen.ingredients.all(),
    )  # fmt: skip
    words = {each.name for each in things} | {"Pantry Clock", "UTC", *countries().values()}
    words |= {member.cook.username for member in Membership.objects.filter(kitchen=kitchen)}
    words |= {str(event.note) for dish in dishes for event in dish.events.all() if event.note}
    words |= {feast.note for feast in feasts if feast.note}
    words |= {spice["text"] for dish in dishes for spice in dish.cure.get("spices", ())}
    words |= {word for dish in dishes for word in dish.name.split()}
    ordered = sorted(filter(None, words), key=len, reverse=True)
    return re.compile("|".join(re.escape(each) for each in ordered), re.IGNORECASE)
