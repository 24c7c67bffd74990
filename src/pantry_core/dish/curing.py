"""What is absent of a cure: by cut, method and purpose; what the cook says is kept."""

from dataclasses import dataclass, replace

from pantry_core.dish.edge import with_a_mild_edge
from pantry_core.dish.piece import Prepared, treatment_of
from pantry_core.dish.pot import covers_it_ml
from pantry_core.dish.request import CureAsked, DishRequest
from pantry_core.dish.season import season_window
from pantry_core.dish.targets import usual_target
from pantry_core.dish.waiting import said_of_the_wait, waits
from pantry_core.dish.written import Written, refuse_what_the_recipe_says, written_for
from pantry_core.measures.scales import Scale, scale_for
from pantry_core.meat import NEVER_CURED
from pantry_core.mixes.check import as_asked, judged_recipe
from pantry_core.mixes.instead import sized_packet
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.readiness import even_pct
from pantry_core.mixes.request import Cure, Purpose, WeighRequest
from pantry_core.mixes.seasoning import SALTY_EDGE_PCT
from pantry_core.mixes.sizing import with_usual_cure
from pantry_core.mixes.uptake import after_days
from pantry_core.mixes.weigh import judged_of
from pantry_core.notice import Level, Notice, notice
from pantry_core.quantities import Days, Percent
from pantry_core.routes.lying import REST_H, Lying, kept_days
from pantry_core.routes.schools import Schooling, schooling
from pantry_core.routes.ways import WAYS, Way
from pantry_core.rules.cures import CureName
from pantry_core.rules.rule import Mark, Rule, Source
from pantry_core.text import joined, say

USUAL_STRENGTH_PCT = Rule("strong-brine-usual", 10.0, "% salt", "of a timed brine", Mark.PRACTICE)
SEASON_STRENGTH_PCT = Rule("season-strength", 6.0, "% salt", "4 to 8 are offered", Mark.PRACTICE)
MOST_STRENGTH_PCT = Rule("most-strength", 20.0, "% salt", "beyond it is harsh", Mark.PRACTICE)
USUAL_INJECTION_SHARE = 0.10
SMALL_REST_H, LARGE_REST_H = (0.0, 0.5, 24.0), (0.0, 2.0, 24.0)
"""Drying after the brine, which what is seasoned only may do without [h] (common practice)."""
_NO_PLACE = Source("21 CFR 172.175 allows it for few kinds", Mark.MEMORY)
_BALANCE = Source("mass balance", Mark.DERIVED)
CURED_METHODS = ("even-brine", "strong-brine", "needle-brine", "needle", "dry-cure")


@dataclass(frozen=True, slots=True)
class Settled:
    """A cure with nothing left open: the request, what it comes to, how long it lies."""

    piece: Prepared
    way: Way | None
    purpose: Purpose
    request: WeighRequest
    judged: Judged
    lying: Lying
    schools: Schooling
    notices: tuple[Notice, ...] = ()
    written: Written | None = None

    @property
    def in_h(self) -> float:
        """How long it lies in the cure [h]."""
        return self.lying.usual_h if self.way is not None else 0.0


def settle(asked: DishRequest, piece: Prepared) -> Settled:
    """Settle the cure of a piece.

    Parameters: asked; its piece, prepared.
    Returns: the cure; days and strength of the cook are kept, and what they contradict gives.
    Raises: pydantic.ValidationError for values outside the ranges of `weigh`.
    Source: common practice, see `rules`; times by the model of the salt's way.
    """
    cure = asked.cure
    way = None if cure.method is None or cure.method == "none" else WAYS[cure.method]
    if asked.recipe is not None:
        refuse_what_the_recipe_says(asked)
        if way is not None:
            return _by_recipe(asked, written_for(asked, asked.recipe, piece, way), piece, way)
    name = _curing_salt(asked, piece, way)
    purpose = _purpose(cure, piece, way, name)
    request, told = _request(asked, piece, way, purpose)
    request, sized = _sized(request, cure, way, purpose)
    left_out: tuple[Notice, ...] = ()
    if name is not None and not may_have_curing_salt(piece, way):
        left_out, name = (_left_out(piece),), None
    if name is not None:
        request = _with_cure(request, asked, name)
    request = _with_scale(request, asked, name)
    lying, request = _lies(request, piece, way, cure, purpose)
    seasons = purpose == "season" and not piece.meat.is_kept_smoked
    if lying is not None and way is not None and seasons:
        lying, request = with_a_mild_edge(lying, request, way, cure)
    judged = judged_of(request)
    schools = schooling(
        piece.meat.mass_g, piece.meat.thickness_mm, judged.wait.days if judged.wait else None
    )
    waited: tuple[Notice, ...] = ()
    if lying is None:
        lying = waits(way, schools, cure, judged)
        waited = said_of_the_wait(way, judged, lying)
    said = (*told, *sized, *left_out, *waited)
    return Settled(piece, way, purpose, request, judged, lying, schools, said)


def _by_recipe(asked: DishRequest, written: Written, piece: Prepared, way: Way) -> Settled:
    """The cure as the cook's recipe has it: its amounts, and his hours or those that are usual."""
    name = next((cure.name for cure, _ in written.check.cures()), None)
    purpose = _purpose(asked.cure, piece, way, name)
    request = as_asked(written.check).model_copy(
        update={"temperature_c": asked.house.cold_c, "purpose": purpose}
    )
    request = _weighed_on(
        request, asked, sum(grams for _, grams in written.check.cures()) or request.meat.mass_g
    )
    lying, request = _lies(request, piece, way, asked.cure, purpose)
    if lying is not None and way.heaped and purpose == "season":
        lying, request = with_a_mild_edge(lying, request, way, asked.cure)
    judged = judged_recipe(written.check, request)
    schools = schooling(
        piece.meat.mass_g, piece.meat.thickness_mm, judged.wait.days if judged.wait else None
    )
    waited: tuple[Notice, ...] = ()
    if lying is None:
        lying = waits(way, schools, asked.cure, judged)
        waited = said_of_the_wait(way, judged, lying)
    check = written.check.model_copy(update={"days": judged.request.days, "purpose": purpose})
    written = replace(written, check=check)
    return Settled(
        piece, way, purpose, judged.request, judged, lying, schools, waited, written=written
    )


def _curing_salt(asked: DishRequest, piece: Prepared, way: Way | None) -> CureName | None:
    """The curing salt, by the cook's word or where it belongs."""
    if "curing_salt" in asked.cure.model_fields_set:
        return asked.cure.curing_salt
    return usual_curing_salt(asked, piece, way)


def usual_curing_salt(asked: DishRequest, piece: Prepared, way: Way | None) -> CureName | None:
    """The curing salt that belongs to a piece, where the cook says nothing of one.

    Parameters: asked, its packets and profile; its piece, prepared; way, None for none.
    Returns: the cook's packet, else that of the profile; None where none belongs.
    Raises: nothing.
    Source: common practice; what may be cured at all by 9 CFR 424.21(c) (from memory).
    """
    if not piece.is_meant_to_cure or way is None or way.id not in CURED_METHODS:
        return None
    kept = next((each.name for each in asked.house.packets if sized_packet(each)), None)
    if kept is not None:
        return kept
    return "cure-1" if asked.profile == "us" else "nitrite-salt"


def may_have_curing_salt(piece: Prepared, way: Way | None) -> bool:
    """Whether the sheet may have curing salt at all."""
    if way is None or way.heaped or way.group in ("Marinade", "Side"):
        return False
    return piece.meat.kind not in NEVER_CURED


def _left_out(piece: Prepared) -> Notice:
    """Curing salt where none may be: the sheet leaves it out, and nothing goes in with it."""
    where = {"fish": "for fish", "vegetable": "for vegetables"}.get(
        piece.meat.kind, "in a marinade or a heap that is washed off"
    )
    text = say(
        "No curing salt {where}: the sheet leaves it out. Take it out of the recipe as well.",
        where=where,
    )
    return notice("stop", "curing-salt-misplaced", text, _NO_PLACE)


def _purpose(cure: CureAsked, piece: Prepared, way: Way | None, name: CureName | None) -> Purpose:
    if way is None or way.group in ("Marinade", "Side"):
        return "season"
    if cure.purpose is not None:
        return cure.purpose
    if way.id == "dry-brine":
        return "season"
    return "through" if name or piece.is_for_the_heart else "season"


def _request(
    asked: DishRequest, piece: Prepared, way: Way | None, purpose: Purpose
) -> tuple[WeighRequest, tuple[Notice, ...]]:
    """The `weigh` document without its curing salt and its scale."""
    cure, meat = asked.cure, piece.meat
    target = cure.target_salt_pct
    strength = cure.brine_salt_pct
    if strength is None:
        strength = (SEASON_STRENGTH_PCT if purpose == "season" else USUAL_STRENGTH_PCT).value
    water_g = _water(asked, piece, way)
    if target is None:
        target = usual_target(piece, way, purpose, water_g, asked.house.learnt.salt_liking)
    share = cure.injection_share
    request = WeighRequest(
        profile=asked.profile,
        meat=meat,
        method="marinade" if way is None else way.method,
        cover=True if way is None else way.cover,
        heaped=False if way is None else way.heaped,
        target_salt_pct=0.0 if way is None else target,
        water_g=water_g,
        sugar_pct=cure.sugar_pct,
        brine_salt_pct=strength if way is not None and way.method == "strong-brine" else None,
        injection_share=USUAL_INJECTION_SHARE if share is None else share,
        sauces=tuple(each.plain for each in cure.sauces),
        temperature_c=asked.house.cold_c,
        treatment=treatment_of(piece),
        purpose=purpose,
    )
    if cure.target_salt_pct is None and way is not None and way.group == "Marinade":
        request, told = _with_its_sauces(request)
        if told:
            return request, told
    has_all = cure.lain_d is not None and cure.brine_salt_pct is not None
    if not has_all or cure.target_salt_pct is None or way is None or way.timing != "lift":
        return request, ()
    text = say(
        "Your days and your strength are kept, so it may not come to {target_salt_pct} "
        "salt; the sheet says what it comes to.",
        target_salt_pct=Percent(cure.target_salt_pct),
    )
    return request, (notice("note", "target-gives", text, _BALANCE),)


def _with_its_sauces(request: WeighRequest) -> tuple[WeighRequest, tuple[Notice, ...]]:
    """As salty as its sauces make it by the cook's recipe, where that is more than usual."""
    over_g = mixed(request).salt_too_much
    if over_g <= 0:
        return request, ()
    basis_g = request.meat.salted_g + (request.water_g or 0.0)
    target = request.target_salt_pct + 100.0 * over_g / basis_g
    most = SALTY_EDGE_PCT
    text = say(
        "The sauces alone bring {target} salt, and no more goes in.", target=Percent(target, 1)
    )
    level: Level = "note"
    if target > most.value:
        level = "caution"
        more = say(
            "Over {most} is too salty: take less of them, or thin them with water.",
            most=Percent(most.value),
        )
        text = joined(" ", (text, more))
    salted = request.model_copy(update={"target_salt_pct": target})
    return salted, (notice(level, "sauces-salt", text, most),)


def _water(asked: DishRequest, piece: Prepared, way: Way | None) -> float | None:
    """Water by the cook's word; else what covers it in the vessel, or as much as meat [g]."""
    if way is None or not way.has_water:
        return None
    if asked.cure.water_g is not None or not way.needs_water:
        return asked.cure.water_g
    return covers_it_ml(piece, asked.house.vessel)


def _sized(
    request: WeighRequest, cure: CureAsked, way: Way | None, purpose: Purpose
) -> tuple[WeighRequest, tuple[Notice, ...]]:
    """A timed brine that is to salt through in the cook's days, made as strong as that takes."""
    if way is None or way.method != "strong-brine" or purpose == "season":
        return request, ()
    if cure.lain_d is None or cure.brine_salt_pct is not None:
        return request, ()
    timed = request.model_copy(update={"days": cure.lain_d})
    mix = mixed(timed)
    end = after_days(timed, mix)
    if end is None:
        return request, ()
    part = end.mean_pct / even_pct(timed, mix)
    meat = request.meat
    held_g = request.target_salt_pct / 100.0 / (meat.water_g_g * part)
    salt_g = held_g * (mix.liquid_water + meat.water_g_g * meat.salted_g)
    strength = 100.0 * salt_g * (1.0 - request.sugar_pct / 100.0) / (salt_g + mix.liquid_water)
    most = MOST_STRENGTH_PCT.value
    sized = request.model_copy(update={"brine_salt_pct": min(strength, most)})
    if strength <= most:
        return sized, ()
    text = say(
        "In {days} the average comes to {target_salt_pct} only in a brine of "
        "{strength}; {most} is the most. Take more days, a thinner piece or "
        "less salt.",
        days=Days(cure.lain_d),
        target_salt_pct=Percent(request.target_salt_pct),
        strength=Percent(strength, 0),
        most=Percent(most),
    )
    return sized, (notice("caution", "strength-most", text, MOST_STRENGTH_PCT),)


def _with_cure(request: WeighRequest, asked: DishRequest, name: CureName) -> WeighRequest:
    """With a curing salt by its label, asked for what the cook says or what is usual."""
    cure = asked.cure
    packet = next((each for each in asked.house.packets if each.name == name), None)
    own_label = name in ("nitrite-salt", "celery")
    nitrite = cure.nitrite_pct
    nitrate = cure.nitrate_pct
    if packet is not None and nitrite is None:
        nitrite, nitrate = packet.nitrite_pct, packet.nitrate_pct
    made = Cure(
        name=name,
        nitrite_pct=nitrite if own_label else None,
        nitrate_pct=nitrate if own_label else None,
        salt_pct=cure.salt_pct if name == "celery" else None,
        **({} if cure.ingoing_ppm is None else {"ingoing_ppm": cure.ingoing_ppm}),
    )
    if cure.ingoing_ppm is None:
        return with_usual_cure(request, made)
    return request.model_copy(update={"cure": made})


def _with_scale(request: WeighRequest, asked: DishRequest, name: CureName | None) -> WeighRequest:
    """With the scale that would weigh the curing salt, or the least line."""
    if not asked.house.scales:
        return request
    masses = mixed(request)
    request = _weighed_on(request, asked, masses.curing_salt or masses.plain_salt)
    if name is None or asked.cure.ingoing_ppm is not None or request.cure is None:
        return request
    return with_usual_cure(request, request.cure)


def _weighed_on(request: WeighRequest, asked: DishRequest, grams: float) -> WeighRequest:
    """With the division of the finest scale that holds so much [g]; unchanged without a scale."""
    scales = [Scale(each.name, each.division_g, each.capacity_g) for each in asked.house.scales]
    if not scales:
        return request
    scale = scale_for(scales, grams) or max(scales, key=lambda each: each.capacity_g)
    return request.model_copy(update={"scale_division_g": scale.division_g})


def _lies(
    request: WeighRequest, piece: Prepared, way: Way | None, cure: CureAsked, purpose: Purpose
) -> tuple[Lying | None, WeighRequest]:
    """How long it lies by the cook's word or, for what seasons, by the rule; else None."""
    if way is None:
        return Lying(0.0, 0.0, 0.0, (0.0, 0.0, 0.0)), request
    rest_h = SMALL_REST_H if piece.is_small else LARGE_REST_H
    if purpose == "through":
        kept = kept_for(cure, REST_H)
        if kept is None:
            return None, request
        if way.timing != "lift":
            kept = replace(kept, longest_h=None)
        return kept, _for(request, kept.usual_h)
    kept = kept_for(cure, rest_h)
    if kept is not None:
        return kept, _for(request, kept.usual_h)
    least, usual, most = season_window(request, piece, way)
    return Lying(least, usual, most, rest_h), _for(request, usual)


def _for(request: WeighRequest, hours: float) -> WeighRequest:
    return request.model_copy(update={"days": hours / 24.0})


def kept_for(cure: CureAsked, rest_h: tuple[float, float, float] = (0.0, 0.0, 0.0)) -> Lying | None:
    """How long a piece lies by the cook's days or words.

    Parameters: cure; rest_h, how long it rests afterwards: shortest, usual, longest [h].
    Returns: the window and the rest [h]; None where the cook says neither.
    Raises: nothing. Source: common practice.
    """
    if cure.lain is not None:
        return Lying(cure.lain.least, cure.lain.usual, cure.lain.most, rest_h)
    return None if cure.days is None else kept_days(24.0 * cure.days, rest_h)
