"""Everybody signs in; a fragment asked for by nobody any more sends the whole page there."""

from collections.abc import Callable

from django.contrib.auth.middleware import LoginRequiredMiddleware
from django.http import HttpRequest, HttpResponseBase
from django_htmx.http import HttpResponseClientRedirect


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
