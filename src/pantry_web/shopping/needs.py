"""What the dishes of all feasts need, and on which trip each thing is bought."""

import re
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta

from django.utils.translation import gettext

from pantry_core.dish.answer import DishOut
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.plan.instants import Instant
from pantry_core.quantities import Moment
from pantry_core.routes.cuts import CUTS
from pantry_core.routes.servings import bought_for
from pantry_core.routes.steps import SHOPPING
from pantry_core.rules.cures import CURE_KEYS
from pantry_core.rules.ingredients import INGREDIENTS, LOOSE
from pantry_web.feasts.line_labels import label_of, label_with
from pantry_web.feasts.models import Dish
from pantry_web.kitchens.models import Kitchen
from pantry_web.pantry.models import Ingredient
from pantry_web.planning.looking import feast_outlooks
from pantry_web.planning.outlook import FeastOutlook, Outlook
from pantry_web.quantities import roughly
from pantry_web.sentences import tell
from pantry_web.shopping.models import Bought

LOOKS_AHEAD = timedelta(days=60)
MOST_FEASTS = 12
"""So many feasts are shopped for on one list, as many as Today shows."""
MEAT, STEP = "meat", "step"
NO_TRIP = -1
"""Where what no trip is planned for goes."""


@dataclass(frozen=True, slots=True)
class Need:
    """Something a dish needs by a moment; grams None for what is counted [g].

    `keep` says where it waits and until when; `step` is the step in the shop that its tick is.
    """

    name: str
    stock_key: str
    grams: float | None
    by: Instant
    dish: Dish
    note: str = ""
    keep: str = ""
    step: str = ""
    is_bought: bool = False


@dataclass(frozen=True, slots=True)
class Line:
    """A line of the list: what is needed in all, what is there, what is to be bought [g]."""

    key: str
    name: str
    needed_g: float | None
    stock_g: float
    by: Instant
    needs: tuple[Need, ...]

    @property
    def to_buy_g(self) -> float | None:
        """What is to be bought, None for what is counted [g]."""
        return None if self.needed_g is None else max(self.needed_g - self.stock_g, 0.0)

    @property
    def is_in_stock(self) -> bool:
        """Whether the pantry has it all."""
        return self.to_buy_g == 0.0

    @property
    def is_bought(self) -> bool:
        """Whether it is ticked for every dish."""
        return all(each.is_bought for each in self.needs)

    @property
    def is_step(self) -> bool:
        """Whether its tick is that of a step in the shop, by which a dish begins."""
        return any(each.step for each in self.needs)

    @property
    def dishes(self) -> tuple[str, ...]:
        """The dishes that need it."""
        return tuple(dict.fromkeys(each.dish.name for each in self.needs))

    @property
    def note(self) -> str:
        """What else there is to know of it."""
        return _joined(each.note for each in self.needs)

    @property
    def keep(self) -> str:
        """Where it waits, and until when."""
        return _joined(each.keep for each in self.needs)


@dataclass(frozen=True, slots=True)
class Trip:
    """A trip to the shop, when and for how long; `at` None: what no trip is planned for.

    `is_planning`: some of it is only on its way to a trip, for the plan is being worked out.
    """

    at: Instant | None
    ends: datetime | None
    lines: tuple[Line, ...]
    code: str = ""
    is_planning: bool = False
    views: tuple[Outlook, ...] = field(default=(), repr=False)

    @property
    def to_buy(self) -> list[Line]:
        """What is not in the pantry."""
        return [each for each in self.lines if not each.is_in_stock]

    @property
    def is_done(self) -> bool:
        """Whether all of it is bought."""
        return all(each.is_bought for each in self.to_buy)


def feasts_to_shop_for(kitchen: Kitchen, now: datetime) -> list[FeastOutlook]:
    """The next feasts within two months; what is eaten later is bought later."""
    feasts = kitchen.feasts.filter(serve_at__gt=now, serve_at__lte=now + LOOKS_AHEAD)
    return feast_outlooks(list(feasts[:MOST_FEASTS]), kitchen, now)


def shopping_trips(kitchen: Kitchen, wholes: Iterable[FeastOutlook]) -> list[Trip]:
    """What is to be bought over all dishes of feasts of a kitchen, trip by trip.

    What needs no trip of its own goes onto the last one before it is needed.
    """
    views = [view for whole in wholes for view in whole.dishes]
    wanted = [view for view in views if not view.dish.is_given_up and not view.is_discarded]
    made = _trips_of(wanted)
    bought = set(
        Bought.objects.filter(dish__in=[view.dish for view in wanted]).values_list("dish_id", "key")
    )
    needs: dict[int, list[Need]] = {}
    for view in wanted:
        for need in _needs(view):
            ticked = replace(need, is_bought=(view.dish.pk, need.stock_key) in bought)
            needs.setdefault(_trip_for(view, ticked, made), []).append(ticked)
    stock = _Stock(list(kitchen.ingredients.all()))
    trips = [
        replace(trip, lines=tuple(_lines_of(needs.get(n, []), stock)))
        for n, trip in enumerate(made)
    ]
    if NO_TRIP in needs:
        rest = tuple(_lines_of(needs[NO_TRIP], stock))
        is_planning = any(view.whole.solving is not None for view in wanted)
        trips.append(Trip(None, None, rest, code="rest", is_planning=is_planning))
    return [trip for trip in trips if trip.lines]


def in_the_pantry(trips: Iterable[Trip]) -> list[Line]:
    """What nobody has to buy, over all trips: each thing once, with what was there at first."""
    found: dict[str, Line] = {}
    for line in (each for trip in trips for each in trip.lines if each.is_in_stock):
        first = found.setdefault(line.key, line)
        if first is not line:
            found[line.key] = replace(
                first,
                needed_g=(first.needed_g or 0.0) + (line.needed_g or 0.0),
                needs=(*first.needs, *line.needs),
            )
    return list(found.values())


def _trips_of(views: Sequence[Outlook]) -> list[Trip]:
    """The planned trips of all dishes, those that start together being one."""
    found: dict[datetime, Trip] = {}
    for view in views:
        for step in view.steps:
            planned = view.planned(step.id)
            if step.trip != SHOPPING or planned is None or step.id in view.state.begun:
                continue
            zone = view.dish.feast.time_zone
            code = str(round(planned.start.timestamp()))
            trip = found.setdefault(
                planned.start, Trip(Instant(planned.start, zone), planned.end, (), code)
            )
            ends = max(trip.ends or planned.end, planned.end)
            found[planned.start] = replace(trip, ends=ends, views=(*trip.views, view))
    return [found[start] for start in sorted(found)]


def _trip_for(view: Outlook, need: Need, trips: Sequence[Trip]) -> int:
    """The trip of the dish's own, else the last that is over before it is needed."""
    own = [n for n, trip in enumerate(trips) if view in trip.views]
    if own:
        return own[0]
    in_time = [
        n for n, trip in enumerate(trips) if trip.ends is not None and trip.ends <= need.by.moment
    ]
    return max(in_time, default=NO_TRIP)


def _needs(view: Outlook) -> Iterator[Need]:
    if view.state.put_in is not None or view.answer is None:
        return
    by = Instant(_by(view), view.dish.feast.time_zone)
    yield from _steps_in_the_shop(view, by)
    if view.dish.is_job:
        if view.state.begun:
            return
        if view.dish.document["job"].get("recipe"):
            yield from _recipe_lines(view, view.answer, by)
        else:
            for each in view.answer.ingredients:
                yield Need(each.name, _key(each.name), each.grams, by, view.dish)
        return
    if view.dish.document.get("recipe"):
        yield from _recipe_lines(view, view.answer, by)
        return
    sheet = view.answer.weighed_out
    if sheet is not None and view.answer.asked is not None:
        for name, key, grams in _sheet_lines(sheet, view.answer.asked):
            yield Need(name, key, grams, by, view.dish)
    for spice in view.dish.cure.get("spices", ()):
        text, unit = spice["text"], "" if spice["unit"] == "piece" else f" {spice['unit']}"
        note = f"{spice['amount']:.3g}{unit}"
        yield Need(text, f"spice-{text}"[:120], None, by, view.dish, note)


MADE_THERE = re.compile(
    r"\b(?:pan|cooking|roasting) (?:juices?|liquid|water)\b|\bdrippings?\b|\bthe (?:brine|broth|"
    r"marinade)\b",
    re.IGNORECASE,
)
"""What comes out of the pan or the pot."""


def _recipe_lines(view: Outlook, answer: DishOut, by: Instant) -> Iterator[Need]:
    """What the recipe of a dish takes, line by line, as the cook wrote it.

    Water comes from the tap, and what the dish makes itself is not bought.
    """
    masses: dict[str, float] = {}
    notes: dict[str, list[str]] = {}
    for line in answer.mix:
        if line.name == "water" or line.line is None or MADE_THERE.search(line.text):
            continue
        if line.name in LOOSE and line.text:
            yield Need(line.text, f"recipe-{line.text}"[:120], None, by, view.dish)
            continue
        if line.grams is not None and line.count is None:
            masses[line.name] = masses.get(line.name, 0.0) + line.grams
        else:
            count = "" if line.count is None else f"{line.count:.3g}"
            notes.setdefault(line.name, []).append(count or line.text)
    for name in dict.fromkeys((*masses, *notes)):
        label, key = label_with(name, None), _key(name)
        yield Need(label, key, masses.get(name), by, view.dish, ", ".join(notes.get(name, ())))


def _steps_in_the_shop(view: Outlook, by: Instant) -> Iterator[Need]:
    """The piece, and what else the cook does in the shop for the dish."""
    dish = view.dish
    for step in view.steps:
        if step.trip != SHOPPING or step.id in view.state.begun:
            continue
        if step.kind != "buy" or dish.is_job:
            key = f"{STEP}-{dish.pk}-{step.id}"
            yield Need(step.title, key, None, by, dish, step.text, step=step.id)
            continue
        cut = CUTS[dish.piece["cut"]].name
        name = (
            cut if cut == dish.name else tell("{cut}, for {dish}", cut=cut, dish=dish.name.lower())
        )
        key, purchase = f"{MEAT}-{dish.pk}", dish.piece.get("purchase")
        if purchase is not None:
            name, key = purchase.capitalize(), f"{MEAT}-of-{dish.feast_id}-{purchase}"[:120]
        note = _joined([_as_bought(view), *_last_time(view, step.id)])
        yield Need(name, key, dish.mass_g, by, dish, note, _kept(view), step=step.id)


def _last_time(view: Outlook, step: str) -> list[str]:
    """What was noted of the shopping the last time."""
    return [tell("last time: {note}", note=note) for note in view.noted(step)]


def _as_bought(view: Outlook) -> str:
    """What it weighs in the shop, as trimming goes in this kitchen."""
    cut, left = CUTS[view.dish.piece["cut"]], view.whole.house.trimmed_left
    bought_g = bought_for(cut, view.dish.mass_g, trimmed_left=left)
    if bought_g <= view.dish.mass_g:
        return gettext("weight after trimming; buy a little more")
    as_bought = roughly(bought_g, view.kitchen.units)
    if left == 1.0:
        return tell("weight after trimming; buy about {as_bought}", as_bought=as_bought)
    return tell(
        "weight after trimming; buy about {as_bought}, going by your past trimming",
        as_bought=as_bought,
    )


def _kept(view: Outlook) -> str:
    """Where the piece waits once it is bought, and until when."""
    following = view.steps[view.place_of("buy") + 1 :]
    stays = []
    for step in following:
        planned = view.planned(step.id)
        if step.kind == "thaw" and planned is not None:
            stays.append(gettext("into the fridge to thaw"))
        if planned is None or step.place not in ("freezer", "fridge") or step.hands_min:
            break
        if planned.end > planned.start:
            until = Instant(planned.end, view.dish.feast.time_zone).local
            stays.append(
                tell(
                    "into the {place} until {until}",
                    place=step.place,
                    until=Moment(until, "weekday-hour"),
                )
            )
    return ", ".join(stays)


def _sheet_lines(sheet: WeighOut, asked: WeighRequest) -> Iterator[tuple[str, str, float]]:
    for line in sheet.lines:
        if line.name == "water" or line.grams <= 0:
            continue
        key = line.name
        if line.name == "curing-salt" and asked.cure is not None:
            key = CURE_KEYS[asked.cure.name]
        yield label_of(line.name, asked), key, line.grams


def _key(name: str) -> str:
    """What an ingredient of a side job is in the pantry, where it is there."""
    return "sugar" if name == "sugar" else "salt" if name == "salt" else f"of-{name.lower()}"[:120]


def _by(view: Outlook) -> datetime:
    """The moment of the first step that lies ahead."""
    plan = view.plan
    ahead = [each.start for each in plan.steps if each.step not in view.state.begun] if plan else []
    return min(ahead, default=view.now)


class _Stock:
    """What the pantry has, taken from trip by trip."""

    def __init__(self, packets: list[Ingredient]) -> None:
        self._packets = packets
        self._taken: dict[str, float] = {}

    def left_g(self, key: str) -> float:
        """What is left of it: any salt for salt, any sugar for sugar [g]."""
        roles = {"salt": "salt", "sugar": "sugar"}
        there = sum(
            each.stock_g or 0.0
            for each in self._packets
            if each.stands_for == key
            or (key in roles and INGREDIENTS[each.stands_for].role == roles[key])
        )
        return max(there - self._taken.get(key, 0.0), 0.0)

    def take(self, key: str, grams: float) -> None:
        """Take so much of it [g]."""
        self._taken[key] = self._taken.get(key, 0.0) + grams


def _lines_of(needs: Iterable[Need], stock: _Stock) -> list[Line]:
    by_key: dict[str, list[Need]] = {}
    for need in needs:
        by_key.setdefault(need.stock_key, []).append(need)
    lines = []
    for key, group in by_key.items():
        weighed = [each.grams for each in group if each.grams is not None]
        needed = sum(weighed) if weighed else None
        there = stock.left_g(key)
        stock.take(key, min(needed or 0.0, there))
        first = min(group, key=lambda each: each.by)
        lines.append(Line(key, group[0].name, needed, there, first.by, tuple(group)))
    return sorted(lines, key=lambda each: (not each.is_step, each.by, each.name))


def _joined(texts: Iterable[str]) -> str:
    return ", ".join(dict.fromkeys(text for text in texts if text))
