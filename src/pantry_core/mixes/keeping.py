"""How long a piece may be kept raw, what lies with it included, set against the days asked for."""

from collections.abc import Iterator, Mapping

from pantry_core.errors import within
from pantry_core.foods.ingredient import ingredient, is_ingredient
from pantry_core.measures.said import days_said
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import Ready
from pantry_core.notice import Level, Notice, notice
from pantry_core.quantities import Days, Hours
from pantry_core.rules.constants import (
    ENZYME_LEAST,
    ENZYME_SLOW_H,
    ENZYME_THICK_H,
    ENZYME_THIN_H,
    ENZYME_THIN_MM,
    HERBS_ON_MEAT_D,
    HERBS_ON_MEAT_STOP_D,
    PASTE_ACID_SHARE,
    PASTE_SALT_PCT,
)
from pantry_core.rules.raw_clock import RAW_FISH_AFTER_D, RawLimits
from pantry_core.rules.rule import Rule
from pantry_core.text import joined, listed, say

HELPS = (
    "Shorten it, or freeze the piece until then. A thinner piece, or one opened flat, is ready "
    "sooner; a dry brine takes 12 to 72 h; red meat with enough nitrite and 2 % of salt keeps "
    "longer."
)
HOURS_PER_DAY = 24.0


def judge_raw(limits: RawLimits | None, raw_h: float) -> Notice | None:
    """Judge the time that a piece stays raw; at a limit it still passes.

    Parameters: limits, None where no raw clock runs; raw_h, from purchase or the end of thawing to
    the heat [h], 0 or more.
    Returns: a stop, a caution, or None.
    Raises: OutOfRange for a negative or absurd time.

    >>> from pantry_core.rules.raw_clock import RED_MEAT
    >>> judge_raw(RED_MEAT, 11 * 24).level
    'stop'
    """
    days = within("raw_h", raw_h, 0.0, 24.0 * 3660, "h") / HOURS_PER_DAY
    if limits is None:
        return None
    for level, rule in (("stop", limits.stop), ("caution", limits.caution)):
        if days > rule.value:
            said = days_said(days)
            text = say(
                "It would be raw for {days}; {line} is at {rule}. {helps}",
                days=say("a little over {rule}", rule=Days(rule.value))
                if str(said) == str(Days(rule.value))
                else said,
                line="the stop" if level == "stop" else "the caution",
                rule=Days(rule.value),
                helps=HELPS,
            )
            return notice("stop" if level == "stop" else "caution", "raw-clock", text, rule)
    return None


def kept_raw(
    request: WeighRequest, limits: RawLimits | None, wait: Ready | None
) -> Iterator[Notice]:
    """What the raw clock says of the days that are asked for, and of a wait beyond it."""
    if request.days is not None:
        judged = judge_raw(limits, HOURS_PER_DAY * request.days)
        if judged is not None:
            yield judged
    if limits is not None and wait is not None and wait.days > limits.stop.value:
        text = say(
            "The salt does not reach the centre in time: that takes about {days} by the "
            "model, and raw it keeps {stop} at the most. Opened flat, by needle or in "
            "thinner pieces it would; or season it: take it out when the outside is salty "
            "enough.",
            days=Days(wait.days, 0),
            stop=Days(limits.stop.value),
        )
        level: Level = "note" if request.days is None else "caution"
        yield notice(level, "wait-beyond-raw", text, limits.stop)
    if request.meat.kind == "fish" and request.meat.will_be == "raw":
        text = say(
            "Out of the cure it keeps {raw_fish_after_d} unwrapped in the fridge, a week in all.",
            raw_fish_after_d=Days(RAW_FISH_AFTER_D.value),
        )
        yield notice("note", "raw-cured-keeps", text, RAW_FISH_AFTER_D)


def softening(request: WeighRequest, masses: Mapping[str, float | None]) -> Iterator[Notice]:
    """What must be said of fruit whose enzymes soften meat and then spoil it.

    A little in a sauce is no bath of them; of what has no mass as much as matters is taken for
    granted.
    """
    least_g = ENZYME_LEAST.value * request.meat.salted_g
    names = [name for name, mass_g in masses.items() if mass_g is None or mass_g >= least_g]
    speeds = {ingredient(name).softens for name in names if is_ingredient(name)} - {""}
    if not speeds:
        return
    limit = ENZYME_SLOW_H
    if "fast" in speeds:
        is_thin = request.meat.thickness_mm <= ENZYME_THIN_MM.value
        limit = ENZYME_THIN_H if is_thin else ENZYME_THICK_H
    text = say(
        "Raw enzyme fruit softens meat and then spoils it: {limit} at the most here.",
        limit=Hours(limit.value),
    )
    hours = None if request.days is None else HOURS_PER_DAY * request.days
    if hours is not None and hours <= limit.value:
        yield notice("note", "enzyme-fruit", text, limit)
    else:
        last = "Marinate without it and add it for the last hour."
        yield notice("caution", "enzyme-fruit", joined(" ", (text, last)), limit)


def herbs_in_oil(
    request: WeighRequest, masses: Mapping[str, float | None], salt_pct: float
) -> Iterator[Notice]:
    """What must be said of raw garlic or herbs under oil on raw meat.

    Parameters: request, with the days that it lies in them; masses of what is in it, by name, None
    where nobody knows one [g]; salt_pct in the water of the paste [%].
    Returns: a stop, a caution or a note; nothing where salt or acid keeps it as long as its meat.
    Raises: nothing. Source: common practice.
    """
    if not any(name == "oil" or name.endswith("-oil") for name in masses):
        return
    if salt_pct >= PASTE_SALT_PCT.value or _acid_share(masses) >= PASTE_ACID_SHARE.value:
        return
    days = request.days or 0.0
    level: Level = "note"
    limit: Rule = HERBS_ON_MEAT_D
    if days > HERBS_ON_MEAT_STOP_D.value:
        level, limit = "stop", HERBS_ON_MEAT_STOP_D
    elif days > HERBS_ON_MEAT_D.value:
        level = "caution"
    text = say(
        "Raw garlic or herbs in oil: at {4 °C} or below, and no longer than {limit}.",
        limit=Days(limit.value),
    )
    if level != "note":
        herbs = {ingredient(name).herb for name in masses if is_ingredient(name)} - {""}
        more = say(
            "This is to lie {days}: leave {herbs} out until the end.",
            days=Days(days),
            herbs=listed(sorted(herbs)) or "them",
        )
        text = joined(" ", (text, more))
    yield notice(level, "herbs-in-oil", text, limit)


def _acid_share(masses: Mapping[str, float | None]) -> float:
    """Vinegar and citrus in parts of the liquid."""
    liquid = acid = 0.0
    for name, mass_g in masses.items():
        is_acid = "vinegar" in name or name in ("lemon-juice", "lime-juice")
        if is_acid or "oil" in name or (is_ingredient(name) and ingredient(name).water > 0.5):
            liquid += mass_g or 0.0
        acid += (mass_g or 0.0) if is_acid else 0.0
    return acid / liquid if liquid else 0.0
