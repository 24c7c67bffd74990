"""A dozen dishes due on one evening: how long until a plan, how good, and how well proven.

Run it with `bin/bench evening`.
"""

import random
import time
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

from pantry_core.formats.operations import plan_document
from pantry_core.plan.problem import Problem, resolve
from pantry_core.plan.request import PlanRequest
from pantry_core.plan.result import Plan
from pantry_core.plan.solve import plan

SERVE = datetime.fromisoformat("2027-03-22T18:30")
DEMANDS = (3.0, 5.0, 8.0)


def evening(count: int, seed: int, days: int = 0) -> dict[str, Any]:
    """A feast of so many dishes of eight steps, due on one evening or spread over so many days."""
    dice = random.Random(seed)
    dishes = []
    for n in range(count):
        scale = dice.uniform(0.7, 1.4)
        uses = dice.choice(DEMANDS)
        heat = ("simmer", "hob") if n % 3 else ("smoke", "smoker")
        rows: tuple[tuple[str, str | None, float, float, float], ...] = (
            ("buy", None, 1.0, 0.0, 60),
            ("trim", "counter", 0.5, 0.25, 30),
            ("cure", "fridge", 40 * scale, 40.0, 15),
            ("lift", "counter", 0.5, 0.0, 20),
            ("rest", "fridge", 10.0, 20.0, 0),
            (*heat, 1.5 * scale, 0.5, 15),
            ("roast", "oven", 0.75 * scale, 0.5, 15),
            ("stand", "counter", 0.5, 0.5, 10),
        )
        steps = [
            {"id": key, "place": place, "min_h": least, "prefer_h": least * 1.02,
             "max_h": least + room, "hands_min": hands, "every_h": 24.0 if key == "cure" else None,
             "uses": uses if place == "fridge" else 1.0}
            for key, place, least, room, hands in rows
        ]  # fmt: skip
        own = SERVE - timedelta(days=dice.randrange(days)) if days else SERVE
        dishes.append(
            {
                "id": f"dish-{n}",
                "name": f"Dish {n}",
                "steps": steps,
                "early_max_min": 180,
                "serve_at": own.isoformat(),
            }
        )
    return {
        "now": (SERVE - timedelta(days=days + 8)).isoformat(), "tz": "Europe/London",
        "serve_at": SERVE.isoformat(), "cooks": 2,
        "places": {"fridge": 6.0 * count, "counter": 4, "hob": 4, "oven": 3, "smoker": 3},
        "dishes": dishes,
    }  # fmt: skip


def with_hours(document: dict[str, Any]) -> dict[str, Any]:
    """The same evening with a shop, hours of work, two trips, and two dishes that wait."""
    for n, dish in enumerate(document["dishes"]):
        dish["late_max_min"] = 15
        dish["steps"][0] |= {"place": "shop", "trip": "far" if n % 2 else "near"}
        dish["steps"].insert(1, {"id": "keep", "place": "fridge", "max_h": 72.0, "uses": 3.0})
    for waiting, waited in ((1, 0), (3, 2)):
        wait = {"dish": f"dish-{waited}", "step": "lift"}
        document["dishes"][waiting]["steps"][-2]["after"] = [wait]
    weekdays = ["tue", "wed", "thu", "fri"]
    work = [{"days": weekdays, "from": "16:30", "to": "21:30"},
            {"days": ["sat", "sun", "mon"], "from": "08:00", "to": "21:30"}]  # fmt: skip
    shop = {"hours": [{"days": [*weekdays, "sat", "mon"], "from": "08:00", "to": "20:00"}]}
    return document | {
        "day": {"wake": "07:00", "sleep": "22:30", "work": work, "half": True},
        "places": document["places"] | {"shop": None}, "open": {"shop": shop},
    }  # fmt: skip


def main() -> None:
    """Print what was measured."""
    plan_document(evening(1, 0))  # the solver is imported here
    for count, days, seeds in ((6, 0, 8), (12, 0, 4)):
        for seed in range(1, seeds + 1):
            _measured(
                f"{count} dishes with hours, no. {seed}", with_hours(evening(count, seed, days))
            )
    for count, days in ((6, 0), (12, 0), (12, 30)):
        for seed in range(1, 5):
            where = f"over {days} days" if days else "on one evening"
            document = evening(count, seed, days)
            _measured(f"{count} dishes {where}, no. {seed}", document, is_moved=count == 6)


def _measured(name: str, document: dict[str, Any], *, is_moved: bool = False) -> None:
    problem = resolve(PlanRequest.model_validate(document))
    marks: list[float] = []
    begin = time.perf_counter()
    answer = plan(problem, lambda *_: marks.append(time.perf_counter() - begin))
    took = time.perf_counter() - begin
    first = f"first plan {marks[0]:.2f} s, best {marks[-1]:.2f} s" if marks else "no plan"
    print(f"{name}: {answer.status}, gap {answer.gap}, {first}, all told {took:.2f} s, "
          f"{len(answer.rounds)} visits, {_trips(problem, answer)} trips")  # fmt: skip
    if is_moved and answer.steps:
        _again(problem, answer)


def _trips(problem: Problem, answer: Plan) -> int:
    of_trips = {
        (dish.id, step.id): step.trip
        for dish in problem.dishes
        for step in dish.pending
        if step.trip is not None
    }
    made = {
        (of_trips[each.dish, each.step], each.start)
        for each in answer.steps
        if (each.dish, each.step) in of_trips
    }
    return len(made)


def _again(problem: Problem, before: Plan) -> None:
    """Solve again for guests an hour later, with as few changes as will do."""
    later = replace(problem, serve_at=problem.serve_at + timedelta(hours=1))
    later = replace(
        later, dishes=tuple(replace(each, serve_at=later.serve_at) for each in later.dishes)
    )
    keep = {(each.dish, each.step): each.start for each in before.steps}
    begin = time.perf_counter()
    answer = plan(later, keep=keep)
    moved = sum(each.start != keep[each.dish, each.step] for each in answer.steps)
    print(f"  an hour later: {answer.status} in {time.perf_counter() - begin:.2f} s, "
          f"{moved} of {len(answer.steps)} steps moved")  # fmt: skip


if __name__ == "__main__":
    main()
