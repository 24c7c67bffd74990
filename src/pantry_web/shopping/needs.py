"""What all dishes need, what is in stock, and what is missing by when."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import datetime

from pantry_core.rules.ingredients import INGREDIENTS
from pantry_web.feasts.mixing import House, Mixed, house_of, mix_of, work_out
from pantry_web.feasts.naming import label_of
from pantry_web.feasts.planning import Outlook, feast_outlook
from pantry_web.kitchens.models import Kitchen
from pantry_web.pantry.models import Ingredient

CURE_STOCK = {
    "cure-1": "curing-salt-1", "cure-2": "curing-salt-2", "nitrite-salt": "nitrite-salt",
    "saltpetre": "saltpetre", "celery": "celery-powder",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Need:
    """Something a dish needs by a moment; grams None for what is counted [g]."""

    name: str
    stock_key: str
    grams: float | None
    by: datetime
    zone: str
    dish: str
    note: str = ""


@dataclass(frozen=True, slots=True)
class Missing:
    """A line of the list: what is needed in all, what is there, what is to be bought [g]."""

    name: str
    needed_g: float | None
    stock_g: float
    by: datetime
    zone: str
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
    """What is missing over all dishes whose feast lies ahead, the first needed first."""
    house = house_of(kitchen)
    feasts = kitchen.feasts.filter(serve_at__gt=now)
    views = (view for feast in feasts for view in feast_outlook(feast, kitchen, now).dishes)
    wanted = (each for each in views if not each.dish.job and not each.dish.is_given_up)
    needs = [need for view in wanted for need in _needs(view, house)]
    return sorted(_summed(needs, list(kitchen.ingredients.all())), key=lambda each: each.by)


def _needs(view: Outlook, house: House) -> Iterator[Need]:
    if view.state.put_in is not None:
        return
    dish, mix = view.dish, mix_of(view.dish)
    mixed = work_out(mix, house)
    by, zone = _by(view), dish.feast.time_zone
    if "buy" not in view.state.begun:
        name = f"{mixed.cut.name}, for {dish.name.lower()}"
        note = "weight after trimming; buy a little more"
        yield Need(name, f"meat-{dish.pk}", mix.mass_g, by, zone, dish.name, note)
    for name, key, grams in _lines(mixed):
        yield Need(name, key, grams, by, zone, dish.name)
    for spice in mix.spices:
        unit = "" if spice.unit == "piece" else f" {spice.unit}"
        note = f"{spice.amount:.3g}{unit}"
        yield Need(spice.text.capitalize(), f"spice-{spice.text}", None, by, zone, dish.name, note)


def _lines(mixed: Mixed) -> Iterator[tuple[str, str, float]]:
    cure = mixed.request.cure
    for line in mixed.sheet.lines:
        if line.name == "water" or line.grams <= 0:
            continue
        key = line.name
        if line.name == "curing-salt" and cure is not None:
            key = CURE_STOCK[cure.name]
        yield label_of(line.name, mixed.request), key, line.grams


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
            zone=first.zone,
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
