"""Two earlier Lantern Nights, with what came of them and what was to be done differently."""

from datetime import UTC, datetime, timedelta
from typing import Any

from pantry_web.feasts.actions.add_dish import add_dish
from pantry_web.feasts.actions.keep_plan import keep_plan
from pantry_web.feasts.actions.log.begin_step import begin_step
from pantry_web.feasts.actions.log.write_down import write_down
from pantry_web.feasts.models import Dish, Feast
from pantry_web.kitchens.models import Cook, Kitchen
from pantry_web.ledger.actions.end_leftover import end_leftover
from pantry_web.ledger.actions.tell_review import tell_review
from pantry_web.ledger.models import Leftover
from pantry_web.planning.hands import gate_now
from pantry_web.planning.looking import ask_for_plan, feast_outlook, outlook_alone
from pantry_web.planning.outlook import Outlook
from pantry_web.planning.solving import work_out_plan

Document = dict[str, Any]
HOT_C = 76.0
SLOW = 1.15
"""The oven of Quince Lane takes so many times as long."""
STEADY = timedelta(minutes=3)
LATE = timedelta(minutes=25)
"""So much later than planned they go shopping."""
WEIGHED = {"trim": 1.08, "carve": 0.73}
"""What a piece weighs before it is trimmed and before it is carved, against what is salted [-]."""


def cook_earlier_nights(
    kitchen: Kitchen, cook: Cook, dishes: dict[str, Document], zone: str
) -> None:
    """Cook the dishes through in two years before, and tell of each.

    Parameters: kitchen; cook; dishes, documents by name; zone of the feasts.
    """
    for year, told in TOLD.items():
        serve_at = datetime(year, 3, 21, 18, 30, tzinfo=UTC)
        feast = Feast.objects.create(
            kitchen=kitchen, name="Lantern Night", serve_at=serve_at, time_zone=zone, heads=7
        )
        made = {name: add_dish(feast, name, dishes[name]) for name in told}
        go_by_the_plan(kitchen, feast, serve_at - timedelta(days=30))
        for name, review in told.items():
            _cook_through(made[name], kitchen, cook, serve_at)
            blank = dict.fromkeys(("bland_share", "ready_at", "left_g"))
            words = dict.fromkeys(("saltiness", "tender", "doneness", "skin", "next_time"), "")
            next_day = serve_at + timedelta(hours=14)
            view = outlook_alone(_fresh(made[name]), kitchen, next_day)
            tell_review(view, cook, {**blank, **words, **review})
            for leftover in view.dish.leftovers.all():
                end_leftover(leftover, Leftover.Fate.EATEN, next_day + timedelta(days=1))


def go_by_the_plan(kitchen: Kitchen, feast: Feast, now: datetime) -> None:
    """The cook has seen the plan and goes by it, so that what changes later is told."""
    work_out(feast, kitchen, now)
    keep_plan(feast, feast_outlook(feast, kitchen, now).plan)


def work_out(feast: Feast, kitchen: Kitchen, now: datetime) -> None:
    """Solve the plan of a feast unless it is solved."""
    ask_for_plan(feast, kitchen, now)
    solving = feast_outlook(feast, kitchen, now).solving
    if solving is not None:
        work_out_plan.call(solving.pk)


def _cook_through(dish: Dish, kitchen: Kitchen, cook: Cook, serve_at: datetime) -> None:
    """Go through every step, each as long as is usual, so that it is on the table in time."""
    steps = outlook_alone(dish, kitchen, serve_at - timedelta(days=60)).steps
    lengths = [
        timedelta(hours=(step.prefer_h or step.min_h) * (SLOW if step.kind == "cook" else 1.0))
        for step in steps
    ]
    at = serve_at - sum(lengths, timedelta())
    for step, length in zip(steps, lengths, strict=True):
        if step.hands_min:
            # A tick is made when the hands are done.
            work = timedelta(minutes=step.hands_min)
            went_at = _late(dish, step.id, work, at + length) if step is steps[0] else at
            if step.kind in WEIGHED:
                before = outlook_alone(_fresh(dish), kitchen, went_at - work - STEADY)
                write_down(before, cook, mass_g=round(WEIGHED[step.kind] * dish.mass_g, -1))
            view = _read_if_asked(_fresh(dish), kitchen, cook, went_at)
            begin_step(view, step.id, cook, is_sure=True)
        at += length


def _late(dish: Dish, step: str, work: timedelta, before: datetime) -> datetime:
    """When the work is done that was begun later than planned at first, and before what follows."""
    planned = next(
        datetime.fromisoformat(each["start"])
        for each in dish.feast.first_plan or ()
        if (each["dish"], each["step"]) == (str(dish.pk), step)
    )
    return min(planned + work + LATE, before - STEADY)


def _read_if_asked(dish: Dish, kitchen: Kitchen, cook: Cook, at: datetime) -> Outlook:
    """The dish at a moment, its reading or its touch written down where a gate asks for it."""
    view = outlook_alone(dish, kitchen, at)
    gate = gate_now(view)
    if gate is None or gate.is_open:
        return view
    before = outlook_alone(_fresh(dish), kitchen, at - STEADY)
    if gate.asks == "temperature":
        cold = gate.goal_c is not None and gate.goal_c < 30.0
        write_down(before, cook, temperature_c=3.0 if cold else HOT_C)
    else:
        write_down(before, cook, touch="tender" if gate.asks == "touch" else "looks-done")
    return outlook_alone(_fresh(dish), kitchen, at)


def _fresh(dish: Dish) -> Dish:
    """The dish as it is stored now, its log not read yet."""
    return Dish.objects.select_related("feast").get(pk=dish.pk)


TOLD: dict[int, dict[str, Document]] = {
    2025: {
        "Treacle gammon": {
            "saltiness": "salty", "tender": "right", "doneness": "right", "left_g": 600.0,
            "next_time": "Too salty by itself, right with the roots. A little less salt.",
        },
        "Bay-salted duck": {
            "saltiness": "salty", "tender": "right", "doneness": "right", "skin": "chewy",
            "next_time": "Rested too long, the skin went soft. Carve after ten minutes.",
        },
    },
    2026: {
        "Treacle gammon": {
            "saltiness": "salty", "tender": "right", "doneness": "right", "bland_share": 0.1,
            "left_g": 450.0, "next_time": "Order the joint a week ahead, the shop had none.",
        },
        "Bay-salted duck": {
            "saltiness": "salty", "tender": "right", "doneness": "over", "skin": "crisp",
            "next_time": "The oven is slow: it was ready half an hour late.",
        },
        "Yoghurt goat": {
            "saltiness": "flat", "tender": "tough", "doneness": "right",
            "next_time": "Into the yoghurt the evening before, not in the morning.",
        },
    },
}  # fmt: skip
