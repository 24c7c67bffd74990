"""What is said of every dish alike: a kitchen reads it once, and where it is acted on."""

from typing import Final

from pantry_core.notice import Notice, notice
from pantry_core.quantities import Celsius, CuringSalt
from pantry_core.rules.constants import FRIDGE_GOAL_C
from pantry_core.rules.cures import LETHAL_SPOON
from pantry_core.rules.rule import Mark, Source
from pantry_core.text import say

_PRACTICE: Final = Source("", Mark.PRACTICE)

AUTHORITY: Final[Notice] = notice(
    "note",
    "authority",
    "The rules of your local food authority come before this page.",
    Source("no limit here replaces it", Mark.PRACTICE),
)
VESSEL: Final[Notice] = notice(
    "note",
    "vessel",
    "Glass, food plastic, stoneware or stainless steel. Never bare aluminium, copper or iron.",
    _PRACTICE,
)
BRINE_COLD: Final[Notice] = notice(
    "note",
    "brine-cold",
    say(
        "The brine is at {fridge_goal_c} or below before the meat goes in. A used "
        "brine is never used for another piece.",
        fridge_goal_c=Celsius(FRIDGE_GOAL_C.value),
    ),
    FRIDGE_GOAL_C,
)
CURING_SALT: Final[Notice] = notice(
    "note",
    "curing-salt-handling",
    say(
        "Curing salt is not table salt and not pink rock salt. Keep it in its labelled "
        "packet, locked away from other salt; never taste it, never measure it by the "
        "spoon. A tablespoon of no. 1 holds {lethal_spoon} of nitrite and can kill: "
        "blue lips, call for help.",
        lethal_spoon=CuringSalt(LETHAL_SPOON.value),
    ),
    LETHAL_SPOON,
)
EVERY_DISH: Final = (AUTHORITY, CURING_SALT, BRINE_COLD, VESSEL)
"""What a kitchen reads once; on the sheet it stands again, where things are weighed out."""
EVERY_DISH_CODES: Final = frozenset(each.code for each in EVERY_DISH)
