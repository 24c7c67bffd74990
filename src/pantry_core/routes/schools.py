"""How long, by whom: the kitchen's rules beside the model."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.errors import within
from pantry_core.meat import MOST_MEAT_G, MOST_THICKNESS_MM
from pantry_core.rules.constants import MM_AN_INCH, WEEK_AN_INCH
from pantry_core.rules.rule import Mark, Rule

SchoolName = Literal["model", "week-an-inch", "two-days-a-kilo", "five-days", "fortnight"]

TWO_DAYS_A_KILO = Rule(
    "two-days-a-kilo", 2.0, "d/kg", "two days a kilo and two more", Mark.PRACTICE
)
FIVE_DAYS = Rule("five-days", 5.0, "d", "five days", Mark.PRACTICE)
FORTNIGHT = Rule("fortnight", 14.0, "d", "a fortnight", Mark.PRACTICE)

NAMES: dict[SchoolName, str] = {
    "model": "This model",
    "week-an-inch": "A week an inch",
    "two-days-a-kilo": "Two days a kilo, and two",
    "five-days": "Five days",
    "fortnight": "A fortnight",
}


@dataclass(frozen=True, slots=True)
class Schooling:
    """What every school says of a piece [d]; the model's is None where it does not reach."""

    days: dict[SchoolName, float | None]

    def chosen(self, school: SchoolName) -> float:
        """Days by the chosen school; a week an inch where the model does not reach [d]."""
        found = self.days[school]
        fallback = self.days["week-an-inch"]
        return found if found is not None else fallback or 0.0


def schooling(mass_g: float, thickness_mm: float, model_days: float | None) -> Schooling:
    """What every school says.

    Parameters: mass_g [g] and thickness_mm [mm] of the piece; model_days, what the model says [d].
    Returns: days by each.
    Raises: OutOfRange.
    Source: common practice, but for the model.

    >>> schooling(2000.0, 50.8, 12.0).days["week-an-inch"]
    14.0
    """
    within("mass_g", mass_g, 1e-6, MOST_MEAT_G, "g")
    within("thickness_mm", thickness_mm, 1e-6, MOST_THICKNESS_MM, "mm")
    return Schooling(
        {
            "model": model_days,
            "week-an-inch": WEEK_AN_INCH.value * thickness_mm / MM_AN_INCH.value,
            "two-days-a-kilo": TWO_DAYS_A_KILO.value * (mass_g / 1000.0 + 1.0),
            "five-days": FIVE_DAYS.value,
            "fortnight": FORTNIGHT.value,
        }
    )
