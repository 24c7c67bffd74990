"""Every sentence of the plan document as a check of its own, and random feasts to try it on.

Nothing here uses the solver: `broken_rules` walks an answer, `best_by_table` finds the best plan of
a dish by dynamic programming over its boundaries.
"""

import math
from datetime import UTC, datetime, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo

QUARTER = 900


def instant(text, zone):
    moment = datetime.fromisoformat(text)
    return (moment if moment.tzinfo else moment.replace(tzinfo=zone)).astimezone(UTC)


class Feast:
    """A document with its times in seconds from the hour of serving."""

    def __init__(self, document):
        self.document = document
        self.zone = ZoneInfo(document["tz"])
        self.serve = instant(document["serve_at"], self.zone)
        self.now = self.seconds(document["now"])
        self.dish = document["dishes"][0]
        self.early = math.floor(self.dish.get("early_max_min", 0) / 15) * QUARTER
        self.away = [
            (self.seconds(each["from"]), self.seconds(each["to"]))
            for each in document.get("away", [])
        ]
        day = {"wake": "07:00", "sleep": "22:30"} | document.get("day", {})
        self.wake, self.sleep = (day[name] for name in ("wake", "sleep"))
        self.work = day.get("work")

    def seconds(self, text):
        return round((instant(text, self.zone) - self.serve).total_seconds())

    def awake(self, second):
        """Whether somebody is up and at home at a second."""
        local = (self.serve + timedelta(seconds=second)).astimezone(self.zone)
        up = self.wake <= f"{local:%H:%M}" < self.sleep
        return up and not any(begin <= second < end for begin, end in self.away)

    def at_work(self, second):
        """Whether it is an hour of work."""
        return self.work is None or self._in_hours(self.work, second)

    def is_open(self, place, second):
        """Whether a place is open at a second."""
        opening = self.document.get("open", {}).get(place)
        if opening is None:
            return True
        local = (self.serve + timedelta(seconds=second)).astimezone(self.zone)
        is_closed = f"{local:%Y-%m-%d}" in opening.get("closed", ())
        return not is_closed and self._in_hours(opening.get("hours", ()), second)

    def _in_hours(self, hours, second):
        local = (self.serve + timedelta(seconds=second)).astimezone(self.zone)
        return any(
            (
                f"{local:%a}".lower() in each["days"]
                if each.get("days") is not None
                else not each.get("dates") or f"{local:%Y-%m-%d}" in each["dates"]
            )
            and each["from"] <= f"{local:%H:%M}" < each["to"]
            for each in hours
        )

    def present(self, begin, end):
        """Whether somebody is up and at home all the while (looked at each five minutes)."""
        return all(self.awake(second) for second in (*range(begin, end, 300), end - 1))

    def window(self, step):
        """Shortest and longest length on the grid [s]."""
        hands = math.ceil(step.get("hands_min", 0) / 15) * QUARTER
        least = max(round(step.get("min_h", 0) * 3600), hands)
        shortest = math.ceil(least / QUARTER) * QUARTER
        if step.get("max_h") is None:
            return shortest, math.inf
        most = round(step["max_h"] * 3600)
        longest = most // QUARTER * QUARTER
        if longest < shortest:
            below, above = least - longest, shortest - max(most, least)
            nearest = longest if below < above and longest >= hands else shortest
            return nearest, nearest
        return shortest, longest

    def deviation(self, step, length):
        """How far a length is from the wish [s]."""
        wished = step.get("prefer_h")
        return 0 if wished is None else abs(length - round(wished * 3600))

    def may_start(self, step, start):
        """Whether the hands of a step find somebody."""
        hands = math.ceil(step.get("hands_min", 0) / 15) * QUARTER
        return not hands or self.present(start, start + hands)


def broken_rules(document, answer):
    """What an answer with a plan breaks, for a dish of which nothing has happened yet."""
    feast, broken = Feast(document), []

    def need(holds, rule):
        if not holds:
            broken.append(rule)

    steps = feast.dish["steps"]
    planned = answer["steps"]
    need(
        [each["step"] for each in planned] == [step["id"] for step in steps], "every step, in order"
    )
    starts = [feast.seconds(each["start"]) for each in planned]
    ends = [feast.seconds(each["end"]) for each in planned]
    need(ends[:-1] == starts[1:], "back to back")
    need(-feast.early <= ends[-1] <= 0, "ends at the hour or a little before")
    need(starts[0] >= feast.now, "nothing starts in the past")
    for step, start, end in zip(steps, starts, ends, strict=True):
        need(start % QUARTER == 0, "on the grid")
        shortest, longest = feast.window(step)
        need(shortest <= end - start <= longest, f"window of {step['id']}")
        need(feast.may_start(step, start), f"hands of {step['id']}")
        need(not step.get("attended") or feast.present(start, end), f"attended {step['id']}")
    for step, start, end in zip(steps, starts, ends, strict=True):
        if step.get("every_h"):
            _check_rounds(feast, step, start, end, answer, need)
    need(answer["gap"] == 0 or answer["status"] != "optimal", "optimal has no gap")
    return broken


def _check_rounds(feast, step, start, end, answer, need):
    every = round(step["every_h"] * 3600)
    at = [
        feast.seconds(each["at"])
        for each in answer["rounds"]
        if any(job["step"] == step["id"] for job in each["jobs"])
    ]
    for moment in at:
        need(feast.awake(moment), "somebody is there for a round")
        need(start < moment < end, "rounds lie inside the step")
    points = [start, *at, end]
    for last, following in pairwise(points):
        if following - last > every:
            window = range(last + every // 2, last + every + 1, 300)
            need(not any(feast.awake(second) for second in window), "a round in time")
            later = range(last + every + 300, following - 300, 300)
            need(not any(feast.awake(second) for second in later), "the first moment somebody is")
    need(len(at) == fewest_rounds(feast, every, start, end), "fewest rounds for these times")


def fewest_rounds(feast, every, start, end):
    """Fewest rounds that keep the rule, found by going through all moments of the grid."""
    reached, count = {start}, 0
    while True:
        if any(end - last <= every for last in reached):
            return count
        following = set()
        for last in reached:
            fit = [s for s in range(_up(last + every / 2), last + every + 1, QUARTER)
                   if feast.awake(s)]  # fmt: skip
            if not fit:
                later = (s for s in range(last + every, end, 60) if feast.awake(s))
                fit = [next(later, end)]
            following.update(fit)
        if end in following:
            return count
        reached, count = following, count + 1


def _up(second):
    return math.ceil(second / QUARTER) * QUARTER


def best_by_table(document):
    """Least deviation and the latest first start of the best plans [s], None when there is none."""
    feast = Feast(document)
    steps = feast.dish["steps"]
    first = _up(feast.now)
    best = dict.fromkeys(range(-feast.early, 1, QUARTER), 0)
    for step in reversed(steps):
        shortest, longest = feast.window(step)
        costs = {}
        for end, cost in best.items():
            lowest = max(first, end - min(longest, end - first)) if longest < math.inf else first
            for start in range(lowest, end - shortest + 1, QUARTER):
                total = cost + feast.deviation(step, end - start)
                if total < costs.get(start, math.inf):
                    costs[start] = total
        best = {start: cost for start, cost in costs.items() if feast.may_start(step, start)}
    if not best:
        return None
    least = min(best.values())
    return least, max(start for start, cost in best.items() if cost == least)


def random_feast(dice):
    """A plan document with one dish, tight or roomy, near a change of clocks or far from it."""
    zone, serve = dice.choice(
        [
            ("Europe/London", datetime(2027, 3, 22, 18, 30)),
            (
                "Europe/London",
                datetime(2027, 3, 29, 13, 0),
            ),  # the clocks went forward the day before
            ("America/New_York", datetime(2027, 11, 8, 17, 15)),  # and back
            ("Asia/Kathmandu", datetime(2027, 2, 6, 19, 10)),
        ]
    )
    serve += timedelta(minutes=dice.choice([0, 5, 30]))
    names = ["buy", "keep", "trim", "brine", "lift", "rest", "roast", "carve"][: dice.randint(3, 8)]
    steps, total = [], 0.0
    for name in names:
        least = dice.choice([0.25, 0.5, 1, 2.1, 6, dice.uniform(0, 30)])
        if name == "brine":
            least = dice.uniform(6, 120)
        most = least + dice.choice([0, 0.25, 3, 24])
        hands = dice.choice([0, 0, 10, 20, 45])
        step = {
            "id": name, "place": "fridge", "min_h": least, "max_h": most, "hands_min": hands,
            "prefer_h": dice.uniform(least, most),
        }  # fmt: skip
        if name == "brine":
            step["every_h"] = dice.choice([6, 12, 16, 24])
        steps.append(step)
        total += least
    spare = dice.choice([-5, 2, 12, 30, 72])
    now = serve - timedelta(hours=max(total + spare, 1))
    away_from = (now + (serve - now) * dice.random()).replace(second=0, microsecond=0)
    away_from = away_from.replace(tzinfo=ZoneInfo(zone)).astimezone(UTC)
    away_to = away_from + timedelta(hours=dice.choice([4, 30]))
    return {
        "now": now.replace(tzinfo=ZoneInfo(zone)).astimezone(UTC).isoformat(),
        "tz": zone,
        "serve_at": serve.isoformat(),
        "day": {"wake": dice.choice(["06:30", "07:00"]), "sleep": dice.choice(["21:45", "22:30"])},
        "away": dice.choice(
            [[], [{"from": away_from.isoformat(), "to": away_to.isoformat()}]]
        ),
        "places": {"fridge": 1},
        "dishes": [{"id": "dish", "early_max_min": dice.choice([0, 0, 30]), "steps": steps}],
    }  # fmt: skip
