"""Random dishes with edits, plans, facts and mishaps, for the second reckoning of histories."""

import random
from datetime import UTC, datetime, timedelta

from pantry_core.formats.operations import dish_document
from pantry_core.formats.reading import WrongInput
from pantry_core.routes.cuts import CUTS
from tests.reference.limits import OPENED, _inside
from tests.reference.lived import JUDGED, TooNear, Walk, is_heat, judged

ZERO = datetime(2027, 3, 1, 6, 0, tzinfo=UTC)
DAYS = (1, 2, 3, 5, 7, 10, 14, 21, 28)
METHODS = ("even-brine", "strong-brine", "dry-cure", "dry-brine", "needle-brine", "needle",
           "acid-marinade", "none")  # fmt: skip
WAYS = ("roast", "roast", "slow-oven", "simmer", "braise", "smoke", "smoke", "poach", "grill",
        "cold-smoke", None)  # fmt: skip


def random_history(dice: random.Random) -> dict:
    """A `dish` document, fitting or not."""
    cut = dice.choice([each for each in CUTS.values() if each.kind != "vegetable"])
    if dice.random() < 0.3:
        cut = CUTS[dice.choice(["brisket", "gammon-flat", "belly-skinless", "chicken", "trout",
                                "mackerel", "pork-loin"])]  # fmt: skip
    method, way = dice.choice(METHODS), dice.choice(WAYS)
    heat = {} if way is None else {"way": way}
    if way in ("roast", "slow-oven") and dice.random() < 0.4:
        heat["medium_c"] = dice.uniform(75, 120)
    customs = {"tempering": dice.choice(["none", "hour"])}
    if cut.kind == "fish":
        customs["fish"] = dice.choice(["cooked", "cooked", "raw-freeze", "raw-safe"])
    fridge_c = dice.uniform(4.1, 5.6) if dice.random() < 0.1 else 4.0
    cure = {"method": method} if method == "none" else _random_cure(cut, method, dice)
    return {
        "profile": dice.choice(["us", "eu"]), "piece": _random_piece(cut, dice), "cure": cure,
        "heat": heat, "customs": customs, "house": {"fridge_c": fridge_c}, "tz": "UTC",
    }  # fmt: skip


def _random_piece(cut, dice):
    piece = {"cut": cut.id, "mass_g": round(dice.uniform(600, 5000))}
    if dice.random() < 0.5:
        piece["thickness_mm"] = dice.choice([25, 40, 60, 90, dice.uniform(85, 115)])
    if dice.random() < 0.15:
        piece["frozen"] = True
    if dice.random() < 0.1:
        piece["bought"] = {"vacuum": True}
    if dice.random() < 0.1 and cut.kind != "fish":
        piece["form"] = dice.choice(["stuffed", "rolled", "ground"])
    if cut.kind == "fish" and dice.random() < 0.5:
        piece |= {"will_be": dice.choice(["raw", "smoked"]),
                  "storage": dice.choice(["meal", "air", "vacuum"])}  # fmt: skip
    return piece


def _random_cure(cut, method, dice):
    cure = {"method": method}
    if dice.random() < 0.5:
        days = dice.choice(DAYS) * dice.uniform(0.9, 1.1) - dice.choice([0, 1, 2])
        cure["days"] = max(days, 0.4)
    if dice.random() < 0.5:
        cure["target_salt_pct"] = dice.choice([0.8, 1.2, 2.0, 2.5]) * dice.uniform(0.93, 1.07)
    if method == "strong-brine" and dice.random() < 0.6:
        cure["brine_salt_pct"] = dice.uniform(3, 14)
    if cut.kind != "fish" and method in METHODS[:6] and dice.random() < 0.5:
        cure |= {"curing_salt": "cure-1", "ingoing_ppm": dice.choice([60, 100, 150])
                 * dice.uniform(0.93, 1.07)}  # fmt: skip
    elif dice.random() < 0.5:
        cure["curing_salt"] = None
    return cure


def with_edits(document: dict, dice: random.Random) -> dict:
    """The document with steps removed, moved, heated, cooled, lengthened, and some of its own."""
    steps = dish_document(document)["steps"]
    by_id = {each["id"]: each for each in steps}
    edits: dict[str, dict] = {}
    for _ in range(dice.choice([0, 0, 1, 1, 2, 3])):
        step = by_id[dice.choice(list(by_id))]
        edit = {"step": step["id"]}
        draw = dice.random()
        if draw < 0.2:
            edit["removed"] = True
        elif draw < 0.4 and step["medium"] is None and step["place"] is not None:
            edit["place"] = dice.choice(["counter", "fridge", "cellar", "freezer"])
        elif draw < 0.6 and is_heat(step):
            edit["medium_c"] = step["medium_c"] * dice.uniform(0.6, 1.05)
        elif draw < 0.7 and is_heat(step) and step["until"] and "inside_c" in step["until"]:
            edit["until"] = {"inside_c": step["until"]["inside_c"] * dice.uniform(0.85, 1.05)}
        else:
            hours = dice.choice([0.5, 1, 2, 2.2, 6, 24, 96, 240]) * dice.uniform(0.9, 1.1)
            edit |= {"min_h": hours, "prefer_h": hours, "max_h": hours}
        edits.setdefault(step["id"], edit)
    for i in range(dice.choice([0, 0, 0, 1, 2])):
        hours = dice.choice([0.25, 1, 1.5, 2, 24, 48, 96, 240]) * dice.uniform(0.9, 1.1)
        own = {"step": f"own-{i}", "own": True, "kind": dice.choice(["own", "brine", "cook"]),
               "min_h": hours, "prefer_h": hours, "max_h": hours,
               "before": dice.choice(list(by_id)),
               "place": dice.choice(["counter", "fridge", "fridge", "freezer", "cellar"]),
        }  # fmt: skip
        if dice.random() < 0.15:
            own |= {"place": "freezer", "medium": "air", "medium_c": dice.choice([-20, -36, -18])}
        elif dice.random() < 0.15:
            own |= {"place": "counter", "medium": "air", "medium_c": dice.choice([34, 60])}
        edits[own["step"]] = own
    return document | {"edits": list(edits.values())}


def as_it_goes(document: dict, dice: random.Random) -> tuple[dict, list[dict], dict]:
    """The document with a plan or with facts, its steps on the clock [h], and what was noted."""
    steps = dish_document(document)["steps"]
    at, laid = 0.0, []
    stretch = dice.random() < 0.6
    for each in steps:
        usual = each["min_h"] if each["prefer_h"] is None else each["prefer_h"]
        hours = usual
        if stretch and each["place"] == "fridge" and dice.random() < 0.3:
            hours = usual + dice.choice([0.0, 12, 24, 48, 120, 200]) * dice.random()
        laid.append({**each, "from": at, "to": at + hours})
        at += hours
    draw = dice.random()
    if draw < 0.4:
        in_a_row = zip(laid, _in_a_row(steps), strict=True)
        return document, [each | usual for each, usual in in_a_row], {}
    planned = [
        {"step": each["id"], "start": _moment(each["from"]), "end": _moment(each["to"])}
        for each in laid
    ]
    document = document | {"planned": planned}
    if draw < 0.7:
        return document, laid, {}
    return _with_facts(document, laid, dice)


def _in_a_row(steps):
    at = 0.0
    for each in steps:
        hours = each["min_h"] if each["prefer_h"] is None else each["prefer_h"]
        yield {"from": at, "to": at + hours}
        at += hours


def _moment(hours: float) -> str:
    return (ZERO + timedelta(hours=hours)).isoformat()


def _with_facts(document, laid, dice):
    """What has happened so far, as it was planned; and a mishap, and what the probe read."""
    last = dice.randrange(1, len(laid))
    now = laid[last]["from"] + dice.random() * (laid[last]["to"] - laid[last]["from"])
    facts, noted = [], {"now": now, "read": {}}
    for i, each in enumerate(laid[: last + 1]):
        each["read"] = True
        facts.append({"what": "step-started", "step": each["id"], "at": _moment(each["from"])})
        if i < last:
            facts.append({"what": "step-ended", "step": each["id"], "at": _moment(each["to"])})
    heats = [i for i, each in enumerate(laid) if is_heat(each)]
    if heats and heats[-1] <= last and dice.random() < 0.7:
        heat = laid[heats[-1]]
        at = min(heat["to"], now) - 1e-3
        if at > heat["from"]:
            celsius = dice.choice([50, 60, 63, 68, 71, 74, 80])
            facts.append({"what": "temperature-read", "step": heat["id"], "at": _moment(at),
                          "temperature_c": celsius})  # fmt: skip
            noted["read"] = {heat["id"]: [(at, celsius)]}
    noted["left_heat"] = bool(heats) and heats[-1] < last
    if dice.random() < 0.3:
        hours = dice.choice([0.4, 1.0, 1.5, 2.0, 3.0])
        begun = [each for each in laid[: last + 1] if not is_heat(each)]
        at = begun[-1]["from"] if begun else 0.0
        facts.append({"what": "mishap", "kind": "left-out", "hours": hours, "at": _moment(at)})
        times = 2 if CUTS[document["piece"]["cut"]].species == "mackerel" else 1
        noted["mishap"] = (at, times * hours)
    return document | {"facts": facts, "now": _moment(now)}, laid, noted


def disagreement(dice: random.Random) -> tuple[str | None, dict]:
    """What the core and the reckoning disagree about in one random case, and its document.

    Raises TooNear where the models' own error decides.
    """
    try:
        document = with_edits(random_history(dice), dice)
        document, laid, noted = as_it_goes(document, dice)
        answer = dish_document(document)
    except WrongInput:
        raise TooNear from None
    told = _told(document, answer, laid)
    if not laid or all(each["place"] is None for each in laid):
        raise TooNear
    walk = Walk(document, told, laid, noted)
    _place_mishap(walk, noted)
    wanted = judged(walk)
    if ("discard", "stop") in wanted:
        wanted = {("discard", "stop")}
    got = {(each["code"], each["level"]) for each in answer["notices"] if each["code"] in JUDGED}
    if ("discard", "stop") in got:
        got = {("discard", "stop")}
    return (None if got == wanted else f"{sorted(got)}, not {sorted(wanted)}"), document


def _place_mishap(walk, noted):
    """A mishap counts before the heat or after it."""
    if "mishap" in noted:
        at, hours = noted["mishap"]
        hot = walk.cooks_from is not None and at > walk.steps[walk.cooks_from]["from"]
        noted["warm_after_h" if hot else "warm_h"] = hours


def _told(document, answer, laid):
    """What the reckoning takes from the answer: the sheet, and the steps of the route."""
    asked = answer["asked"]
    plain = {name: document[name] for name in ("profile", "piece", "house", "customs", "tz")}
    meat = (asked or dish_document(plain | {"cure": {"method": "dry-brine"}})["asked"])["meat"]
    treated = list((asked or {}).get("treatment", ()))
    form = document["piece"].get("form")
    treated += [form] if form in ("stuffed", "rolled") else []
    as_weighed = {"meat": meat, "treatment": treated, "method": (asked or {}).get("method", "none")}
    method = document["cure"]["method"]
    route = dish_document({name: value for name, value in document.items() if name not in
                           ("edits", "planned", "facts", "now")})["steps"]  # fmt: skip
    curing = next((each["id"] for each in route if each["kind"] == method), None)
    heated = any(is_heat(each) for each in laid)
    smoker = any(each["medium"] == "smoker" for each in laid)
    fish_raw = meat["kind"] == "fish" and not heated and (
        document["customs"].get("fish") != "cooked" or smoker
    )  # fmt: skip
    ends = {end for each in laid if is_heat(each) for end in each["until"] or {}}
    return {
        "asked": asked, "asked_meat": meat, "curing_step": curing,
        "safe_c": None if meat.get("will_be") == "raw" else _inside(as_weighed),
        "eaten_raw": meat.get("will_be") == "raw" or fish_raw,
        "needs_figure": "inside_c" in ends or not ends,
        "opened": as_weighed["method"] == "injection" or bool(OPENED & set(treated)),
        "nitrite_ok": any(each["id"] == curing for each in laid)
        and answer["sheet"]["nitrite"]["verdict"] == "ok",
        "treatments": treated,
    }  # fmt: skip
