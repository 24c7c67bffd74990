"""From the text of a recipe to the core's `check`, and from what it puts right to a mix."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from zlib import crc32

from pantry_core.dish.answer import DishOut
from pantry_core.dish.piece import prepared, treatment_of
from pantry_core.dish.request import Piece
from pantry_core.foods.ingredient import ingredient, is_ingredient
from pantry_core.foods.table import food, is_food
from pantry_core.formats.reading import WrongInput, read_document
from pantry_core.measures.quantity import NotAQuantity, parse_number
from pantry_core.mixes.check import CheckOut, check
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.mixes.request import Sauce
from pantry_core.recipes.found import NotARecipe, factor, read_lines
from pantry_core.recipes.lines import ReadLine
from pantry_core.recipes.weights import line_grams
from pantry_core.recipes.words import Cups
from pantry_core.routes.ways import Way
from pantry_core.rules.cures import CURE_KEYS
from pantry_web.feasts.documents import Document, House, dish_document
from pantry_web.feasts.line_labels import label_of
from pantry_web.feasts.models import Dish
from pantry_web.planning.answers import work_out
from pantry_web.sentences import sentence_of, tell

LEFT_OUT = "none"
"""What is chosen for a line that is to be left out."""
LABELS = {"other-sauce": "salt_pct", "salted-mix": "salt_pct", "nitrite-salt": "nitrite_pct",
          "celery-powder": "nitrite_pct"}  # fmt: skip
"""What of a thing only its label tells; of celery powder it may stay unknown."""
LABEL_WORDS = {"salt_pct": "salt", "nitrite_pct": "nitrite"}
SIZED = ("cure-1", "cure-2", "nitrite-salt")
"""Curing salts that can be weighed out, once their strength is known."""
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
    factor: float
    pct: str = ""
    asks_pct: str = ""

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
    """A recipe read for a piece: its lines, what it comes to, the mix put right."""

    lines: tuple[AskedLine, ...]
    out: CheckOut | None
    request: CheckRequest | None
    spices: tuple[Document, ...]
    right: Document | None
    answer: DishOut | None

    @property
    def right_lines(self) -> list[tuple[str, str, float]]:
        """What to weigh out for the recipe put right: name, label and grams."""
        answer = self.answer
        if answer is None or answer.sheet is None or answer.asked is None:
            return []
        return [
            (line.name, label_of(line.name, answer.asked), line.grams)
            for line in answer.sheet.lines
        ]

    @property
    def is_open(self) -> bool:
        """Whether a line still waits for an answer."""
        return any(
            not line.is_left_out and (line.problem or (line.choices and line.key is None))
            for line in self.lines
        )


def read_recipe(
    text: str,
    dish: Dish,
    house: House,
    way: Way,
    *,
    cups: Cups,
    days: float | None,
    used_share: float,
    injection_share: float | None,
    held_back: float,
    is_scaled: bool,
    answers: Mapping[str, str],
) -> ReadRecipe:
    """Read a recipe and check it for the piece of a dish.

    Parameters: text; dish; house; way, the method; cups, whose are meant; days that
    the recipe says [d]; used_share of the liquid [-]; injection_share [-]; held_back, the share of
    the spices kept for the pot [-]; is_scaled, whether "per pound" and the like is scaled to the
    piece; answers to what was asked, by field.
    Raises: NotARecipe for a text that is too long, and for amounts that nobody lifts.
    """
    piece = prepared(Piece.model_validate(dish.piece))
    shown, document, spices = [], [], []
    for line in read_lines(text, cups):
        asked = _asked(line, dish, house, answers, is_scaled=is_scaled)
        shown.append(asked)
        days = line.days if days is None else days
        if asked.key is None or asked.is_heading or asked.is_left_out or asked.problem:
            continue
        document.append(_document_line(line, asked, house))
        if ingredient(asked.key).role == "spice" and line.amount is not None:
            amount = asked.factor * line.amount
            words = line.words or asked.name
            share = line.held_back or held_back
            spices.append(
                {"text": words[:80], "amount": amount, "unit": line.unit or "piece",
                 "held_back": share}
            )  # fmt: skip
    read = ReadRecipe(tuple(shown), None, None, (), None, None)
    if not document or read.is_open:
        return read
    request = _request(
        {
            "profile": house.profile,
            "meat": piece.meat.model_dump(),
            "method": way.method,
            "cover": way.cover,
            "heaped": way.heaped,
            "days": days,
            "used_share": used_share,
            "injection_share": injection_share or 0.10,
            "treatment": treatment_of(piece),
            "packet": _packet(document, house),
            "lines": document,
        }
    )
    out = check(request)
    right = _right(out, dish, way, spices, days)
    answer = work_out(dish_document(right, house, dish.vessel))
    told = answer if isinstance(answer, DishOut) else None
    return ReadRecipe(tuple(shown), out, request, tuple(spices), right, told)


def _request(document: Document) -> CheckRequest:
    try:
        return read_document(CheckRequest, document)
    except WrongInput as error:
        raise NotARecipe(sentence_of(error.problems[0].what)) from None


def _packet(document: list[dict[str, object]], house: House) -> dict[str, object] | None:
    """The curing salt that the cook has: in the pantry, else what the recipe's own line is."""
    named = [line for line in document if ingredient(str(line["name"])).role == "cure"]
    for line in named:
        if ingredient(str(line["name"])).cure in SIZED:
            return {"name": line["name"], "nitrite_pct": line.get("nitrite_pct")}
    if not named:
        return None
    kept = (key for key, cure in CURE_KEYS.items() if cure in house.larder.packets)
    key = next((each for each in kept if each in SIZED), None)
    if key is None:
        return None
    return {"name": key, "nitrite_pct": house.larder.packets[CURE_KEYS[key]].nitrite_pct}


def _asked(
    line: ReadLine, dish: Dish, house: House, answers: Mapping[str, str], *, is_scaled: bool
) -> AskedLine:
    field = f"line-{crc32(line.text.lower().encode()):08x}"
    own = house.larder.named(line.words) if line.words else None
    chosen = answers.get(field, "")
    key = line.key
    if own and not line.problem:
        key = own
    if chosen in line.keys:
        key = chosen
    if chosen == LEFT_OUT:
        key = None
    pct_name = LABELS.get(key or "", "")
    typed = answers.get(f"{field}-pct", "")
    has_label = bool(own) or pct_name in line.strength
    asks_pct = pct_name if pct_name and not has_label else ""
    water_g = dish.cure.get("water_g")
    grows = factor(line.per, dish.mass_g, water_g) if is_scaled else 1.0
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
        grams=None if grams is None else grams * grows,
        choices=offered if asks else (),
        question=line.question if own is None else "",
        problem=problem,
        is_heading=line.is_heading,
        is_left_out=chosen == LEFT_OUT,
        factor=grows,
        pct=typed,
        asks_pct=asks_pct,
    )


def _pct_of(typed: str) -> float | None:
    """A percentage as it was typed, None when it is none."""
    try:
        pct = parse_number(typed.replace("%", "")) if typed.strip() else None
    except NotAQuantity:
        return None
    return pct if pct is not None and pct <= MOST_PCT else None


def _document_line(line: ReadLine, asked: AskedLine, house: House) -> dict[str, object]:
    """A line of the document: as it was written, or in grams by the cook's own spoon."""
    key = asked.key or "spice"
    packet = house.larder.packets.get(key)
    labels: dict[str, object] = dict(line.strength)
    typed_pct = _pct_of(asked.pct) if asked.asks_pct else None
    if typed_pct is not None:
        labels[asked.asks_pct] = typed_pct
    if packet is not None and ingredient(key).role == "cure":
        labels = {"nitrite_pct": packet.nitrite_pct, "nitrate_pct": packet.nitrate_pct} | labels
    if packet is not None and ingredient(key).role == "sauce":
        labels = {"salt_pct": packet.salt_pct} | labels
    if house.larder.g_per_ml(key) is not None and asked.grams is not None:
        return {"name": key, "amount": asked.grams, "unit": "g", **labels}
    amount = asked.factor * (line.amount or 0.0)
    return {"name": key, "amount": amount, "unit": line.unit or "piece", **labels}


def _right(
    out: CheckOut, dish: Dish, way: Way, spices: list[Document], days: float | None
) -> Document:
    """The recipe put right as what is decided of the dish; the recipe's days are kept."""
    asked = out.instead.input
    cure: dict[str, Any] = {
        "method": way.id, "target_salt_pct": asked.target_salt_pct, "sugar_pct": asked.sugar_pct,
        "curing_salt": asked.cure.name if asked.cure else None, "spices": spices,
        "sauces": [_sauce(each) for each in asked.sauces],
    }  # fmt: skip
    given = {
        "water_g": asked.water_g if way.has_water else None,
        "nitrite_pct": asked.cure.nitrite_pct if asked.cure else None,
        "brine_salt_pct": asked.brine_salt_pct,
        "injection_share": asked.injection_share if way.method == "injection" else None,
        "days": days,
        "school": dish.cure.get("school"),
    }
    cure |= {name: value for name, value in given.items() if value is not None}
    rest = {name: part for name, part in dish.document.items() if name != "edits"}
    return {**rest, "cure": cure}


def _sauce(sauce: Sauce) -> Document:
    name = ingredient(sauce.name).name.lower() if is_ingredient(sauce.name) else sauce.name
    text = f"{sauce.mass_g:.4g} g {name}"
    return {"text": text, **sauce.model_dump(mode="json", exclude_none=True)}
