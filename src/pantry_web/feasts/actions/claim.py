"""One change of a plan at a time."""

from django.db.models import F
from django.utils.translation import gettext_lazy as _

from pantry_web.feasts.models import Feast
from pantry_web.presses.once import once
from pantry_web.refusal import Refused

CHANGED = _(
    "Somebody has changed this feast since you opened it. What you typed is still "
    "here; look at the plan as it is now, then press again."
)


@once()
def claim(feast: Feast, seen: int) -> None:
    """Take the turn to change a feast that was last seen at a version.

    Parameters: feast; seen, the version the cook was looking at.
    Raises: Refused when somebody has changed it since.
    """
    taken = Feast.objects.filter(pk=feast.pk, version=seen).update(version=F("version") + 1)
    feast.refresh_from_db(fields=["version"])
    if not taken:
        raise Refused(CHANGED)
