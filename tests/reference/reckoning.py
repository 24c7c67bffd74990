"""An independent reckoning of `weigh`: unknown masses as a system of linear equations.

The formulas follow the project's rules sheet; the constants are typed in again on purpose, so that
a slip in the code's tables shows.
"""

import random

import numpy as np

WATER = {"fish": 0.70, "vegetable": 0.92}  # USDA FoodData Central (from memory); meat 0.74
SODIUM_TO_SALT = 0.002542 / 100  # g salt per g, from mg sodium in 100 g (ratio of masses)
SAUCES = {  # salt and water in parts of the mass; sodium: USDA FoodData Central (from memory)
    "soy-sauce": (5493 * SODIUM_TO_SALT, 0.70), "fish-sauce": (7851 * SODIUM_TO_SALT, 0.68),
    "wine": (0, 0.88), "vinegar": (0, 0.94), "beer": (0, 0.92), "oil": (0, 0),
    "buttermilk": (0, 0.89), "yoghurt": (0, 0.89),
}  # fmt: skip
CURES = {  # nitrite, nitrate; trade standards (from memory); saltpetre is all nitrate
    "cure-1": (0.0625, 0), "cure-2": (0.0625, 0.04), "saltpetre": (0, 1),
}  # fmt: skip
LIMITS = {  # 9 CFR 424.21(c), 424.22(b); Regulation (EU) 2023/2108 (from memory): most, enough
    "us": {
        "brine": (200, 120), "dry": (200, 120), "ground": (156, 120),
        "bacon-brine": (120, 100), "bacon-skin": (108, 100), "bacon-dry": (200, 120),
    },
    "eu": dict.fromkeys(
        ("brine", "dry", "ground", "bacon-brine", "bacon-skin", "bacon-dry"), (120, 60)
    ),
}  # fmt: skip


def reckon(document: dict) -> dict:
    """Lines [g], in-meat salt [%], counts and verdict."""
    meat, method = document["meat"], document["method"]
    mass = meat["mass_g"] * (1 - meat.get("bone_share", 0))
    needle = document.get("injection_share", 0.10) if method == "injection" else None
    alone = needle is not None and not document.get("cover", True)
    sauces = [_sauce(each) for each in document.get("sauces", [])]
    extra, sauce_salt, sauce_water = (sum(each[i] for each in sauces) for i in range(3))
    dry = method in ("dry-cure", "dry-brine")
    wet = not dry and (method != "marinade" or bool(sauces) or document.get("water_g") is not None)
    water = 0.0 if dry or alone else document.get("water_g") or 0.0
    target, sugar_pct = document["target_salt_pct"] / 100, document.get("sugar_pct", 0) / 100
    n, k, sized = _cure(document.get("cure"))
    p = document["cure"].get("ingoing_ppm", 150.0) * 1e-6 if sized else 0.0

    # unknowns: water, plain salt, curing salt, sugar
    salt_row = [0, 1, 1 - n - k, 0]
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
        salt = 0.4 * mass if document.get("heaped") else target * basis  # heap: common practice
        wanted += [salt - sauce_salt, sugar_pct * basis]
    spread = wet and not alone  # the count is over meat and pickle, else over the meat
    active = k if (document.get("cure") or {}).get("name") == "saltpetre" else n
    if not sized:
        rows.append([0, 0, 1, 0])
        wanted.append(0.0)
    else:
        rows.append(np.array([0, 0, active, 0]) - (p if spread else 0.0) * np.ones(4))
        wanted.append(p * (mass + (extra if spread else 0.0)))
    water, plain, curing, sugar = np.linalg.solve(np.array(rows, float), np.array(wanted, float))

    pickle = water + plain + curing + sugar + extra
    salt = plain + (1 - n - k) * curing + sauce_salt
    liquid = water + sauce_water
    share = meat.get("water_share") or WATER.get(meat["kind"], 0.74)
    held = salt / (liquid + share * mass)
    if document.get("heaped"):
        held = min(held, 0.264 / 0.736)  # no more dissolves: salometer scale (from memory)
    nitrite = n * curing
    counts = {
        "even_ppm": 1e6 * nitrite / (mass + pickle) if spread else None,
        "pickup_ppm": 1e5 * nitrite / pickle if spread else None,
        "needle_ppm": 1e6 * needle * nitrite / pickle if needle is not None else None,
        "dry_ppm": 1e6 * nitrite / mass if not spread and needle is None else None,
    }
    most, enough = LIMITS[document["profile"]][_case(meat, wet=wet)]
    unknown = document.get("cure") is not None and n == 0 and active == 0
    return {
        "water": water, "salt": plain, "curing-salt": curing, "sugar": sugar,
        "in_meat_pct": 100 * held * share, "water_phase_pct": 100 * held / (1 + held),
        "counts": dict.fromkeys(counts) if unknown else counts, "most": most, "pickle": pickle,
        "verdict": "unknown" if unknown else _verdict(counts, most, enough),
        "salt_pct": 100 * salt / pickle if wet else None,
        "undissolved": wet and salt > 0 and (liquid <= 0 or salt / (salt + liquid) > 0.264),
        "nitrate_ppm": 1e6 * k * curing / (mass + pickle if spread else mass),
    }  # fmt: skip


def _verdict(counts: dict, most: float, enough: float) -> str:
    even, pickup, needle, dry = counts.values()
    governing = next(each for each in (even, needle, dry) if each is not None)
    together = needle + pickup if needle is not None and pickup is not None else 0.0
    if max(round(governing, 1), round(together, 1)) > most:
        return "over"
    tenth = round(governing, 1)
    return "none" if tenth == 0 else "low" if tenth < enough else "ok"


def _sauce(sauce: dict) -> tuple[float, float, float]:
    salt, water = SAUCES.get(sauce["name"], (0, None))
    if sauce.get("salt_pct") is not None:
        salt = sauce["salt_pct"] / 100
    water = 1 - salt if water is None else water
    return sauce["mass_g"], salt * sauce["mass_g"], water * sauce["mass_g"]


def _cure(cure: dict | None) -> tuple[float, float, bool]:
    if cure is None:
        return 0.0, 0.0, False
    n, k = CURES.get(
        cure["name"], ((cure.get("nitrite_pct") or 0) / 100, (cure.get("nitrate_pct") or 0) / 100)
    )
    return n, k, bool(n or cure["name"] == "saltpetre")


def _case(meat: dict, *, wet: bool) -> str:
    if meat.get("form") == "ground":
        return "ground"
    if meat.get("will_be") == "bacon":
        skin = "bacon-skin" if meat.get("closed_faces") else "bacon-brine"
        return skin if wet else "bacon-dry"
    return "brine" if wet else "dry"


def random_document(dice: random.Random) -> dict:
    """A sound `weigh` document."""
    meat = {
        "kind": dice.choice(["pork", "beef", "lamb", "game", "poultry", "fish", "vegetable"]),
        "mass_g": dice.uniform(50, 12_000),
        "thickness_mm": dice.uniform(5, 180),
        "shape": dice.choice(["slab", "cylinder", "ball"]),
        "bone_share": dice.choice([0.0, dice.uniform(0, 0.4)]),
        "form": dice.choice(["whole", "whole", "pieces", "ground"]),
        "closed_faces": dice.choice([0, 1]),
        "will_be": dice.choice([None, None, "bacon", "raw"]),
        "water_share": dice.choice([None, dice.uniform(0.4, 0.95)]),
    }
    method = dice.choice(
        ["even-brine", "strong-brine", "dry-cure", "dry-brine", "injection", "marinade"]
    )
    document = {
        "profile": dice.choice(["us", "eu"]),
        "meat": meat,
        "method": method,
        "target_salt_pct": dice.uniform(0.8, 9 if method != "injection" else 3),
        "sugar_pct": dice.choice([0, dice.uniform(0, 6)]),
        "temperature_c": dice.uniform(-1, 8),
        "scale_division_g": dice.choice([None, 0.01, 0.1, 1, 5]),
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
        return {"water_g": dice.choice([None, dice.uniform(50, 4000)])}
    return {}


def _random_cure(dice: random.Random) -> dict:
    name = dice.choice(["cure-1", "cure-1", "cure-2", "nitrite-salt", "saltpetre", "celery"])
    cure = {"name": name, "ingoing_ppm": dice.choice([150, dice.uniform(0, 260)])}
    if name == "nitrite-salt":
        cure["nitrite_pct"] = dice.choice([0.5, dice.uniform(0.4, 0.9)])
    if name == "celery":
        cure["nitrite_pct"] = dice.choice([None, dice.uniform(0.5, 3)])
    return cure
