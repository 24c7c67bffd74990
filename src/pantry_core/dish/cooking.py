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
from pantry_core.heat.media import MEDIA, medium_range
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius
from pantry_core.routes.customs import Customs
from pantry_core.routes.heating import Cooking
from pantry_core.routes.heats import HEATS, Heat
from pantry_core.routes.suits import ways_that_suit
from pantry_core.rules.heat import (
    FRYING_MOST_C,
    PRESSURE_FILL,
    SLOW_FAT_MOST_C,
)
from pantry_core.rules.inside import SMOKED_FISH_MIN
from pantry_core.rules.rule import Mark, Source
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
        take_out_c=_taken_out_early(asked.heat.take_out_c, done),
        hold_min=hold_min,
        medium_c=asked.heat.medium_c,
        edited=tuple(
            (each.step, each.medium, each.medium_c)
            for each in asked.edits
            if not each.own and (each.medium is not None or each.medium_c is not None)
        ),
        is_cured=is_cured,
        is_tempered=customs.tempering == "hour",
        vegetables=asked.heat.vegetables,
        is_pressed=customs.pressing == "overnight" and heat.is_tender and piece.cut.is_tender,
        people=asked.people,
        pace=tuple(asked.house.learnt.hours.items()),
    )
    return Cook(cooking, done)


def _taken_out_early(take_out_c: float | None, done: Doneness) -> float | None:
    """When it leaves the heat, where that is before it is done [°C].

    Raises: WrongDish for more than what it has to reach.
    """
    if take_out_c is None or done.rule is None:
        return None
    if take_out_c > done.rule.value:
        what = say(
            "it has to reach {goal_c}; take it out at that or at less",
            goal_c=Celsius(done.rule.value),
        )
        raise WrongDish((("heat.take_out_c", what),))
    return take_out_c if take_out_c < done.rule.value else None


def _refuse_medium(heat: Heat, medium_c: float | None) -> None:
    if medium_c is None:
        return
    main = heat.main
    if main is None or main.medium is None:
        raise WrongDish((("heat.medium_c", "nothing is heated; leave this out"),))
    medium = MEDIA[main.medium]
    if not medium.least_c <= medium_c <= medium.most_c:
        raise WrongDish((("heat.medium_c", medium_range(medium, medium_c)),))


def of_the_heat(asked: DishRequest, cook: Cook) -> Iterator[Notice]:
    """What must be said of the way of cooking."""
    yield from cook.done.notices
    if asked.heat.way is not None:
        yield from _misfit(cook.cooking)
    yield from _limits(cook.cooking)


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
