"""From the text of a recipe to the core's `check`, and from what it puts right to a mix."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from zlib import crc32

from pantry_core.mixes.check import CheckOut, check
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.recipes.found import factor, read_lines
from pantry_core.recipes.lines import Cups, ReadLine
from pantry_core.routes.ways import Way
from pantry_core.rules.ingredients import INGREDIENTS
from pantry_web.feasts.mixing import (
    House,
    Mix,
    Mixed,
    SauceLine,
    SpiceLine,
    weigh_request,
    work_out,
)
from pantry_web.feasts.naming import label_of
from pantry_web.feasts.sauces import grams_of

LEFT_OUT = "none"
"""What is chosen for a line that is to be left out."""


@dataclass(frozen=True, slots=True)
class AskedLine:
    """A line as it is shown: what it was taken for, what it may be, what is wrong with it."""

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

    @property
    def name(self) -> str:
        """What it was taken for, as a cook says it."""
        return INGREDIENTS[self.key].name if self.key else ""


@dataclass(frozen=True, slots=True)
class ReadRecipe:
    """A recipe read for a piece: its lines, what it comes to, the mix put right."""

    lines: tuple[AskedLine, ...]
    out: CheckOut | None
    request: CheckRequest | None
    spices: tuple[SpiceLine, ...]
    right: Mix | None
    right_mixed: Mixed | None

    @property
    def right_lines(self) -> list[tuple[str, float]]:
        """What to weigh out for the recipe put right [g]."""
        if self.right_mixed is None:
            return []
        request = self.right_mixed.request
        return [(label_of(each.name, request), each.grams) for each in self.right_mixed.sheet.lines]

    @property
    def is_open(self) -> bool:
        """Whether a line still waits for an answer."""
        return any(
            line.problem or (line.choices and line.key is None and not line.is_left_out)
            for line in self.lines
        )


def read_recipe(
    text: str,
    mix: Mix,
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
    """Read a recipe and check it for the piece of a mix.

    Parameters: text; mix and house of the dish; way, the method; cups, whose are meant; days that
    the recipe says [d]; used_share of the liquid [-]; injection_share [-]; held_back, the share of
    the spices kept for the pot [-]; is_scaled, whether "per pound" and the like is scaled to the
    piece; answers to what was asked, by field.
    Raises: NotARecipe for a text that is too long.
    """
    other = replace(mix, method=way.id, water_g=mix.water_g or mix.mass_g, cure=None, sauces=())
    meat = weigh_request(other, house).meat
    shown, document, spices = [], [], []
    for i, line in enumerate(read_lines(text, cups)):
        asked = _asked(i, line, mix, house, answers, is_scaled=is_scaled)
        shown.append(asked)
        if asked.key is None or asked.is_heading or asked.is_left_out or asked.problem:
            continue
        document.append(_document_line(line, asked, house))
        if INGREDIENTS[asked.key].role == "spice" and line.amount is not None:
            amount = asked.factor * line.amount
            words = line.words or asked.name
            spices.append(SpiceLine(words[:80], amount, line.unit or "piece", held_back))
    if not document:
        return ReadRecipe(tuple(shown), None, None, (), None, None)
    request = CheckRequest.model_validate(
        {
            "profile": house.profile,
            "meat": meat.model_dump(),
            "method": way.method,
            "cover": way.cover,
            "heaped": way.heaped,
            "days": days,
            "used_share": used_share,
            "injection_share": injection_share or 0.10,
            "lines": document,
        }
    )
    out = check(request)
    right = _right(out, mix, way, tuple(spices))
    return ReadRecipe(tuple(shown), out, request, tuple(spices), right, work_out(right, house))


def _asked(
    i: int, line: ReadLine, mix: Mix, house: House, answers: Mapping[str, str], *, is_scaled: bool
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
    grows = factor(line.per, mix.mass_g, mix.water_g) if is_scaled else 1.0
    grams = grams_of(line, key, house.larder) if key else None
    offered = tuple((each, INGREDIENTS[each].name) for each in line.keys)
    asks = bool(line.question) and bool(offered) and own is None
    problem = line.problem
    if line.must_answer and key is None and chosen != LEFT_OUT:
        problem = line.question
    return AskedLine(
        field=f"{field}",
        text=line.text,
        key=key,
        grams=None if grams is None else grams * grows,
        choices=offered if asks and (len(offered) > 1 or line.must_answer) else (),
        question=line.question if own is None else "",
        problem=problem,
        is_heading=line.is_heading,
        is_left_out=chosen == LEFT_OUT,
        factor=grows,
    )


def _document_line(line: ReadLine, asked: AskedLine, house: House) -> dict[str, object]:
    """A line of the document: as it was written, or in grams by the cook's own spoon."""
    key = asked.key or "spice"
    packet = house.larder.packets.get(key)
    labels: dict[str, object] = {}
    if packet is not None and INGREDIENTS[key].role == "cure":
        labels = {"nitrite_pct": packet.nitrite_pct, "nitrate_pct": packet.nitrate_pct}
    if packet is not None and INGREDIENTS[key].role == "sauce":
        labels = {"salt_pct": packet.salt_pct}
    if house.larder.g_per_ml(key) is not None and asked.grams is not None:
        return {"name": key, "amount": asked.grams, "unit": "g", **labels}
    amount = asked.factor * (line.amount or 0.0)
    return {"name": key, "amount": amount, "unit": line.unit or "piece", **labels}


def _right(out: CheckOut, mix: Mix, way: Way, spices: tuple[SpiceLine, ...]) -> Mix:
    """The recipe put right as the mix of the dish."""
    asked = out.instead.input
    return replace(
        mix,
        method=way.id,
        target_salt_pct=asked.target_salt_pct,
        sugar_pct=asked.sugar_pct,
        water_g=asked.water_g,
        cure=asked.cure.name if asked.cure else None,
        nitrite_pct=None,
        ingoing_ppm=None,
        brine_salt_pct=asked.brine_salt_pct,
        injection_share=asked.injection_share if way.method == "injection" else None,
        sauces=tuple(
            SauceLine(f"{each.mass_g:.4g} g {INGREDIENTS[each.name].name.lower()}",
                      each.name, each.mass_g, each.salt_pct)
            for each in asked.sauces
        ),
        spices=spices,
    )  # fmt: skip
