"""Writing once: what a form does is kept together with the form's key, or neither is."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from datetime import timedelta

from django.db import transaction

from pantry_web import clock
from pantry_web.presses.models import Press

KNOWN_FOR = timedelta(days=7)
"""How long a press is known again; a page is not open for longer than that."""


class DoneBefore(Exception):
    """The same form was sent before, and is done."""


@dataclass(slots=True)
class Pressing:
    """The form that is being answered."""

    digest: str
    is_done: bool = False


PRESSING: ContextVar[Pressing | None] = ContextVar("pressing", default=None)
"""Set by the middleware for as long as a form with a key is answered."""


WROTE: ContextVar[bool] = ContextVar("wrote", default=False)
"""Whether something was written since the middleware cleared it."""


@contextmanager
def once() -> Iterator[None]:
    """Write in one transaction, and only if the form that asks for it has not been done yet.

    Everything that changes what somebody keeps is written within it, as a block or a decorator.

    Raises: DoneBefore; nothing is written then.
    """
    pressing = PRESSING.get()
    is_first = pressing is not None and not pressing.is_done
    try:
        with transaction.atomic():
            if pressing is not None and is_first:
                _keep(pressing)
            yield
        WROTE.set(True)
    except BaseException:
        if pressing is not None and is_first:
            pressing.is_done = False
        raise


def _keep(pressing: Pressing) -> None:
    """Write the press down; the transaction is the only one that writes, so nobody is faster."""
    if Press.objects.filter(pk=pressing.digest).exists():
        raise DoneBefore
    Press.objects.filter(at__lt=clock.real() - KNOWN_FOR).delete()
    Press.objects.create(digest=pressing.digest)
    pressing.is_done = True
