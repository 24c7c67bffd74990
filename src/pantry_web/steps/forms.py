"""The forms of a dish's steps."""

from datetime import timedelta
from typing import Any
from zoneinfo import ZoneInfo

from django import forms
from django.utils.text import slugify

from pantry_core.plan.problem import GRID
from pantry_core.routes.steps import PLACES
from pantry_web.feasts.models import Dish, KeptRoute, Step
from pantry_web.fields import InstantField, NumberField
from pantry_web.kitchens.forms import ZonedForm

MOST_H, MOST_HANDS_MIN, MOST_EARLY_MIN = 24.0 * 90, 600.0, 720.0
MOST_STEPS = 30
WINDOW = ("min_h", "prefer_h", "max_h")


class StepForm(ZonedForm):
    """A step: where, how long [h], its hands [min], its rounds [h], a start that is fixed."""

    title = forms.CharField(max_length=80, label="What")
    place = forms.ChoiceField(
        choices=[("", "nowhere in the kitchen"), *((name, name.capitalize()) for name in PLACES)],
        required=False, label="Where",
    )  # fmt: skip
    min_h = NumberField(0, MOST_H, unit="h", label="At least")
    prefer_h = NumberField(0, MOST_H, unit="h", required=False, label="Best")
    max_h = NumberField(0, MOST_H, unit="h", required=False, label="At most")
    hands_min = NumberField(0, MOST_HANDS_MIN, unit="min", required=False, label="Hands")
    every_h = NumberField(0.25, MOST_H, unit="h", required=False, label="A round every")
    attended = forms.BooleanField(required=False, label="Somebody stays with it")
    locked_start = InstantField(required=False, label="Fixed to begin")

    def __init__(self, *args: Any, dish: Dish, **kwargs: Any) -> None:
        super().__init__(*args, zone=dish.feast.time_zone, **kwargs)
        self.dish = dish

    def clean(self) -> dict[str, Any]:
        """The window holds together, and a fixed start lies on the quarter hours of the feast."""
        least, best, most = (self.cleaned_data.get(name) for name in WINDOW)
        if least is not None and most is not None and most < least:
            self.add_error("max_h", f"At most {most:g} h contradicts at least {least:g} h.")
        if least is not None and best is not None and best < least:
            self.add_error("prefer_h", f"This is under the least of {least:g} h.")
        if best is not None and most is not None and best > most >= (least or 0):
            self.add_error("prefer_h", f"This is over the most of {most:g} h.")
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

    def save(self, step: Step) -> None:
        """Keep it, as changed by the cook."""
        for name in self.fields:
            if name in Step.__dict__:
                setattr(step, name, self.cleaned_data[name])
        step.hands_min = self.cleaned_data["hands_min"] or 0.0
        step.is_changed = True
        step.save()


class OwnStepForm(StepForm):
    """A step of the cook's own, and which it follows."""

    after = forms.ChoiceField(required=False, label="After")

    field_order = ("title", "after")

    def __init__(self, *args: Any, steps: list[Step], **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        choices = [("", "first of all"), *((step.key, step.title) for step in steps)]
        self.fields["after"].choices = choices  # type: ignore[attr-defined]
        self.steps = steps

    def clean(self) -> dict[str, Any]:
        """There is room for another step."""
        super().clean()
        if len(self.steps) >= MOST_STEPS:
            self.add_error("title", f"{MOST_STEPS} steps are the most; remove one first.")
        return self.cleaned_data

    def add(self) -> Step:
        """Make room behind the step it follows, and put it there."""
        keys = {step.key for step in self.steps}
        stem = slugify(self.cleaned_data["title"])[:32] or "step"
        key = next(
            each
            for each in (stem, *(f"{stem}-{n}" for n in range(2, MOST_STEPS + 2)))
            if each not in keys
        )
        after = next(
            (step.position for step in self.steps if step.key == self.cleaned_data["after"]), -1
        )
        for step in reversed(self.steps):
            if step.position > after:
                step.position += 1
                step.save(update_fields=["position"])
        tend = "Look after it" if self.cleaned_data["every_h"] else ""
        step = Step(
            dish=self.dish, position=after + 1, key=key, kind="own", is_own=True, tend=tend,
            begin=self.cleaned_data["title"],
        )  # fmt: skip
        self.save(step)
        return step


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

    def save(self) -> None:
        """Keep it."""
        for name in ("serve_at", "early_max_min", "note"):
            setattr(self.dish, name, self.cleaned_data[name])
        self.dish.save(update_fields=["serve_at", "early_max_min", "note"])


class KeepRouteForm(forms.Form):
    """A name under which the steps are kept for another time."""

    name = forms.CharField(max_length=80, label="Keep these steps as", label_suffix="")

    def save(self, dish: Dish, steps: list[dict[str, object]]) -> KeptRoute:
        """Keep them, in place of any of the same name."""
        route, _ = KeptRoute.objects.update_or_create(
            kitchen=dish.feast.kitchen, name=self.cleaned_data["name"], defaults={"steps": steps}
        )
        return route
