"""Recipes in cups and spoons, reckoned by hand-typed figures: the check on `check`."""

import random

# by definition
ML = {
    "tsp": 4.92892, "tbsp": 14.78676, "metric-tbsp": 15, "au-tbsp": 20, "us-cup": 236.5882,
    "metric-cup": 250, "us-pint": 473.1765, "us-quart": 946.3529, "us-gallon": 3785.412,
    "imp-pint": 568.2613, "imp-gallon": 4546.09, "ml": 1, "l": 1000,
}  # fmt: skip
G = {"g": 1, "kg": 1000, "oz": 28.34952, "lb": 453.59237}
# g per ml. Table salt, brown sugar, honey, liquids: USDA National Nutrient Database, release 28,
# 6 g a teaspoon, 220 and 339 g a cup and so on; other salts, sugar, curing salt: common practice
DENSITY = {
    "water": 1, "salt-table": 6 / 4.92892, "salt-fine-sea": 270 / 236.5882,
    "salt-pickling": 290 / 236.5882, "salt-compact-coarse": 240 / 236.5882,
    "salt-hollow-flake": 135 / 236.5882, "curing-salt-1": 6 / 4.92892, "curing-salt-2": 6 / 4.92892,
    "sugar": 200 / 236.5882, "brown-sugar": 220 / 236.5882, "honey": 339 / 236.5882,
    "soy-sauce": 255 / 236.5882, "fish-sauce": 18 / 14.78676, "wine": 29.39 / 29.57353,
    "vinegar": 239 / 236.5882, "beer": 29.67 / 29.57353, "oil": 216 / 236.5882,
    "buttermilk": 245 / 236.5882,
}  # fmt: skip
SAUCE = {  # salt (sodium × 2.542) and water: USDA National Nutrient Database, release 28
    "soy-sauce": (0.143293, 0.7077), "fish-sauce": (0.196242, 0.7107), "wine": (0, 0.8649),
    "vinegar": (0, 0.9381), "beer": (0, 0.9196), "oil": (0, 0), "buttermilk": (0, 0.9013),
}  # fmt: skip
CURE = {"curing-salt-1": (0.0625, 0.0), "curing-salt-2": (0.0625, 0.04)}


def grams(line: dict) -> float:
    """What a line weighs [g]."""
    unit = line["unit"]
    if unit in G:
        return line["amount"] * G[unit]
    return line["amount"] * ML[unit] * DENSITY[line["name"]]


def reckon_recipe(document: dict) -> dict:
    """Masses, strength, salt of the meat, counts."""
    meat = document["meat"]["mass_g"]
    used = document.get("used_share", 1.0)
    water = salt = nitrite = pickle = 0.0
    plain_water = 0.0
    for line in document["lines"]:
        mass, name = grams(line) * used, line["name"]
        pickle += mass
        if name == "water":
            water += mass
            plain_water += mass
        elif name.startswith("salt-"):
            salt += mass
        elif name in CURE:
            n, k = CURE[name]
            nitrite += n * mass
            salt += (1 - n - k) * mass
        elif name in SAUCE:
            salt += SAUCE[name][0] * mass
            water += SAUCE[name][1] * mass
    held = salt / (water + 0.74 * meat)
    return {
        "grams": [grams(line) for line in document["lines"]],
        "pickle": pickle,
        "pickle_pct": 100 * salt / pickle,
        "target_pct": 100 * salt / (meat + plain_water),
        "in_meat_pct": 100 * 0.74 * held,
        "even_ppm": 1e6 * nitrite / (meat + pickle),
        "pickup_ppm": 1e5 * nitrite / pickle,
        "undissolved": salt / (salt + water) > 0.264,
    }


def random_recipe(dice: random.Random) -> dict:
    """A brine in cups and spoons, sensible or not."""
    big = ["us-quart", "us-pint", "us-gallon", "imp-pint", "metric-cup", "l"]
    small = ["tsp", "tbsp", "us-cup", "metric-tbsp", "au-tbsp", "oz", "g"]
    lines = [{"name": "water", "amount": dice.choice([0.5, 1, 2, 3]), "unit": dice.choice(big)}]
    for name in dice.sample(sorted(set(DENSITY) - {"water", *CURE}), dice.randint(1, 5)):
        amount = dice.choice([0.25, 1 / 3, 0.5, 1, 1.5, 2])
        lines.append({"name": name, "amount": amount, "unit": dice.choice(small)})
    if dice.random() < 0.6:
        amount = dice.choice([0.5, 1, 2])
        lines.append({"name": dice.choice(sorted(CURE)), "amount": amount, "unit": "tsp"})
    dice.shuffle(lines)
    meat = {"kind": "pork", "mass_g": dice.uniform(300, 6000), "thickness_mm": 60, "shape": "slab"}
    return {
        "profile": dice.choice(["us", "eu"]), "method": "even-brine", "meat": meat, "lines": lines,
        "used_share": dice.choice([1, 1, 0.75, 0.5]), "days": dice.choice([None, 3, 14]),
    }  # fmt: skip


WATERS = {"water": 1, "ice": 1, "soy-sauce": 0.70, "fish-sauce": 0.68, "wine": 0.88,
          "vinegar": 0.94, "beer": 0.92, "oil": 0, "buttermilk": 0.89, "kiwi": 0.86,
          "pear": 0.86}  # fmt: skip
NITRITES = {"curing-salt-1": ("cure-1", 0.0625, 0), "curing-salt-2": ("cure-2", 0.0625, 0.04),
            "saltpetre": ("saltpetre", 0, 1)}  # fmt: skip


def reckon_mix(document: dict) -> dict:
    """What of everything is in a recipe in grams, of the share that is used."""
    meat, method = document["meat"], document["method"]
    mass = meat["mass_g"] * (1 - meat.get("bone_share", 0))
    dry = method in ("dry-cure", "dry-brine")
    share = 1.0 if dry else document.get("used_share", 1.0)
    needle = document.get("injection_share", 0.10) if method == "injection" else None
    alone = needle is not None and not document.get("cover", True)
    found = dict.fromkeys(("water", "liquid", "all_salt", "nitrite", "nitrate", "pickle"), 0.0)
    cures, unknown = [], False
    for line in document["lines"]:
        grams, name = share * line["amount"], line["name"]
        found["pickle"] += grams
        found["water"] += grams if name in ("water", "ice") else 0
        found["liquid"] += WATERS.get(name, 0) * grams
        salt = 1.0 if name.startswith("salt-") else SAUCE.get(name, (0, 0))[0]
        if name in (*NITRITES, "nitrite-salt", "celery-powder"):
            label = (line.get("nitrite_pct") or 0) / 100, (line.get("nitrate_pct") or 0) / 100
            cure, n, k = NITRITES.get(name, (name.replace("-powder", ""), *label))
            salt = (line.get("salt_pct") or 0) / 100 if cure == "celery" else 1 - n - k
            found["nitrite"] += n * grams
            found["nitrate"] += k * grams
            unknown |= n == 0 and cure != "saltpetre"
            labels = {key: line.get(key) for key in ("nitrite_pct", "nitrate_pct")}
            cures.append({"name": cure, **labels})
        found["all_salt"] += salt * grams
    wet = not dry and (method != "marinade" or found["liquid"] > 0)
    return found | {
        "mass": mass, "own": mass * (meat.get("sodium_mg") or 0) * 0.002542 / 100,
        "wet": wet, "brine": wet and not alone, "needle": needle, "unknown": unknown,
        "cures": cures,
        "names": _summed((line["name"], line["amount"]) for line in document["lines"]),
    }  # fmt: skip


def _summed(pairs) -> dict[str, float]:
    masses: dict[str, float] = {}
    for name, grams in pairs:
        masses[name] = masses.get(name, 0.0) + grams
    return masses


def as_asked(document: dict, mix: dict) -> dict:
    """The recipe as `weigh` would ask for it: its target by convention, the fridge at 4 °C."""
    mass, salt = mix["mass"], mix["all_salt"] + mix["own"]
    target = 100 * salt / (mass + (mix["water"] if mix["wet"] else 0))
    if mix["needle"] is not None and not mix["brine"] and mix["pickle"] > 0:
        goes_in = min(mix["needle"] * mass / mix["pickle"], 1)
        target = 100 * (goes_in * mix["all_salt"] + mix["own"]) / (mass * (1 + mix["needle"]))
    # what must be lifted is lifted at 2 %, the ordinary saltiness (common practice)
    return document | {"target_salt_pct": target, "temperature_c": 4.0, "lift_at_pct": 2.0}


def random_mixed_recipe(dice: random.Random, meat: dict) -> dict:
    """A recipe in grams with any number of curing salts, sensible or not."""
    method = dice.choice(
        ["even-brine", "strong-brine", "dry-cure", "dry-brine", "injection", "marinade"]
    )
    mass = meat["mass_g"]
    lines = [{"name": "salt-table", "amount": mass * dice.uniform(0.005, 0.12)}]
    if method not in ("dry-cure", "dry-brine") and (method != "marinade" or dice.random() < 0.5):
        lines.append({"name": "water", "amount": mass * dice.uniform(0.3, 2)})
    others = dice.sample(["oil", "wine", "soy-sauce", "sugar", "kiwi", "pear"], dice.randint(0, 2))
    lines += [{"name": name, "amount": mass * dice.uniform(0.01, 0.1)} for name in others]
    for _ in range(dice.choice([0, 1, 1, 2, 3])):
        name = dice.choice([*NITRITES, "curing-salt-1", "nitrite-salt", "celery-powder"])
        line = {"name": name, "amount": mass * dice.choice([0.002, 0.003, 0.0045, 0.01])}
        if name in ("nitrite-salt", "celery-powder"):
            line |= {"nitrite_pct": dice.choice([None, dice.uniform(0.4, 0.9)]),
                     "nitrate_pct": dice.choice([None, None, dice.uniform(0.4, 2)])}  # fmt: skip
        if name == "celery-powder":
            line["salt_pct"] = dice.choice([None, 30])
        lines.append(line)
    return {
        "profile": dice.choice(["us", "eu"]), "method": method, "meat": meat,
        "heaped": method == "dry-cure" and dice.random() < 0.3,
        "cover": dice.random() < 0.6, "injection_share": dice.uniform(0.03, 0.2),
        "used_share": dice.choice([1, 1, 0.75]), "lines": [each | {"unit": "g"} for each in lines],
    }  # fmt: skip
