"""The forms of a dish's steps."""

from datetime import datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from django import forms

from pantry_core.dish.answer import DishStep
from pantry_core.plan.problem import GRID
from pantry_core.plan.request import ENDS
from pantry_core.routes.steps import PLACES
from pantry_web.feasts.documents import Document
from pantry_web.feasts.models import Dish
from pantry_web.fields import DurationField, InstantField, NumberField
from pantry_web.kitchens.forms import ZonedForm

MOST_H, MOST_HANDS_H, MOST_EARLY_MIN = 24.0 * 90, 10.0, 720.0
MINUTES = 60.0
USUAL_ROUND = "Look after it"
WINDOW = ("min_h", "prefer_h", "max_h")
UNTIL = {
    "": "its time is up", "inside_c": "so hot inside", "cold_c": "so cold", "tender": "tender",
    "look": "it looks done",
}  # fmt: skip
"""Until what a step goes on, as a form offers it; keys are those of the document."""


class StepForm(ZonedForm):
    """A step: its words, where, how long, its hands and rounds, until what, a fixed start."""

    title = forms.CharField(max_length=80, label="What")
    text = forms.CharField(
        max_length=400, required=False, label="How", widget=forms.Textarea({"rows": 2})
    )
    place = forms.ChoiceField(
        choices=[("", "nowhere in the kitchen"), *((name, name.capitalize()) for name in PLACES)],
        required=False, label="Where",
    )  # fmt: skip
    min_h = DurationField(MOST_H, label="At least")
    prefer_h = DurationField(MOST_H, required=False, label="Best")
    max_h = DurationField(MOST_H, required=False, label="At most")
    hands = DurationField(MOST_HANDS_H, bare="min", required=False, label="Hands")
    attended = forms.BooleanField(required=False, label="Somebody stays with it")
    every_h = DurationField(MOST_H, least_h=0.25, required=False, label="A round every")
    tend = forms.CharField(max_length=200, required=False, label="What a round is")
    until = forms.ChoiceField(choices=list(UNTIL.items()), required=False, label="Until")
    until_c = NumberField(-25, 250, unit="°C", required=False, label="at")
    locked_start = InstantField(required=False, label="Fixed to begin")

    def __init__(self, *args: Any, dish: Dish, **kwargs: Any) -> None:
        super().__init__(*args, zone=dish.feast.time_zone, **kwargs)
        self.dish = dish

    def clean(self) -> dict[str, Any]:
        """The window holds together, and a fixed start lies on the quarter hours of the feast."""
        least, best, most = (self.cleaned_data.get(name) for name in WINDOW)
        if least is not None and most is not None and most < least:
            self.add_error("max_h", "This is under the least; as long, or longer, would do.")
        if least is not None and best is not None and best < least:
            self.add_error("prefer_h", "This is under the least; as long, or longer, would do.")
        if best is not None and most is not None and best > most >= (least or 0):
            self.add_error("prefer_h", "This is over the most; as long, or shorter, would do.")
        is_by_degrees = (self.cleaned_data.get("until") or "").endswith("_c")
        lacks_degrees = self.cleaned_data.get("until_c") is None and "until_c" not in self.errors
        if is_by_degrees and lacks_degrees:
            self.add_error("until_c", "Say at how many degrees, like 68.")
        self._clean_lock()
        return self.cleaned_data

    def _clean_lock(self) -> None:
        locked, serve_at = self.cleaned_data.get("locked_start"), self.dish.feast.serve_at
        if locked is None:
            return
        off = (locked - serve_at) % GRID
        if off:
            zone = ZoneInfo(self.dish.feast.time_zone)
            near = [f"{(locked - off + k * GRID).astimezone(zone):%H:%M}" for k in (0, 1)]
            self.add_error("locked_start", f"The plan goes by quarter hours: {' or '.join(near)}.")
        elif locked >= serve_at:
            self.add_error("locked_start", "This is after the feast; an hour before it would do.")

    @property
    def fields_of_step(self) -> Document:
        """The fields of a step as an edit has them; call it when the form is valid."""
        typed = self.cleaned_data
        until, locked = typed["until"], typed["locked_start"]
        goes_on = {until: typed["until_c"] if until.endswith("_c") else True} if until else None
        return {
            **{name: typed[name] for name in ("title", "text", "tend", "attended")},
            "place": typed["place"] or None,
            **{name: self.kept(name) for name in (*WINDOW, "every_h")},
            "hands_min": MINUTES * (self.kept("hands") or 0.0),
            "until": goes_on,
            "locked_start": locked.isoformat() if locked else None,
        }

    @property
    def changed(self) -> Document:
        """Those fields that differ from what was shown; call it when the form is valid."""
        by_field = {"hands": "hands_min", "until_c": "until"}
        names = {by_field.get(name, name) for name in self.changed_data}
        found = {name: value for name, value in self.fields_of_step.items() if name in names}
        if found.get("every_h") and not self.cleaned_data["tend"]:
            found["tend"] = USUAL_ROUND
        return found


def step_as_it_is(step: DishStep) -> dict[str, Any]:
    """A step as the form shows it."""
    until = next((end for end in ENDS if step.until and end in step.until), "")
    degrees = step.until[until] if step.until and until.endswith("_c") else None
    locked = step.locked_start
    names = ("title", "text", "place", "min_h", "prefer_h", "max_h", "attended", "every_h", "tend")
    return {
        **{name: getattr(step, name) for name in names},
        "hands": step.hands_min / MINUTES,
        "until": until,
        "until_c": None if degrees is None else float(degrees),
        "locked_start": None if locked is None else datetime.fromisoformat(locked),
    }


class OwnStepForm(StepForm):
    """A step of the cook's own, and which it follows."""

    after = forms.ChoiceField(required=False, label="After")

    field_order = ("title", "after")

    def __init__(self, *args: Any, steps: list[DishStep], **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        choices = [("", "first of all"), *((step.id, step.title) for step in steps)]
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

    serve_at = InstantField(required=False, label="Its own hour, if not the feast's")
    early_max_min = NumberField(0, MOST_EARLY_MIN, unit="min", label="May be done earlier by")
    note = forms.CharField(
        max_length=2000, required=False, label="Notes, for next year too",
        widget=forms.Textarea({"rows": 2}),
    )  # fmt: skip

    def __init__(self, *args: Any, dish: Dish, **kwargs: Any) -> None:
        super().__init__(*args, zone=dish.feast.time_zone, **kwargs)
        self.dish = dish

    def clean(self) -> dict[str, Any]:
        """Its own hour lies whole quarters from the feast's, within a month of it."""
        own, feast_at = self.cleaned_data.get("serve_at"), self.dish.feast.serve_at
        if own is not None and (own - feast_at) % GRID:
            self.add_error("serve_at", "The plan goes by quarter hours, counted from the feast's.")
        elif own is not None and abs(own - feast_at) > timedelta(days=30):
            self.add_error("serve_at", "This is over a month from the feast.")
        return self.cleaned_data


class KeepRouteForm(forms.Form):
    """A name under which the steps are kept for another time."""

    name = forms.CharField(max_length=80, label="Save these steps as", label_suffix="")
