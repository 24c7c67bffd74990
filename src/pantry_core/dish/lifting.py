"""What would lift a stop, in words, and where that is changed."""

from dataclasses import dataclass
from typing import Final, Literal

from pantry_core.text import Sentence, say

Where = Literal["sheet", "steps", "vessel", "rounds"]


@dataclass(frozen=True, slots=True)
class Lift:
    """What lifts a stop, and where: on the sheet, in the steps, by the vessel, on the rounds.

    `where` is None for what nothing lifts.
    """

    text: Sentence
    where: Where | None


_CURING_SALT: Final = Lift("Leave the curing salt out, or choose another method.", "sheet")
_LESS_NITRITE: Final = Lift("Weigh less curing salt: ask for fewer ppm.", "sheet")
_NO_NITRATE: Final = Lift("Take a curing salt without nitrate, or none.", "sheet")
_GONE: Final = Lift("Nothing lifts this. Throw it away; heat does not undo it.", None)

LIFTS: Final[dict[str, Lift]] = {
    "raw-clock": Lift(
        "Fewer days in the cure, a later trip to the shop, a quicker method, or buy it frozen.",
        "steps",
    ),
    "nitrite-over": _LESS_NITRITE,
    "scale-doubt-over": Lift("Use a finer scale, or ask for fewer ppm.", "sheet"),
    "nitrate-over": _NO_NITRATE,
    "nitrate-bacon": _NO_NITRATE,
    "strength-too-high": Lift("Read the strength on the label again.", "sheet"),
    "strength-unlabelled": Lift("Type the strength that its label says.", "sheet"),
    "curing-salt-fish": _CURING_SALT,
    "curing-salt-vegetable": _CURING_SALT,
    "curing-salt-heaped": _CURING_SALT,
    "curing-salt-misplaced": _CURING_SALT,
    "undissolved": Lift("More water, or less salt.", "sheet"),
    "salt-below-zero": Lift("Less of the salty sauce, or a saltier goal.", "sheet"),
    "needle-short": Lift("More water, or less by the needle.", "sheet"),
    "too-warm": Lift(say("A colder fridge: {4 °C} or below."), "sheet"),
    "brine-warm": Lift(
        say("Chill the brine to {4 °C}, read it again and write it down."), "rounds"
    ),
    "reactive-metal": Lift("Take glass, food plastic, stoneware or stainless steel.", "vessel"),
    "too-small": Lift("Take a larger vessel, or less water.", "vessel"),
    "parasites": Lift("Say how it was frozen, or cook it.", "sheet"),
    "water-phase-low": Lift("More salt or more time, or eat it at the same meal.", "sheet"),
    "warms-slowly": Lift("More heat, a smaller piece, or curing salt.", "steps"),
    "out-of-the-cold": Lift("Keep it in the fridge in between, or shorten it.", "steps"),
    "kept-warm": Lift(say("Keep it at {60 °C} or above, or shorten it."), "steps"),
    "cools-slowly": Lift("Cool it in ice water, carved or shallow.", "steps"),
    "oil-kept": Lift("Make it later, keep it cold, or boil what is in the oil.", "steps"),
    "pickle-warm": Lift("Into the fridge.", "steps"),
    "pickle-old": Lift("Make it later.", "steps"),
    "stands-warm": Lift(say("Keep it at {60 °C} or above, or cool it quickly."), "steps"),
    "kept-long": Lift("Make it later, or freeze it.", "steps"),
    "stuffed-early": Lift("Stuff it just before the heat.", "steps"),
    "herbs-in-oil": Lift("Fewer days, or garlic and herbs at the end.", "steps"),
    "inside-low": Lift("Choose a higher temperature inside, or leave it to the rule.", "sheet"),
    "not-cooked": Lift("Choose a way of cooking.", "sheet"),
    "fish-not-cooked": Lift(
        "Choose a way of cooking; or say, where cooks disagree, that it is eaten raw, and how it "
        "was frozen.",
        "sheet",
    ),
    "not-done": Lift("Back to the heat, read it again and write it down.", "rounds"),
    "fat-too-hot": Lift(say("Fry at {160 to 180 °C}."), "sheet"),
    "cold-smoke": Lift("Smoke it hot, or cure it with curing salt and cook it later.", "sheet"),
    "raw-meat": _GONE,
    "discard": _GONE,
}  # fmt: skip
"""By the code of the notice."""
ONCE_IN: Final = Lift("Cook it sooner, at an earlier hour of its own, or freeze it now.", "steps")
"""What lifts the raw clock once the piece is in its cure."""
OTHERWISE: Final = Lift("Change what it says on the sheet.", "sheet")


def lift_of(code: str, *, is_in: bool = False) -> Lift:
    """What would lift the stop of this code.

    Parameters: code; is_in, whether the piece is in its cure already.

    >>> lift_of("undissolved").where
    'sheet'
    """
    if code == "raw-clock" and is_in:
        return ONCE_IN
    return LIFTS.get(code, OTHERWISE)
