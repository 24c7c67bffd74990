"""The forms of a dish's steps."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from django import forms
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_core.dish.answer import DishStep
from pantry_core.heat.media import MEDIA, medium_range
from pantry_core.plan.problem import GRID
from pantry_core.plan.request import ENDS
from pantry_core.routes.jobs import JOBS, MOST_MADE_G
from pantry_core.routes.steps import SHOPPING
from pantry_web.clock_face import hour
from pantry_web.feasts.documents import Document
from pantry_web.feasts.forms import REDUCED
from pantry_web.feasts.models import Dish
from pantry_web.fields import (
    DurationField,
    InstantField,
    NumberField,
    QuantityField,
    TemperatureField,
)
from pantry_web.forms import KitchenForm, PlainForm
from pantry_web.ingredient_lines import IngredientsField, as_lines
from pantry_web.kitchens.forms import ZonedForm
from pantry_web.sentences import said, tell

MOST_H, MOST_HANDS_H, MOST_EARLY_MIN = 24.0 * 90, 10.0, 720.0
MINUTES = 60.0
USUAL_ROUND = _("Look after it")
PLACE_NAMES = {
    "freezer": _("Freezer"), "fridge": _("Fridge"), "counter": _("Counter"), "hob": _("Hob"),
    "smoker": _("Smoker"), "oven": _("Oven"), "fire": _("Fire"),
}  # fmt: skip
WINDOW = ("min_h", "prefer_h", "max_h")
UNTIL = {
    "": _("its time is up"), "inside_c": _("so hot inside"), "cold_c": _("so cold"),
    "tender": _("tender"),
    "look": _("it looks done"),
}  # fmt: skip
"""Until what a step goes on, as a form offers it; keys are those of the document."""


MEDIUM_NAMES = {
    "oven": _("Oven"), "fan-oven": _("Fan oven"), "smoker": _("Smoker"), "coals": _("Over coals"),
    "pan": _("Pan"), "water": _("Pot of liquid"), "steam": _("Steam"),
    "pressure": _("Pressure pot"), "fat": _("Fat"), "air": _("Air, kept warm or frozen"),
    "ice-bath": _("Ice bath"), "fridge": _("Fridge"),
}  # fmt: skip
"""What a step heats or cools the piece in, as a form offers it; keys are those of the document."""
LEAST_MEDIUM_C, MOST_MEDIUM_C = -40.0, 600.0
BETWEEN = ":"


@dataclass(frozen=True, slots=True)
class Waited:
    """A step of another dish that can be waited for."""

    dish: str
    step: str
    label: str

    @property
    def value(self) -> str:
        """What the form calls it."""
        return f"{self.dish}{BETWEEN}{self.step}"


class StepForm(ZonedForm):
    """A step: its words, where, how long, its hands and rounds, until what, a fixed start."""

    title = forms.CharField(max_length=80, label=_("What"))
    text = forms.CharField(
        max_length=400, required=False, label=_("How"), widget=forms.Textarea({"rows": 2})
    )
    place = forms.ChoiceField(
        choices=[
            ("", _("nowhere in the kitchen")),
            (SHOPPING, _("In the shop, on the trip for all dishes")),
            *PLACE_NAMES.items(),
        ],
        required=False, label=_("Where"),
    )  # fmt: skip
    min_h = DurationField(MOST_H, label=_("At least"))
    prefer_h = DurationField(MOST_H, required=False, label=_("Best"))
    max_h = DurationField(MOST_H, required=False, label=_("At most"))
    hands = DurationField(MOST_HANDS_H, bare="min", required=False, label=_("Hands"))
    attended = forms.BooleanField(required=False, label=_("Somebody stays with it"))
    every_h = DurationField(MOST_H, least_h=0.25, required=False, label=_("A round every"))
    tend = forms.CharField(max_length=200, required=False, label=_("What a round is"))
    until = forms.ChoiceField(choices=list(UNTIL.items()), required=False, label=_("Until"))
    until_c = TemperatureField(-25, 250, required=False, label=_("at"))
    medium = forms.ChoiceField(
        choices=[("", _("neither heated nor cooled")), *MEDIUM_NAMES.items()],
        required=False, label=_("Heated or cooled in"),
    )  # fmt: skip
    medium_c = TemperatureField(
        LEAST_MEDIUM_C, MOST_MEDIUM_C, required=False, label=_("so hot or cold")
    )
    locked_start = InstantField(required=False, label=_("Fixed to begin"))
    waits = forms.ChoiceField(required=False, label=_("Waits for the end of"))
    wait_h = DurationField(MOST_H, required=False, label=_("and then so long"))

    def __init__(
        self, *args: Any, dish: Dish, others: Sequence[Waited] = (), **kwargs: Any
    ) -> None:
        zone, units = dish.feast.time_zone, dish.feast.kitchen.units
        super().__init__(*args, zone=zone, units=units, **kwargs)
        self.dish = dish
        choices = [("", gettext("no other dish")), *((each.value, each.label) for each in others)]
        shown = self.initial.get("waits")
        if shown and shown not in dict(choices):
            choices.append((shown, gettext("a step that is not there now")))
        self.fields["waits"].choices = choices  # type: ignore[attr-defined]

    def clean(self) -> dict[str, Any]:
        """The window holds together, and a fixed start lies on the quarter hours of the feast."""
        least, best, most = (self.cleaned_data.get(name) for name in WINDOW)
        if least is not None and most is not None and most < least:
            self.add_error("max_h", gettext("This is under the least; choose as long, or longer."))
        if least is not None and best is not None and best < least:
            self.add_error(
                "prefer_h", gettext("This is under the least; choose as long, or longer.")
            )
        if best is not None and most is not None and best > most >= (least or 0):
            self.add_error(
                "prefer_h", gettext("This is over the most; choose as long, or shorter.")
            )
        is_by_degrees = (self.cleaned_data.get("until") or "").endswith("_c")
        lacks_degrees = self.cleaned_data.get("until_c") is None and "until_c" not in self.errors
        if is_by_degrees and lacks_degrees:
            self.add_error("until_c", gettext("Say at how many degrees, like 68."))
        self._clean_medium()
        self._clean_lock()
        return self.cleaned_data

    def _clean_medium(self) -> None:
        name, medium_c = self.cleaned_data.get("medium"), self.cleaned_data.get("medium_c")
        if "medium_c" in self.errors:
            return
        if name and medium_c is None:
            self.add_error("medium_c", gettext("Say how hot or cold it is, like 160."))
        elif medium_c is not None and not name:
            self.add_error("medium", gettext("Say in what; or leave the degrees blank."))
        elif name and medium_c is not None:
            medium = MEDIA[name]
            if not medium.least_c <= medium_c <= medium.most_c:
                self.add_error(
                    "medium_c", said(medium_range(medium, medium_c), self.dish.feast.kitchen.units)
                )

    def _clean_lock(self) -> None:
        locked, serve_at = self.cleaned_data.get("locked_start"), self.dish.feast.serve_at
        if locked is None:
            return
        off = (locked - serve_at) % GRID
        if off:
            zone = ZoneInfo(self.dish.feast.time_zone)
            near = [hour((locked - off + k * GRID).astimezone(zone)) for k in (0, 1)]
            self.add_error(
                "locked_start",
                tell("The plan goes by quarter hours: {near}.", near=" or ".join(near)),
            )
        elif locked >= serve_at:
            self.add_error(
                "locked_start", gettext("This is after the feast; choose an hour before it.")
            )

    @property
    def fields_of_step(self) -> Document:
        """The fields of a step as an edit has them; call it when the form is valid."""
        typed = self.cleaned_data
        until, locked = typed["until"], typed["locked_start"]
        goes_on = {until: typed["until_c"] if until.endswith("_c") else True} if until else None
        return {
            **{name: typed[name] for name in ("title", "text", "tend", "attended")},
            "place": None if typed["place"] == SHOPPING else typed["place"] or None,
            "trip": SHOPPING if typed["place"] == SHOPPING else None,
            **{name: self.kept(name) for name in (*WINDOW, "every_h")},
            "hands_min": MINUTES * (self.kept("hands") or 0.0),
            "until": goes_on,
            "medium": typed["medium"] or None,
            "medium_c": typed["medium_c"],
            "locked_start": locked.isoformat() if locked else None,
            "after": self._after,
        }

    @property
    def _after(self) -> list[Document]:
        """What is waited for; only the first of several can be changed here."""
        others = list(self.initial.get("other_waits", ()))
        dish, _, step = self.cleaned_data["waits"].partition(BETWEEN)
        if not step:
            return others
        return [{"dish": dish, "step": step, "min_h": self.kept("wait_h") or 0.0}, *others]

    @property
    def changed(self) -> Document:
        """Those fields that differ from what was shown; call it when the form is valid."""
        by_field = {
            "hands": "hands_min", "until_c": "until", "waits": "after", "wait_h": "after",
        }  # fmt: skip
        names = {by_field.get(name, name) for name in self.changed_data}
        names |= {"trip"} if "place" in names else set()
        found = {name: value for name, value in self.fields_of_step.items() if name in names}
        if found.get("every_h") and not self.cleaned_data["tend"]:
            found["tend"] = USUAL_ROUND
        return found


def step_as_it_is(step: DishStep) -> dict[str, Any]:
    """A step as the form shows it."""
    until = next((end for end in ENDS if step.until and end in step.until), "")
    degrees = step.until[until] if step.until and until.endswith("_c") else None
    locked = step.locked_start
    names = ("title", "text", "min_h", "prefer_h", "max_h", "attended", "every_h", "tend")
    return {
        **{name: getattr(step, name) for name in names},
        "hands": step.hands_min / MINUTES,
        "place": SHOPPING if step.trip == SHOPPING else step.place,
        "until": until,
        "until_c": None if degrees is None else float(degrees),
        "medium": step.medium or "",
        "medium_c": step.medium_c,
        "locked_start": None if locked is None else datetime.fromisoformat(locked),
        **_waits_as_they_are(step),
    }


def _waits_as_they_are(step: DishStep) -> dict[str, Any]:
    if not step.after:
        return {}
    first, *others = step.after
    return {
        "waits": f"{first.dish}{BETWEEN}{first.step}",
        "wait_h": first.min_h or None,
        "other_waits": [each.model_dump(exclude_unset=True) for each in others],
    }


class OwnStepForm(StepForm):
    """A step of the cook's own, and which it follows."""

    after = forms.ChoiceField(required=False, label=_("After"))

    field_order = ("title", "after")

    def __init__(self, *args: Any, steps: list[DishStep], **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        choices = [("", gettext("first of all")), *((step.id, step.title) for step in steps)]
        self.fields["after"].choices = choices  # type: ignore[attr-defined]

    @property
    def fields_of_step(self) -> Document:
        """The fields of the new step; call it when the form is valid."""
        given = super().fields_of_step
        if given["every_h"] and not given["tend"]:
            given["tend"] = USUAL_ROUND
        return {name: value for name, value in given.items() if value is not None}


class DishHourForm(ZonedForm):
    """When a dish is served, how much earlier it may be done [min], and its notes."""

    serve_at = InstantField(required=False, label=_("Its own hour, if not the feast's"))
    early_max_min = NumberField(
        0, MOST_EARLY_MIN, unit=_("min"), required=False, label=_("May be done earlier by"),
        help_text=_("leave blank for all in the last half hour"),
    )  # fmt: skip
    note = forms.CharField(
        max_length=2000, required=False, label=_("Notes, for next year too"),
        widget=forms.Textarea({"rows": 2}),
    )  # fmt: skip

    def __init__(self, *args: Any, dish: Dish, **kwargs: Any) -> None:
        super().__init__(*args, zone=dish.feast.time_zone, **kwargs)
        self.dish = dish

    def clean(self) -> dict[str, Any]:
        """Its own hour lies whole quarters from the feast's, within a month of it."""
        own, feast_at = self.cleaned_data.get("serve_at"), self.dish.feast.serve_at
        if own is not None and (own - feast_at) % GRID:
            self.add_error(
                "serve_at", gettext("The plan goes by quarter hours, counted from the feast's.")
            )
        elif own is not None and abs(own - feast_at) > timedelta(days=30):
            self.add_error("serve_at", gettext("This is over a month from the feast."))
        return self.cleaned_data


class JobPartsForm(KitchenForm):
    """How much of a side job is made [g], of what, and how far it is boiled down."""

    amount = QuantityField("mass", MOST_MADE_G, least=1.0, label=_("How much in all"))
    reduced_to = forms.ChoiceField(
        choices=[("", _("by half")), *((str(part), name) for part, name in REDUCED.items())],
        required=False, label=_("Boiled down"),
    )  # fmt: skip
    ingredients = IngredientsField(required=False, label=_("What goes into it, one a line"))

    def __init__(self, *args: Any, dish: Dish, units: str, **kwargs: Any) -> None:
        job = dish.document["job"]
        shown = {
            "amount": job["made_g"],
            "reduced_to": str(job.get("reduced_to", "")),
            "ingredients": as_lines(job.get("ingredients") or (), units),
        }
        super().__init__(*args, units=units, initial=shown, **kwargs)
        if job.get("recipe"):
            del self.fields["ingredients"]
        else:
            self.fields["ingredients"].units = units  # type: ignore[attr-defined]
        if not JOBS[job["name"]].is_reduced if job["name"] in JOBS else True:
            del self.fields["reduced_to"]

    @property
    def parts(self) -> Document:
        """The parts of the side job; None for what is as usual. Call it when it is valid."""
        typed = self.cleaned_data
        reduced_to = float(typed["reduced_to"]) if typed.get("reduced_to") else None
        return {
            "made_g": self.kept("amount"), "reduced_to": reduced_to,
            "ingredients": typed.get("ingredients"),
        }  # fmt: skip


class KeepRouteForm(PlainForm):
    """A name under which the steps are kept for another time."""

    name = forms.CharField(max_length=80, label=_("Save these steps as"), label_suffix="")
