"""The cuts a cook can choose from.

Proportions and usual weights are common practice, and so is the bone where the table is silent.
"""

from dataclasses import dataclass, replace
from typing import Literal

from pantry_core.meat import Kind, Shape, Species
from pantry_core.routes.cut_figures import BONE, WATER
from pantry_core.routes.heats import HeatName
from pantry_core.rules.rule import Rule

PROPORTIONS: dict[Shape, float] = {"slab": 6.0, "cylinder": 1.6, "ball": 0.52}
"""Volume over the cube of the thickest part, for cuts that say nothing else (common practice)."""

Build = Literal["piece", "wall", "small"]
"""A piece; the wall of a whole bird, wet on both sides; small things cut apart or bought so."""


@dataclass(frozen=True, slots=True)
class Cut:
    """A cut: its kind and shape, shares [g/g], closed faces, and how it is usually cooked.

    `proportion` is its volume over the cube of its thickest part, where its shape does not tell;
    `is_chop`: seasoned as mildly as birds are; `cures`: it is meant to be salted through;
    `may_be_pink`: a breast that is eaten pink by choice; `has_legs`: where it is a whole bird;
    `piece_g`: what one of the small things weighs, where nobody says how many they are [g].
    """

    id: str
    kind: Kind
    name: str
    shape: Shape
    bone_share: float
    heat: HeatName
    closed_faces: int = 0
    water: Rule | None = None
    will_be: Literal["bacon"] | None = None
    proportion: float | None = None
    is_scored: bool = False
    is_tender: bool = False
    species: Species | None = None
    build: Build = "piece"
    is_chop: bool = False
    cures: bool = False
    may_be_pink: bool = False
    has_legs: bool = True
    piece_g: float | None = None

    @property
    def volume_over_cube(self) -> float:
        """Volume of the piece over the cube of its thickest part [-]."""
        return self.proportion or PROPORTIONS[self.shape]


def _bird(cut_id: str, name: str, proportion: float, *, is_scored: bool = False,
          piece_g: float | None = None) -> Cut:  # fmt: skip
    """A whole bird: for the salt a wall, wet on both sides; its skin is no closed face."""
    return Cut(cut_id, "poultry", name, "slab", 0.3, "roast", proportion=proportion,
               is_scored=is_scored, build="wall", piece_g=piece_g)  # fmt: skip


def _joint(cut_id: str, name: str, heat: HeatName = "roast", *, bone: float = 0.0,
           piece_g: float, proportion: float = 10.0,
           is_tender: bool = False, may_be_pink: bool = False) -> Cut:  # fmt: skip
    """A piece of a bird, cut apart or bought so."""
    return Cut(cut_id, "poultry", name, "slab", bone, heat,
               proportion=proportion, build="small", is_tender=is_tender,
               may_be_pink=may_be_pink, piece_g=piece_g)  # fmt: skip


_PORK: tuple[Cut, ...] = (
    Cut("gammon-boned", "pork", "Gammon or leg, boned", "cylinder", 0.0, "simmer-glaze",
        cures=True),
    Cut("gammon-flat", "pork", "Gammon or leg, opened flat", "slab", 0.0, "simmer-glaze",
        proportion=20.0, cures=True),
    Cut("gammon-bone", "pork", "Gammon or leg, bone in", "cylinder", 0.16, "simmer-glaze",
        closed_faces=1, is_scored=True, cures=True),
    Cut("pork-hock", "pork", "Hock", "cylinder", 0.3, "simmer", is_tender=True, cures=True,
        proportion=2.5),
    Cut("pork-loin", "pork", "Loin, boned", "cylinder", 0.0, "roast", proportion=4.0),
    Cut("pork-shoulder", "pork", "Shoulder, boned", "slab", 0.0, "slow-oven", proportion=8.0,
        is_tender=True),
    Cut("pork-chop", "pork", "Chops", "slab", 0.15, "sear", proportion=12.0, build="small",
        is_chop=True, piece_g=220.0),
    Cut("pork-ribs", "pork", "Ribs", "slab", 0.35, "slow-oven", proportion=40.0, is_tender=True),
    Cut("young-pig", "pork", "Young pig, whole", "slab", 0.3, "roast", proportion=30.0,
        build="wall", is_scored=True),
    Cut("belly-skinless", "pork", "Belly for bacon, skin off", "slab", 0.0, "slow-oven",
        will_be="bacon", proportion=30.0),
    Cut("belly-skin", "pork", "Belly for bacon, skin on", "slab", 0.0, "slow-oven",
        closed_faces=1, will_be="bacon", proportion=30.0, is_scored=True),
)  # fmt: skip
_BEEF: tuple[Cut, ...] = (
    Cut("brisket", "beef", "Brisket", "slab", 0.0, "simmer", proportion=20.0, is_tender=True),
    Cut("chuck", "beef", "Chuck", "slab", 0.0, "braise", proportion=6.0, is_tender=True),
    Cut("silverside", "beef", "Silverside or round", "cylinder", 0.0, "simmer", is_tender=True),
    Cut("beef-rib", "beef", "Rib, bone in", "slab", 0.2, "roast"),
    Cut("beef-steak", "beef", "Steaks", "slab", 0.0, "sear", proportion=12.0, build="small",
        piece_g=280.0),
    Cut("beef-cheek", "beef", "Cheek", "slab", 0.0, "braise", proportion=5.0, is_tender=True,
        build="small", piece_g=350.0),
    Cut("short-rib", "beef", "Short rib", "slab", 0.3, "braise", proportion=8.0, is_tender=True),
    Cut("tongue", "beef", "Tongue", "cylinder", 0.0, "simmer", proportion=3.0, is_tender=True),
)  # fmt: skip
_LAMB: tuple[Cut, ...] = (
    Cut("lamb-leg", "lamb", "Leg of lamb or goat, boned", "slab", 0.0, "roast", proportion=8.0),
    Cut("lamb-leg-bone", "lamb", "Leg of lamb or goat, bone in", "cylinder", 0.2, "roast"),
    Cut("lamb-shoulder", "lamb", "Shoulder of lamb or goat", "slab", 0.2, "slow-oven",
        proportion=10.0, is_tender=True),
    Cut("lamb-chump", "lamb", "Chump", "slab", 0.0, "roast", proportion=4.0),
    Cut("lamb-rack", "lamb", "Rack", "slab", 0.25, "roast", proportion=8.0),
    Cut("lamb-chop", "lamb", "Chops", "slab", 0.2, "sear", proportion=8.0, build="small",
        is_chop=True, piece_g=100.0),
    Cut("lamb-shank", "lamb", "Shanks", "cylinder", 0.35, "braise", proportion=2.5,
        is_tender=True, build="small", piece_g=400.0),
    Cut("young-goat", "lamb", "Young goat, whole", "slab", 0.3, "roast", proportion=30.0,
        build="wall"),
)  # fmt: skip
_GAME: tuple[Cut, ...] = (
    Cut("venison", "game", "Venison haunch, boned", "cylinder", 0.0, "roast"),
    Cut("game-shoulder", "game", "Shoulder of game", "slab", 0.2, "braise", proportion=8.0,
        is_tender=True),
    Cut("game-loin", "game", "Loin of game", "cylinder", 0.0, "roast", proportion=5.0),
    Cut("rabbit", "game", "Rabbit, in pieces", "slab", 0.25, "braise", proportion=8.0,
        species="rabbit", is_tender=True, build="small", piece_g=180.0),
)  # fmt: skip
_POULTRY: tuple[Cut, ...] = (
    _bird("chicken", "Chicken, whole", 18.0),
    _joint("chicken-breast", "Chicken breast", "bake", piece_g=200.0),
    _joint("chicken-thigh", "Chicken thighs", "bake", bone=0.2, proportion=4.0, piece_g=140.0),
    _joint("chicken-drumstick", "Chicken drumsticks", "bake", bone=0.3, proportion=1.2,
           piece_g=110.0),
    _joint("chicken-wing", "Chicken wings", "bake", bone=0.4, proportion=3.0, piece_g=90.0),
    _bird("duck", "Duck, whole", 45.0, is_scored=True),
    _joint("duck-breast", "Duck breast", "sear-oven", may_be_pink=True,
           piece_g=300.0),
    _joint("duck-leg", "Duck legs", "braise", bone=0.25, is_tender=True,
           proportion=4.0, piece_g=250.0),
    _bird("turkey", "Turkey, whole", 10.0),
    Cut("turkey-crown", "poultry", "Turkey crown", "slab", 0.15, "roast", proportion=6.0,
        build="wall", has_legs=False),
    Cut("turkey-boned", "poultry", "Turkey, boned", "slab", 0.0, "roast", proportion=8.0),
    _joint("turkey-leg", "Turkey legs", bone=0.25, proportion=2.0, piece_g=1000.0),
    _bird("goose", "Goose, whole", 35.0, is_scored=True),
    _joint("goose-breast", "Goose breast", "sear-oven", may_be_pink=True,
           piece_g=500.0),
    _joint("goose-leg", "Goose legs", "braise", bone=0.25, is_tender=True,
           proportion=3.0, piece_g=500.0),
    _bird("quail", "Quail", 30.0, piece_g=180.0),
    _bird("pheasant", "Pheasant", 28.0),
)  # fmt: skip
_FISH: tuple[Cut, ...] = (
    Cut("salmon-side", "fish", "Side of salmon, skin on", "slab", 0.0, "bake", closed_faces=1,
        proportion=25.0, build="small", piece_g=1400.0),
    Cut("salmon-piece", "fish", "Salmon, pieces", "slab", 0.0, "bake",
        proportion=5.0, build="small", piece_g=180.0),
    Cut("char-side", "fish", "Side of char, skin on", "slab", 0.0, "bake", closed_faces=1,
        proportion=25.0,
        build="small", piece_g=700.0),
    Cut("trout", "fish", "Trout, whole", "slab", 0.1, "bake", closed_faces=1, proportion=12.0,
        build="small", piece_g=350.0),
    Cut("trout-fillet", "fish", "Trout fillets, skin off", "slab", 0.0, "bake", proportion=20.0,
        build="small", piece_g=140.0),
    Cut("white-fillet", "fish", "White fish fillet", "slab", 0.0, "bake", proportion=20.0,
        build="small", piece_g=180.0),
    Cut("white-fish", "fish", "White fish, whole", "slab", 0.15, "bake", closed_faces=1,
        proportion=10.0, build="small", piece_g=600.0),
    Cut("mackerel", "fish", "Mackerel, herring or sardine", "slab", 0.0, "bake", closed_faces=1,
        proportion=15.0, species="mackerel", build="small", piece_g=300.0),
)  # fmt: skip
_VEGETABLES: tuple[Cut, ...] = (
    Cut("vegetable", "vegetable", "Firm vegetable", "cylinder", 0.0, "none"),
    Cut("cucumber", "vegetable", "Cucumber", "cylinder", 0.0, "none", build="small",
        proportion=4.5, piece_g=350.0),
    Cut("onion", "vegetable", "Onions", "slab", 0.0, "none", build="small", piece_g=120.0),
    Cut("radish", "vegetable", "Radishes", "ball", 0.0, "none", build="small", proportion=0.6,
        piece_g=15.0),
    Cut("cabbage", "vegetable", "Cabbage", "slab", 0.0, "none", build="small", piece_g=1000.0),
    Cut("roots", "vegetable", "Roots", "cylinder", 0.0, "none", build="small", proportion=4.0,
        piece_g=120.0),
)  # fmt: skip


def _with_figures(cut: Cut) -> Cut:
    """A cut with the water and the bone of the table, where the table has any like it."""
    bone = BONE.get(cut.id)
    share = cut.bone_share if bone is None else bone.value
    return replace(cut, water=WATER.get(cut.id), bone_share=share)


_ALL = (*_PORK, *_BEEF, *_LAMB, *_GAME, *_POULTRY, *_FISH, *_VEGETABLES)
BONE_BY_PRACTICE: dict[str, float] = {cut.id: cut.bone_share for cut in _ALL}
"""Bone of cuts by common practice, beside what the table says [g/g]."""
CUTS: dict[str, Cut] = {cut.id: _with_figures(cut) for cut in _ALL}
