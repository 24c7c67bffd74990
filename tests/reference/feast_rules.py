"""Every sentence of the plan document as a check on whole feasts: dishes, places, cooks, facts."""

import copy
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
        self.late = math.floor(document.get("late_max_min", 0) / 15) * QUARTER
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
                _kept_hours(feast, dish, step, start, end, need)
                _waits(feast, step, start, planned, need)
                if step.get("locked_start"):
                    need(start == feast.seconds(step["locked_start"]), f"lock of {step['id']}")
                work.extend(_work(step, start, end))
            elif step.get("attended") and (is_open or dish.running):
                work.append((max(start, feast.now), end, None))
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
        need(dish.serve - dish.early <= times[-1][1] <= dish.serve + dish.late, "ends at its hour")
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


def _kept_hours(feast, dish, step, start, end, need):
    """Work of over ten minutes in its hours or the last three, a place while it is open."""
    hands = math.ceil(step.get("hands_min", 0) / 15) * QUARTER
    worked = end if step.get("attended") else start + hands
    is_work = step.get("attended") or step.get("hands_min", 0) > 10
    if is_work and start < dish.serve - 3 * 3600:
        need(all(feast.at_work(each) for each in range(start, worked, 300)), "hours of work")
    inside = range(start, end, 300)
    need(all(feast.is_open(step.get("place"), each) for each in inside), "the place is open")


def _waits(feast, step, start, planned, need):
    for wait in step.get("after", ()):
        if (wait["dish"], wait["step"]) not in planned:
            continue
        end = feast.seconds(planned[wait["dish"], wait["step"]]["end"])
        least = round(wait.get("min_h", 0) * 3600)
        need(start >= end + least, f"{step['id']} waits long enough")
        if wait.get("max_h") is not None:
            most = max(wait["max_h"] * 3600, math.ceil(least / QUARTER) * QUARTER)
            need(start <= end + most, f"{step['id']} waits no longer")


def _work(step, start, end):
    hands = math.ceil(step.get("hands_min", 0) / 15) * QUARTER
    if step.get("attended"):
        yield start, end, step.get("trip")
    elif hands:
        yield start, start + hands, step.get("trip")


def _room(document, stays, need):
    """No place over its capacity; what lies in it already is a fact."""
    for place, holds in document["places"].items():
        room = holds["capacity"] if isinstance(holds, dict) else holds
        if room is None:
            continue
        here = [each for each in stays if each[0].get("place") == place]
        for moment in {start for _, start, _, _ in here}:
            inside = [each for each in here if each[1] <= moment < each[2]]
            load = sum(each[0].get("uses", 1) for each in inside)
            facts = sum(each[0].get("uses", 1) for each in inside if not each[3])
            need(load <= max(room, facts) + 1e-6, f"room in {place}")
            within = holds.get("shares_within_c", 25) if isinstance(holds, dict) else 25
            open_c, facts_c = (
                [each[0]["heat_c"] for each in inside if each[3] is is_open and _heat(each[0])]
                for is_open in (True, False)
            )
            apart = [abs(a - b) for a in open_c for b in (*open_c, *facts_c)]
            need(max(apart, default=0) <= within, f"temperatures in {place}")


def _heat(step):
    return step.get("heat_c") is not None and step.get("uses", 1) > 0


def _cooks(document, work, need):
    """No more at once than there are cooks; what starts together on one trip counts once."""
    once = {}
    for n, (start, end, trip) in enumerate(work):
        key = (trip, start) if trip else n
        once[key] = (start, max(end, once.get(key, (start, end))[1]))
    for moment in {start for start, _ in once.values()}:
        busy = sum(1 for start, end in once.values() if start <= moment < end)
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
        if after - before > every:
            window = range(before + every // 2, before + every + 1, 300)
            free = [second for second in window if second >= feast.now and feast.awake(second)]
            need(not free, "a round in time")
            later = range(max(before + every, feast.now) + 300, after - 300, 300)
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
        end = feast.seconds(planned[each["id"], each["steps"][-1]["id"]]["end"])
        total += 2 * max(end - dish.serve, 0)
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


SHOP_WEEKS = (
    [{"days": ["mon", "tue", "wed", "thu", "fri"], "from": "08:00", "to": "19:00"},
     {"days": ["sat"], "from": "08:00", "to": "14:00"}],
    [{"from": "08:00", "to": "12:30"}, {"from": "14:00", "to": "20:00"}],
    [{"days": ["mon", "tue", "thu", "sat"], "from": "09:00", "to": "19:00"}],
)  # fmt: skip
WORK_WEEKS = (
    None,
    [{"from": "08:00", "to": "21:00"}],
    [{"days": ["tue", "wed", "thu", "fri"], "from": "08:00", "to": "21:30"},
     {"days": ["sat", "sun", "mon"], "from": "09:00", "to": "21:00"}],
)  # fmt: skip


def with_hours(dice, document):
    """The same feast with a shop, hours of work, trips, dishes that wait, and some lateness."""
    dishes = copy.deepcopy(document["dishes"])
    ovens = [step for dish in dishes for step in dish["steps"] if step["place"] == "oven"]
    for step in ovens:
        step["heat_c"] = dice.choice([None, 120, 160, 180, 200, 220])
        longer = {name: 1.2 * step[name] for name in ("min_h", "prefer_h", "max_h")}
        step["heats"] = [{"heat_c": 170, **longer}]
    for n, dish in enumerate(dishes):
        dish["late_max_min"] = dice.choice([0, 15, 40])
        first = dish["steps"][0]
        if first["id"] == "buy":
            first |= {"place": "shop", "trip": "market"}
            if dice.random() < 0.8:
                keep = {"id": "keep", "place": "fridge", "max_h": dice.choice([48, 96])}
                dish["steps"].insert(1, keep)
        if n and dice.random() < 0.4:
            other, least = dice.choice(dishes[:n]), dice.choice([0, 0.5, 2])
            waited = dice.choice(other["steps"][:-2] or other["steps"][:1])
            wait = {"dish": other["id"], "step": waited["id"], "min_h": least,
                    "max_h": dice.choice([None, None, least + 30])}  # fmt: skip
            dish["steps"][-dice.choice([1, 2])]["after"] = [wait]
    day = {"wake": "07:00", "sleep": "22:30", "half": dice.random() < 0.5}
    work = dice.choice(WORK_WEEKS)
    serve = document["serve_at"][:10]
    shop = {"hours": dice.choice(SHOP_WEEKS), "closed": dice.choice([[], [], [serve]])}
    return document | {
        "dishes": dishes, "day": day | ({} if work is None else {"work": work}),
        "places": document["places"] | {"shop": None}, "open": {"shop": shop},
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
