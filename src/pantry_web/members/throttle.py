"""Wrong passwords: how many from where, for whom, before nobody is let in for a while.

Three counts, each within a quarter of an hour: for a name from an address, from an address
whatever the name, for a name whatever the address. A browser in which a cook has signed in before
is counted by itself and by nothing else, so that no stranger can lock that cook out.
"""

from collections.abc import Mapping
from ipaddress import IPv6Address, ip_address
from uuid import uuid4

from axes.attempts import get_cool_off_threshold
from axes.handlers.database import AxesDatabaseHandler
from axes.models import AccessAttempt
from django.conf import settings
from django.core.signing import BadSignature, Signer
from django.db.models import QuerySet, Sum
from django.http import HttpRequest, HttpResponse

COOKIE = "known"
KEPT_FOR_S = 365 * 24 * 3600
MOST_NAMES = 5
"""Cooks whom one browser is known by; the longest away is forgotten."""
NAMES_OF_AN_ADDRESS, ADDRESSES_OF_A_NAME = 5, 10
"""So many times the limit of a name at an address are tried from an address, or of a name."""
IPV6_NETWORK_BITS = 64

_SIGNER = Signer(salt="known-browser")


class Throttle(AxesDatabaseHandler):  # type: ignore[misc]  # axes ships no types
    """Counts wrong passwords as said above."""

    def get_failures(
        self, request: HttpRequest, credentials: Mapping[str, str] | None = None
    ) -> int:
        """The count that is nearest to its limit, as if that were the limit of a name."""
        name, address = counted_name(request, credentials), address_of(request)
        recent = AccessAttempt.objects.filter(attempt_time__gte=get_cool_off_threshold(request))
        if is_known(request, credentials):
            return _failures(recent.filter(username=name))
        return max(
            _failures(recent.filter(username=name, ip_address=address)),
            _failures(recent.filter(ip_address=address)) // NAMES_OF_AN_ADDRESS,
            _failures(recent.filter(username=name)) // ADDRESSES_OF_A_NAME,
        )

    def reset_user_attempts(
        self, request: HttpRequest, credentials: Mapping[str, str] | None = None
    ) -> int:
        """Forget what was wrong for this name in this browser or at this address, nothing else."""
        mine = AccessAttempt.objects.filter(username=counted_name(request, credentials))
        if not is_known(request, credentials):
            mine = mine.filter(ip_address=address_of(request))
        forgotten: int = mine.delete()[0]
        return forgotten


def _failures(attempts: QuerySet[AccessAttempt]) -> int:
    total: int | None = attempts.aggregate(total=Sum("failures_since_start"))["total"]
    return total or 0


def counted_name(request: HttpRequest, credentials: Mapping[str, str] | None = None) -> str:
    """The name under which a wrong password is counted: with its browser where that is known."""
    name = _name(request, credentials)
    mark = _known(request).get(name)
    return f"{name} @ {mark}" if mark else name


def is_known(request: HttpRequest, credentials: Mapping[str, str] | None = None) -> bool:
    """Whether whoever that name belongs to has signed in with this browser before."""
    return _name(request, credentials) in _known(request)


def address_of(request: HttpRequest) -> str:
    """Where a request is from; of an IPv6 address the network, for a household has a whole one.

    The server has taken a trusted proxy's word for it, and nobody else's.
    """
    text: str = request.META.get("REMOTE_ADDR", "")
    try:
        address = ip_address(text)
    except ValueError:
        return "0.0.0.0"  # noqa: S104 - an address that is none, as behind a local socket
    if isinstance(address, IPv6Address):
        host_bits = 128 - IPV6_NETWORK_BITS
        return str(IPv6Address(int(address) >> host_bits << host_bits))
    return text


def know_browser(request: HttpRequest, response: HttpResponse, name: str) -> None:
    """Remember that a cook has signed in with this browser."""
    known = _known(request)
    mark = known.pop(name, None) or uuid4().hex
    known = dict([*known.items(), (name, mark)][-MOST_NAMES:])
    response.set_cookie(
        COOKIE, _SIGNER.sign_object(known), max_age=KEPT_FOR_S, httponly=True, samesite="Lax",
        secure=settings.SESSION_COOKIE_SECURE,
    )  # fmt: skip


def _known(request: HttpRequest) -> dict[str, str]:
    try:
        known: dict[str, str] = _SIGNER.unsign_object(request.COOKIES.get(COOKIE, ""))
    except (BadSignature, ValueError):
        return {}
    return known


def _name(request: HttpRequest, credentials: Mapping[str, str] | None) -> str:
    return (credentials or {}).get("username") or request.POST.get("username", "")
