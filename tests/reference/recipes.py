"""Recipes in cups and spoons, reckoned by hand-typed figures: the check on `check`."""

import random

# by definition
ML = {
    "tsp": 4.92892, "tbsp": 14.78676, "metric-tbsp": 15, "au-tbsp": 20, "us-cup": 236.5882,
    "metric-cup": 250, "us-pint": 473.1765, "us-quart": 946.3529, "us-gallon": 3785.412,
    "imp-pint": 568.2613, "imp-gallon": 4546.09, "ml": 1, "l": 1000,
}  # fmt: skip
G = {"g": 1, "kg": 1000, "oz": 28.34952, "lb": 453.59237}
# g per ml. Table salt, sugars: USDA FoodData Central (from memory), 6 g a teaspoon, 200, 220 and
# 339 g a cup; other salts, curing salt: common practice; liquids: densities (from memory)
DENSITY = {
    "water": 1, "salt-table": 6 / 4.92892, "salt-fine-sea": 270 / 236.5882,
    "salt-pickling": 290 / 236.5882, "salt-compact-coarse": 240 / 236.5882,
    "salt-hollow-flake": 135 / 236.5882, "curing-salt-1": 6 / 4.92892, "curing-salt-2": 6 / 4.92892,
    "sugar": 200 / 236.5882, "brown-sugar": 220 / 236.5882, "honey": 339 / 236.5882,
    "soy-sauce": 1.15, "fish-sauce": 1.20, "wine": 0.99, "vinegar": 1.01, "beer": 1.01,
    "oil": 0.92, "buttermilk": 1.03,
}  # fmt: skip
SAUCE = {  # salt (sodium × 2.542, USDA FoodData Central, from memory), water
    "soy-sauce": (0.139632, 0.70), "fish-sauce": (0.199572, 0.68), "wine": (0, 0.88),
    "vinegar": (0, 0.94), "beer": (0, 0.92), "oil": (0, 0), "buttermilk": (0, 0.89),
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
