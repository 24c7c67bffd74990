"""The queue: hand over, lease, progress, stop, failed, the stored answer."""

import logging
import threading
from collections.abc import Callable, Sequence
from datetime import timedelta
from typing import Any
from uuid import UUID, uuid4

from django.db import OperationalError, close_old_connections, connections
from django.db.models import F, Q
from django.utils import timezone
from django_tasks.base import Task

from pantry_web.background.models import Work
from pantry_web.background.patient import write_if_free
from pantry_web.kitchens.models import Kitchen

LEASE = timedelta(seconds=15)
RENEWED_S = 5.0
"""A lease is renewed so often [s]."""
PATIENCE = timedelta(seconds=15)
"""When nobody has begun after so long, whoever asks does it."""
FORGOTTEN = timedelta(days=30)
"""What was asked for so long ago is thrown away."""
MOST_TRIES = 6
"""So often an answer is written to a database that is busy, each time waiting for it."""
ASIDE = "aside-"
"""What the key of an answer begins with that no longer holds."""
MOST_ATTEMPTS = 5
"""So often a worker may be gone in the middle before it is given up."""

Document = dict[str, Any]
Deed = Callable[["Report"], object]
State = Work.State

log = logging.getLogger(__name__)


class Report:
    """What whoever works on something knows of it, and tells on the way."""

    def __init__(self, work: Work, holder: UUID) -> None:
        self.work, self.document = work, work.document
        self._mine = Work.objects.filter(pk=work.pk, holder=holder)

    def tell(self, **progress: object) -> None:
        """Say how far it is; a busy database hears it the next time."""
        write_if_free(lambda: self._mine.update(progress=progress))

    def answer(self, answer: object) -> None:
        """Say what is known so far; a busy database hears it the next time."""
        write_if_free(lambda: self._mine.update(answer=answer))

    def wants_stop(self) -> bool:
        """Whether the best so far will do."""
        return self._mine.filter(wants_stop=True).exists()

    def finish(self, answer: object) -> None:
        """Say the answer, however long the database is busy."""
        for tries_left in reversed(range(MOST_TRIES)):
            try:
                self._mine.update(state=State.DONE, answer=answer)
            except OperationalError:
                if not tries_left:
                    raise
            else:
                return


def hand_over(
    kitchen: Kitchen, key: str, document: Document, task: Task[[int], None], so_far: object = None,
    about: str = "",
) -> Work:  # fmt: skip
    """Ask for something, once for a kitchen and key.

    What was handed over and lost, because its worker is gone or nobody works, is handed over again.

    Parameters: kitchen; key; document that is asked; task, which takes the number of the work;
    so_far, the answer until there is a better one; about, the thing that it is asked of.
    Returns: the work, perhaps done.
    """
    asked = {
        "document": document, "queued_at": timezone.now(), "answer": so_far, "about": about,
    }  # fmt: skip
    work, is_new = Work.objects.get_or_create(kitchen=kitchen, key=key, defaults=asked)
    if is_new:
        Work.objects.filter(queued_at__lt=timezone.now() - FORGOTTEN).delete()
        task.enqueue(work.pk)
    elif work.state in (State.WAITING, State.RUNNING):
        _rescue(work, task)
    else:
        return work
    work.refresh_from_db()
    return work


def set_aside(work: Work) -> None:
    """Keep an answer that no longer holds under a key of its own, so that it is asked for again.

    It stands as the last answer about its thing. Nothing is done when it was asked again meanwhile.
    """
    Work.objects.filter(pk=work.pk, state=work.state, queued_at=work.queued_at).update(
        key=f"{ASIDE}{work.pk}"
    )


def asked_for(kitchen: Kitchen, key: str) -> Work | None:
    """The work under a key; None where there is none."""
    return Work.objects.filter(kitchen=kitchen, key=key).defer("document").first()


def last_answers(kitchen: Kitchen, abouts: Sequence[str]) -> list[Work]:
    """The last answer about each thing; a thing without an answer is left out."""
    done = Work.objects.filter(kitchen=kitchen, about__in=abouts, state=State.DONE)
    newest = dict(done.order_by("queued_at").values_list("about", "pk"))
    return list(Work.objects.filter(pk__in=newest.values()).defer("document"))


def answer_so_far(work: Work, answer: object) -> None:
    """Say what is known of something that nobody has answered yet."""
    is_open = Work.objects.filter(pk=work.pk, answer=None).exclude(state=State.DONE)
    is_open.update(answer=answer)


def keep_answer(
    kitchen: Kitchen, key: str, document: Document, answer: object, about: str = ""
) -> None:
    """Keep an answer that was worked out at once."""
    done = Work(
        kitchen=kitchen, key=key, document=document, queued_at=timezone.now(), state=State.DONE,
        answer=answer, about=about,
    )  # fmt: skip
    Work.objects.bulk_create(
        [done], update_conflicts=True, unique_fields=["kitchen", "key"],
        update_fields=["document", "queued_at", "state", "answer", "about"],
    )  # fmt: skip


def retry(work: Work, task: Task[[int], None]) -> None:
    """Try again what failed."""
    is_waiting = Work.objects.filter(pk=work.pk, state=State.FAILED).update(
        state=State.WAITING, attempts=0, queued_at=timezone.now(), wants_stop=False
    )
    if is_waiting:
        task.enqueue(work.pk)


def ask_to_stop(work: Work) -> None:
    """Ask whoever works on it to go on with the best so far."""
    Work.objects.filter(pk=work.pk).update(wants_stop=True)


def carry_out(pk: int, deed: Deed) -> None:
    """Work on something, unless somebody else does, and keep its answer.

    What raises is marked as failed; a busy database leaves it waiting.
    """
    holder, now = uuid4(), timezone.now()
    is_free = Q(state=State.WAITING) | Q(state=State.RUNNING, leased_until__lt=now)
    taken = Work.objects.filter(is_free, pk=pk).update(
        state=State.RUNNING, holder=holder, leased_until=now + LEASE, attempts=F("attempts") + 1
    )
    if not taken:
        return
    mine = Work.objects.filter(pk=pk, holder=holder)
    work, is_over = Work.objects.get(pk=pk), threading.Event()
    renewing = threading.Thread(target=_renew, args=(pk, holder, is_over), daemon=True)
    renewing.start()
    try:
        report = Report(work, holder)
        report.finish(deed(report))
    except OperationalError:
        log.warning("The database was busy: %s waits.", work)
        mine.update(state=State.WAITING, holder=None, queued_at=timezone.now())
    except Exception:
        log.exception("Work failed: %s", work)
        mine.update(state=State.FAILED, holder=None)
    finally:
        is_over.set()


def _renew(pk: int, holder: UUID, is_over: threading.Event) -> None:
    """Renew the lease until the work is over."""
    try:
        while not is_over.wait(RENEWED_S):
            close_old_connections()
            try:
                Work.objects.filter(pk=pk, holder=holder).update(
                    leased_until=timezone.now() + LEASE
                )
            except OperationalError:
                log.warning("The database was busy: a lease was not renewed.")
    finally:
        connections.close_all()


def _rescue(work: Work, task: Task[[int], None]) -> None:
    """Hand over again what was lost; when nobody works, do it here."""
    now = timezone.now()
    same = Work.objects.filter(pk=work.pk, state=work.state, queued_at=work.queued_at)
    is_lost = work.state == State.RUNNING and (work.leased_until or now) < now
    if is_lost and work.attempts >= MOST_ATTEMPTS:
        same.update(state=State.FAILED, holder=None)
    elif is_lost:
        if same.update(state=State.WAITING, holder=None, queued_at=now):
            task.enqueue(work.pk)
    elif work.state == State.WAITING and now - work.queued_at > PATIENCE:
        task.call(work.pk)
