"""Cuts, forms, methods and schools as a form offers them."""

from typing import Any, get_args

from pantry_core.dish.request import Form
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.schools import NAMES
from pantry_core.routes.ways import WAYS, Way

NO_METHOD = "none"
KIND_NAMES = {
    "pork": "Pork",
    "beef": "Beef",
    "lamb": "Lamb and goat",
    "game": "Game",
    "poultry": "Poultry",
    "fish": "Fish",
    "vegetable": "Vegetable",
}
FORM_NAMES = {
    "whole": "whole", "flat": "opened flat", "halves": "halved", "pieces": "in pieces",
    "cubes": "cubes", "strips": "strips", "slices": "thin slices", "ground": "ground",
    "rolled": "rolled and tied", "stuffed": "stuffed",
}  # fmt: skip
FORMS = [("", "as it is sold"), *((form, FORM_NAMES[form]) for form in get_args(Form))]
SCHOOLS = list(NAMES.items())


def way_choices() -> list[tuple[str, str]]:
    """The methods."""
    return [(way.id, way.name) for way in WAYS.values()]


def method_choices() -> list[tuple[str, str]]:
    """The methods, and none of them."""
    return [*way_choices(), (NO_METHOD, "Not salted ahead")]


def cut_choices() -> list[tuple[str, object]]:
    """The cuts by kind, none of them chosen."""
    by_kind = [
        (name, [(cut.id, cut.name) for cut in CUTS.values() if cut.kind == kind])
        for kind, name in KIND_NAMES.items()
    ]
    return [("", "choose"), *by_kind]


def way_of(method: Any) -> Way | None:
    """The method of this id; None for none."""
    return WAYS.get(method)


def method_name(method: str) -> str:
    """A method as a cook says it."""
    way = way_of(method)
    return way.name if way else "Not salted ahead"
