"""Write the tables at the end of docs/method.md from the core: cuts, then all rules."""

from pathlib import Path

from pantry_core.foods.table import food
from pantry_core.routes.cut_figures import CUT_FIGURES
from pantry_core.routes.cuts import BONE_BY_PRACTICE, CUTS
from pantry_core.routes.servings import usual_loss
from pantry_core.rules.constants import WATER_SHARE
from pantry_core.rules.listing import all_rules, table

PAGE = Path(__file__).parent / "method.md"
HEADING = "## Rules\n\n"
CUTS_BEGIN = "| cut | food | water | by kind | fat |"


def cuts() -> str:
    """Each cut: the table's food and figures beside what stood here from memory or practice [%]."""
    lines = [
        f"{CUTS_BEGIN} bone | by practice | lost in cooking |",
        "|---|---|---|---|---|---|---|---|",
    ]
    for name, cut in CUTS.items():
        figures, loss = CUT_FIGURES.get(name), usual_loss(cut)
        fat = f"{100 * food(figures.raw).fat:.0f}" if figures else ""
        water = cut.water.value if cut.water else WATER_SHARE[cut.kind].value
        lines.append(
            f"| {name} | {figures.raw if figures else ''} | {100 * water:.0f} "
            f"| {100 * WATER_SHARE[cut.kind].value:.0f} | {fat} | {100 * cut.bone_share:.0f} "
            f"| {100 * BONE_BY_PRACTICE[name]:.0f} "
            f"| {100 * loss.cooked_low:.0f} to {100 * loss.cooked_high:.0f} |"
        )
    return "\n".join(lines) + "\n"


def page() -> str:
    """The page with its tables as the core has them now."""
    head = PAGE.read_text().partition(HEADING)[0].partition(CUTS_BEGIN)[0]
    return f"{head}{cuts()}\n{HEADING}{table(all_rules())}"


if __name__ == "__main__":
    PAGE.write_text(page())
