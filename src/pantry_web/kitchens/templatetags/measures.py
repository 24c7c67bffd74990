"""Amounts and times as templates show them."""

from collections.abc import Iterable, Sized
from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

from django import template
from django.template import defaultfilters
from django.utils import dateformat

from pantry_core.dish.answer import DishNotice
from pantry_core.measures.said import days_between, days_said
from pantry_core.measures.said import span as span_of
from pantry_core.mixes.standing import EVERY_DISH_CODES
from pantry_core.plan.instants import Instant
from pantry_core.quantities import Division, Moment
from pantry_web import clock_face, quantities, sentences
from pantry_web.kitchens.models import Kitchen

register = template.Library()

LEAST_PCT = 0.05

register.filter("said", sentences.said)
register.filter("temperature", quantities.temperature)


@register.filter
def all_said(texts: Iterable[str], units: str) -> list[str]:
    """Texts of the core, each in the language of the page and the units of the kitchen."""
    return [sentences.said(each, units) for each in texts]


@register.filter
def floatformat(value: float, digits: int | str = -1) -> str:
    """As Django's, with a point in every language: what is read here is typed with a point."""
    return str(defaultfilters.floatformat(value, f"{digits}u"))


@register.filter
def span(hours: float) -> str:
    """A length of time as people say it."""
    return sentences.translated(span_of(hours))


@register.filter
def days(length: float) -> str:
    """Days as people say them."""
    return sentences.translated(days_said(length))


@register.filter
def days_to(low: float, high: float) -> str:
    """A range of days, rounded outwards."""
    return sentences.translated(days_between(low, high))


@register.filter
def volume(millilitres: float, units: str) -> str:
    """A volume in the kitchen's units."""
    return sentences.translated(quantities.volume(millilitres, units))


@register.simple_tag
def roughly_between(low_g: float, high_g: float, units: str) -> str:
    """A range of masses as one asks for them in a shop; one mass, where both are said alike."""
    low, high = (quantities.roughly(grams, units) for grams in (low_g, high_g))
    return low if low == high else sentences.tell("{low} to {high}", low=low, high=high)


@register.filter
def count(found: Sized) -> int:
    """How many there are."""
    return len(found)


@register.filter
def reminders(notices: Iterable[DishNotice]) -> list[DishNotice]:
    """Those of the notices that ask for care and for no change."""
    return [each for each in notices if each.is_reminder]


@register.filter
def of_this_dish(notices: Iterable[DishNotice]) -> list[DishNotice]:
    """The reminders of this dish alone: what every dish is told stands in the handbook."""
    return [each for each in reminders(notices) if each.code not in EVERY_DISH_CODES]


@register.filter
def unread(notices: Iterable[DishNotice], kitchen: Kitchen) -> list[DishNotice]:
    """Those of the reminders that this kitchen has not understood yet."""
    return [each for each in notices if each.code not in kitchen.understood]


@register.filter
def asking(notices: Iterable[DishNotice]) -> list[DishNotice]:
    """Those of the notices that stop or ask for a change, the worst first."""
    return sorted(
        (each for each in notices if not each.is_reminder), key=lambda each: each.level != "stop"
    )


@register.filter
def mass(grams: float, units: str) -> str:
    """A mass in the cook's units."""
    return quantities.mass(grams, units)


@register.filter
def roughly(grams: float, units: str) -> str:
    """A mass as one asks for it in a shop."""
    return quantities.roughly(grams, units)


@register.filter
def mass_parts(grams: float, units: str) -> list[tuple[str, str]]:
    """A mass as numbers and units, to be set in different sizes."""
    return quantities.mass_parts(grams, units)


@register.filter
def division(grams: float) -> str:
    """What a scale reads to, in grams as it is written on it."""
    return quantities.measured(Division(grams), "metric")


@register.simple_tag
def line_mass(name: str, grams: float, units: str) -> quantities.LineMass:
    """The mass of a line of a mix, and the same in other units beside it."""
    return quantities.line_mass(name, grams, units)


@register.filter
def percentage(value: float) -> str:
    """A percentage as fine as anybody tastes it, without its sign: 1.7, and 0 for next to none."""
    return "0" if abs(value) < LEAST_PCT else f"{value:.1f}"


@register.filter
def litres(value: float, units: str) -> str:
    """A volume in litres, in the kitchen's units."""
    return volume(1000 * value, units)


@register.simple_tag
def room(litres: float, unit: str, units: str) -> str:
    """The room of a fridge, as its owner told it, else in the kitchen's units."""
    return quantities.room(litres, unit or quantities.DEFAULT_ROOM_UNIT[units])


@register.filter
def percent(share: float) -> str:
    """A share as a percentage."""
    return f"{100 * share:.0f} %"


@register.filter
def length(millimetres: float, units: str) -> str:
    """A thickness in the cook's units."""
    return quantities.length(millimetres, units)


@register.filter
def at(moment: datetime, zone: str) -> str:
    """A moment as Thu 18 Mar, 19:12 in a zone."""
    return sentences.translated(quantities.at(moment, zone))


@register.filter
def when(instant: Instant) -> str:
    """An instant as Thu 18 Mar, 19:12 in its zone."""
    return sentences.tell("{moment}", moment=Moment(instant.local, "day-hour"))


@register.filter
def dated(moment: datetime, zone: str) -> str:
    """The day as Thu 18 Mar 2027 in a zone."""
    return dateformat.format(moment.astimezone(ZoneInfo(zone)), "D j M Y")


@register.filter
def hour(moment: datetime, zone: str) -> str:
    """The time of day in a zone."""
    return sentences.translated(clock_face.hour(moment.astimezone(ZoneInfo(zone))))


@register.filter
def five(moment: datetime, zone: str) -> str:
    """The time of day in a zone, to five minutes, as a forecast says it."""
    return sentences.translated(quantities.five(moment, zone))


@register.filter
def kilos(grams: float, units: str) -> str:
    """What is bought by the sack."""
    return quantities.kilos(grams, units)


@register.filter
def lasting(length: timedelta) -> str:
    """A length of time as people say it."""
    return span(length.total_seconds() / 3600.0)


@register.filter
def minus(one: float, other: float) -> float:
    """One less the other."""
    return one - other


@register.filter
def degrees_risen(celsius: float, units: str) -> str:
    """A rise or a fall in degrees of the kitchen's units, with its sign."""
    return quantities.degrees_risen(celsius, units)


@register.filter
def day(moment: datetime, zone: str) -> str:
    """The day as Thu 18 Mar in a zone."""
    return dateformat.format(moment.astimezone(ZoneInfo(zone)), "D j M")


@register.filter
def until(then: datetime, now: datetime) -> str:
    """How long it is from now till then."""
    return sentences.translated(span_of(quantities.hours_of(then - now)))
