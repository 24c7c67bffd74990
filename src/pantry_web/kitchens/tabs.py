"""The tabs, which are the same on every page, and the parts of each kind of page."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from django.urls import ResolverMatch
from django.utils.functional import Promise
from django.utils.translation import gettext_lazy as _


@dataclass(frozen=True, slots=True)
class Tab:
    """A tab or a part of a page: its words, the name of its address, the key that jumps there."""

    id: str
    words: Promise
    address: str
    key: str = ""


TABS: Final = (
    Tab("today", _("Today"), "today", "t"),
    Tab("feasts", _("Feasts"), "feasts", "f"),
    Tab("shopping", _("Shopping"), "shopping", "s"),
    Tab("kitchen", _("Kitchen"), "pantry", "k"),
)
FIRE: Final = Tab("fire", _("Fire"), "fire-day", "d")
"""It stands beside the tabs while something is at the heat."""

KITCHEN: Final = (
    Tab("stock", _("Stock"), "pantry"),
    Tab("tools", _("Tools"), "tools"),
    Tab("hours", _("Units and hours"), "house"),
    Tab("people", _("People"), "members"),
    Tab("devices", _("Devices"), "devices"),
    Tab("ledger", _("Ledger"), "ledger", "g"),
    Tab("files", _("Files"), "files"),
)
"""The parts of the kitchen's page."""

FEAST: Final = (
    Tab("dishes", _("Dishes"), "feast", "i"),
    Tab("passage", _("Passage"), "feast-passage", "p"),
    Tab("afterwards", _("Afterwards"), "afterwards", "a"),
)
"""The parts of a feast's page."""

DISH: Final = (
    Tab("mix", _("Mix"), "weigh-up", "m"),
    Tab("steps", _("Steps"), "steps", "e"),
    Tab("notes", _("Notes"), "ledger-dish", "n"),
)
"""The parts of a dish's page."""

_WITHOUT_PARTS: Final = {
    "today": ("today", "today-note", "today-more", "put-off", "tick-visit"),
    "shopping": ("shopping", "tick-bought", "tick-trip"),
    "fire": ("fire-day", "fire-rows", "fire-help"),
    "kitchen": ("handbook", "trust"),
}
_OF_KITCHEN: Final = {
    "stock": ("pantry",),
    "tools": ("tools", "add-thing", "change-thing"),
    "hours": ("house", "hours", "add-absence", "add-changed-day", "set-clock"),
    "people": ("members", "password", "invite"),
    "devices": ("devices", "set-channel", "check-thermometer"),
    "ledger": ("ledger", "compare"),
    "files": ("files", "feeds", "renew-feed", "bring-in-kitchen"),
}
_OF_FEAST: Final = {
    "dishes": ("feast", "new-dish", "what-helps", "take-remedy", "still", "copy-feast", "new-job",
               "new-mishap", "be-away", "last-time"),
    "passage": ("feast-passage", "passage", "passage-step", "move-step"),
    "afterwards": ("afterwards",),
}  # fmt: skip
_OF_DISH: Final = {
    "mix": ("weigh-up", "job-mix", "job-parts", "recipe-check", "recipe-import", "weighing",
            "tick-line", "trim", "keep-left", "cold", "label"),
    "steps": ("steps", "note", "dish-hour", "keep-route", "add-step", "step-form", "change-step",
              "forget-change", "remove-step", "take-route"),
    "notes": ("ledger-dish", "tell-review", "add-photo"),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Here:
    """Where a page stands: its tab, the kind of its head, and the part of it; "" for none."""

    tab: str
    kind: str = ""
    part: str = ""


def _by_address() -> Iterator[tuple[str, Here]]:
    for tab, names in _WITHOUT_PARTS.items():
        yield from ((name, Here(tab)) for name in names)
    for kind, parts in (("kitchen", _OF_KITCHEN), ("feast", _OF_FEAST), ("dish", _OF_DISH)):
        tab = "kitchen" if kind == "kitchen" else "feasts"
        for part, names in parts.items():
            yield from ((name, Here(tab, kind, part)) for name in names)


_HERE: Final = dict(_by_address())


def here(match: ResolverMatch | None) -> Here:
    """Where a page stands, by the name of its address; a feast's where nothing else is named."""
    return _HERE.get("" if match is None else match.url_name or "", Here("feasts"))
