"""What all dishes need, what is in stock, and what is missing by when."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta

from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.plan.instants import Instant
from pantry_core.routes.cuts import CUTS
from pantry_core.rules.cures import CURE_KEYS
from pantry_core.rules.ingredients import INGREDIENTS
from pantry_web.feasts.line_labels import label_of
from pantry_web.kitchens.models import Kitchen
from pantry_web.pantry.models import Ingredient
from pantry_web.planning.outlook import Outlook, feast_outlooks

LOOKS_AHEAD = timedelta(days=60)


@dataclass(frozen=True, slots=True)
class Need:
    """Something a dish needs by a moment; grams None for what is counted [g]."""

    name: str
    stock_key: str
    grams: float | None
    by: Instant
    dish: str
    note: str = ""


@dataclass(frozen=True, slots=True)
class Missing:
    """A line of the list: what is needed in all, what is there, what is to be bought [g]."""

    name: str
    needed_g: float | None
    stock_g: float
    by: Instant
    dishes: tuple[str, ...]
    note: str

    @property
    def to_buy_g(self) -> float | None:
        """What is to be bought, None for what is counted [g]."""
        return None if self.needed_g is None else max(self.needed_g - self.stock_g, 0.0)

    @property
    def is_in_stock(self) -> bool:
        """Whether the pantry has it all."""
        return self.to_buy_g == 0.0


def shopping_list(kitchen: Kitchen, now: datetime) -> list[Missing]:
    """What is missing over all dishes of the feasts to come, the first needed first.

    Feasts within two months are looked at; what is eaten later is bought later.
    """
    feasts = list(kitchen.feasts.filter(serve_at__gt=now, serve_at__lte=now + LOOKS_AHEAD))
    views = (view for whole in feast_outlooks(feasts, kitchen, now) for view in whole.dishes)
    wanted = (each for each in views if not each.dish.is_given_up and not each.is_discarded)
    needs = [need for view in wanted for need in _needs(view)]
    return sorted(_summed(needs, list(kitchen.ingredients.all())), key=lambda each: each.by)


def _needs(view: Outlook) -> Iterator[Need]:
    answer, dish = view.answer, view.dish
    if view.state.put_in is not None or dish.is_job or answer is None:
        return
    by = Instant(_by(view), dish.feast.time_zone)
    if "buy" not in view.state.begun:
        name = f"{CUTS[dish.piece['cut']].name}, for {dish.name.lower()}"
        note = "weight after trimming; buy a little more"
        yield Need(name, f"meat-{dish.pk}", dish.mass_g, by, dish.name, note)
    if answer.sheet is not None and answer.asked is not None:
        for name, key, grams in _lines(answer.sheet, answer.asked):
            yield Need(name, key, grams, by, dish.name)
    for spice in dish.cure.get("spices", ()):
        text, unit = spice["text"], "" if spice["unit"] == "piece" else f" {spice['unit']}"
        note = f"{spice['amount']:.3g}{unit}"
        yield Need(text.capitalize(), f"spice-{text}", None, by, dish.name, note)


def _lines(sheet: WeighOut, asked: WeighRequest) -> Iterator[tuple[str, str, float]]:
    for line in sheet.lines:
        if line.name == "water" or line.grams <= 0:
            continue
        key = line.name
        if line.name == "curing-salt" and asked.cure is not None:
            key = CURE_KEYS[asked.cure.name]
        yield label_of(line.name, asked), key, line.grams


def _by(view: Outlook) -> datetime:
    """The moment of the shopping trip, or of the first use once that is over."""
    plan = view.plan
    ahead = [each.start for each in plan.steps if each.step not in view.state.begun] if plan else []
    return min(ahead, default=view.now)


def _summed(needs: Iterable[Need], packets: list[Ingredient]) -> Iterator[Missing]:
    by_key: dict[str, list[Need]] = {}
    for need in needs:
        by_key.setdefault(need.stock_key, []).append(need)
    for key, group in by_key.items():
        weighed = [each.grams for each in group if each.grams is not None]
        first = min(group, key=lambda each: each.by)
        yield Missing(
            name=group[0].name,
            needed_g=sum(weighed) if weighed else None,
            stock_g=_stock(key, packets),
            by=first.by,
            dishes=tuple(dict.fromkeys(each.dish for each in group)),
            note=", ".join(dict.fromkeys(each.note for each in group if each.note)),
        )


def _stock(key: str, packets: list[Ingredient]) -> float:
    """What is there of it: any salt for salt, any sugar for sugar [g]."""
    roles = {"salt": "salt", "sugar": "sugar"}
    return sum(
        each.stock_g or 0.0
        for each in packets
        if each.stands_for == key
        or (key in roles and INGREDIENTS[each.stands_for].role == roles[key])
    )
