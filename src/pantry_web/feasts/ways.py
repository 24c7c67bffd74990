"""The cuts and methods as a form offers them."""

from pantry_core.routes.cuts import CUTS
from pantry_core.routes.ways import WAYS

GROUPS = ("Brine", "Dry", "Needle", "Marinade", "Side")


def way_choices() -> list[tuple[str, list[tuple[str, str]]]]:
    """The methods by group."""
    return [
        (group, [(way.id, way.name) for way in WAYS.values() if way.group == group])
        for group in GROUPS
    ]


KIND_NAMES = {
    "pork": "Pork",
    "beef": "Beef",
    "lamb": "Lamb and goat",
    "game": "Game",
    "poultry": "Poultry",
    "fish": "Fish",
    "vegetable": "Vegetable",
}


def cut_choices() -> list[tuple[str, list[tuple[str, str]]]]:
    """The cuts by kind."""
    return [
        (name, [(cut.id, cut.name) for cut in CUTS.values() if cut.kind == kind])
        for kind, name in KIND_NAMES.items()
    ]
