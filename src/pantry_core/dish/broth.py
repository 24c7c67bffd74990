"""What the pot does to the salt: of the meat, of the broth, and of what cooks in it."""

from collections.abc import Iterator, Sequence
from typing import Final

from pantry_core.dish.answer import DishStep, MixLine, SaltOut
from pantry_core.dish.curing import Settled
from pantry_core.dish.pot import covers_it_ml
from pantry_core.dish.stays.places import is_heat
from pantry_core.mixes.recipe import ingredient_named
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Grams, Percent
from pantry_core.rules.rule import Mark, Rule
from pantry_core.salt.properties import BOILS_C, at_temperature, band_of
from pantry_core.salt.request import MOST_HOURS, Pot, SaltRequest
from pantry_core.salt.travel import ended
from pantry_core.text import Sentence, say
from pantry_core.vessels.fit import Vessel

BROTH_MOST_PCT: Final = Rule(
    "broth-salt", 1.5, "%", "salt of a broth and of what cooks in it", Mark.PRACTICE
)
WORTH_PCT: Final = 1.0
"""Meat with less salt than this gives its broth little (our own choice) [%]."""
IN_WATER: Final = ("water", "pressure")


def of_the_pot(
    settled: Settled,
    mix: Sequence[MixLine],
    steps: Sequence[DishStep],
    salt: SaltOut | None,
    vessel: Vessel | None,
) -> Iterator[Notice]:
    """How salty the broth of a pot comes to, and what is left in the meat.

    Parameters: settled, its cure; mix, all that goes in; steps as they are edited; salt when it
    comes out of the cure, None without; vessel, None where nobody names one.
    Returns: a caution with the water to add where the broth is too salty, a note where the pot
    takes salt or the meat has any to give; nothing without a pot.
    Raises: OutOfRange.
    Source: the model of `salt.travel` at the heat of the pot, its band twice as wide (derived).
    """
    pot = next((step for step in steps if is_heat(step) and step.medium in IN_WATER), None)
    before_pct = 0.0 if salt is None else salt.mean_pct
    into = [line for line in mix if line.goes == "pot" and line.grams]
    salt_g = sum(_salt_g(line) for line in into)
    if pot is None or not (salt_g or before_pct >= WORTH_PCT):
        return
    water_g = sum(_water_g(line) for line in into)
    water_g = max(water_g, covers_it_ml(settled.piece, vessel))
    after_pct = _after(settled, pot, before_pct, water_g, salt_g)
    in_broth_g = salt_g + (before_pct - after_pct) / 100.0 * settled.piece.meat.salted_g
    broth_pct = 100.0 * in_broth_g / (in_broth_g + water_g)
    if broth_pct <= BROTH_MOST_PCT.value:
        text = _said(before_pct, after_pct, broth_pct)
        yield notice("note", "broth-salt", text, BROTH_MOST_PCT)
        return
    most = BROTH_MOST_PCT.value / 100.0
    more_g = in_broth_g * (1.0 - most) / most - water_g
    text = say(
        "The broth comes to about {broth} salt, and what cooks in it tastes of it: with {more} "
        "more water it is {most}.",
        broth=Percent(broth_pct, 1),
        more=Grams(more_g, 0),
        most=Percent(BROTH_MOST_PCT.value),
    )
    yield notice("caution", "salty-broth", text, BROTH_MOST_PCT)


def _said(before_pct: float, after_pct: float, broth_pct: float) -> Sentence:
    """What the pot does to the salt, in a sentence [% of the meat, % of the broth]."""
    return say(
        "In the pot the meat goes from {before} to about {after} salt, the broth comes to about "
        "{broth}: season it at the end.",
        before=Percent(before_pct, 1),
        after=Percent(after_pct, 1),
        broth=Percent(broth_pct, 1),
    )


def _salt_g(line: MixLine) -> float:
    return (line.grams or 0.0) * (line.salt_pct or 0.0) / 100.0


def _water_g(line: MixLine) -> float:
    grams = line.grams or 0.0
    if line.name == "brine":
        return grams - _salt_g(line)
    return grams * ingredient_named(line.name).water


def _after(
    settled: Settled, pot: DishStep, before_pct: float, water_g: float, salt_g: float
) -> float:
    """Salt of the meat when it comes out of the pot, as if it were even when it went in [%]."""
    hours = min(pot.prefer_h or pot.min_h, MOST_HOURS)
    meat = settled.request.meat
    if hours <= 0:
        return before_pct
    stage = Pot(
        kind="pot", hours=hours, water_g=water_g, salt_g=salt_g,
        temperature_c=min(pot.medium_c or BOILS_C, BOILS_C),
    )  # fmt: skip
    cold_c = 4.0
    request = SaltRequest.model_construct(
        meat=meat, temperature_c=cold_c,
        diffusivity_m2_s=at_temperature(band_of(meat.kind).usual.value, cold_c),
        start_pct=before_pct, stages=(stage,),
    )  # fmt: skip
    return ended(request).mean_pct
