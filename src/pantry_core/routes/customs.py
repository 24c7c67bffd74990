"""Where cooks disagree in the handling: each choice, and what each side gives up."""

from dataclasses import dataclass
from typing import Final, Literal

from pantry_core.meat import Kind, Treatment
from pantry_core.quantities import Celsius, Minutes, Percent
from pantry_core.rules.inside import FISH, NOT_INTACT, OTHER_GAME, SMOKED_FISH_MIN, WILD_DEER
from pantry_core.rules.rule import Mark, Rule
from pantry_core.rules.smoke import AIR_SALT_PCT, VACUUM_SALT_PCT
from pantry_core.text import say

CustomName = Literal[
    "brine_by",
    "after_cure",
    "pot",
    "scoring",
    "tempering",
    "vegetables",
    "pressing",
    "fish",
    "storage",
    "game",
    "opened",
]

SOAK_H = Rule("soak-after-cure", 2.0, "h", "a soak in fresh water", Mark.PRACTICE)
PRESS_H = Rule("press-overnight", 12.0, "h", "under a weight", Mark.PRACTICE)
DRY_SURFACE_H = Rule("dry-the-surface", 12.0, "h", "uncovered, before smoke", Mark.PRACTICE)
KEPT_WARM_C = Rule("kept-warm", 60.0, "°C", "USDA, kept warm at this or above", Mark.MEMORY)
KEEP_WARM_H = Rule("keep-warm", 1.0, "h", say("held at {60 °C} or above"), Mark.PRACTICE)
KEEP_WARM_TENDER_H = Rule(
    "keep-warm-tender", 4.0, "h", say("what is tender, wrapped, at {60 °C} or above"), Mark.PRACTICE
)
COLD_CHILL_H = Rule("chill-cold-stirred", 2.0, "h", "a brine stirred cold", Mark.PRACTICE)


RAISED: Final[tuple[Kind, ...]] = ("pork", "beef", "lamb", "game", "poultry", "fish")
ALL_KINDS: Final[tuple[Kind, ...]] = (*RAISED, "vegetable")


@dataclass(frozen=True, slots=True)
class Choice:
    """One side of a disagreement."""

    id: str
    name: str
    gives_up: str


@dataclass(frozen=True, slots=True)
class Custom:
    """A disagreement with its sides, the usual one first, and the kinds that it is about."""

    id: CustomName
    name: str
    choices: tuple[Choice, ...]
    kinds: tuple[Kind, ...] = RAISED

    def is_about(self, kind: Kind) -> bool:
        """Whether it concerns a piece of this kind."""
        return kind in self.kinds


def _no_pink_slices(inside: Rule) -> str:
    return say("You lose pink slices: {inside} inside.", inside=Celsius(inside.value))


def _no_mild_cure(least: Rule) -> str:
    held = say(
        "{smoked_fish_min} at {fish}",
        smoked_fish_min=Minutes(SMOKED_FISH_MIN.value),
        fish=Celsius(FISH.value),
    )
    return say(
        "It is not a mild cure: {least} of salt in its water, and {held}.",
        least=Percent(least.value),
        held=held,
    )


CUSTOMS: tuple[Custom, ...] = (
    Custom("brine_by", "The brine", (
        Choice("boiled", "boiled", "It costs time: it must be chilled before anything goes in."),
        Choice("stirred", "stirred cold", "You lose the spices' strength, and it must be "
               "stirred until nothing crunches."),
    ), ALL_KINDS),
    Custom("after_cure", "After the cure", (
        Choice("rinse", "rinsed", "You lose the chance to take some salt back out."),
        Choice("soak", "soaked", "It costs some salt and cure at the edge, and two hours."),
    )),
    Custom("pot", "The used brine", (
        Choice("thrown", "thrown away", "You lose the flavour that is in it."),
        Choice("boiled", "boiled, for the pot", "You lose a mild broth: it is as salty as it "
               "was, and it is boiled first. Never for another piece."),
    )),
    Custom("scoring", "The skin", (
        Choice("late", "scored just before the heat", "It is more work: cold skin cuts better."),
        Choice("early", "scored before the cure", "You lose crackling: salt draws water under "
               "the wrapping."),
        Choice("none", "left whole", "You lose the pattern, and where fat runs out."),
    )),
    Custom("tempering", "Before the oven", (
        Choice("none", "straight from the fridge", "It is a little less even from edge to centre."),
        Choice("hour", "an hour at room temperature", say("It costs an hour of the two that are "
                                                          "allowed above {4 °C}, and warms the "
                                                          "centre by a few degrees only.")),
    )),
    Custom("vegetables", "Into the pot", (
        Choice("none", "nothing else", "You lose a one-pot supper."),
        Choice("late", "vegetables near the end", "You lose a clear broth."),
    )),
    Custom("pressing", "After the cure, pressed", (
        Choice("none", "not pressed", "You lose the close slice."),
        Choice("overnight", "under a weight overnight", "It costs a night and some juice."),
    )),
    Custom("fish", "Fish is eaten", (
        Choice("cooked", "cooked", "You lose the raw-cured slice."),
        Choice("raw-freeze", "raw, frozen by me first", say("It costs a week at {−20 °C}; a home "
                                                            "freezer at {−18 °C} is too warm.")),
        Choice("raw-safe", "raw, bought frozen so or exempt", "It leaves less choice of fish: "
               "the seller says so, or it is a farmed kind that is exempt."),
    ), ("fish",)),
    Custom("storage", "Smoked fish is", (
        Choice("meal", "eaten at the same meal", "It does not keep."),
        Choice("air", "kept, loosely wrapped", _no_mild_cure(AIR_SALT_PCT)),
        Choice("vacuum", "kept, vacuum-packed", _no_mild_cure(VACUUM_SALT_PCT)),
    ), ("fish",)),
    Custom("game", "Game is", (
        Choice("farmed", "farmed", "It costs nothing: it is cooked as beef is."),
        Choice("deer", "wild deer", _no_pink_slices(WILD_DEER)),
        Choice("other", "other wild game", _no_pink_slices(OTHER_GAME)),
    ), ("game",)),
    Custom("opened", "The piece is", (
        Choice("intact", "left as it grew", "It costs nothing."),
        Choice("pricked", "pricked or bladed", _no_pink_slices(NOT_INTACT)),
        Choice("slashed", "slashed into the meat", _no_pink_slices(NOT_INTACT)),
        Choice("injected", "sold ready-salted or basted", "You lose pink slices, and some of "
               "the salt is in it already: its label says how much."),
    )),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Customs:
    """How this cook does it; the defaults are the usual sides."""

    brine_by: str = "boiled"
    after_cure: str = "rinse"
    pot: str = "thrown"
    scoring: str = "late"
    tempering: str = "none"
    vegetables: str = "none"
    pressing: str = "none"
    fish: str = "cooked"
    storage: str = "meal"
    game: str = "farmed"
    opened: str = "intact"

    @property
    def treatment(self) -> tuple[Treatment, ...]:
        """What was done to the piece, as `weigh` has it."""
        return _TREATMENTS.get(self.opened, ())

    @property
    def wild(self) -> Literal["deer", "other"] | None:
        """Whether it is wild game, as `weigh` has it."""
        return _WILD.get(self.game)

    @property
    def kept(self) -> Literal["meal", "air", "vacuum"]:
        """How smoked fish is kept, as `weigh` has it."""
        return _STORAGE.get(self.storage, "meal")

    @property
    def is_raw(self) -> bool:
        """Whether a fish is eaten raw-cured."""
        return self.fish != "cooked"

    def side(self, custom: Custom) -> Choice:
        """The chosen side of a disagreement; the usual one for what is not known."""
        chosen = getattr(self, custom.id)
        return next((each for each in custom.choices if each.id == chosen), custom.choices[0])


_TREATMENTS: Final[dict[str, tuple[Treatment, ...]]] = {
    "pricked": ("pricked",), "slashed": ("slashed",), "injected": ("injected",),
}  # fmt: skip
_WILD: Final[dict[str, Literal["deer", "other"]]] = {"deer": "deer", "other": "other"}
_STORAGE: Final[dict[str, Literal["meal", "air", "vacuum"]]] = {"air": "air", "vacuum": "vacuum"}

USUAL = Customs()
