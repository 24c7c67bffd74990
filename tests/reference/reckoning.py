"""An independent reckoning of `weigh`: unknown masses as a system of linear equations.

The formulas follow the project's rules sheet; the constants are typed in again on purpose, so that
a slip in the code's tables shows.
"""

import random

import numpy as np

NITRITE = 0.0625  # pink curing salt no. 1, trade standard (from memory)
WATER = {"fish": 0.70, "vegetable": 0.92}  # USDA FoodData Central (from memory); meat 0.74
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
    """Lines [g], in-meat salt [%], ppm and verdict, from plain salt and curing salt as unknowns."""
    meat = document["meat"]
    mass = meat["mass_g"] * (1 - meat.get("bone_share", 0))
    brine = document["method"] == "even-brine"
    water = document["water_g"] if brine else 0.0
    target, sugar_pct = document["target_salt_pct"] / 100, document.get("sugar_pct", 0) / 100
    cure = document.get("cure")
    p = (cure or {}).get("ingoing_ppm", 150.0) * 1e-6 if cure else 0.0
    sugar = sugar_pct * (mass + water)
    # salt:    plain + (1-n)·cure                        = target·(mass + water)
    # nitrite: n·cure - p·(plain + cure) [brine only]    = p·(mass + water + sugar) or p·mass
    balance = np.array([[1.0, 1 - NITRITE], [-p if brine else 0.0, NITRITE - (p if brine else 0)]])
    wanted = np.array([target * (mass + water), p * (mass + water + sugar if brine else mass)])
    plain, curing = np.linalg.solve(balance, wanted)
    salt = plain + (1 - NITRITE) * curing
    share = meat.get("water_share") or WATER.get(meat["kind"], 0.74)
    held = salt / (water + share * mass)
    pickle = water + plain + curing + sugar
    ppm = 1e6 * NITRITE * curing / (mass + pickle if brine else mass)
    most, enough = LIMITS[document["profile"]][_case(meat, brine=brine)]
    tenth = round(ppm, 1)
    verdict = (
        "none" if tenth == 0 else "over" if tenth > most else "low" if tenth < enough else "ok"
    )
    return {
        "water": water, "salt": plain, "curing-salt": curing, "sugar": sugar,
        "in_meat_pct": 100 * held * share, "water_phase_pct": 100 * held / (1 + held),
        "ppm": ppm, "most": most, "verdict": verdict, "pickle": pickle,
        "salt_pct": 100 * salt / pickle if brine else None,
        "undissolved": brine and salt / (salt + water) > 0.264,
    }  # fmt: skip


def _case(meat: dict, *, brine: bool) -> str:
    if meat.get("form") == "ground":
        return "ground"
    if meat.get("will_be") == "bacon":
        skin = "bacon-skin" if meat.get("closed_faces") else "bacon-brine"
        return skin if brine else "bacon-dry"
    return "brine" if brine else "dry"


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
    method = dice.choice(["even-brine", "dry-cure", "dry-brine"])
    document = {
        "profile": dice.choice(["us", "eu"]),
        "meat": meat,
        "method": method,
        "target_salt_pct": dice.uniform(0.8, 9),
        "sugar_pct": dice.choice([0, dice.uniform(0, 6)]),
        "temperature_c": dice.uniform(-1, 8),
        "scale_division_g": dice.choice([None, 0.01, 0.1, 1, 5]),
    }
    if method == "even-brine":
        document["water_g"] = dice.uniform(100, 15_000)
    if dice.random() < 0.7:
        document["cure"] = {
            "name": "cure-1",
            "ingoing_ppm": dice.choice([150, dice.uniform(0, 260)]),
        }
    return document
