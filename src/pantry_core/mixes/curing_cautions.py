"""What must be said of curing salt: its kind, its count, its scale, its handling."""

from collections.abc import Iterator, Sequence

from pantry_core.meat import Meat
from pantry_core.mixes.request import Cure
from pantry_core.mixes.result import Line, Nitrate, Nitrite
from pantry_core.notice import Notice, notice
from pantry_core.rules.constants import SCALE_DOUBT
from pantry_core.rules.cures import (
    LABEL_MOST,
    LETHAL_SPOON,
    NITRATE_IN_CURE_2,
    NITRITE_SALT_LEAST,
    NITRITE_SALT_MOST,
    NO_1_OF_ALL,
)
from pantry_core.rules.profiles import NitriteLimits
from pantry_core.rules.rule import Mark, Source

_FISH_CURE = Source("21 CFR 172.175 allows it for few kinds", Mark.MEMORY)
_PRACTICE = Source("", Mark.PRACTICE)
_LABEL = Source("the label", Mark.PRACTICE)


def uncured() -> Notice:
    """What is given up without curing salt."""
    return notice(
        "note",
        "uncured",
        "Without curing salt the meat turns grey, and nothing but cold protects it: for a fridge "
        "cure that is then boiled or roasted, not for long cool smoking.",
        _PRACTICE,
    )


def kind_of_cure(cure: Cure, meat: Meat, *, is_heaped: bool) -> Iterator[Notice]:
    """What its name and its label say, and what it must not be put on."""
    if meat.kind == "fish":
        yield notice("stop", "curing-salt-fish", "No curing salt for fish.", _FISH_CURE)
    if meat.kind == "vegetable":
        yield notice("stop", "curing-salt-vegetable", "No curing salt for vegetables.", _PRACTICE)
    if is_heaped:
        text = "No curing salt in a heap that is washed off: nobody knows how much stays in."
        yield notice("stop", "curing-salt-heaped", text, _PRACTICE)
    yield from _strength(cure)
    if cure.name == "celery":
        yield from _celery(cure)
    elif cure.nitrate_share > 0:
        yield from _nitrate(cure, meat)
    yield notice(
        "caution",
        "curing-salt-handling",
        "Curing salt is not table salt and not pink rock salt. Keep it in its labelled packet, "
        "locked away from other salt; never taste it, never measure it by the spoon. A tablespoon "
        f"of no. 1 holds {LETHAL_SPOON.value:g} g of nitrite and can kill: blue lips, call for "
        "help.",
        LETHAL_SPOON,
    )


def _strength(cure: Cure) -> Iterator[Notice]:
    share = cure.nitrite_share
    if share is not None and share > LABEL_MOST.value:
        yield notice(
            "stop",
            "strength-too-high",
            f"{100 * share:g} % nitrite is no curing salt for a kitchen; {100 * LABEL_MOST.value:g}"
            " % is the most. Read the label again.",
            LABEL_MOST,
        )
    if cure.name != "nitrite-salt":
        return
    if share is None:
        yield notice(
            "stop",
            "strength-unlabelled",
            "A nitrite salt without its strength cannot be weighed out. Take the percentage from "
            "the label; 0.4 to 0.9 would do.",
            NITRITE_SALT_MOST,
        )
    elif not NITRITE_SALT_LEAST.value <= share <= NITRITE_SALT_MOST.value:
        yield notice(
            "caution",
            "strength-unusual",
            f"Nitrite salts hold 0.4 to 0.9 % of nitrite; {100 * share:g} % is unusual. "
            "Read the label again.",
            NITRITE_SALT_MOST,
        )


def _celery(cure: Cure) -> Iterator[Notice]:
    if cure.nitrite_share is None:
        yield notice(
            "caution",
            "celery-unknown",
            "Celery powder is a plant source of the same nitrite. Its label states no strength, so "
            "nothing can be promised of it and no upper limit is proven: reckon it as uncured.",
            _LABEL,
        )
    else:
        yield notice(
            "note",
            "celery",
            "Celery powder is a plant source of the same nitrite; what is not nitrite in it is "
            "counted as salt.",
            _LABEL,
        )


def _nitrate(cure: Cure, meat: Meat) -> Iterator[Notice]:
    if meat.will_be == "bacon":
        yield notice(
            "stop", "nitrate-bacon", "No nitrate in bacon: take curing salt no. 1.", _PRACTICE
        )
    if cure.name == "saltpetre":
        yield notice(
            "caution",
            "saltpetre",
            "Saltpetre is nitrate: bacteria and time must turn it into nitrite, and in a fridge "
            "nobody can say how much. Curing salt no. 1 at "
            f"{100 * NO_1_OF_ALL.value:g} % of meat and liquid together does the same surely.",
            NO_1_OF_ALL,
        )
    else:
        yield notice(
            "caution",
            "nitrate-in-fridge-cure",
            "Its nitrate is for long dry curing. In a fridge cure that is cooked hot it does "
            "nothing in time; take no. 1.",
            NITRATE_IN_CURE_2,
        )


def counts(nitrite: Nitrite, limits: NitriteLimits) -> Iterator[Notice]:
    """Whether the nitrite is too much or too little."""
    ppm = nitrite.governing_ppm
    if ppm is None:
        return
    if nitrite.verdict == "over":
        by_needle = nitrite.needle_ppm is not None and nitrite.pickup_ppm is not None
        how = " by needle and brine together" if by_needle and ppm != nitrite.even_ppm else ""
        text = f"{ppm:.1f} ppm of nitrite would go in{how}; {nitrite.limit_ppm:g} is the most. "
        yield notice("stop", "nitrite-over", f"{text}Ask for less.", limits.most)
    if nitrite.verdict in ("low", "none"):
        yield notice(
            "caution",
            "nitrite-low",
            f"{ppm:.0f} ppm may be too little to cure or protect; "
            f"{limits.enough.value:g} is enough.",
            limits.enough,
        )


def nitrate_count(nitrate: Nitrate) -> Iterator[Notice]:
    """Whether the nitrate is too much."""
    if nitrate.verdict == "over" and nitrate.limit_ppm is not None:
        text = f"{nitrate.ppm:.0f} ppm of nitrate would go in; {nitrate.limit_ppm:.0f} is the most."
        yield notice("stop", "nitrate-over", text, Source("limit on nitrate", Mark.MEMORY))


def scale(
    division_g: float | None,
    lines: Sequence[Line],
    nitrite: Nitrite,
    limits: NitriteLimits,
    *,
    has_water: bool,
) -> Iterator[Notice]:
    """What a scale that reads to so many grams leaves in doubt."""
    if division_g is None:
        return
    for line in lines:
        if line.name == "water" or line.grams == 0:
            continue
        doubt = division_g / line.grams
        if line.name == "curing-salt":
            yield from _cure_scale(nitrite, limits, doubt, has_water=has_water)
        elif doubt > SCALE_DOUBT.value:
            yield notice(
                "caution",
                "scale-doubt",
                f"A scale that reads to {division_g:.3g} g doubts {line.grams:.1f} g of "
                f"{line.name} by {100 * doubt:.0f} %. Use a finer scale.",
                SCALE_DOUBT,
            )


def _cure_scale(
    nitrite: Nitrite, limits: NitriteLimits, doubt: float, *, has_water: bool
) -> Iterator[Notice]:
    with_doubt = (nitrite.governing_ppm or 0.0) * (1.0 + doubt)
    if nitrite.verdict != "over" and round(with_doubt, 1) > nitrite.limit_ppm:
        yield notice(
            "stop",
            "scale-doubt-over",
            f"With the doubt of this scale it could be {with_doubt:.0f} ppm of nitrite; "
            f"{nitrite.limit_ppm:g} is the most. Use a finer scale or ask for less.",
            limits.most,
        )
    if doubt > SCALE_DOUBT.value:
        solution = (
            " Or dissolve 10 g of curing salt in 90 g of the water, the same day, and weigh ten "
            "times as much of that; its water comes off the water."
            if has_water
            else ""
        )
        yield notice(
            "caution",
            "scale-doubt",
            f"This scale doubts the curing salt by {100 * doubt:.0f} %. Use a finer one.{solution}",
            SCALE_DOUBT,
        )
