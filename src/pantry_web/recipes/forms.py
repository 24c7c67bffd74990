"""The form of a recipe that is to be checked."""

from typing import Any

from django import forms
from django.utils.translation import gettext_lazy as _

from pantry_core.mixes.request import MOST_INJECTION_SHARE
from pantry_core.quantities import Number
from pantry_core.recipes.found import MOST_BYTES, NotARecipe, Recipe, from_json_ld
from pantry_core.routes.ways import WAYS
from pantry_web.feasts.choices import way_choices, way_of
from pantry_web.fields import DurationField, MeatField, NumberField, RecipeTextField
from pantry_web.forms import KitchenForm, PlainForm
from pantry_web.kitchens.models import Kitchen
from pantry_web.sentences import tell, translated

MOST_H = 24.0 * 365
MOST_PEOPLE = 500


class MethodSelect(forms.Select):
    """A select of methods, each saying which fields belong to it."""

    def create_option(self, name: str, value: Any, *args: Any, **kwargs: Any) -> dict[str, Any]:
        """An option with what its method takes."""
        option = super().create_option(name, value, *args, **kwargs)
        way = way_of(str(value))
        return (
            option
            if way is None
            else {**option, "attrs": {**option["attrs"], "data-takes": " ".join(way.takes)}}
        )


class RecipeForm(KitchenForm):
    """The recipe line by line, and what of it is to be used."""

    text = RecipeTextField(
        label=_("The recipe, one thing a line"),
        widget=forms.Textarea(attrs={"rows": 12, "spellcheck": "false"}),
        required=False,
    )
    method = forms.ChoiceField(choices=way_choices, label=_("How"), widget=MethodSelect)
    cups = forms.ChoiceField(choices=Kitchen.Cups.choices, label=_("Cup size"))
    days = DurationField(MOST_H, label=_("How long"), bare="d", required=False)
    used = NumberField(1, 100, unit="%", label=_("Of the liquid, used"), required=False)
    share = NumberField(
        1, 100 * MOST_INJECTION_SHARE, unit="%", label=_("By needle"), required=False
    )
    held_back = NumberField(
        0, 100, unit="%", label=_("Spices held back for the pot"), required=False
    )
    written_for = MeatField(label=_("Written for"), required=False)
    people = forms.IntegerField(
        label=_("Written for, people"), min_value=1, max_value=MOST_PEOPLE, required=False
    )
    to_pot = NumberField(
        0, 100, unit="%", label=_("Of the used brine, into the pot"), required=False
    )

    OF_A_JOB = ("text", "cups", "written_for", "people")

    def __init__(self, *args: Any, is_job: bool = False, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        if is_job:
            self.fields = {name: self.fields[name] for name in self.OF_A_JOB}

    @property
    def way(self) -> Any:
        """The chosen method, once the form is valid; None of a side job, which has none."""
        return WAYS.get(self.cleaned_data.get("method", ""))


class ImportForm(PlainForm):
    """A file with a schema.org Recipe."""

    file = forms.FileField(label=_("Import a recipe (JSON-LD)"), allow_empty_file=True)

    def clean_file(self) -> Recipe:
        """The recipe in it."""
        file = self.cleaned_data["file"]
        if file.size > MOST_BYTES:
            raise forms.ValidationError(
                tell(
                    "This file has {size} MB; use a recipe of 1 MB at the most.",
                    size=Number(file.size / 1e6, 1),
                )
            )
        try:
            return from_json_ld(file.read())
        except NotARecipe as error:
            raise forms.ValidationError(translated(str(error))) from None
