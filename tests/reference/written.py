"""Random recipes as part of a dish, and a reckoning of their masses and their nitrite by hand.

Masses by definition of the units; table salt 6.0 g a teaspoon, curing salt 6 g (rules sheet, from
memory and common practice); limits of 9 CFR 424.21(c) and 424.22(b) (from memory).
"""

import random

from pantry_core.formats.operations import dish_document
from pantry_core.formats.reading import WrongInput

CUTS = ("pork-loin", "brisket", "chicken", "belly-skinless", "lamb-leg", "trout", "beef-steak")
METHODS = ("even-brine", "strong-brine", "dry-cure", "dry-brine", "sauce-marinade",
           "herb-marinade", "dairy-marinade", "mixed-in")  # fmt: skip
GRAMS = {"g": 1.0, "kg": 1000.0, "oz": 28.349523125, "lb": 453.59237}
TSP = 4.92892159375
ML = {"ml": 1.0, "l": 1000.0, "tsp": TSP, "tbsp": 3 * TSP, "us-cup": 48 * TSP,
      "us-quart": 192 * TSP, "us-gallon": 768 * TSP}  # fmt: skip
BY_ML = {"water": 1.0, "salt-table": 6.0 / TSP, "curing-salt-1": 6.0 / TSP, "pixie dust": 1.0}
"""Grams of a millilitre."""
NITRITE = 0.0625


def random_recipe(dice: random.Random) -> dict:
    """A `dish` document with a recipe, fitting or not."""
    method, cut = dice.choice(METHODS), dice.choice(CUTS)
    mass_g, for_g = (round(dice.uniform(500, 4000)) for _ in range(2))
    lines = [_salt(dice, for_g)]
    if method.endswith("brine") and method != "dry-brine":
        lines.append({"name": "water", "amount": dice.choice([1, 2, 3]), "unit": "us-quart"})
    if dice.random() < 0.5:
        unit, each_g = dice.choice([("g", 1.0), ("tsp", 6.0), ("oz", 28.35)])
        wanted_g = for_g * dice.uniform(0.0005, 0.012)
        lines.append({"name": "curing-salt-1", "amount": round(wanted_g / each_g, 3) or 0.1,
                      "unit": unit})  # fmt: skip
    for name, units in (("sugar", ("g", "kg")), ("pixie dust", ("g", "ml", "tbsp"))):
        if dice.random() < 0.5:
            lines.append({"name": name, "amount": dice.choice([1, 2.5, 10]),
                          "unit": dice.choice(units)})  # fmt: skip
    lines.extend(dict(extra) for extra in dice.sample(EXTRAS, dice.randint(0, 3)))
    if dice.random() < 0.2:
        lines[0]["held_back"] = dice.choice([0.25, 0.5])
    return _with_its_piece(dice, method, cut, lines, mass_g, for_g)


def _with_its_piece(dice, method, cut, lines, mass_g, for_g):
    recipe = {"text": "as typed", "lines": lines}
    if dice.random() < 0.7:
        recipe["for_g"] = for_g
    if dice.random() < 0.2:
        recipe["used_share"] = 0.75
    cure = {"method": method}
    if dice.random() < 0.7:
        cure["days"] = dice.choice([0.5, 1, 2, 5, 7, 14])
    piece = {"cut": cut, "mass_g": mass_g}
    if method == "mixed-in" and cut != "trout":
        piece["form"] = "ground"
    return {"profile": "us", "piece": piece, "cure": cure, "recipe": recipe, "people": 6}


EXTRAS = (
    {"name": "egg", "amount": 3, "unit": "piece", "goes": "coat"},
    {"name": "onion", "amount": 2, "unit": "piece", "goes": "pot"},
    {"name": "moon moss", "amount": 1, "unit": "handful"},
    {"name": "salt-table", "unit": "to-taste", "goes": "table"},
    {"name": "bay leaves", "amount": 6, "unit": "piece", "held_back": 0.5},
    {"name": "water", "amount": 2, "unit": "l", "goes": "pot"},
)


def _salt(dice, for_g):
    share = dice.choice([0.01, 0.02, 0.04, 0.1])
    unit = dice.choice(["g", "oz", "tsp", "us-cup"])
    each_g = GRAMS.get(unit) or ML[unit] * BY_ML["salt-table"]
    return {"name": "salt-table", "amount": round(share * for_g / each_g, 2) or 0.25, "unit": unit}


def by_hand(document: dict) -> list[float | None]:
    """What every line weighs for the piece [g]; None for what is counted or pinched."""
    recipe = document["recipe"]
    by_piece = document["piece"]["mass_g"] / recipe.get("for_g", document["piece"]["mass_g"])
    found = []
    for line in recipe["lines"]:
        grows = by_piece if line.get("goes", "cure") in ("cure", "coat", "stuffing") else 1.0
        found.append(_one(line, grows))
    return found


def _one(line, grows):
    if "grams" in line:
        return line["grams"]
    amount, unit = line.get("amount"), line.get("unit")
    if amount is None:
        return None
    if unit in GRAMS:
        return grows * amount * GRAMS[unit]
    if unit in ML and line["name"] in BY_ML:
        return grows * amount * ML[unit] * BY_ML[line["name"]]
    return None


def masses_of(answer: dict, count: int) -> list[float | None]:
    """What the answer says that every line weighs, its parts together [g]."""
    found: list[float | None] = [None] * count
    for each in answer["mix"]:
        if each["line"] is not None and each["grams"] is not None:
            found[each["line"]] = (found[each["line"]] or 0.0) + each["grams"]
    return found


def nitrite_ppm(document: dict, answer: dict) -> float:
    """Nitrite by the count of the method: over the meat alone, or over meat and pickle [mg/kg]."""
    recipe = document["recipe"]
    meat = answer["asked"]["meat"]
    meat_g = meat["mass_g"] * (1.0 - meat["bone_share"])
    method = document["cure"]["method"]
    is_wet = method in ("even-brine", "strong-brine") and document["piece"].get("form") != "ground"
    is_dry = method in ("dry-cure", "dry-brine", "mixed-in")
    used = 1.0 if is_dry else recipe.get("used_share", 1.0)
    cured = [
        (line["name"], (grams or 0.0) * (1.0 - line.get("held_back", 0.0)))
        for line, grams in zip(recipe["lines"], by_hand(document), strict=True)
        if line.get("goes", "cure") == "cure"
    ]
    cure_g = sum(grams for name, grams in cured if name == "curing-salt-1")
    pickle = sum(g for name, g in cured if name in ("water", "salt-table", "sugar",
                                                    "curing-salt-1"))  # fmt: skip
    return 1e6 * NITRITE * used * cure_g / (meat_g + (used * pickle if is_wet else 0.0))


def disagreement(dice: random.Random) -> tuple[str | None, dict]:
    """What the core and the reckoning disagree about in one random recipe, and its document."""
    document = random_recipe(dice)
    try:
        answer = dish_document(document)
    except WrongInput as refused:
        return f"refused: {[str(each) for each in refused.problems]}", document
    return _wrong(document, answer) or _wrong_proposal(document, answer), document


def _wrong(document, answer):
    lines = document["recipe"]["lines"]
    counted = [each.get("unit") == "piece" for each in lines]
    got, wanted = masses_of(answer, len(lines)), by_hand(document)
    for at, (one, other) in enumerate(zip(got, wanted, strict=True)):
        if counted[at]:
            continue
        if (one is None) != (other is None) or (one and abs(one - other) > 0.005 * other):
            return f"line {at}: {one}, not {other}"
    if document["cure"]["method"] in ("even-brine", "strong-brine", "dry-cure", "mixed-in"):
        ppm, limit = nitrite_ppm(document, answer), answer["sheet"]["nitrite"]["limit_ppm"]
        is_over = answer["sheet"]["nitrite"]["verdict"] == "over"
        if is_over != (round(ppm, 1) > limit) and abs(ppm / limit - 1) > 0.001:
            return f"nitrite {ppm} of {limit}: {answer['sheet']['nitrite']}"
    return None


def _levels(answer):
    return {one["code"]: one["level"] for one in reversed(answer["notices"])
            if one["level"] != "note"}  # fmt: skip


def _wrong_proposal(document, answer):
    """Each proposal alone does what it says; once all are taken no stop is left that has one."""
    codes = [each["code"] for each in answer["proposals"]]
    if len(set(codes)) < len(codes):
        return f"one code for two offers: {codes}"
    for each in answer["proposals"]:
        after = dish_document(taken(document, each))
        was, now = (_levels(one) for one in (answer, after))
        if any(now.get(code) in ("stop", was[code]) for code in each["lifts"]):
            return f"{each['code']} does not lift {each['lifts']}"
        if {code for code in now if now[code] == "stop" != was.get(code)}:
            return f"{each['code']} brings a stop"
        if each["code"] == "less-cure":
            ppm = nitrite_ppm(taken(document, each), after)
            if abs(ppm / each["after"]["nitrite_ppm"] - 1) > 0.005:
                return f"{each['code']} comes to {ppm}, not {each['after']['nitrite_ppm']}"
        untouched = set(range(len(document["recipe"]["lines"])))
        untouched -= {change.get("line") for change in each["changes"]}
        before_g, after_g = (masses_of(one, 99) for one in (answer, after))
        if any(before_g[at] != after_g[at] for at in untouched):
            return f"{each['code']} changes other lines"
    for _ in range(8):
        if not answer["proposals"]:
            break
        document = taken(document, answer["proposals"][0])
        answer = dish_document(document)
    return "proposals without an end" if answer["proposals"] else None


def taken(document: dict, proposal: dict) -> dict:
    """The document with a proposal taken."""
    lines = [dict(each) for each in document["recipe"]["lines"]]
    cure = dict(document["cure"])
    for change in proposal["changes"]:
        if "line" in change:
            lines[change["line"]] |= {k: v for k, v in change.items() if k != "line"}
        elif "add" in change:
            lines.append(change["add"])
        else:
            cure[change["field"].removeprefix("cure.")] = change["value"]
    return document | {"cure": cure, "recipe": document["recipe"] | {"lines": lines}}
