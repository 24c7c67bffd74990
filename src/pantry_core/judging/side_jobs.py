"""How a side job keeps: by what is in it, how long it stands, and how warm."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from pantry_core.heat.cooling import FIRST_H
from pantry_core.heat.warm import TWO_HOURS
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius, Days, Hours
from pantry_core.rules.constants import FRIDGE_STOP_C, HERBS_IN_OIL_D
from pantry_core.rules.raw_clock import LEFTOVERS_D
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

Keeps = Literal[
    "rice", "stock", "sauce", "egg", "dairy", "oil", "pickle", "ferment", "dough", "bread",
    "syrup", "acid", "other",
]  # fmt: skip
RICE_WARM_H = Rule("rice-warm", 1.0, "h below 60 °C", "cooked rice", Mark.PRACTICE)
RICE_KEEPS_D = Rule("rice-keeps", 1.0, "d", "cooked rice", Mark.PRACTICE)
PICKLE_D = Rule("pickle-keeps", 60.0, "d cold", "half of its liquid vinegar", Mark.PRACTICE)
WEAK_PICKLE_D = Rule("weak-pickle-keeps", 7.0, "d cold", "less vinegar", Mark.PRACTICE)
VINEGAR_SHARE = Rule("pickle-vinegar", 0.5, "of its liquid", "vinegar of 5 % acid", Mark.PRACTICE)
PICKLE_STANDS_H = Rule("pickle-stands", 6.0, "h warm", "while it is made and cools", Mark.PRACTICE)
FERMENT_LOW_C = Rule("ferment-from", 15.0, "°C", "vegetables that ferment", Mark.PRACTICE)
FERMENT_HIGH_C = Rule("ferment-to", 22.0, "°C", "vegetables that ferment", Mark.PRACTICE)
NO_CLOCK: Final = ("bread", "syrup", "acid", "dough")
_IN_OIL: Final = ("garlic", "herb", "basil", "onion", "mushroom", "pesto")
_MADE_OF: Final[tuple[tuple[Keeps, tuple[str, ...], float], ...]] = (
    ("dough", ("flour",), 0.3),
    ("pickle", ("vinegar",), 0.2),
    ("syrup", ("sugar", "honey", "syrup"), 0.5),
    ("rice", ("rice",), 0.0),
    ("egg", ("egg", "mayonnaise", "custard"), 0.0),
    ("dairy", ("cream", "milk", "yoghurt", "butter", "cheese"), 0.0),
    ("stock", ("stock", "bones", "broth", "meat"), 0.0),
)
"""What it is by more than such a share of such ingredients, the first that holds."""
STRICT: Final[tuple[Keeps, ...]] = (
    "oil", "rice", "egg", "stock", "dairy", "sauce", "other", "pickle", "ferment", "dough", "acid",
    "syrup", "bread",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Stood:
    """A stay of what is made: hours, how warm it is around it [°C], at the heat, until it is cold.

    `step` is the id of its step.
    """

    step: str
    hours: float
    around_c: float
    is_hot: bool
    ends_cold: bool = False


def keeps_as(given: Keeps | None, masses: dict[str, float], *, is_cooked: bool) -> Keeps:
    """What decides how a side job keeps.

    Parameters: given, by the cook's word; masses of its ingredients by name [g]; is_cooked, whether
    heat is among its steps.
    Returns: the strictest of the word and of what the ingredients make it: leaving a field out, or
    a milder word, lifts nothing.
    Raises: nothing. Source: common practice.
    """
    by_what_is_in_it = _by_its_ingredients(masses, is_cooked=is_cooked)
    if given is None:
        return by_what_is_in_it
    if by_what_is_in_it == "other":
        return given
    return min((given, by_what_is_in_it), key=STRICT.index)


def _by_its_ingredients(masses: dict[str, float], *, is_cooked: bool) -> Keeps:
    total = sum(masses.values()) or 1.0

    def share(*words: str) -> float:
        return sum(
            grams for name, grams in masses.items() if any(word in name.lower() for word in words)
        ) / total  # fmt: skip

    is_sour = share("vinegar", "lemon", "lime") > 0
    if not is_cooked and share("oil") and share(*_IN_OIL) and not is_sour:
        return "oil"
    of_them = (keeps for keeps, words, least in _MADE_OF if share(*words) > least)
    by_what_is_in_it: Keeps = next(of_them, "other")
    if by_what_is_in_it == "dough" and is_cooked:
        return "bread"
    ferments = not is_cooked and bool(share("cabbage")) and bool(share("salt"))
    return "ferment" if by_what_is_in_it == "other" and ferments else by_what_is_in_it


def side_job(keeps: Keeps, stays: Sequence[Stood], masses: dict[str, float]) -> Iterator[Notice]:
    """What is said of how long a side job stands.

    Parameters: keeps; stays in order, to the table; masses of its ingredients by name [g].
    Returns: stops and cautions; nothing for what is acid, dry or sweet.
    Raises: nothing.
    Source: FDA Food Code 3-501.14, 1-201.10; FDA and CDC on garlic in oil (from memory); rice and
    pickles by common practice.
    """
    if keeps in NO_CLOCK:
        return
    if keeps == "ferment":
        yield from _fermenting(stays)
        return
    warm_h = [each.hours if _is_warm(each) else 0.0 for each in stays]
    if keeps == "oil":
        yield from _in_oil(stays, sum(warm_h))
    elif keeps == "pickle":
        yield from _pickled(stays, sum(warm_h), masses)
    else:
        yield from _cooked(keeps, stays)


def _is_warm(stay: Stood) -> bool:
    return not stay.is_hot and not stay.ends_cold and stay.around_c > FRIDGE_STOP_C.value


def _fermenting(stays: Sequence[Stood]) -> Iterator[Notice]:
    for each in stays:
        is_long = each.hours > 24.0
        inside = FERMENT_LOW_C.value <= each.around_c <= FERMENT_HIGH_C.value
        if is_long and not inside and each.around_c > FRIDGE_STOP_C.value:
            text = say(
                "It ferments best at {low} to {high}, under its own brine.",
                low=Celsius(FERMENT_LOW_C.value),
                high=Celsius(FERMENT_HIGH_C.value),
            )
            yield notice("caution", "ferment-warm", text, FERMENT_HIGH_C)


def _in_oil(stays: Sequence[Stood], warm_h: float) -> Iterator[Notice]:
    days = sum(each.hours for each in stays) / 24.0
    if days <= HERBS_IN_OIL_D.value and warm_h <= TWO_HOURS.value:
        return
    text = say(
        "Raw garlic, herbs, onion or mushrooms in oil keep {limit} at {4 °C} or below, and no "
        "longer: make it later, keep it cold, or boil them in it.",
        limit=Days(HERBS_IN_OIL_D.value),
    )
    yield notice("stop", "oil-kept", text, HERBS_IN_OIL_D)


def _pickled(stays: Sequence[Stood], warm_h: float, masses: dict[str, float]) -> Iterator[Notice]:
    liquids = {
        name: grams for name, grams in masses.items()
        if any(word in name.lower() for word in ("vinegar", "water", "wine", "juice"))
    }  # fmt: skip
    vinegar = sum(grams for name, grams in liquids.items() if "vinegar" in name.lower())
    is_sour = not liquids or vinegar >= VINEGAR_SHARE.value * sum(liquids.values())
    limit = PICKLE_D if is_sour else WEAK_PICKLE_D
    days = sum(each.hours for each in stays) / 24.0
    if warm_h > PICKLE_STANDS_H.value:
        text = say(
            "A pickle as these are made does not keep at room temperature: into the fridge after "
            "{limit}.",
            limit=Hours(PICKLE_STANDS_H.value),
        )
        yield notice("stop", "pickle-warm", text, PICKLE_STANDS_H)
    elif days > limit.value:
        text = say("It keeps {limit} in the fridge.", limit=Days(limit.value))
        yield notice("stop", "pickle-old", text, limit)


def _cooked(keeps: Keeps, stays: Sequence[Stood]) -> Iterator[Notice]:
    """What is cooked, or holds egg or dairy, stands warm two hours at the most, rice one."""
    most = RICE_WARM_H if keeps == "rice" else FIRST_H
    kept = LEFTOVERS_D if keeps != "rice" else RICE_KEEPS_D
    is_perishable = keeps in ("egg", "dairy", "stock", "rice")
    warm_h = since_h = 0.0
    was_cooked = False
    for each in stays:
        if each.is_hot:
            was_cooked, warm_h, since_h = True, 0.0, 0.0
            continue
        if not was_cooked and not is_perishable:
            continue
        since_h += each.hours
        warm_h += each.hours if _is_warm(each) else 0.0
        if warm_h > most.value + 1e-6:
            text = say(
                "It stands {hours} below {60 °C}; {limit} are the most. Keep it at {60 °C} or "
                "above, or cool it shallow or in ice and put it in the fridge.",
                hours=Hours(warm_h, 1),
                limit=Hours(most.value),
            )
            yield notice("stop", "stands-warm", text, most)
            return
        if since_h / 24.0 > kept.value + 1e-6:
            text = say(
                "It is kept {days}; {limit} are the most. Make it later, or freeze it.",
                days=Days(since_h / 24.0, 1),
                limit=Days(kept.value),
            )
            yield notice("stop", "kept-long", text, kept)
            return
