"""The methods as a form offers them."""

from pantry_core.routes.ways import WAYS

GROUPS = ("Brine", "Dry", "Needle", "Marinade", "Side")


def way_choices() -> list[tuple[str, list[tuple[str, str]]]]:
    """The methods by group."""
    return [
        (group, [(way.id, way.name) for way in WAYS.values() if way.group == group])
        for group in GROUPS
    ]
