"""Every sentence of the plan document as a check on whole feasts: dishes, places, cooks, facts."""

import math
from datetime import UTC, datetime, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo

from tests.reference.plan_rules import QUARTER, Feast, instant


class Dish:
    """A dish of a feast, its times in seconds from the hour of the feast."""

    def __init__(self, feast, document):
        self.document = document
        own = document.get("serve_at")
        self.serve = feast.seconds(own) if own else 0
        self.early = math.floor(document.get("early_max_min", 0) / 15) * QUARTER
        steps = document["steps"]
        facts = [
            j for j, each in enumerate(steps) if each.get("started_at") or each.get("ended_at")
        ]
        self.last_fact = max(facts, default=-1)
        self.running = self.last_fact >= 0 and not steps[self.last_fact].get("ended_at")
        self.first_open = self.last_fact + 1


def broken_rules_of(document, answer):
    """What an answer with a plan breaks."""
    feast, broken = Feast(document), []

    def need(holds, rule):
        if not holds:
            broken.append(rule)

    planned = {(each["dish"], each["step"]): each for each in answer["steps"]}
    dishes = [Dish(feast, each) for each in document["dishes"]]
    need(len(planned) == sum(len(each["steps"]) for each in document["dishes"]), "every step")
    work, stays = [], []
    for dish in dishes:
        times = [
            tuple(feast.seconds(planned[dish.document["id"], step["id"]][end])
                  for end in ("start", "end"))
            for step in dish.document["steps"]
        ]  # fmt: skip
        _chain(feast, dish, times, need)
        for j, step in enumerate(dish.document["steps"]):
            start, end = times[j]
            is_open = j >= dish.first_open
            _facts(feast, step, start, end, need)
            if is_open and not _bound(dish, j):
                _window_and_hands(feast, step, start, end, need)
                if step.get("locked_start"):
                    need(start == feast.seconds(step["locked_start"]), f"lock of {step['id']}")
                work.extend(_work(step, start, end))
            elif step.get("attended") and (is_open or dish.running):
                work.append((max(start, feast.now), end))
            if j >= dish.last_fact and end > feast.now:
                stays.append((step, max(start, feast.now), end, is_open))
            if step.get("every_h") and j >= dish.last_fact:
                _rounds(feast, dish, step, start, end, answer, need)
    _room(document, stays, need)
    _cooks(document, work, need)
    visits = [each["at"] for each in answer["rounds"]]
    need(visits == sorted(visits) and len(set(visits)) == len(visits), "visits are told once")
    return broken


def _bound(dish, j):
    """The step after an ended one begins at once: a fact of its own."""
    return j == dish.last_fact + 1 and j > 0 and not dish.running and dish.last_fact >= 0


def _chain(feast, dish, times, need):
    for (_, end), (start, _) in pairwise(times[max(dish.last_fact, 0) :]):
        need(end == start or (end <= feast.now and start >= end), "back to back")
    if dish.last_fact < len(times) - 1 or dish.running:
        need(dish.serve - dish.early <= times[-1][1] <= dish.serve, "ends at its hour")
    if dish.last_fact < 0:
        need(times[0][0] >= feast.now, "nothing starts in the past")


def _facts(feast, step, start, end, need):
    if step.get("started_at"):
        need(start == feast.seconds(step["started_at"]), "a start that is a fact")
    if step.get("ended_at"):
        need(end == feast.seconds(step["ended_at"]), "an end that is a fact")


def _window_and_hands(feast, step, start, end, need):
    need(start % QUARTER == 0, "on the grid")
    shortest, longest = feast.window(step)
    need(shortest <= end - start <= longest, f"window of {step['id']}")
    need(feast.may_start(step, start), f"hands of {step['id']}")
    need(not step.get("attended") or feast.present(start, end), f"attended {step['id']}")


def _work(step, start, end):
    hands = math.ceil(step.get("hands_min", 0) / 15) * QUARTER
    if step.get("attended"):
        yield start, end
    elif hands:
        yield start, start + hands


def _room(document, stays, need):
    """No place over its capacity; what lies in it already is a fact."""
    for place, room in document["places"].items():
        here = [each for each in stays if each[0].get("place") == place]
        for moment in {start for _, start, _, _ in here}:
            inside = [each for each in here if each[1] <= moment < each[2]]
            load = sum(each[0].get("uses", 1) for each in inside)
            facts = sum(each[0].get("uses", 1) for each in inside if not each[3])
            need(load <= max(room, facts) + 1e-6, f"room in {place}")


def _cooks(document, work, need):
    for moment in {start for start, _ in work}:
        busy = sum(1 for start, end in work if start <= moment < end)
        need(busy <= document.get("cooks", 1), "hands at once")


def _rounds(feast, dish, step, start, end, answer, need):
    every = round(step["every_h"] * 3600)
    key = {"dish": dish.document["id"], "step": step["id"]}
    at = [feast.seconds(each["at"]) for each in answer["rounds"] if key in each["jobs"]]
    done = [feast.seconds(each) for each in step.get("rounds_done", [])]
    need(set(done) <= set(at), "rounds that were done come back")
    ahead = [each for each in at if each not in done]
    for moment in ahead:
        need(feast.awake(moment), "somebody is there for a round")
        need(start < moment < end, "rounds lie inside the step")
    last = max([start, *done])
    for before, after in pairwise([last, *ahead, end]):
        if after - before > 1.5 * every:
            window = range(before + every // 2, before + 3 * every // 2 + 1, 300)
            free = [second for second in window if second >= feast.now and feast.awake(second)]
            need(not free, "a round in time")
            later = range(max(before + 3 * every // 2, feast.now) + 300, after - 300, 300)
            need(not any(feast.awake(each) for each in later), "the first moment somebody is")


def deviation_h(document, answer):
    """Total deviation from what is preferred [h], of steps that are not facts."""
    feast = Feast(document)
    planned = {(each["dish"], each["step"]): each for each in answer["steps"]}
    total = 0
    for each in document["dishes"]:
        dish = Dish(feast, each)
        for j, step in enumerate(each["steps"]):
            if j >= dish.first_open or (dish.running and j == dish.last_fact):
                told = planned[each["id"], step["id"]]
                length = feast.seconds(told["end"]) - feast.seconds(told["start"])
                total += feast.deviation(step, length)
    return total / 3600


ROUTES = (
    ("brine", [("buy", None, 1, 0, 60), ("trim", "counter", 0.5, 0.5, 30),
               ("brine", "fridge", 48, 48, 15), ("lift", "counter", 0.5, 0, 20),
               ("rest", "fridge", 12, 24, 0), ("simmer", "hob", 2, 0.5, 15),
               ("glaze", "oven", 0.75, 0.25, 15), ("carve", "counter", 0.25, 0, 15)]),
    ("roast", [("buy", None, 1, 0, 60), ("salt", "fridge", 12, 36, 15),
               ("roast", "oven", 2, 0.5, 15), ("stand", "counter", 0.5, 0.5, 5),
               ("carve", "counter", 0.25, 0, 15)]),
    ("smoke", [("trim", "counter", 0.5, 0, 30), ("salt", "fridge", 8, 8, 15),
               ("dry", "fridge", 4, 8, 10), ("smoke", "smoker", 3, 1, 20),
               ("serve", "counter", 0.25, 0.25, 10)]),
    ("pickle", [("slice", "counter", 0.5, 0.25, 20), ("pickle", "fridge", 12, 60, 10)]),
    ("marinade", [("mix", "counter", 0.25, 0, 15), ("marinade", "fridge", 8, 16, 10),
                  ("grill", "hob", 0.5, 0.25, 30)]),
)  # fmt: skip
HOURS = (
    ("Europe/London", "2027-03-22T18:30"), ("Europe/London", "2027-03-29T13:00"),
    ("America/New_York", "2027-11-08T17:15"), ("Asia/Kathmandu", "2027-02-06T19:10"),
)  # fmt: skip


def random_whole_feast(dice):
    """A feast of one to eight dishes, tight or roomy, with absences, locks, facts, two cooks."""
    zone, hour = dice.choice(HOURS)
    serve = datetime.fromisoformat(hour)
    local = ZoneInfo(zone)
    now = serve - timedelta(hours=dice.choice([60, 110, 160, 200]))
    roomy = dice.random() < 0.7
    dishes = [_random_dish(dice, n, serve, roomy=roomy) for n in range(dice.randint(1, 8))]
    away = []
    if dice.random() < 0.4:
        begin = now + timedelta(hours=dice.uniform(2, 30))
        begin = begin.replace(minute=0, second=0, microsecond=0, tzinfo=local)
        end = begin + timedelta(hours=dice.choice([5, 9]))
        away = [{"from": begin.astimezone(UTC).isoformat(), "to": end.astimezone(UTC).isoformat()}]
    return {
        "now": now.replace(tzinfo=local).astimezone(UTC).isoformat(),
        "tz": zone, "serve_at": serve.isoformat(), "cooks": dice.choice([1, 2, 2]),
        "places": {"fridge": 60 if roomy else dice.choice([14, 25]), "counter": 4 if roomy else 1,
                   "hob": 4, "oven": 2 if roomy else 1, "smoker": 1},
        "away": away, "dishes": dishes,
    }  # fmt: skip


def _random_dish(dice, n, serve, *, roomy):
    name, route = dice.choice(ROUTES)
    steps = []
    for key, place, least, room, hands in route:
        hours = least * (dice.uniform(0.8, 1.3) if least > 1 else 1)
        step = {"id": key, "place": place, "min_h": hours, "hands_min": hands, "prefer_h": hours,
                "max_h": hours + room * dice.uniform(0.5, 1.5)}  # fmt: skip
        if place == "fridge":
            step["uses"] = dice.choice([3, 6, 12.5])
            if hands and least > 6:
                step["every_h"] = dice.choice([8, 12, 16])
        steps.append(step)
    if dice.random() < 0.1:
        steps[-1]["attended"] = True
    early = dice.choice([30, 60, 120]) if roomy else dice.choice([0, 30])
    dish = {"id": f"{name}-{n}", "name": name, "steps": steps, "early_max_min": early}
    if dice.random() < 0.15:
        dish["serve_at"] = (serve - timedelta(minutes=dice.choice([30, 60]))).isoformat()
    return dish


def with_facts(document, answer, dice):
    """The same feast some hours later, what was planned by then having happened."""
    local = ZoneInfo(document["tz"])
    starts = sorted(instant(each["start"], local) for each in answer["steps"])
    later = starts[dice.randint(0, len(starts) - 1)] + timedelta(minutes=dice.choice([0, 7, 200]))
    later = min(later, instant(document["serve_at"], local) - timedelta(hours=3))
    planned = {(each["dish"], each["step"]): each for each in answer["steps"]}
    dishes = []
    for dish in document["dishes"]:
        steps = []
        for step in dish["steps"]:
            told = planned[dish["id"], step["id"]]
            start, end = (instant(told[name], local) for name in ("start", "end"))
            fact = {}
            if start <= later:
                fact["started_at"] = start.isoformat()
                fact["rounds_done"] = [
                    each["at"] for each in answer["rounds"]
                    if {"dish": dish["id"], "step": step["id"]} in each["jobs"]
                    and instant(each["at"], local) <= later
                ]  # fmt: skip
            if end <= later:
                fact["ended_at"] = end.isoformat()
            steps.append(step | fact)
        dishes.append(dish | {"steps": steps})
    return document | {"now": later.isoformat(), "dishes": dishes}
