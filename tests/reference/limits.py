"""What the rules sheet says of a mix, as literals: an independent judge of `weigh` and `check`.

Figures from the rules sheet with their sources there: 9 CFR 424.21(c), 424.22(b), FSIS Directive
7620.3, Regulation (EU) 2023/2108, FDA Food Code, USDA, FDA fish guide (all from memory), and common
practice. Nothing is taken from the core.
"""

from tests.reference.crank import constant_surface, limited_volume

US = {"brine": (200, 120), "dry": (200, 120), "ground": (156, 120), "bacon": (120, 100),
      "bacon-skin": (108, 100), "bacon-dry": (200, 120)}  # fmt: skip
NITRATE_US = {"brine": 700, "dry": 2187, "ground": 1718, "bacon": 0}
WATER = {"fish": 0.70, "vegetable": 0.92}
SATURATED = 0.264 / 0.736
D = {"poultry": 2.5e-10, "fish": 2.0e-10}  # m²/s at 4 °C; the rest 2.5e-10
OPENED = {"injected", "pricked", "slashed", "bladed", "rolled"}
LIQUIDS = ("oil", "vinegar", "soy-sauce", "fish-sauce", "wine", "beer", "buttermilk", "yoghurt")
RED = ("pork", "beef", "lamb", "game")
JUDGED = {
    "nitrite-over", "nitrite-low", "nitrate-over", "nitrate-bacon", "curing-salt-fish",
    "curing-salt-vegetable", "curing-salt-heaped", "strength-too-high", "strength-unlabelled",
    "celery-unknown", "saltpetre", "undissolved", "salt-below-zero", "too-warm", "fridge-warm",
    "raw-clock", "enzyme-fruit", "herbs-in-oil", "parasites", "raw-meat", "not-intact",
    "water-phase-low", "smoked-fish-kept", "scale-doubt-over",
}  # fmt: skip
"""The codes that are judged here: no more of them may be said, and no fewer."""
NEAR = 0.004
"""A limit on what the model reckons is not judged so near to it [-]."""


class TooNear(Exception):
    """The model's own error decides."""


def judged(document: dict, mix: dict) -> dict:
    """Verdicts, counts, the inside temperature, and the codes of the limits that are passed.

    `mix` has the masses [g]; `document` is that of `weigh`, or of `check` with its `target` [%].
    """
    meat = document["meat"]
    most, enough = _nitrite_limits(document["profile"], meat, wet=mix["wet"])
    counts, nitrate_counts = _counts(meat, mix, mix["nitrite"]), _counts(meat, mix, mix["nitrate"])
    mean, share = _taken_up(document, mix)
    taken = _least(counts) * (share if document["method"] == "strong-brine" else 1.0)
    if taken != _least(counts):
        _not_near(taken, enough)
    verdict = _verdict(counts, taken, most, enough, unknown=mix["unknown"])
    nitrate = round(_governing(nitrate_counts), 1)
    most_nitrate = _nitrate_limit(document["profile"], meat, wet=mix["wet"])
    held = (mix["all_salt"] + mix["own"]) / (mix["liquid"] + _water(meat) * mix["mass"])
    if document.get("heaped"):
        held = min(held, SATURATED)
    codes = {
        *_of_cures(document, mix, verdict, nitrate, most_nitrate),
        *_of_salt(document, mix),
        *_of_time(document, mix, mean, taken, verdict),
        *_of_heat(document, mean, verdict),
    }
    return {
        "counts": dict.fromkeys(counts) if mix["unknown"] and mix["nitrite"] == 0 else counts,
        "most": most, "verdict": verdict, "nitrate_ppm": _governing(nitrate_counts),
        "most_nitrate": most_nitrate,
        "nitrate_verdict": "none" if nitrate == 0 else "over" if nitrate > most_nitrate else "ok",
        "in_meat_pct": 100 * held * _water(meat), "water_phase_pct": 100 * held / (1 + held),
        "inside_c": _inside(document), "codes": codes, "enough": enough,
    }  # fmt: skip


def scale_doubts(document: dict, mix: dict, judged_: dict) -> set:
    """What the division of the scale leaves in doubt of the curing salt."""
    division, curing = document.get("scale_division_g"), mix.get("curing-salt", 0)
    if division is None or curing <= 0:
        return set()
    doubt = division / curing
    found = set()
    ppm = _governing(judged_["counts"]) if not mix["unknown"] else 0
    passes = judged_["verdict"] in ("low", "ok") and round(ppm * (1 + doubt), 1) > judged_["most"]
    nitrate = judged_["nitrate_ppm"] * (1 + doubt)
    if passes or (
        judged_["nitrate_verdict"] == "ok" and round(nitrate, 1) > judged_["most_nitrate"]
    ):
        found.add(("scale-doubt-over", "stop"))
    return found


def _water(meat: dict) -> float:
    return meat.get("water_share") or WATER.get(meat["kind"], 0.74)


def _nitrite_limits(profile: str, meat: dict, *, wet: bool) -> tuple[float, float]:
    if profile == "eu":
        return 120, 60
    if meat.get("form") == "ground":
        return US["ground"]
    if meat.get("will_be") == "bacon":
        return US["bacon-dry" if not wet else "bacon-skin" if meat.get("closed_faces") else "bacon"]
    return US["brine" if wet else "dry"]


def _nitrate_limit(profile: str, meat: dict, *, wet: bool) -> float:
    if profile == "eu" or meat.get("will_be") == "bacon":
        return 0
    if meat.get("form") == "ground":
        return 1718
    return 700 if wet else 2187


def _counts(meat: dict, mix: dict, active: float) -> dict:
    counts = dict.fromkeys(("even_ppm", "pickup_ppm", "needle_ppm", "dry_ppm"))
    if meat.get("form") == "ground" or not mix["wet"] or mix["pickle"] <= 0:
        return counts | {"dry_ppm": 1e6 * active / mix["mass"]}
    if mix["brine"]:
        counts["even_ppm"] = 1e6 * active / (mix["mass"] + mix["pickle"])
        counts["pickup_ppm"] = 1e5 * active / mix["pickle"]
    if mix["needle"] is not None:
        counts["needle_ppm"] = 1e6 * mix["needle"] * active / mix["pickle"]
    return counts


def _governing(counts: dict) -> float:
    even, pickup, needle, dry = counts.values()
    together = None if needle is None else needle + (pickup or 0)
    return max(each for each in (even, together, dry) if each is not None)


def _least(counts: dict) -> float:
    even, _, needle, dry = counts.values()
    return next(each for each in (even, needle, dry) if each is not None)


def _verdict(counts: dict, taken: float, most: float, enough: float, *, unknown: bool) -> str:
    highest = round(_governing(counts), 1)
    if highest > most:
        return "over"
    if unknown:
        return "unknown"
    if highest == 0:
        return "none"
    return "low" if round(taken, 1) < enough else "ok"


def _taken_up(document: dict, mix: dict) -> tuple[float, float]:
    """Salt of the mean when it comes out [% of the meat], and in parts of the even value."""
    meat, mass = document["meat"], mix["mass"]
    water_g = _water(meat) * mass
    swell = mix["liquid"] * min(mix["needle"] * mass / mix["pickle"], 1) if mix["needle"] else 0
    outside = 0 if mix["needle"] and not mix["brine"] else mix["liquid"] - swell
    even = (mix["all_salt"] + mix["own"]) / (outside + water_g + swell)
    if document.get("heaped"):
        even = min(even, SATURATED)
    own = mix["own"] / water_g
    lifted = document["method"] == "strong-brine" or document.get("heaped")
    to_pct = 100 * (water_g + swell) / mass
    if mix["all_salt"] + mix["own"] == 0:
        return 0.0, 1.0
    share = 1.0
    kept = meat["kind"] == "fish" and meat.get("will_be") == "smoked"
    kept = kept and meat.get("storage", "meal") != "meal"
    if document.get("days") and mix["all_salt"] > 0 and (lifted or kept):
        part = _followed(document, mix)
        share = min((own + part * (even - own)) / even, 1.0)
    elif lifted:
        share = min(_lift_at(document) / (even * to_pct), 1.0)
    return even * to_pct * share, share


def _lift_at(document: dict) -> float:
    return document.get("lift_at_pct", document["target_salt_pct"])


def _followed(document: dict, mix: dict) -> float:
    """The mean in parts of the way to the even value after the days, by Crank's series."""
    meat = document["meat"]
    if document["temperature_c"] != 4.0:  # the diffusivity below is that of 4 °C
        raise TooNear
    way = meat["thickness_mm"] / 1000 * (1.0 if meat.get("closed_faces") else 0.5)
    time = D.get(meat["kind"], 2.5e-10) * 86400 * document["days"] / way**2
    if document["method"] in ("strong-brine", "even-brine"):
        bath = mix["liquid"] / (_water(meat) * mix["mass"])
        return limited_volume(meat["shape"], bath, time)[0]
    if document.get("heaped") and mix["all_salt"] > SATURATED * _water(meat) * mix["mass"]:
        return constant_surface(meat["shape"], time)[0]
    raise TooNear


def _of_cures(document, mix, verdict, nitrate, most_nitrate):
    meat, cures = document["meat"], mix["cures"]
    if verdict == "over":
        yield ("nitrite-over", "stop")
    if cures and verdict in ("low", "none") and {c["name"] for c in cures} != {"saltpetre"}:
        yield ("nitrite-low", "caution")
    if nitrate > most_nitrate:
        yield ("nitrate-over", "stop")
    for cure in cures:
        yield from _of_a_cure(document, meat, cure)


def _of_a_cure(document, meat, cure):
    carries = cure["name"] in ("cure-2", "saltpetre") or cure.get("nitrate_pct")
    if carries and meat.get("will_be") == "bacon":
        yield ("nitrate-bacon", "stop")
    if meat["kind"] in ("fish", "vegetable"):
        yield (f"curing-salt-{meat['kind']}", "stop")
    if document.get("heaped"):
        yield ("curing-salt-heaped", "stop")
    strength = cure.get("nitrite_pct")
    if strength and strength > 6.5:
        yield ("strength-too-high", "stop")
    if cure["name"] == "nitrite-salt" and not strength:
        yield ("strength-unlabelled", "stop")
    if cure["name"] == "celery" and not strength:
        yield ("celery-unknown", "caution")
    if cure["name"] == "saltpetre":
        yield ("saltpetre", "caution")


def _salted_g(document):
    return document["meat"]["mass_g"] * (1 - document["meat"].get("bone_share", 0))


def _of_salt(document, mix):
    if mix["wet"] and mix["liquid"] > 0:
        _not_near(mix["all_salt"] / (mix["all_salt"] + mix["liquid"]), 0.264, 0.01)
    is_cured = bool(mix["cures"])
    is_paste = document["method"] == "marinade" and mix["liquid"] < 0.1 * _salted_g(document)
    if document["method"] == "marinade" and not is_cured:
        _not_near(mix["liquid"], 0.1 * _salted_g(document), 0.05)
    is_beyond = mix["wet"] and mix["all_salt"] > 0 and (
        mix["liquid"] <= 0 or mix["all_salt"] / (mix["all_salt"] + mix["liquid"]) > 0.264
    )  # fmt: skip
    if mix.get("water", 0) < 0:
        yield ("undissolved", "stop")
    elif is_beyond and (is_cured or not is_paste):
        yield ("undissolved", "stop" if is_cured else "caution")
    celsius = document["temperature_c"]
    if celsius > 5:
        yield ("too-warm", "stop")
    elif celsius > (4.4 if document["profile"] == "us" else 5):
        yield ("fridge-warm", "caution")


def _of_time(document, mix, mean, taken, verdict):
    meat, days, names = document["meat"], document.get("days"), set(mix["names"])
    limits = _raw_limits(document, mix, mean, taken, verdict)
    if limits and days:
        if days > limits[1]:
            yield ("raw-clock", "stop")
        elif days > limits[0]:
            yield ("raw-clock", "caution")
    much = {name for name, grams in mix["names"].items() if grams >= 0.02 * mix["mass"]}
    if much & {"kiwi", "pineapple", "papaya", "pear", "ginger"}:
        hours = 18
        if much & {"kiwi", "pineapple", "papaya"}:
            hours = 2 if meat["thickness_mm"] <= 10 else 4
        is_known_short = days is not None and days * 24 <= hours
        yield ("enzyme-fruit", "note" if is_known_short else "caution")
    if "oil" in names and not _keeps_in_oil(mix):
        lies = days or 0
        yield ("herbs-in-oil", "stop" if lies > 7 else "caution" if lies > 5 else "note")


def _keeps_in_oil(mix):
    """3.5 % of salt in its water, or an eighth of its liquid vinegar (common practice)."""
    salted = mix["all_salt"] and 100 * mix["all_salt"] / (mix["all_salt"] + mix["liquid"])
    liquids = {name: grams for name, grams in mix["names"].items() if name in LIQUIDS}
    acid = sum(grams for name, grams in liquids.items() if name == "vinegar")
    return salted >= 3.5 or (sum(liquids.values()) and acid / sum(liquids.values()) >= 0.125)


def _raw_limits(document, mix, mean, taken, verdict):
    meat, timed = document["meat"], document["method"] == "strong-brine"
    around = document["target_salt_pct"]
    if timed:
        around = 100 * mix["all_salt"] / mix["pickle"]
    counts = _counts(meat, mix, mix["nitrite"])
    even = next((counts[each] for each in ("even_ppm", "needle_ppm", "dry_ppm")
                 if counts[each] is not None), 0)  # fmt: skip
    unread = (document.get("cure") or {}).get("name") == "nitrite-salt"
    cured = around >= 2 and (unread if verdict == "unknown" else round(even, 1) >= 100)
    salted = document["method"] in ("dry-brine", "dry-cure") and around >= 0.8
    kind = meat["kind"]
    if kind == "vegetable" or meat.get("species") == "mackerel":
        return None if kind == "vegetable" else (1, 2)
    if meat.get("form") == "ground":
        return (5, 7) if cured and kind != "fish" else (2, 3)
    if kind in ("fish", "poultry") or meat.get("species") == "rabbit":
        if cured and kind != "fish":
            return 5, 7
        return (3, 5) if salted else (2, 5)
    if cured:
        return 21, 28
    if timed or document.get("heaped"):
        _not_near(mean, 1.0)
        _not_near(taken, 40)
    return (14, 21) if taken >= 40 and mean >= 1 else (5, 10)


def _not_near(value: float, limit: float, near: float = NEAR) -> None:
    if value != limit and abs(value / limit - 1) < near:
        raise TooNear


def _of_heat(document, mean, verdict):
    meat, kept = document["meat"], document["meat"].get("storage", "meal") != "meal"
    if meat.get("will_be") == "raw" and meat["kind"] != "vegetable":
        yield ("parasites" if meat["kind"] == "fish" else "raw-meat", "stop")
    inside = _inside(document)
    if inside is not None and OPENED & _done(document):
        yield ("not-intact", "note")
    if meat.get("will_be") == "smoked" and meat["kind"] == "fish" and kept:
        in_water = mean / 100 / _water(meat)
        comes_to = 100 * in_water / (1 + in_water)
        least = 2.5 if meat["storage"] == "air" else 3.0 if verdict == "ok" else 3.5
        _not_near(comes_to, least)
        if comes_to < least:
            yield ("water-phase-low", "stop")
        yield ("smoked-fish-kept", "note")


def _done(document: dict) -> set:
    done = set(document.get("treatment", ()))
    sold_salted = (document["meat"].get("sodium_mg") or 0) >= 150
    return done | ({"injected"} if document["method"] == "injection" or sold_salted else set())


def _inside(document: dict) -> float | None:
    meat = document["meat"]
    kind, ground, done = meat["kind"], meat.get("form") == "ground", _done(document)
    if meat.get("will_be") == "raw":
        return None
    if "stuffed" in done:
        return 74
    if kind in ("vegetable", "poultry", "fish"):
        return {"vegetable": None, "poultry": 74, "fish": 71 if ground else 63}[kind]
    if meat.get("wild") == "other" or (kind == "game" and ground):
        return 74
    if meat.get("wild") == "deer" or meat.get("species") == "rabbit" or ground:
        return 71
    return 68 if OPENED & done else 63
