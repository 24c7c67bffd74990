"""Lines of a recipe: amount, unit and ingredient, as people write them."""

import re
from collections.abc import Iterator
from dataclasses import replace
from typing import Final

from pantry_core.foods.ingredient import ingredient
from pantry_core.measures.quantity import NotAQuantity
from pantry_core.measures.units import RECIPE_GRAMS, RECIPE_ML, RecipeUnit
from pantry_core.quantities import Millilitres, Number
from pantry_core.recipes.amounts import Amount, amount_at, amount_behind, in_brackets
from pantry_core.recipes.counted import counted, is_the_piece, named
from pantry_core.recipes.instructions import SHARES, is_at_the_heat, is_for_a_time, is_instruction
from pantry_core.recipes.line import Basis, ReadLine
from pantry_core.recipes.names import ALL_CURES, CURED, Match, match, meats
from pantry_core.recipes.parts import Part, parts_of
from pantry_core.recipes.strengths import without_strength
from pantry_core.recipes.times import days_in
from pantry_core.recipes.words import NUMBER_WORDS, Cups
from pantry_core.text import say

LONGEST_LINE = 300
LEMON_ML = 45.0
"""Juice of a lemon (common practice) [ml]."""
UNKNOWN: Final = ("spice", "salted-mix", "other-sauce", "juice", "sugar", "water", *ALL_CURES)
"""What a thing may be that is not known here; among them are all curing salts."""

_BULLET = re.compile(r"^[\s•*·–—-]*(?:\[[ xX]?\])?\s*(?:\d+\)\s+)?")
_ASIDE = re.compile(r"\(([^()]*)\)")
_JUICE_OF = re.compile(r"^(?:the\s+)?juice of\s+(.+)$", re.IGNORECASE)
_PERCENT = re.compile(r"\d\s*%|\bper ?cent\b", re.IGNORECASE)
_OF_MEAT = re.compile(
    r"^(?P<pct>\d{1,2}(?:[.,]\d{1,3})?)\s*%\s*(?:of\s+(?:the\s+)?(?:meat(?:['’]s)?|its)\s*"
    r"(?:weight|mass)?\s*(?:in|of|as)?\s*)?(?P<words>.*)$",
    re.IGNORECASE,
)
_SAYS_MEAT = re.compile(r"\b(?:of|du|der|des)?\s*(?:the\s+)?(?:meat|its weight)\b", re.IGNORECASE)
_PER = re.compile(
    r"(?:[,;:(\s]+\b(?:for|per|pro|par|por|al|auf|je|pour)\b\s+(?:each\s+|every\s+)?|\s*/\s*(?=[a-z])|"
    r"[,\s]+(?=an?\s+(?:pound|lb|kilo|kg|gallon|quart|lit(?:re|er)|pint)\b\s*(?:of\s+\w+\s*)?"
    r"[).,;:]*$))(?P<what>[^/;]+?)[):.,\s]*$",
    re.IGNORECASE,
)
_PER_FIRST = re.compile(
    r"^\s*(?:for|per|pro|par|por|pour|auf|je)\b\s+(?:each\s+|every\s+)?(?P<what>[^,;:]+?)\s*[,:]\s*"
    r"(?P<rest>.*)$",
    re.IGNORECASE,
)
_PER_INSIDE = re.compile(r"(?<=\d)\s*(?P<unit>g|mg|oz)\s*/\s*(?P<per>kg|lb|l)\b\s*", re.IGNORECASE)
_OF_WATER = re.compile(
    r"\b(?:water|brine|liquid|wasser|lake|eau|saumure|agua|salmuera|acqua|salamoia)\b",
    re.IGNORECASE,
)
_OF_PIECE = re.compile(r"\b(?:meat|fleisch|viande|carne)\b", re.IGNORECASE)
_HELD = r"held back|hold back|kept back|kept for the pot|reserved?|for the pot|set aside"
_HELD_BACK = re.compile(
    rf"\(?\s*\b(?P<share>half|a half|a third|one third|two thirds|a quarter|\d+/\d+|\d+ ?%)\b"
    rf"[^()\d]*?\b(?:{_HELD})\b[^()]*\)?|\b(?:reserve|hold back|keep back)\s+(?P<share2>half|a "
    r"third|two thirds|a quarter|\d+/\d+|\d+ ?%)\b[^()]*",
    re.IGNORECASE,
)


def read_line(text: str, cups: Cups = "us") -> ReadLine:
    """Read one line of a recipe that holds one thing.

    Parameters: text, at most 300 characters; cups, whose cups, spoons and pints are meant where
    the line does not say.
    Returns: the line; what is wrong or in doubt is in it.
    Raises: nothing.
    Source: sizes by definition; a pinch and the juice of a lemon by common practice.

    >>> line = read_line("1½ tbsp curing salt no. 1")
    >>> line.amount, line.unit, line.key
    (1.5, 'tbsp', 'curing-salt-1')
    >>> read_line("2 qt water").unit
    'us-quart'
    >>> read_line("1 tsp salt per pound of meat").per
    Basis(of='meat', grams=453.59237)
    """
    found = read_things(text, cups)
    if len(found) == 1:
        return found[0]
    what = "This line holds more than one thing; write each on a line of its own."
    return ReadLine(found[0].text, problem=what)


def read_things(text: str, cups: Cups = "us") -> tuple[ReadLine, ...]:
    """Read one line of a recipe, which may hold several things ("water + ice").

    Parameters, errors and source as in `read_line`.
    Returns: the things, in order; one at least.

    >>> [(each.key, each.amount, each.unit) for each in read_things("1 l water with 40 g salt")]
    [('water', 1.0, 'l'), ('salt-table', 40.0, 'g')]
    """
    shown = " ".join(text.split())
    if len(shown) > LONGEST_LINE:
        what = say(
            "This line is too long; {longest_line} characters do.",
            longest_line=Number(LONGEST_LINE),
        )
        return (ReadLine(shown[:LONGEST_LINE], problem=what),)
    try:
        return tuple(_read(shown, cups))
    except NotAQuantity as error:
        return (ReadLine(shown, problem=f"{str(error)[:1].upper()}{str(error)[1:]}."),)


def written(amount: float, unit: RecipeUnit, key: str) -> str:
    """A line as it would be written, so that it reads back as the same.

    >>> written(1.5, "us-cup", "salt-hollow-flake")
    '1.5 us cup hollow flaky salt'
    """
    spelt = {"tsp": "us tsp", "tbsp": "us tbsp", "au-tbsp": "australian tbsp"}
    name = ingredient(key).name.lower().replace(",", "")
    return f"{_plain(amount)} {spelt.get(unit, unit.replace('-', ' '))} {name}"


def _plain(amount: float) -> str:
    plain = f"{amount:.9f}".rstrip("0").rstrip(".") or "0"
    _, point, decimals = plain.partition(".")
    # three decimals can be taken for thousands
    return f"{plain}0" if point and len(decimals) == 3 else plain


def _read(shown: str, cups: Cups) -> Iterator[ReadLine]:
    body = _JUICE_OF.sub(r"\1 juice", _BULLET.sub("", shown))
    body = _PER_BARE.sub(r"\1: ", _FOR_EACH.sub("per ", body))
    body, held_back = _without_held_back(body)
    if is_for_a_time(body):
        yield ReadLine(shown, is_heading=True)
        return
    says_heat = is_at_the_heat(body)
    days, body = days_in(body)
    days = None if says_heat else days
    body, per = _without_basis(body, cups)
    body = _IN_WATER.sub("with ", body)
    bare = body.strip(" .,;:()")
    if held_back and _is_remark(bare, cups):
        yield ReadLine(shown, is_heading=True, held_back=held_back)
        return
    is_title = body.rstrip().endswith(":") and not re.search(r"\d", body)
    says_more = per is not None or days is not None
    if is_title or (not bare and says_more) or (days is not None and _is_remark(bare, cups)):
        yield ReadLine(shown, per=per, is_heading=True, days=days)
        return
    parts = tuple(parts_of(body, cups))
    things = [_thing(shown if len(parts) == 1 else part.text, part, per, cups) for part in parts]
    for thing in _with_its_weight(things, shown):
        yield replace(thing, held_back=held_back, days=days)


def _with_its_weight(things: list[ReadLine], shown: str) -> list[ReadLine]:
    """The things of a line; a bare weight after the meat is what the meat weighs."""
    if len(things) != 2 or not things[0].is_meat or things[1].words.strip(" .:,"):
        return things
    weight = amount_at(things[1].text, "us")
    if weight is None or weight[0].unit not in RECIPE_GRAMS or weight[0].middle <= 0:
        return things
    grams = weight[0].middle * RECIPE_GRAMS[weight[0].unit]
    return [replace(things[0], text=shown, per=Basis("meat", grams))]


def _is_remark(bare: str, cups: Cups) -> bool:
    """Whether what is left beside a time or a share is an instruction and no ingredient."""
    if amount_at(bare, cups) is not None:
        return False
    found = match(bare)
    return found is None or ingredient(found.keys[0]).role not in ("salt", "cure")


def _thing(shown: str, part: Part, per: Basis | None, cups: Cups) -> ReadLine:
    body, strength = without_strength(_JUICE_OF.sub(r"\1 juice", part.text))
    if part.problem:
        return ReadLine(shown, problem=part.problem)
    if is_for_a_time(part.text):
        return ReadLine(shown, is_heading=True)
    if part.amount is None and _PERCENT.search(body):
        return _by_percent(shown, " ".join(re.sub("[()]", " ", body).split()), strength)
    amount, words = _amount_of(part, body, cups)
    line = ReadLine(shown, per=per, words=words, strength=strength)
    kinds = meats(words)
    found_name = named(words, amount)
    if kinds and (found_name is None or found_name.keys == ("spice",) or is_the_piece(amount)):
        return _meat(line, kinds, amount)
    if found_name is None or _names_two(words, found_name.keys[0]):
        return _unknown(line, amount)
    return _ingredient(line, found_name, amount)


def _names_two(words: str, key: str) -> bool:
    """Whether two herbs or spices share an amount: they keep their words, none of them is lost."""
    both = [each for each in _AND.split(words.strip(" .:,")) if each.strip()]
    if len(both) != 2 or ingredient(key).role != "spice":
        return False
    if any(each.strip().lower().endswith("ed") for each in both):  # cracked and toasted pepper
        return False
    keys = [None if (name := named(each, None)) is None else name.keys[0] for each in both]
    return keys[0] != keys[1] and all(len(each.split()) <= MOST_WORDS for each in both)


def _amount_of(part: Part, body: str, cups: Cups) -> tuple[Amount | None, str]:
    """The amount of a thing, and its words; a weight in brackets wins over a volume."""
    plain = " ".join(_ASIDE.sub(" ", body).split())
    if part.amount is not None:
        return part.amount, plain
    found = amount_at(body, cups) or amount_behind(plain, cups)
    amount, words = found if found else (None, plain)
    by_weight = in_brackets(body, cups)
    is_size = amount is not None and amount.unit is None and amount.middle > 1
    if (
        by_weight is not None
        and not is_size
        and (amount is None or amount.unit not in RECIPE_GRAMS)
    ):
        amount = by_weight
    return amount, " ".join(_ASIDE.sub(" ", words).split())


def _ingredient(line: ReadLine, found: Match, amount: Amount | None) -> ReadLine:
    role = ingredient(found.keys[0]).role
    if role != "cure" and {"nitrite_pct", "nitrate_pct"} & line.strength.keys():
        found, role = CURED, "cure"
    line = _labelled(replace(line, keys=found.keys, question=found.question), role)
    if amount is None:
        return _without_amount(line, found, role)
    value = amount.upper if role == "cure" else amount.middle
    unit = amount.unit or "piece"
    if unit == "piece" and found.keys == ("citrus-juice",):
        value, unit = value * LEMON_ML, "ml"
        line = replace(
            line, question=say("A lemon gives about {lemon_ml}.", lemon_ml=Millilitres(LEMON_ML))
        )
    is_by_volume = unit in RECIPE_ML
    line = replace(line, amount=value, unit=unit)
    if amount.is_heaped and is_by_volume and role in ("salt", "cure"):
        what = "A heaped spoon is half as much again as a level one. Weigh it, or say level spoons."
        return replace(line, problem=what)
    thing = ingredient(found.keys[0])
    if unit == "piece":
        thing, value, unit = counted(thing, value, amount, line.words)
        line = replace(line, keys=(thing.key, *found.keys[1:]))
    line = replace(line, amount=value, unit=unit)
    if unit == "piece" and role != "spice" and thing.g_per_piece is None:
        if thing.key == "oil":
            return replace(line, amount=None, unit=None)
        if role == "sauce" and _BY_HAND.search(line.text):
            return replace(line, must_answer=False, question="")
        name = thing.name.lower()
        what = say("How much {name}? It is not counted; use a weight or a volume.", name=name)
        return replace(line, problem=what)
    must_answer = found.must_answer and (is_by_volume or not found.by_volume)
    question = line.question if must_answer or not found.by_volume else ""
    return replace(line, must_answer=must_answer, question=question)


def _without_amount(line: ReadLine, found: Match, role: str) -> ReadLine:
    """A thing of which the recipe does not say how much: asked about where that matters."""
    if role == "spice" and not found.must_answer:
        return replace(line, amount=1.0, unit="piece")
    is_needed = role in ("water", "cure") or ingredient(found.keys[0]).salt > 0.0
    says_some = re.search(r"\d", line.text) is not None
    if says_some or (role != "salt" and (found.must_answer or is_needed)):
        return replace(line, problem="How much of it? Write an amount before it.")
    return line


def _labelled(line: ReadLine, role: str) -> ReadLine:
    """A strength that says no name is the nitrite of a curing salt, the salt of anything else."""
    bare = line.strength.get("pct")
    if bare is None:
        return line
    rest = {name: pct for name, pct in line.strength.items() if name != "pct"}
    return replace(line, strength=rest | {"nitrite_pct" if role == "cure" else "salt_pct": bare})


def _by_percent(shown: str, body: str, strength: dict[str, float]) -> ReadLine:
    """As in "2 % salt": of the meat where it says so, else asked about."""
    found = _OF_MEAT.match(body)
    name = match(body)
    says_meat = _SAYS_MEAT.search(body) is not None and not _OF_WATER.search(body)
    if found is None or name is None or not says_meat:
        what = "Per cent of what? Write it in grams, or “of the meat”."
        return ReadLine(shown, keys=name.keys if name else (), problem=what, words=body)
    pct = float(found["pct"].replace(",", "."))
    line = ReadLine(shown, per=Basis("meat", 100.0), words=body, strength=strength)
    return _ingredient(line, name, Amount(pct, pct, "g"))


def _meat(line: ReadLine, kinds: tuple[str, ...], amount: Amount | None) -> ReadLine:
    if len(kinds) > 1:
        what = say("This line names {kinds}; use one piece at a time.", kinds=" and ".join(kinds))
        return replace(line, problem=what, is_meat=True)
    per = line.per
    if amount is not None and amount.unit in RECIPE_GRAMS and amount.middle > 0:
        per = Basis("meat", amount.middle * RECIPE_GRAMS[amount.unit])
    return replace(line, is_meat=True, is_heading=True, per=per)


def _unknown(line: ReadLine, amount: Amount | None) -> ReadLine:
    """What no table knows: kept by its words, and asked about where it may carry salt."""
    if line.words.strip(" .:,").lower() in ("", "to", "of", "for", "in", "with"):
        return replace(line, problem="What is it? Write the ingredient after its amount.")
    if amount is None and is_instruction(line.words):
        return replace(line, is_heading=True)
    if not _MAY_BE_SALTY.search(line.words):
        middle = None if amount is None else amount.middle
        return replace(line, amount=middle, unit=None if amount is None else amount.unit or "piece")
    value = 1.0 if amount is None else amount.upper
    unit: RecipeUnit = "piece" if amount is None or amount.unit is None else amount.unit
    return replace(
        line, amount=value, unit=unit, keys=UNKNOWN, must_answer=True,
        question="This is not known here. What is it? Leave it out, or choose.",
    )  # fmt: skip


_AND = re.compile(r"\s+(?:and|&|und|et|y|e)\s+", re.IGNORECASE)
MOST_WORDS = 2
"""A herb or a spice has no more words than this."""
_FOR_EACH = re.compile(r"\b(?:for|to) (?:each|every) ", re.IGNORECASE)
_PER_BARE = re.compile(
    r"^\s*((?:per|pro|par|por) (?:kilo(?:gram(?:me)?)?|kg|pound|lb|lit(?:re|er)|quart|gallon)"
    r"(?: (?:of|de|di) (?:the )?(?:meat|fish|water))?)[\s,]+(?=\d|[½¼¾])",
    re.IGNORECASE,
)
_IN_WATER = re.compile(
    r"\b(?:in|into|to|auf|dans|en)\s+(?=(?:\d|[½¼¾]|an?\b|one\b|two\b)[^,;]*"
    r"\b(?:water|wasser|eau|agua|acqua)\b)",
    re.IGNORECASE,
)
_BY_HAND = re.compile(
    r"\b(?:hand|fist)fuls?\b|\b(?:splash|dash|thumb|knob|lump|glug)\b", re.IGNORECASE
)
_MAY_BE_SALTY = re.compile(
    r"salt|\b(?:sal|sel|sale)\b|salz|brine|cur(?:e|ing)\b|pickl|season|\brub\b|\bmix|blend|stock|"
    r"broth|bouillon|br[üu]he|fond|sauce|paste|powder|pulver|poudre|miso|cube|nitrit|nitrat|"
    r"p[öo]kel|\bham\b|bacon|anchov|olive|caper|cheese|soy|umami|gravy|marinade|dressing|ketchup|"
    r"mustard|granul",
    re.IGNORECASE,
)
"""Words of what may carry salt or a cure."""


def _without_held_back(body: str) -> tuple[str, float]:
    """Take "half held back for the pot" out of a line, and the share that it says."""
    found = _HELD_BACK.search(body)
    if found is None:
        return body, 0.0
    said = (found["share"] or found["share2"]).lower()
    if said in SHARES:
        share = SHARES[said]
    elif said.endswith("%"):
        share = float(said[:-1]) / 100.0
    else:
        above, below = said.split("/")
        share = int(above) / int(below) if int(below) else 0.0
    return " ".join((body[: found.start()], body[found.end() :])).strip(" ,;"), min(share, 1.0)


def _without_basis(body: str, cups: Cups) -> tuple[str, Basis | None]:
    """Take "per pound", "/kg", "for a gallon of water" off a line."""
    inside = _PER_INSIDE.search(body)
    if inside:
        per = _basis(f"1 {inside['per']}", cups)
        return f"{body[: inside.start()]} {inside['unit']} {body[inside.end() :]}", per
    first = _PER_FIRST.match(body)
    if first:
        per = _basis(first["what"], cups)
        if per is not None:
            return first["rest"], per
    found = _PER.search(f" {body}")
    if found is None:
        return body, None
    per = _basis(found["what"], cups)
    return (f" {body}"[: found.start()].strip(), per) if per is not None else (body, None)


def _basis(what: str, cups: Cups) -> Basis | None:
    """So much meat or water, None for anything else."""
    said = what.strip()
    begins_with_number = re.match(r"\d|[½¼¾]", said) or said.lower().split(" ")[0] in NUMBER_WORDS
    found = amount_at(said if begins_with_number else f"1 {said}", cups)
    if found is None or found[0].unit in (None, "piece") or found[0].middle <= 0:
        return None
    amount, words = found
    is_water = _OF_WATER.search(words) is not None
    if words and not (is_water or meats(words) or _OF_PIECE.search(words)):
        return None
    base = amount.in_base()
    if base is None:
        return None
    is_mass = base[2] == "g" and not is_water
    return Basis("meat" if is_mass else "water", base[0])
