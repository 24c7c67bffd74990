"""A dish becomes a document: what was decided of it, and what was changed of its steps as edits."""

from django.db import migrations, models

CUTS = {
    "pork": "gammon-boned gammon-flat gammon-bone pork-hock pork-loin pork-shoulder pork-ribs "
    "belly-skinless pork-chop young-pig belly-skin",
    "beef": "brisket silverside tongue chuck beef-cheek short-rib beef-rib beef-steak",
    "lamb": "lamb-leg lamb-leg-bone lamb-chump lamb-rack young-goat lamb-shoulder lamb-chop "
    "lamb-shank",
    "game": "venison game-loin game-shoulder rabbit",
    "poultry": "chicken duck-breast duck-leg turkey turkey-crown turkey-boned turkey-leg goose-leg "
    "quail pheasant chicken-breast chicken-thigh chicken-drumstick chicken-wing duck goose",
    "fish": "salmon-side salmon-piece char-side trout trout-fillet white-fillet white-fish "
    "mackerel",
    "vegetable": "vegetable cucumber onion radish cabbage roots",
}
KIND = {cut: kind for kind, cuts in CUTS.items() for cut in cuts.split()}
SCORED = {"gammon-bone", "young-pig", "belly-skin", "duck", "goose"}
WILL_BE_BACON = {"belly-skin", "belly-skinless"}
SIMMERED = {"pork-hock", "brisket", "silverside", "tongue"}
GLAZED = {"gammon-boned", "gammon-flat", "gammon-bone"}
BRAISED = {"chuck", "beef-cheek", "short-rib", "lamb-shank", "game-shoulder", "rabbit"}
BRINES = {"even-brine", "strong-brine", "needle-brine"}
MARINADES = {
    "oil-marinade", "sauce-marinade", "acid-marinade", "dairy-marinade", "herb-marinade",
}  # fmt: skip
WITH_WATER = {*BRINES, "acid-marinade", "quick-pickle"}
JOBS = {
    "dough": ("mix", "dough-rest", "shape", "prove", "bake", "cool"),
    "stock": ("roast-bones", "simmer-stock", "cool-stock", "set-stock", "reduce"),
    "sauce": ("make-sauce", "sauce-waits", "warm-sauce"),
    "other": ("make",),
}
CUSTOMS = ("brine_by", "after_cure", "pot", "scoring", "tempering", "pressing", "fish")
CHANGED = (
    "title", "place", "min_h", "prefer_h", "max_h", "hands_min", "attended", "every_h",
    "locked_start",
)  # fmt: skip
"""What could be changed of a step."""
ALL = (*CHANGED, "kind", "text", "tend", "uses")


def route(dish):
    """The keys of the steps that the route of a dish had, in order."""
    if dish.job:
        return list(JOBS[dish.job])
    kind, sides, method = KIND[dish.cut], dish.customs, dish.method
    fish = sides.get("fish", "cooked") if kind == "fish" else "cooked"
    kills = fish == "raw-freeze"
    cooks = kind != "vegetable" and fish == "cooked"
    smoked = sides.get("heat") == "smoked" and kind != "vegetable"
    keys = ["buy"]
    keys += ["parasites"] if kills else ["freeze"] if dish.is_frozen else []
    keys += ["thaw"] if kills or dish.is_frozen else []
    keys += ["keep"]
    keys += ["make-brine", "chill-brine"] if method in BRINES else []
    keys += ["make-marinade"] if method in MARINADES else []
    keys += ["trim"]
    keys += ["draw"] if method == "quick-pickle" else []
    keys += ["brine" if method in BRINES else "dry-brine" if method == "dry-brine" else "cure"]
    if method in MARINADES:
        keys += ["lift"]
    elif method not in ("dry-brine", "quick-pickle"):
        keys += ["lift"]
        if kind != "vegetable":
            keys += ["soak"] if sides.get("after_cure") == "soak" else []
            keys += ["rest", "hold"]
    keys += ["press"] if sides.get("pressing") == "overnight" else []
    keys += ["dry"] if smoked and cooks else []
    keys += ["score"] if dish.cut in SCORED and sides.get("scoring", "late") == "late" else []
    keys += _heated(dish, sides, smoked) if cooks else []
    return [*keys, "carve"]


def _heated(dish, sides, smoked):
    if smoked:
        stages = ["smoke-low", "smoke-hot"]
    elif dish.cut in SIMMERED | GLAZED:
        stages = ["simmer"]
        stages += ["vegetables"] if sides.get("vegetables") == "late" else []
        stages += ["glaze"] if dish.cut in GLAZED else []
    else:
        stages = ["braise" if dish.cut in BRAISED else "roast"]
    is_in_the_oven = stages[0] in ("braise", "roast")
    before = ["temper"] if sides.get("tempering") == "hour" and is_in_the_oven else []
    return [*before, *stages, "stand", "keep-warm"]


def decided(dish):
    """What was decided of a dish, as the parts of its document."""
    if dish.job:
        return {"job": {"name": dish.job, "made_g": dish.mass_g}}
    kind, sides = KIND[dish.cut], dish.customs
    smoked = sides.get("heat") == "smoked" and kind != "vegetable"
    piece = {
        "cut": dish.cut, "mass_g": dish.mass_g, "bone_share": dish.bone_share,
        "frozen": dish.is_frozen, "storage": sides.get("storage", "meal"),
    }  # fmt: skip
    if not dish.is_thickness_guessed:
        piece["thickness_mm"] = dish.thickness_mm
    if kind == "game" and sides.get("game") in ("deer", "other"):
        piece["wild"] = sides["game"]
    if sides.get("opened") == "pricked":
        piece["treatment"] = ["pricked"]
    elif sides.get("opened") in ("rolled", "stuffed"):
        piece["form"] = sides["opened"]
    if kind == "fish" and sides.get("fish", "cooked") != "cooked":
        piece["will_be"] = "raw"
    elif smoked and dish.cut not in WILL_BE_BACON:
        piece["will_be"] = "smoked"
    heat = {"vegetables": sides.get("vegetables") == "late"} | ({"way": "smoke"} if smoked else {})
    customs = {name: sides[name] for name in CUSTOMS if name in sides}
    return {"piece": piece, "cure": _cure(dish), "heat": heat, "customs": customs}


def _cure(dish):
    cure = {
        "method": dish.method, "school": dish.school, "target_salt_pct": dish.target_salt_pct,
        "sugar_pct": dish.sugar_pct, "curing_salt": dish.cure or None, "sauces": dish.sauces,
        "spices": dish.spices,
    }  # fmt: skip
    for name in ("nitrite_pct", "ingoing_ppm", "brine_salt_pct", "injection_share"):
        if getattr(dish, name) is not None:
            cure[name] = getattr(dish, name)
    if dish.method in WITH_WATER and dish.water_g is not None:
        cure["water_g"] = dish.water_g
    return cure


def edits(dish, steps, has_begun):
    """What makes of the route the steps that are stored: all of what has begun stays as it is."""
    keys, present = route(dish), [step.key for step in steps]
    if not steps:
        return []
    removed = [{"step": key, "removed": True} for key in keys if key not in present]
    changed, own = [], []
    for i, step in enumerate(steps):
        is_own = step.is_own or (has_begun and step.key not in keys)
        if is_own:
            before = present[i + 1] if i + 1 < len(present) else None
            own.append({"step": step.key, "own": True, "before": before, **_fields(step, ALL)})
        elif step.key in keys and (has_begun or step.is_changed):
            fields = _fields(step, ALL if has_begun else CHANGED)
            changed.append({"step": step.key, **fields})
    return [*removed, *changed, *reversed(own)]


def _fields(step, names):
    locked = step.locked_start
    values = {
        "title": step.title, "place": step.place or None, "min_h": step.min_h,
        "prefer_h": step.prefer_h, "max_h": step.max_h, "hands_min": step.hands_min,
        "attended": step.attended, "every_h": step.every_h,
        "locked_start": locked.isoformat() if locked else None, "kind": step.kind,
        "text": step.begin, "tend": step.tend, "uses": step.uses,
    }  # fmt: skip
    return {name: values[name] for name in names}


def to_documents(apps, schema_editor):
    """Write the document of every dish, and the kept routes in its words."""
    for dish in apps.get_model("feasts", "Dish").objects.prefetch_related("steps"):
        steps = sorted(dish.steps.all(), key=lambda step: step.position)
        found = edits(dish, steps, dish.events.exists())
        dish.document = decided(dish) | ({"edits": found} if found else {})
        dish.save(update_fields=["document"])
    for kept in apps.get_model("feasts", "KeptRoute").objects.all():
        words = {"key": "id", "begin": "text"}
        kept.steps = [
            {words.get(name, name): value or None if name == "place" else value
             for name, value in step.items() if name != "uses"}
            for step in kept.steps
        ]  # fmt: skip
        kept.save(update_fields=["steps"])


class Migration(migrations.Migration):
    dependencies = [("feasts", "0004_many_dishes")]

    operations = [
        migrations.AddField("dish", "document", models.JSONField(default=dict)),
        migrations.RunPython(to_documents, migrations.RunPython.noop),
    ]
