"""What is next of a dish, for the head of its page."""

from django import template

from pantry_web.planning.hands import Task, tasks
from pantry_web.planning.outlook import Outlook

register = template.Library()


@register.simple_tag
def next_of(view: Outlook) -> Task | None:
    """What the hands have to do next, None where nothing is left or the dish is thrown away."""
    if view.is_discarded:
        return None
    return next(iter(tasks(view)), None)
