"""The form by which a page asks for the plans that nobody has asked for yet."""

from collections.abc import Iterable

from django import template
from django.template import Context

from pantry_web.planning.outlook import FeastOutlook

register = template.Library()


@register.inclusion_tag("planning/_ask.html", takes_context=True)
def ask_for_plans_of(
    context: Context, wholes: Iterable[FeastOutlook] | FeastOutlook, *, keeps_itself: bool = False
) -> dict[str, object]:
    """The form, which sends itself where there is a script.

    Parameters: context; wholes, the feasts that the page shows; keeps_itself, whether its script
    keeps it up to date. Such a page also asks again, from time to time, for plans that are being
    worked out: whoever works on them may be gone.
    """
    shown = [wholes] if isinstance(wholes, FeastOutlook) else list(wholes)
    to_ask = {each.feast.pk for each in shown if each.standing.is_to_be_asked_for}
    running = {each.feast.pk for each in shown if each.solving is not None} - to_ask
    return {
        "to_ask": sorted(to_ask),
        "running": sorted(running) if keeps_itself else (),
        "keeps_itself": keeps_itself,
        "csrf_token": context.get("csrf_token", ""),
    }
