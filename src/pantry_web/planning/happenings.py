"""The log in words."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import datetime

from pantry_core.text import say
from pantry_web import quantities
from pantry_web.feasts.models import Event
from pantry_web.planning.outlook import Outlook

What = Event.What


@dataclass(frozen=True, slots=True)
class Happening:
    """One line of the log; `mass_g` is shown in the cook's units [g]."""

    at: datetime
    words: str
    mass_g: float | None
    by: str


def happenings(view: Outlook) -> Iterator[Happening]:
    """What stands in the log, the latest first; of a step's start and end only what tells more."""
    for event in reversed(view.state.events):
        if event.what not in (What.STEP_ENDED, What.HEAT_READ) and not _said_better(view, event):
            yield Happening(event.at, _words(view, event), event.mass_g, event.by.username)


def _said_better(view: Outlook, event: Event) -> bool:
    """Whether another event of the same press says the same in a word of its own."""
    return event.what == What.STEP_STARTED and any(
        other.batch == event.batch
        and other.step_key == event.step_key
        and other.what in (What.PUT_IN, What.LIFTED)
        for other in view.state.events
    )


def _words(view: Outlook, event: Event) -> str:
    tell = _TOLD.get(What(event.what))
    return tell(view, event) if tell else event.what


def _title(view: Outlook, event: Event) -> str:
    step = view.step(event.step_key)
    return step.title if step else event.step_key


def _put_off(view: Outlook, event: Event) -> str:
    until = event.until or event.at
    if until <= event.at:
        return say("{step}: not put off any more", step=_title(view, event))
    at = quantities.at(until, view.dish.feast.time_zone)
    return say("{step}: put off until {at}", step=_title(view, event), at=at)


def _tasted(_: Outlook, event: Event) -> str:
    return say("A slice tasted {taste}", taste=event.get_taste_display().lower())


def _read(view: Outlook, event: Event) -> str:
    told = quantities.temperature(event.temperature_c or 0.0, view.kitchen.units)
    return say("Read {temperature}", temperature=told)


def _heat_set(view: Outlook, event: Event) -> str:
    heat = event.heat or {}
    if heat.get("halved"):
        return say("Cut in two")
    if heat.get("covered"):
        return say("Wrapped")
    told = quantities.temperature(event.temperature_c or 0.0, view.kitchen.units)
    return say("The heat at {temperature}", temperature=told)


_TOLD: dict[What, Callable[[Outlook, Event], str]] = {
    What.STEP_STARTED: _title,
    What.PUT_OFF: _put_off,
    What.TASTED: _tasted,
    What.TOUCHED: lambda _, event: event.get_touch_display().capitalize(),
    What.TEMPERATURE_READ: _read,
    What.HEAT_SET: _heat_set,
    What.LINE_WEIGHED: lambda _, event: say(
        "Weighed out: {line}", line=event.line.replace("-", " ")
    ),
    What.NOTED: lambda _, event: event.note,
    What.PUT_IN: lambda *_: say("Put in"),
    What.TURNED: lambda *_: say("Turned"),
    What.LIFTED: lambda *_: say("Lifted"),
    What.WEIGHED: lambda *_: say("Weighed"),
}
