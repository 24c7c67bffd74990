"""The log in words."""

from dataclasses import dataclass
from datetime import datetime

from pantry_core.text import say
from pantry_web.feasts.models import Event
from pantry_web.planning.outlook import Outlook
from pantry_web.quantities import temperature

What = Event.What


@dataclass(frozen=True, slots=True)
class Happening:
    """One line of the log; `mass_g` is shown in the cook's units [g]."""

    at: datetime
    words: str
    mass_g: float | None
    by: str


def happenings(view: Outlook) -> list[Happening]:
    """What stands in the log, the latest first; of a step's start and end only what tells more."""
    told = [
        Happening(event.at, _words(view, event), event.mass_g, event.by.username)
        for event in view.state.events
        if event.what != What.STEP_ENDED and not _said_better(view, event)
    ]
    return told[::-1]


def _said_better(view: Outlook, event: Event) -> bool:
    """Whether another event of the same press says the same in a word of its own."""
    return event.what == What.STEP_STARTED and any(
        other.batch == event.batch
        and other.step_key == event.step_key
        and other.what in (What.PUT_IN, What.LIFTED)
        for other in view.state.events
    )


def _words(view: Outlook, event: Event) -> str:
    if event.what == What.STEP_STARTED:
        step = view.step(event.step_key)
        return step.title if step else event.step_key
    if event.what == What.TASTED:
        return say(
            "A slice tasted {taste}",
            taste=event.get_taste_display().lower(),
        )
    if event.what == What.TOUCHED:
        return event.get_touch_display().capitalize()
    if event.what == What.TEMPERATURE_READ:
        return say(
            "Read {temperature}",
            temperature=temperature(event.temperature_c or 0.0, view.kitchen.units),
        )
    if event.what == What.LINE_WEIGHED:
        return say("Weighed out: {line}", line=event.line.replace("-", " "))
    return {
        What.NOTED: event.note,
        What.PUT_IN: say("Put in"),
        What.TURNED: say("Turned"),
        What.LIFTED: say("Lifted"),
        What.WEIGHED: say("Weighed"),
    }.get(What(event.what), event.what)
