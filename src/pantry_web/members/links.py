"""The address of an invitation: signed, so that nobody makes one up, and never stored."""

from django.core.signing import BadSignature, Signer
from django.db.models import QuerySet

from pantry_web import clock
from pantry_web.kitchens.models import Kitchen
from pantry_web.members.models import Invitation

_SIGNER = Signer(salt="invitation")


def token_of(invitation: Invitation) -> str:
    """What stands in the address."""
    return _SIGNER.sign_object(invitation.pk)


def invitation_of(token: str) -> Invitation | None:
    """The invitation that an address names, if it still opens the door."""
    try:
        pk = _SIGNER.unsign_object(token)
    except (BadSignature, ValueError):
        return None
    return still_open(Invitation.objects.select_related("kitchen")).filter(pk=pk).first()


def still_open(invitations: QuerySet[Invitation]) -> QuerySet[Invitation]:
    """Those that are neither used nor over."""
    return invitations.filter(used_by=None, ends_at__gt=clock.real())


def open_links(kitchen: Kitchen) -> list[tuple[Invitation, str]]:
    """The open invitations of a kitchen, each with what stands in its address."""
    return [(each, token_of(each)) for each in still_open(kitchen.invitations.all())]
