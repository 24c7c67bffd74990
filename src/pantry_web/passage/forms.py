"""What is asked of a move."""

from typing import Any
from zoneinfo import ZoneInfo

from django.utils.translation import gettext_lazy as _

from pantry_web.fields import InstantField
from pantry_web.forms import PlainForm


class MoveForm(PlainForm):
    """When a step is to begin."""

    ids = "id_move_%s"
    begin = InstantField(label=_("Begin at"))

    def __init__(self, *args: Any, zone: str, **kwargs: Any) -> None:
        kwargs.setdefault("label_suffix", "")
        super().__init__(*args, **kwargs)
        field = self.fields["begin"]
        if isinstance(field, InstantField):
            field.zone = ZoneInfo(zone)
