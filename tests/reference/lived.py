"""A second reckoning of what happens to a piece, and of what the rules sheet says of it.

It walks through random dishes by the minute out of the cold and by the quarter of an hour in it.
Limits are literals of the rules sheet: USDA, FDA Food Code 3-401.11, 3-402.11, 3-501.14 and
3-501.16, FSIS Appendices A and B, FDA fish guide ch. 7 and 13, Regulation (EC) 853/2004 (all from
memory), and common practice. How salt and heat travel is asked of `salt` and `heat`, which have
reckonings of their own; nothing else is taken from the core.
"""

from math import ceil, exp, log

import numpy as np

from pantry_core.formats.operations import heat_document, salt_document
from tests.reference.limits import _counts
from tests.reference.reckoning import reckon

NEAR = 0.012
"""So near to a limit nothing is judged: the tick, and the models' own samples [-]."""
QUARTER, MINUTE = 0.25, 1 / 60
RED = ("pork", "beef", "lamb", "game")
COOLS = ("air", "ice-bath", "fridge")
JUDGED = {
    "raw-clock", "bone-taint", "out-of-the-cold", "discard", "kept-warm", "cools-slowly",
    "not-cooked", "fish-not-cooked", "not-done", "perhaps-not-done", "warms-slowly", "parasites",
    "water-phase-low", "cold-smoke", "stuffed-early", "not-read", "was-warm",
}  # fmt: skip


class TooNear(Exception):
    """A limit is nearer than the models are sure of."""


def above(value: float, limit: float, near: float = NEAR) -> bool:
    """Whether a value passes a limit; neither where it is too near to it."""
    if value != limit and abs(value - limit) < near * max(abs(limit), 1.0):
        raise TooNear
    return value > limit


class Walk:
    """A piece on its way: `steps` with `from` and `to` [h], as they are or as they are planned."""

    def __init__(self, document: dict, answer: dict, steps: list[dict], facts: dict) -> None:
        self.document, self.answer, self.facts = document, answer, facts
        self.piece, self.meat = document["piece"], answer["asked_meat"]
        self.kind, self.species = self.meat["kind"], self.meat.get("species")
        self.house = document.get("house", {})
        self.fridge_c = self.house.get("fridge_c", 4.0)
        self.steps = [dict(each, **self._place(each)) for each in self._at_home(steps)]
        self.zero = self.steps[0]["from"]
        self.first_heat = next((i for i, s in enumerate(self.steps) if is_heat(s)), None)
        self.reached = self._reached()
        self.cooks_from, self.cooked_at = self._cooked()
        self._place_again()

    def _at_home(self, steps):
        at = next(i for i, each in enumerate(steps) if each["place"] is not None)
        return steps[at:]

    def _place(self, step, *, hot=False):
        unsaid = "counter" if hot else "fridge"
        place = step["place"]
        heated = place in ("oven", "hob", "smoker", "fire", "grill")
        if place is None or not step["with_piece"] or (heated and step["medium"] is None):
            place = unsaid
        if step["medium_c"] is not None and step["with_piece"]:
            around = step["medium_c"]
        else:
            named = {"fridge": self.fridge_c, "counter": 21, "kitchen": 21, "freezer": -18}
            around = self.house.get("places", {}).get(place, named.get(place, 14))
            around = self.fridge_c if place == "fridge" else around
        return {"at": place, "around": around}

    def _place_again(self):
        for i, each in enumerate(self.steps):
            hot = self.cooks_from is not None and i >= self.cooks_from
            each.update(self._place(each, hot=hot))

    # heat

    def _reached(self):
        """The lower and upper edge of the slowest point in every step at the heat [°C]."""
        found = {}
        for i, each in enumerate(self.steps):
            if not is_heat(each):
                continue
            until = each["until"] or {}
            read = [c for at, c in self.facts.get("read", {}).get(each["id"], ())]
            if read and self.facts.get("left_heat"):
                found[i] = (read[-1], read[-1])
            elif "inside_c" in until:
                reach = min(until["inside_c"], each["medium_c"] - 1)
                found[i] = (reach, reach)
            elif until.get("tender"):
                reach = min(88, each["medium_c"] - 8)
                found[i] = (reach, reach)
            else:
                found[i] = None
        if found and all(each is None for each in found.values()):
            return self._by_the_model(found)
        return self._with_its_climb({i: each or (0, 0) for i, each in found.items()})

    def _with_its_climb(self, found):
        """The last heat with the rest after it: 6 °C are counted on, 3 below 1 kg (practice)."""
        last, end = max(found, default=0), len(self.steps) - 1
        if not found or last >= end - 1 or found[last][0] >= max(self.answer["safe_c"] or 0, 60):
            return found
        if self.facts.get("left_heat") or not (self.steps[last]["until"] or {}):
            return found
        out, rested = (self.heat(self.as_stages(i)) for i in (last + 1, end))
        begins = out["hours"][-1] - 1e-6
        pairs = zip(rested["hours"], rested["inside_c"], strict=True)
        hottest = max(celsius for hour, celsius in pairs if hour >= begins)
        piece_g = self.piece["mass_g"] / self.piece.get("count", 1)
        climbs = min(hottest, found[last][0] + (6 if piece_g >= 1000 else 3))
        return found | {last: tuple(max(edge, climbs) for edge in found[last])}

    def _by_the_model(self, found):
        """What goes on until nothing, by the `heat` document; its edges are not told there."""
        safe = self.answer["safe_c"] or 63
        out = self.heat(self.as_stages(max(found) + 1))
        hottest = max(out["inside_c"])
        if abs(hottest - safe) < 0.35 * safe:
            raise TooNear
        return dict.fromkeys(found, (hottest, hottest))

    def heat(self, stages):
        """The answer of `heat`; an hour on the counter brings the piece to 10 °C (practice)."""
        tempered = self.document["customs"].get("tempering") == "hour"
        return heat_document({"piece": self.piece, "stages": stages,
                              "start_c": 10.0 if tempered else 4.0})  # fmt: skip

    def as_stages(self, end):
        """The steps from the first heat on as stages of a `heat` document."""
        stages = []
        for each in self.steps[self.first_heat : end]:
            hours = max(each["to"] - each["from"], 1e-3)
            if each["medium"] is not None and each["with_piece"]:
                until = each["until"] or {}
                goes_on = "inside_c" in until and not each.get("read") and is_heat(each)
                end = {"until_c": min(until["inside_c"], each["medium_c"] - 1)} if goes_on else {}
                stages.append(self._stage(each) | (end or {"hours": hours}))
            else:
                around = self._place(each, hot=True)["around"]
                stages.append({"medium": "fridge" if -5 <= around <= 15 else "air",
                               "temperature_c": around, "hours": hours})  # fmt: skip
        if any(each.get("hours", 0) > 72 or each["temperature_c"] < -20 for each in stages):
            raise TooNear  # a `heat` document has no such stages
        return stages

    def _cooked(self):
        safe = self.answer["safe_c"]
        safe = 63 if safe == 68 else safe  # held there it is as safe
        safe = 60 if _is_bird(self) else safe
        heats = sorted(self.reached)
        at = next((i for i in heats if safe is None or self.reached[i][1] >= safe - 0.05), None)
        if at is None:
            return None, None
        first = at
        for i in reversed([each for each in heats if each < at]):
            between = self.steps[i + 1 : first]
            cold = any(each["place"] in ("fridge", "freezer") for each in between)
            if cold or sum(each["to"] - each["from"] for each in between) > 2:
                break
            first = i
        return first, at

    def warming(self):
        """Hours of the slowest point from 10 to 54 °C, by the `heat` document."""
        if self.first_heat is None:
            return 0.0
        if any(self.facts.get("read", {}).values()):
            raise TooNear  # by what was read: judged in cases of their own
        if self.kind == "fish" and any(each["medium"] == "smoker" for each in self.steps):
            raise TooNear  # its surface was dried before, which no `heat` document says
        out = self.heat(self._until_it_is_hot())
        total, hours, inside = 0.0, out["hours"], out["inside_c"]
        for i in range(1, len(hours)):
            for tick in range(20):
                now = inside[i - 1] + (inside[i] - inside[i - 1]) * (tick + 0.5) / 20
                if now >= 54:
                    return total
                total += (hours[i] - hours[i - 1]) / 20 * (now >= 10)
        return total

    def _until_it_is_hot(self):
        """The stages of a `heat` document to the first temperature that is gone on until."""
        stages = []
        for each in self.steps[self.first_heat :]:
            if not is_heat(each):
                break
            until = each["until"] or {}
            if "inside_c" in until:
                goal = min(until["inside_c"], each["medium_c"] - 1)
                return [*stages, self._stage(each) | {"until_c": goal}]
            stages.append(self._stage(each) | {"hours": max(each["to"] - each["from"], 0.01)})
        if any(each.get("hours", 0) > 72 for each in stages):
            raise TooNear  # a `heat` document has no longer stages
        return stages

    @staticmethod
    def _stage(each):
        """A step at the heat; in a closed pot it lies in liquid of 95 °C at the most (practice)."""
        if each["covered"]:
            return {"medium": "water", "temperature_c": min(95, each["medium_c"])}
        return {"medium": each["medium"], "temperature_c": each["medium_c"]}

    # salt

    def in_the_cure(self):
        """The step in the cure, by the id that the route gives it."""
        cure = self.answer["curing_step"]
        return next((i for i, each in enumerate(self.steps) if each["id"] == cure), None)

    def salted(self):
        """Salt by the hour: hours from purchase, mean and least [% of the meat]."""
        at = self.in_the_cure()
        asked = self.answer["asked"]
        if at is None or asked is None:
            return None
        mix = reckon(asked)
        hours = self.steps[at]["to"] - self.steps[at]["from"]
        if mix["all_salt"] <= 0 or hours <= 0 or not 0 <= asked["temperature_c"] <= 15:
            return None
        water, salt = mix["liquid"], mix["all_salt"]
        if asked["meat"].get("form") == "ground":
            return self._mixed_in(mix, asked, at)
        stages = []
        if mix["needle"] is not None:
            part = min(mix["needle"] * mix["mass"] / mix["pickle"], 1)
            strength = min(100 * salt / mix["pickle"], 26.4)
            stages.append({"kind": "needle", "share": mix["needle"], "salt_pct": strength})
            water, salt = (1 - part) * water, (1 - part) * salt
        if mix["needle"] is not None and not mix["brine"]:
            stages.append({"kind": "rest", "hours": hours})
        elif mix["brine"] and water > 0:
            stages.append({"kind": "brine", "hours": hours, "water_g": water, "salt_g": salt})
        else:
            stages.append({"kind": "dry", "hours": hours, "salt_g": salt})
        end = self.first_heat if self.first_heat is not None else len(self.steps)
        after = sum(each["to"] - each["from"] for each in self.steps[at + 1 : end])
        if after > 0:
            stages.append({"kind": "rest", "hours": after})
        own = 100 * mix["own"] / mix["mass"]
        if max(hours, after) > 2880:
            raise TooNear  # a `salt` document has no longer stages
        out = salt_document({"meat": asked["meat"], "temperature_c": asked["temperature_c"],
                             "start_pct": own, "stages": stages})  # fmt: skip
        meat_water = (asked["meat"].get("water_share") or 0.74) * mix["mass"]
        swell = 0.0
        if mix["needle"] is not None:
            swell = min(mix["needle"] * mix["mass"] / mix["pickle"], 1) * mix["liquid"]
        alone = mix["needle"] is not None and not mix["brine"]
        all_water = meat_water + (swell if alone else mix["liquid"])
        even = 100 * (mix["all_salt"] + mix["own"]) / all_water * (meat_water + swell) / mix["mass"]
        counts = _counts(asked["meat"], mix, mix["nitrite"])
        ppm = next((counts[each] for each in ("even_ppm", "needle_ppm", "dry_ppm")
                    if counts[each] is not None), 0.0)  # fmt: skip
        begins = self.steps[at]["from"] - self.zero
        return {
            "hours": [begins + each for each in out["hours"]], "mean": out["mean_pct"],
            "least": out["least_pct"], "even": even, "own": own, "ppm": ppm, "mix": mix,
        }  # fmt: skip

    def _mixed_in(self, mix, asked, at):
        """What is ground has all of it at once, counted over the meat alone."""
        pct = 100 * (mix["all_salt"] + mix["own"]) / mix["mass"]
        counts = _counts(asked["meat"], mix, mix["nitrite"])
        return {
            "hours": [self.steps[at]["from"] - self.zero], "mean": [pct], "least": [pct],
            "even": pct, "own": 0.0, "ppm": counts["dry_ppm"] or 0.0, "mix": mix,
        }  # fmt: skip

    def held(self, hour, which="mean"):
        """Salt [%] and nitrite [mg/kg] at an hour from purchase."""
        salt = self.salt
        if salt is None or hour < salt["hours"][0]:
            return 0.0, 0.0
        pct, mean = (float(np.interp(hour, salt["hours"], salt[each])) for each in (which, "mean"))
        part = (mean - salt["own"]) / max(salt["even"] - salt["own"], 1e-9)
        return pct, salt["ppm"] * min(max(part, 0), 1)

    def ticks(self, step):
        """The middle of each tick of a step, in hours from purchase, and how long it is."""
        pace = QUARTER if step["around"] <= 5 else MINUTE
        count = max(1, ceil((step["to"] - step["from"]) / pace - 1e-9))
        length = (step["to"] - step["from"]) / count
        for i in range(count):
            yield step["from"] - self.zero + (i + 0.5) * length, length


def is_heat(step) -> bool:
    """Whether a step heats the piece: above the 30 °C of cold smoke, in what does not cool."""
    medium = step["medium"]
    return medium is not None and medium not in COOLS and step["medium_c"] > 30


def judged(walk: Walk) -> set[tuple[str, str]]:
    """What the rules sheet says of a walk: codes with their levels."""
    walk.salt = walk.salted()
    before = walk.steps if walk.cooks_from is None else walk.steps[: walk.cooks_from]
    found = set()
    found |= _raw(walk, before)
    found |= _warm_before(walk, before)
    found |= _warm_after(walk)
    found |= _heat(walk)
    found |= _fish(walk)
    found |= _stuffing(walk, before)
    return found


def _frozen(walk, steps):
    """Which steps are frozen or thawing, with the hours after which a thaw is over."""
    was, found = False, {}
    for i, each in enumerate(steps):
        if each["around"] <= -5:
            found[i], was = float("inf"), True
        elif was and each["around"] <= 5:
            thaw = 1.25 * max(12, 13 * walk.piece["mass_g"] / 1000)
            found[i], was = thaw, False
        else:
            was = False
    return found


def _limits_of(walk):
    """Days of caution and stop: by cold alone, dry-salted, partly cured, cured."""
    if walk.species == "mackerel":
        return [(1, 2)] * 4
    if walk.meat.get("form") == "ground":
        return [(2, 3)] * 3 + [(2, 3) if walk.kind == "fish" else (5, 7)]
    if walk.kind == "fish":
        return [(2, 5), (3, 5), (2, 5), (2, 5)]
    if walk.kind == "poultry" or walk.species == "rabbit":
        return [(2, 5), (3, 5), (2, 5), (5, 7)]
    return [(5, 10), (5, 10), (14, 21), (21, 28)]


def _around(walk):
    """The salt and nitrite by count that lie around it, whether on it without a liquid."""
    asked = walk.answer["asked"]
    if walk.in_the_cure() is None or asked is None:
        return 0.0, 0.0, False
    mix, is_dry = reckon(asked), asked["method"] in ("dry-brine", "dry-cure")
    pct = asked["target_salt_pct"]
    if asked["method"] == "strong-brine":
        pct = 100 * mix["all_salt"] / mix["pickle"]
    counts = _counts(asked["meat"], mix, mix["nitrite"])
    ppm = next((counts[each] for each in ("even_ppm", "needle_ppm", "dry_ppm")
                if counts[each] is not None), 0.0)  # fmt: skip
    if ppm:
        above(ppm, 100, 0.004)
    above(pct, 2.0, 0.004)
    if is_dry:
        above(pct, 0.8, 0.004)
    # a nitrite salt whose label is not read yet is taken as it will be sized
    cure = asked.get("cure") or {}
    unread = cure.get("name") == "nitrite-salt" and not cure.get("nitrite_pct")
    return pct, 1e3 if unread else ppm, is_dry and pct >= 0.8


class Clocks:
    """Hours raw on each clock, days of caution and stop."""

    def __init__(self, walk, before):
        self.walk, self.before, self.at = walk, before, walk.in_the_cure()
        self.plain, self.dry, self.partly, self.cured = _limits_of(walk)
        pct, ppm, self.salted = _around(walk)
        self.is_cured = self.at is not None and pct >= 2 and round(ppm, 1) >= 100
        self.hours, self.total = {}, 0.0
        self.lay = self.out = 0.0
        self._go()

    def _go(self):
        walk, frozen = self.walk, _frozen(self.walk, self.before)
        is_open = not walk.piece.get("bought", {}).get("vacuum", False)
        for i, each in enumerate(self.before):
            is_in = i == self.at
            is_open = is_open or is_in or each["at"] not in ("fridge", "freezer")
            if not is_open:
                continue
            if is_in and self.is_cured and i not in frozen:
                self.lay, self.out = self.lay + each["to"] - each["from"], 0.0
            self._step(i, each, frozen.get(i, 0.0))
            if self.lay and not is_in:
                self.out += each["to"] - each["from"]

    def _step(self, i, step, thaws_h):
        walk = self.walk
        begun = step["from"] - walk.zero
        left = min(self.lay, 72) - self.out
        mean, nitrite = walk.held(begun)
        inside = _out_of_it(walk, mean, nitrite, self.at, i)
        twice = walk.species == "mackerel" and step["around"] > 4.4
        used = 0.0
        for middle, tick in walk.ticks(step):
            if middle - begun <= thaws_h:
                continue
            if i == self.at:
                clock = self._in_it(*walk.held(middle))
            else:
                clock = self._out_of_it(inside, mean, is_as_cured=used < left)
            used += tick
            self.total += tick
            self.hours[clock] = self.hours.get(clock, 0.0) + tick * (2 if twice else 1)

    def _in_it(self, mean, nitrite):
        plain = self.dry if self.salted else self.plain
        if self.is_cured:
            return _better(self.cured, plain)
        return _better(self.partly, plain) if mean >= 1 and nitrite >= 40 else plain

    def _out_of_it(self, inside, mean, *, is_as_cured):
        plain = _plain(self.plain, self.dry, self.salted, mean)
        if inside == "cured" or (not inside and is_as_cured):
            return _better(self.cured, plain)
        return _better(self.partly, plain) if inside else plain


def _raw(walk, before):
    if walk.kind == "vegetable":
        return set()
    clocks = Clocks(walk, before)
    found, so_far = set(), 0.0
    for caution, stop in sorted(clocks.hours, key=lambda each: (each[1], each[0])):
        so_far += clocks.hours[caution, stop]
        if above(so_far / 24, stop, 0.6 / 24):
            found.add("stop")
        elif above(so_far / 24, caution, 0.6 / 24):
            found.add("caution")
    told = {("raw-clock", "stop" if "stop" in found else "caution")} if found else set()
    return told | _taint(walk, clocks.total)


def _plain(plain, dry, salted, mean):
    if salted and mean:
        above(mean, 0.8, 0.02)
    return dry if salted and mean >= 0.8 else plain


def _better(one, other):
    return max(one, other, key=lambda each: (each[1], each[0]))


def _out_of_it(walk, mean, nitrite, at, i):
    """Whether what is in it protects it out of the cure: wholly, partly or not."""
    if at is None or i <= at or walk.salt is None or nitrite <= 0:
        return ""
    wholly = min(1.5, 0.85 * walk.salt["even"])
    if above(mean, wholly, 0.02) and above(nitrite, 50, 0.02):
        return "cured"
    return "partly" if above(mean, 1.0, 0.02) and above(nitrite, 40, 0.02) else ""


def _taint(walk, hours):
    deep = walk.kind in RED and walk.meat["bone_share"] > 0
    at = walk.in_the_cure()
    needled = (walk.answer["asked"] or {}).get("method") == "injection"
    if not deep or at is None or needled or walk.steps[at]["to"] <= walk.steps[at]["from"]:
        return set()
    if above(walk.meat["thickness_mm"] / 2, 50) and above(hours / 24, 10, 0.6 / 24):
        return {("bone-taint", "caution")}
    return set()


def _out(walk, step) -> float:
    """Hours of a step out of the cold: work that fills it on the grid counts by its hands."""
    cold = 4.4 if walk.species == "mackerel" else 5
    if step["around"] <= cold or is_heat(step) or step["around"] <= -5:
        return 0.0
    if step["place"] == "smoker" and step["medium"] is not None:
        return 0.0
    length, hands = step["to"] - step["from"], step["hands_min"] / 60
    filled = hands and length <= QUARTER * ceil(hands / QUARTER - 1e-9) + 1e-6
    if filled and not step.get("read"):
        length = min(hands, length)
    return sum(MINUTE for _ in range(round(length / MINUTE)))


def _warm_before(walk, before):
    if walk.kind == "vegetable":
        return set()
    frozen = _frozen(walk, before)
    times = 2 if walk.species == "mackerel" else 1
    now = walk.facts.get("now", 0.0)
    past = meant = 0.0
    hot = False
    for i, each in enumerate(before):
        if i in frozen and frozen[i] == float("inf"):
            continue
        hours = times * _out(walk, each)
        hot = hot or (hours > 0 and each["around"] > 32)
        length = each["to"] - each["from"]
        part = min(max((now - each["from"]) / length, 0), 1) if each.get("read") and length else 0
        past, meant = past + part * hours, meant + (1 - part) * hours
    mishap = walk.facts.get("warm_h", 0.0)
    past += mishap
    limit = 1 if hot or walk.facts.get("hot") else 2
    if above(past, limit, 0.03):
        return {("discard", "stop")}
    if above(past + meant, limit, 0.03):
        return {("out-of-the-cold", "stop")}
    return {("was-warm", "caution")} if mishap else set()


def _warm_after(walk):
    if walk.cooked_at is None or walk.kind == "vegetable":
        return set()
    after = walk.steps[walk.cooked_at + 1 :]
    now = walk.facts.get("now", 0.0)
    past = meant = 0.0
    for each in after:
        if is_heat(each) or each["around"] >= 60:
            continue
        hours, length = _out(walk, each), each["to"] - each["from"]
        part = min(max((now - each["from"]) / length, 0), 1) if each.get("read") and length else 0
        past, meant = past + part * hours, meant + (1 - part) * hours
    past += walk.facts.get("warm_after_h", 0.0)
    if above(past, 2, 0.03):
        return {("discard", "stop")}
    if above(past + meant, 2, 0.03):
        return {("kept-warm", "stop")}
    colds = [each for each in after if each["around"] <= 5]
    ends = [(each["until"] or {}).get("cold_c", 99) <= 5 and each["to"] - each["from"] <= 6
            for each in colds]  # fmt: skip
    return _cooling(walk) if colds and not all(ends) else set()


def _cooling(walk):
    """57 to 21 °C in 2 h, to 5 in 6; with 100 ppm 54 to 27 in 5, to 7 in 15."""
    out = walk.heat(walk.as_stages(len(walk.steps)))
    hours, inside = out["hours"], out["inside_c"]
    ppm = walk.salt["ppm"] if walk.salt else 0.0
    cured = ppm >= 100 and walk.meat["form"] == "whole"
    hot, warm, cold, first, whole = (54, 27, 7, 5, 15) if cured else (57, 21, 5, 2, 6)
    begins = next((h for h, c in reversed(list(zip(hours, inside, strict=True))) if c >= hot), None)
    if begins is None:
        return set()
    for goal, most in ((warm, first), (cold, whole)):
        takes = next((h for h, c in zip(hours, inside, strict=True) if h > begins and c <= goal),
                     hours[-1]) - begins  # fmt: skip
        if above(takes, most, 0.25):
            return {("cools-slowly", "stop")}
    return set()


def _heat(walk):
    if walk.kind == "vegetable":
        return set()
    return _hot_enough(walk) | _warming(walk)


def _hot_enough(walk):
    safe, read = walk.answer["safe_c"], walk.facts.get("read", {})
    if safe is None or walk.answer["eaten_raw"]:
        return set()
    celsius = [c for each in read.values() for _, c in each]
    if walk.facts.get("left_heat"):
        if not celsius:
            return {("not-read", "caution")} if walk.answer["needs_figure"] else set()
        if safe - 6 <= celsius[-1] < safe - 0.05:
            raise TooNear  # it may climb to it: judged in cases of their own
        return {("not-done", "stop")} if celsius[-1] < safe - 0.05 else set()
    if not walk.reached:
        return {("fish-not-cooked" if walk.kind == "fish" else "not-cooked", "stop")}
    hottest = max(low for low, _ in walk.reached.values())
    is_held = (_is_bird(walk) and _bird_rests_long_enough(walk)) or (
        safe == 68 and _rests_long_enough(walk)
    )
    return {("not-done", "stop")} if hottest < safe - 0.05 and not is_held else set()


BIRDS = ((60.0, 36), (62.8, 14), (65.6, 5), (68.3, 1.5), (71.1, 0.5))


def _is_bird(walk):
    stuffed = "stuffed" in walk.answer["treatments"]
    return walk.kind == "poultry" and walk.answer["safe_c"] == 74 and not stuffed


def _bird_rests_long_enough(walk):
    """By FSIS Appendix A for poultry, rounded up (from memory), between its rows by logarithms."""
    for i, (low, _) in walk.reached.items():
        rest = walk.steps[i + 1] if i + 1 < len(walk.steps) else None
        if not 60 <= low < 73.9 or rest is None or is_heat(rest) or rest["around"] >= 60:
            continue
        celsius, minutes = ([*row] for row in zip(*BIRDS, strict=True))
        needed = exp(np.interp(low, celsius, [log(each) for each in minutes]))
        if above(60 * (rest["to"] - rest["from"]), needed, 0.1 * needed):
            return True
    return False


def _rests_long_enough(walk):
    """63 °C held 3 min, 66 for 1, 68 for 17 s: Food Code 3-401.11 (from memory)."""
    for i, (low, _) in walk.reached.items():
        needed = next((m for c, m in ((68, 17 / 60), (66, 1), (63, 3)) if low >= c), None)
        rest = walk.steps[i + 1] if i + 1 < len(walk.steps) else None
        if needed is None or rest is None or is_heat(rest) or rest["around"] >= 60:
            continue
        if 60 * (rest["to"] - rest["from"]) >= needed:
            return True
    return False


def _warming(walk):
    if not walk.reached:
        return set()
    hours, cured = walk.warming(), walk.answer["nitrite_ok"]
    opened = walk.kind == "poultry" or walk.answer["opened"] or walk.meat["form"] == "ground"
    risky = opened and not cured
    stop = 6 if risky else 9 if walk.kind in RED else None
    if stop is not None and above(hours, stop, 0.06):
        return {("warms-slowly", "stop")}
    return {("warms-slowly", "caution")} if above(hours, 4 if risky else 6, 0.06) else set()


def _fish(walk):
    smoke = [each for each in walk.steps if each["medium"] == "smoker"]
    cold = [each for each in smoke if each["around"] <= 30]
    if walk.kind == "fish":
        return _parasites(walk, smoke) | _salt_of_smoked(walk, smoke, cold)
    return _cold_smoked(walk, cold) if walk.kind != "vegetable" and cold else set()


def _cold_smoked(walk, cold):
    least, salt = 0.0, walk.salt
    if salt is not None:
        pct, _ = walk.held(cold[0]["to"] - walk.zero, "least")
        least = salt["ppm"] / max(salt["even"], 1e-9) * pct
    through = walk.answer["nitrite_ok"] and above(least, 40, 0.05)
    return set() if through else {("cold-smoke", "stop")}


def _parasites(walk, smoke):
    found, raw = set(), walk.answer["eaten_raw"]
    if raw or (walk.reached and max(low for low, _ in walk.reached.values()) < 60):
        long_h = 168 if walk.document["profile"] == "us" else 24
        killed = any(
            (each["around"] <= -20 and each["to"] - each["from"] >= long_h - 1e-6)
            or (each["around"] <= -35 and each["to"] - each["from"] >= 15 - 1e-6)
            for each in walk.steps
        )
        said = walk.document.get("customs", {}).get("fish") == "raw-safe"
        found.add(("parasites", "caution" if killed or said else "stop"))
    if raw and any(each["around"] > 30 for each in smoke):
        found.add(("cold-smoke", "stop"))
    return found


def _salt_of_smoked(walk, smoke, cold):
    storage = walk.piece.get("storage", "meal")
    kept = storage != "meal" and (smoke or walk.piece.get("will_be") == "smoked")
    if not kept and not cold:
        return set()
    hour = (smoke[0]["from"] if smoke else walk.steps[-1]["to"]) - walk.zero
    pct = walk.held(hour, "least")[0] if walk.salt is not None else 0.0
    in_water = pct / 100 / (walk.meat.get("water_share") or 0.70)
    enough = above(100 * in_water / (1 + in_water), 3.5 if storage == "vacuum" else 2.5, 0.02)
    return set() if enough else {("water-phase-low", "stop")}


def _stuffing(walk, before):
    if "stuffed" not in walk.answer["treatments"] or walk.kind == "vegetable":
        return set()
    first = next((i for i, each in enumerate(walk.steps) if each["form"] == "stuffed"), None)
    frozen = _frozen(walk, before)
    hours = sum(
        each["to"] - each["from"] for i, each in enumerate(before)
        if i not in frozen and (first is None or i >= first)
    )  # fmt: skip
    return {("stuffed-early", "stop")} if above(hours, 2, 0.02) else set()
