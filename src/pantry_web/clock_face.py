"""How a kitchen says the hours of the day: 18:30, or 6:30 pm."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from datetime import datetime, time

from pantry_core.text import say

FACES = ("24", "12")
"""A clock of so many hours."""
Hour = datetime | time


def _of_24() -> str:
    return FACES[0]


_chosen: ContextVar[Callable[[], str]] = ContextVar("clock_face", default=_of_24)


@contextmanager
def shown(face: Callable[[], str]) -> Iterator[None]:
    """Say hours by a clock face, which is asked for when the first hour is said."""
    before = _chosen.set(face)
    try:
        yield
    finally:
        _chosen.reset(before)


def is_of_12() -> bool:
    """Whether hours are said in twelves."""
    return _chosen.get()() == "12"


def hour(moment: Hour) -> str:
    """The hour of a local moment, to be translated like any other text.

    >>> hour(time(18, 30))
    '18:30'
    >>> with shown(lambda: "12"):
    ...     hour(time(18, 30)), hour(time(0, 5)), hour(time(12, 0))
    ('6:30 pm', '12:05 am', '12:00 pm')
    """
    if not is_of_12():
        return f"{moment:%H:%M}"
    of_12 = f"{moment.hour % 12 or 12}:{moment:%M}"
    return say("{hour} am", hour=of_12) if moment.hour < 12 else say("{hour} pm", hour=of_12)
