"""An independent reckoning of `weigh`: unknown masses as a system of linear equations.

The formulas follow the project's rules sheet; the constants are typed in again on purpose, so that
a slip in the code's tables shows.
"""

import random

import numpy as np

WATER = {"fish": 0.70, "vegetable": 0.92}  # USDA FoodData Central (from memory); meat 0.74
SODIUM_TO_SALT = 0.002542 / 100  # g salt per g, from mg sodium in 100 g (ratio of masses)
SAUCES = {  # salt and water in parts of the mass: USDA National Nutrient Database, release 28
    "soy-sauce": (5637 * SODIUM_TO_SALT, 0.7077), "fish-sauce": (7720 * SODIUM_TO_SALT, 0.7107),
    "wine": (0, 0.8649), "vinegar": (0, 0.9381), "beer": (0, 0.9196), "oil": (0, 0),
    "buttermilk": (0, 0.9013), "yoghurt": (0, 0.879), "kiwi": (0, 0.86), "pineapple": (0, 0.86),
    "papaya": (0, 0.86), "pear": (0, 0.86), "ginger": (0, 0.86),
}  # fmt: skip
CURES = {  # nitrite, nitrate; trade standards (from memory); saltpetre is all nitrate
    "cure-1": (0.0625, 0), "cure-2": (0.0625, 0.04), "saltpetre": (0, 1),
}  # fmt: skip


def reckon(document: dict) -> dict:
    """Lines, and what of everything is in the mix [g]; in-meat salt and strength [%]."""
    meat, method = document["meat"], document["method"]
    mass = meat["mass_g"] * (1 - meat.get("bone_share", 0))
    own = mass * (meat.get("sodium_mg") or 0) * SODIUM_TO_SALT
    needle = document.get("injection_share", 0.10) if method == "injection" else None
    alone = needle is not None and not document.get("cover", True)
    sauces = [_sauce(each) for each in document.get("sauces", [])]
    extra, sauce_salt, sauce_water = (sum(each[i] for each in sauces) for i in range(3))
    dry = method in ("dry-cure", "dry-brine")
    water = 0.0 if dry or alone else document.get("water_g") or 0.0
    wet = not dry and (method != "marinade" or sauce_water > 0 or water > 0)
    target, sugar_pct = document["target_salt_pct"] / 100, document.get("sugar_pct", 0) / 100
    n, k, chloride, sized = _cure(document.get("cure"))
    p = document["cure"].get("ingoing_ppm", 150.0) * 1e-6 if sized else 0.0

    # unknowns: water, plain salt, curing salt, sugar
    salt_row = [0, 1, chloride, 0]
    basis = mass * (1 + needle) if alone else mass + water
    rows, wanted = [], []
    if alone:
        rows.append([1, 1, 1, 1])
        wanted.append(needle * mass - extra)
    else:
        rows.append([1, 0, 0, 0])
        wanted.append(water)
    if method == "strong-brine":
        strength = document["brine_salt_pct"] / 100
        rows += [
            np.array(salt_row) - strength * np.ones(4),
            np.array([0, 0, 0, 1]) - sugar_pct * np.ones(4),
        ]
        wanted += [strength * extra - sauce_salt, sugar_pct * extra]
    else:
        rows += [salt_row, [0, 0, 0, 1]]
        # heap: common practice
        salt = 0.4 * mass if document.get("heaped") else target * basis - own
        wanted += [salt - sauce_salt, sugar_pct * basis]
    # the count is over meat and pickle, of dry and ground meat over the meat
    spread = wet and not alone and meat.get("form") != "ground"
    active = k if (document.get("cure") or {}).get("name") == "saltpetre" else n
    if not sized:
        rows.append([0, 0, 1, 0])
        wanted.append(0.0)
    else:
        rows.append(np.array([0, 0, active, 0]) - (p if spread else 0.0) * np.ones(4))
        wanted.append(p * (mass + (extra if spread else 0.0)))
    water, plain, curing, sugar = np.linalg.solve(np.array(rows, float), np.array(wanted, float))
    cure = document.get("cure")
    return {
        "water": water, "salt": plain, "curing-salt": curing, "sugar": sugar,
        "mass": mass, "own": own, "wet": wet, "brine": wet and not alone, "needle": needle,
        "pickle": water + plain + curing + sugar + extra,
        "liquid": water + sauce_water,
        "all_salt": plain + chloride * curing + sauce_salt,
        "nitrite": n * curing, "nitrate": k * curing,
        "unknown": cure is not None and cure["name"] != "saltpetre" and n == 0,
        "cures": [cure] if cure else [],
        "names": {each["name"]: each["mass_g"] for each in document.get("sauces", [])},
        "chloride": chloride * curing + sauce_salt,
    }  # fmt: skip


def _sauce(sauce: dict) -> tuple[float, float, float]:
    salt, water = SAUCES.get(sauce["name"], (0, None))
    if sauce.get("salt_pct") is not None:
        salt = sauce["salt_pct"] / 100
    water = 1 - salt if water is None else water
    return sauce["mass_g"], salt * sauce["mass_g"], water * sauce["mass_g"]


def _cure(cure: dict | None) -> tuple[float, float, float, bool]:
    """Nitrite, nitrate and salt in parts of it, and whether it can be sized."""
    if cure is None:
        return 0.0, 0.0, 0.0, False
    n, k = CURES.get(
        cure["name"], ((cure.get("nitrite_pct") or 0) / 100, (cure.get("nitrate_pct") or 0) / 100)
    )
    chloride = 1 - n - k
    if cure["name"] == "celery":  # no salt but what its label says
        chloride = (cure.get("salt_pct") or 0) / 100
    return n, k, chloride, bool(n or cure["name"] == "saltpetre")


DAYS = (1, 2, 3, 5, 7, 10, 14, 21, 28)  # of the raw clocks, to be met from both sides


def random_document(dice: random.Random) -> dict:
    """A sound `weigh` document."""
    method = dice.choice(
        ["even-brine", "strong-brine", "dry-cure", "dry-brine", "injection", "marinade"]
    )
    document = {
        "profile": dice.choice(["us", "eu"]),
        "meat": random_meat(dice),
        "method": method,
        "target_salt_pct": dice.choice([2.0, dice.uniform(0.8, 9 if method != "injection" else 3)]),
        "sugar_pct": dice.choice([0, dice.uniform(0, 6)]),
        "temperature_c": dice.choice([4.0, dice.uniform(-1, 8), dice.uniform(3.7, 5.5)]),
        "scale_division_g": dice.choice([None, 0.01, 0.1, 1, 5]),
        "days": random_days(dice),
        "treatment": random_treatment(dice),
    }
    document |= _of_the_method(method, dice)
    if dice.random() < 0.3:
        names = dice.sample(sorted(SAUCES), dice.randint(1, 3))
        document["sauces"] = [{"name": n, "mass_g": dice.uniform(5, 400)} for n in names]
        if dice.random() < 0.2:
            document["sauces"].append(
                {"name": "plum sauce", "mass_g": 80.0, "salt_pct": dice.uniform(0, 12)}
            )
    if dice.random() < 0.7:
        document["cure"] = _random_cure(dice)
    return document


def random_days(dice: random.Random) -> float | None:
    """Days near a limit, or none."""
    return dice.choice([None, dice.choice(DAYS), dice.choice(DAYS) * dice.uniform(0.9, 1.12)])


def random_treatment(dice: random.Random) -> list[str]:
    """What was done to a piece, mostly nothing."""
    if dice.random() < 0.7:
        return []
    return [dice.choice(["injected", "pricked", "slashed", "bladed", "rolled", "stuffed"])]


def random_meat(dice: random.Random) -> dict:
    """A piece of any kind and form."""
    kind = dice.choice(["pork", "beef", "lamb", "game", "poultry", "fish", "vegetable"])
    meat = {
        "kind": kind,
        "mass_g": dice.uniform(50, 12_000),
        "thickness_mm": dice.choice([dice.uniform(5, 180), dice.uniform(9, 11.2)]),
        "shape": dice.choice(["slab", "cylinder", "ball"]),
        "bone_share": dice.choice([0.0, dice.uniform(0, 0.4)]),
        "form": dice.choice(["whole", "whole", "pieces", "ground"]),
        "closed_faces": dice.choice([0, 1]),
        "will_be": dice.choice([None, None, "bacon", "raw", "smoked"]),
        "storage": dice.choice(["meal", "air", "vacuum"]),
        "water_share": dice.choice([None, dice.uniform(0.4, 0.95)]),
        "sodium_mg": dice.choice([None, None, dice.uniform(130, 170), dice.uniform(40, 900)]),
    }
    if kind == "game":
        meat |= {"wild": dice.choice([None, "deer", "other"])}
        meat |= {"species": dice.choice([None, "rabbit"]) if meat["wild"] != "deer" else None}
    if kind == "pork":
        meat |= {"wild": dice.choice([None, None, None, "other"])}  # boar
    if kind == "fish":
        meat |= {"species": dice.choice([None, "mackerel"])}
    return meat


def _of_the_method(method: str, dice: random.Random) -> dict:
    if method == "even-brine":
        return {"water_g": dice.uniform(100, 15_000)}
    if method == "strong-brine":
        return {"water_g": dice.uniform(100, 15_000), "brine_salt_pct": dice.uniform(4, 30)}
    if method == "injection":
        cover = dice.random() < 0.6
        given = {"cover": cover, "injection_share": dice.uniform(0.02, 0.3)}
        return given | ({"water_g": dice.uniform(300, 15_000)} if cover else {})
    if method == "dry-cure":
        return {"heaped": dice.random() < 0.3}
    if method == "marinade":
        return {"water_g": dice.choice([None, None, dice.uniform(50, 4000)])}
    return {}


def _random_cure(dice: random.Random) -> dict:
    name = dice.choice(["cure-1", "cure-1", "cure-2", "nitrite-salt", "saltpetre", "celery"])
    asked = [150, 150, 200, 120, 156, 60, 100, 108, 700, 1718, 2187]  # about each limit
    ppm = dice.choice([dice.choice(asked) * dice.uniform(0.92, 1.08), dice.uniform(0, 260)])
    cure = {"name": name, "ingoing_ppm": ppm if name == "saltpetre" else min(ppm, 300)}
    if name == "nitrite-salt":
        cure["nitrite_pct"] = dice.choice([None, 0.5, dice.uniform(0.35, 1.0), 6.4, 6.8])
    if name == "celery":
        cure["nitrite_pct"] = dice.choice([None, dice.uniform(0.5, 3)])
        cure["nitrate_pct"] = dice.choice([None, None, dice.uniform(0.5, 3)])
        cure["salt_pct"] = dice.choice([None, dice.uniform(5, 60)])
    return cure


def near_a_limit(dice: random.Random) -> dict:
    """A sound `weigh` document of one of the rarer cases, close to where a limit lies."""
    meat = {"kind": "pork", "mass_g": 1500.0, "thickness_mm": dice.uniform(25, 70), "shape": "slab"}
    document = {"profile": "us", "meat": meat, "temperature_c": 4.0, "target_salt_pct": 2.0}
    if dice.random() < 0.3:
        return document | _of_long_cures_and_sauces(meat, dice)
    often = ["bacon", "bacon", "bird", "bird"]
    case = dice.choice(["timed", "smoked", "smoked-cured", "ground", *often])
    if case == "timed":
        return document | {
            "method": "strong-brine", "water_g": 1500.0, "brine_salt_pct": dice.uniform(5, 14),
            "target_salt_pct": dice.uniform(1.4, 2.2), "days": random_days(dice),
            "cure": {"name": "cure-1", "ingoing_ppm": dice.uniform(60, 195)},
        }  # fmt: skip
    if case.startswith("smoked"):
        meat |= {"kind": "fish", "will_be": "smoked", "storage": dice.choice(["air", "vacuum"])}
        cure = {"cure": {"name": "cure-1", "ingoing_ppm": 150}} if case == "smoked-cured" else {}
        return document | cure | {"method": "dry-cure", "target_salt_pct": dice.uniform(1.6, 2.9)}
    if case == "ground":
        meat |= {"kind": dice.choice(["beef", "poultry"]), "form": "ground"}
        cure = {"name": "cure-1", "ingoing_ppm": dice.uniform(115, 160)}
        days = dice.choice([2, 3, 5, 7]) * dice.uniform(0.9, 1.12)
        return document | {"method": "dry-cure", "cure": cure, "days": days}
    if case == "bird":
        cured = {"cure": {"name": "cure-1", "ingoing_ppm": 150}, "method": "dry-cure"}
        species = {"kind": "fish", "species": "mackerel"}
        meat |= dice.choice([{"kind": "poultry"}, {"kind": "poultry"}, species])
        days = dice.choice([1, 2, 3, 5, 7]) * dice.uniform(0.88, 1.14)
        return document | dice.choice([cured, {"method": "dry-brine"}]) | {"days": days}
    meat |= {"will_be": "bacon", "closed_faces": dice.choice([0, 1])}
    cure = {"name": "cure-1", "ingoing_ppm": dice.choice([60, 100, 120]) * dice.uniform(0.9, 1.1)}
    profile = dice.choice(["us", "eu"])
    how = dice.choice([{"method": "even-brine", "water_g": 1500.0}, {"method": "dry-cure"}])
    return document | how | {"profile": profile, "cure": cure}


def _of_long_cures_and_sauces(meat: dict, dice: random.Random) -> dict:
    """About the last days of a cure, little nitrite, the salt and the fruit of a sauce."""
    case = dice.choice(["late", "little", "sauced", "fruit"])
    if case == "fruit":
        meat["thickness_mm"] = dice.choice([dice.uniform(9, 11), dice.uniform(3, 60)])
        hours = dice.choice([2, 4, 18]) * dice.uniform(0.88, 1.12)
        fruit = {"name": dice.choice(["kiwi", "pineapple", "papaya", "pear", "ginger"]),
                 "mass_g": 60.0}  # fmt: skip
        return {"method": "marinade", "sauces": [fruit], "days": hours / 24}
    if case == "sauced":  # 7.2 g are asked for; the sauce brings about 1.5 g more
        sauce = {"name": "stock", "mass_g": 87.0 * dice.uniform(0.97, 1.03), "salt_pct": 10}
        return {"method": "marinade", "sauces": [sauce], "target_salt_pct": 0.48}
    if case == "late":
        days = dice.choice([21, 28]) * dice.uniform(0.88, 1.12)
        return {"method": "dry-cure", "cure": {"name": "cure-1"}, "days": days}
    return {
        "method": "strong-brine", "water_g": 1500.0, "brine_salt_pct": dice.uniform(9, 14),
        "target_salt_pct": dice.uniform(1.6, 2.2), "days": dice.uniform(6, 20),
        "cure": {"name": "cure-1", "ingoing_ppm": dice.uniform(60, 110)},
    }  # fmt: skip
