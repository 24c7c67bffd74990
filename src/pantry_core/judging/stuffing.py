"""When the stuffing goes in."""

from collections.abc import Iterator

from pantry_core.heat.warm import TWO_HOURS
from pantry_core.judging.case import Case
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Hours
from pantry_core.rules.inside import STUFFED
from pantry_core.text import say


def stuffed_just_before(case: Case) -> Iterator[Notice]:
    """Stuffing goes in just before the heat: nobody says when, it was in from the beginning."""
    if "stuffed" not in case.request.treatments or not case.is_animal:
        return
    before = list(case.history.before_the_heat())
    begins = [each for each in before if each.is_stuffed]
    if not any(each.is_stuffed for each in case.history.stays):
        begins = before
    hours = sum(each.hours for each in begins if each.state != "frozen")
    if hours > TWO_HOURS.value:
        text = say(
            "Stuffed {hours} before the heat: stuff it just before, loosely, never the day before.",
            hours=Hours(hours, 0),
        )
        yield notice("stop", "stuffed-early", text, STUFFED)
