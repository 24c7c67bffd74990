"""All that goes into a dish, line by line, each at its step: by the recipe, or by an aim."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from pantry_core.dish.answer import DishStep, LainWindow, MixLine
from pantry_core.dish.curing import Settled, kept_for
from pantry_core.dish.pot import with_its_pot
from pantry_core.dish.recipe_asked import Goes, Strength
from pantry_core.dish.request import DishRequest, JobAsked
from pantry_core.dish.stays.places import is_heat
from pantry_core.dish.written import WrittenLine, lines_for
from pantry_core.foods.ingredient import is_ingredient
from pantry_core.foods.table import food, is_food
from pantry_core.mixes.check import CheckOut
from pantry_core.mixes.recipe import ingredient_named
from pantry_core.mixes.request import Cure
from pantry_core.mixes.result import WeighOut
from pantry_core.quantities import Grams, Number
from pantry_core.routes.steps import RAW_KINDS
from pantry_core.rules.ingredients import LOOSE, SODIUM
from pantry_core.text import Sentence, joined, say

CURING_BASIS = say("all that is neither nitrite nor nitrate")
IN_THE_POT = ("water", "steam", "pressure")


def mix_of(
    asked: DishRequest,
    settled: Settled,
    steps: Sequence[DishStep],
    sheet: WeighOut | CheckOut | None,
) -> tuple[MixLine, ...]:
    """What goes in, in the order of the recipe or of the sheet.

    Parameters: asked; settled, its cure; steps as they are edited; sheet, None without a cure or
    with a recipe.
    Returns: a line for each thing, two where a part of it is held back for the pot.
    Raises: nothing.
    """
    at = _steps_of(settled, steps)
    if asked.recipe is not None and asked.piece is not None:
        written = lines_for(asked.recipe, asked.piece.mass_g, asked.people)
        lines = [with_its_pot(each, settled.piece, asked.house.vessel) for each in written]
        parts = [part for each in lines for part in _parts(each, at)]
        return (*parts, *_to_the_pot(asked.recipe.liquid_to_pot, settled, at))
    by_aim = [] if sheet is None else [
        MixLine(None, "", line.name, line.grams, None, "g", None,
                *_salt_of(line.name, None), "cure", at["cure"])
        for line in sheet.lines
    ]  # fmt: skip
    return (*by_aim, *_spices(asked, at))


def mix_of_job(asked: DishRequest, job: JobAsked, steps: Sequence[DishStep]) -> tuple[MixLine, ...]:
    """What goes into a side job by its recipe, all of it at its first step.

    Parameters: asked; job, its side job; steps as they are edited.
    Returns: a line for each thing; nothing without a recipe.
    Raises: nothing.
    """
    if job.recipe is None:
        return ()
    first = steps[0].id if steps else None
    at: dict[Goes, str | None] = dict.fromkeys(_PARTS, first)
    at["cure"] = first
    lines = lines_for(job.recipe, job.made_g, asked.people)
    return tuple(part for each in lines for part in _parts(each, at))


def with_its_lines(
    asked: DishRequest, settled: Settled, steps: Sequence[DishStep]
) -> list[DishStep]:
    """The steps, each saying what of the recipe goes in at it beside the cure.

    Parameters: asked; settled, its cure; steps as they are edited.
    Returns: the same steps; the words of one that takes a part of the recipe name its things.
    Raises: nothing.
    """
    if asked.recipe is None:
        return list(steps)
    by_step: dict[tuple[str, Goes], list[Sentence]] = {}
    for each in mix_of(asked, settled, steps, None):
        if each.step is not None and each.goes != "cure":
            by_step.setdefault((each.step, each.goes), []).append(_thing_said(each))
    saying = []
    for step in steps:
        words = step.text
        for goes, pattern in _PARTS.items():
            things = by_step.get((step.id, goes))
            if things:
                said = say(pattern, things=joined(", ", tuple(things)))
                between = " " if str(words).endswith(".") else ". "
                words = joined(between, (words, said)) if words else said
        saying.append(replace(step, text=words))
    return saying


_PARTS: dict[Goes, str] = {
    "pot": "Into the pot: {things}",
    "coat": "For the coat: {things}",
    "stuffing": "For the stuffing: {things}",
    "sauce": "For the sauce: {things}",
    "table": "At the table: {things}",
}


def _thing_said(line: MixLine) -> Sentence:
    """A line as it is said at its step; by the cook's words where they say more than its name."""
    name = ingredient_named(line.name).name
    if line.name in LOOSE and line.text:
        return line.text
    if line.count is not None:
        digits = 0 if line.count.is_integer() else 1
        return say("{count} × {name:lower}", count=Number(line.count, digits), name=name)
    if line.grams is not None:
        return say("{grams} of {name:lower}", grams=Grams(line.grams, 0), name=name)
    return line.text or name


def _parts(line: WrittenLine, at: dict[Goes, str | None]) -> Iterator[MixLine]:
    """A line where it goes, and what of it is held back for the pot."""
    asked = line.asked
    held_back = 1.0 - line.cures_share if asked.goes == "cure" else 0.0
    parts: tuple[tuple[Goes, float], ...] = ((asked.goes, 1.0 - held_back), ("pot", held_back))
    for goes, share in parts:
        if share > 0.0:
            yield MixLine(
                line.at, asked.text, asked.name,
                None if line.grams is None else share * line.grams,
                None if line.count is None else share * line.count,
                "g" if line.grams is not None else asked.unit, line.as_written_g,
                *_salt_of(asked.name, asked.salt_pct, asked.strength), goes, at[goes],
            )  # fmt: skip


def _to_the_pot(share: float, settled: Settled, at: dict[Goes, str | None]) -> Iterator[MixLine]:
    """The used liquid that goes into the pot."""
    pickle = settled.judged.pickle
    if share > 0.0 and pickle is not None and settled.way is not None:
        grams = share * pickle.mass_g
        basis = say("as it was made")
        yield MixLine(
            None, "", "brine", grams, None, "g", None, pickle.salt_pct, basis, "pot", at["pot"]
        )


def _spices(asked: DishRequest, at: dict[Goes, str | None]) -> Iterator[MixLine]:
    for each in asked.cure.spices:
        parts: tuple[tuple[Goes, float], ...] = (
            ("cure", 1.0 - each.held_back), ("pot", each.held_back)
        )  # fmt: skip
        for goes, share in parts:
            if share > 0.0:
                grams = share * each.amount if each.unit == "g" else None
                count = None if grams is not None else share * each.amount
                yield MixLine(
                    None, each.text, each.text, grams, count, each.unit, None, None, "", goes,
                    at[goes],
                )  # fmt: skip


def _salt_of(
    name: str, salt_pct: float | None, strength: Strength | None = None
) -> tuple[float | None, Sentence]:
    """How salty a thing is [%], and who says so."""
    if salt_pct is not None:
        return salt_pct, say("by its label")
    cure = ingredient_named(name).cure
    if cure is not None:
        label = {} if strength is None else strength.model_dump(exclude_none=True)
        return 100.0 * Cure.model_construct(name=cure, **label).salt_share, CURING_BASIS
    if name in SODIUM:
        return 100.0 * ingredient_named(name).salt, SODIUM[name].basis
    if is_food(name):
        return 100.0 * ingredient_named(name).salt, food(name).source.basis
    if is_ingredient(name):
        return 100.0 * ingredient_named(name).salt, ""
    return {"salt": 100.0}.get(name), ""


def _steps_of(settled: Settled, steps: Sequence[DishStep]) -> dict[Goes, str | None]:
    """The step at which each part of a recipe is wanted."""

    def first(*kinds: str) -> str | None:
        return next((each.id for each in steps if each.kind in kinds), None)

    heats = [each for each in steps if is_heat(each)]
    in_pot = [each.id for each in heats if each.medium in IN_THE_POT]
    heat = heats[0].id if heats else None
    last = steps[-1].id if steps else None
    curing = None if settled.way is None else first("make-brine") or first(settled.way.id)
    after = [each.id for each in steps[steps.index(heats[-1]) + 1 :]] if heats else []
    return {
        "cure": curing or first("trim") or heat or last,
        "pot": in_pot[0] if in_pot else heat or last,
        "coat": first("coat") or (heats[-1].id if heats else last),
        "stuffing": first("stuff") or heat or last,
        "sauce": after[0] if after else last,
        "table": last,
    }


def window_of(asked: DishRequest, settled: Settled, steps: Sequence[DishStep]) -> LainWindow | None:
    """The time in the cure as it is edited, at most until the raw clock would speak.

    Parameters: asked; settled; steps as they are edited.
    Returns: shortest, usual and longest [h]; None without a cure.
    Raises: nothing.
    """
    curing = None
    if settled.way is not None:
        curing = next((each for each in steps if each.kind == settled.way.id), None)
    if curing is None:
        return None
    usual = curing.min_h if curing.prefer_h is None else curing.prefer_h
    most = usual if curing.max_h is None else curing.max_h
    is_edited = any(each.step == curing.id and each.max_h is not None for each in asked.edits)
    said = kept_for(asked.cure)
    if said is not None and said.longest_h is not None and not is_edited:
        usual, most = said.usual_h, said.longest_h
    limits = settled.judged.raw
    if limits is not None:
        around_h = sum(
            each.min_h for each in steps
            if each.kind in RAW_KINDS and each is not curing and each.with_piece
        )  # fmt: skip
        most = min(most, max(24.0 * limits.caution.value - around_h, usual))
    return LainWindow(min(curing.min_h, usual), usual, max(most, usual))
