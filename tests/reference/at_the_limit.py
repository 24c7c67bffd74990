"""Dishes just within each limit of the rules sheet and just beyond it: pairs with their sources.

A row says how the dish is made, and how far it is within or beyond (a few parts in a hundred of the
limit). Hours that the models tell are found by halving, against the limit as a literal. A document
is made when it is first wanted.
"""

from collections.abc import Callable, Iterator
from functools import cache, partial

from scipy.optimize import brentq

from pantry_core.formats.operations import dish_document, heat_document

USDA, CODE = "USDA (from memory)", "FDA Food Code (from memory)"
PRACTICE = "common practice"
Case = tuple[str, Callable[[], dict], str, str | None, str]
"""Name, what makes the document, code, the level that it must have, None for none, the source."""


def made(cut, mass_g=2000, method="none", *, piece=None, house=None, heat=None, customs=None,
         edits=(), profile="us", **cure):  # fmt: skip
    return {
        "profile": profile, "piece": {"cut": cut, "mass_g": mass_g} | (piece or {}),
        "cure": {"method": method} | cure, "heat": heat or {"way": "roast"}, "tz": "UTC",
        "customs": customs or {}, "house": house or {"fridge_c": 4.0}, "edits": list(edits),
    }  # fmt: skip


def lasting(step, hours, **more):
    return {"step": step, "min_h": hours, "prefer_h": hours, "max_h": hours} | more


def own(hours, before, place, **more):
    return lasting("own", hours, own=True, before=before, place=place, **more)


def gone(*steps):
    return [{"step": each, "removed": True} for each in steps]


def edited(document, *edits):
    return document | {"edits": [*document["edits"], *edits]}


def raw_hours(document):
    stays = dish_document(document)["history"]
    return sum(s["to_h"] - s["from_h"] for s in stays if s["state"] in ("raw", "curing"))


def raw_for(document, step, hours):
    """The document with a step as long as it takes to be raw for so many hours."""
    rest = raw_hours(edited(document, lasting(step, 1.0))) - 1.0
    return edited(document, lasting(step, hours - rest))


def halved(make: Callable[[float], dict], tell: Callable[[dict], float], wanted: float,
           low: float, high: float) -> dict:  # fmt: skip
    """The document in a range of one of its figures that comes to what is wanted."""
    return make(brentq(lambda figure: tell(make(figure)) - wanted, low, high, rtol=2e-4))


def pair(name, make, limit, code, level, source, *, off=0.02, under=None) -> Iterator[Case]:
    """The case within a limit and the one beyond it; `under` is the level within."""
    yield f"{name}, within", cache(partial(make, limit * (1 - off))), code, under, source
    yield f"{name}, beyond", cache(partial(make, limit * (1 + off))), code, level, source


def turned(cases: Iterator[Case]) -> Iterator[Case]:
    """A limit that is passed downwards: what lies below it is beyond."""
    low, high = cases
    yield low[0].replace("within", "below"), *low[1:]
    yield high[0].replace("beyond", "above"), *high[1:]


BRINE_ALONE = gone("make-brine", "chill-brine", "rest", "hold", "dry", "score")
COLD = "cold storage; stretched for salt and nitrite by common practice"


def raw_clock() -> Iterator[Case]:
    """USDA cold storage, and FDA fish guide ch. 7 for histamine."""
    gammon = made("gammon-flat", 1500, "even-brine", piece={"thickness_mm": 25}, water_g=1500,
                  curing_salt="cure-1", ingoing_ppm=150, target_salt_pct=2.4,
                  heat={"way": "simmer"}, edits=BRINE_ALONE)  # fmt: skip
    partly = gammon | {"cure": gammon["cure"] | {"ingoing_ppm": 80}}
    bird = made("chicken", 1500, "even-brine", water_g=1500, curing_salt="cure-1", ingoing_ppm=150,
                target_salt_pct=2.4, edits=BRINE_ALONE)  # fmt: skip
    salted = made("chicken", 1500, "dry-brine", target_salt_pct=1.0)
    ground = made("brisket", 1500, piece={"form": "ground"})
    sausage = made("pork-shoulder", 1500, "dry-cure", piece={"form": "ground"}, target_salt_pct=2.2,
                   curing_salt="cure-1", ingoing_ppm=140, edits=BRINE_ALONE)  # fmt: skip
    for name, document, step, caution, stop in (
        ("chicken", made("chicken", 1500), "keep", 2, 5),
        ("trout", made("trout", 900), "keep", 2, 5),
        ("chicken in salt", salted, "dry-brine", 3, 5), ("cured chicken", bird, "brine", 5, 7),
        ("ground beef", ground, "keep", 2, 3), ("sausage", sausage, "cure", 5, 7),
        ("brisket", made("brisket"), "keep", 5, 10), ("rabbit", made("rabbit"), "keep", 2, 5),
        ("a little cured", partly, "brine", 14, 21), ("gammon", gammon, "brine", 21, 28),
    ):  # fmt: skip
        yield from pair(f"{name}: {caution} days", lambda h, d=document, s=step: raw_for(d, s, h),
                        24 * caution, "raw-clock", "caution", COLD)  # fmt: skip
        yield from pair(f"{name}: {stop} days", lambda h, d=document, s=step: raw_for(d, s, h),
                        24 * stop, "raw-clock", "stop", COLD, under="caution")  # fmt: skip
    mackerel = made("mackerel", 800, edits=gone("trim"))
    for days, level, under in ((1, "caution", None), (2, "stop", "caution")):
        yield from pair(
            f"mackerel: {days} days",
            lambda h: raw_for(mackerel, "keep", h),
            24 * days,
            "raw-clock",
            level,
            "FDA fish guide, ch. 7 (from memory)",
            under=under,
        )
    yield from pair("mackerel above 4.4 °C counts double",
                    lambda c: edited(mackerel | {"house": {"fridge_c": c}}, lasting("keep", 20)),
                    4.4, "raw-clock", "caution", "FDA fish guide, ch. 7 (from memory)")  # fmt: skip
    yield from protected(gammon)


EVEN_PCT = 2.05 * (1500 + 1500) * 0.6247 / (1500 + 1500 * 0.6247)
"""2.05 % of meat and water, in the water of both, of the meat (USDA SR 28, no. 10008, water)."""


def mean_pct(document):
    return dish_document(document)["history"][-1]["salt"]["mean"]


def nitrite_ppm(document):
    return dish_document(document)["history"][-1]["nitrite_ppm"]["mean"]


def protected(gammon) -> Iterator[Case]:
    """Nitrite and salt enough, around it and in it."""
    long = edited(gammon, lasting("brine", 24 * 17))
    yield from turned(pair(
        "100 ppm around it", lambda ppm: long | {"cure": long["cure"] | {"ingoing_ppm": ppm}}, 100,
        "raw-clock", None, PRACTICE, under="caution"))  # fmt: skip
    yield from turned(pair(
        "2 % around it", lambda pct: long | {"cure": long["cure"] | {"target_salt_pct": pct}}, 2.0,
        "raw-clock", None, PRACTICE, under="caution"))  # fmt: skip
    yield from turned(pair(
        "0.8 % on its surface", lambda pct: made(
            "chicken", 1500, "dry-brine", target_salt_pct=pct, edits=[lasting("dry-brine", 60)]),
        0.8, "raw-clock", None, PRACTICE, under="caution"))  # fmt: skip

    def out_of_it(ppm, pct, mm, days):
        """A brine, and so many days beside it, by the hours in it."""
        lies = gammon | {"cure": gammon["cure"] | {"ingoing_ppm": ppm, "target_salt_pct": pct}}
        lies["piece"] = lies["piece"] | {"thickness_mm": mm}
        return lambda h: edited(lies, lasting("brine", h), own(24 * days, "simmer", "fridge"))

    for name, tell, limit, make in (
        ("1.5 % in it", mean_pct, 1.5, out_of_it(150, 3.5, 60, 14.6)),
        ("85 % of the even value", mean_pct, 0.85 * EVEN_PCT, out_of_it(150, 2.05, 25, 14.6)),
        ("50 ppm in it", nitrite_ppm, 50, out_of_it(101, 5.0, 60, 14.6)),
        ("1 % in it", mean_pct, 1.0, out_of_it(95, 2.05, 40, 6)),
        ("40 ppm in it", nitrite_ppm, 40, out_of_it(60, 3.0, 40, 6)),
    ):  # fmt: skip
        yield from turned(pair(
            name, lambda wanted, m=make, t=tell: halved(m, t, wanted, 4, 24 * 14), limit,
            "raw-clock", None, PRACTICE, under="caution"))  # fmt: skip
    thick = made(
        "brisket",
        4000,
        "even-brine",
        piece={"thickness_mm": 95},
        water_g=4000,
        curing_salt="cure-1",
        ingoing_ppm=150,
        target_salt_pct=2.4,
        edits=BRINE_ALONE,
    )
    lies = edited(thick, lasting("brine", 80))
    yield from pair("three days beside the cure and five on the plain clock",
                    lambda h: edited(lies, own(h - 1.0, "roast", "fridge")), 72 + 120,
                    "raw-clock", "caution", PRACTICE, off=0.015)  # fmt: skip
    bone = made(
        "gammon-bone",
        6000,
        "even-brine",
        piece={"thickness_mm": 130},
        water_g=6000,
        curing_salt="cure-1",
        ingoing_ppm=150,
        target_salt_pct=2.4,
        edits=BRINE_ALONE,
    )
    yield from pair("ten days around a deep bone", lambda h: raw_for(bone, "brine", h), 240,
                    "bone-taint", "caution", PRACTICE)  # fmt: skip
    yield from pair("a bone 50 mm deep", lambda mm: edited(
        bone | {"piece": bone["piece"] | {"thickness_mm": 2 * mm}}, lasting("brine", 300)), 50,
        "bone-taint", "caution", PRACTICE)  # fmt: skip


def warm() -> Iterator[Case]:
    """Out of the cold before the heat and after it."""
    loin = made("pork-loin", 1500, edits=gone("trim"))
    two, porch = "the two-hour rule, USDA (from memory)", {"fridge_c": 4.0}
    yield from pair("two hours on the counter",
                    lambda h: edited(loin, own(h, "roast", "counter")), 2, "out-of-the-cold",
                    "stop", two)  # fmt: skip
    hot = loin | {"house": porch | {"places": {"porch": 34}}}
    yield from pair("one hour on a hot porch", lambda h: edited(hot, own(h, "roast", "porch")), 1,
                    "out-of-the-cold", "stop", two)  # fmt: skip
    yield from pair("a porch of 32 °C", lambda c: edited(
        loin | {"house": porch | {"places": {"porch": c}}}, own(1.5, "roast", "porch")), 32,
        "out-of-the-cold", "stop", two)  # fmt: skip
    yield from pair("a cellar of 5 °C", lambda c: edited(
        loin | {"house": porch | {"places": {"cellar": c}}}, own(3, "roast", "cellar")), 5,
        "out-of-the-cold", "stop", f"{CODE}, 3-501.16")  # fmt: skip
    roast = edited(loin, *gone("stand", "carve"))
    yield from pair("two hours after the heat",
                    lambda h: edited(roast, own(h, "keep-warm", "counter")), 2, "kept-warm",
                    "stop", two)  # fmt: skip
    yield from pair("kept at 60 °C", lambda c: edited(
        roast, own(6, "keep-warm", "counter", medium="air", medium_c=c)), 60, "kept-warm",
        None, "USDA, kept warm (from memory)", off=0.0)  # fmt: skip
    bird = made("turkey", 5000, piece={"form": "stuffed"}, edits=gone("trim"))
    yield from pair("stuffed two hours before", lambda h: edited(
        bird, lasting("stuff", h, place="fridge")), 2, "stuffed-early", "stop",
        "USDA, stuffing (from memory)")  # fmt: skip
    yield from readings(loin)


def readings(loin) -> Iterator[Case]:
    """A warm reading of the fridge's air, and the food read a quarter of an hour later."""

    def read(minutes):
        at = {"what": "temperature-read", "step": "own"}
        facts = [
            {"what": "step-started", "step": "own", "at": "2027-03-01T06:00"},
            at | {"at": "2027-03-01T08:00", "temperature_c": 4.0},
            at | {"at": "2027-03-01T12:00", "temperature_c": 7.0},
            at | {"at": f"2027-03-01T12:{minutes:02.0f}", "temperature_c": 4.5},
        ]
        lies = edited(loin, own(24, "roast", "fridge"))
        return lies | {"facts": facts, "now": "2027-03-01T12:30"}

    yield from pair("the food is read a quarter of an hour after warm air", read, 15, "discard",
                    "stop", PRACTICE, off=0.067)  # fmt: skip


def between_h(document, low, high, stages):
    out = heat_document({"piece": document["piece"], "stages": stages})
    hours, inside = out["hours"], out["inside_c"]

    def when(c, rising):
        for i in range(1, len(hours)):
            a, b = inside[i - 1], inside[i]
            if (a < c <= b) if rising else (a > c >= b and max(inside[: i + 1]) > high - 1):
                return hours[i - 1] + (c - a) / (b - a) * (hours[i] - hours[i - 1])
        return hours[-1]

    rising = stages[-1]["medium"] != "fridge"
    return (
        when(high, rising) - when(low, rising) if rising else when(low, rising) - when(high, rising)
    )


def warming() -> Iterator[Case]:
    """FSIS Appendix A: from 10 to 54 °C within 6 h; four and nine by common practice."""
    for name, cut, extra, limit, level, under in (
        ("a loin", "pork-loin", {}, 6, "caution", None),
        ("a loin", "pork-loin", {}, 9, "stop", "caution"),
        ("a pricked loin", "pork-loin", {"treatment": ["pricked"]}, 4, "caution", None),
        ("a pricked loin", "pork-loin", {"treatment": ["pricked"]}, 6, "stop", "caution"),
    ):

        def thick(mm, cut=cut, extra=extra):
            return made(cut, 20_000, piece={"thickness_mm": mm} | extra,
                        heat={"way": "roast", "medium_c": 110})  # fmt: skip

        def tell(document):
            until = {"medium": "oven", "temperature_c": 110, "until_c": 60}
            return between_h(document, 10, 54, [until])

        yield from pair(
            f"{name} of {limit} h between 10 and 54 °C",
            lambda h, make=thick, tell=tell: halved(make, tell, h, 60, 300), limit, "warms-slowly",
            level, "FSIS Appendix A (from memory); 4 and 9 h by common practice", off=0.004,
            under=under)  # fmt: skip


def cooling() -> Iterator[Case]:
    """FDA Food Code 3-501.14; FSIS Appendix B for whole pieces with 100 ppm."""
    cured = {"method": "dry-cure", "curing_salt": "cure-1", "ingoing_ppm": 150,
             "target_salt_pct": 2.2}  # fmt: skip
    for name, cure, around, limit, high, low in (
        ("a roast", {"method": "none"}, 0, 2, 57, 21), ("a roast", {"method": "none"}, 4, 6, 57, 5),
        ("a ham", cured, -1, 5, 54, 27), ("a ham", cured, 4, 15, 54, 7),
    ):  # fmt: skip

        def cools(mm, cure=cure, around=around):
            document = made("pork-loin", 8000, piece={"thickness_mm": mm}, edits=gone("stand"))
            return edited(
                document | {"cure": cure, "house": {"fridge_c": 4.0, "places": {"ice": around}}},
                own(60, "keep-warm", "ice"),
            )

        def tell(document, high=high, low=low, around=around):
            roast = {"medium": "oven", "temperature_c": 180, "until_c": 63}
            cold = {"medium": "fridge", "temperature_c": around, "hours": 60}
            return between_h(document, low, high, [roast, cold])

        yield from pair(f"{name} from {high} to {low} °C",
                        lambda h, make=cools, tell=tell: halved(make, tell, h, 20, 200), limit,
                        "cools-slowly", "stop", CODE if high == 57 else "FSIS Appendix B",
                        off=0.01)  # fmt: skip

    def by_nitrite(ppm):
        document = made("pork-loin", 3000, piece={"thickness_mm": 60}, edits=gone("stand"))
        cold = {"fridge_c": 4.0, "places": {"ice": 0}}
        return edited(document | {"cure": cured | {"ingoing_ppm": ppm}, "house": cold},
                      own(60, "keep-warm", "ice"))  # fmt: skip

    yield from turned(pair("a ham with 100 ppm", by_nitrite, 100, "cools-slowly", None,
                           "FSIS Appendix B (from memory)", under="stop"))  # fmt: skip


def hot() -> Iterator[Case]:
    """How hot the thickest part must be."""
    for name, document, limit, source in (
        ("a loin", made("pork-loin"), 63, USDA),
        ("a pricked loin", made("pork-loin", piece={"treatment": ["pricked"]}), 68,
         f"{CODE}, 3-401.11"),
        ("a meat loaf", made("brisket", piece={"form": "ground"}), 71, USDA),
        ("a chicken", made("chicken"), 74, USDA),
        ("a stuffed loin", made("pork-loin", piece={"form": "stuffed"}), 74, f"{CODE}, 3-401.11"),
        ("a fillet", made("trout-fillet", 800), 63, f"{CODE}, 3-401.11"),
        ("wild deer", made("venison", piece={"wild": "deer"}), 71, USDA),
        ("wild boar", made("venison", piece={"wild": "other"}), 74, f"{CODE}, 3-401.11"),
        ("a rabbit", made("rabbit"), 71, USDA),
    ):  # fmt: skip
        at_once = edited(document, *gone("stand"))  # no rest in which it still climbs
        step = next(each["id"] for each in dish_document(at_once)["steps"]
                    if "inside_c" in (each["until"] or {}))  # fmt: skip
        yield from turned(pair(
            f"{name} until {limit} °C",
            lambda c, d=at_once, s=step: edited(d, {"step": s, "until": {"inside_c": c}}), limit,
            "not-done", None, source, off=0.012, under="stop"))  # fmt: skip
    for name, mass_g, climbs in (("a large loin", 3000, 6), ("a small one", 900, 3)):
        yield from turned(pair(
            f"{name}, taken out early", lambda c, m=mass_g: made(
                "pork-loin", m, heat={"way": "roast", "take_out_c": c}), 63 - climbs,
            "not-done", None, PRACTICE, off=0.002, under="stop"))  # fmt: skip
    yield from turned(pair(
        "a bird that rests half an hour", lambda c: made(
            "chicken", 2500, heat={"way": "roast", "take_out_c": c}), 60.53,
        "not-done", None, "FSIS Appendix A, poultry (from memory)", off=0.005,
        under="stop"))  # fmt: skip


def fish() -> Iterator[Case]:
    """Parasites, salt and smoke."""
    raw = made("salmon-piece", 1000, "dry-cure", piece={"will_be": "raw", "thickness_mm": 25},
               days=1, customs={"fish": "raw-freeze"})  # fmt: skip

    def frost(document, hours, celsius=-20.0):
        return edited(document, lasting("parasites", hours, medium="air", medium_c=celsius))

    for name, profile, hours, celsius in (("us", "us", 168, -20), ("eu", "eu", 24, -20),
                                          ("deep", "us", 15, -35)):  # fmt: skip
        document = raw | {"profile": profile}
        source = (
            f"{CODE}, 3-402.11" if profile == "us" else "Regulation (EC) 853/2004 (from memory)"
        )
        yield from turned(pair(f"frozen for {hours} h, {name}",
                               lambda h, d=document, c=celsius: frost(d, h, c - 0.2), hours,
                               "parasites", "caution", source, under="stop"))  # fmt: skip
        yield from turned(pair(f"frozen at {celsius} °C, {name}",
                               lambda c, d=document, h=hours: frost(d, h + 1, -c), -celsius,
                               "parasites", "caution", source, under="stop"))  # fmt: skip
    baked = made("trout-fillet", 800, heat={"way": "bake"})
    yield from turned(pair("fish at 60 °C", lambda c: edited(
        baked, {"step": "roast", "until": {"inside_c": c}}), 60, "parasites", None,
        "Regulation (EC) 853/2004 (from memory)", under="stop"))  # fmt: skip
    for storage, least in (("air", 2.5), ("vacuum", 3.5)):

        def smoked(pct, storage=storage):
            return made("trout-fillet", 1000, "dry-cure", target_salt_pct=pct, days=3,
                        piece={"will_be": "smoked", "storage": storage, "thickness_mm": 15},
                        heat={"way": "smoke"})  # fmt: skip

        def water_phase(document):
            answer = dish_document(document)
            stay = next(s for s in answer["history"] if s["step"] == "smoke-low")
            in_water = stay["salt"]["least"] / 100 / answer["asked"]["meat"]["water_share"]
            return 100 * in_water / (1 + in_water)

        yield from turned(
            pair(
                f"smoked fish kept in {storage}",
                lambda pct, make=smoked, tell=water_phase: halved(make, tell, pct, 1, 6),
                least,
                "water-phase-low",
                None,
                "FDA fish guide, ch. 13 (from memory)",
                under="stop",
            )
        )
    cold = made("salmon-piece", 1000, "dry-cure", target_salt_pct=3.5, days=2,
                piece={"thickness_mm": 20, "will_be": "raw"}, customs={"fish": "raw-safe"},
                heat={"way": "cold-smoke"})  # fmt: skip
    yield from pair("smoke of 30 °C", lambda c: edited(cold, {"step": "cold-smoke", "medium_c": c}),
                    30, "cold-smoke", "stop", PRACTICE)  # fmt: skip


def lain_in() -> Iterator[Case]:
    """Enzyme fruit, and raw garlic or herbs under oil."""
    for name, fruit, mm, hours in (
        ("kiwi on slices", "kiwi", 8, 2), ("kiwi on a chop", "kiwi", 30, 4),
        ("pear", "pear", 30, 18),
    ):  # fmt: skip
        yield from pair(name, lambda h, f=fruit, mm=mm: made(
            "pork-chop", 1000, "sauce-marinade", piece={"count": 4, "thickness_mm": mm},
            sauces=[{"name": f, "mass_g": 100}], edits=[lasting("cure", h)]), hours,
            "enzyme-fruit", "caution", PRACTICE, under="note")  # fmt: skip

    def in_oil(days, vinegar=1.0, salt=0.0):
        sauces = [{"name": "oil", "mass_g": 100}, {"name": "vinegar", "mass_g": vinegar}]
        return made("pork-loin", 2000, "oil-marinade", sauces=sauces, target_salt_pct=salt,
                    edits=[lasting("cure", 24 * days)])  # fmt: skip

    yield from pair("herbs in oil for five days", in_oil, 5, "herbs-in-oil", "caution", PRACTICE,
                    under="note")  # fmt: skip
    yield from pair("herbs in oil for seven days", in_oil, 7, "herbs-in-oil", "stop", PRACTICE,
                    under="caution")  # fmt: skip
    yield from turned(
        pair(
            "an eighth of it vinegar",
            lambda part: in_oil(6, 100 * part / (1 - part)),
            0.125,
            "herbs-in-oil",
            None,
            PRACTICE,
            under="caution",
        )
    )
    yield from turned(pair("a paste of 3.5 %", lambda pct: in_oil(
        6, 10.0, pct / (100 - pct) * 9.381 / 2000 * 100), 3.5, "herbs-in-oil", None, PRACTICE,
        under="caution", off=0.03))  # fmt: skip


def went_in() -> Iterator[Case]:
    """The piece that went in, against the one that was weighed out for."""
    gammon = made("gammon-flat", 2000, "even-brine", curing_salt="cure-1", ingoing_ppm=150,
                  water_g=2000, heat={"way": "simmer"})  # fmt: skip

    def put_in(mass_g):
        fact = {"what": "put-in", "step": "brine", "at": "2027-03-01T08:00", "mass_g": mass_g}
        return gammon | {"facts": [fact], "now": "2027-03-01T09:00"}

    yield from pair("3 % of its weight", lambda part: put_in(2000 * (1 - part)), 0.03,
                    "other-piece", "caution", PRACTICE)  # fmt: skip
    belly = made("belly-skinless", 2000, "dry-cure", curing_salt="cure-1", ingoing_ppm=150)
    half = {"what": "put-in", "step": "cure", "at": "2027-03-01T08:00", "mass_g": 1000}
    yield (
        "half of the meat on the whole cure",
        lambda: belly | {"facts": [half], "now": "2027-03-01T09:00"},
        "nitrite-over", "stop", "9 CFR 424.22(b), 200 ppm (from memory)",
    )  # fmt: skip


GROUPS = (raw_clock, warm, warming, cooling, hot, fish, lain_in, went_in)


def cases() -> Iterator[Case]:
    """All of them."""
    for group in GROUPS:
        yield from group()


def wrong(case: Case) -> str | None:
    """What a case is judged otherwise than it must be, None where it is right."""
    name, make, code, level, _ = case
    levels = [each["level"] for each in dish_document(make())["notices"] if each["code"] == code]
    order = ("stop", "caution", "note")
    found = min(levels, key=order.index, default=None)
    return None if found == level else f"{name}: {found}, not {level}"
