"""How a dish is cooked, and what must be said of it."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from pantry_core.dish.body import body_of, thickness_doubt
from pantry_core.dish.clock import WrongDish
from pantry_core.dish.curing import Settled
from pantry_core.dish.piece import Prepared
from pantry_core.dish.request import DishRequest
from pantry_core.heat.choice import Doneness, doneness
from pantry_core.heat.fat import fat_too_hot
from pantry_core.heat.media import MEDIA
from pantry_core.mixes.heat_cautions import water_phase_pct
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Between, Celsius, Percent
from pantry_core.routes.customs import Customs
from pantry_core.routes.heating import Cooking
from pantry_core.routes.heats import HEATS, Heat
from pantry_core.routes.steps import Route
from pantry_core.routes.suits import ways_that_suit
from pantry_core.rules.heat import (
    COLD_SMOKE_MOST_C,
    FRYING_MOST_C,
    PRESSURE_FILL,
    SLOW_FAT_MOST_C,
)
from pantry_core.rules.inside import FISH, SMOKED_FISH_MIN
from pantry_core.rules.rule import Mark, Source
from pantry_core.rules.smoke import AIR_SALT_PCT, VACUUM_SALT_PCT
from pantry_core.text import either, say

_SUITS: Final = Source("the cut and the way of cooking", Mark.PRACTICE)
_PRACTICE: Final = Source("", Mark.PRACTICE)
_NAMED: Final = 3
"""So many of the ways that would suit are named."""


@dataclass(frozen=True, slots=True)
class Cook:
    """How it is cooked, and how hot inside by rule or choice."""

    cooking: Cooking
    done: Doneness


def heat_of(asked: DishRequest, piece: Prepared, *, is_cured: bool) -> Heat:
    """The way of cooking: the cook's own, else what suits cut and form best."""
    if asked.heat.way is not None:
        return HEATS[asked.heat.way]
    if piece.meat.will_be == "smoked":
        return HEATS["smoke"]
    return HEATS[ways_that_suit(piece.cut, piece.form, is_cured=is_cured)[0]]


def cooking_of(asked: DishRequest, settled: Settled, customs: Customs) -> Cook:
    """How a dish is cooked.

    Parameters: asked; settled, its cure; customs.
    Returns: the way with what it is applied to, and the doneness.
    Raises: WrongDish for an oven, pot or fire at a temperature that it has not.
    """
    piece, judged = settled.piece, settled.judged
    is_cured = judged.nitrite.verdict == "ok"
    heat = heat_of(asked, piece, is_cured=is_cured)
    _refuse_medium(heat, asked.heat.medium_c)
    done = doneness(
        piece.meat,
        judged.request.treatments,
        judged.inside,
        asked.heat.inside_c,
        may_be_pink=piece.cut.may_be_pink,
    )
    hold_min = done.hold_min
    if piece.meat.is_kept_smoked:
        hold_min = SMOKED_FISH_MIN.value
    cooking = Cooking(
        cut=piece.cut,
        form=piece.form,
        heat=heat,
        body=body_of(piece),
        piece_g=piece.piece_g,
        count=piece.meat.count,
        doubt=thickness_doubt(piece),
        goal_c=done.rule.value if done.rule else None,
        hold_min=hold_min,
        medium_c=asked.heat.medium_c,
        is_cured=is_cured,
        is_tempered=customs.tempering == "hour",
        vegetables=asked.heat.vegetables,
        is_pressed=customs.pressing == "overnight" and heat.is_tender and piece.cut.is_tender,
        people=asked.people,
        pace=tuple(asked.house.learnt.hours.items()),
    )
    return Cook(cooking, done)


def _refuse_medium(heat: Heat, medium_c: float | None) -> None:
    if medium_c is None:
        return
    main = heat.main
    if main is None or main.medium is None:
        raise WrongDish((("heat.medium_c", "nothing is heated; leave this out"),))
    medium = MEDIA[main.medium]
    if not medium.least_c <= medium_c <= medium.most_c:
        what = say(
            "{words} is not at {medium_c}; use {between}",
            words=medium.words,
            medium_c=Celsius(medium_c),
            between=Between(Celsius(medium.least_c), Celsius(medium.most_c)),
        )
        raise WrongDish((("heat.medium_c", what),))


def of_the_heat(asked: DishRequest, settled: Settled, cook: Cook, way: Route) -> Iterator[Notice]:
    """What must be said of the way of cooking."""
    yield from cook.done.notices
    cooking, piece = cook.cooking, settled.piece
    if asked.heat.way is not None:
        yield from _misfit(cooking)
    yield from _not_cooked(settled, cook, way, asked)
    yield from _limits(cooking)
    if cooking.heat.id == "cold-smoke":
        yield from _cold_smoke(asked, settled)
    is_low = cook.done.rule is not None and cook.done.rule.value < FISH.value
    if piece.meat.kind == "fish" and is_low and asked.customs.fish == "cooked":
        text = say(
            "Below {fish} fish counts as raw for parasites: frozen at {−20 °C} for 7 days "
            "first, or a farmed kind that is exempt.",
            fish=Celsius(FISH.value),
        )
        yield notice("stop", "parasites", text, FISH)


def _misfit(cooking: Cooking) -> Iterator[Notice]:
    suits = ways_that_suit(cooking.cut, cooking.form, is_cured=cooking.is_cured)
    if cooking.heat.id in suits:
        return
    names = [say("{way:lower}", way=HEATS[each].name) for each in suits[:_NAMED]]
    text = say(
        "{heat}: {cut:lower}{in_form} suits it badly, and turns dry or stays tough. "
        "Better {names}.",
        heat=cooking.heat.name,
        cut=cooking.cut.name,
        in_form=_in_form(cooking.form),
        names=either(names),
    )
    yield notice("caution", "heat-misfit", text, _SUITS)


def _in_form(form: str) -> str:
    cut_small = {"cubes": " in cubes", "strips": " in strips", "slices": " in slices"}
    return cut_small.get(form, " ground" if form == "ground" else "")


def _not_cooked(settled: Settled, cook: Cook, way: Route, asked: DishRequest) -> Iterator[Notice]:
    """What must be cooked and is not."""
    if way.stages or cook.done.rule is None:
        return
    is_fish = settled.piece.meat.kind == "fish"
    if is_fish and asked.customs.fish != "cooked":
        return
    text = say(
        "It is not cooked: {rule} in the thickest part is what it needs.",
        rule=Celsius(cook.done.rule.value),
    )
    if is_fish:
        yield notice("stop", "fish-not-cooked", text, cook.done.rule)
    else:
        yield notice("stop", "not-cooked", text, cook.done.rule)


def _limits(cooking: Cooking) -> Iterator[Notice]:
    """What fat, pressure and fire ask for."""
    fat = next((each for each in cooking.stages if each.medium == "fat"), None)
    if fat is not None:
        yield from fat_too_hot(fat.medium_c)
        text = (
            "Hot fat: a third to half of the pot, nothing dripping, no ice, a lid at hand, never "
            "left. Burning fat is covered, never put out with water."
        )
        yield notice("caution", "hot-fat", text, FRYING_MOST_C)
    main = cooking.heat.main
    if cooking.heat.id == "in-fat" and main is not None:
        hot_c = cooking.medium_c or main.medium_c
        if hot_c > SLOW_FAT_MOST_C.value:
            text = say(
                "Fat for slow cooking is never above {slow_fat_most_c}.",
                slow_fat_most_c=Celsius(SLOW_FAT_MOST_C.value),
            )
            yield notice("caution", "fat-not-slow", text, SLOW_FAT_MOST_C)
        text = "Fat with garlic or herbs in it is not kept."
        yield notice("note", "fat-with-herbs", text, SLOW_FAT_MOST_C)
    if cooking.heat.id == "pressure":
        text = "A pressure pot is never over two thirds full, and is let down by itself."
        yield notice("note", "pressure-fill", text, PRESSURE_FILL)


def _cold_smoke(asked: DishRequest, settled: Settled) -> Iterator[Notice]:
    """Cold smoke is for salted fish frozen against parasites, or for cured meat cooked later."""
    smoke_c = asked.heat.medium_c or 0.0
    if smoke_c > COLD_SMOKE_MOST_C.value:
        hot = say(
            "Smoke at {smoke_c} is not cold: {cold_smoke_most_c} is the most.",
            smoke_c=Celsius(smoke_c),
            cold_smoke_most_c=Celsius(COLD_SMOKE_MOST_C.value),
        )
        yield notice("stop", "cold-smoke", hot, COLD_SMOKE_MOST_C)
    judged, meat = settled.judged, settled.piece.meat
    if meat.kind == "fish":
        if asked.customs.fish == "cooked":
            text = "Cold smoke cooks nothing: say how the fish was frozen against parasites."
            yield notice("stop", "parasites", text, _PRACTICE)
        least = VACUUM_SALT_PCT if meat.storage == "vacuum" else AIR_SALT_PCT
        comes_to = water_phase_pct(judged)
        if round(comes_to, 2) < least.value and not meat.is_kept_smoked:
            text = say(
                "The water in it comes to {comes_to} salt; cold-smoked fish needs {least}.",
                comes_to=Percent(comes_to, 1),
                least=Percent(least.value),
            )
            yield notice("stop", "water-phase-low", text, least)
        return
    if judged.nitrite.verdict != "ok":
        text = (
            "Cold smoke is for meat with nitrite through to its centre that is cooked later: take "
            "curing salt, or smoke it hot."
        )
        yield notice("stop", "cold-smoke", text, COLD_SMOKE_MOST_C)
