"""Coming into a kitchen by an invitation."""

from django.utils.translation import gettext_lazy as _

from pantry_web.kitchens.models import Cook, Membership
from pantry_web.members.links import still_open
from pantry_web.members.models import Invitation
from pantry_web.presses.once import once
from pantry_web.refusal import Refused
from pantry_web.sentences import tell

OVER = _("This invitation is used or over. Ask whoever sent it for another.")


@once()
def join(invitation: Invitation, cook: Cook) -> Membership:
    """Take an invitation up.

    Raises: Refused when it is used or over, or the cook is in that kitchen already.
    """
    if Membership.objects.filter(kitchen=invitation.kitchen, cook=cook).exists():
        raise Refused(tell("You cook at {kitchen} already.", kitchen=str(invitation.kitchen)))
    mine = still_open(Invitation.objects.filter(pk=invitation.pk))
    if not mine.update(used_by=cook):
        raise Refused(OVER)
    return Membership.objects.create(kitchen=invitation.kitchen, cook=cook, role=invitation.role)


@once()
def join_as_new(invitation: Invitation, name: str, password: str) -> Cook:
    """Make a cook, who takes an invitation up.

    Raises: Refused when it is used or over; nobody is made then.
    """
    cook = Cook.objects.create_user(name, password=password)
    join(invitation, cook)
    return cook
