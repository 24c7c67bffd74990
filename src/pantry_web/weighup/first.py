"""The first answer: what, how heavy, when and how, on one page, before there is any feast."""

from datetime import date, datetime, time
from typing import Any
from zoneinfo import ZoneInfo

from django import forms
from django.contrib import messages
from django.http import HttpRequest, HttpResponse, QueryDict
from django.shortcuts import redirect, render
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from pantry_core.dish.answer import DishOut
from pantry_core.dish.beginnings import way_said
from pantry_core.plan.instants import NotAnInstant, local_instant
from pantry_core.quantities import Clock, Moment
from pantry_core.recipes.found import NotARecipe
from pantry_core.recipes.piece import PieceSaid, piece_said
from pantry_core.recipes.read import ReadRequest, read
from pantry_core.routes.cuts import CUTS
from pantry_web import clock
from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.actions.save_feast import new_feast
from pantry_web.feasts.choices import NO_METHOD, cut_choices, way_choices
from pantry_web.feasts.documents import Document, House, dish_document, house_of
from pantry_web.feasts.forms import FARTHEST
from pantry_web.feasts.models import Dish, Feast
from pantry_web.fields import MeatField, RecipeTextField
from pantry_web.forms import KitchenForm
from pantry_web.kitchens.access import JUST_PLANNED, kitchen_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.planning.answers import work_out
from pantry_web.planning.looking import ask_for_plan
from pantry_web.presses.once import once
from pantry_web.sentences import refusal, tell
from pantry_web.weighup.decided import decided
from pantry_web.weighup.forms import DishForm
from pantry_web.weighup.live import live_answer
from pantry_web.weighup.shown import FIRST

SUPPER = time(18, 30)
PEOPLE = 6
NEEDED = {"cut", "mass"}
"""With so much there is an answer; without a day there is none whether it is in time."""
BROUGHT_ALONG = ("cut", "mass", "method", "salt", "water")
"""What comes with the address, of somebody who has weighed it out before there was a date."""
BEST = ""
"""The method that fits the piece best."""


class PieceForm(KitchenForm):
    """What it is, how heavy, and how."""

    cut = forms.ChoiceField(choices=cut_choices, label=_("What is it?"))
    mass = MeatField(label=_("How heavy, trimmed"))
    method = forms.ChoiceField(
        choices=lambda: [(BEST, gettext("What fits it best")), *way_choices()],
        required=False,
        label=_("How"),
    )


class FirstForm(PieceForm):
    """Four fields; everything else is as usual until somebody says otherwise."""

    text = RecipeTextField(
        label=_("Your recipe, if you have one"),
        required=False,
        widget=forms.Textarea(attrs={"rows": 4, "spellcheck": "false"}),
    )
    salt = forms.CharField(required=False, max_length=20, widget=forms.HiddenInput)
    water = forms.CharField(required=False, max_length=20, widget=forms.HiddenInput)
    day = forms.DateField(
        label=_("When is it eaten?"), widget=forms.DateInput({"type": "date"}, "%Y-%m-%d")
    )

    def __init__(self, *args: Any, now: datetime, zone: str, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.now, self.zone = now, ZoneInfo(zone)
        self.serve_at: datetime | None = None

    def clean_day(self) -> date:
        """A day that lies ahead, within a year."""
        day: date = self.cleaned_data["day"]
        today = self.now.astimezone(self.zone).date()
        if not today <= day <= today + FARTHEST:
            raise forms.ValidationError(gettext("Choose a day from today on, within a year."))
        try:
            self.serve_at = local_instant(datetime.combine(day, SUPPER), self.zone)
        except NotAnInstant as error:
            raise forms.ValidationError(refusal(error)) from None
        return day


def first_dish(request: HttpRequest) -> HttpResponse:
    """Answer while somebody types; then plan it, and show what comes next."""
    kitchen = kitchen_of(request)
    now, house = clock.now(kitchen), house_of(kitchen)
    is_reading = "read" in request.POST
    form = FirstForm(
        _with_what_it_says(request.POST, house) or None, units=kitchen.units, now=now,
        zone=kitchen.time_zone,
        initial={name: request.GET.get(name, "") for name in BROUGHT_ALONG},
    )  # fmt: skip
    if is_reading:
        for name in [each for each in form.errors if not form[each].value()]:
            del form.errors[name]
    context: dict[str, object] = {
        "form": form,
        "sheet": None,
        "out": None,
        "wrong": (),
        "is_first": True,
    }
    is_typing = bool(request.headers.get("HX-Request"))
    if is_typing and not request.POST.get("day"):
        form.errors.pop("day", None)
    if form.is_bound and not form.errors and form.cleaned_data.keys() >= NEEDED:
        feast, dish = _feast(form, kitchen), _dish(form, kitchen, house)
        for name, wrong in dish.errors.items():
            form.add_error(name if name in form.fields else None, wrong)
        if dish.is_valid() and not is_typing and not is_reading:
            added = _planned(feast, dish, kitchen, form.cleaned_data["text"])
            told = tell("Planned: {dish}, for {feast}.", dish=added.name, feast=feast.name)
            messages.success(request, told)
            request.session[JUST_PLANNED] = added.pk
            ask_for_plan(added.feast, kitchen, now)
            return redirect("recipe-check", added.pk) if added.recipe else redirect("today")
        context |= {"feast": feast, **live_answer(dish, feast, house, None, now, None)}
        context["form"] = form
    else:
        context["feast"] = Feast(name="it", kitchen=kitchen, serve_at=now, time_zone="UTC")
    if request.headers.get("HX-Request"):
        return render(request, "weighup/_first_answer.html", context)
    context["supper_hint"] = tell("for supper at {hour}", hour=Clock(SUPPER))
    status = 422 if form.is_bound and not is_reading else 200
    return render(request, "weighup/first.html", context, status=status)


def _feast(form: FirstForm, kitchen: Kitchen) -> Feast:
    """The supper as it would be, not stored; without a day nothing is known of it."""
    if form.serve_at is None:
        return Feast(kitchen=kitchen, name="", time_zone=kitchen.time_zone, heads=PEOPLE)
    return Feast(
        kitchen=kitchen, name=tell("{day}", day=Moment(form.cleaned_data["day"])),
        serve_at=form.serve_at, time_zone=kitchen.time_zone, heads=PEOPLE,
    )  # fmt: skip


def _dish(form: FirstForm, kitchen: Kitchen, house: House) -> DishForm:
    """The form of a dish as these four fields fill it in."""
    typed = form.cleaned_data
    piece = {"cut": typed["cut"], "mass_g": typed["mass"]}
    moments = {} if form.serve_at is None else {
        "now": form.now.isoformat(), "serve_at": form.serve_at.isoformat(),
        "tz": kitchen.time_zone,
    }  # fmt: skip
    method = typed["method"] or best_method(piece, house, moments)
    data = with_usual(typed["cut"], typed["mass"], method)
    said = _said_in(typed["text"])
    data |= {"name": said.title[:80], "form": "ground" if said.is_ground else ""}
    data |= {name: typed[name] for name in ("salt", "water") if typed[name]}
    cut = CUTS[typed["cut"]]
    form_of_cut = data["form"] or ("pieces" if cut.build == "small" else "whole")
    data["heat"] = way_said(typed["text"], cut, str(form_of_cut)) or ""
    if said.is_raw and CUTS[typed["cut"]].kind == "fish":
        data["fish"] = "raw-freeze"
    return DishForm(
        data, units=kitchen.units, house=house, vessels=kitchen.vessels.all(), cups=kitchen.cups
    )


def best_method(piece: Document, house: House, moments: Document | None = None) -> str:
    """The method that fits a piece best, in the time that is left where moments tell it."""
    answer = work_out({**dish_document({"piece": piece}, house), **(moments or {})})
    options = answer.options if isinstance(answer, DishOut) else ()
    return next((each.method for each in options), NO_METHOD)


def with_usual(cut: str, mass_g: float, method: str) -> dict[str, object]:
    """The fields of a dish with its piece and method, everything else as usual."""
    return {**FIRST, "cut": cut, "mass": f"{mass_g:.6f} g", "method": method}


def _with_what_it_says(posted: QueryDict, house: House) -> QueryDict:
    """What was typed, and where a field is empty what the recipe says of it.

    Parameters: posted; house.
    Returns: the fields; cut, weight and method are read from the recipe's own words.
    """
    typed = posted.copy()
    try:
        text = RecipeTextField(required=False).clean(posted.get("text", ""))
    except forms.ValidationError:
        return posted
    if not text:
        return posted
    said = _said_in(text)
    typed["text"] = text
    if said.cut is not None and not typed.get("cut"):
        typed["cut"] = said.cut
    if said.mass_g is not None and not typed.get("mass", "").strip():
        typed["mass"] = f"{said.mass_g:.0f} g"
    method = _looks_like(text, typed.get("cut", ""), said, house)
    if method is not None and not typed.get("method"):
        typed["method"] = method
    return typed


def _said_in(text: str) -> PieceSaid:
    """What a recipe says of its piece; nothing where it is none."""
    try:
        return piece_said(text)
    except NotARecipe:
        return PieceSaid(None, None)


def _looks_like(text: str, cut: str, said: PieceSaid, house: House) -> str | None:
    """The method that the recipe looks like, as the core proposes it."""
    lines = []
    for each in read(ReadRequest(text=text)).lines:
        name = each.name or (each.ask.choices[0].name if each.ask and each.ask.choices else None)
        if name is not None:
            amount = {} if each.amount is None else {"amount": each.amount, "unit": each.unit}
            lines.append({"text": each.text, "name": name, **amount})
    if not lines or not cut:
        return None
    piece: Document = {"cut": cut, "mass_g": said.mass_g or 1000.0}
    if said.is_ground:
        piece["form"] = "ground"
    answer = work_out(
        dish_document({"piece": piece, "recipe": {"text": text, "lines": lines}}, house)
    )
    offers = answer.proposals if isinstance(answer, DishOut) else ()
    found = next((each.changes[0]["value"] for each in offers if each.code == "method"), None)
    return None if found is None else str(found)


@once()
def _planned(feast: Feast, form: DishForm, kitchen: Kitchen, text: str) -> Dish:
    """Store both, and the recipe's text beside the dish."""
    stored = new_feast(
        kitchen, name=feast.name, serve_at=feast.serve_at, time_zone=feast.time_zone,
        heads=feast.heads, note="",
    )  # fmt: skip
    return add_dish(stored, form.dish_name, decided(form, {}), recipe=text)
