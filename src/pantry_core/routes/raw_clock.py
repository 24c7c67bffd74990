"""How long a piece stays raw, set against how long it may."""

from pantry_core.errors import within
from pantry_core.meat import Kind
from pantry_core.mixes.nitrite import Verdict
from pantry_core.mixes.request import Method
from pantry_core.notice import Notice, notice
from pantry_core.rules.constants import LONG_CURE_SALT_PCT
from pantry_core.rules.raw_clock import (
    BIRD_OR_FISH,
    CURED_RED_MEAT,
    DRY_BRINED_BIRD,
    RED_MEAT,
    RawLimits,
)

HELPS = (
    "A thinner piece, or one opened flat, is ready sooner; a dry brine takes 12 to 72 h; red meat "
    "with enough nitrite and 2 % of salt keeps longer."
)


def raw_limits(
    kind: Kind, method: Method, verdict: Verdict, target_salt_pct: float
) -> RawLimits | None:
    """The raw clock that runs for a piece.

    Parameters: kind and method; verdict on its nitrite; target_salt_pct, the salt aimed at [%].
    Returns: limits in days from purchase or the end of thawing; None for vegetables.
    Raises: nothing.
    Source: USDA cold storage and marinating advice (from memory), stretched by common practice.

    >>> raw_limits("pork", "even-brine", "ok", 2.0).stop.value
    28.0
    >>> raw_limits("poultry", "dry-brine", "none", 1.5).caution.value
    3.0
    """
    if kind == "vegetable":
        return None
    if kind == "fish":
        return BIRD_OR_FISH
    if kind == "poultry":
        return DRY_BRINED_BIRD if method == "dry-brine" else BIRD_OR_FISH
    if verdict == "ok" and target_salt_pct >= LONG_CURE_SALT_PCT.value:
        return CURED_RED_MEAT
    return RED_MEAT


def judge_raw(limits: RawLimits | None, raw_h: float) -> Notice | None:
    """Judge the time that a piece stays raw; at a limit it still passes.

    Parameters: limits, None where no raw clock runs; raw_h, from purchase or the end of thawing to
    the heat [h], 0 or more.
    Returns: a stop, a caution, or None.
    Raises: OutOfRange for a negative or absurd time.

    >>> judge_raw(RED_MEAT, 11 * 24).level
    'stop'
    """
    days = within("raw_h", raw_h, 0.0, 24.0 * 3660, "h") / 24.0
    if limits is None:
        return None
    for level, rule in (("stop", limits.stop), ("caution", limits.caution)):
        if days > rule.value:
            text = f"It would be raw for {days:.1f} days; the {level} is at {rule.value:g}. {HELPS}"
            return notice("stop" if level == "stop" else "caution", "raw-clock", text, rule)
    return None
