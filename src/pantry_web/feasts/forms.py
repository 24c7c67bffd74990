"""The forms of a feast and of its side jobs."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from django import forms
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_core.meat import MOST_THICKNESS_MM
from pantry_core.plan.instants import NotAnInstant, local_instant
from pantry_core.quantities import Clock, Moment
from pantry_core.routes.jobs import JOBS, MOST_MADE_G, Job, Made, fed_by, job_route
from pantry_core.text import joined
from pantry_web.feasts.choices import cut_choices
from pantry_web.feasts.models import Dish, Feast, KeptRoute, Mishap
from pantry_web.fields import (
    InstantField,
    LongSelect,
    MeatField,
    NumberField,
    QuantityField,
    TemperatureField,
)
from pantry_web.forms import FileForm, KitchenForm, PlainForm
from pantry_web.ingredient_lines import IngredientsField
from pantry_web.kitchens.forms import ZONES, ZonedForm
from pantry_web.sentences import refusal, tell

REDUCED = {
    0.33: _("to a third"),
    0.25: _("to a quarter"),
    0.2: _("to a fifth"),
    0.1: _("to a tenth"),
}
"""How far a stock or a sauce is boiled down."""
FARTHEST = timedelta(days=365)


class FeastForm(KitchenForm):
    """Name, date, hour, zone and heads; `cleaned_data["serve_at"]` is the instant."""

    name = forms.CharField(max_length=80, label=_("What is it called?"))
    date = forms.DateField(label=_("Date"), widget=forms.DateInput({"type": "date"}, "%Y-%m-%d"))
    hour = forms.TimeField(
        label=_("Hour to eat"), widget=forms.TimeInput({"type": "time"}, "%H:%M")
    )
    time_zone = forms.ChoiceField(choices=ZONES, label=_("Time zone"), widget=LongSelect)
    heads = NumberField(1, 500, label=_("People"))
    note = forms.CharField(
        max_length=2000,
        required=False,
        label=_("Notes, for next year too"),
        widget=forms.Textarea({"rows": 3}),
    )
    version = forms.IntegerField(min_value=0, required=False, widget=forms.HiddenInput)

    def __init__(self, *args: Any, now: datetime, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.now = now

    def clean_version(self) -> int:
        """The version that was looked at; a new feast has none."""
        return self.cleaned_data["version"] or 0

    def look_again(self, version: int) -> None:
        """Take the present version, so that the next press counts."""
        self.data = {**self.data.dict(), "version": str(version)}  # type: ignore[attr-defined]  # a form that was posted

    @property
    def told(self) -> dict[str, Any]:
        """What was typed; call it when the form is valid."""
        names = ("name", "serve_at", "time_zone", "heads", "note")
        return {name: self.cleaned_data[name] for name in names}

    def clean_heads(self) -> int:
        """A whole number of people."""
        heads: float = self.cleaned_data["heads"]
        if heads != int(heads):
            raise forms.ValidationError(gettext("People come whole; use a whole number."))
        return int(heads)

    def clean(self) -> dict[str, Any]:
        """Put date, hour and zone together into an instant that exists and lies ahead."""
        day: date | None = self.cleaned_data.get("date")
        hour: time | None = self.cleaned_data.get("hour")
        zone_name: str | None = self.cleaned_data.get("time_zone")
        if day is None or hour is None or zone_name is None:
            return self.cleaned_data
        zone = ZoneInfo(zone_name)
        today = self.now.astimezone(zone).date()
        if day < today:
            self.add_error(
                "date",
                tell("This day is over; today is {today}.", today=Moment(today)),
            )
        elif day > today + FARTHEST:
            self.add_error("date", gettext("This is over a year ahead; use a day within a year."))
        else:
            self._set_instant(datetime.combine(day, hour.replace(second=0)), zone)
        return self.cleaned_data

    def _set_instant(self, local: datetime, zone: ZoneInfo) -> None:
        try:
            serve_at = local_instant(local, zone)
        except NotAnInstant as error:
            self.add_error("hour", refusal(error))
            return
        if serve_at <= self.now:
            shown = self.now.astimezone(zone)
            self.add_error(
                "hour", tell("This hour is over; it is {shown} now.", shown=Clock(shown))
            )
        self.cleaned_data["serve_at"] = serve_at


def as_it_is(feast: Feast) -> dict[str, object]:
    """What the form shows of a stored feast."""
    local = feast.serve_at.astimezone(ZoneInfo(feast.time_zone))
    return {
        "name": feast.name,
        "date": local.date(),
        "hour": local.time(),
        "time_zone": feast.time_zone,
        "heads": float(feast.heads),
        "note": feast.note,
        "version": feast.version,
    }


@dataclass(frozen=True, slots=True)
class Source:
    """A dish that a side job can be made from, with its steps."""

    key: str
    name: str
    steps: tuple[Made, ...]


class JobForm(KitchenForm):
    """A side job: what, called what, how much of it [g], of which dishes and ingredients."""

    ids = "id_job_%s"
    job = forms.ChoiceField(label=_("What"))
    name = forms.CharField(max_length=80, required=False, label=_("Called"))
    amount = QuantityField(
        "mass", MOST_MADE_G, least=1.0, required=False, label=_("How much in all")
    )
    made_from = forms.MultipleChoiceField(
        required=False, label=_("Made from, or waits for"), widget=forms.CheckboxSelectMultiple
    )
    reduced_to = forms.ChoiceField(
        choices=[("", _("by half")), *((str(part), name) for part, name in REDUCED.items())],
        required=False, label=_("Boiled down"),
    )  # fmt: skip
    ingredients = IngredientsField(required=False, label=_("Its ingredients, one a line"))

    def __init__(
        self,
        *args: Any,
        people: int,
        kept: Iterable[KeptRoute] = (),
        sources: Sequence[Source] = (),
        **kwargs: Any,
    ) -> None:
        super().__init__(*args, **kwargs)
        self.people, self.sources = people, sources
        self.saved = {f"kept-{each.pk}": each for each in kept if each.job}
        self.fields["job"].choices = [  # type: ignore[attr-defined]
            *((job.id, joined(": ", (job.name, job.saying))) for job in JOBS.values()),
            *(
                (key, tell("{route}: saved by you", route=each.name))
                for key, each in self.saved.items()
            ),
        ]
        self.fields["made_from"].choices = [  # type: ignore[attr-defined]
            (each.key, each.name) for each in sources
        ]
        self.fields["ingredients"].units = kwargs.get("units", "metric")  # type: ignore[attr-defined]

    @property
    def document(self) -> dict[str, Any]:
        """The `dish` document of the side job; call it when the form is valid."""
        typed, kept = self.cleaned_data, self.saved.get(self.cleaned_data["job"])
        before: dict[str, Any] = kept.job if kept and kept.job else {}
        known = JOBS[before.get("name", typed["job"])]
        made_g = typed["amount"] or before.get("a_head_g", known.a_head_g) * self.people
        reduced_to = float(typed["reduced_to"]) if typed["reduced_to"] else None
        told = {
            "reduced_to": (reduced_to or before.get("reduced_to")) if known.is_reduced else None,
            "ingredients": typed["ingredients"] or before.get("ingredients"),
            "steps": kept.steps if kept else None,
        }
        job = {"name": known.id, "made_g": made_g}
        job |= {name: value for name, value in told.items() if value is not None}
        edits = self._waits(known, kept.steps if kept else None)
        return {"job": job, **({"edits": edits} if edits else {})}

    @property
    def called(self) -> str:
        """Its name: as typed, or that of what it is."""
        key: str = self.cleaned_data["job"]
        usual = self.saved[key].name if key in self.saved else JOBS[key].name
        return self.cleaned_data["name"] or usual

    def _waits(self, known: Job, kept: list[dict[str, Any]] | None) -> list[dict[str, Any]]:
        """What the side job waits for, by what it is made from."""
        own = [each.id for each in job_route(known, 1000.0)] if kept is None else [
            each["id"] for each in kept
        ]  # fmt: skip
        waits: dict[str, list[dict[str, Any]]] = {}
        for source in self.sources:
            if source.key in self.cleaned_data["made_from"]:
                step, waited = fed_by(known, source.steps)
                after = {"dish": source.key, "step": waited}
                waits.setdefault(step if step in own else own[-1], []).append(after)
        return [{"step": step, "after": after} for step, after in waits.items()]


class PieceForm(KitchenForm):
    """A piece that one thinks of: its cut, weight [g], thickest part [mm]."""

    cut = forms.ChoiceField(choices=cut_choices, label=_("Kind and cut"))
    mass = MeatField(label=_("Weight, trimmed"))
    thickness = QuantityField("length", MOST_THICKNESS_MM, label=_("Thickest part"), required=False)
    is_frozen = forms.BooleanField(required=False, label=_("It is frozen"))

    @property
    def piece(self) -> dict[str, Any]:
        """The piece of a `dish` document; call it when the form is valid."""
        typed = self.cleaned_data
        measured = {} if typed["thickness"] is None else {"thickness_mm": typed["thickness"]}
        return {
            "cut": typed["cut"], "mass_g": typed["mass"], "frozen": typed["is_frozen"], **measured
        }  # fmt: skip


class MishapForm(ZonedForm):
    """Something that went wrong: what, from when to when, how warm [°C], and for a dish which."""

    ids = "id_mishap_%s"
    kind = forms.ChoiceField(choices=Mishap.Kind.choices, label=_("What happened"))
    dish = forms.ModelChoiceField(
        Dish.objects.none(),
        required=False,
        label=_("Which dish stood out"),
        empty_label=_("none of them"),
    )
    begins = InstantField(label=_("From"))
    ends = InstantField(label=_("until"))
    temperature = TemperatureField(-40, 60, required=False, label=_("Read, if anybody did"))

    def __init__(self, *args: Any, feast: Feast, now: datetime, **kwargs: Any) -> None:
        super().__init__(*args, zone=feast.time_zone, **kwargs)
        self.now = now
        self.fields["dish"].queryset = feast.dishes.all()  # type: ignore[attr-defined]

    def clean(self) -> dict[str, Any]:
        """It ended after it began, by now; what stood out is a dish; a warm fridge was read."""
        begins, ends = self.cleaned_data.get("begins"), self.cleaned_data.get("ends")
        kind = self.cleaned_data.get("kind")
        if begins and ends and ends <= begins:
            self.add_error("ends", gettext("It ended after it began."))
        elif ends and ends > self.now:
            self.add_error("ends", gettext("This has not happened yet; use a time up to now."))
        if kind == Mishap.Kind.LEFT_OUT and not self.cleaned_data.get("dish"):
            self.add_error("dish", gettext("Say which dish stood out."))
        if kind == Mishap.Kind.FRIDGE_WARM and self.cleaned_data.get("temperature") is None:
            self.add_error(
                "temperature", gettext("Say how warm it was; at {5 °C} or below nothing happened.")
            )
        return self.cleaned_data

    @property
    def told(self) -> dict[str, Any]:
        """What `record_mishap` takes; call it when the form is valid."""
        asked = self.cleaned_data
        is_of_a_dish = asked["kind"] == Mishap.Kind.LEFT_OUT
        return {
            "kind": asked["kind"], "begins": asked["begins"], "ends": asked["ends"],
            "dish": asked["dish"] if is_of_a_dish else None, "temperature_c": asked["temperature"],
        }  # fmt: skip


class ImportForm(FileForm):
    """A feast as a file."""

    most_bytes, too_big = 16_000_000, _("That is over 16 megabytes; a feast is far smaller.")


class CopyForm(KitchenForm):
    """The day to which a feast is copied."""

    day = forms.DateField(label=_("To"), widget=forms.DateInput({"type": "date"}, "%Y-%m-%d"))

    def __init__(self, *args: Any, now: datetime, zone: str, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.today = now.astimezone(ZoneInfo(zone)).date()

    def clean_day(self) -> date:
        """A day that lies ahead, within two years."""
        day: date = self.cleaned_data["day"]
        if not self.today < day <= self.today + 2 * FARTHEST:
            raise forms.ValidationError(gettext("Choose a day after today, within two years."))
        return day


class OwnDayForm(PlainForm):
    """A day that this kitchen keeps every year."""

    name = forms.CharField(max_length=80, label=_("Called"), label_suffix="")
    day = forms.DateField(
        label=_("On"), label_suffix="", widget=forms.DateInput({"type": "date"}, "%Y-%m-%d")
    )
