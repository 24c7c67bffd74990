"""The answer to a form while it is typed: the methods that fit, then the whole dish."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

from django.utils.translation import gettext
from pydantic import ValidationError

from pantry_core.dish.answer import DishOut, Option
from pantry_core.dish.clock import WrongDish
from pantry_core.dish.proposals import with_offers
from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import Worked, worked
from pantry_core.errors import OutOfRange
from pantry_core.formats.reading import problem_of
from pantry_core.measures.said import span
from pantry_core.quantities import Percent
from pantry_core.routes.cuts import CUTS, Cut
from pantry_core.routes.servings import Servings, servings
from pantry_core.routes.ways import WAYS
from pantry_core.text import joined, say
from pantry_web.feasts.choices import NO_METHOD, method_name, way_of
from pantry_web.feasts.documents import Document, House, dish_document
from pantry_web.feasts.models import Feast
from pantry_web.planning.answers import work_out
from pantry_web.planning.outlook import Outlook
from pantry_web.planning.recipes.mix import shown_mix
from pantry_web.quantities import hours_of, length, mass
from pantry_web.weighup.decided import decided, piece_of
from pantry_web.weighup.forms import DishForm
from pantry_web.weighup.heats import heats_of
from pantry_web.weighup.salt_by_day import salt_by_day
from pantry_web.weighup.sheet import live_sheet
from pantry_web.weighup.vessel import in_vessel

OFFERED_FIRST = 4
UNDER_MORE = (
    "water", "strength", "share", "sugar", "vessel", "medium", "inside", "take_out", "sauces",
)  # fmt: skip
"""Fields that are shown when somebody asks for them; those that are filled are named."""
SAME_D, MOST_DAYS = 0.05, 10_000.0


@dataclass(frozen=True, slots=True)
class Offer:
    """A method as it is offered: what is known of it, among the first or behind a press."""

    id: str
    name: str
    saying: str
    option: Option | None
    is_chosen: bool
    is_first: bool
    fits: bool

    @property
    def gives_up(self) -> str:
        """What it costs to do it so."""
        way = way_of(self.id)
        return "" if way is None else way.gives_up

    @property
    def takes(self) -> str:
        """Which fields belong to it."""
        way = way_of(self.id)
        return "" if way is None else " ".join(way.takes)


def live_answer(
    form: DishForm,
    feast: Feast,
    house: House,
    view: Outlook | None,
    now: datetime,
    typed: Mapping[str, str] | None,
) -> dict[str, object]:
    """What a form that was validated comes to; no sheet while something is missing or wrong.

    Parameters: form; feast; house; view of the stored dish, None for a new one; now; typed, None
    where the form shows what is stored.
    """
    cut = CUTS.get(form.cleaned_data.get("cut", ""))
    piece = piece_of(form)
    context: dict[str, object] = {
        "sheet": None, "insight": None, "changed": None, "ready_days": "",
        "in_vessel": None, "notices": (), "suggested": (), "wrong": (),
        "servings": _servings(cut, feast, house) if cut else None,
        "is_own_loss": house.trimmed_left != 1.0 or house.cooked_left != 1.0,
        "mix": None,
        "offers": _offers(piece, form, house, feast, now),
        "heats": heats_of(form),
        "is_more_said_of_piece": _is_told(piece),
        "more_said": [form[name].label for name in UNDER_MORE if form[name].value()],
        "is_more_wrong": any(form[name].errors for name in UNDER_MORE),
    }  # fmt: skip
    if piece is None or not form.is_valid_but_for_its_name():
        return context
    if view is not None and typed is None:
        document = view.whole.documents[view.key]
    else:
        document = _document(form, feast, house, view, now)
    try:
        found = worked(DishRequest.model_validate(document))
    except ValidationError as error:
        return context | {"wrong": tuple(problem_of(each).what for each in error.errors())}
    except WrongDish as error:
        return context | {"wrong": tuple(what for _, what in error.wrongs)}
    except OutOfRange as error:
        return context | {"wrong": (str(error),)}
    return context | _shown(found, form, feast, house, now, typed)


def _servings(cut: Cut, feast: Feast, house: House) -> Servings:
    return servings(
        cut, feast.heads, trimmed_left=house.trimmed_left, cooked_left=house.cooked_left
    )


def _shown(
    found: Worked,
    form: DishForm,
    feast: Feast,
    house: House,
    now: datetime,
    typed: Mapping[str, str] | None,
) -> dict[str, object]:
    mix, sheet = shown_mix(found), found.out.weighed_out
    out = found.out if mix is None else with_offers(found.out, mix.proposals)
    left_h = _left_h(feast, now)
    shown: dict[str, object] = {
        "notices": out.notices, "out": out, "cooked": found.cooking.heat,
        "is_tender": any(each.until == {"tender": True} for each in out.steps),
        "sheet": live_sheet(found, house, left_h),
        "suggested": _suggested(found, form, feast.kitchen.units),
        "mix": mix,
    }  # fmt: skip
    if sheet is None or out.asked is None:
        return shown
    days = sheet.ready.days if sheet.ready else None
    spare_d = None if left_h is None else found.spare_h(left_h) / 24.0
    return shown | {
        "insight": salt_by_day(out.asked, sheet, found.settled.in_h / 24.0, spare_d),
        "changed": _changed((typed or {}).get("was_days", ""), days),
        "ready_days": "" if days is None else f"{days:.3f}",
        "in_vessel": in_vessel(found, form.cleaned_data.get("vessel")),
    }


def _left_h(feast: Feast, now: datetime) -> float | None:
    """The time to the table [h]; None without a date."""
    serve_at: datetime | None = feast.serve_at
    return None if serve_at is None else hours_of(serve_at - now)


def _moments(feast: Feast, now: datetime) -> Document:
    """Now and the table, as a `dish` document has them; nothing without a date."""
    if _left_h(feast, now) is None:
        return {}
    return {
        "now": now.isoformat(), "serve_at": feast.serve_at.isoformat(), "tz": feast.time_zone
    }  # fmt: skip


def _document(
    form: DishForm, feast: Feast, house: House, view: Outlook | None, now: datetime
) -> Document:
    """The `dish` document of what is typed; it is planned anew once it is saved."""
    moments = _moments(feast, now)
    vessel = form.cleaned_data.get("vessel")
    if view is None:
        return {**dish_document(decided(form, {}), house, vessel), **moments}
    stored = dict(view.dish.document)
    edits = stored.pop("edits", [])
    wanted = decided(form, stored)
    kept = view.read.document
    facts = {name: kept[name] for name in ("facts",) if name in kept}
    document = dish_document({**wanted, "edits": edits}, house, vessel)
    return {**document, **moments, **facts, "people": feast.heads}


def _suggested(found: Worked, form: DishForm, units: str) -> tuple[str, ...]:
    """What the core takes where the form is empty, in sentences."""
    request, way = found.settled.request, found.settled.way
    if way is None:
        return ()

    def empty(name: str, taken: float | None) -> float | None:
        return taken if form.cleaned_data.get(name) is None else None

    is_aimed = found.settled.written is None
    salt = empty("salt", request.target_salt_pct) if is_aimed else None
    strength = empty("strength", request.brine_salt_pct) if is_aimed else None
    water = empty("water", request.water_g) if is_aimed and way.has_water else None
    hours = empty("days", found.settled.in_h)
    thickness = empty("thickness", request.meat.thickness_mm)
    taken = [
        "" if salt is None else say("{salt} salt", salt=Percent(round(salt, 2))),
        ""
        if strength is None
        else say("a brine of {strength}", strength=Percent(round(strength, 1))),
        "" if water is None else say("{water} of water", water=mass(water, units)),
        say("{hours} in it", hours=span(hours)) if hours else "",
    ]
    parts = [each for each in taken if each]
    sentences = [say("Left empty, it takes {parts}.", parts=joined(", ", parts))] if parts else []
    if thickness is not None and way.group != "Side":
        told = length(thickness, units)
        sentences.append(say("The thickest part is guessed at {thickness}.", thickness=told))
    return tuple(sentences)


def _offers(
    piece: Document | None, form: DishForm, house: House, feast: Feast, now: datetime
) -> list[Offer]:
    """The methods: those that fit the piece best first, then the rest."""
    chosen = form.cleaned_data.get("method", "")
    fitting: dict[str, Option] = {}
    if piece is not None:
        moments = _moments(feast, now)
        answer = work_out({**dish_document({"piece": piece}, house), **moments})
        if isinstance(answer, DishOut):
            fitting = {option.method: option for option in answer.options}
    names = [*fitting, *(way for way in (*WAYS, NO_METHOD) if way not in fitting)]
    first = [*(list(fitting) or names)[:OFFERED_FIRST], chosen]
    return [
        Offer(
            name, method_name(name),
            WAYS[name].saying if name in WAYS else gettext("seasoned at the heat"),
            fitting.get(name), name == chosen, name in first, piece is None or name in fitting or
            name == NO_METHOD,
        )
        for name in names
    ]  # fmt: skip


def _is_told(piece: Document | None) -> bool:
    """Whether more is said of the piece than what, how heavy and how thick."""
    if piece is None:
        return False
    usual = {"bone_share": CUTS[piece["cut"]].bone_share, "storage": "meal"}
    rest = set(piece) - {"cut", "mass_g", "thickness_mm", "will_be"}
    return any(piece[name] != usual.get(name) for name in rest)


def _changed(was: str, now_days: float | None) -> dict[str, float] | None:
    """What the last change made of the wait, when it made anything of it."""
    try:
        was_days = float(was)
    except ValueError:
        return None
    if now_days is None or not 0 < was_days < MOST_DAYS or abs(was_days - now_days) < SAME_D:
        return None
    return {"was_days": was_days, "now_days": now_days}
