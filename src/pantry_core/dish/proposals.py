"""What could be changed of a recipe, one thing at a time, by the smallest change that helps."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Final, Protocol

import numpy as np

from pantry_core.dish.answer import REMINDERS, DishNotice, DishOut
from pantry_core.dish.curing import Settled
from pantry_core.dish.lifting import Lift
from pantry_core.dish.request import DishRequest
from pantry_core.dish.room import fitted, liquid_ml
from pantry_core.dish.written import Written
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.recipe import RecipeLine
from pantry_core.mixes.request import Purpose, WeighRequest
from pantry_core.mixes.result import Figures, Proposal
from pantry_core.mixes.seasoning import SALTY_EDGE_PCT
from pantry_core.mixes.uptake import way_through
from pantry_core.notice import Notice
from pantry_core.quantities import Days, Grams, Hours, Ppm
from pantry_core.rules.constants import SALTY_CAUTION_PCT, SATURATION
from pantry_core.salt.travel import followed
from pantry_core.text import Sentence, say

Change = dict[str, object]
JUST_WITHIN: Final = 0.995
"""What is made less comes just within its limit (our own choice)."""
LEAST_H: Final = 0.25
OF_SCALE_AND_LIMIT: Final = ("nitrite-over", "scale-doubt-over")
NO_CURE_HERE: Final = (
    "curing-salt-fish", "curing-salt-vegetable", "curing-salt-heaped", "curing-salt-misplaced",
)  # fmt: skip
TOO_MUCH_NITRATE: Final = ("nitrate-over", "nitrate-bacon")


class Said:
    """What is said of a dish or a recipe: codes of its stops, and of all that asks for a change.

    Parameters: notices of either.
    """

    def __init__(self, notices: Iterable[DishNotice | Notice]) -> None:
        asking = [
            each for each in notices if (each.level != "note" and each.code not in REMINDERS)
            or each.level == "stop"
        ]  # fmt: skip
        self.codes = {each.code for each in asking}
        self.stops = {each.code for each in asking if each.level == "stop"}

    def lifted_by(self, after: "Said") -> tuple[str, ...]:
        """The codes that a change lifts; none where it brings a stop, or for less than a stop more.

        Parameters: after, what is said once it is changed.
        """
        stops = self.stops - after.stops
        is_new = after.stops - self.stops or (after.codes - self.codes and not stops)
        return () if is_new else tuple(sorted((self.codes - after.codes) | stops))


class Subject(Protocol):
    """What a cure comes to: of a dish, or of a recipe that is checked alone."""

    @property
    def judged(self) -> Judged:
        """What its mix comes to."""

    @property
    def request(self) -> WeighRequest:
        """The same as it was asked for."""

    @property
    def purpose(self) -> Purpose:
        """What the salt is for."""

    @property
    def in_h(self) -> float:
        """How long the piece lies in it [h]."""


@dataclass(frozen=True, slots=True)
class Candidate:
    """A change that may help: its code and words, and the changes of the document."""

    code: str
    text: Sentence
    changes: tuple[Change, ...]


def proposals_of(
    asked: DishRequest,
    settled: Settled,
    out: DishOut,
    work_out: Callable[[DishRequest], DishOut],
) -> tuple[Proposal, ...]:
    """What could be changed of the recipe of a dish.

    Parameters: asked, with its recipe; settled, its cure; out, its answer; work_out, which answers
    a changed document.
    Returns: each change by itself with the figures before and after, worked out, not foretold; only
    those that lift a stop or a caution, and bring no stop, nor a caution for less than a stop.
    Raises: nothing.
    Source: mass balance (derived), the model of `salt.travel`, limits as of `rules`.
    """
    written = settled.written
    if written is None:
        return ()
    offers = []
    before = Said(out.notices)
    lasts_h = sum(each.hours for each in out.history if each.is_raw)
    candidates = [*candidates_of(settled, written, figures_of(out), lasts_h, before.codes)]
    if "not-covered" in before.codes:
        candidates += _to_cover(asked, settled, written)
    for each in candidates:
        try:
            changed = work_out(changed_by(asked, each.changes))
        except ValueError:
            continue
        lifts = before.lifted_by(Said(changed.notices))
        if lifts:
            offers.append(
                Proposal(
                    each.code, each.text, each.changes, figures_of(out), figures_of(changed), lifts
                )
            )
    return tuple(offers)


def with_offers(out: DishOut, proposals: tuple[Proposal, ...]) -> DishOut:
    """The answer with what could be changed, each stop naming the first offer that lifts it.

    Parameters: out; proposals.
    """
    by_code = {code: each for each in reversed(proposals) for code in each.lifts}
    notices = tuple(
        replace(each, lift=Lift(by_code[each.code].text, "sheet"))
        if each.level == "stop" and each.code in by_code
        else each
        for each in out.notices
    )
    return replace(out, notices=notices, proposals=proposals)


def changed_by(asked: DishRequest, changes: tuple[Change, ...]) -> DishRequest:
    """The document with the changes of a proposal.

    Parameters: asked; changes as a proposal has them.
    Returns: a new document.
    Raises: pydantic.ValidationError for changes that cannot be.
    """
    document = asked.model_dump(mode="json", exclude_unset=True)
    lines = document.get("recipe", {}).get("lines", [])
    for each in changes:
        if "line" in each:
            line = lines[int(str(each["line"]))]
            if each.get("name", line["name"]) != line["name"]:
                line.setdefault("instead_of", line["name"])
            line |= {name: value for name, value in each.items() if name != "line"}
        elif "add" in each:
            lines.append(each["add"])
        else:
            *path, name = str(each["field"]).split(".")
            within = document
            for part in path:
                within = within.setdefault(part, {})
            if name == "days":
                within.pop("lies", None)
            within[name] = each["value"]
    return DishRequest.model_validate(document)


def figures_of(out: DishOut) -> Figures:
    """Salt when it comes out, and nitrite by the count that governs."""
    salt = out.salt
    ppm = None if out.sheet is None else out.sheet.nitrite.governing_ppm
    if salt is None:
        return Figures(None, None, None, ppm)
    return Figures(salt.mean_pct, salt.rim_pct, salt.heart_pct, ppm)


def candidates_of(
    settled: Subject,
    written: Written,
    now: Figures,
    lasts_h: float | None,
    codes: set[str],
) -> Iterator[Candidate]:
    """The changes that may lift what is said of a recipe.

    Parameters: settled, what its cure comes to; written, its lines; now, its figures; lasts_h, how
    long the piece is raw, None where that is not known [h]; codes of what is said of it.
    Raises: nothing.
    """
    if codes.intersection(NO_CURE_HERE):
        yield from _without_cure(written)
    elif codes.intersection(OF_SCALE_AND_LIMIT):
        yield from _less_cure(settled, written)
    if codes.intersection(TOO_MUCH_NITRATE):
        yield from _without_nitrate(written)
    if "undissolved" in codes:
        yield from _more_water(settled, written)
    if "raw-clock" in codes and lasts_h is not None:
        yield from _not_raw_so_long(settled, lasts_h)
    if "salty-edge" in codes or "very-salty" in codes:
        yield from _lifted_sooner(settled)
        yield from _another_salt(written)
        yield from _less_salt(settled, written, now)


def _cure_lines(written: Written) -> list[tuple[int, RecipeLine]]:
    lines = zip(written.at, written.check.lines, strict=True)
    return [(at, line) for at, line in lines if line.cure is not None]


def _without_cure(written: Written) -> Iterator[Candidate]:
    changes: list[Change] = [{"line": at, "grams": 0.0} for at, _ in _cure_lines(written)]
    if changes:
        yield Candidate("no-cure", say("Leave the curing salt out."), tuple(changes))


def _less_cure(settled: Subject, written: Written) -> Iterator[Candidate]:
    """As much curing salt as is usual for the case, in the line that has most of it."""
    nitrite = settled.judged.nitrite
    weighed = [(at, line) for at, line in _cure_lines(written) if line.grams]
    governing = 1e-6 * (nitrite.counts.governing or 0.0)
    if not any(_nitrite_share(line) for _, line in weighed) or not governing:
        return
    goal = 1e-6 * settled.judged.limits.usual.value
    used = 1.0 if written.check.is_dry else written.check.used_share
    active_g = [used * (line.grams or 0.0) * _nitrite_share(line) for _, line in weighed]
    most = int(np.argmax(active_g))
    at, line = weighed[most]
    share, line_g = _nitrite_share(line), used * (line.grams or 0.0)
    held_in_g, grows = sum(active_g) / governing, _grows_with_its_cure(settled)
    others_g = sum(active_g) - active_g[most]
    left_g = (goal * (held_in_g - grows * line_g) - others_g) / (share - goal * grows)
    if left_g < 0.0:
        return
    whole = next(each for each in written.lines if each.at == at)
    grams, was_g = left_g / used / whole.cures_share, whole.grams or 0.0
    goal *= 1e6
    governing *= 1e6
    text = say(
        "Weigh {grams} of the curing salt instead of {was_g}: {goal} of nitrite instead of "
        "{governing}.",
        grams=Grams(grams, 1),
        was_g=Grams(was_g, 1),
        goal=Ppm(goal, 0),
        governing=Ppm(governing, 0),
    )
    yield Candidate("less-cure", text, ({"line": at, "grams": grams},))


def _grows_with_its_cure(settled: Subject) -> float:
    """By how much what the nitrite is counted over grows with the curing salt [g/g]."""
    counts, needle = settled.judged.nitrite.counts, settled.request.needle
    if counts.dry is not None:
        return 0.0
    is_by_needle = needle is not None and counts.needle == counts.governing
    return 1.0 / needle if is_by_needle and needle else 1.0


def _nitrite_share(line: RecipeLine) -> float:
    return 0.0 if line.cure is None else line.cure.nitrite_share or 0.0


def _without_nitrate(written: Written) -> Iterator[Candidate]:
    lines = _cure_lines(written)
    second = [at for at, line in lines if line.name == "curing-salt-2"]
    saltpetre = [at for at, line in lines if line.name == "saltpetre"]
    if second:
        text = say("Take curing salt no. 1 in place of no. 2, as much of it.")
        changes: list[Change] = [{"line": at, "name": "curing-salt-1"} for at in second]
        yield Candidate("no-nitrate", text, tuple(changes))
    if saltpetre:
        text = say("Leave the saltpetre out.")
        yield Candidate("no-saltpetre", text, tuple({"line": at, "grams": 0.0} for at in saltpetre))


def _more_water(settled: Subject, written: Written) -> Iterator[Candidate]:
    """So much water that all of the salt dissolves."""
    mix, most = settled.judged.mix, SATURATION.value
    lacks_g = mix.salt * (1.0 - most) / most / JUST_WITHIN - mix.liquid_water
    if lacks_g > 0.0:
        why = say("so that all of the salt dissolves")
        yield _added_water(written, "more-water", lacks_g, why)


def _added_water(written: Written, code: str, lacks_g: float, why: Sentence) -> Candidate:
    """The same with more water, which is added to the recipe in its own proportion."""
    recipe, made_g = written.recipe, lacks_g / written.check.used_share
    grows = 1.0 if recipe.for_g is None else written.check.meat.mass_g / recipe.for_g
    line = {"text": "", "name": "water", "amount": made_g / grows, "unit": "g", "goes": "cure"}
    text = say("Add {made_g} of water, {why}.", made_g=Grams(made_g, 0), why=why)
    return Candidate(code, text, ({"add": line},))


def _not_raw_so_long(settled: Subject, lasts_h: float) -> Iterator[Candidate]:
    """So much sooner out of the cure that the raw clock is silent, or at least does not stop."""
    limits = settled.judged.raw
    if limits is None:
        return
    for limit in (limits.caution, limits.stop):
        hours = settled.in_h - (lasts_h - 24.0 * limit.value) - LEAST_H
        if LEAST_H <= hours < settled.in_h:
            why = say("It is raw no longer than {most} then.", most=Days(limit.value))
            yield _for_hours("shorter", hours, why)
            return


def _for_hours(code: str, hours: float, why: Sentence) -> Candidate:
    lasts: Days | Hours = Days(hours / 24.0, 1) if hours > 48.0 else Hours(hours, 1)
    text = say("Let it lie {lasts}. {why}", lasts=lasts, why=why)
    return Candidate(code, text, ({"field": "cure.days", "value": hours / 24.0},))


def _lifted_sooner(settled: Subject) -> Iterator[Candidate]:
    """The longest time after which its outside is not too salty yet."""
    way = way_through(settled.request, settled.judged.mix, max(settled.in_h, LEAST_H))
    if way is None or settled.request.is_mixed_in:
        return
    journey = followed(way)
    hours, edges = np.asarray(journey.hours), np.asarray(journey.outer_pct)
    within = np.flatnonzero(edges <= JUST_WITHIN * SALTY_EDGE_PCT.value)
    if len(within) and LEAST_H <= float(hours[within[-1]]) < settled.in_h - LEAST_H / 2:
        why = say("Its outside is not too salty then.")
        sooner_h = float(np.floor(hours[within[-1]] / LEAST_H) * LEAST_H)
        yield _for_hours("sooner", sooner_h, why)


def _another_salt(written: Written) -> Iterator[Candidate]:
    """The same spoons of a lighter salt."""
    for at, line in zip(written.at, written.check.lines, strict=True):
        asked = written.recipe.lines[at]
        is_spooned = asked.grams is None and asked.unit not in ("g", "kg", "oz", "lb", "piece")
        if line.ingredient.role == "salt" and is_spooned and line.name != "salt-hollow-flake":
            text = say("Take hollow-flake salt by the same spoons: it is half as heavy.")
            yield Candidate("other-salt", text, ({"line": at, "name": "salt-hollow-flake"},))
            return


def _less_salt(settled: Subject, written: Written, now: Figures) -> Iterator[Candidate]:
    """So much less salt that it comes just within what is too salty."""
    salts = [
        (at, line.grams or 0.0)
        for at, line in zip(written.at, written.check.lines, strict=True)
        if line.ingredient.role == "salt"
    ]
    if not salts or now.mean_pct is None or now.rim_pct is None:
        return
    over = max(
        now.rim_pct / SALTY_EDGE_PCT.value if settled.purpose == "season" else 0.0,
        now.mean_pct / SALTY_CAUTION_PCT.value,
        settled.judged.salt.in_meat_pct / SALTY_CAUTION_PCT.value
        if not settled.request.is_lifted and settled.request.days is None
        else 0.0,
    )
    at, grams = max(salts, key=lambda each: each[1])
    share = written.recipe.used_share if not written.check.is_dry else 1.0
    less_g = settled.judged.mix.salt / share * (1.0 - JUST_WITHIN / over)
    if 0.0 < less_g < grams:
        in_cure = next(each.cures_share for each in written.lines if each.at == at)
        left_g = (grams - less_g) / in_cure
        text = say(
            "Weigh {left_g} of the salt instead of {grams}.",
            left_g=Grams(left_g, 0),
            grams=Grams(grams / in_cure, 0),
        )
        yield Candidate("less-salt", text, ({"line": at, "grams": left_g},))


def _to_cover(asked: DishRequest, settled: Subject, written: Written) -> Iterator[Candidate]:
    """So much water that the vessel's liquid covers it."""
    vessel = asked.house.vessel
    if vessel is None:
        return
    lacks_ml = fitted(settled.judged, vessel).liquid_to_cover_ml - liquid_ml(settled.judged)
    if lacks_ml > 0.0:
        why = say("so that it is covered")
        yield _added_water(written, "to-cover", lacks_ml / JUST_WITHIN, why)
