"""Inviting somebody into a kitchen."""

from datetime import timedelta

from pantry_core.quantities import Number
from pantry_web import clock
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.members.links import still_open
from pantry_web.members.models import Invitation
from pantry_web.presses.once import once
from pantry_web.refusal import Refused
from pantry_web.sentences import tell

OPEN_FOR = timedelta(days=3)
MOST_OPEN = 10


@once()
def invite(kitchen: Kitchen, role: str, by: Cook) -> Invitation:
    """Make an invitation, open for three days and for one person.

    Raises: Refused when ten are open.
    """
    if still_open(kitchen.invitations.all()).count() >= MOST_OPEN:
        raise Refused(
            tell(
                "{most_open} invitations are open already; end one first.",
                most_open=Number(MOST_OPEN),
            )
        )
    now = clock.real()
    return kitchen.invitations.create(role=role, made_by=by, made_at=now, ends_at=now + OPEN_FOR)


@once()
def end_invitation(invitation: Invitation) -> None:
    """Let a link open nothing any more."""
    invitation.delete()
