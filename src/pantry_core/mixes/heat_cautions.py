"""What must be said of the heat that comes after: inside temperature, smoke, fish eaten raw."""

from collections.abc import Iterator

from pantry_core.heat.inside import is_intact
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.request import WeighRequest
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius, Hours, Minutes, Percent
from pantry_core.rules.inside import (
    NOT_INTACT,
    NOT_INTACT_AS_SAFE,
    OTHER_GAME,
    SMOKED_FISH_MIN,
)
from pantry_core.rules.parasites import FROZEN
from pantry_core.rules.rule import Mark, Rule, Source
from pantry_core.rules.smoke import (
    AIR_SALT_PCT,
    UNCURED_WARMING_H,
    VACUUM_CURED_SALT_PCT,
    VACUUM_SALT_PCT,
    WARMING_H,
)
from pantry_core.text import say

_PRACTICE = Source("", Mark.PRACTICE)


def done(judged: Judged) -> Iterator[Notice]:
    """How hot the thickest part must be, where more than the usual is asked."""
    meat, rule = judged.request.meat, judged.inside
    if rule is None:
        return
    if not is_intact(judged.request.treatments):
        text = say(
            "Not intact any more: {rule} in the thickest part, never rare.",
            rule=Celsius(rule.value),
        )
        if rule is NOT_INTACT:
            text = say("{text} {as_safe}.", text=text, as_safe=NOT_INTACT_AS_SAFE)
        yield notice("note", "not-intact", text, rule)
    if meat.wild == "other" and rule is OTHER_GAME:
        text = say(
            "Wild game: {rule} in the thickest part. Freezing does not make boar or bear "
            "safe; wear gloves for hare and wild rabbit.",
            rule=Celsius(rule.value),
        )
        yield notice("caution", "wild-game", text, rule)
    elif meat.wild == "deer":
        text = say(
            "Wild deer: {rule} in the thickest part; the FDA Food Code says {74 °C}.",
            rule=Celsius(rule.value),
        )
        yield notice("caution", "wild-game", text, rule)


def smoked(judged: Judged) -> Iterator[Notice]:
    """What smoke asks for: of fish that is kept its salt and its heat, of meat its air."""
    meat = judged.request.meat
    if meat.will_be != "smoked":
        return
    if meat.kind == "fish":
        if meat.is_kept_smoked:
            yield from _kept_smoked(judged)
        return
    if meat.kind == "vegetable" or judged.nitrite.verdict in ("ok", "low"):
        return
    opened = meat.kind == "poultry" or not is_intact(judged.request.treatments)
    hours = UNCURED_WARMING_H if opened else WARMING_H
    text = say(
        "Smoked without curing salt: through {10 to 54 °C} inside within {hours}.",
        hours=Hours(hours.value),
    )
    yield notice("note", "smoke-uncured", text, hours)


def water_phase_pct(judged: Judged) -> float:
    """Salt in the water of the meat when it comes out [%]: after its days, when lifted, or even."""
    in_water = judged.uptake.mean_pct / 100.0 / judged.request.meat.water_g_g
    return 100.0 * in_water / (1.0 + in_water)


def _kept_smoked(judged: Judged) -> Iterator[Notice]:
    least = _least_water_phase(judged)
    comes_to = water_phase_pct(judged)
    if round(comes_to, 2) < least.value:
        text = say(
            "The water in it comes to {comes_to} salt; smoked fish that is kept needs "
            "{least}. Ask for more salt or a longer time, or eat it at the same meal.",
            comes_to=Percent(comes_to, 1),
            least=Percent(least.value),
        )
        yield notice("stop", "water-phase-low", text, least)
    text = say(
        "Kept, it is smoked to {63 °C} in the thickest part and held there for "
        "{smoked_fish_min}; then cold at once.",
        smoked_fish_min=Minutes(SMOKED_FISH_MIN.value),
    )
    yield notice("note", "smoked-fish-kept", text, SMOKED_FISH_MIN)


def _least_water_phase(judged: Judged) -> Rule:
    if judged.request.meat.storage == "air":
        return AIR_SALT_PCT
    return VACUUM_CURED_SALT_PCT if judged.nitrite.verdict == "ok" else VACUUM_SALT_PCT


def eaten_raw(request: WeighRequest) -> Iterator[Notice]:
    """What is to be eaten raw, and what must have been done to it."""
    meat = request.meat
    if meat.will_be != "raw" or meat.kind == "vegetable":
        return
    if meat.kind == "fish":
        frost = FROZEN[request.profile]
        text = say(
            "Fish eaten raw is frozen against parasites first: {how}, where the freezer's "
            "own thermometer shows it; {−18 °C} does not do. Farmed kinds that are exempt "
            "need it not.",
            how=frost.words,
        )
        yield notice("stop", "parasites", text, frost.basis)
    else:
        yield notice(
            "stop", "raw-meat", "Meat eaten raw is out of this tool's scope: cook it.", _PRACTICE
        )
