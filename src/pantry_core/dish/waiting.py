"""How long what is cured through lies, where the cook names no days."""

from dataclasses import dataclass, replace
from typing import Final

from pantry_core.dish.request import CureAsked
from pantry_core.measures.said import span
from pantry_core.meat import Meat
from pantry_core.mixes.judged import Judged
from pantry_core.notice import Notice, notice
from pantry_core.routes.lying import MIXED_IN, Lying, through
from pantry_core.routes.schools import NAMES, Schooling, SchoolName, schooling
from pantry_core.routes.ways import Way
from pantry_core.rules.rule import Mark, Source
from pantry_core.text import say

AROUND_D: Final = 2.0
"""What comes before and after the cure while the piece is raw, about [d] (common practice)."""
LONGEST_WAIT_D: Final = 365.0
USUAL_SCHOOL: Final[dict[str, SchoolName]] = {"Brine": "two-days-a-kilo", "Dry": "week-an-inch"}
"""Whose time most cooks go by, for red meat, by the group of the method (common practice)."""
LONGER_H: Final = 12.0
"""So much longer than the model needs is worth a word [h] (our choice)."""
RED_MEAT: Final = ("pork", "beef", "lamb", "game")


def waits(way: Way | None, schools: Schooling, cure: CureAsked, judged: Judged) -> Lying:
    """How long a piece lies that is cured through.

    Parameters: way, None for none; schools, what every school says of it; cure, with the school
    that the cook goes by; judged, what its mix comes to.
    Returns: the wait of that school. Where the cook names none, what is usual is the longer of the
    usual school and the model's slow edge, and the least what the model says: a plan goes below the
    usual only as far as the time asks. What is proposed is no longer than the raw clock leaves.
    Raises: OutOfRange.
    Source: common practice; the model of `salt.ready`.
    """
    if way is None:
        return Lying(0.0, 0.0, 0.0, (0.0, 0.0, 0.0))
    if judged.request.is_mixed_in:
        return MIXED_IN
    school = cure.school if way.timing == "school" else None
    days = min(schools.chosen(school or "model"), LONGEST_WAIT_D)
    lift_h = judged.wait.lift_h if judged.wait else None
    if school in (None, "model"):
        days = _within_its_clock(days, judged)
    lying = through(way, days, lift_h)
    if school is not None or way.timing != "school" or way.window_h is not None:
        return lying
    longer_d = _longer(way, judged).days
    if judged.raw is not None:
        longer_d = min(longer_d, judged.raw.caution.value - AROUND_D)
    return replace(lying, usual_h=max(lying.usual_h, 24.0 * longer_d))


def said_of_the_wait(way: Way | None, judged: Judged, lying: Lying) -> tuple[Notice, ...]:
    """That more is proposed than the model needs, and by whom.

    Parameters: as of `waits`; lying, how long it lies.
    Returns: one note, where the usual wait is longer than the least.
    Raises: nothing.
    """
    if way is None or lying.usual_h < lying.least_h + LONGER_H:
        return ()
    usual, least = span(lying.usual_h), span(lying.least_h)
    school = _longer(way, judged).school
    if school is None:
        text = say(
            "{usual} in the cure: at the slow edge of the model it takes so long. Usually {least} "
            "are enough, and the plan takes less than {usual} where time is short.",
            usual=usual,
            least=least,
        )
    else:
        text = say(
            "{usual} in the cure, by the rule “{school:lower}”. By the model {least} are enough, "
            "and the plan takes less than {usual} where time is short.",
            usual=usual,
            school=NAMES[school],
            least=least,
        )
    return (notice("note", "longer-wait", text, Source("", Mark.PRACTICE)),)


@dataclass(frozen=True, slots=True)
class Longer:
    """How long a piece is proposed to lie [d], and by which school; None: by the model."""

    days: float
    school: SchoolName | None


def longer_of(way: Way, meat: Meat, slow_d: float) -> Longer:
    """The longer of the usual school, for red meat, and the model's slow edge.

    Parameters: way; meat; slow_d, the slow edge of the model, 0 where it does not reach [d].
    Returns: the longer one.
    Raises: OutOfRange. Source: common practice; the model of `salt.ready`.
    """
    slow = Longer(slow_d, None)
    school = USUAL_SCHOOL.get(way.group)
    if school is None or meat.kind not in RED_MEAT:
        return slow
    days = schooling(meat.mass_g, meat.thickness_mm, None).days[school] or 0.0
    return max(Longer(days, school), slow, key=lambda each: each.days)


def _longer(way: Way, judged: Judged) -> Longer:
    return longer_of(way, judged.request.meat, judged.wait.days_high if judged.wait else 0.0)


def _within_its_clock(days: float, judged: Judged) -> float:
    """The model's wait, or what the raw clock leaves [d]: a stop never comes from the model."""
    if judged.raw is None or days + AROUND_D <= judged.raw.stop.value:
        return days
    caution_d = judged.raw.caution.value
    return min(days, max(caution_d - AROUND_D, caution_d / 2.0))
