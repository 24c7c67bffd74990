"""What is told of a dish after the meal, and what is looked for in the ledger."""

from datetime import timedelta
from typing import Any

from django import forms
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_core.meat import MOST_MEAT_G
from pantry_web.feasts.choices import cut_choices, heat_choices, way_choices
from pantry_web.feasts.models import Dish, Event
from pantry_web.fields import InstantField, QuantityField
from pantry_web.forms import FileForm, PlainForm
from pantry_web.kitchens.forms import ZonedForm
from pantry_web.ledger.models import Review
from pantry_web.ledger.pictures import MOST_BYTES

NEAR = timedelta(hours=12)
"""A dish is ready within so long of its hour, or it was another one."""
UNTOLD = ("", _("not told"))


class ReviewForm(ZonedForm):
    """How salty, how tender, how done; when it was ready, what was left, what to do next time."""

    saltiness = forms.ChoiceField(
        choices=[UNTOLD, *Event.Taste.choices], label=_("How salty"), required=False
    )
    tender = forms.ChoiceField(
        choices=[UNTOLD, *Review.Tender.choices], label=_("How tender"), required=False
    )
    doneness = forms.ChoiceField(
        choices=[UNTOLD, *Review.Doneness.choices], label=_("How done"), required=False
    )
    skin = forms.ChoiceField(
        choices=[("", _("no skin, or not told")), *Review.Skin.choices],
        label=_("Skin"), required=False,
    )  # fmt: skip
    bland = forms.ChoiceField(
        choices=[
            ("", _("not looked at")), ("0", _("seasoned or pink right through")),
            ("0.1", _("a thin line was bland or grey")), ("0.3", _("a third was bland or grey")),
            ("0.5", _("half was bland or grey")), ("0.8", _("nearly all was bland or grey")),
        ],
        label=_("The middle, where it was cut"), required=False,
    )  # fmt: skip
    ready_at = InstantField(required=False, label=_("When it was really ready"))
    left = QuantityField("mass", MOST_MEAT_G, label=_("What was left"), required=False)
    next_time = forms.CharField(
        max_length=1000, label=_("What to do differently"), required=False,
        widget=forms.Textarea(attrs={"rows": 3}),
    )  # fmt: skip

    def __init__(self, *args: Any, dish: Dish, **kwargs: Any) -> None:
        super().__init__(*args, zone=dish.feast.time_zone, **kwargs)
        self.dish = dish

    def clean(self) -> dict[str, Any]:
        """Something is told, and it was ready near its hour."""
        ready_at = self.cleaned_data.get("ready_at")
        served_at = self.dish.serve_at or self.dish.feast.serve_at
        if ready_at is not None and abs(ready_at - served_at) > NEAR:
            self.add_error("ready_at", gettext("That is more than twelve hours from its hour."))
        is_told = any(each not in (None, "") for each in self.cleaned_data.values())
        if not self.errors and not is_told:
            self.add_error("next_time", gettext("Tell something of it first, or skip it."))
        return self.cleaned_data

    @property
    def told(self) -> dict[str, Any]:
        """What was told, as fields of a review."""
        typed = self.cleaned_data
        names = ("saltiness", "tender", "doneness", "skin", "ready_at", "next_time")
        return {
            **{name: typed[name] for name in names},
            "bland_share": float(typed["bland"]) if typed["bland"] else None,
            "left_g": typed["left"],
        }


def typed_of(review: Review | None) -> dict[str, Any]:
    """A review as it stands in its form."""
    if review is None:
        return {}
    names = ("saltiness", "tender", "doneness", "skin", "ready_at", "next_time")
    share = review.bland_share
    return {
        **{name: getattr(review, name) for name in names},
        "bland": "" if share is None else f"{share:g}",
        "left": review.left_g,
    }


class PhotoForm(FileForm):
    """A photo of a dish."""

    most_bytes = MOST_BYTES
    too_big = _("The photo is too large.")


class LookForm(PlainForm):
    """What is looked for in the ledger."""

    q = forms.CharField(max_length=80, label=_("Words"), required=False)
    cut = forms.ChoiceField(label=_("Cut"), required=False)
    method = forms.ChoiceField(label=_("Method"), required=False)
    way = forms.ChoiceField(label=_("Way of cooking"), required=False)
    feast = forms.CharField(max_length=80, label=_("Feast"), required=False)

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        kwargs.setdefault("label_suffix", "")
        super().__init__(*args, **kwargs)
        offered = {
            "cut": cut_choices(), "method": way_choices(), "way": heat_choices(),
        }  # fmt: skip
        for name, choices in offered.items():
            field = self.fields[name]
            if isinstance(field, forms.ChoiceField):
                field.choices = [("", gettext("any")), *[each for each in choices if each[0]]]
