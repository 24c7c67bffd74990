"""The ways of cooking as they are offered: those that suit cut and form first."""

from dataclasses import dataclass

from django.utils.translation import gettext

from pantry_core.routes.cuts import CUTS
from pantry_core.routes.heats import HEATS, Heat
from pantry_core.routes.suits import ways_that_suit
from pantry_web.weighup.forms import DishForm


@dataclass(frozen=True, slots=True)
class Group:
    """Ways under a heading."""

    label: str
    heats: tuple[Heat, ...]


@dataclass(frozen=True, slots=True)
class Heats:
    """What is offered; `usual` is taken where none is `chosen`, `shown` is the one in effect."""

    usual: Heat
    chosen: str
    groups: tuple[Group, ...]

    @property
    def shown(self) -> Heat:
        """The way that is in effect."""
        return HEATS.get(self.chosen, self.usual)  # type: ignore[call-overload,no-any-return]  # typed


def heats_of(form: DishForm) -> Heats | None:
    """The ways of cooking for what is typed; None before a cut is chosen."""
    typed = form.cleaned_data
    cut = CUTS.get(typed.get("cut", ""))
    if cut is None:
        return None
    usual_form = "pieces" if cut.build == "small" else "whole"
    suits = ways_that_suit(cut, typed.get("form") or usual_form, is_cured=bool(typed.get("cure")))
    rest = tuple(heat for name, heat in HEATS.items() if name not in suits)
    groups = (
        Group(gettext("Suits it"), tuple(HEATS[name] for name in suits)),
        Group(gettext("All others"), rest),
    )
    return Heats(HEATS[suits[0]], typed.get("heat", ""), groups)
