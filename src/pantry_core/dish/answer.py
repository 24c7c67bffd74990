"""What a dish comes to: the answer of `dish`."""

from dataclasses import dataclass, field
from typing import Literal

from pantry_core.dish.lifting import Lift
from pantry_core.dish.recipe_asked import Goes
from pantry_core.heat.media import MediumName
from pantry_core.history.stays import Stay
from pantry_core.mixes.check import CheckOut
from pantry_core.mixes.recipe import CheckRequest
from pantry_core.mixes.request import Purpose, WeighRequest
from pantry_core.mixes.result import Line, Proposal, WeighOut
from pantry_core.notice import Level
from pantry_core.plan.request import After, OtherHeat
from pantry_core.routes.step import Until
from pantry_core.text import Sentence

Verdict = Literal["go", "caution", "stop"]


@dataclass(frozen=True, slots=True)
class DishStep:
    """A step ready to be planned: the step record of the `plan` document, with its words.

    `title` names it, `text` is what the hands do at its beginning, `tend` what a round is, `until`
    what it goes on until; windows [h], hands [min]. `trip` names the errand that it is part of,
    `after` are steps of other dishes that it waits for. At the heat `medium` is what it is in,
    `medium_c` how hot that is [°C], `covered` under a lid; from it on the piece has `form`,
    `count` and `thickness_mm` [mm]. `with_piece`: whether the piece itself is there, and not only
    its brine. `heat_c` is the temperature by which it shares its place with others [°C], `heats`
    are others that it can take.
    """

    id: str
    kind: str
    title: Sentence
    text: Sentence
    place: str | None
    min_h: float
    prefer_h: float | None
    max_h: float | None
    hands_min: float = 0.0
    attended: bool = False
    uses: float = 1.0
    every_h: float | None = None
    tend: Sentence = ""
    until: Until | None = None
    locked_start: str | None = None
    trip: str | None = None
    after: tuple[After, ...] = ()
    medium: MediumName | None = None
    medium_c: float | None = None
    covered: bool = False
    form: str | None = None
    count: int | None = None
    thickness_mm: float | None = None
    with_piece: bool = True
    heat_c: float | None = None
    heats: tuple[OtherHeat, ...] = ()

    def __post_init__(self) -> None:
        """Another dish shares an oven with it by its temperature."""
        object.__setattr__(self, "heat_c", self.medium_c if self.place == "oven" else None)


REMINDERS = frozenset((
    "brine-cold", "vessel", "curing-salt-handling", "lift-on-time", "boil-marinade", "not-intact",
    "herbs-in-oil", "smoked-fish-kept", "wild-game", "thickness-guess", "bacon-ascorbate",
    "no-model", "saltpetre-handling", "hot-fat", "inside-chosen", "salt-by-volume", "ice-by-volume",
))  # fmt: skip
"""What is said each time and asks for care, not for a change."""


@dataclass(frozen=True, slots=True)
class DishNotice:
    """Something the cook must know; `step` is the one that it holds back, None: none.

    `lift` is what would lift a stop.
    """

    level: Level
    code: str
    text: Sentence
    basis: Sentence
    step: str | None = None
    lift: Lift | None = None

    @property
    def is_reminder(self) -> bool:
        """Whether it asks for care, as it does each time, and for no change."""
        return self.level == "note" or self.code in REMINDERS


@dataclass(frozen=True, slots=True)
class Option:
    """A method that fits the piece: how long it takes [d], what it needs, why, whether in time.

    `late_h` is by how much it would be late [h], 0 where it is in time.
    """

    method: str
    days: float
    needs: tuple[Sentence, ...]
    because: Sentence
    in_time: bool = True
    late_h: float = 0.0


@dataclass(frozen=True, slots=True)
class SaltOut:
    """Salt when it comes out of the cure and has rested: average, outer 5 mm and heart [%].

    The heart is None where it is nothing to look for, as in a marinade.
    """

    mean_pct: float
    rim_pct: float
    heart_pct: float | None


@dataclass(frozen=True, slots=True)
class MixLine:
    """What goes in of one thing: its line of the recipe, None without; its mass or its number.

    `grams` is for this piece, None for what is counted or pinched; `as_written_g` what the line
    weighs in the recipe [g]; `salt_pct` how salty it is [%], None where nobody knows, and `basis`
    who says so; `goes` the part of the recipe; `step` the id of the step at which it is wanted.
    """

    line: int | None
    text: str
    name: str
    grams: float | None
    count: float | None
    unit: str | None
    as_written_g: float | None
    salt_pct: float | None
    basis: Sentence
    goes: Goes
    step: str | None


@dataclass(frozen=True, slots=True)
class LainWindow:
    """The time in the cure: shortest, usual, longest as far as the raw clock is silent [h]."""

    least: float
    usual: float
    most: float


@dataclass(frozen=True, slots=True)
class CookTime:
    """How long it cooks: usually, and within its spread [h]."""

    usual: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Counted:
    """What runs while it is at the heat: hours between cold and hot, and a hold.

    `warm_h` of at most `warm_most_h` between 10 and 54 °C [h]; `held_min` of `needed_min` at its
    goal or above [min], None where no hold is asked for.
    """

    warm_h: float
    warm_most_h: float
    held_min: float | None = None
    needed_min: float | None = None


@dataclass(frozen=True, slots=True)
class HeatHelp:
    """What would bring it to its goal sooner: the change of the heat, and what it gives up.

    The fields are those of a `heat-set` fact, no `medium` where it stays in its own, and no
    `temperature_c` where that is not changed; `left_h` is how much longer it takes then [h],
    `in_time` whether that is soon enough.
    """

    code: str
    text: Sentence
    gives_up: Sentence
    left_h: float
    in_time: bool
    medium: MediumName | None
    temperature_c: float | None
    covered: bool
    halved: bool = False


@dataclass(frozen=True, slots=True)
class Gate:
    """What the step that runs waits for: `holds` is the step that may not begin before.

    `may_pass`: the cook may go on all the same, for no stop stands. `asks` a temperature, a touch
    or a look; goal_c and what was read last [°C]; `left_h` how much longer by what was read [h],
    and in how long to look again [h]; `foretold` the way that the thickest part takes from now on,
    as hours from now and temperatures [h, °C]; `hint_c` where what is felt for is likely [°C];
    `medium_c` how hot it is meant to be around it; `wanted_h` how long it may take at the most, so
    that what follows is in time [h]; `helps`, where it is late, what would bring it there sooner.
    """

    step: str
    holds: str | None
    asks: Literal["temperature", "touch", "look"]
    is_open: bool
    may_pass: bool
    goal_c: float | None
    read_c: float | None
    touch: str | None
    left_h: CookTime | None
    look_again_h: float | None
    text: Sentence
    foretold: tuple[tuple[float, float], ...] = ()
    hint_c: float | None = None
    medium_c: float | None = None
    wanted_h: float | None = None
    counted: Counted | None = None
    helps: tuple[HeatHelp, ...] = ()


@dataclass(frozen=True, slots=True)
class RawTime:
    """How long it stays raw: by the shortest way, and as planned or as it happened [h]."""

    least: float
    planned: float | None


@dataclass(frozen=True, slots=True)
class Needed:
    """An ingredient of a side job, for all people together [g]."""

    name: str
    grams: float


@dataclass(frozen=True, slots=True)
class DishOut:
    """The whole answer; `asked` is the `weigh` document of the sheet, `way` how it is cooked.

    `gate` is what stands in the way of going on now; `ingredients` are those of a side job;
    `history` is what happens to the piece, by which it is judged. `sheet` is with a recipe the
    `check` answer of what goes into the cure, `mix` all that is weighed or counted, `window_h` the
    time in the cure, `proposals` what could be changed, one by one; `checked` is the `check`
    document of the recipe's cure.
    """

    options: tuple[Option, ...]
    sheet: WeighOut | CheckOut | None
    steps: tuple[DishStep, ...]
    salt: SaltOut | None
    cook_h: CookTime | None
    inside_c: float | None
    raw_h: RawTime | None
    notices: tuple[DishNotice, ...]
    verdict: Verdict
    purpose: Purpose | None = None
    days: float | None = None
    asked: WeighRequest | None = field(default=None)
    way: str | None = None
    gate: Gate | None = None
    ingredients: tuple[Needed, ...] = ()
    history: tuple[Stay, ...] = ()
    mix: tuple[MixLine, ...] = ()
    window_h: LainWindow | None = None
    proposals: tuple[Proposal, ...] = ()
    checked: CheckRequest | None = None
    format: Literal["pantry-clock/1"] = "pantry-clock/1"

    @property
    def weighed_out(self) -> WeighOut | None:
        """The sheet for the scale; with a recipe its lines that cure, for this piece."""
        if not isinstance(self.sheet, CheckOut):
            return self.sheet
        checked = self.sheet
        masses: dict[str, float] = {}
        for each in self.mix:
            if each.goes == "cure" and each.line is not None and each.grams:
                masses[each.name] = masses.get(each.name, 0.0) + each.grams
        return WeighOut(
            lines=tuple(Line(name, grams) for name, grams in masses.items()),
            pickle=checked.pickle, salt=checked.salt, nitrite=checked.nitrite,
            nitrate=checked.nitrate, needle_g=checked.needle_g, ready=checked.ready,
            notices=checked.notices,
            inside_c=checked.inside_c,
        )  # fmt: skip

    @property
    def stops(self) -> tuple[DishNotice, ...]:
        """The notices that cannot be passed."""
        return tuple(each for each in self.notices if each.level == "stop")
