"""Small feasts with hours, trips, waits and lateness, against a count of all their plans."""

import random
from datetime import datetime, timedelta
from itertools import pairwise, product

import pytest

from pantry_core.formats.operations import plan_document
from tests.reference.feast_rules import broken_rules_of

SERVE = datetime.fromisoformat("2027-03-22T18:00:00+00:00")
EARLY, LATE, RUSH, NOW = 2, 2, 12, -36


def hour(slot):
    return f"{SERVE + slot * timedelta(minutes=15):%H:%M}"


def random_feast(dice):
    """Two dishes of three steps or three of two, for one oven, one shop, one pair of hands."""
    count = dice.choice((2, 2, 3))
    dishes = []
    for _ in range(count):
        steps = []
        for i in range(3 if count == 2 else 2):
            least = dice.randint(2, 4)
            most = least + dice.choice((0, 1, 3 if i else 1))
            attended = dice.random() < 0.15
            steps.append({
                "place": dice.choice(("oven", "board", "board")) if i else "shop",
                "least": least, "most": most, "attended": attended,
                "wish": dice.choice((None, dice.randint(least, most))),
                "hands": 0 if attended else dice.choice((0, 1, 1, 2)),
                "trip": "market" if i == 0 and dice.random() < 0.7 else None,
                "after": None,
            })  # fmt: skip
        dishes.append(steps)
    for n in range(1, count):
        if dice.random() < 0.5:
            other = dishes[n - 1]
            wait = dice.choice((0, 0, 1, 3))
            most = dice.choice((None, None, wait + 2))
            step = dice.randrange(1, len(dishes[n]))
            dishes[n][step]["after"] = (n - 1, dice.randrange(len(other)), wait, most)
    shop = dice.choice([[(-40, 0)], [(-22, -15), (-12, 0)], [(-30, -10)]])
    work = dice.choice([None, [(-32, -13)], [(-26, -18), (-15, -12)]])
    return {"dishes": dishes, "shop": shop, "work": work}


def document_of(feast):
    def steps_of(steps):
        for i, each in enumerate(steps):
            told = {"id": f"s{i}", "place": each["place"], "min_h": each["least"] / 4,
                    "max_h": each["most"] / 4, "hands_min": 15 * each["hands"],
                    "attended": each["attended"]}  # fmt: skip
            if each["wish"] is not None:
                told["prefer_h"] = each["wish"] / 4
            if each["trip"]:
                told["trip"] = each["trip"]
            if each["after"]:
                n, j, wait, most = each["after"]
                told["after"] = [{"dish": f"d{n}", "step": f"s{j}", "min_h": wait / 4,
                                  "max_h": None if most is None else most / 4}]  # fmt: skip
            yield told

    def week(spans):
        return [{"from": hour(max(a, -72)), "to": hour(b)} for a, b in spans]

    day = {"wake": "07:00", "sleep": "22:30"}
    if feast["work"] is not None:
        day["work"] = week(feast["work"])
    return {
        "now": (SERVE + NOW * timedelta(minutes=15)).isoformat(), "tz": "UTC",
        "serve_at": SERVE.isoformat(), "day": day,
        "places": {"oven": 1, "shop": None, "board": 9},
        "open": {"shop": {"hours": week(feast["shop"])}},
        "dishes": [
            {"id": f"d{n}", "early_max_min": 15 * EARLY, "late_max_min": 15 * LATE,
             "steps": list(steps_of(steps))}
            for n, steps in enumerate(feast["dishes"])],
    }  # fmt: skip


def ways_of(steps, feast):
    """Every way of one dish that its own rules allow: cost in slots, and the slots it turns at."""
    for end in range(-EARLY, LATE + 1):
        for lengths in product(*(range(each["least"], each["most"] + 1) for each in steps)):
            turns = [end]
            for length in reversed(lengths):
                turns.insert(0, turns[0] - length)
            if turns[0] >= NOW and all(
                allowed(each, start, stop, feast)
                for each, (start, stop) in zip(steps, pairwise(turns), strict=True)
            ):
                cost = 2 * max(end, 0) + sum(
                    abs(length - each["wish"])
                    for each, length in zip(steps, lengths, strict=True)
                    if each["wish"] is not None
                )
                yield cost, turns


def allowed(step, start, stop, feast):
    if step["place"] == "shop" and not any(a <= start and stop <= b for a, b in feast["shop"]):
        return False
    worked = stop if step["attended"] else start + step["hands"]
    if worked == start or feast["work"] is None or start >= -RUSH:
        return True
    return any(a <= start and worked <= b for a, b in feast["work"])


def together(dishes, ways):
    """Whether the ways go together: one oven, one pair of hands, trips once, waits kept."""
    oven, hands = set(), {}
    for n, turns in enumerate(ways):
        for i, step in enumerate(dishes[n]):
            start, stop = turns[i], turns[i + 1]
            if step["place"] == "oven":
                taken = set(range(start, stop))
                if oven & taken:
                    return False
                oven |= taken
            key = ("trip", start) if step["trip"] else (n, i)
            worked = stop if step["attended"] else start + step["hands"]
            hands[key] = hands.get(key, set()) | set(range(start, worked))
            if step["after"]:
                m, j, least, most = step["after"]
                waited = start - ways[m][j + 1]
                if waited < least or (most is not None and waited > most):
                    return False
    return sum(map(len, hands.values())) == len(set().union(*hands.values()))


def best_of(feast):
    """Cost, trips, first start and all starts of the best plan, in slots; None without one."""
    dishes = feast["dishes"]
    found = None
    for chosen in product(*(sorted(ways_of(steps, feast)) for steps in dishes)):
        if found is not None and sum(cost for cost, _ in chosen) > found[0]:
            continue
        ways = [turns for _, turns in chosen]
        starts = [turns[0] for turns in ways]
        trips = {turns[0] for steps, turns in zip(dishes, ways, strict=True) if steps[0]["trip"]}
        worth = (sum(cost for cost, _ in chosen), len(trips), -min(starts), -sum(starts))
        if (found is None or worth < found) and together(dishes, ways):
            found = worth
    return found


def worth_of(feast, answer):
    at = {(each["dish"], each["step"]): [
        (datetime.fromisoformat(each[name]) - SERVE) / timedelta(minutes=15)
        for name in ("start", "end")] for each in answer["steps"]}  # fmt: skip
    cost, trips, starts = 0.0, set(), []
    for n, steps in enumerate(feast["dishes"]):
        for i, step in enumerate(steps):
            start, stop = at[f"d{n}", f"s{i}"]
            cost += 0 if step["wish"] is None else abs(stop - start - step["wish"])
            trips |= {start} if step["trip"] else set()
        cost += 2 * max(stop, 0)
        starts.append(at[f"d{n}", "s0"][0])
    return cost, len(trips), -min(starts), -sum(starts)


@pytest.mark.parametrize("seed", range(36))
def test_no_plan_is_better_than_the_one_that_is_told(seed):
    feast = random_feast(random.Random(seed))
    document, best = document_of(feast), best_of(feast)
    answer = plan_document(document)
    if best is None:
        assert answer["status"] == "infeasible"
        assert answer["why"]
        return
    assert (answer["status"], answer["gap"]) == ("optimal", 0)
    assert broken_rules_of(document, answer) == []
    assert worth_of(feast, answer) == best
