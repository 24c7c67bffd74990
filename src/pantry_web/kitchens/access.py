"""Whose kitchen is asked for: every query starts from it, and a stranger's object is a 404."""

from django.core.exceptions import PermissionDenied
from django.db.models import Case, Q, When
from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404

from pantry_web.kitchens.models import Cook, Kitchen, Membership

JUST_PLANNED = "just_planned"
"""Where a session keeps the dish that was planned a moment ago, until its plan is shown."""
CHOSEN = "kitchen"
"""Where a session keeps the kitchen that was chosen."""


def cook_of(request: HttpRequest) -> Cook:
    """The cook who is signed in.

    Raises: Http404 for nobody; the sign-in middleware lets nobody come this far.
    """
    if not isinstance(request.user, Cook):
        raise Http404
    return request.user


def kitchen_of(request: HttpRequest) -> Kitchen:
    """The kitchen of the cook who is signed in.

    Raises: Http404 when the cook belongs to none.
    """
    return membership_of(request).kitchen


def membership_of(request: HttpRequest) -> Membership:
    """The cook's part in the kitchen where they cook now, read once for each request.

    That is the kitchen that was chosen since signing in, else the one they have been in longest.

    Raises: Http404 when the cook belongs to none.
    """
    kept: Membership | None = getattr(request, "pantry_membership", None)
    if kept is None:
        cook = cook_of(request)
        mine = Membership.objects.filter(cook=cook).select_related("kitchen")
        chosen = Q(kitchen=request.session.get(CHOSEN))
        first = [Case(When(chosen, then=0), default=1)] if CHOSEN in request.session else []
        kept = get_object_or_404(mine.order_by(*first, "pk")[:1])
        kept.cook = cook
        request.pantry_membership = kept  # type: ignore[attr-defined]  # for this request only
    return kept


def owned_kitchen_of(request: HttpRequest) -> Kitchen:
    """The kitchen, for its owner.

    Raises: PermissionDenied for any other of its cooks; Http404 for who belongs to none.
    """
    membership = membership_of(request)
    if membership.role != Membership.Role.OWNER:
        raise PermissionDenied
    return membership.kitchen


def choose_kitchen(request: HttpRequest, kitchen: Kitchen) -> None:
    """Cook in a kitchen from now on, until signing out."""
    request.session[CHOSEN] = kitchen.pk
