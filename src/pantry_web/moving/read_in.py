"""A kitchen's document, read by what reads the forms: what these refuse does not come in."""

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any
from zoneinfo import ZoneInfo

from django.forms import Form
from django.utils.translation import gettext
from pydantic import TypeAdapter, ValidationError

from pantry_core.dish.answer import DishStep
from pantry_core.dish.edits import edits_between
from pantry_core.dish.request import JobAsked
from pantry_core.formats.kitchen import KitchenDocument, KitchenFeast, MishapDocument
from pantry_core.formats.reading import (
    Problem,
    WrongInput,
    parse_json,
    problem_of,
    read_document,
)
from pantry_core.plan.instants import NotAnInstant, read_instant, read_zone
from pantry_core.quantities import Between, Grams
from pantry_core.routes.jobs import MOST_MADE_G
from pantry_web import clock
from pantry_web.feasts.brought_in import wrong_time, wrongs_of
from pantry_web.feasts.forms import OwnDayForm
from pantry_web.feasts.models import Mishap
from pantry_web.kitchens.forms import AbsenceForm, ChangedDayForm, HoursForm, HouseForm
from pantry_web.pantry.forms import IngredientForm, PlaceForm, ScaleForm, VesselForm
from pantry_web.pantry.models import Ingredient, Scale, Vessel
from pantry_web.sentences import tell

Values = Mapping[str, Any]
UTC_ZONE = ZoneInfo("UTC")

FIELD_OF: Mapping[str, str] = {
    "time_zone": "tz", "division": "division_g", "capacity": "capacity_g", "spoon_mass": "spoon_g",
    "nitrite": "nitrite_pct", "nitrate": "nitrate_pct", "sodium": "sodium_mg", "stock": "stock_g",
    "length": "length_mm", "width": "width_mm", "diameter": "diameter_mm", "top": "top_mm",
    "bottom": "bottom_mm", "depth": "depth_mm",
}  # fmt: skip
"""What the document calls a field of a form, where it calls it otherwise."""
UNIT_OF = {"_g": " g", "_mm": " mm"}
_STEPS: TypeAdapter[tuple[DishStep, ...]] = TypeAdapter(tuple[DishStep, ...])
A_HEAD = "a_head_g"


@dataclass(frozen=True, slots=True)
class KitchenReadIn:
    """A kitchen's document, and what the forms made of it: ready to be kept."""

    document: KitchenDocument
    house: Values
    hours: HoursForm
    places: Mapping[str, float]
    changed_days: tuple[Values, ...]
    absences: tuple[Values, ...]
    own_days: tuple[Values, ...]
    things: tuple[tuple[type[Any], tuple[Values, ...]], ...]


def read_kitchen(text: bytes, now: datetime) -> KitchenReadIn:
    """Read the document of a kitchen.

    Parameters: text, the JSON document; now, from which no year in it lies far away.
    Raises: WrongInput with all that is wrong, each with its place.
    """
    document = read_document(KitchenDocument, parse_json(text))
    forms = _Forms()
    hours = forms.hours(document)
    read_in = KitchenReadIn(
        document=document,
        house=forms.read("", HouseForm(_typed(document.model_dump(), "name", "units", "clock_face",
                         "profile",
                         "cups", "wake", "sleep", "cooks", "country", time_zone=document.tz))),
        hours=hours,
        places={
            name: forms.place(name, room) for name, room in document.places.items()
        },
        changed_days=forms.each("changed_days", document.changed_days, _changed_day),
        absences=forms.each(
            "absences", document.absences, lambda told: AbsenceForm(told, zone="UTC")
        ),
        own_days=forms.each("own_days", document.own_days, OwnDayForm),
        things=(
            (Scale, forms.each("scales", document.scales, _thing(ScaleForm))),
            (Ingredient, forms.each("packets", document.packets, _thing(IngredientForm))),
            (Vessel, forms.each("vessels", document.vessels, _thing(VesselForm))),
        ),
    )  # fmt: skip
    wrongs = [*forms.wrongs, *_wrong_rest(document, now)]
    if wrongs:
        raise WrongInput(tuple(wrongs))
    return read_in


@dataclass(slots=True)
class _Forms:
    """Reads through forms, and gathers what they refuse."""

    wrongs: list[Problem] = field(default_factory=list)

    def read(self, where: str, form: Form, field_of: Values = FIELD_OF) -> Values:
        """What a form makes of what is told."""
        if not form.is_valid():
            for name, errors in form.errors.items():
                told = field_of.get(name, "" if name == "__all__" else name)
                path = ".".join(part for part in (where, told) if part)
                self.wrongs += [Problem(path, str(each).rstrip(".")) for each in errors]
            return dict.fromkeys(form.fields)
        values: Values = getattr(form, "values", form.cleaned_data)
        return values

    def each(
        self, where: str, told: Iterable[Any], form: Callable[[dict[str, Any]], Form]
    ) -> tuple[Values, ...]:
        """What forms make of each of several."""
        return tuple(
            self.read(f"{where}.{n}", form(_typed(one.model_dump()))) for n, one in enumerate(told)
        )

    def place(self, name: str, room: float) -> float:
        """How much fits into a place."""
        form = PlaceForm({"capacity": repr(room)})
        read: float = self.read(f"places.{name}", form, {"capacity": ""})["capacity"]
        return read

    def hours(self, document: KitchenDocument) -> HoursForm:
        """The hours of shop and work."""
        told = {
            f"{what}_{day}_{end}": hour
            for what, week in (("shop", document.shop), ("work", document.work))
            for day, span in week.items()
            for end, hour in zip(("from", "to"), span, strict=True)
        }
        form = HoursForm(told)
        self.read("", form)
        return form


def _typed(told: Values, *names: str, **more: str) -> dict[str, Any]:
    """What is told as it would be typed, in metric units."""
    return {
        name: _text(name, value) for name, value in told.items() if not names or name in names
    } | more


def _text(name: str, value: object) -> str:
    if value is None:
        return ""
    unit = next((unit for end, unit in UNIT_OF.items() if name.endswith(end)), "")
    return f"{value!r}{unit}" if isinstance(value, float | int) else str(value)


def _thing(form: type[Form]) -> Callable[[dict[str, Any]], Form]:
    """A form of the pantry, filled in with what its document tells."""
    names = {told: name for name, told in FIELD_OF.items() if name in form.base_fields}
    return lambda told: form({names.get(name, name): value for name, value in told.items()})


def _changed_day(told: dict[str, Any]) -> ChangedDayForm:
    """A day that is past may be long past."""
    today = clock.real().date()
    try:
        day = date.fromisoformat(told["day"])
    except ValueError:
        day = today  # the form says so
    return ChangedDayForm(told, today=min(day, today))


def _wrong_rest(document: KitchenDocument, now: datetime) -> Iterator[Problem]:
    """What no form reads: feasts with what belongs to them, mishaps, kept steps."""
    yield from _wrong_mishaps("mishaps", document.mishaps, now, of_a_dish=False)
    names = [each.name for each in document.routes]
    for n, route in enumerate(document.routes):
        if route.name in names[:n]:
            yield Problem(f"routes.{n}.name", gettext("kept steps have a name of their own"))
        yield from _wrong_route(f"routes.{n}", route.steps, route.job)
    days = [(each.day, each.kind) for each in document.changed_days]
    for n, day in enumerate(days):
        if day in days[:n]:
            yield Problem(f"changed_days.{n}", gettext("this is told already"))
    for n, feast in enumerate(document.feasts):
        for each in (
            *wrongs_of(feast, document.profile, now),
            *_wrong_around(feast, document, now),
        ):
            yield Problem(f"feasts.{n}.{each.where}", each.what)


def _wrong_around(
    feast: KitchenFeast, document: KitchenDocument, now: datetime
) -> Iterator[Problem]:
    """What belongs to a feast in its kitchen only."""
    try:
        zone = read_zone(feast.tz)
    except NotAnInstant:
        return  # said already
    yield from wrong_time("removed_at", feast.removed_at, zone, now)
    ids = {dish.id for dish in feast.dishes}
    for n, planned in enumerate((*(feast.kept_plan or ()), *(feast.first_plan or ()))):
        if planned.dish not in ids:
            yield Problem(f"kept_plan.{n}.dish", gettext("no dish has this id"))
        for name in ("start", "end"):
            yield from wrong_time(f"kept_plan.{n}.{name}", getattr(planned, name), zone, now)
    for i, dish in enumerate(feast.dishes):
        if dish.vessel is not None and dish.vessel >= len(document.vessels):
            yield Problem(f"dishes.{i}.vessel", gettext("there is no such vessel in the list"))
        for j, line in enumerate(dish.bought):
            if line.key in [each.key for each in dish.bought[:j]]:
                yield Problem(f"dishes.{i}.bought.{j}", gettext("this is told already"))
            yield from wrong_time(f"dishes.{i}.bought.{j}.at", line.at, zone, now)
        for each in _wrong_mishaps("mishaps", dish.mishaps, now, of_a_dish=True):
            yield Problem(f"dishes.{i}.{each.where}", each.what)


def _wrong_mishaps(
    where: str, told: Iterable[MishapDocument], now: datetime, *, of_a_dish: bool
) -> Iterator[Problem]:
    for n, each in enumerate(told):
        path = f"{where}.{n}"
        if (each.kind == Mishap.Kind.LEFT_OUT) != of_a_dish or each.kind not in Mishap.Kind.values:
            kinds = [Mishap.Kind.LEFT_OUT] if of_a_dish else Mishap.Kind.values[:2]
            yield Problem(f"{path}.kind", tell("use {kinds}", kinds=" or ".join(kinds)))
        times = [(name, getattr(each, name)) for name in ("begins", "ends")]
        wrongs = [
            wrong
            for name, text in times
            for wrong in wrong_time(f"{path}.{name}", text, UTC_ZONE, now)
        ]
        yield from wrongs
        if not wrongs and read_instant(each.ends, UTC_ZONE) <= read_instant(each.begins, UTC_ZONE):
            yield Problem(f"{path}.ends", gettext("it ended after it began"))
        if each.temperature_c is not None and not -40 <= each.temperature_c <= 60:
            yield Problem(f"{path}.temperature_c", gettext("use -40 to 60"))


def _wrong_route(where: str, steps: object, job: dict[str, Any] | None) -> Iterator[Problem]:
    try:
        edits_between((), _STEPS.validate_python(steps))
        if job is not None:
            a_head = job.get(A_HEAD)
            if not isinstance(a_head, float | int) or not 0 < a_head <= MOST_MADE_G:
                yield Problem(
                    f"{where}.job.{A_HEAD}",
                    tell("use {range}", range=Between(Grams(0), Grams(MOST_MADE_G))),
                )
            told = {name: part for name, part in job.items() if name != A_HEAD}
            JobAsked.model_validate({**told, "made_g": 1000.0})
    except ValidationError as error:
        for each in error.errors()[:3]:
            problem = problem_of(each)
            yield Problem(f"{where}.{problem.where}", problem.what)
