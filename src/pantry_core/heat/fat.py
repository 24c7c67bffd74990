"""Hot fat: what is said when it is too hot."""

from collections.abc import Iterator

from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius
from pantry_core.rules.heat import FRYING_MOST_C
from pantry_core.text import say


def fat_too_hot(fat_c: float) -> Iterator[Notice]:
    """Judge the temperature of frying fat.

    Parameters: fat_c [°C].
    Returns: a stop above what fat may have, else nothing.
    Raises: nothing.
    Source: common practice.

    >>> [[each.level for each in fat_too_hot(c)] for c in (190.0, 195.0)]
    [[], ['stop']]
    """
    if fat_c > FRYING_MOST_C.value:
        text = say(
            "Fat at {fat_c} smokes and may catch fire; {frying_most_c} is the most.",
            fat_c=Celsius(fat_c),
            frying_most_c=Celsius(FRYING_MOST_C.value),
        )
        yield notice("stop", "fat-too-hot", text, FRYING_MOST_C)
