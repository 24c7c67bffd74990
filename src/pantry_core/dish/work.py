"""One dish, worked out whole."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from pantry_core.dish.answer import CookTime, DishOut, DishStep, RawTime, SaltOut
from pantry_core.dish.beginnings import beginnings
from pantry_core.dish.broth import of_the_pot
from pantry_core.dish.clock import Clock, WrongDish
from pantry_core.dish.contradictions import refuse_contradictions
from pantry_core.dish.cooking import Cook, cooking_of, of_the_heat
from pantry_core.dish.curing import Settled, settle
from pantry_core.dish.edits import edited
from pantry_core.dish.flame import of_an_open_flame
from pantry_core.dish.gates import gate_of
from pantry_core.dish.job import job_out
from pantry_core.dish.learnt import of_the_learnt
from pantry_core.dish.mix_out import mix_of, window_of, with_its_lines
from pantry_core.dish.offers import offers_of
from pantry_core.dish.options import options_of
from pantry_core.dish.other_heats import with_other_heats
from pantry_core.dish.passed import never_reached
from pantry_core.dish.piece import (
    Prepared,
    at_the_speed,
    prepared,
    size_notices,
    treatment_of,
)
from pantry_core.dish.proposals import with_offers
from pantry_core.dish.request import DishRequest
from pantry_core.dish.room import fridge_litres
from pantry_core.dish.said import (
    FROM_THE_STEPS,
    of_its_brine,
    of_its_scale,
    of_the_time,
    of_the_vessel,
    spots_of,
    verdict_of,
    with_steps,
)
from pantry_core.dish.stays.build import history_of
from pantry_core.dish.stays.places import is_heat
from pantry_core.heat.inside import inside_rule
from pantry_core.history.stays import History
from pantry_core.judging.case import Case
from pantry_core.judging.questions import judged_by_history
from pantry_core.judging.raw import raw_stays
from pantry_core.mixes.check import CheckOut, check_of
from pantry_core.mixes.readiness import stages
from pantry_core.mixes.result import WeighOut
from pantry_core.mixes.seasoning import seasoned_at
from pantry_core.mixes.weigh import sheet_of
from pantry_core.notice import Notice
from pantry_core.routes.customs import Customs
from pantry_core.routes.heating import Cooking, NeverDone
from pantry_core.routes.step import RouteStep
from pantry_core.routes.steps import Route, route
from pantry_core.rules.rule import Mark, Source
from pantry_core.salt.properties import LEAST_C, MOST_C, at_temperature, band_of
from pantry_core.salt.request import MOST_HOURS, Rest, SaltRequest
from pantry_core.salt.travel import End, ended

_PRACTICE = Source("", Mark.PRACTICE)


def dish(asked: DishRequest) -> DishOut:
    """Work a dish out whole.

    Parameters: asked; its fields carry their units and ranges.
    Returns: the methods that fit; without a method nothing else. With one the sheet, the steps as
    the cook changed them, ready to be planned, the salt when it comes out, the time at the heat,
    how hot inside, the hours raw, and all that must be said, each with the step that it holds back.
    Raises: WrongDish for what cannot be: times that do not exist, a method for another kind.
    pydantic.ValidationError for values outside the ranges of `weigh`.
    Source: see `rules`, `mixes`, `routes`.

    >>> out = dish(DishRequest.model_validate({
    ...     "profile": "us", "piece": {"cut": "chicken", "mass_g": 1800},
    ...     "cure": {"method": "strong-brine"}}))
    >>> out.verdict, out.purpose, out.inside_c
    ('go', 'season', 74.0)
    """
    if asked.job is not None:
        return job_out(asked, asked.job)
    piece = _piece_of(asked)
    options = options_of(asked, piece, Clock(asked).left_h)
    if asked.cure.method is None:
        return DishOut(
            options, None, (), None, None, None, None, (), "go", proposals=beginnings(asked, piece)
        )
    found = worked(asked)
    changes = offers_of(asked, found.settled, found.out, lambda other: worked(other).out)
    out = replace(with_offers(found.out, changes), options=options)
    if not asked.other_heats:
        return out
    return replace(out, steps=with_other_heats(out.steps, found.cooking, asked))


@dataclass(frozen=True, slots=True)
class Worked:
    """A dish of a piece, worked out: its cure, its route, and the answer but for other methods."""

    asked: DishRequest
    settled: Settled
    route: Route
    out: DishOut
    cooking: Cooking

    def spare_h(self, left_h: float) -> float:
        """How long the cure may take when so much time is left to the table [h]."""
        way = self.settled.way
        curing = next((each for each in self.route.steps if way and each.kind == way.id), None)
        return left_h - self.route.least_h + (curing.min_h if curing else 0.0)


def worked(asked: DishRequest) -> Worked:
    """Work a dish of a piece and a method out, with what its answer is made of.

    Parameters and errors as in `dish`.
    """
    clock = Clock(asked)
    piece = _piece_of(asked)
    _refuse_misfits(asked, piece)
    settled = settle(asked, piece)
    cook = cooking_of(asked, settled, _customs(asked, piece))
    settled = replace(settled, judged=replace(settled.judged, inside=cook.done.rule))
    way = _route(asked, settled, cook.cooking)
    _refuse_no_taking_out(asked, way)
    steps, told = edited(_steps(way, settled, asked), asked.edits)
    at_the_heat = _as_at_the_heat(settled, steps)
    if at_the_heat is not settled:
        cook = cooking_of(asked, at_the_heat, _customs(asked, piece))
        way = _route(asked, settled, cook.cooking)
        steps, told = edited(_steps(way, settled, asked), asked.edits)
    gate, steps = gate_of(with_its_lines(asked, settled, steps), cook, way, clock)
    refuse_contradictions(steps, clock)
    history = history_of(asked, steps, settled, cook, way, clock)
    case = _case(asked, at_the_heat, cook, history, steps)
    salt, sheet = _salt(settled, steps), _sheet(settled)
    mix = mix_of(asked, settled, steps, sheet)
    spots = spots_of(settled, steps)
    found = [
        *told,
        *settled.notices,
        *(each for each in (sheet.notices if sheet else ()) if each.code not in FROM_THE_STEPS),
        *_of_the_size(settled),
        *of_the_vessel(asked, settled),
        *of_its_scale(settled),
        *judged_by_history(case),
        *of_the_time(settled, clock.log, steps),
        *of_its_brine(asked, clock.log, steps),
        *never_reached(steps, cook, way),
        *_of_the_salt(settled, salt),
        *of_the_pot(settled, mix, steps, salt, asked.house.vessel),
        *of_an_open_flame(steps, clock),
        *of_the_heat(asked, cook),
        *of_the_learnt(asked, settled, way),
    ]
    notices = with_steps(
        found,
        spots,
        is_in=clock.log is not None and clock.log.put_in is not None,
    )
    out = DishOut(
        options=(),
        sheet=sheet,
        steps=steps,
        salt=salt,
        cook_h=_cook(way),
        inside_c=settled.judged.inside.value if settled.judged.inside else None,
        raw_h=_raw_time(case, steps, is_on_the_clock=bool(clock.planned) or clock.log is not None),
        notices=notices,
        verdict=verdict_of(notices),
        purpose=settled.purpose,
        days=settled.in_h / 24.0 if settled.way is not None else None,
        asked=settled.request if settled.way is not None else None,
        way=cook.cooking.heat.id,
        gate=gate,
        history=history.stays,
        checked=settled.written.check if settled.written is not None else None,
        mix=mix,
        window_h=window_of(asked, settled, steps),
    )
    return Worked(asked, settled, way, out, cook.cooking)


def _sheet(settled: Settled) -> WeighOut | CheckOut | None:
    """What is weighed out by an aim, or what the cook's recipe comes to."""
    if settled.way is None:
        return None
    if settled.written is not None:
        return check_of(settled.written.check, settled.judged)
    return sheet_of(settled.judged)


def _piece_of(asked: DishRequest) -> Prepared:
    if asked.piece is None:
        raise WrongDish((("piece", "a dish needs its piece"),))
    return at_the_speed(prepared(asked.piece), asked.house.learnt.salt_speed)


def _refuse_misfits(asked: DishRequest, piece: Prepared) -> None:
    method, kind = asked.cure.method, piece.meat.kind
    wrongs: list[tuple[str, str]] = []
    if method == "quick-pickle" and kind != "vegetable":
        wrongs.append(("cure.method", "a quick pickle is for vegetables; use any other"))
    if method in ("needle", "needle-brine") and kind == "vegetable":
        wrongs.append(("cure.method", "a needle is for meat; use a quick pickle"))
    if wrongs:
        raise WrongDish(tuple(wrongs))


def _refuse_no_taking_out(asked: DishRequest, way: Route) -> None:
    """Refuse a temperature to take it out at, where it leaves the heat by something else."""
    by_probe = any("inside_c" in (each.until or {}) for each in way.steps if each.kind == "cook")
    if asked.heat.take_out_c is not None and not by_probe:
        what = "it does not leave the heat by its temperature; leave this out"
        raise WrongDish((("heat.take_out_c", what),))


def _customs(asked: DishRequest, piece: Prepared) -> Customs:
    named = asked.customs.model_dump()
    if piece.meat.will_be == "raw" and named["fish"] == "cooked":
        named["fish"] = "raw-safe"
    return Customs(**named)


def _route(asked: DishRequest, settled: Settled, cooking: Cooking) -> Route:
    piece = settled.piece
    try:
        return route(
            piece.cut,
            settled.way,
            mass_g=piece.meat.mass_g,
            lying=settled.lying,
            judged=settled.judged,
            cooking=cooking,
            frozen=piece.asked.frozen,
            customs=_customs(asked, piece),
        )
    except NeverDone as error:
        where = "heat.inside_c" if asked.heat.medium_c is None else "heat.medium_c"
        raise WrongDish(((where, str(error)),)) from None


def _as_at_the_heat(settled: Settled, steps: Sequence[DishStep]) -> Settled:
    """The cure with the piece as its steps make it before the heat: jointed, rolled, stuffed."""
    first = next((i for i, each in enumerate(steps) if is_heat(each)), len(steps))
    by_route = {"stuffed"} if "stuffed" in settled.request.treatments else set()
    made = [each for each in steps[:first] if each.form and each.form not in by_route]
    if not made:
        return settled
    piece, treatments = settled.piece, list(settled.request.treatments)
    for each in made:
        if each.form == "stuffed":
            treatments.append("stuffed")
            continue
        given = {"form": each.form, "thickness_mm": each.thickness_mm}
        given |= {} if each.count is None else {"count": each.count}
        piece = prepared(piece.asked.model_copy(update=given))
        treatments.extend(treatment_of(piece))
    treated = tuple(dict.fromkeys(treatments))
    judged = replace(
        settled.judged,
        request=settled.judged.request.model_copy(update={"treatment": treated}),
        inside=inside_rule(piece.meat, treated),
    )
    return replace(settled, piece=piece, judged=judged)


def _steps(way: Route, settled: Settled, asked: DishRequest) -> list[DishStep]:
    return [_step(each, settled, asked) for each in way.steps]


def _step(step: RouteStep, settled: Settled, asked: DishRequest) -> DishStep:
    vessel = asked.house.vessel
    is_in_cure = settled.way is not None and step.kind == settled.way.id
    uses = 1.0
    if step.place == "fridge":
        uses = fridge_litres(settled.judged, step.kind, vessel, is_in_cure=is_in_cure)
    return DishStep(
        step.id, step.kind, step.title, step.begin, step.place, step.min_h, step.prefer_h,
        step.max_h, step.hands_min, step.attended, uses, step.every_h, step.tend, step.until,
        trip=step.trip, medium=step.medium, medium_c=step.medium_c,
        covered=step.covered, form=step.form,
        with_piece=step.with_piece,
    )  # fmt: skip


def _salt(settled: Settled, steps: Sequence[DishStep]) -> SaltOut | None:
    """The salt when it comes out of the cure as it is edited, and has rested."""
    request, mix = settled.request, settled.judged.mix
    if settled.way is None or mix.salt == 0:
        return None
    curing = next((each for each in steps if each.kind == settled.way.id), None)
    if curing is None or not LEAST_C <= request.temperature_c <= MOST_C:
        return None
    in_h = min(curing.min_h if curing.prefer_h is None else curing.prefer_h, MOST_HOURS)
    rest = next((each for each in steps if each.kind == "rest"), None)
    rest_h = min(rest.prefer_h or rest.min_h, MOST_HOURS) if rest else 0.0
    if in_h <= 0:
        return None
    end = _end(settled, in_h, rest_h)
    if request.is_mixed_in:
        return SaltOut(end.mean_pct, end.mean_pct, end.mean_pct)
    heart = None if settled.way.group in ("Marinade", "Side") else end.heart_pct
    return SaltOut(end.mean_pct, end.outer_pct, heart)


def _end(settled: Settled, in_h: float, rest_h: float) -> End:
    request = settled.request
    way = stages(request, settled.judged.mix, in_h, None)
    if rest_h > 0:
        way.append(Rest(kind="rest", hours=rest_h))
    usual = band_of(request.meat.kind, request.meat.salt_speed).usual.value
    return ended(
        SaltRequest.model_construct(
            meat=request.meat,
            temperature_c=request.temperature_c,
            diffusivity_m2_s=at_temperature(usual, request.temperature_c),
            start_pct=request.meat.own_salt_pct,
            stages=tuple(way),
        )
    )


def _of_the_size(settled: Settled) -> tuple[Notice, ...]:
    """What its thickness wants said; a quick pickle takes its hours however thick things are."""
    piece, way = settled.piece, settled.way
    is_side = way is not None and way.group == "Side"
    return () if is_side and piece.guess_mm is not None else size_notices(piece)


def _of_the_salt(settled: Settled, salt: SaltOut | None) -> tuple[Notice, ...]:
    if salt is None or settled.way is None or settled.way.group in ("Marinade", "Side"):
        return ()
    if settled.purpose != "season":
        return ()
    return tuple(seasoned_at(salt.mean_pct, salt.rim_pct, settled.request))


def _cook(way: Route) -> CookTime | None:
    """The time at the heat with its band [h]."""
    stages = [each for each in way.stages if each.stage.kind == "cook"]
    if not stages:
        return None
    return CookTime(
        sum(each.usual for each in stages),
        sum(each.low for each in stages),
        sum(each.high for each in stages),
    )


def _case(
    asked: DishRequest,
    settled: Settled,
    cook: Cook,
    history: History,
    steps: Sequence[DishStep],
) -> Case:
    """What the questions to the history are asked about."""
    meat = settled.piece.meat
    is_smoked_cold = any(each.medium == "smoker" for each in steps)
    is_fish_raw = (
        meat.kind == "fish"
        and not history.heated
        and (asked.customs.fish != "cooked" or is_smoked_cold)
    )
    ends = {end for each in steps if is_heat(each) for end in each.until or {}}
    return Case(
        history=history,
        judged=settled.judged,
        done=cook.done,
        is_sealed=asked.piece is not None and asked.piece.bought.vacuum,
        is_said_frozen=asked.customs.fish == "raw-safe",
        is_eaten_raw=meat.will_be == "raw" or is_fish_raw,
        has_mix=any(each.lies_in for each in history.stays),
        needs_figure="inside_c" in ends or not ends,
    )


def _raw_time(case: Case, steps: Sequence[DishStep], *, is_on_the_clock: bool) -> RawTime | None:
    """How long it stays raw: by the shortest way through the steps, and by the real hours."""
    if case.keeps is None:
        return None
    raw = list(raw_stays(case))
    shortest = {each.id: each.min_h for each in steps}
    least_h = sum(min(shortest.get(each.step or "", 0.0), each.hours) for each in raw)
    return RawTime(least_h, sum(each.hours for each in raw) if is_on_the_clock else None)
