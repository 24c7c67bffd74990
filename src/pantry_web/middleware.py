"""Everybody signs in, what is changed is planned, and a busy database is said so."""

import logging
from collections.abc import Callable

from django.contrib.auth.middleware import LoginRequiredMiddleware
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import render
from django_htmx.http import HttpResponseClientRedirect

from pantry_web import clock, clock_face
from pantry_web.kitchens.access import kitchen_of, membership_of
from pantry_web.planning.looking import ask_for_plans
from pantry_web.presses.once import WROTE

log = logging.getLogger(__name__)

MOST_PLANNED = 3
"""So many feasts are planned after a press that names none; the page asks for those it shows."""
NOT_SENT_AGAIN = (
    "csrfmiddlewaretoken", "password", "password1", "password2", "old_password", "new_password1",
    "new_password2", "word",
)  # fmt: skip


class BusyMiddleware:
    """A database that stays busy is said so, with all that was typed to be sent again."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer."""
        return self.get_response(request)

    def process_exception(self, request: HttpRequest, exception: Exception) -> HttpResponse | None:
        """Say that the database is busy; leave anything else alone."""
        if not isinstance(exception, OperationalError) or "locked" not in str(exception):
            return None
        log.warning("The database was busy: %s", request.path)
        typed = [
            (name, value)
            for name, values in request.POST.lists()
            if name not in NOT_SENT_AGAIN
            for value in values
        ]
        context = {"typed": typed, "is_post": request.method == "POST", "path": request.path}
        return render(request, "busy.html", context, status=503)


class SignInMiddleware(LoginRequiredMiddleware):
    """Django's own, with an answer that htmx follows."""

    def process_view(
        self,
        request: HttpRequest,
        view_func: Callable[..., HttpResponseBase],
        view_args: tuple[object, ...],
        view_kwargs: dict[str, object],
    ) -> HttpResponseBase | None:
        """Let those pass who are signed in; send the others to sign in."""
        response = super().process_view(request, view_func, view_args, view_kwargs)
        if response is not None and request.headers.get("HX-Request") == "true":
            return HttpResponseClientRedirect(response["Location"])
        return response


class PlanningMiddleware:
    """What a press changed is planned before it is answered: the next page has its hours."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer, and ask for the plan of the feast that was changed; after others, for the next.

        The press is done whatever becomes of the plan: the next page asks for it again.
        """
        if request.method != "POST":
            return self.get_response(request)
        turn = WROTE.set(False)
        try:
            response = self.get_response(request)
            has_written = WROTE.get()
        finally:
            WROTE.reset(turn)
        if has_written and request.user.is_authenticated:
            try:
                _plan(request)
            except Http404:
                log.info("A cook without a kitchen has no plans.")
            except OperationalError:
                log.warning("The database was busy: a plan was not asked for.")
        return response


def _plan(request: HttpRequest) -> None:
    kitchen = kitchen_of(request)
    if kitchen.pk is None:
        return  # it was a rehearsal, and is gone
    named = request.resolver_match.kwargs if request.resolver_match else {}
    now, feasts = clock.now(kitchen), kitchen.feasts.all()
    dish_id = named.get("dish_id", named.get("job_id"))
    if "feast_id" in named:
        feasts = feasts.filter(pk=named["feast_id"])
    elif dish_id is not None:
        feasts = feasts.filter(dishes__pk=dish_id)
    else:
        feasts = feasts.filter(serve_at__gt=now)
    ask_for_plans(list(feasts[:MOST_PLANNED]), kitchen, now)


class ClockFaceMiddleware:
    """Hours are said by the clock of the kitchen; it is read where a page says an hour."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer."""

        def face() -> str:
            if not request.user.is_authenticated:
                return clock_face.FACES[0]
            try:
                return membership_of(request).kitchen.clock_face
            except Http404:
                return clock_face.FACES[0]

        with clock_face.shown(face):
            return self.get_response(request)


class PrivateMiddleware:
    """No copy of a signed-in page stays anywhere, and no page asks the machine for anything."""

    POLICY = ", ".join(
        f"{name}=()"
        for name in (
            "accelerometer", "autoplay", "camera", "display-capture", "geolocation", "gyroscope",
            "magnetometer", "microphone", "midi", "payment", "usb",
        )
    )  # fmt: skip

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer."""
        response = self.get_response(request)
        response.headers.setdefault("Permissions-Policy", self.POLICY)
        if request.user.is_authenticated:
            response.headers.setdefault("Cache-Control", "no-store, private")
        return response
