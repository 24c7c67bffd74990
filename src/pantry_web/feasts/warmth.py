"""How long a dish was above 4 °C, from the mishaps that befell it, and what that means."""

from collections.abc import Iterable
from datetime import datetime

from pantry_core.heat.warm import HOT_C, hours_above_4_c, judge_hours_above_4_c
from pantry_core.notice import Notice
from pantry_web.feasts.models import Mishap, Step
from pantry_web.feasts.state import DishState
from pantry_web.quantities import hours_of


def judge_warmth(
    dish_id: int,
    steps: Iterable[Step],
    state: DishState,
    mishaps: Iterable[Mishap],
    now: datetime,
) -> Notice | None:
    """What all time above 4 °C together means for a dish; None when there was none."""
    cold = {step.key for step in steps if step.place == "fridge"}
    hours, is_hot = 0.0, False
    for each in mishaps:
        if each.kind == Mishap.Kind.LEFT_OUT:
            lasted = hours_of(each.ends - each.begins) if each.dish_id == dish_id else 0.0
        else:
            lasted = _in_the_fridge_h(cold, state, each, now)
        if lasted:
            hours += hours_above_4_c(each.kind, lasted, each.temperature_c)  # type: ignore[arg-type]  # the database holds kinds
            is_hot |= (each.temperature_c or 0.0) > HOT_C.value
    return judge_hours_above_4_c(hours, is_hot=is_hot)


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
