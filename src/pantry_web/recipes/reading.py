"""From the text of a recipe to a dish that has it, as it is written."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from zlib import crc32

from pydantic import ValidationError

from pantry_core.dish.answer import DishOut
from pantry_core.dish.clock import WrongDish
from pantry_core.dish.recipe_asked import Goes
from pantry_core.dish.request import DishRequest
from pantry_core.dish.work import dish as worked_dish
from pantry_core.dish.work import worked
from pantry_core.errors import OutOfRange
from pantry_core.foods.ingredient import ingredient
from pantry_core.foods.table import food, is_food
from pantry_core.formats.reading import problem_of
from pantry_core.measures.quantity import NotAQuantity, parse_number
from pantry_core.mixes.check import CheckOut
from pantry_core.mixes.recipe import LONGEST_NAME
from pantry_core.recipes.found import read_lines
from pantry_core.recipes.headings import part_of
from pantry_core.recipes.instructions import liquid_to_pot_said
from pantry_core.recipes.line import ReadLine
from pantry_core.recipes.weights import line_grams
from pantry_core.recipes.words import Cups
from pantry_core.routes.ways import Way
from pantry_web.feasts.documents import Document, House, dish_document
from pantry_web.feasts.models import Dish
from pantry_web.planning.recipes.mix import RecipeMix, mix_of_a_job, shown_mix
from pantry_web.recipes.remembered import Remembered
from pantry_web.sentences import tell

LEFT_OUT = "none"
"""What is chosen for a line that is to be left out."""
LABELS = {"other-sauce": "salt_pct", "salted-mix": "salt_pct", "nitrite-salt": "nitrite_pct",
          "celery-powder": "nitrite_pct"}  # fmt: skip
"""What of a thing only its label tells; of celery powder it may stay unknown."""
LABEL_WORDS = {"salt_pct": "salt", "nitrite_pct": "nitrite"}
MOST_PCT = 100.0


@dataclass(frozen=True, slots=True)
class AskedLine:
    """A line as it is shown: what it was taken for, what it may be, what is wrong with it.

    `pct` is what the cook typed of its label, `asks_pct` what its label must say.
    """

    field: str
    text: str
    key: str | None
    grams: float | None
    choices: tuple[tuple[str, str], ...]
    question: str
    problem: str
    is_heading: bool
    is_left_out: bool
    words: str = ""
    pct: str = ""
    asks_pct: str = ""
    goes: str = "cure"

    @property
    def goes_field(self) -> str:
        """The field that says to which part of the recipe it goes."""
        return f"{self.field}-goes"

    @property
    def name_kept(self) -> str:
        """Its key, or the words of what no table knows; "" for nothing."""
        return self.key or self.words[:LONGEST_NAME]

    @property
    def name(self) -> str:
        """What it was taken for, as a cook says it."""
        return ingredient(self.key).name if self.key else ""

    @property
    def basis(self) -> str:
        """Where the figures of a food of the table are from; "" for what is no such food."""
        return food(self.key).source.basis if self.key and is_food(self.key) else ""


@dataclass(frozen=True, slots=True)
class ReadRecipe:
    """A recipe read for a piece: its lines, the dish with it, and what that comes to.

    `document` is what is decided of the dish with the recipe, None while a line is open; `came` the
    answer of the dish with it, `mix` all its lines and what could be changed; `wrong` says why it
    cannot be worked out.
    """

    lines: tuple[AskedLine, ...]
    document: Document | None = None
    came: DishOut | None = None
    mix: RecipeMix | None = None
    wrong: tuple[str, ...] = ()

    @property
    def out(self) -> CheckOut | None:
        """What goes into the cure, as the recipe has it."""
        sheet = None if self.came is None else self.came.sheet
        return sheet if isinstance(sheet, CheckOut) else None

    @property
    def is_open(self) -> bool:
        """Whether a line still waits for an answer."""
        return any(
            not line.is_left_out and (line.problem or (line.choices and line.key is None))
            for line in self.lines
        )


@dataclass(frozen=True, slots=True)
class Asked:
    """What the form says of a recipe: the method, the time, and how much of it is used.

    A side job has no method.

    `days` that it lies [d], or `lies` in words; `for_g`, the piece that it was written for [g], and
    `for_people`; shares [-]; `liquid_to_pot` None: as its words say.
    """

    text: str
    cups: Cups
    way: Way | None
    days: float | None = None
    lies: str | None = None
    for_g: float | None = None
    used_share: float = 1.0
    injection_share: float | None = None
    held_back: float = 0.0
    for_people: int | None = None
    liquid_to_pot: float | None = None


def recipe_of(dish: Dish) -> Document:
    """The recipe that a dish or a side job has; empty without one."""
    within = dish.document["job"] if dish.is_job else dish.document
    return within.get("recipe") or {}


def read_recipe(asked: Asked, dish: Dish, house: House, answers: Mapping[str, str]) -> ReadRecipe:
    """Read a recipe and work the dish out with it, as it is written.

    Parameters: asked; dish; house; answers to what was asked, by field.
    Raises: NotARecipe for a text that is too long.
    """
    stored = {each["text"]: each for each in recipe_of(dish).get("lines", ())}
    shown: list[AskedLine] = []
    lines: list[Document] = []
    part: Goes = "cure"
    days = asked.days
    remembered = Remembered(dish)
    as_written = read_lines(asked.text, asked.cups)
    for each in _of_a_job(as_written) if dish.is_job else as_written:
        was = stored.get(each.text, {})
        goes = answers.get(f"{field_of(each)}-goes") or was.get("goes") or part
        line = each if goes == "cure" else _unweighed(each)
        seen = replace(_asked(line, house, answers, remembered), goes=goes)
        days = line.days if days is None else days
        is_title = not shown and not line.text.rstrip().endswith(":")
        if line.is_heading:
            part = part if is_title else part_of(line.text) or part
        elif not (seen.is_left_out or seen.problem) and seen.name_kept:
            lines.append(_recipe_line(line, seen, house, asked.held_back, was))
        shown.append(seen)
    read = ReadRecipe(tuple(shown))
    if not lines or read.is_open:
        return read
    recipe: Document = {"text": asked.text, "cups": asked.cups, "lines": _with_its_water(lines)}
    said = liquid_to_pot_said(asked.text)
    if asked.liquid_to_pot is None:
        asked = replace(asked, liquid_to_pot=said)
    of_the_pot = None if said else 0.0  # what the words say is kept with what was typed instead
    usual = {"used_share": 1.0, "for_g": None, "for_people": None, "liquid_to_pot": of_the_pot}
    given = {name: getattr(asked, name) for name in usual}
    recipe |= {name: value for name, value in given.items() if value != usual[name]}
    document = _with_recipe(asked, dish, recipe, days)
    return _worked_out(replace(read, document=document), dish, house)


def _with_recipe(asked: Asked, dish: Dish, recipe: Document, days: float | None) -> Document:
    """What is decided of the dish, with a recipe in place of an aim or of ingredients."""
    rest = {name: part for name, part in dish.document.items() if name not in ("edits", "recipe")}
    if asked.way is None:
        job = {name: part for name, part in dish.document["job"].items() if name != "ingredients"}
        return {**rest, "job": {**job, "recipe": recipe}}
    return {**rest, "cure": _cure(asked.way, asked, dish, days), "recipe": recipe}


def _with_its_water(lines: list[Document]) -> list[Document]:
    """The lines with the water that "to a gallon of water" says, where no line of its own does."""
    has_water = any(each["name"] in ("water", "ice") for each in lines)
    said = next((each for each in lines if "per_water_g" in each), None)
    if has_water or said is None:
        return lines
    water = {"text": said["text"], "name": "water", "amount": said["per_water_g"], "unit": "g"}
    return [*lines, water]


def _cure(way: Way, asked: Asked, dish: Dish, days: float | None) -> Document:
    given = {
        "days": None if asked.lies else days,
        "lies": asked.lies,
        "purpose": dish.cure.get("purpose"),
        "injection_share": asked.injection_share if way.method == "injection" else None,
    }
    kept = {name: value for name, value in given.items() if value is not None}
    return {"method": way.id, **kept}


def _worked_out(read: ReadRecipe, dish: Dish, house: House) -> ReadRecipe:
    document = dish_document(read.document or {}, house, dish.vessel)
    document |= {"people": dish.feast.heads}
    try:
        request = DishRequest.model_validate(document)
        if request.job is not None:
            came = worked_dish(request)
            return replace(read, came=came, mix=mix_of_a_job(request, came))
        result = worked(request)
        return replace(read, came=result.out, mix=shown_mix(result))
    except ValidationError as error:
        return replace(read, wrong=tuple(problem_of(each).what for each in error.errors()))
    except WrongDish as error:
        return replace(read, wrong=tuple(what for _, what in error.wrongs))
    except OutOfRange as error:
        return replace(read, wrong=(str(error),))


def _recipe_line(
    line: ReadLine, seen: AskedLine, house: House, held_back: float, was: Document
) -> Document:
    """A line of the recipe as it is kept: as it was read, with what the cook changed of it."""
    key = seen.key
    found: Document = {"text": line.text, "name": seen.name_kept, "goes": seen.goes}
    if line.amount is not None:
        unit = line.unit or "piece"
        found |= {"amount": line.amount, "unit": "handful" if _by_hand(line, unit) else unit}
    if key is not None and house.larder.g_per_ml(key) is not None and seen.grams is not None:
        found |= {"amount": seen.grams, "unit": "g"}
    if line.per is not None:
        found["per_mass_g" if line.per.of == "meat" else "per_water_g"] = line.per.grams
    is_spice = key is not None and ingredient(key).role == "spice"
    share = line.held_back or (held_back if is_spice else 0.0)
    if share:
        found["held_back"] = share
    label = _label_of(line, seen, house)
    if "salt_pct" in label:
        found["salt_pct"] = label.pop("salt_pct")
    if label:
        found["strength"] = label
    if was.get("instead_of", was.get("name")) != found["name"]:
        return found
    return found | {name: was[name] for name in ("name", "grams", "instead_of") if name in was}


def _by_hand(line: ReadLine, unit: str) -> bool:
    """Whether it is taken by the handful."""
    return unit == "piece" and re.search(r"\b(?:hand|fist)fuls?\b", line.text, re.I) is not None


def _label_of(line: ReadLine, seen: AskedLine, house: House) -> Document:
    """What a label says of it [%]: the text's own, what was typed, else the packet's."""
    key = seen.key or ""
    packet = house.larder.packets.get(key)
    label: Document = dict(line.strength)
    typed_pct = _pct_of(seen.pct) if seen.asks_pct else None
    if typed_pct is not None:
        label[seen.asks_pct] = typed_pct
    role = ingredient(key).role if key else ""
    if packet is not None and role == "cure":
        label = {"nitrite_pct": packet.nitrite_pct, "nitrate_pct": packet.nitrate_pct} | label
    if packet is not None and role == "sauce":
        label = {"salt_pct": packet.salt_pct} | label
    return {name: value for name, value in label.items() if value is not None}


def _of_a_job(lines: Sequence[ReadLine]) -> Iterator[ReadLine]:
    """The lines of a side job: meat is an ingredient of it, and nothing is for so much meat."""
    pieces = {each.per for each in lines if each.is_meat and each.per}
    for each in lines:
        if each.is_meat and not each.problem:
            thing = replace(each, is_meat=False, is_heading=False, per=None)
            if each.per is not None:
                thing = replace(thing, amount=each.per.grams, unit="g")
            yield thing
        else:
            yield replace(each, per=None) if each.per in pieces else each


def field_of(line: ReadLine) -> str:
    """The field in which a line is answered."""
    return f"line-{crc32(line.text.lower().encode()):08x}"


def _unweighed(line: ReadLine) -> ReadLine:
    """A line outside the cure: what has no amount there is not weighed, but for a curing salt."""
    is_cure = any(ingredient(key).role == "cure" for key in line.keys)
    if line.amount is not None or not line.keys or is_cure:
        return line
    return replace(line, problem="")


def _asked(
    line: ReadLine, house: House, answers: Mapping[str, str], remembered: Remembered
) -> AskedLine:
    field = field_of(line)
    own = house.larder.named(line.words) if line.words else None
    chosen, typed = answers.get(field, ""), answers.get(f"{field}-pct", "")
    if line.must_answer and not chosen and own is None:
        before = remembered.answer(line.words, line.keys) or {}
        chosen, typed = before.get("name", ""), typed or _pct_typed(before)
    key = line.key
    if own and not line.problem:
        key = own
    if chosen in line.keys:
        key = chosen
    if chosen == LEFT_OUT:
        key = None
    pct_name = LABELS.get(key or "", "")
    has_label = bool(own) or pct_name in line.strength
    asks_pct = pct_name if pct_name and not has_label else ""
    grams = line_grams(line, key, house.larder.g_per_ml(key)) if key else None
    offered = tuple((each, ingredient(each).name) for each in line.keys)
    asks = line.must_answer and bool(offered) and own is None
    problem = line.problem
    if line.must_answer and key is None and chosen != LEFT_OUT:
        problem = line.question
    elif asks_pct and _pct_of(typed) is None and (typed or key != "celery-powder"):
        problem = tell(
            "How much {label_words} does its label say? Type a percentage.",
            label_words=LABEL_WORDS[asks_pct],
        )
    return AskedLine(
        field=f"{field}",
        text=line.text,
        key=key,
        grams=grams,
        choices=offered if asks else (),
        question=line.question if own is None else "",
        problem=problem,
        is_heading=line.is_heading,
        is_left_out=chosen == LEFT_OUT,
        words=line.words.strip(" .:,"),
        pct=typed,
        asks_pct=asks_pct,
    )


def _pct_typed(line: Document) -> str:
    """What a label said in a line that is kept, as it is typed."""
    pct = line.get("salt_pct") or line.get("strength", {}).get("nitrite_pct")
    return "" if pct is None else f"{pct:g}"


def _pct_of(typed: str) -> float | None:
    """A percentage as it was typed, None when it is none."""
    try:
        pct = parse_number(typed.replace("%", "")) if typed.strip() else None
    except NotAQuantity:
        return None
    return pct if pct is not None and pct <= MOST_PCT else None
