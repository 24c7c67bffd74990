"""What is left of a dish, and what it is good for."""

from pantry_core.meat import NEVER_CURED
from pantry_core.routes.cuts import Cut
from pantry_core.text import Text, say

WET = frozenset({"braise", "braise-fry", "in-fat", "pressure", "stir-fry", "slow-oven"})
RAW = say("Cold, in thin slices on bread or in a salad.")
_GOOD_FOR: dict[str, Text] = {
    "vegetable": say("Beside cold meat, in a sandwich or a salad."),
    "fish": say("Flaked into cakes, a salad or a spread."),
    "poultry": say("Cold in a salad, in a pie or fried rice; the bones make a stock."),
    "cured": say("Cold in slices, in a hash or a pea soup; a bone makes a stock."),
    "wet": say("Warmed in its own sauce, over noodles or in a pie."),
    "plain": say("Cold in sandwiches, in a hash, a pie or a curry."),
}


def good_for(cut: Cut, way: str, *, is_cured: bool, is_raw: bool) -> Text:
    """What is left of a dish is good for.

    Parameters: cut; way of cooking; is_cured, whether curing salt is in it; is_raw, whether it is
    eaten raw.
    Returns: a sentence.
    Raises: nothing.
    Source: common practice.

    >>> from pantry_core.routes.cuts import CUTS
    >>> good_for(CUTS["pork-hock"], "simmer-glaze", is_cured=True, is_raw=False)
    'Cold in slices, in a hash or a pea soup; a bone makes a stock.'
    """
    if is_raw:
        return RAW
    if is_cured and cut.kind not in NEVER_CURED:
        return _GOOD_FOR["cured"]
    by_kind = _GOOD_FOR.get(cut.kind)
    return by_kind or _GOOD_FOR["wet" if way in WET else "plain"]
