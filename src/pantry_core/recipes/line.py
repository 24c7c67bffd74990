"""A line of a recipe as it was understood."""

from dataclasses import dataclass, field
from typing import Literal

from pantry_core.measures.units import RecipeUnit


@dataclass(frozen=True, slots=True)
class Basis:
    """What an amount is for: so much meat or so much water [g]."""

    of: Literal["meat", "water"]
    grams: float


@dataclass(frozen=True, slots=True)
class ReadLine:
    """A thing as it was understood; `problem` says what is allowed where it was not.

    `keys` are the ingredients that it may be; with `must_answer` the cook has to choose. `per` is
    what its amount is for, None for the whole recipe; `words` name it; `strength` is what its label
    says in the text [%]; `held_back` the share that is kept for the pot [-]; `days` how long the
    line says that it lies. A line that is a heading or a remark holds no ingredient.
    """

    text: str
    amount: float | None = None
    unit: RecipeUnit | None = None
    keys: tuple[str, ...] = ()
    question: str = ""
    must_answer: bool = False
    per: Basis | None = None
    is_meat: bool = False
    is_heading: bool = False
    problem: str = ""
    words: str = ""
    strength: dict[str, float] = field(default_factory=dict)
    held_back: float = 0.0
    days: float | None = None

    @property
    def key(self) -> str | None:
        """The ingredient, None while the cook must answer or nothing was found."""
        return None if self.must_answer or self.problem or not self.keys else self.keys[0]

    @property
    def name(self) -> str | None:
        """The ingredient, or the words of what no table knows; None while something is open."""
        is_open = self.must_answer or self.problem or self.is_heading
        return self.key or (None if is_open else self.words.strip(" .:,") or None)

    @property
    def asks(self) -> str:
        """What must be answered before the recipe is judged, "" where nothing is open."""
        if self.problem:
            return self.problem
        return self.question if self.must_answer else ""
