"""The methods a cook can choose from, each with what it is, what it gives up, and its window."""

from dataclasses import dataclass
from typing import Literal

from pantry_core.mixes.request import Method
from pantry_core.rules.constants import ENZYME_SLOW_H
from pantry_core.text import say

WayName = Literal[
    "even-brine", "strong-brine", "dry-cure", "heaped-cure", "dry-brine", "needle-brine", "needle",
    "oil-marinade", "sauce-marinade", "acid-marinade", "dairy-marinade", "herb-marinade",
    "quick-pickle", "mixed-in",
]  # fmt: skip
Group = Literal["Brine", "Dry", "Needle", "Marinade", "Side"]
Timing = Literal["school", "lift", "model", "window"]
"""Who says how long: the cook's school, the hour to lift, the model alone, or a fixed window."""


@dataclass(frozen=True, slots=True)
class Way:
    """A method as a cook names it; `window_h` its shortest, usual and longest time [h].

    `every_h` asks for rounds so often, `tend` says what a round is.
    """

    id: WayName
    name: str
    group: Group
    method: Method
    saying: str
    gives_up: str
    timing: Timing
    begin: str
    tend: str = ""
    every_h: float | None = None
    window_h: tuple[float, float, float] | None = None
    cover: bool = True
    heaped: bool = False

    @property
    def has_water(self) -> bool:
        """Whether water is made for it."""
        return self.group == "Brine" or self.id in ("needle-brine", "acid-marinade", "quick-pickle")

    @property
    def needs_water(self) -> bool:
        """Whether it cannot do without."""
        return self.group == "Brine" or self.id == "needle-brine"

    @property
    def takes(self) -> tuple[str, ...]:
        """What of water, strength, needle and school is to be said of it."""
        asked = {
            "water": self.has_water,
            "strength": self.method == "strong-brine",
            "needle": self.method == "injection",
            "school": self.timing == "school",
        }
        return tuple(name for name, is_asked in asked.items() if is_asked)

    @property
    def has_brine_to_chill(self) -> bool:
        """Whether a liquid is boiled or stirred, and chilled, before the piece goes in."""
        return self.needs_water


ONCE_A_DAY_H, TWICE_A_DAY_H = 24.0, 12.0
_STIR = "Turn it, stir the marinade"

WAYS: dict[WayName, Way] = {
    way.id: way
    for way in (
        Way("even-brine", "Even brine", "Brine", "even-brine",
            "salt sized to meat and water; it cannot oversalt, but takes long",
            "It is slow, and it wants a vessel and fridge room.",
            "school", "Put it in, under a plate so that it stays under",
            "Turn it, stir the brine", ONCE_A_DAY_H),
        Way("strong-brine", "Strong brine, timed", "Brine", "strong-brine",
            "much saltier than the target; out on time, then a rest",
            "An hour too long is too salty.",
            "lift", "Put it in, under a plate so that it stays under; note the hour",
            "Turn it, stir the brine", ONCE_A_DAY_H),
        Way("dry-cure", "Dry cure, bagged", "Dry", "dry-cure",
            "rubbed on, bagged, turned daily; no water",
            "All of the cure stays in the bag. It spreads unevenly unless it is turned.",
            "school", "Rub the cure in, all of it; bag it, press the air out",
            "Turn the bag, rub what has drawn back in", ONCE_A_DAY_H),
        Way("heaped-cure", "Dry cure, heaped, washed off", "Dry", "dry-cure",
            "buried in salt; the clock and the wash decide",
            "Nothing is measured: the clock alone decides, and no curing salt may be in it.",
            "lift", "Bury it in the salt, meat side; note the hour",
            "Pour off what has drawn, heap the salt back on", ONCE_A_DAY_H, heaped=True),
        Way("dry-brine", "Dry brine", "Dry", "dry-brine",
            "salted ahead, uncovered; 12 to 72 h, for birds and roasts with skin",
            "The centre stays unsalted: the salt does not get that far. Some find it too firm "
            "and would rather season just before the heat.",
            "window", "Salt it all over; onto a rack, uncovered, skin up",
            window_h=(12.0, 24.0, 72.0)),
        Way("needle-brine", "Needle and brine", "Needle", "injection",
            "a share goes in by needle, the rest covers; a third of the wait",
            "Not intact any more: hotter inside, never rare.",
            "model", "Inject it all over, then lay it into the rest of the brine",
            "Turn it, stir the brine", ONCE_A_DAY_H),
        Way("needle", "Needle alone", "Needle", "injection",
            "a measured share goes in by needle; a night or two",
            "Not intact any more: hotter inside, never rare. What runs out is salt that is lost.",
            "model", "Inject it all over, in rows a thumb apart; bag it",
            "Turn the bag", ONCE_A_DAY_H, cover=False),
        Way("oil-marinade", "Oil and herbs", "Marinade", "marinade",
            "flavour at the surface; salted late or not at all",
            "The inside stays unsalted: oil carries no salt into meat.",
            "window", "Into the marinade, turned until it is coated",
            window_h=(2.0, 10.0, 24.0)),
        Way("sauce-marinade", "Salty sauce, sugar, fruit", "Marinade", "marinade",
            "soy or fish sauce carries the salt; thin slices, 2 h to overnight",
            "Raw enzyme fruit softens and then spoils the texture: kiwi or pineapple 2 h in "
            "slices, pear and ginger overnight.",
            "window", "Into the marinade, turned until it is coated",
            window_h=(2.0, 8.0, ENZYME_SLOW_H.value)),
        Way("acid-marinade", "Wine, vinegar, citrus", "Marinade", "marinade",
            "sour and aromatic, stirred twice a day; 1 to 7 days",
            "Acid firms and sours the edge and protects nothing: the raw clock runs on.",
            "window", "Into the marinade, under a plate so that it stays under",
            _STIR, TWICE_A_DAY_H, window_h=(24.0, 72.0, 168.0)),
        Way("dairy-marinade", "Buttermilk or yoghurt", "Marinade", "marinade",
            "mild acid; 12 to 24 h",
            "It does not brown unless it is wiped off.",
            "window", "Into the marinade, turned until it is coated",
            window_h=(12.0, 18.0, 24.0)),
        Way("herb-marinade", "Salted green herbs and oil", "Marinade", "marinade",
            "much salt, long: 3 to 5 days",
            say("Raw herbs in oil keep 4 days at {4 °C} and no longer; it is turned twice a "
                "day."),
            "window", "Rub the herbs in, into a bag, press the air out",
            "Turn the bag", TWICE_A_DAY_H, window_h=(72.0, 84.0, 96.0)),
        Way("quick-pickle", "Quick pickle", "Side", "marinade",
            "salted to draw water, then sugar and vinegar; a day",
            "It does not keep long: a fridge pickle, eaten within the week.",
            "window", "Squeeze out, into the hot vinegar; let it cool, then the fridge",
            window_h=(12.0, 24.0, 96.0)),
        Way("mixed-in", "Mixed in", "Dry", "mixed-in",
            "salt and spices mixed into ground or cut meat; it waits for nothing",
            "Mixed long it binds and gets firm, like a sausage.",
            "window", "Mix it through, cold, until it is even",
            window_h=(0.0, 1.0, 24.0)),
    )
}  # fmt: skip

SCHOOLED = tuple(way.id for way in WAYS.values() if way.timing == "school")
