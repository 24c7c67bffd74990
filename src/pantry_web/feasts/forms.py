"""The form of a feast."""

from datetime import date, datetime, time, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from django import forms

from pantry_core.plan.instants import NotAnInstant, local_instant
from pantry_web.fields import LongSelect, NumberField
from pantry_web.forms import KitchenForm
from pantry_web.kitchens.forms import ZONES

FARTHEST = timedelta(days=365)


class FeastForm(KitchenForm):
    """Name, date, hour, zone and heads; `cleaned_data["serve_at"]` is the instant."""

    name = forms.CharField(max_length=80, label="What is it called?")
    date = forms.DateField(label="Date", widget=forms.DateInput({"type": "date"}, "%Y-%m-%d"))
    hour = forms.TimeField(label="Hour to eat", widget=forms.TimeInput({"type": "time"}, "%H:%M"))
    time_zone = forms.ChoiceField(choices=ZONES, label="Time zone", widget=LongSelect)
    heads = NumberField(1, 500, label="Heads")

    def __init__(self, *args: Any, now: datetime, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.now = now

    def clean_heads(self) -> int:
        """A whole number of people."""
        heads: float = self.cleaned_data["heads"]
        if heads != int(heads):
            raise forms.ValidationError("People come whole; a whole number would do.")
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
            self.add_error("date", f"This day is over; today is {today:%A %-d %B %Y}.")
        elif day > today + FARTHEST:
            self.add_error("date", "This is over a year ahead; a day within a year would do.")
        else:
            self._set_instant(datetime.combine(day, hour.replace(second=0)), zone)
        return self.cleaned_data

    def _set_instant(self, local: datetime, zone: ZoneInfo) -> None:
        try:
            serve_at = local_instant(local, zone)
        except NotAnInstant as error:
            self.add_error("hour", f"{error}.")
            return
        if serve_at <= self.now:
            shown = self.now.astimezone(zone)
            self.add_error("hour", f"This hour is over; it is {shown:%H:%M} now.")
        self.cleaned_data["serve_at"] = serve_at
