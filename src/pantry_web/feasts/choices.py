"""Cuts, forms, methods and schools as a form offers them."""

from typing import Any, get_args

from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_core.dish.request import Form
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.heats import HEATS
from pantry_core.routes.schools import NAMES
from pantry_core.routes.ways import WAYS, Way

NO_METHOD = "none"
KIND_NAMES = {
    "pork": _("Pork"),
    "beef": _("Beef"),
    "lamb": _("Lamb and goat"),
    "game": _("Game"),
    "poultry": _("Poultry"),
    "fish": _("Fish"),
    "vegetable": _("Vegetable"),
}
FORM_NAMES = {
    "whole": _("whole"), "flat": _("opened flat"), "halves": _("halved"), "pieces": _("in pieces"),
    "cubes": _("cubes"), "strips": _("strips"), "slices": _("thin slices"), "ground": _("ground"),
    "rolled": _("rolled and tied"), "stuffed": _("stuffed"),
}  # fmt: skip
FORMS = [("", _("as it is sold")), *((form, FORM_NAMES[form]) for form in get_args(Form))]
SCHOOLS = [
    ("", _("As long as most cooks take, if there is time")),
    *((school, _(name)) for school, name in NAMES.items()),
]


def way_choices() -> list[tuple[str, Any]]:
    """The methods."""
    return [(way.id, _(way.name)) for way in WAYS.values()]


def method_choices() -> list[tuple[str, Any]]:
    """The methods, and none of them."""
    return [*way_choices(), (NO_METHOD, _("Not salted ahead"))]


def heat_choices() -> list[tuple[str, Any]]:
    """The ways of cooking."""
    return [(heat.id, _(heat.name)) for heat in HEATS.values()]


def cuts_cooked(way: str) -> list[str]:
    """The cuts that are cooked so where nobody says how."""
    return [cut.id for cut in CUTS.values() if cut.heat == way]


def cut_choices() -> list[tuple[Any, object]]:
    """The cuts by kind, none of them chosen."""
    by_kind = [
        (name, [(cut.id, _(cut.name)) for cut in CUTS.values() if cut.kind == kind])
        for kind, name in KIND_NAMES.items()
    ]
    return [("", _("choose")), *by_kind]


def way_of(method: Any) -> Way | None:
    """The method of this id; None for none."""
    return WAYS.get(method)


def method_name(method: str) -> str:
    """A method as a cook says it."""
    way = way_of(method)
    return gettext(way.name) if way else gettext("Not salted ahead")
