"""Dishes as a cook may decide them."""

from pantry_core.routes.cuts import CUTS
from pantry_core.routes.ways import WAYS

CURED = ("even-brine", "dry-cure", "needle-brine", "strong-brine")


def random_dish(chance):
    """What a cook may decide, fitting or not, with changes of the steps."""
    cut = chance.choice([each for each in CUTS.values() if each.kind != "vegetable"])
    method = chance.choice([name for name in WAYS if name != "quick-pickle"])
    piece = {"cut": cut.id, "mass_g": round(chance.uniform(300, 4000))}
    if chance.random() < 0.6:
        piece["thickness_mm"] = chance.choice([12, 25, 40, 60, 90])
    if chance.random() < 0.2:
        piece["frozen"] = True
    cure = {"method": method}
    given = {
        "days": chance.choice([0.5, 2, 5, 9, 16]), "target_salt_pct": chance.choice([0.8, 2, 3.5]),
        "water_g": chance.choice([500, 2000]), "sugar_pct": 1.0,
        "brine_salt_pct": chance.choice([4, 8, 20]) if method == "strong-brine" else None,
        "ingoing_ppm": chance.choice([40, 120, 400]),
    }  # fmt: skip
    cure |= {name: value for name, value in given.items() if value and chance.random() < 0.4}
    if method in CURED and chance.random() < 0.4:
        cure["curing_salt"] = chance.choice(["cure-1", "cure-2", None])
    edits = []
    if chance.random() < 0.4:
        step = chance.choice(["rest", "brine", "cure", "no-such-step"])
        edits.append({"step": step, "removed": True} if step == "rest" else
                     {"step": step, "title": "As we do it", "min_h": chance.choice([1, 30, 300]),
                      "prefer_h": 300.0, "max_h": 300.0})  # fmt: skip
    return {"piece": piece, "cure": cure, "edits": edits}
