"""Write the table of rules at the end of docs/method.md anew from the rules themselves."""

from pathlib import Path

from pantry_core.dish import curing, piece, room, targets
from pantry_core.heat import chill, cooling, warm
from pantry_core.history import tastes
from pantry_core.mixes import check_cautions, colour, seasoning
from pantry_core.routes import customs, cuts, jobs, schools, servings, thickness
from pantry_core.rules.listing import all_rules, rules_in, table
from pantry_core.salt import properties, ready, travel
from pantry_core.vessels import fit

PAGE = Path(__file__).parent / "method.md"
HEADING = "## Rules\n\n"


def page() -> str:
    """The page with the table as the rules have it now."""
    bands = (properties.RED_MEAT, properties.POULTRY, properties.FISH, properties.NITRITE)
    diffusivities = tuple(rule for band in bands for rule in (band.usual, band.low, band.high))
    others = rules_in(
        ready,
        check_cautions,
        colour,
        seasoning,
        tastes,
        travel,
        targets,
        piece,
        curing,
        room,
        schools,
        thickness,
        servings,
        cuts,
        chill,
        fit,
        cooling,
        warm,
        customs,
        jobs,
    )
    rules = {rule.id: rule for rule in (*all_rules(), *diffusivities, *others)}
    head = PAGE.read_text().partition(HEADING)[0]
    return f"{head}{HEADING}{table(tuple(rules.values()))}"


if __name__ == "__main__":
    PAGE.write_text(page())
