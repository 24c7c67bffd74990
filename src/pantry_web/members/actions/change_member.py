"""Changing what somebody is in a kitchen, and removing them from it."""

from django.utils.translation import gettext_lazy as _

from pantry_web.kitchens.models import Membership
from pantry_web.presses.once import once
from pantry_web.refusal import Refused

LAST = _("A kitchen has an owner. Make somebody else one first.")


@once()
def set_role(member: Membership, role: str) -> None:
    """Make somebody an owner or a cook.

    Raises: Refused when no owner would be left.
    """
    if role != Membership.Role.OWNER:
        _refuse_last_owner(member)
    member.role = role
    member.save(update_fields=["role"])


@once()
def remove_member(member: Membership) -> None:
    """Remove somebody from a kitchen; what they wrote down there stays.

    Raises: Refused when no owner would be left.
    """
    _refuse_last_owner(member)
    member.delete()


def _refuse_last_owner(member: Membership) -> None:
    owners = Membership.objects.filter(kitchen=member.kitchen_id, role=Membership.Role.OWNER)
    if not owners.exclude(pk=member.pk).exists():
        raise Refused(LAST)
