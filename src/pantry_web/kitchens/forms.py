"""Forms of the kitchen."""

from datetime import date, datetime, time, timedelta
from itertools import product
from typing import Any
from zoneinfo import ZoneInfo, available_timezones

from django import forms
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_core.days.named import countries
from pantry_core.plan.request import WEEKDAYS
from pantry_core.text import WEEKDAY_NAMES
from pantry_web.fields import InstantField, LongSelect, NumberField
from pantry_web.forms import KitchenForm, PlainForm
from pantry_web.kitchens.hours import Span, by_weekday
from pantry_web.kitchens.models import ChangedDay, Kitchen
from pantry_web.sentences import tell

WHOSE = {"shop": _("The shop"), "work": _("Work")}
DAY_NAMES = dict(zip(WEEKDAYS, WEEKDAY_NAMES, strict=True))
ENDS = {"from": _("from"), "to": _("to")}
FARTHEST = timedelta(days=366)
_REGIONS = (
    "Africa", "America", "Antarctica", "Arctic", "Asia", "Atlantic", "Australia", "Europe",
    "Indian", "Pacific", "UTC",
)  # fmt: skip
ZONES = [(name, name) for name in sorted(available_timezones()) if name.startswith(_REGIONS)]


class HouseForm(KitchenForm):
    """What the house is like."""

    name = forms.CharField(max_length=80, label=_("Name"))
    time_zone = forms.ChoiceField(choices=ZONES, label=_("Time zone"), widget=LongSelect)
    units = forms.ChoiceField(choices=Kitchen.Units.choices, label=_("Show amounts in"))
    clock_face = forms.ChoiceField(choices=Kitchen.ClockFace.choices, label=_("Show hours as"))
    profile = forms.ChoiceField(choices=Kitchen.Profile.choices, label=_("Limits to keep"))
    cups = forms.ChoiceField(choices=Kitchen.Cups.choices, label=_("Cups and spoons are"))
    wake = forms.TimeField(label=_("Up at"), widget=forms.TimeInput({"type": "time"}, "%H:%M"))
    sleep = forms.TimeField(label=_("In bed at"), widget=forms.TimeInput({"type": "time"}, "%H:%M"))
    cooks = NumberField(1, 20, label=_("Cooks"))
    country = forms.ChoiceField(
        choices=lambda: [("", _("none")), *countries().items()], required=False,
        label=_("Public holidays of"), widget=LongSelect,
    )  # fmt: skip

    def clean_cooks(self) -> int:
        """A whole number of cooks."""
        cooks: float = self.cleaned_data["cooks"]
        if cooks != int(cooks):
            raise forms.ValidationError(gettext("Use a whole number."))
        return int(cooks)

    def clean(self) -> dict[str, Any]:
        """Bed comes after getting up on the same day."""
        wake: time | None = self.cleaned_data.get("wake")
        sleep: time | None = self.cleaned_data.get("sleep")
        if wake and sleep and sleep <= wake:
            self.add_error("sleep", gettext("This must be later than getting up, on the same day."))
        return self.cleaned_data


class HoursForm(PlainForm):
    """When the shop is open and when people work, by the day of the week."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for what, day, end in product(("shop", "work"), WEEKDAYS, ("from", "to")):
            clock = forms.TimeInput({"type": "time"}, "%H:%M")
            label = tell(
                "{whose} on {day}, {end}",
                whose=str(WHOSE[what]),
                day=DAY_NAMES[day],
                end=str(ENDS[end]),
            )
            self.fields[f"{what}_{day}_{end}"] = forms.TimeField(
                label=label, required=False, widget=clock
            )

    def clean(self) -> dict[str, Any]:
        """Both ends of a day or none, in their order."""
        for what, day in product(("shop", "work"), WEEKDAYS):
            names = f"{what}_{day}_from", f"{what}_{day}_to"
            begin, end = (self.cleaned_data.get(name) for name in names)
            if any(name in self.errors for name in names):
                continue
            if (begin is None) != (end is None):
                self.add_error(names[begin is not None], gettext("Give both hours, or neither."))
            elif begin is not None and end is not None and end <= begin:
                self.add_error(
                    names[1], gettext("This is later than the beginning, on the same day.")
                )
        return self.cleaned_data

    def week(self, what: str) -> dict[str, Span]:
        """The hours of each day that has some; call it when the form is valid."""
        return {
            day: (f"{begin:%H:%M}", f"{self.cleaned_data[f'{what}_{day}_to']:%H:%M}")
            for day in WEEKDAYS
            if (begin := self.cleaned_data[f"{what}_{day}_from"]) is not None
        }

    @property
    def rows(self) -> list[tuple[str, list[forms.BoundField]]]:
        """For each day its name and its four fields."""
        return [
            (DAY_NAMES[day], [
                self[f"{what}_{day}_{end}"] for what in ("shop", "work") for end in ("from", "to")
            ])
            for day in WEEKDAYS
        ]  # fmt: skip

    @staticmethod
    def of(kitchen: Kitchen) -> dict[str, str]:
        """What the form shows of a kitchen."""
        shown: dict[str, str] = {}
        for what, hours in (("shop", kitchen.shop_hours), ("work", kitchen.work_hours)):
            for day, (begin, end) in by_weekday(hours).items():
                shown |= {f"{what}_{day}_from": begin, f"{what}_{day}_to": end}
        return shown


class ChangedDayForm(PlainForm):
    """A day on which the hours are others."""

    ids = "id_day_%s"
    day = forms.DateField(label=_("Day"), widget=forms.DateInput({"type": "date"}, "%Y-%m-%d"))
    kind = forms.ChoiceField(choices=ChangedDay.Kind.choices, label=_("What is different"))
    begins = forms.TimeField(
        required=False, label=_("From"), widget=forms.TimeInput({"type": "time"}, "%H:%M")
    )
    ends = forms.TimeField(
        required=False, label=_("to"), widget=forms.TimeInput({"type": "time"}, "%H:%M")
    )

    def __init__(self, *args: Any, today: date, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.today = today

    def clean_day(self) -> date:
        """A day within a year of now."""
        day: date = self.cleaned_data["day"]
        if not self.today - FARTHEST <= day <= self.today + FARTHEST:
            raise forms.ValidationError(
                gettext("This is over a year away; use a day within a year.")
            )
        return day

    def clean(self) -> dict[str, Any]:
        """Other hours have a beginning and an end."""
        if self.cleaned_data.get("kind") not in ChangedDay.WITH_HOURS:
            self.cleaned_data |= {"begins": None, "ends": None}
            return self.cleaned_data
        begins, ends = (self.cleaned_data.get(name) for name in ("begins", "ends"))
        if begins is None and "begins" not in self.errors:
            self.add_error("begins", gettext("Say from when, like 09:00."))
        if ends is None and "ends" not in self.errors:
            self.add_error("ends", gettext("Say until when, like 14:00."))
        if begins and ends and ends <= begins:
            self.add_error("ends", gettext("This is later than the beginning, on the same day."))
        return self.cleaned_data


class ZonedForm(KitchenForm):
    """A form whose local times are those of a zone."""

    def __init__(self, *args: Any, zone: str, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for field in self.fields.values():
            if isinstance(field, InstantField):
                field.zone = ZoneInfo(zone)


class AbsenceForm(ZonedForm):
    """A time in which nobody is at home."""

    ids = "id_away_%s"
    begins = InstantField(label=_("Away from"))
    ends = InstantField(label=_("until"))

    def clean(self) -> dict[str, Any]:
        """Coming home is after leaving."""
        begins: datetime | None = self.cleaned_data.get("begins")
        ends: datetime | None = self.cleaned_data.get("ends")
        if begins and ends and ends <= begins:
            self.add_error("ends", gettext("Coming home is after leaving."))
        elif begins and ends and ends - begins > FARTHEST:
            self.add_error(
                "ends", gettext("This is over a year; nobody cooks for so long. Choose less.")
            )
        return self.cleaned_data


class ClockForm(ZonedForm):
    """Where the demo clock stands."""

    stands_at = InstantField(label=_("The demo clock stands at"))
    runs = forms.TypedChoiceField(
        choices=[
            (0, _("and stands still")), (1, _("and runs")), (10, _("and runs ten times as fast")),
            (60, _("and runs sixty times as fast")),
        ],
        coerce=int, empty_value="0", label=_("From there"), required=False,
    )  # fmt: skip
