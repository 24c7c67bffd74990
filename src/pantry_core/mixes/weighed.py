"""What was really weighed: whether it will do, and what follows from it."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from pydantic import ValidationError

from pantry_core.mixes.check import CheckOut, as_asked, check
from pantry_core.mixes.recipe import CheckRequest, ingredient_named
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.mixes.weigh import weigh
from pantry_core.notice import Notice, notice
from pantry_core.quantities import CuringSalt, Grams
from pantry_core.rules.cures import CURE_KEYS
from pantry_core.rules.rule import Mark, Rule, Source
from pantry_core.text import say

TOLERANCE = Rule("weighing-tolerance", 0.02, "g/g", "near enough at the scale", Mark.PRACTICE)
MOST_STEPS = 6
"""Times that the water is put right for one line after another."""
_BALANCE = Source("mass balance", Mark.DERIVED)


@dataclass(frozen=True, slots=True)
class WeighedLine:
    """A line: what the sheet asked for, what it asks for now, and what was weighed [g]."""

    name: str
    first_g: float
    wanted_g: float
    weighed_g: float | None

    @property
    def is_off(self) -> bool:
        """Whether what was weighed is not what is wanted now."""
        if self.weighed_g is None:
            return False
        return abs(self.weighed_g - self.wanted_g) > TOLERANCE.value * max(self.wanted_g, 0.5)

    @property
    def is_changed(self) -> bool:
        """Whether the sheet asks for another amount than at first."""
        return abs(self.wanted_g - self.first_g) > 1e-3 * max(self.first_g, 0.1)

    @property
    def add_g(self) -> float | None:
        """What is to be added to what was weighed, None when nothing is [g]."""
        if self.weighed_g is None or not self.is_off or self.weighed_g > self.wanted_g:
            return None
        return self.wanted_g - self.weighed_g


@dataclass(frozen=True, slots=True)
class WeighedOut:
    """The sheet as it goes on from what was weighed; `is_stopped` until a stop is put right."""

    request: WeighRequest
    sheet: WeighOut
    lines: tuple[WeighedLine, ...]
    as_weighed: CheckOut | None
    notices: tuple[Notice, ...]

    @property
    def is_stopped(self) -> bool:
        """Whether what lies on the scale must not go on."""
        return any(each.level == "stop" for each in self.notices)


def go_on(request: WeighRequest, weighed: Mapping[str, float]) -> WeighedOut:
    """Go on from what was really weighed.

    Parameters: request; weighed, grams by the name of a line of its sheet [g], 0 or more.
    Returns: the sheet for the water that was weighed, or, where a brine got too much salt or curing
    salt, for so much water that all is right again; every line with what is still to be added;
    notices on what was changed, and a stop where only weighing again helps.
    Raises: pydantic.ValidationError for water beyond what `weigh` takes.
    Source: mass balance (derived); a difference of 2 % is near enough (common practice).
    """
    first = weigh(request)
    now = request
    water = weighed.get("water", 0.0)
    can_grow = request.used_water_g > 0 and first.grams("water") > 0
    notices: list[Notice] = []
    if can_grow and water > 0 and abs(water / request.used_water_g - 1.0) > TOLERANCE.value:
        now = _with_water(request, water)
    if can_grow:
        grown = _grown(now, weighed)
        if grown is not None:
            now = grown
    sheet = weigh(now) if now is not request else first
    lines = tuple(
        WeighedLine(line.name, first.grams(line.name), line.grams, weighed.get(line.name))
        for line in sheet.lines
    )
    as_weighed = None
    if lines and all(line.weighed_g is not None for line in lines):
        as_weighed = check(_recipe(now, {line.name: line.weighed_g or 0.0 for line in lines}))
    notices.extend(_what_follows(now, lines, can_grow=can_grow))
    if as_weighed is not None and as_weighed.nitrite.verdict == "over":
        notices.extend(each for each in as_weighed.stops if each.code == "nitrite-over")
    return WeighedOut(now, sheet, lines, as_weighed, tuple(notices))


def keep_to_the_recipe(
    checked: CheckRequest, request: WeighRequest, sheet: WeighOut, weighed: Mapping[str, float]
) -> WeighedOut:
    """Go on from what was really weighed of a recipe, which nothing changes.

    Parameters: checked, the recipe for this piece; request that comes to the same; its sheet;
    weighed, grams by the name of a line of the sheet [g], 0 or more.
    Returns: the sheet as it is; every line with what is still to be added; what lies on the scale
    as a recipe, once all is weighed, with a stop where its nitrite is over.
    Raises: nothing for a request that could be made.
    Source: mass balance (derived).
    """
    lines = tuple(
        WeighedLine(line.name, line.grams, line.grams, weighed.get(line.name))
        for line in sheet.lines
    )
    as_weighed = None
    if lines and all(line.weighed_g is not None for line in lines):
        factors = {line.name: (line.weighed_g or 0.0) / line.first_g for line in lines}
        really = tuple(
            line.model_copy(update={"amount": factors.get(line.name, 1.0) * line.amount})
            for line in checked.lines
        )
        as_weighed = check(checked.model_copy(update={"lines": really}))
    notices = tuple(_of_the_scale(lines))
    if as_weighed is not None and any(line.is_off for line in lines):
        notices = (*notices, *(each for each in as_weighed.stops if each.code == "nitrite-over"))
    return WeighedOut(request, sheet, lines, as_weighed, notices)


def _of_the_scale(lines: tuple[WeighedLine, ...]) -> Iterator[Notice]:
    """What is still to be added, and what is more than the recipe has."""
    for line in lines:
        if not line.is_off or line.weighed_g is None:
            continue
        name = ingredient_named(line.name).name.lower()
        if line.add_g is not None:
            text = say("Add {add_g} more {name}.", add_g=Grams(line.add_g, 1), name=name)
            yield notice("note", f"add-{line.name}"[:60], text, TOLERANCE)
        else:
            text = say(
                "{weighed_g} of {name} is more than your recipe's {wanted_g}.",
                weighed_g=CuringSalt(line.weighed_g, 1),
                name=name,
                wanted_g=CuringSalt(line.wanted_g, 1),
            )
            yield notice("caution", "more-than-written", text, _BALANCE)


def as_it_went_in(request: WeighRequest, weighed: Mapping[str, float]) -> WeighRequest | None:
    """What a piece was really put into, for the way of its salt.

    Parameters: request of its sheet; weighed, grams by the name of a line [g].
    Returns: a request that comes to what was weighed; that of the sheet where a line of it was not
    weighed, or all were as asked; None for what no `weigh` request takes, as salt that water
    cannot hold: of that no model speaks.
    Raises: nothing.
    Source: mass balance (derived).
    """
    lines = tuple(
        WeighedLine(line.name, line.grams, line.grams, weighed.get(line.name))
        for line in weigh(request).lines
    )
    if any(line.weighed_g is None for line in lines) or not any(line.is_off for line in lines):
        return request
    try:
        found = as_asked(_recipe(request, {line.name: line.weighed_g or 0.0 for line in lines}))
        sound = WeighRequest.model_validate(found.model_dump())
    except ValidationError:
        return None
    return sound if all(each.level != "stop" for each in weigh(sound).notices) else None


def _with_water(request: WeighRequest, water_g: float) -> WeighRequest:
    return WeighRequest.model_validate(request.model_dump() | {"water_g": water_g})


def _grown(request: WeighRequest, weighed: Mapping[str, float]) -> WeighRequest | None:
    """The request with the water that makes too much salt or curing salt right; None: none is."""
    water_g = request.used_water_g
    for _ in range(MOST_STEPS):
        sheet = weigh(_with_water(request, water_g))
        need = max(
            (
                _water_for(request, water_g, name, weighed[name])
                for name in ("curing-salt", "salt")
                if name in weighed
                and weighed[name] > (1.0 + TOLERANCE.value) * sheet.grams(name) > 0.0
            ),
            default=water_g,
        )
        if need <= water_g * 1.0001:
            break
        water_g = need
    return _with_water(request, water_g) if water_g > request.used_water_g * 1.0001 else None


def _water_for(request: WeighRequest, water_g: float, name: str, grams: float) -> float:
    """The water for which the sheet asks for so much of a line; lines grow straight with it."""
    here = weigh(_with_water(request, water_g)).grams(name)
    there = weigh(_with_water(request, 1.5 * water_g)).grams(name)
    slope = (there - here) / (0.5 * water_g)
    return water_g + (grams - here) / slope if slope > 0 else water_g


def _what_follows(
    request: WeighRequest, lines: tuple[WeighedLine, ...], *, can_grow: bool
) -> Iterator[Notice]:
    by_name = {line.name: line for line in lines}
    water = by_name.get("water")
    if water is not None and water.add_g and water.is_changed:
        text = say(
            "Too much went in. Add {add_g} more water, and what the other lines ask for "
            "now: then all is in proportion again. It makes more brine than was planned.",
            add_g=Grams(water.add_g, 0),
        )
        yield notice("caution", "add-water", text, _BALANCE)
    elif water is not None and water.weighed_g is not None and water.is_changed:
        other = "The water is not what was planned: the other lines are worked out anew for it."
        yield notice("note", "other-water", other, _BALANCE)
    for line in lines:
        if line.name == "water" or not line.is_off or line.weighed_g is None:
            continue
        if line.add_g is not None:
            text = say(
                "Add {add_g} more {line}.",
                add_g=Grams(line.add_g, 1),
                line=line.name.replace("-", " "),
            )
            yield notice("caution", f"add-{line.name}", text, TOLERANCE)
        elif line.name == "curing-salt":
            text = say(
                "{weighed_g} of curing salt is too much for this piece: {wanted_g} is right. "
                "Weigh it again before anything is mixed. If it is mixed already, throw the "
                "mix away; if it is on the meat, wash the meat, throw the cure away and start "
                "again without curing salt.",
                weighed_g=CuringSalt(line.weighed_g, 2),
                wanted_g=CuringSalt(line.wanted_g, 2),
            )
            yield notice("stop", "too-much-curing-salt", text, _BALANCE)
        elif line.name == "salt" and not can_grow:
            text = say(
                "{weighed_g} of salt is more than the {wanted_g} asked for. Take the rest back "
                "before it is on the meat.",
                weighed_g=CuringSalt(line.weighed_g, 1),
                wanted_g=CuringSalt(line.wanted_g, 1),
            )
            yield notice("caution", "too-much-salt", text, _BALANCE)


def _recipe(request: WeighRequest, weighed: Mapping[str, float]) -> CheckRequest:
    """What lies on the scale as a recipe to be checked."""
    cure = request.cure
    sauces = {each.name: each for each in request.sauces}

    def line(name: str, grams: float) -> dict[str, object]:
        if name == "curing-salt" and cure is not None:
            own_label = cure.name in ("nitrite-salt", "celery")
            return {
                "name": CURE_KEYS[cure.name], "amount": grams, "unit": "g",
                "nitrite_pct": cure.nitrite_pct if own_label else None,
                "nitrate_pct": cure.nitrate_pct if own_label else None,
                "salt_pct": cure.salt_pct,
            }  # fmt: skip
        if name in sauces:
            known = {"name": name, "salt_pct": sauces[name].salt_pct}
            return {**known, "amount": grams, "unit": "g"}
        return {"name": "salt-table" if name == "salt" else name, "amount": grams, "unit": "g"}

    return CheckRequest.model_validate(
        {
            "profile": request.profile,
            "meat": request.meat.model_dump(),
            "method": request.method,
            "cover": request.cover,
            "heaped": request.heaped,
            "injection_share": request.injection_share,
            "days": request.days,
            "treatment": request.treatment,
            "purpose": request.purpose,
            "lines": [line(name, grams) for name, grams in weighed.items()],
        }
    )
