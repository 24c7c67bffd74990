"""From the piece as it was prepared to the piece that takes the salt."""

from dataclasses import dataclass, replace
from typing import Final, Literal

from pantry_core.dish.request import Form, Piece
from pantry_core.meat import MOST_THICKNESS_MM, Meat, Shape, Treatment
from pantry_core.notice import Notice, notice
from pantry_core.quantities import Grams, Millimetres
from pantry_core.routes.cuts import CUTS, Cut
from pantry_core.rules.constants import MEAT_DENSITY, THICK_FOR_MASS
from pantry_core.rules.rule import Mark, Rule
from pantry_core.text import say

DOUBT: Final = Rule(
    "thickness-guess", 0.2, "of the thickness, either way", "cuts differ", Mark.PRACTICE
)
FLAT_PROPORTION: Final = 20.0
"""Volume over the cube of the thickness of what was opened flat (common practice)."""
ROLLED_PROPORTION: Final = 2.0
"""The same of what was rolled and tied: two and a half times as long as it is thick (derived)."""


def _usual(form: str, mm: float) -> Rule:
    return Rule(
        f"thickness-{form}", mm, "mm", say("{form} as they are cut", form=form), Mark.PRACTICE
    )


USUAL_MM: Final[dict[Form, Rule]] = {
    "cubes": _usual("cubes", 30.0), "strips": _usual("strips", 10.0),
    "slices": _usual("slices", 5.0), "ground": _usual("ground", 30.0),
}  # fmt: skip
"""Thickness of what was cut small, where it was not measured."""
CUT_SMALL: Final[tuple[Form, ...]] = ("cubes", "strips", "slices", "ground")
SHAPES: Final[dict[Form, Shape]] = {
    "flat": "slab", "cubes": "ball", "strips": "slab", "slices": "slab", "ground": "slab",
    "rolled": "cylinder",
}  # fmt: skip
THICKEST_FOR_MASS: Final = Rule(
    "thickest-for-mass", 2.0, "times the thickness that the weight allows", "geometry", Mark.DERIVED
)


@dataclass(frozen=True, slots=True)
class Prepared:
    """The piece that takes the salt, its cut, and what its thickness was guessed at [mm]."""

    asked: Piece
    cut: Cut
    form: Form
    meat: Meat
    guess_mm: float | None

    @property
    def piece_g(self) -> float:
        """Mass of one piece [g]."""
        return one_piece_g(self.asked, self.cut)

    @property
    def is_small(self) -> bool:
        """Whether it is in pieces, not a roast or a whole bird."""
        return self.cut.build == "small" or self.form in ("pieces", "halves", *CUT_SMALL)

    @property
    def is_thin(self) -> bool:
        """Whether it is cut into strips or slices."""
        return self.form in ("strips", "slices")

    @property
    def is_meant_to_cure(self) -> bool:
        """Whether curing salt belongs to what it becomes."""
        is_corned = self.asked.will_be == "corned"
        return self.cut.cures or is_corned or self.meat.will_be == "bacon"

    @property
    def is_for_the_heart(self) -> bool:
        """Whether the salt shall reach its heart, where nobody says."""
        meat = self.meat
        is_raw_fish = meat.kind == "fish" and meat.will_be == "raw"
        return self.is_meant_to_cure or is_raw_fish or meat.is_kept_smoked


def one_piece_g(asked: Piece, cut: Cut) -> float:
    """The mass of one piece [g]; of small things whose number nobody said, as they usually are."""
    if "count" in asked.model_fields_set or cut.piece_g is None:
        return asked.mass_g / asked.count
    return asked.mass_g / max(1, round(asked.mass_g / cut.piece_g))


def prepared(asked: Piece) -> Prepared:
    """Work out the piece from its cut and form.

    Parameters: asked; its fields carry their units and ranges.
    Returns: the piece; its thickness guessed from weight and proportion where it was not measured,
    a closed face where skin or fat closes one. A bird's skin closes nothing.
    Raises: nothing for a piece that could be made.
    Source: proportions by common practice, volume by density.
    """
    cut = CUTS[asked.cut]
    form: Form = asked.form or ("pieces" if cut.build == "small" or asked.count > 1 else "whole")
    bone = cut.bone_share if asked.bone_share is None else asked.bone_share
    shape = SHAPES.get(form, cut.shape)
    mm = asked.thickness_mm
    guess_mm = None
    if mm is None:
        guess_mm = mm = guessed_mm(cut, form, one_piece_g(asked, cut) * (1.0 - bone))
    will_be = asked.will_be
    if "will_be" not in asked.model_fields_set:
        will_be = cut.will_be
    meat = Meat(
        kind=cut.kind,
        mass_g=asked.mass_g,
        thickness_mm=mm,
        shape=shape,
        bone_share=bone,
        form=_document_form(form),
        count=asked.count,
        will_be=None if will_be == "corned" else will_be,
        storage=asked.storage,
        wild=asked.wild,
        species=cut.species,
        sodium_mg=asked.sodium_mg,
        water_share=cut.water.value if cut.water else None,
        closed_faces=_closed_faces(cut, form, skin=asked.skin),
    )
    return Prepared(asked, cut, form, meat, guess_mm)


def at_the_speed(piece: Prepared, speed: float) -> Prepared:
    """A piece into which salt goes as fast as a kitchen has learnt.

    Parameters: piece; speed, a factor on the usual [-], which what is eaten raw and fish whose salt
    must hold a limit do not take.
    """
    if speed == 1.0 or piece.meat.will_be in ("raw", "smoked"):
        return piece
    return replace(piece, meat=piece.meat.model_copy(update={"salt_speed": speed}))


def treatment_of(piece: Prepared) -> tuple[Treatment, ...]:
    """What was done to the piece, that it is rolled or stuffed included."""
    by_form: tuple[Treatment, ...] = ()
    if piece.form == "rolled":
        by_form = ("rolled",)
    if piece.form == "stuffed":
        by_form = ("stuffed",)
    return tuple(dict.fromkeys((*piece.asked.treatment, *by_form)))


def guess_notices(piece: Prepared) -> tuple[Notice, ...]:
    """What must be said of a thickness that was guessed."""
    if piece.guess_mm is None or piece.form == "ground":
        return ()
    low, high = ((1.0 + sign * DOUBT.value) * piece.guess_mm for sign in (-1, 1))
    text = say(
        "The thickest part is guessed at {guess_mm}, between {low} and {high}. Measure "
        "it: twice as thick takes four times as long.",
        guess_mm=Millimetres(piece.guess_mm, 0),
        low=Millimetres(low, 0),
        high=Millimetres(high, 0),
    )
    return (notice("note", "thickness-guess", text, DOUBT),)


def size_notices(piece: Prepared) -> tuple[Notice, ...]:
    """What must be said of the size of a piece: guessed, or more than its weight allows."""
    guessed = guess_notices(piece)
    if not too_thick(piece):
        return guessed
    text = say(
        "{piece_g} cannot be {thickness_mm} thick: give the weight of all pieces and "
        "their number, or measure again.",
        piece_g=Grams(piece.piece_g, 0),
        thickness_mm=Millimetres(piece.meat.thickness_mm, 0),
    )
    return (*guessed, notice("caution", "thick-for-mass", text, THICK_FOR_MASS))


def too_thick(piece: Prepared) -> bool:
    """Whether a piece cannot be as thick as was said, for its weight.

    The thickest part of anything is at most the side of a cube of its volume, twice over.
    """
    volume_mm3 = 1000.0 * piece.piece_g / MEAT_DENSITY.value
    side_mm: float = volume_mm3 ** (1 / 3)
    return piece.meat.thickness_mm > THICKEST_FOR_MASS.value * side_mm


def guessed_mm(cut: Cut, form: Form, meat_g: float) -> float:
    """The thickest part of a piece that was not measured, from its meat without bone [g]; [mm]."""
    usual = USUAL_MM.get(form)
    if usual is not None:
        return usual.value
    proportion = {"flat": FLAT_PROPORTION, "rolled": ROLLED_PROPORTION}.get(
        form, cut.volume_over_cube
    )
    if form == "halves" and cut.build == "wall":
        proportion /= 2.0
    mm: float = (1000.0 * meat_g / MEAT_DENSITY.value / proportion) ** (1 / 3)
    return min(max(mm, 1.0), MOST_THICKNESS_MM)


def _document_form(form: Form) -> Literal["whole", "pieces", "ground"]:
    if form == "ground":
        return "ground"
    return "pieces" if form in ("halves", "pieces", *CUT_SMALL) else "whole"


def _closed_faces(cut: Cut, form: Form, *, skin: bool | None) -> int:
    if form in CUT_SMALL or cut.kind in ("poultry", "vegetable") or cut.build == "wall":
        return 0
    return cut.closed_faces if skin is None else int(skin)
