"""Forms of those who come in."""

from typing import TYPE_CHECKING

from django import forms
from django.contrib.auth.forms import UserCreationForm
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_web.fields import LongSelect
from pantry_web.forms import PlainForm
from pantry_web.kitchens.actions.found_kitchen import OVEN_SHELVES
from pantry_web.kitchens.forms import ZONES
from pantry_web.kitchens.models import Cook, Kitchen, Membership
from pantry_web.members.first_start import is_start_word

if TYPE_CHECKING:
    _CookForm = UserCreationForm[Cook]
else:
    _CookForm = UserCreationForm


class NewCookForm(_CookForm):
    """Somebody who has not signed in here before."""

    class Meta:
        model = Cook
        fields = ("username",)


class FirstStartForm(NewCookForm):
    """The first cook, who owns the kitchen, and knows the word that the console shows."""

    word = forms.CharField(
        max_length=40, label=_("Setup code that the program showed when it started"),
        widget=forms.TextInput({"autocomplete": "off", "autofocus": True}),
    )  # fmt: skip
    kitchen_name = forms.CharField(
        max_length=80, label=_("Name of your kitchen"), initial=_("My kitchen")
    )
    time_zone = forms.ChoiceField(
        choices=ZONES, initial="Europe/London", label=_("Time zone"), widget=LongSelect
    )
    units = forms.ChoiceField(choices=Kitchen.Units.choices, label=_("Show amounts in"))
    clock_face = forms.ChoiceField(choices=Kitchen.ClockFace.choices, label=_("Show hours as"))
    oven_shelves = forms.TypedChoiceField(
        choices=[(n, str(n)) for n in range(1, 5)],
        initial=OVEN_SHELVES,
        coerce=int,
        required=False,
        label=_("Shelves in your oven"),
    )

    def clean_word(self) -> str:
        """The word of whoever started the program."""
        word: str = self.cleaned_data["word"]
        if not is_start_word(word):
            raise forms.ValidationError(
                gettext("This is not the word. It stands where it was started.")
            )
        return word


class RoleForm(PlainForm):
    """What somebody is, or will be, in a kitchen."""

    role = forms.ChoiceField(
        label=_("As"),
        choices=[
            (Membership.Role.COOK, _("a cook, who does everything in the kitchen")),
            (Membership.Role.OWNER, _("an owner, who also says who cooks here")),
        ],
    )
