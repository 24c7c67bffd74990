"""How long a dish was too warm, from the mishaps that befell it, and what that means."""

from collections.abc import Iterable
from datetime import datetime

from pantry_core.history.warmth import Warmed
from pantry_core.history.warmth import judge_warmth as judge_mishaps
from pantry_core.notice import Notice
from pantry_core.routes.cuts import CUTS
from pantry_web.feasts.models import Dish, Mishap, Step
from pantry_web.feasts.state import DishState
from pantry_web.quantities import hours_of


def judge_warmth(
    dish: Dish,
    steps: Iterable[Step],
    state: DishState,
    mishaps: Iterable[Mishap],
    now: datetime,
) -> Notice | None:
    """What all time above 5 °C together means for a dish; None when there was none."""
    cold = {step.key for step in steps if step.place == "fridge"}
    befell = []
    cut = CUTS.get(dish.cut)
    is_mackerel = cut is not None and cut.species == "mackerel"
    for each in mishaps:
        if each.kind == Mishap.Kind.LEFT_OUT:
            lasted = hours_of(each.ends - each.begins) if each.dish_id == dish.pk else 0.0
        else:
            lasted = _in_the_fridge_h(cold, state, each, now)
        if lasted:
            befell.append(Warmed(each.kind, lasted, each.temperature_c))  # type: ignore[arg-type]  # kinds
    return judge_mishaps(befell, is_mackerel=is_mackerel)


def _in_the_fridge_h(cold: set[str], state: DishState, mishap: Mishap, now: datetime) -> float:
    """How long the dish lay in the fridge while it happened [h]."""
    total = 0.0
    for key, fact in state.facts.items():
        if key not in cold or fact.started_at is None:
            continue
        begin = max(fact.started_at, mishap.begins)
        end = min(fact.ended_at or now, mishap.ends)
        total += max(hours_of(end - begin), 0.0)
    return total
