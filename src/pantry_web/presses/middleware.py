"""Knowing a form again that was sent twice."""

import hashlib
import logging
import time
from collections.abc import Callable
from urllib.parse import urlsplit

from django.contrib import messages
from django.contrib.messages.storage.base import BaseStorage
from django.db import OperationalError
from django.http import HttpRequest, HttpResponse, HttpResponseBase, HttpResponseRedirect
from django.utils.http import url_has_allowed_host_and_scheme

from pantry_web.presses.models import Press
from pantry_web.presses.once import PRESSING, DoneBefore, Pressing

log = logging.getLogger(__name__)

KEY = "once"
LONGEST_KEY = 64
NOT_OF_THE_PRESS = ("csrfmiddlewaretoken", "age_s")
WAITS_S, LOOKS_EVERY_S = 10.0, 0.05
"""How long the second of two presses waits for the answer to the first [s]."""


class OnceMiddleware:
    """The same form a second time is answered as it was the first time, and nothing is done."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer, and keep the answer for the press that did something."""
        turn = PRESSING.set(None)
        try:
            response = self.get_response(request)
            pressing = PRESSING.get()
        finally:
            PRESSING.reset(turn)
        if pressing is None:
            return response
        if pressing.is_done:
            _keep_answer(pressing.digest, request, response)
        elif Press.objects.filter(pk=pressing.digest).exists():
            return _answered_again(request, pressing.digest)
        return response

    def process_view(self, request: HttpRequest, *_: object) -> HttpResponse | None:
        """Answer at once what is known; the token of the form has been looked at by now."""
        key = request.POST.get(KEY, "") if request.method == "POST" else ""
        if not key or len(key) > LONGEST_KEY or not request.user.is_authenticated:
            return None
        digest = _digest(request)
        if Press.objects.filter(pk=digest).exists():
            return _answered_again(request, digest)
        PRESSING.set(Pressing(digest))
        return None

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        """Answer what another press of the same form has done meanwhile."""
        if not isinstance(error, DoneBefore):
            return None
        PRESSING.set(None)
        return _answered_again(request, _digest(request))


def _digest(request: HttpRequest) -> str:
    """Who sent what to where."""
    seen = hashlib.sha256()

    def take(text: str | None) -> None:
        """With its length, so that no two lists of texts look alike."""
        raw = (text or "").encode(errors="surrogatepass")
        seen.update(b"%d:%b" % (len(raw), raw))

    take(str(request.user.pk))
    take(request.path)
    for name, values in sorted(request.POST.lists()):
        for value in values if name not in NOT_OF_THE_PRESS else ():
            take(name)
            take(str(value))
    for name, files in sorted(request.FILES.lists()):
        for sent in files:
            take(name)
            of_file = hashlib.sha256()
            for chunk in sent.chunks():
                of_file.update(chunk)
            seen.update(of_file.digest())
            sent.seek(0)
    return seen.hexdigest()


def _keep_answer(digest: str, request: HttpRequest, response: HttpResponseBase) -> None:
    told = _told(request)
    location = response.headers.get("Location", "")
    try:
        Press.objects.filter(pk=digest).update(location=location, told=told)
    except OperationalError:
        log.warning("The answer to what was done at %s could not be kept", request.path)


def _told(request: HttpRequest) -> list[list[object]]:
    """What the next page will say."""
    said = messages.get_messages(request)
    told: list[list[object]] = [[each.level, str(each.message)] for each in said]
    if isinstance(said, BaseStorage):
        said.used = False
    return told


def _answered_again(request: HttpRequest, digest: str) -> HttpResponse:
    """The answer of the first press; of one that was never answered, the page it came from."""
    until = time.monotonic() + WAITS_S
    press = Press.objects.filter(pk=digest).first()
    while press is not None and press.location is None and time.monotonic() < until:
        time.sleep(LOOKS_EVERY_S)
        press = Press.objects.filter(pk=digest).first()
    still = _told(request)
    for level, text in press.told if press is not None else ():
        if [level, text] not in still:
            messages.add_message(request, level, text)
    return HttpResponseRedirect((press.location if press else None) or _came_from(request))


def _came_from(request: HttpRequest) -> str:
    came_from = request.headers.get("Referer", "")
    is_ours = url_has_allowed_host_and_scheme(came_from, {request.get_host()})
    return (urlsplit(came_from).path if is_ours else "") or "/"
