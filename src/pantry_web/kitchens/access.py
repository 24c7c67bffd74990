"""Whose kitchen is asked for: every query starts from it, and a stranger's object is a 404."""

from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404

from pantry_web.kitchens.models import Cook, Kitchen


def cook_of(request: HttpRequest) -> Cook:
    """The cook who is signed in.

    Raises: Http404 for nobody; the sign-in middleware lets nobody come this far.
    """
    if not isinstance(request.user, Cook):
        raise Http404
    return request.user


def kitchen_of(request: HttpRequest) -> Kitchen:
    """The kitchen of the cook who is signed in, read once for each request.

    Raises: Http404 when the cook belongs to none.
    """
    kept: Kitchen | None = getattr(request, "pantry_kitchen", None)
    if kept is None:
        mine = Kitchen.objects.filter(memberships__cook=cook_of(request))
        kept = get_object_or_404(mine.order_by("memberships__pk")[:1])
        request.pantry_kitchen = kept  # type: ignore[attr-defined]  # kept for this request only
    return kept
