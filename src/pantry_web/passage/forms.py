"""What is asked of a move."""

from django.utils.translation import gettext_lazy as _

from pantry_web.fields import InstantField
from pantry_web.kitchens.forms import ZonedForm


class MoveForm(ZonedForm):
    """When a step is to begin."""

    ids = "id_move_%s"
    begin = InstantField(label=_("Begin at"))
